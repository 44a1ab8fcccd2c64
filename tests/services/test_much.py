"""An order of many pieces: its melt is made in batches small enough to pour a whole mould out of each in its window."""

from pathlib import Path

from tests.plans import plan_order
from tests.services.test_led import Hand
from umber_pebble.core.plan.compile import Plan
from umber_pebble.core.plan.day.check import broken
from umber_pebble.services.documents import Order


def domes(hand: Hand, count: int) -> Plan:
    """So many domes of eight panes and a hatch, of which the mould casts four at once."""
    doc = hand.workshop.get("order", "order-domes").doc
    assert isinstance(doc, Order)
    lines = [line.model_copy(update={"quantity": count}) for line in doc.lines]
    return plan_order(hand.workshop, doc.model_copy(update={"lines": lines}))


def test_many_panes_are_poured_a_mould_at_a_time_out_of_pots_that_are_not_too_deep(tmp_path: Path) -> None:
    hand = Hand(tmp_path, None)
    few, many = domes(hand, 2), domes(hand, 8)
    assert many.sizes[0].casts == few.sizes[0].casts == 4
    assert broken(many.day.day, many.table) == []
    # four times as many take no more than four times as long
    assert many.table.end_s(many.day.day) <= 4 * few.table.end_s(few.day.day)
    # what is weighed into each pot pours all that is planned out of it before it is too thick
    for cook in many.cooks:
        for r in cook.rounds:
            _, window = cook.pours[r.line]
            assert window.width.likely >= r.casts * many.problem.pour_each_s(many.problem.lines[r.line])
