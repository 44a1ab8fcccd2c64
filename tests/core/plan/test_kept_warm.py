"""Melts that are kept warm between their pours: which are, for how long they stay fluid, and which are not."""

from dataclasses import replace

import pytest

from tests.conftest import make_lollipops
from umber_pebble.core.heat.vessel import HORIZON_S, base_case, losses_w
from umber_pebble.core.materials.load import material
from umber_pebble.core.plan.compile import compile_plan
from umber_pebble.core.plan.keeper import Keeper
from umber_pebble.core.plan.kept_warm import kept_warm, not_kept
from umber_pebble.core.plan.problem import Named, PlanInput

NAVY = "coating#1f2a44"


def in_water(degc: float, takes: int = 4, navy: int = 8, **line: object) -> PlanInput:
    """16 lollipops of coating, and some of another colour, out of bowls that are to be kept in water so warm."""
    base = make_lollipops()
    way = base.ways["coating"]
    bath = replace(way.pot, stand=material("kitchen", "bath", "keeps"), below_degc=degc)
    kept = replace(way, keeper=Keeper("warm water", bath, takes))
    lollipop = replace(base.lines[0], **line)  # type: ignore[arg-type]
    other = replace(lollipop, named=Named("Navy"), melt=NAVY, quantity=navy)
    ways = {"coating": kept, NAVY: replace(kept, colour=NAVY.partition("#")[2], vessel_id="cup")}
    return replace(base, lines=(lollipop, other), ways=ways)


def test_what_stands_in_warm_water_stays_fluid_and_is_not_melted_again() -> None:
    asked = in_water(38.0)
    plan = kept_warm(asked)
    assert all(way.kept and way.stand_id == "warm water" for way in plan.ways.values())
    assert list(not_kept(plan)) == []
    stands, kept = compile_plan(asked).cooks[0], compile_plan(plan).cooks[0]
    assert kept.window.closes.likely == HORIZON_S > 2 * stands.window.closes.likely
    # it settles where the water gives what the room takes: by the balance of heat, nothing is lost there
    settled = float(kept.window.likely_degc[-1])
    case = base_case(kept.way.rests, kept.way.melt, kept.charge_kg)
    assert losses_w(case, [settled])[0] == pytest.approx(0.0, abs=0.02)  # type: ignore[arg-type]
    assert plan.room_degc < settled < 38.0
    melts = compile_plan(plan).day.day.melts
    assert all(melt.again == melt.warm for melt in melts)
    assert all(melt.again == melt.first for melt in compile_plan(asked).day.day.melts)


@pytest.mark.parametrize(
    ("degc", "line", "why"),
    [
        pytest.param(60.0, {}, "warm", id="hotter than it was melted"),
        pytest.param(38.0, {"dip": (0.02, 0.03), "works": ()}, "warm", id="dipped into, at most 30 degC"),
        pytest.param(22.0, {}, "cool", id="no warmer than the bench"),
    ],
)
def test_what_it_does_not_suit_stands_and_cools(degc: float, line: dict[str, object], why: str) -> None:
    plan = kept_warm(in_water(degc, **line))
    assert not any(way.kept for way in plan.ways.values())
    assert {of.why for of in not_kept(plan)} == {why}


def test_one_place_goes_to_what_is_poured_most_of() -> None:
    plan = kept_warm(in_water(38.0, takes=1, navy=40))
    assert {melt for melt, way in plan.ways.items() if way.kept} == {NAVY}
    [of] = not_kept(plan)
    assert (of.named, of.keeper, of.why) == (Named("Lollipop"), "warm water", "full")
