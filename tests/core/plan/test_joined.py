"""Parts that are joined, places that are full, vessels that are small, baths that must cover: kept by one person."""

import itertools
from dataclasses import replace
from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.conftest import clashes, make_lollipops
from tests.core.pieces import made
from tests.published import rows
from umber_pebble.core.materials.load import material
from umber_pebble.core.melts.dip import bath_kg
from umber_pebble.core.pieces.assembly import foot_stress_pa
from umber_pebble.core.pieces.body import Body
from umber_pebble.core.pieces.build import lay_on
from umber_pebble.core.pieces.joints import Joint, joined
from umber_pebble.core.pieces.melt_ref import MeltRef
from umber_pebble.core.plan.charge import holds_kg
from umber_pebble.core.plan.checks import remarks_of
from umber_pebble.core.plan.compile import Plan, compile_plan
from umber_pebble.core.plan.cooks import route_of
from umber_pebble.core.plan.problem import HandStep, Mould, Named, PlanInput, PlanLine
from umber_pebble.core.plan.remarks import ShelfSmall
from umber_pebble.core.plan.spares import BreakRate
from umber_pebble.core.plan.summary import summary_of
from umber_pebble.core.spread import Spread

COATING = material("melts", "coating")
NO_LOSS = BreakRate(0, 500)


def planets(pieces: int, props: int, shelves: dict[str, int], dry_s: float) -> PlanInput:
    """Pieces of four lollipops each, joined by melt in props, then by glue."""
    base = make_lollipops(6)
    part = replace(base.lines[0], quantity=4 * pieces, works=(), break_rate=NO_LOSS)
    laid = joined(Joint(0.1, 0, 0.004, 0.0, 0.0, COATING, 0.006), COATING, 4)
    assert laid.cast is not None
    prop = Mould("props", 0, material("moulds", "silicone"), 0.001, part.mould.cavity, props, 1, 300.0, "props")
    seam = PlanLine(
        "Seam", pieces, "coating", prop, laid.cast, BreakRate(), kind="join", needs=(0,), hold_s=60.0, item=0
    )
    glue = HandStep("join", Named("Ring"), 0, pieces, 0.0001, 30.0, Spread(600.0, 1200.0, 1800.0), (0,))
    paste = HandStep("press", Named("Badge"), 1, 3, 0.01, 20.0, Spread(300.0, 600.0, 900.0))
    return replace(
        base, lines=(part, seam), by_hand=(glue, paste), shelves=shelves, paces=replace(base.paces, dry_s=dry_s)
    )


def kept(problem: PlanInput, plan: Plan) -> None:
    """One pair of hands keeps it: nothing is joined before it is cast, no mould is wet, no place is over full."""
    assert clashes(list(plan.tasks)) == []
    off = {t.round: t.end_s for t in plan.tasks if t.kind == "unmould"}
    dry = {t.round: t.end_s for t in plan.tasks if t.kind == "dry"}
    pours = {t.round: t for t in plan.tasks if t.kind == "pour"}
    rounds = list(plan.rounds)
    cast = [r for r in rounds if problem.lines[r.line].cast_off]
    for r in rounds:
        for part in problem.lines[r.line].needs:
            assert all(off[c.number] <= pours[r.number].start_s + 1e-6 for c in cast if c.line == part)
    for before, after in itertools.pairwise(cast):
        assert dry[before.number] <= pours[after.number].start_s + 1e-6
    for step in (t for t in plan.tasks if t.kind == "join"):
        assert all(end <= step.start_s + 1e-6 for number, end in off.items() if rounds[number or 0] in cast)
    for place, takes in problem.shelves.items():
        lies = [
            (pours[r.number].end_s, off[r.number])
            for r in rounds
            if route_of(problem, problem.lines[r.line], r.casts)[-1][1] == place
        ]
        for start, _ in lies:
            assert sum(a <= start < b for a, b in lies) <= takes


@settings(max_examples=12, deadline=None)
@given(st.integers(1, 5), st.integers(1, 3), st.integers(1, 2), st.sampled_from([0.0, 900.0]))
def test_joins_wait_for_their_parts_and_places_for_room(pieces: int, props: int, takes: int, dry_s: float) -> None:
    place = make_lollipops(6).ways["coating"].sets_in_id
    problem = planets(pieces, props, {place: takes}, dry_s)
    plan = compile_plan(problem)
    kept(problem, plan)
    joins = [r for r in plan.rounds if problem.lines[r.line].needs]
    assert sum(r.casts for r in joins) == pieces
    assert max(r.casts for r in joins) <= props
    # hands hold each piece of a join for as long as it takes
    seam = problem.lines[1]
    for t in plan.tasks:
        if t.round is not None and t.kind == "pour" and plan.rounds[t.round].line == 1:
            lasts = plan.rounds[t.round].casts * (problem.paces.pour_each_s + seam.hold_s)
            assert t.end_s - t.start_s == pytest.approx(lasts)
    # joins are no castings
    assert summary_of(plan).casts.value.likely == sum(r.casts for r in plan.rounds if r.line == 0)
    assert [b.name for b in summary_of(plan).by_hand] == ["Ring", "Badge"]


def test_a_full_place_is_waited_for() -> None:
    """Two bowls, a mould of each: the second could lie beside the first, and waits where there is room for one."""
    base = make_lollipops(6)
    way, line = base.ways["coating"], base.lines[0]
    first = replace(line, quantity=line.mould.cavities, works=(), break_rate=NO_LOSS)
    second = replace(first, melt="second", mould=replace(line.mould, mould_id="another"))
    ways = {"coating": way, "second": replace(way, vessel_id="another bowl")}
    problem = replace(base, lines=(first, second), ways=ways)

    def at_once(takes: dict[str, int]) -> int:
        plan = compile_plan(replace(problem, shelves=takes))
        start = {t.round: t.end_s for t in plan.tasks if t.kind == "pour"}
        end = {t.round: t.start_s for t in plan.tasks if t.kind == "unmould"}
        assert len(start) == 2
        return max(sum(start[r] <= at < end[r] for r in start) for at in start.values())

    assert at_once({}) == 2
    assert at_once({way.sets_in_id: 1}) == 1


def test_a_place_too_small_for_one_melt_is_said() -> None:
    base = make_lollipops(6)
    two = replace(base.lines[0], mould=replace(base.lines[0].mould, owned=3), quantity=20, break_rate=NO_LOSS)
    place = base.ways["coating"].sets_in_id
    plan = compile_plan(replace(base, lines=(two,), shelves={place: 1}))
    assert ShelfSmall(place, needs=3, has=1) in remarks_of(plan)


def test_a_vessel_is_not_filled_over_what_it_holds() -> None:
    base = make_lollipops(6)
    many = replace(
        base.lines[0], mould=replace(base.lines[0].mould, owned=20), quantity=120, works=(), break_rate=NO_LOSS
    )
    way = base.ways["coating"]
    small = replace(way, pot=replace(way.pot, diameter_m=0.1, height_m=0.05))
    plan = compile_plan(replace(base, lines=(many,), ways={"coating": small}))
    assert len(plan.cooks) > 1
    assert all(c.charge_kg <= holds_kg(small, False) * (1 + 1e-6) for c in plan.cooks)
    assert not any(w.code == "pot_too_small" for w in remarks_of(plan))
    assert sum(r.casts for r in plan.rounds) == plan.casts[0] >= 120


def test_a_bath_covers_the_last_that_is_dipped() -> None:
    base, fruit = make_lollipops(6), material("fillings", "fruit")
    body = Body("cone", 0.034, 0.042, fruit, None, 8.0, True)
    [laid], _ = lay_on(body, (made.dip(MeltRef("coating", None), 0.03),))
    assert laid.cast is not None
    tray = Mould("tray", 0, material("moulds", "silicone"), 0.001, base.lines[0].mould.cavity, 30, 1, 300.0)
    berry = PlanLine(
        "Berry", 12, "coating", tray, laid.cast, NO_LOSS, under=laid.under, kind="dip", dip=(0.03, 0.034)
    )
    plan = compile_plan(replace(base, lines=(berry,)))
    [cook] = plan.cooks
    way = base.ways["coating"]
    stays = bath_kg(COATING.value("density_melt"), way.pot.diameter_m, 0.03, 0.034)[1]
    left = cook.charge_kg - cook.poured_kg
    assert left >= stays
    assert left > 5 * cook.poured_kg * 0.05
    # in a narrow cup it takes less
    cup = replace(way, pot=replace(way.pot, diameter_m=0.06))
    narrow = compile_plan(replace(base, lines=(berry,), ways={"coating": cup}))
    assert narrow.cooks[0].charge_kg < cook.charge_kg


def test_a_second_melt_is_swirled_in_right_before_the_pour() -> None:
    base = make_lollipops(6)
    whole = replace(base.lines[0], quantity=20, works=(), break_rate=NO_LOSS)
    swirl = replace(whole, named=Named("Swirl"), melt="coating#f1ead9", last=False, kind="swirl", with_next=True)
    main = replace(whole, after=0)
    way = base.ways["coating"]
    plan = compile_plan(
        replace(base, lines=(swirl, main), ways={"coating#f1ead9": replace(way, vessel_id="cup"), "coating": way})
    )
    assert clashes(list(plan.tasks)) == []
    for pour in (t for t in plan.tasks if t.kind == "pour"):
        on = plan.rounds[pour.round or 0].on
        [stirred] = [t for t in plan.tasks if t.kind == "swirl" and t.round == on]
        assert stirred.end_s == pytest.approx(pour.start_s)
        molten = [t.end_s for t in plan.tasks if t.kind == "cook" and t.number == plan.rounds[on or 0].cook]
        assert molten[0] <= stirred.start_s
        # its vessel is not weighed into again while it still holds what is to be swirled
        cup = [t.start_s for t in plan.tasks if t.kind == "weigh" and plan.cooks[t.number].way.vessel_id == "cup"]
        own = [t.start_s for t in plan.tasks if t.kind == "weigh" and t.number == plan.rounds[on or 0].cook]
        assert all(start >= stirred.end_s - 1e-6 for start in cup if start > own[0])


CASES = {
    "foot_stress": foot_stress_pa,
}


@rows(__file__)
def test_outside_values(row: dict[str, Any]) -> None:
    assert CASES[row["of"]](**row["given"]) == pytest.approx(row["expects"], abs=row["within"])
