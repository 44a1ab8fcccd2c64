"""Windows of pots and discs: trade facts, and what must hold whatever the numbers."""

from dataclasses import replace

import numpy as np
import pytest

from tests.conftest import make_pot
from umber_pebble.core.errors import OutOfRange
from umber_pebble.core.glass.viscosity import log_viscosity_wlf_1955, tg_spread_degc
from umber_pebble.core.glass.water import boils_at_degc, water_of_cook
from umber_pebble.core.heat.casting import Casting, Place, PlaceStay
from umber_pebble.core.heat.hob import Heating, heating_curve, hob_time_s
from umber_pebble.core.heat.pour import SugarFlow, bubbles_risen_s, pour_window_s
from umber_pebble.core.heat.vessel import base_case
from umber_pebble.core.heat.windows import windows_s
from umber_pebble.core.materials.load import Material, material
from umber_pebble.core.spread import Spread, exact


def place(surface: str = "wood", degc: float = 22.0, room: float = 22.0) -> Place:
    return Place(material("surfaces", surface), 0.02, degc, room)


def casting(isomalt: Material, depth_m: float = 0.0025, where: Place | None = None, **changes: object) -> Casting:
    tg = tg_spread_degc(isomalt, water_of_cook(isomalt, wet=True, cook_degc=160.0, altitude_m=0.0))
    made = Casting(
        isomalt,
        material("moulds", "silicone"),
        Spread(0.9 * depth_m, depth_m, depth_m),
        0.015,
        0.003,
        exact(132.0),
        tg,
        (PlaceStay(0.0, where or place()),),
    )
    return replace(made, **changes)  # type: ignore[arg-type]


def cook(isomalt: Material, wet: bool = True, bears: float = 230.0) -> SugarFlow:
    water = water_of_cook(isomalt, wet=wet, cook_degc=160.0, altitude_m=0.0)
    return SugarFlow(
        isomalt,
        Spread(158.0, 160.0, 162.0),
        tg_spread_degc(isomalt, water),
        boils_at_degc(water.likely, 0.0),
        bears,
    )


# Common practice, no source: a leaf of a few millimetres may be bent after "a few minutes, when the rim lets go".
def test_a_leaf_bends_for_a_minute_or_two_within_a_few_minutes(isomalt: Material) -> None:
    w = windows_s(casting(isomalt))
    assert 20 < w.at["bend_opens"].likely < 90
    assert 100 < w.at["bend_closes"].likely < 240
    assert w.at["brittle"].likely > w.at["bend_closes"].likely


# Common practice, no source: "cools faster: cold table".
def test_a_cold_slab_is_faster_and_a_warm_room_slower(isomalt: Material) -> None:
    bench, slab = windows_s(casting(isomalt)), windows_s(casting(isomalt, where=place("granite", 12.0)))
    warm = windows_s(casting(isomalt, where=place(degc=28.0, room=28.0)))
    assert (
        slab.at["bend_closes"].likely < 0.8 * bench.at["bend_closes"].likely < 0.8 * warm.at["bend_closes"].likely
    )


def test_moving_to_the_slab_after_a_minute_lies_between(isomalt: Material) -> None:
    moved = windows_s(casting(isomalt, path=(PlaceStay(0.0, place()), PlaceStay(60.0, place("granite", 12.0)))))
    bench, slab = windows_s(casting(isomalt)), windows_s(casting(isomalt, where=place("granite", 12.0)))
    assert slab.at["unmould"].likely < moved.at["unmould"].likely < bench.at["unmould"].likely
    before = moved.likely_run.times_s <= 60.0
    same = np.interp(moved.likely_run.times_s[before], bench.likely_run.times_s, bench.likely_run.mean_degc)
    assert moved.likely_run.mean_degc[before] == pytest.approx(same, abs=0.6)


def test_windows_come_in_order_and_thicker_takes_longer(isomalt: Material) -> None:
    last = 0.0
    for depth in (0.002, 0.004, 0.008, 0.016):
        w = windows_s(casting(isomalt, depth))
        order = [w.at["bend_opens"], w.at["bend_closes"], w.at["brittle"], w.at["unmould"]]
        assert [s.likely for s in order] == sorted(s.likely for s in order)
        assert all(s.low <= s.likely <= s.high for s in order)
        assert w.at["unmould"].likely > last
        last = w.at["unmould"].likely


def test_a_wet_glass_in_a_hot_room_never_sets(isomalt: Material) -> None:
    soft = casting(isomalt, tg=exact(24.0), where=place(degc=30.0, room=30.0))
    assert windows_s(soft).never("unmould")


def test_water_moves_the_closing_as_the_trade_finds(isomalt: Material) -> None:
    # pour closes near 132 C at 1 % water and near 125 C at 1.8 % (docs/heat.md)
    case = base_case(make_pot(mass_kg=1.4), isomalt, 0.2)
    for water, degc in ((0.010, 132.0), (0.018, 125.4)):
        tg = tg_spread_degc(isomalt, exact(water))
        window = pour_window_s(case, replace(cook(isomalt), tg=tg))
        assert window.close_degc.likely == pytest.approx(degc, abs=0.5)
        assert log_viscosity_wlf_1955(window.close_degc.likely, tg.likely) == pytest.approx(1.5, abs=1e-9)


def test_pour_window_opens_with_bubbles_boiling_or_mould_whichever_is_last(isomalt: Material) -> None:
    case = base_case(make_pot(mass_kg=1.4), isomalt, 0.2)
    free, tender = pour_window_s(case, cook(isomalt)), pour_window_s(case, cook(isomalt, bears=140.0))
    assert free.limited_by == "bubbles"
    assert tender.limited_by == "mould"
    assert tender.opens.likely > free.opens.likely
    assert tender.open_degc.likely == pytest.approx(140.0, abs=0.2)


def test_a_deep_pot_never_clears_and_says_so_by_no_width(isomalt: Material) -> None:
    deep = pour_window_s(base_case(make_pot(0.10, 0.4), isomalt, 0.9), cook(isomalt, wet=False))
    assert deep.width.likely == 0.0
    assert deep.opens.likely == deep.closes.likely


def test_bubbles_rise_by_stokes_where_nothing_cools(isomalt: Material) -> None:
    times, tg = np.linspace(0, 4000, 4001), 47.3
    visc = 10 ** log_viscosity_wlf_1955(150.0, tg)
    speed = 2 / 9 * 1430 * 9.80665 * 0.0002**2 / visc
    found = bubbles_risen_s(times, np.full(times.size, 150.0), tg, 0.01, 0.0002, 1430.0)
    assert found == pytest.approx(0.01 / speed, rel=1e-6)


def test_hob_time_is_the_energy_over_the_power(isomalt: Material) -> None:
    # by hand: 300 g nibs (glass) from 22 to 150 C: 0.3 x (1350 x 41 + 1950 x 87) J, a weightless pot that loses nothing
    case = replace(base_case(make_pot(mass_kg=0.02), isomalt, 0.3), loss_factor=0.0, stand_h_w_m2k=0.0)
    heating = Heating(case, 0.0, False, 22.0, 150.0, 0.0, 1000.0, exact(0.5))
    by_hand = 0.3 * (1350 * 41 + 1950 * 87) + 0.02 * 500 * 128
    assert heating_curve(heating, 0.5, 0.0)[0][-1] == pytest.approx(by_hand / 500, rel=0.01)
    crystals = replace(heating, crystalline=True)
    assert hob_time_s(crystals).likely > hob_time_s(heating).likely


def test_water_makes_the_cook_longer_and_a_weak_ring_is_refused(isomalt: Material) -> None:
    case = base_case(make_pot(), isomalt, 0.6)
    dry = Heating(case, 0.0, True, 22.0, 160.0, 0.0, 1800.0, exact(0.6))
    assert hob_time_s(replace(dry, water_kg=0.06)).likely > hob_time_s(dry).likely + 100
    with pytest.raises(OutOfRange, match="too weak"):
        hob_time_s(replace(dry, ring_w=100.0))
