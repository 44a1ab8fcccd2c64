"""What comes out of a mould and what does not, and a piece that leaves the cold. Common practice, no source, unless named."""

import math

import psychrolib
import pytest

from tests.conftest import WOOD
from umber_pebble.core.heat.advice import risks
from umber_pebble.core.heat.casting import Casting, Place, PlaceStay
from umber_pebble.core.heat.sweat import LONGEST_S, leaves_cold_s, sweat
from umber_pebble.core.heat.windows import windows_s
from umber_pebble.core.humidity.dew import dew_point_degc, humidity_ratio
from umber_pebble.core.materials.load import material, tempered
from umber_pebble.core.spread import exact

psychrolib.SetUnitSystem(psychrolib.SI)
FREEZER = Place(material("surfaces", "trivet"), 0.005, -18.0, -18.0)
ROOM = Place(material("surfaces", "wood"), 0.02, 22.0, 22.0)


def cast(
    melt: str, mould: str, temper: str = "tempered", path: tuple[PlaceStay, ...] = (PlaceStay(0.0, WOOD),)
) -> Casting:
    return Casting(
        tempered(material("melts", melt), temper),
        material("moulds", mould),
        exact(0.005),
        0.01,
        0.001,
        exact(32.0),
        None,
        path,
    )


@pytest.mark.parametrize(
    ("melt", "mould", "temper", "level"),
    [
        ("dark", "polycarbonate", "unseeded", "certain"),
        ("white", "polycarbonate", "unseeded", "certain"),
        ("dark", "aluminium", "unseeded", "certain"),
        ("dark", "polycarbonate", "tempered", "low"),
        ("dark", "silicone", "unseeded", "low"),
        ("coating", "thermoformed", "tempered", "low"),
        ("dark", "thermoformed", "unseeded", "some"),
    ],
)
def test_untempered_in_a_rigid_mould_nothing_comes_out(melt: str, mould: str, temper: str, level: str) -> None:
    casting = cast(melt, mould, temper)
    [sticks] = [r for r in risks(casting, windows_s(casting), temper, None) if r.kind == "sticks"]
    assert sticks.level == level


def test_a_piece_sweats_when_it_leaves_the_cold_not_when_it_could_first_be_unmoulded() -> None:
    """Fourteen minutes in the freezer, its earliest unmoulding long before."""
    path = (PlaceStay(0.0, FREEZER), PlaceStay(14 * 60.0, ROOM))
    dew = dew_point_degc(22.0, 0.55)
    assert leaves_cold_s(path, 8 * 60.0, dew) == 14 * 60.0
    assert leaves_cold_s(path[:1], 9 * 60.0, dew) == 9 * 60.0
    assert leaves_cold_s((PlaceStay(0.0, ROOM),), 30 * 60.0, dew) == 30 * 60.0
    w = windows_s(cast("coating", "silicone", path=path))
    out = float(w.likely_run.mean_degc[w.likely_run.times_s.searchsorted(14 * 60.0)])
    assert out < dew
    found = sweat(0.005, 1270.0, 1500.0, out, 22.0, 0.55)
    assert found.sweats_s is not None and found.sweats_s > 60.0


def test_an_end_that_is_not_reached_is_none() -> None:
    """A thick block from the freezer in damp air is wet longer than it is followed."""
    block = sweat(0.09, 1270.0, 1500.0, -18.0, 28.0, 0.85)
    assert block.dry_s is None
    dry = sweat(0.003, 1270.0, 1500.0, 4.0, 22.0, 0.2)
    assert dry.sweats_s is not None and dry.sweats_s < 30.0
    assert dry.dry_s is not None and dry.dry_s < LONGEST_S


@pytest.mark.parametrize("degc", [4.0, 22.0, 35.0])
@pytest.mark.parametrize("humidity", [0.3, 0.6, 0.95])
@pytest.mark.parametrize("pressure", [101325.0, 84500.0])
def test_humidity_ratio_is_psychrolibs(degc: float, humidity: float, pressure: float) -> None:
    """psychrolib 2.5.0 (ASHRAE 2017 formulae)."""
    ours = humidity_ratio(degc, humidity, pressure)
    assert ours == pytest.approx(psychrolib.GetHumRatioFromRelHum(degc, humidity, pressure), rel=0.008)


def test_sweating_by_an_independent_integration() -> None:
    """The same balance integrated by hand with psychrolib's humidity ratios and a coefficient held fixed: within a fifth, since
    the coefficient moves."""
    t, water, most, h = 4.0, 0.0, 0.0, 4.7
    in_air = psychrolib.GetHumRatioFromRelHum(24.0, 0.6, 101325.0)
    for _ in range(20_000):
        comes = h / (1006.0 * 0.85 ** (2 / 3)) * (in_air - psychrolib.GetSatHumRatio(max(t, 0.1), 101325.0))
        comes = max(comes, -water / 0.5)
        water += 0.5 * comes
        most = max(most, water)
        radiates = 0.9 * 5.670374419e-8 * ((24 + 273.15) ** 4 - (t + 273.15) ** 4)
        t += 0.5 * (h * (24 - t) + radiates + 2.45e6 * comes) / (1280.0 * 1500.0 * 0.0025)
    found = sweat(0.005, 1280.0, 1500.0, 4.0, 24.0, 0.6)
    assert math.isclose(found.water_kg_m2, most, rel_tol=0.2)
