"""Several colours out of one vessel: what may follow without a wash follows, and what has to be washed out is."""

from dataclasses import replace

from tests.conftest import clashes, make_lollipops
from umber_pebble.core.materials.load import material
from umber_pebble.core.plan.compile import Plan, compile_plan
from umber_pebble.core.plan.problem import Named
from umber_pebble.core.plan.spares import BreakRate

WHITE, PINK, NAVY = "coating#f1ead9", "coating#c97a8b", "coating#1f2a44"


def one_bowl(*melts: str) -> Plan:
    """So many lollipops in each of these melts, all out of the one bowl."""
    base = make_lollipops()
    whole = replace(base.lines[0], quantity=8, works=(), break_rate=BreakRate())
    way = base.ways["coating"]
    # each in a mould of its own, so that only the bowl is waited for
    lines = [
        replace(whole, named=Named(melt), melt=melt, item=n, mould=replace(whole.mould, mould_id=f"tray {n}"))
        for n, melt in enumerate(melts)
    ]
    ways = {
        melt: replace(way, melt=material("melts", key), colour=f"#{colour}" if colour else None)
        for melt in melts
        for key, _, colour in [melt.partition("#")]
    }
    return compile_plan(replace(base, lines=tuple(lines), ways=ways))


def in_turn(plan: Plan) -> list[str]:
    """The melts of a plan as they are weighed, and each wash."""
    rows = sorted((t for t in plan.tasks if t.kind in ("weigh", "wash")), key=lambda t: t.start_s)
    return [
        "wash" if t.kind == "wash" else plan.problem.lines[plan.cooks[t.number].rounds[0].line].melt for t in rows
    ]


def test_light_goes_before_dark_and_nothing_is_washed() -> None:
    for order in ([NAVY, WHITE, PINK], [PINK, NAVY, WHITE]):
        plan = one_bowl(*order)
        assert in_turn(plan) == [WHITE, PINK, NAVY]
        assert clashes(list(plan.tasks)) == []


def test_what_would_show_is_wiped_out_by_hands_between_the_last_pour_and_the_next_weighing() -> None:
    plan = one_bowl("dark", NAVY)
    first, _, then = in_turn(plan)
    assert {first, then} == {"dark", NAVY}
    [wash] = [t for t in plan.tasks if t.kind == "wash"]
    assert wash.end_s - wash.start_s == material("kitchen", "fat", "batch").value("washed")
    assert wash.who == 0
    weighed = [t.start_s for t in plan.tasks if t.kind == "weigh"]
    pours = [t.end_s for t in plan.tasks if t.kind == "pour" and t.number != wash.number]
    assert max(pours) <= wash.start_s
    assert wash.end_s == max(weighed)
    assert clashes(list(plan.tasks)) == []
