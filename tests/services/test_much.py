"""Orders of many pieces and many colours: batches small enough to pour a whole mould out of each in its window; bowls that are waited for."""

from dataclasses import replace
from pathlib import Path

from tests.plans import plan_order
from tests.services.test_led import Hand
from umber_pebble.core.plan.alternatives import VesselChange, as_planned, changes_of, priced
from umber_pebble.core.plan.compile import Plan
from umber_pebble.core.plan.day.check import broken
from umber_pebble.services.documents import Kitchen, MeltVessel, Order
from umber_pebble.services.workshop import KITCHEN_ID


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


def test_one_more_bowl_is_found_where_colours_wait_for_one_and_is_worth_what_it_is_said_to_be(
    tmp_path: Path,
) -> None:
    hand = Hand(tmp_path, None)
    hand.have_only("pot-heavy", "bowl", "glass-bowl")
    order, kitchen = hand.workshop.get("order", "order-table"), hand.workshop.get("kitchen", KITCHEN_ID)
    assert isinstance(order.doc, Order) and isinstance(kitchen.doc, Kitchen)
    plan = plan_order(hand.workshop, order.doc)
    found = [change for change in changes_of(plan) if isinstance(change, VesselChange)]
    said, change = min(((priced(plan, of), of) for of in found), key=lambda row: row[0].lasts_s)
    assert said.lasts_s < plan.lasts_s - 600
    # by hand: another like it in the kitchen, and those melts in it
    like = next(v for v in kitchen.doc.vessels if v.id == change.vessel_id).model_copy(update={"id": "more"})
    more = kitchen.doc.model_copy(update={"vessels": [*kitchen.doc.vessels, like]})
    hand.workshop.save("kitchen", KITCHEN_ID, kitchen.version, more)
    vessels = [
        MeltVessel(melt=melt, vessel_id="more" if melt in change.melts else way.vessel_id)
        for melt, way in plan.problem.ways.items()
    ]
    done = plan_order(hand.workshop, order.doc.model_copy(update={"vessels": vessels}))
    assert as_planned(done) == replace(said, changes=())
    # where each melt has a bowl of its own none is offered
    whole = Hand(tmp_path / "whole", None)
    doc = whole.workshop.get("order", "order-table").doc
    assert isinstance(doc, Order)
    assert not any(isinstance(of, VesselChange) for of in changes_of(plan_order(whole.workshop, doc)))
