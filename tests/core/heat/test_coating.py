"""Coating in its mould and bowl: trade facts, and what must hold whatever the numbers."""

from dataclasses import replace

import numpy as np
import pytest
from ht import Nu_horizontal_plate_laminar_Baehr

from tests.conftest import FRIDGE, WOOD, make_lollipops
from umber_pebble.core.errors import OutOfRange
from umber_pebble.core.heat.casting import Casting, Place, PlaceStay
from umber_pebble.core.heat.convection import h_stream_w_m2k, nusselt_stream_pohlhausen_1921
from umber_pebble.core.heat.melting import Bath, Melting, heat_taken_j, melting_time_s
from umber_pebble.core.heat.pour import FatFlow, pour_window_s
from umber_pebble.core.heat.vessel import base_case
from umber_pebble.core.heat.windows import PieceWindows, windows_s
from umber_pebble.core.materials.load import material
from umber_pebble.core.spread import Spread, exact

COATING = material("melts", "coating")
BENCH = Place(material("surfaces", "trivet"), 0.005, 22.0, 22.0)
COLD_MOULD = replace(BENCH, surface_degc=10.0, air_degc=10.0)
FREEZER = replace(FRIDGE, surface_degc=-18.0, air_degc=-18.0)
FAN = replace(FRIDGE, air_m_s=material("kitchen", "fridge_fan", "air").spread("speed"))
BOWL = make_lollipops().ways["coating"].pot


def cast(
    depth_m: float, where: Place = FRIDGE, mould: str = "silicone", wall_m: float = 0.003, first: Place = BENCH
) -> PieceWindows:
    """A flat cast, poured at the bench and put away after a minute."""
    return windows_s(
        Casting(
            COATING,
            material("moulds", mould),
            exact(depth_m),
            0.0075,
            wall_m,
            Spread(36.0, 38.0, 40.0),
            None,
            (PlaceStay(0.0, first), PlaceStay(60.0, where)),
        )
    )


# Common practice, no source; the thicknesses that stand for "detail" and so on are this project's (docs/heat.md).
@pytest.mark.parametrize(
    ("piece", "name", "low_min", "high_min"),
    [
        (cast(0.001), "touch", 5, 5),  # a detail in the fridge, about 5 min
        (
            cast(0.0016, FRIDGE, first=COLD_MOULD),
            "touch",
            5,
            5,
        ),  # a second coat, its mould still cold from the first
        (cast(0.004), "unmould", 15, 20),  # a small solid motif in the fridge
        (cast(0.004, FREEZER), "unmould", 10, 10),  # and in the freezer, about 10 min
    ],
)
def test_set_times_hold_what_the_trade_finds(
    piece: PieceWindows, name: str, low_min: float, high_min: float
) -> None:
    found = piece.at[name].times(1 / 60)
    assert found.low <= high_min
    # practice rounds to half minutes
    assert found.high >= low_min - 0.5


# Common practice, no source: a disc on a sheet at room temperature, 20-30 min until it may be moved.
def test_a_disc_sets_at_room_temperature_in_twenty_to_thirty_minutes() -> None:
    room = replace(WOOD, surface_degc=20.0, air_degc=20.0, thickness_m=0.015)
    disc = windows_s(
        Casting(
            COATING,
            material("moulds", "thermoformed"),
            exact(0.004),
            0.015,
            0.0002,
            exact(38.0),
            None,
            (PlaceStay(0.0, room),),
        )
    )
    assert 15 * 60 < disc.at["touch"].likely < 30 * 60


def test_colder_and_windier_is_faster_and_thicker_slower() -> None:
    still, fan, freezer = cast(0.005), cast(0.005, FAN), cast(0.005, FREEZER)
    assert freezer.at["unmould"].likely < fan.at["unmould"].likely < still.at["unmould"].likely
    times = [cast(d).at["unmould"].likely for d in (0.002, 0.004, 0.008)]
    assert times == sorted(times)
    order = [still.at[n].likely for n in ("stick_closes", "still", "touch", "unmould")]
    assert order == sorted(order)
    assert freezer.at["over_chilled"].likely > freezer.at["unmould"].likely
    assert still.never("over_chilled")


def test_thin_films_wait_for_setting_and_thick_pieces_for_heat() -> None:
    assert cast(0.001).limited_by["touch"] == "setting"
    assert cast(0.010).limited_by["unmould"] == "heat"


def test_a_stream_of_air_agrees_with_ht() -> None:
    for re in (500.0, 4000.0, 2e5):
        assert nusselt_stream_pohlhausen_1921(0.71, re) == pytest.approx(
            Nu_horizontal_plate_laminar_Baehr(re, 0.71), rel=0.01
        )
    # common practice has a fridge fan at 15-25 W/m2K and a desk fan at 25-40, radiation with it
    assert 12 < h_stream_w_m2k(15.0, 4.0, 0.06, 1.0) < 20
    assert 20 < h_stream_w_m2k(25.0, 21.0, 0.06, 2.5) < 32


def test_a_bowl_pours_from_when_it_is_cool_enough_until_it_thickens() -> None:
    flow = FatFlow(COATING, Spread(41.0, 43.0, 45.0), 60.0)
    small, large = (pour_window_s(base_case(BOWL, COATING, kg), flow) for kg in (0.1, 0.6))
    assert small.limited_by == "heat"
    assert small.open_degc.likely == pytest.approx(40.0, abs=0.3)
    assert 24.0 < small.close_degc.likely < 32.0
    assert large.width.likely > 1.5 * small.width.likely
    cool = pour_window_s(base_case(BOWL, COATING, 0.1), replace(flow, off=exact(38.0)))
    assert cool.opens.likely == 0.0


def test_melting_takes_the_heat_of_warming_and_its_latent_heat_once() -> None:
    # by hand, from 50 to 60 degrees, where all of it is melt: (0.2 x 1650 + 0.11 x 1900) x 10 J
    case = base_case(BOWL, COATING, 0.2)
    above = heat_taken_j(Melting(case, 50.0, 60.0, Bath(80.0)), np.linspace(50.0, 60.0, 60))[-1]
    assert above == pytest.approx((0.2 * 1650 + 0.11 * 1900) * 10, rel=0.01)
    through = heat_taken_j(Melting(case, 21.0, 43.0, Bath(80.0)), np.linspace(21.0, 43.0, 60))[-1]
    assert through == pytest.approx(0.2 * (1580 * 22 + 40_000) + 0.11 * 1900 * 22, rel=0.05)


def test_a_bath_too_cool_is_refused() -> None:
    case = base_case(BOWL, COATING, 0.2)
    assert melting_time_s(Melting(case, 21.0, 43.0, Bath(65.0))).likely > 120.0
    with pytest.raises(OutOfRange, match="hotter water"):
        melting_time_s(Melting(case, 21.0, 43.0, Bath(42.0)))


def test_moving_after_a_while_lies_between() -> None:
    at_once, later = cast(0.005), replace_path(0.005, 600.0)
    never = replace_path(0.005, 10_000.0)
    assert at_once.at["touch"].likely < later.at["touch"].likely < never.at["touch"].likely
    before = later.likely_run.times_s <= 600.0
    same = np.interp(later.likely_run.times_s[before], never.likely_run.times_s, never.likely_run.mean_degc)
    assert later.likely_run.mean_degc[before] == pytest.approx(same, abs=0.3)


def replace_path(depth_m: float, moved_s: float) -> PieceWindows:
    path = (PlaceStay(0.0, BENCH), PlaceStay(moved_s, FRIDGE))
    pour = Spread(36.0, 38.0, 40.0)
    return windows_s(
        Casting(COATING, material("moulds", "silicone"), exact(depth_m), 0.0075, 0.003, pour, None, path)
    )
