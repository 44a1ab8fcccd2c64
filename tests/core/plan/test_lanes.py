"""A timetable as lanes: nothing is in two places, nothing of the timetable is lost."""

import itertools
from collections.abc import Iterator
from dataclasses import replace

import pytest

from tests.conftest import make_plan
from tests.plans import plan_order
from umber_pebble.core.plan.compile import Plan, compile_plan
from umber_pebble.core.plan.lanes import Lane, Span, lanes_of
from umber_pebble.demo.moulds import MOULDS
from umber_pebble.demo.pieces import PIECES
from umber_pebble.services.documents import Order, OrderLine
from umber_pebble.services.workshop import Workshop


@pytest.fixture
def mixed(workshop: Workshop) -> Plan:
    """Pops of three passes, dipped fruit and bent isomalt, with a fridge of two moulds."""
    for key in ("mould-pop", "mould-lens"):
        workshop.create("mould", key, MOULDS[key])
    for key in ("piece-pop", "piece-berry", "piece-lens"):
        workshop.create("piece", key, PIECES[key])
    kitchen = workshop.get("kitchen", "kitchen")
    places = [p.model_copy(update={"moulds": 2}) if p.kind == "fridge" else p for p in kitchen.doc.places]  # type: ignore[attr-defined]
    workshop.save("kitchen", "kitchen", kitchen.version, kitchen.doc.model_copy(update={"places": places}))
    lines = [
        OrderLine(piece_id=key, quantity=count, spares="as_sure")
        for key, count in (("piece-pop", 9), ("piece-berry", 6), ("piece-lens", 8))
    ]
    due = workshop.clock.now().replace(hour=22)
    order = Order(name="M", due_at=due, lines=lines, ways={}, confidence_frac=0.9, vessels=[], reserve_frac=0.05)
    return plan_order(workshop, order)


def of_kind(lanes: list[Lane], kind: str) -> Iterator[Lane]:
    return (lane for lane in lanes if lane.kind == kind)


def overlaps(spans: list[Span]) -> list[tuple[Span, Span]]:
    rows = sorted(spans, key=lambda span: span.start_s)
    return [(a, b) for a, b in itertools.pairwise(rows) if b.start_s < a.end_s.likely - 1e-6]


def test_one_pair_of_hands_one_heater_one_vessel(mixed: Plan) -> None:
    lanes = lanes_of(mixed)
    [hands] = of_kind(lanes, "hands")
    assert overlaps(list(hands.spans)) == []
    assert len(hands.spans) == sum(task.hands for task in mixed.tasks)
    assert sum(s.end_s.likely - s.start_s for s in hands.spans) == pytest.approx(
        sum(t.end_s - t.start_s for t in mixed.tasks if t.hands)
    )
    for lane in (*of_kind(lanes, "heater"), *of_kind(lanes, "vessel")):
        assert overlaps([span for span in lane.spans if span.role == "heats"]) == []


def test_each_melt_has_its_lane_with_every_pour_in_its_window(mixed: Plan) -> None:
    vessels = list(of_kind(lanes_of(mixed), "vessel"))
    assert [lane.kg for lane in vessels] == pytest.approx(
        [mixed.fresh_kg(key) for key in sorted(mixed.problem.ways, key=lambda key: _first(mixed, key))]
    )
    for lane in vessels:
        opens = [span for span in lane.spans if span.role == "open"]
        pours = [span for span in lane.spans if span.what == "pour"]
        assert pours
        for pour in pours:
            assert any(
                window.cook == pour.cook
                and window.start_s - 1 <= pour.start_s
                and pour.end_s.likely <= window.end_s.high + 1
                for window in opens
            )


def _first(plan: Plan, key: str) -> float:
    cooks = {c.number for c in plan.cooks_of(key)}
    return min(
        t.start_s
        for t in plan.tasks
        if t.of == "cook" and t.number in cooks and t.kind in ("cook", "rest", "pour")
    )


def test_a_mould_is_full_until_it_is_turned_out_and_its_end_is_soft(mixed: Plan) -> None:
    lanes = lanes_of(mixed)
    pops = next(lane for lane in of_kind(lanes, "mould") if lane.id == "mould-pop")
    sets = [span for span in pops.spans if span.what == "set" and span.end_s.low < span.end_s.high]
    outs = [span for span in pops.spans if span.what == "unmould" and span.role == "busy"]
    assert (
        len(sets)
        == len(outs)
        == sum(
            1
            for r in mixed.rounds
            if mixed.problem.lines[r.line].last and mixed.problem.lines[r.line].mould.mould_id == "mould-pop"
        )
    )
    for one, out in zip(sets, outs, strict=True):
        assert one.end_s.likely <= out.start_s + 1e-6


def test_a_place_never_holds_more_than_it_takes(mixed: Plan) -> None:
    [fridge] = of_kind(lanes_of(mixed), "place")
    assert fridge.takes == 2
    assert {span.count for span in fridge.spans} == {1, 2}
    assert overlaps(list(fridge.spans)) == []
    # each round's stay is in it: as long as they all set
    stays = [
        (t.end_s - t.start_s)
        for t in mixed.tasks
        if t.kind == "set"
        and t.round is not None
        and mixed.problem.lines[mixed.rounds[t.round].line].melt != "isomalt"
    ]
    assert sum((s.end_s.likely - s.start_s) * s.count for s in fridge.spans) == pytest.approx(sum(stays))


def test_a_plan_of_one_melt_has_one_lane_a_thing() -> None:
    plan = compile_plan(make_plan())
    named = replace(plan.problem.lines[0].mould, name="Discs")
    kinds = [
        lane.kind
        for lane in lanes_of(
            replace(plan, problem=replace(plan.problem, lines=(replace(plan.problem.lines[0], mould=named),)))
        )
    ]
    assert kinds == ["hands", "heater", "vessel", "mould"]
