"""Dipping as it is done: at 30 degC at most, twelve in a row, centres from the room or from the cold. Common practice, no source."""

from dataclasses import replace

import numpy as np
import pytest
from scipy.integrate import quad

from umber_pebble.core.families.fats import thicker_by
from umber_pebble.core.fat.crystallise import set_after_frac, setting_of
from umber_pebble.core.materials.load import material
from umber_pebble.core.melts.centre import cold_centre
from umber_pebble.core.melts.dip import Dip, dip_floor_degc, dipped
from umber_pebble.core.melts.hold import Held
from umber_pebble.core.pieces.films import dip_film_m
from umber_pebble.core.spread import exact

COATING, DARK, FRUIT = (material("melts", "coating"), material("melts", "dark"), material("fillings", "fruit"))
ROOM = 21.0
TRUFFLE = Dip(12, 0.02, ROOM, 2500.0, 0.03, 0.03, 0.006, 2.0, 12.0)


@pytest.mark.parametrize(
    ("melt", "bath_degc", "says"),
    [
        (COATING, 30.0, "dip"),
        (COATING, 30.4, "dip after it has come down"),
        (COATING, 29.0, "dip"),
        (COATING, 24.0, "thick"),
        (DARK, 31.5, "dip"),
        (DARK, 22.0, "thick"),
    ],
)
def test_a_right_bath_is_called_right(melt: object, bath_degc: float, says: str) -> None:
    assert isinstance(melt, type(COATING))
    floor, most = dip_floor_degc(melt, TRUFFLE.count * TRUFFLE.every_s), melt.value("dip_most")
    said = "thick" if bath_degc < floor.likely else "dip" if bath_degc <= most else "dip after it has come down"
    assert said == says


def test_a_dip_of_twelve_at_30_degc_step_by_step() -> None:
    """The bath falls by what each centre takes and the room takes; it is warmed when it would thicken, and only then."""
    bath = dipped(Held(COATING, 0.25, exact(30.0), "bowl", ROOM), TRUFFLE, 0.09)
    assert len(bath.after_degc) == 12
    assert np.all(np.diff([30.0, *bath.after_degc]) < 0)
    assert 28.0 < bath.after_degc[-1] < 29.5
    assert bath.warm_after == ()
    # two dozen from the fridge in a small bath: it is warmed when it would thicken
    many = dipped(
        Held(COATING, 0.15, exact(30.0), "bowl", ROOM), replace(TRUFFLE, count=24, degc=4.0, coat_kg=0.004), 0.09
    )
    first = many.warm_after[0]
    assert many.after_degc[first - 1] < many.floor_degc.likely <= many.after_degc[first - 2]
    # five cold centres cool a small bath noticeably
    cold = dipped(Held(COATING, 0.25, exact(30.0), "bowl", ROOM), replace(TRUFFLE, count=5, degc=4.0), 0.09)
    assert 30.0 - cold.after_degc[-1] > 1.3 * (30.0 - bath.after_degc[4])
    # a large bath holds
    large = dipped(Held(COATING, 2.0, exact(30.0), "bowl", ROOM), TRUFFLE, 0.15)
    assert large.warm_after == ()


def test_the_floor_is_where_setting_thickens_it() -> None:
    """Avrami at one temperature in closed form: X = X_rest (1 - exp(-(K t)^n)), its start left out."""
    for seconds in (120.0, 600.0, 3600.0):
        floor = dip_floor_degc(COATING, seconds)
        s = setting_of(COATING)
        rate0 = s.kinetics()[4]
        grown = rate0 * np.exp(-s.slope_k / (s.melts_degc - floor.likely)) * seconds
        start = (-np.log(1 - s.start_frac / s.rest_frac(floor.likely))) ** (1 / s.exponent)
        closed = s.rest_frac(floor.likely) * (1 - np.exp(-((grown + start) ** s.exponent)))
        assert closed == pytest.approx(COATING.value("set_thickens"), rel=1e-3)
        assert set_after_frac(s.start_frac, 30.4, 600.0, s.kinetics()) < COATING.value("set_thickens")
        assert floor.low < floor.likely < floor.high < 30.0
    assert dip_floor_degc(COATING, 3600.0).likely > dip_floor_degc(COATING, 120.0).likely


def test_a_coat_at_30_degc_is_thicker_than_one_at_40() -> None:
    """The energy of flow integrated: d ln(eta) / d(1/T) = E / R."""
    energy, _ = quad(lambda t: 35000 / 8.314462618 / t**2, 303.15, 313.15)
    assert thicker_by(COATING, 30.0) == pytest.approx(np.exp(energy), rel=1e-6)
    warm, right = (dip_film_m(COATING, 0.03, 30.0, 0.03, degc).likely for degc in (40.0, 30.0))
    assert right > 1.05 * warm
    assert dip_film_m(COATING, 0.03, 30.0, 0.03).likely == right


def test_a_centre_from_the_cold_is_a_choice_with_consequences() -> None:
    """Both schools: frozen truffle centres set at once; cold fruit cracks its coat, and sweats in a damp room."""
    coat = 0.001
    frozen, chilled = (
        cold_centre(COATING, replace(TRUFFLE, degc=degc), FRUIT, 30.0, coat, ROOM, 0.6) for degc in (-18.0, 4.0)
    )
    assert frozen.touch.likely < chilled.touch.likely < frozen.touch_at_room.likely / 2
    assert frozen.meets_degc < chilled.meets_degc < 20.0
    assert frozen.grows_frac > chilled.grows_frac > 0
    assert (frozen.cracks, frozen.sweats) == ("some", "high")
    dry = cold_centre(COATING, replace(TRUFFLE, degc=10.0), FRUIT, 30.0, coat, ROOM, 0.3)
    assert dry.sweats == "low"


# Common practice, no source: a bath far below its 30 degC is thick; nobody dips from one at 15.
def test_a_bath_for_a_few_pieces_has_no_floor_of_its_own() -> None:
    few = dipped(Held(COATING, 0.25, exact(30.0), "bowl", ROOM), replace(TRUFFLE, count=3), 0.09)
    assert 25.0 < few.floor_degc.likely < 28.0
