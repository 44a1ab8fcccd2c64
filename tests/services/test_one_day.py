"""Orders that are made in one day: the same moulds and melts serve both, each is ready when it is due, and one run brings both to their end."""

from datetime import timedelta
from pathlib import Path

import pytest

from tests.plans import plan_order
from tests.services.test_led import MOST_ACTS, Hand
from umber_pebble.core.errors import OutOfRange
from umber_pebble.core.plan.compile import Plan
from umber_pebble.core.plan.day.check import broken
from umber_pebble.services.documents import MOST_LINES, Order
from umber_pebble.services.plan_parts import PlanParts
from umber_pebble.services.together import as_one
from umber_pebble.services.workshop import Workshop


def ordered(workshop: Workshop, order: str) -> Order:
    doc = workshop.get("order", order).doc
    assert isinstance(doc, Order)
    return doc


def ready_s(plan: Plan, item: int) -> float:
    """When the last of a line of the order is out of its mould."""
    of = {r.number for r in plan.rounds if plan.problem.lines[r.line].item == item}
    return max(t.end_s for t in plan.tasks if t.round in of and t.kind in ("unmould", "stick", "pour"))


def test_one_mould_is_filled_once_for_both_and_each_is_ready_when_it_is_due(demo: Workshop) -> None:
    pops, dips = ordered(demo, "order-pops"), ordered(demo, "order-dips")
    # the strawberries are wanted an hour and a half before the pops, and a few of them go with the pops
    sooner = pops.due_at - timedelta(minutes=90)
    few = dips.lines[0].model_copy(update={"quantity": 2})
    pops = pops.model_copy(update={"lines": [*pops.lines, few]})
    demo.create("order", "early", dips.model_copy(update={"due_at": sooner}))
    alone = [plan_order(demo, pops), plan_order(demo, ordered(demo, "early"))]
    both = plan_order(demo, pops.model_copy(update={"together": ["early", "gone"]}))
    assert broken(both.day.day, both.table) == []
    assert len(both.rounds) < sum(len(plan.rounds) for plan in alone)
    assert len(both.cooks) <= sum(len(plan.cooks) for plan in alone) - 2
    assert both.lasts_s < sum(plan.lasts_s for plan in alone)
    due = [both.problem.due_s - sooner_s for sooner_s in both.problem.sooner_s]
    assert max(due) - min(due) == pytest.approx(90 * 60)
    # what both want is wanted with the first of them
    shared = next(i for i, line in enumerate(pops.lines) if line.piece_id == few.piece_id)
    assert due[shared] == min(due)
    for item, wanted in enumerate(due):
        assert ready_s(both, item) <= wanted - both.fares.spare_s + 1


def test_what_of_a_day_is_whose_is_told(demo: Workshop) -> None:
    pops, dips = ordered(demo, "order-pops"), ordered(demo, "order-dips")
    glance = PlanParts(demo).glance(pops.model_copy(update={"together": ["order-dips"]}))
    assert [(of.name, [line.quantity for line in of.lines]) for of in glance.orders] == [
        (order.name, [line.quantity for line in order.lines]) for order in (pops, dips)
    ]
    assert sum(line.quantity for line in glance.lines) == sum(
        line.quantity for of in glance.orders for line in of.lines
    )
    assert PlanParts(demo).glance(pops).orders == ()


def test_more_kinds_than_a_day_takes_are_refused(demo: Workshop) -> None:
    pops = ordered(demo, "order-pops")
    line = pops.lines[0]
    many = pops.model_copy(
        update={"lines": [line.model_copy(update={"piece_id": f"other-{i}"}) for i in range(MOST_LINES)]}
    )
    with pytest.raises(OutOfRange, match="fewer orders together"):
        as_one(pops, [many])
    with pytest.raises(OutOfRange, match="with itself"):
        demo.save(
            "order",
            "order-pops",
            demo.get("order", "order-pops").version,
            pops.model_copy(update={"together": ["order-pops"]}),
        )


def test_one_run_brings_two_orders_to_their_end(tmp_path: Path) -> None:
    hand = Hand(tmp_path, None)
    stored = hand.workshop.get("order", "order-pops")
    assert isinstance(stored.doc, Order)
    hand.workshop.save(
        "order", "order-pops", stored.version, stored.doc.model_copy(update={"together": ["order-dips"]})
    )
    hand.start("order-pops")
    for _ in range(MOST_ACTS):
        if not hand.step():
            break
    assert hand.done[-1][0] == "end"
    _, frozen, seen, _ = hand.runs.look("led")
    wanted = {line.piece_id for key in ("order-pops", "order-dips") for line in ordered(hand.workshop, key).lines}
    assert {line.piece_id for line in frozen.snapshot.order.lines} == wanted
    assert all(r.poured_s is not None for r in seen.state.rounds)
