"""Sugar on the ring: stages and water against published tables, caramel and its drizzle against practice."""

import math

import numpy as np
import pytest
from iapws import IAPWS97

from tests.conftest import make_pot
from umber_pebble.core.errors import OutOfRange
from umber_pebble.core.families.known import family_of
from umber_pebble.core.glass.water import pressure_pa
from umber_pebble.core.heat.hob import Heating, hob_time_s
from umber_pebble.core.heat.vessel import base_case
from umber_pebble.core.materials.load import material
from umber_pebble.core.melts.sugar import (
    Cooking,
    browning_min,
    clearer,
    cooking,
    dry_caramel,
    faults,
    stages_here,
    white_passes_frac,
)
from umber_pebble.core.spread import Spread

SUGAR, ISOMALT, CARAMEL = (material("melts", key) for key in ("cooked_sugar", "isomalt", "caramel"))


def cooked(
    kg: float = 0.5, water_kg: float = 0.18, to_degc: float = 154.0, altitude_m: float = 0.0, before: int = 0
) -> Cooking:
    case = base_case(make_pot(mass_kg=1.2), SUGAR, kg)
    heating = Heating(case, water_kg, True, 21.0, to_degc, altitude_m, 1800.0, Spread(0.45, 0.6, 0.7))
    return cooking(heating, hob_time_s(heating), before)


# Boiling points of sugar syrups by solids, cookery-science table (from memory): 95 % at 140, 97 % at 151 degC.
@pytest.mark.parametrize(("to_degc", "water"), [(140.0, 0.05), (151.0, 0.03), (123.0, 0.10)])
def test_water_left_is_the_tables(to_degc: float, water: float) -> None:
    made = cooked(to_degc=to_degc)
    assert made.water_left.likely == pytest.approx(water, rel=0.02)
    # what went in is what boiled off and what is left
    left = 0.5 * made.water_left.likely / (1 - made.water_left.likely)
    assert made.boiled_off_kg + left == pytest.approx(0.18, abs=1e-9)


def test_stages_come_in_order_and_sooner_on_a_mountain() -> None:
    made, high = cooked(), cooked(altitude_m=1500.0)
    assert [s.name for s in made.stages][:3] == ["thread", "soft ball", "firm ball"]
    times = [s.at_s for s in made.stages]
    assert times == sorted(times, key=lambda t: t or 0.0)
    # at equal water activity: water boils 5.0 K lower at 1500 m, a syrup the more the hotter it boils (iapws 1.5.5)
    ratio = pressure_pa(1500.0) / 101325.0
    for (_, sea), (_, here) in zip(stages_here(0.0), stages_here(1500.0), strict=True):
        steam = IAPWS97(T=sea + 273.15, x=0).P
        assert here == pytest.approx(IAPWS97(P=steam * ratio, x=0).T - 273.15, abs=0.02)
    assert high.stages[-1].from_degc < made.stages[-1].from_degc + 10.0


def test_a_full_pot_foams_over_and_a_dry_one_less() -> None:
    assert cooked(1.5, 0.5).foam_m > cooked(1.5, 0.5).height_m
    assert cooked(0.2, 0.07).foam_m < cooked(0.2, 0.07).height_m


def test_hotter_cooks_are_clearer_and_only_past_a_point_browner() -> None:
    """Common practice, no source."""
    case = base_case(make_pot(mass_kg=1.2), ISOMALT, 0.3)
    rows = clearer(Heating(case, 0.0, True, 21.0, 160.0, 0.0, 1800.0, Spread(0.45, 0.6, 0.7)), 0)
    water, brown = [r.water_frac for r in rows], [r.browned_frac for r in rows]
    assert len(rows) >= 4
    assert water == sorted(water, reverse=True) and water[0] > 1.5 * water[-1]
    assert brown == sorted(brown)
    usual = next(r for r in rows if r.degc == 160.0)
    assert usual.browned_frac < 0.5 < rows[-1].browned_frac * 2


def test_browning_adds_up_until_it_is_spent() -> None:
    # a minute at 160 is a minute; R T^2 ln 2 / E = 7.7 K more double it (140 kJ/mol)
    t = np.array([0.0, 60.0])
    assert browning_min(t, np.array([160.0, 160.0])) == pytest.approx(1.0)
    assert browning_min(t, np.array([167.7, 167.7])) == pytest.approx(2.0, rel=0.05)
    left = [cooked(before=n).cooks_left for n in range(8)]
    assert left == sorted(left, reverse=True)
    assert left[0] > 0
    assert left[-1] == 0


# Common practice, no source: dry caramel in a shallow pan takes 3 to 4 min on medium-low; a lifted spoonful holds a thread after 15 to 20 s.
def test_dry_caramel_and_its_drizzle_are_those_of_the_trade() -> None:
    pan = make_pot(0.24, 0.8, height_m=0.06)
    made = [
        dry_caramel(base_case(pan, CARAMEL, kg), 1800.0, Spread(0.6, 0.7, 0.8), 170.0, 22.0) for kg in (0.2, 0.3)
    ]
    assert 165.0 < made[0].amber_s.likely < made[1].amber_s.likely < 270.0
    assert made[0].lift_from_s < 18.0 < made[0].lift_until_s
    assert [s.name for s in made[0].stages][-1] == "bitter"


def test_white_nibs_dim_a_pane_with_its_thickness() -> None:
    assert white_passes_frac(0.0, 0.003) == 1.0
    assert white_passes_frac(0.1, 0.006) == pytest.approx(white_passes_frac(0.1, 0.003) ** 2)
    assert math.isclose(white_passes_frac(0.2, 0.003), white_passes_frac(0.1, 0.006))


def test_what_is_seen_has_a_meaning_and_something_to_do() -> None:
    for melt in (SUGAR, material("melts", "coating")):
        assert all(f.means and f.do for f in faults(family_of(melt).rows))
    assert {"grains", "yellow", "boils over"} <= {f.seen for f in faults(family_of(ISOMALT).rows)}


@pytest.mark.parametrize(
    ("call", "field"),
    [
        (lambda: cooked(before=-1), "before"),
        (lambda: cooked(to_degc=200.0), "cook_degc"),
        (lambda: white_passes_frac(1.5, 0.003), "share_frac"),
        (
            lambda: dry_caramel(base_case(make_pot(), CARAMEL, 0.2), 1000.0, Spread(0.6, 0.7, 0.8), 120.0, 22.0),
            "off_degc",
        ),
    ],
)
def test_what_cannot_be_is_refused(call: object, field: str) -> None:
    with pytest.raises(OutOfRange) as refused:
        call()  # type: ignore[operator]
    assert refused.value.path == field
