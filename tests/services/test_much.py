"""Orders of many pieces: melts in batches small enough to pour a whole mould of them, in two vessels where one keeps the day waiting."""

from pathlib import Path

import pytest

from tests.plans import plan_order
from tests.services.test_led import MOST_ACTS, Hand, first
from umber_pebble.core.bench.act_kinds import Weigh
from umber_pebble.core.plan.compile import Plan
from umber_pebble.core.plan.day.check import broken
from umber_pebble.core.plan.day.compile import day_of
from umber_pebble.core.plan.day.search import at_once
from umber_pebble.core.plan.lanes import lanes_of
from umber_pebble.services import bench
from umber_pebble.services.documents import Order


def domes(hand: Hand, count: int) -> Plan:
    """So many domes of eight panes and a hatch, of which the mould casts four at once."""
    stored = hand.workshop.get("order", "order-domes")
    assert isinstance(stored.doc, Order)
    lines = [line.model_copy(update={"quantity": count}) for line in stored.doc.lines]
    hand.workshop.save("order", "order-domes", stored.version, stored.doc.model_copy(update={"lines": lines}))
    return plan_order(hand.workshop, hand.workshop.get("order", "order-domes").doc)


def length_s(plan: Plan) -> int:
    return plan.table.end_s(plan.day.day)


@pytest.fixture
def hand(tmp_path: Path) -> Hand:
    return Hand(tmp_path, None)


def test_many_panes_are_poured_a_mould_at_a_time_out_of_pots_that_are_not_too_deep(hand: Hand) -> None:
    few, many = domes(hand, 2), domes(hand, 8)
    assert many.sizes[0].casts == few.sizes[0].casts == 4
    # four times as many take no more than four times as long
    assert length_s(many) <= 4 * length_s(few)
    for cook in many.cooks:
        for r in cook.rounds:
            _, window = cook.pours[r.line]
            assert window.width.likely >= r.casts * many.problem.pour_each_s(many.problem.lines[r.line])


def test_what_is_made_over_and_over_is_made_in_two_pots_at_once(hand: Hand) -> None:
    plan = domes(hand, 8)
    day = plan.day
    assert day.second_vessels == {"isomalt"}
    assert broken(day.day, plan.table) == []
    one = day_of(day.plan, plan.casts, [size.casts for size in plan.sizes], day.shared)
    assert length_s(plan) < at_once(one.day).end_s(one.day) - 900
    pots = {cook.way.vessel_id: cook.way.by.heater_id for cook in plan.cooks}
    assert pots == {"pot-heavy": "ring-left", "pot-thin": "ring-right"}
    # each has a lane of its own, with what is weighed into it
    lanes = {lane.id: lane.kg for lane in lanes_of(plan) if lane.kind == "vessel"}
    assert lanes.keys() == pots.keys()
    assert sum(lanes.values()) == pytest.approx(plan.fresh_kg("isomalt"))


def test_the_bench_goes_by_both_pots_to_the_end(hand: Hand) -> None:
    domes(hand, 8)
    hand.start("order-domes")
    weighed = set[str]()
    for _ in range(MOST_ACTS):
        act = first(bench.view(hand.runs, "led", hand.who))
        if isinstance(act.what, Weigh):
            weighed.add(hand.runs.look("led")[2].cooks[act.subject.number].way.vessel_id)
        if not hand.step():
            break
    assert hand.done[-1][0] == "end"
    assert weighed == {"pot-heavy", "pot-thin"}
    state = hand.runs.look("led")[2].state
    assert all(r.poured_s is not None for r in state.rounds)
    assert state.aside == []
