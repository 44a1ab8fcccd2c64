"""Spares against scipy, and what every plan must hold."""

import math
from dataclasses import fields, replace
from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from scipy.stats import betabinom

from tests.conftest import BEND, STICK, clashes, make_disc, make_lollipops, make_plan, make_pot, refilled
from tests.published import rows
from umber_pebble.core.errors import Missing, MouldTooWeak, OutOfRange
from umber_pebble.core.materials.load import material
from umber_pebble.core.melts.oven import Microwave
from umber_pebble.core.pieces.cast import amounts
from umber_pebble.core.plan.checks import remarks_of
from umber_pebble.core.plan.compile import compile_plan
from umber_pebble.core.plan.cooks import casts_in_window
from umber_pebble.core.plan.fat_melt import FatMelt
from umber_pebble.core.plan.melted import melted
from umber_pebble.core.plan.problem import PlanInput
from umber_pebble.core.plan.spares import BreakRate, casts_needed, chance_enough_frac
from umber_pebble.core.plan.summary import summary_of
from umber_pebble.core.plan.window_rows import window_rows
from umber_pebble.core.spread import Spread


@pytest.mark.parametrize(("broken", "good"), [(0, 0), (2, 22), (0, 200), (30, 70)])
@pytest.mark.parametrize("needed", [1, 12, 24, 100])
def test_spares_are_those_of_scipys_beta_binomial(broken: int, good: int, needed: int) -> None:
    rate = BreakRate(broken, good)
    casts = casts_needed(needed, 0.9, rate)

    def chance(n: int) -> float:
        return float(betabinom.cdf(n - needed, n, rate.alpha, rate.beta))

    assert chance_enough_frac(casts, needed, rate) == pytest.approx(chance(casts), rel=1e-9)
    assert chance(casts) >= 0.9 > chance(casts - 1)


def test_two_of_twenty_four_lost_makes_twenty_eight_next_time() -> None:
    assert casts_needed(24, 0.9, BreakRate(broken=2, good=22)) == 28


def test_grams_add_up_and_the_pot_is_carried_over() -> None:
    small = make_pot(0.1, 0.8, height_m=0.05)
    plan = compile_plan(make_plan({"pot": small}))
    cooks = list(plan.cooks)
    assert sum(c.casts for c in cooks) == plan.casts[0] >= 24
    first, second = cooks
    assert first.charge_kg == pytest.approx(first.poured_kg + first.reserve_kg + first.residue_kg.likely)
    assert second.fresh_kg == pytest.approx(second.charge_kg - (first.charge_kg - first.finished_kg))
    melt = melted(plan, "isomalt")
    finished, left = melt.finished.value.likely, melt.left.value.likely
    assert plan.fresh_kg("isomalt") == pytest.approx(finished + left)
    assert melt.poured.value.likely == pytest.approx(finished + melt.scraped.value.likely)


@pytest.mark.parametrize("make", [make_plan(), make_lollipops()])
def test_every_number_says_formula_and_inputs(make: PlanInput) -> None:
    plan = compile_plan(make)
    [key], glance, rows = make.ways, summary_of(plan), window_rows(plan)
    melt = melted(plan, key)
    numbers = [melt.poured, melt.left, glance.melts[0].fresh, glance.start, glance.castings[0].casts]
    numbers += [getattr(c, n) for c in melt.cooks for n in ("charge", "hob")]
    numbers += [getattr(pot, n) for pot in rows.pots for n in ("opens", "closes", "capacity")]
    told = [getattr(row.windows, field.name) for row in rows.casts for field in fields(row.windows)]
    numbers += [number for number in told if number]
    assert len(numbers) > 12
    assert all(n.formula and n.inputs for n in numbers)
    assert all(n.value.low <= n.value.likely <= n.value.high for n in numbers)


def test_a_large_cook_takes_a_tenth_of_water_and_a_small_one_none() -> None:
    small = compile_plan(make_plan())
    large = compile_plan(make_plan(lines=(replace(make_plan().lines[0], quantity=60, mould=_many()),)))
    assert small.cooks[0].water_kg == 0
    assert large.cooks[0].water_kg == pytest.approx(0.1 * large.cooks[0].fresh_kg)
    assert large.cooks[0].water_left.likely > small.cooks[0].water_left.likely  # type: ignore[union-attr]


def _many():  # type: ignore[no-untyped-def]
    return replace(make_plan().lines[0].mould, owned=6)


def test_slow_hands_heat_it_more_often() -> None:
    fast = make_plan(lines=(replace(make_plan().lines[0], mould=_many()),))
    slow = replace(fast, paces=replace(fast.paces, pour_each_s=25.0))
    few, many = compile_plan(fast), compile_plan(slow)
    assert len(many.heats) > len(few.heats)
    pace = slow.paces.pour_each_s
    for heat in many.heats:
        casts = sum(many.rounds[n].casts for n in heat.rounds)
        assert casts <= casts_in_window(many.cooks[heat.cook].window, pace).likely


def test_bent_pieces_are_poured_only_as_many_as_can_be_bent() -> None:
    flat, bent = (make_plan(lines=(replace(refilled(make_plan().lines[0], 0.0025), works=w),)) for w in ((), BEND))
    slow = replace(bent, paces=replace(bent.paces, bend_each_s=25.0))
    sizes = [max(r.casts for r in compile_plan(p).rounds) for p in (flat, bent, slow)]
    assert sizes[0] == 14
    assert sizes[2] < sizes[0]
    w = compile_plan(slow).windows[0]
    assert sizes[2] * 25.0 + slow.paces.pour_each_s <= w.at["bend_opens"].likely + w.work_width["bend"].low + 1e-6


@settings(max_examples=12, deadline=None)
@given(
    quantity=st.integers(1, 120),
    owned=st.integers(1, 4),
    cavities=st.integers(1, 20),
    bend=st.booleans(),
    fill_m=st.floats(0.0015, 0.006),
    pour_s=st.floats(2.0, 20.0),
    stand=st.sampled_from(["wood", "granite", "trivet"]),
)
def test_any_timetable_can_be_kept_by_one_person(
    quantity: int, owned: int, cavities: int, bend: bool, fill_m: float, pour_s: float, stand: str
) -> None:
    base = make_plan({"pot": make_pot(0.2, 2.0, stand, Spread(0.8, 1.0, 1.25), 0.15)})
    mould = replace(base.lines[0].mould, owned=owned, cavities=cavities)
    lines = (replace(refilled(base.lines[0], fill_m), quantity=quantity, mould=mould, works=BEND if bend else ()),)
    plan = compile_plan(replace(base, lines=lines, paces=replace(base.paces, pour_each_s=pour_s)))
    assert clashes(list(plan.tasks)) == []
    ends = max(t.end_s for t in plan.tasks if t.kind == "unmould")
    assert ends == pytest.approx(base.due_s - plan.fares.spare_s)
    # what hands are behind on most days has its time, and what has no time for it begins at once
    assert plan.fares.in_time_frac >= 0.94 or plan.start_s <= 0
    emptied = {t.round: t.end_s for t in plan.tasks if t.kind == "clean"}
    pours = {t.round: t for t in plan.tasks if t.kind == "pour"}
    assert sum(r.casts for r in plan.rounds) == plan.casts[0]
    for pour in pours.values():
        # no more moulds are full at once than there are
        full = [n for n in pours if n is not None and pours[n].start_s <= pour.start_s < emptied[n]]
        assert sum(math.ceil(plan.rounds[n].casts / cavities) for n in full) <= owned


def test_what_cannot_be_planned_is_refused_or_said() -> None:
    plan = make_plan()
    line = plan.lines[0]
    with pytest.raises(Missing, match="add a line"):
        compile_plan(replace(plan, lines=()))
    with pytest.raises(OutOfRange, match="fill_m"):
        refilled(line, 0.0061)
    with pytest.raises(OutOfRange, match="quantity"):
        compile_plan(replace(plan, lines=(replace(line, quantity=0),)))
    with pytest.raises(OutOfRange, match="cook_degc"):
        compile_plan(make_plan({"by": replace(plan.ways["isomalt"].by, cook_degc=float("nan"))}))
    weak = replace(line.mould, material=material("moulds", "polycarbonate"), bears_degc=120.0)
    with pytest.raises(MouldTooWeak, match="silicone or metal"):
        compile_plan(replace(plan, lines=(replace(line, mould=weak),)))
    codes = {w.code for w in remarks_of(compile_plan(replace(plan, due_s=-60.0, humidity_frac=0.8)))}
    assert {"due_in_past", "sticky_room"} <= codes
    assert "too_late" in {w.code for w in remarks_of(compile_plan(replace(plan, due_s=600.0)))}
    huge = make_disc(0.12, 0.03)
    one = replace(refilled(line, 0.03, huge), quantity=1)
    deep = make_plan({"pot": make_pot(0.1, 0.4, height_m=0.2)}, lines=(one,))
    assert "window_never" in {w.code for w in remarks_of(compile_plan(deep))}


def test_two_materials_are_kept_by_one_person_each_in_its_vessel() -> None:
    sugar, lollipops = make_plan(), make_lollipops()
    both = replace(sugar, lines=sugar.lines + lollipops.lines, ways=sugar.ways | lollipops.ways)
    plan = compile_plan(both)
    assert clashes(list(plan.tasks)) == []
    assert list(plan.problem.ways) == ["isomalt", "coating"]
    for key in plan.problem.ways:
        melt = melted(plan, key)
        assert plan.fresh_kg(key) == pytest.approx(melt.finished.value.likely + melt.left.value.likely)
    assert {t.kind for t in plan.tasks} >= {"pour", "stick", "unmould"}
    # a stick displaces melt: its cylinder, by hand
    bare = replace(
        lollipops,
        lines=(
            replace(
                lollipops.lines[0],
                works=(),
                cast=amounts(lollipops.lines[0].mould.cavity, 0.006, material("melts", "coating")),
            ),
        ),
    )
    with_, without = (compile_plan(p).problem.lines[0].cast.finished.value.likely for p in (lollipops, bare))
    assert without - with_ == pytest.approx(math.pi * 0.002**2 * 0.03 * 1245, rel=1e-6)


def test_sticks_are_put_into_only_as_many_as_stay_soft() -> None:
    usual = make_lollipops()
    [stick] = STICK
    slowly = (replace(stick, on=(replace(stick.on[0], each_s=60.0),)),)
    slow = replace(usual, lines=tuple(replace(line, works=slowly) for line in usual.lines))
    sizes = [max(r.casts for r in compile_plan(p).rounds) for p in (usual, slow)]
    assert sizes[0] == 8
    assert sizes[1] < 8


def test_metal_stays_out_of_the_microwave_and_plastic_off_the_ring() -> None:
    steel, plastic = (material("kitchen", m, "pot") for m in ("steel", "plastic"))
    bowl, pot = make_lollipops().ways["coating"].pot, make_plan().ways["isomalt"].pot
    with pytest.raises(OutOfRange, match="no metal in the microwave"):
        compile_plan(make_lollipops(pot=replace(bowl, metal=steel)))
    with pytest.raises(OutOfRange, match="does not go on a ring"):
        compile_plan(make_plan({"pot": replace(pot, metal=plastic)}))
    with pytest.raises(OutOfRange, match="melt_to_degc"):
        compile_plan(make_lollipops(by=FatMelt(58.0, Microwave(900.0, 15.0), "oven")))
    freezer = replace(make_lollipops().ways["coating"].sets_in, surface_degc=-25.0, air_degc=-25.0)
    codes = {w.code for w in remarks_of(compile_plan(make_lollipops(sets_in=freezer)))}
    assert "chills_first" in codes


CASES = {
    "chance_enough": lambda casts, needed, broken, good: chance_enough_frac(
        casts, needed, BreakRate(broken, good)
    ),
}


@rows(__file__)
def test_outside_values(row: dict[str, Any]) -> None:
    assert CASES[row["of"]](**row["given"]) == pytest.approx(row["expects"], abs=row["within"])
