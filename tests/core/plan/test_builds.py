"""Parts of several passes in a plan: in their order, on what bears them, kept by one person; cards and running short."""

from dataclasses import replace

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.conftest import STICK, clashes, make_lollipops
from tests.core.pieces.made import detail, filling, shell
from tests.told import from_log
from umber_pebble.core.bench.again import cooks_now
from umber_pebble.core.bench.replay import accept as replay
from umber_pebble.core.bench.short import running_short
from umber_pebble.core.bench.state import CookState, Layout, RoundState, RunState
from umber_pebble.core.errors import NotInSequence, OutOfRange
from umber_pebble.core.families.fats import COATING as COATING_FAMILY
from umber_pebble.core.materials.load import material
from umber_pebble.core.moulds.cavity import Cavity
from umber_pebble.core.moulds.domes import HalfEllipsoid
from umber_pebble.core.pieces.build import lay
from umber_pebble.core.pieces.melt_ref import MeltRef
from umber_pebble.core.pieces.passes.close import Close
from umber_pebble.core.plan.cards import pour_cards
from umber_pebble.core.plan.compile import Plan, compile_plan
from umber_pebble.core.plan.cooks import ready_for_next
from umber_pebble.core.plan.handwork import Inclusion
from umber_pebble.core.plan.melted import melted
from umber_pebble.core.plan.problem import Mould, Named, PlanInput, PlanLine
from umber_pebble.core.plan.spares import BreakRate

COATING = material("melts", "coating")
SKY, MOON = MeltRef("coating", "#1f2a44"), MeltRef("coating", "#f1ead9")
POP = Cavity(HalfEllipsoid(0.07, 0.04, 0.018))


def pops(quantity: int = 12, owned: int = 1, shared_bowl: bool = False) -> PlanInput:
    """Cake pops: a cap in one colour, a shell, cake by hand, and a close in another; and lollipops beside them."""
    base = make_lollipops(6)
    mould = Mould("pop", 0, material("moulds", "silicone"), 0.003, POP, 8, owned, 230.0)
    cake = filling("cake", 0.002, None, 20.0, 0.0)
    laid, faults = lay(POP, (detail(MOON, 0.15, 0.0012), shell(SKY, 0.0016, False, False), cake, Close(SKY)))
    assert not faults
    casts = [row.cast for row in laid if row.cast is not None]
    hand = Inclusion("filling", "Cake filling", laid[2].poured.value.likely, 12.0)
    lines = [
        PlanLine(Named("Cap"), quantity, MOON.key, mould, casts[0], BreakRate(), last=False, kind="detail"),
        PlanLine(
            Named("Shell"),
            quantity,
            SKY.key,
            mould,
            casts[1],
            BreakRate(),
            works=STICK,
            after=0,
            last=False,
            kind="shell",
        ),
        PlanLine(
            Named("Close"),
            quantity,
            SKY.key,
            mould,
            casts[2],
            BreakRate(),
            after=1,
            first=(hand,),
            kind="close",
        ),
        replace(base.lines[0], item=1),
    ]
    way = base.ways["coating"]
    cup = way if shared_bowl else replace(way, vessel_id="cup")
    return replace(
        base, lines=tuple(lines), ways={MOON.key: cup, SKY.key: way, "coating": replace(way, vessel_id="jug")}
    )


def followed(problem: PlanInput, plan: Plan) -> None:
    """Every pass is poured after the one under it bears it, and after its filling is in; a mould is refilled only when empty."""
    pours = {t.round: t for t in plan.tasks if t.kind == "pour"}
    put_in = {t.round: t for t in plan.tasks if t.kind == "put_in"}
    rounds = plan.rounds
    cleaned = {rounds[t.round or 0].stay: t.end_s for t in plan.tasks if t.kind == "clean"}
    for r in rounds:
        line, start = problem.lines[r.line], pours[r.number].start_s
        if r.on is None:
            others = {x.stay for x in rounds if problem.lines[x.line].mould.mould_id == line.mould.mould_id}
            begun = {stay: min(pours[x.number].start_s for x in rounds if x.stay == stay) for stay in others}
            here = [stay for stay in others if begun[stay] <= start < cleaned[stay]]
            # each stay of these takes one mould and more
            assert len(here) <= line.mould.owned
            continue
        under = rounds[r.on]
        assert (under.line, under.casts) == (line.after, r.casts)
        bears = pours[under.number].end_s + ready_for_next(COATING, plan.windows[under.number]).high
        assert bears <= start + 1e-6
        if line.first:
            assert bears <= put_in[r.number].start_s + 1e-6
            assert put_in[r.number].end_s <= start + 1e-6
            assert put_in[r.number].end_s - put_in[r.number].start_s == pytest.approx(12.0 * r.casts)
    assert clashes(list(plan.tasks)) == []


@settings(max_examples=12, deadline=None)
@given(quantity=st.integers(1, 40), owned=st.integers(1, 3), shared=st.booleans())
def test_passes_follow_one_another_whatever_the_order(quantity: int, owned: int, shared: bool) -> None:
    problem = pops(quantity, owned, shared)
    plan = compile_plan(problem)
    followed(problem, plan)
    casts = plan.casts
    assert casts[0] == casts[1] == casts[2] >= quantity
    for i in range(3):
        assert sum(r.casts for r in plan.rounds if r.line == i) == casts[i]


def test_what_is_melted_is_what_is_poured_by_pass() -> None:
    problem = pops()
    plan = compile_plan(problem)
    sky, casts = melted(plan, SKY.key), plan.casts[1]
    each = sum(problem.lines[i].cast.poured.value.likely for i in (1, 2))
    assert sky.poured.value.likely == pytest.approx(casts * each, rel=1e-9)
    # a cap of a gram is not melted alone: the least that melts evenly is put into the bowl
    moon = [c for c in plan.cooks if c.rounds[0].line == 0]
    assert all(c.charge_kg >= 0.03 for c in moon)
    cards = [card for card in pour_cards(problem, plan.cooks, plan.windows) if card.item == 0]
    assert [card.casts for card in cards] == [r.casts for r in plan.rounds if r.line == 0]
    assert [row.kind for row in cards[0].rows] == ["detail", "shell", "close"]
    assert cards[0].rows[2].first[0].name == "Cake filling"


def test_running_short_says_what_can_be_finished_and_if_the_join_shows() -> None:
    problem = pops()
    plan = compile_plan(problem)
    cook = next(c for c in plan.cooks if any(r.line == 1 for r in c.rounds))
    shell = next(r for r in cook.rounds if r.line == 1)
    rounds = plan.rounds
    n = len(problem.lines)
    layout = Layout(
        rounds,
        ("bowl",) * n,
        ((),) * n,
        ("bench",) * n,
        ("bench",),
        (True,) * n,
        (COATING_FAMILY,) * n,
        tuple(line.melt for line in problem.lines),
        tuple(line.after for line in problem.lines),
        tuple(line.last for line in problem.lines),
    )
    state = RunState(
        layout,
        [CookState(i) for i in range(len(plan.cooks))],
        [RoundState(r.number, r.line, r.casts, r.cook, r.on) for r in rounds],
    )
    w = plan.windows[shell.number]
    short = running_short(problem, cook, shell.number, state, w, 4, 1)
    assert (short.filled, short.more, short.empty) == (4, 1, 3)
    assert short.melt_kg >= 3 * short.each_kg
    assert short.shows == (short.makes_s > short.open_s.low)
    enough = running_short(problem, cook, shell.number, state, w, 4, 8)
    assert (enough.more, enough.empty, enough.melt_kg) == (4, 0, 0.0)
    for filled in (-1, 9):
        with pytest.raises(OutOfRange, match="filled"):
            running_short(problem, cook, shell.number, state, w, filled, 0)


def test_what_is_full_stays_full_and_the_rest_is_melted_for() -> None:
    problem = pops()
    plan = compile_plan(problem)
    number = next(r.number for r in plan.rounds if r.line == 0)
    cooks, n = list(plan.cooks), len(problem.lines)
    layout = Layout(
        plan.rounds,
        ("bowl",) * n,
        ((),) * n,
        ("bench",) * n,
        ("bench",),
        (True,) * n,
        (COATING_FAMILY,) * n,
        tuple(line.melt for line in problem.lines),
        tuple(line.after for line in problem.lines),
        tuple(line.last for line in problem.lines),
    )

    def after(*told: tuple[str, dict[str, object]]) -> RunState:
        rows = [("started", {}), ("burst", {"cook": 0, "seconds": 30.0}), ("rested", {"cook": 0}), *told]
        return replay(layout, [from_log(f"e{i}", kind, 60.0 * i, "Wren", p) for i, (kind, p) in enumerate(rows)])

    state = after(("short", {"round": number, "filled": 3}))
    casts = state.rounds[number].casts
    assert (state.cooks[0].phase, state.rounds[number].to_pour) == ("waiting", casts - 3)
    again = cooks_now(problem, cooks, state)[0]
    line = problem.lines[0]
    later = sum(
        r.casts * problem.lines[r.line].cast.poured.value.likely for r in cooks[0].rounds if r.number != number
    )
    assert again.poured_kg == pytest.approx((casts - 3) * line.cast.poured.value.likely + later)
    assert again.fresh_kg == again.charge_kg
    whole = after(
        ("short", {"round": number, "filled": 3}),
        ("burst", {"cook": 0, "seconds": 30.0}),
        ("rested", {"cook": 0}),
        ("poured", {"round": number}),
    )
    assert whole.rounds[number].poured_s is not None
    for payload, says in (
        ({"round": number, "filled": casts}, "full cavities"),
        ({"round": number, "filled": -1}, "filled"),
    ):
        with pytest.raises(OutOfRange, match=says):
            after(("short", payload))
    with pytest.raises(NotInSequence, match="full before"):
        after(
            ("short", {"round": number, "filled": 3}),
            ("burst", {"cook": 0, "seconds": 30.0}),
            ("rested", {"cook": 0}),
            ("short", {"round": number, "filled": 2}),
        )
