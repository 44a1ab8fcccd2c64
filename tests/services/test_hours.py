"""A kitchen that is not always open: no hands at work outside its hours, a day within one opening where it fits, else over several."""

from datetime import UTC, datetime, timedelta

import pytest

from tests.plans import plan_order
from umber_pebble.core.errors import OutOfRange
from umber_pebble.core.plan.checks import remarks_of
from umber_pebble.core.plan.compile import Plan
from umber_pebble.core.plan.day.check import broken
from umber_pebble.core.plan.lanes import lanes_of
from umber_pebble.services.documents import Kitchen, Order
from umber_pebble.services.hours import openings
from umber_pebble.services.wish_docs import NotBeforeDoc, Opening, ThingDoc
from umber_pebble.services.workshop import KITCHEN_ID, Workshop

HOUR = 3600.0


def daily(*spans: tuple[str, str]) -> list[Opening]:
    return [Opening(day=day, opens=opens, closes=closes) for day in range(7) for opens, closes in spans]


def opened(workshop: Workshop, hours: list[Opening], order: str) -> Plan:
    kitchen = workshop.get("kitchen", KITCHEN_ID)
    assert isinstance(kitchen.doc, Kitchen)
    workshop.save("kitchen", KITCHEN_ID, kitchen.version, kitchen.doc.model_copy(update={"hours": hours}))
    doc = workshop.get("order", order).doc
    assert isinstance(doc, Order)
    return plan_order(workshop, doc)


def outside_s(plan: Plan) -> float:
    """How long hands are at work while nobody may be there."""
    work = [(task.start_s, task.end_s) for task in plan.tasks if task.hands]
    within = sum(max(min(b, d) - max(a, c), 0.0) for a, b in work for c, d in plan.problem.open_s)
    return sum(b - a for a, b in work) - within


def test_an_opening_over_summer_times_end_is_as_long_as_the_night_is() -> None:
    # IANA: Europe/Berlin goes back from 03:00 to 02:00 on 25 October 2026, at 01:00 UTC
    night = [Opening(day=5, opens="22:00", closes="06:00"), Opening(day=6, opens="06:00", closes="08:00")]
    now = datetime(2026, 10, 24, 18, 0, tzinfo=UTC)
    first, second, *_ = openings(night, "Europe/Berlin", now, now)
    # 22:00 summer time is 20:00 UTC, 08:00 winter time is 07:00 UTC
    assert first == (2 * HOUR, 13 * HOUR)
    assert second[1] - second[0] == 10 * HOUR
    assert openings([], "Europe/Berlin", now, now) == ()
    # one that has begun is still open, one that is over is not
    during = datetime(2026, 10, 25, 6, 30, tzinfo=UTC)
    assert openings(night, "Europe/Berlin", during, during)[0] == (-1.5 * HOUR, 0.5 * HOUR)


def test_what_fits_one_opening_is_made_in_the_last_one_before_it_is_due(demo: Workshop) -> None:
    free = opened(demo, [], "order-pops")
    plan = opened(demo, daily(("08:00", "12:00")), "order-pops")
    assert plan.table == free.table
    opens, closes = plan.problem.open_s[[a <= plan.start_s < b for a, b in plan.problem.open_s].index(True)]
    assert opens <= plan.start_s and plan.ends_s <= closes
    assert plan.problem.due_s - closes < 24 * HOUR
    assert outside_s(plan) < 3600  # only what is cleaned after the last piece is ready


def test_what_fits_none_goes_on_when_it_opens_again(demo: Workshop) -> None:
    plan = opened(demo, daily(("17:00", "19:30")), "order-table")
    assert broken(plan.day.day, plan.table) == []
    assert outside_s(plan) < 1
    assert plan.lasts_s > 22 * HOUR
    assert plan.ends_s <= plan.problem.due_s and plan.fares.in_time_frac > 0.99
    (hands,) = (lane for lane in lanes_of(plan) if lane.kind == "hands")
    assert [span.end_s.likely - span.start_s for span in hands.spans if span.role == "away"] == pytest.approx(
        [21.5 * HOUR] * sum(span.role == "away" for span in hands.spans), abs=2.0
    )


def soon(demo: Workshop, hours: list[Opening], order: str, **more: object) -> Plan:
    opened(demo, hours, order)
    doc = demo.get("order", order).doc
    assert isinstance(doc, Order)
    return plan_order(demo, doc.model_copy(update={"begins": "soon"} | more))


def test_what_is_to_be_soon_is_begun_now_or_when_it_opens_first(demo: Workshop) -> None:
    late = opened(demo, [], "order-pops")
    free = soon(demo, [], "order-pops")
    assert late.start_s > 24 * HOUR
    assert free.start_s == 0.0 and free.table == late.table and free.ends_s < late.ends_s - 24 * HOUR
    # in the first opening that is long enough for all of it
    within = soon(demo, daily(("08:00", "12:00")), "order-pops")
    opens, closes = within.problem.open_s[[a <= within.start_s < b for a, b in within.problem.open_s].index(True)]
    assert within.start_s == max(opens, 0.0) and within.ends_s <= closes
    before = [(a, b) for a, b in within.problem.open_s if b <= opens]
    assert all(b - max(a, 0.0) < within.lasts_s for a, b in before)
    # over several from the first on
    several = soon(demo, daily(("17:00", "19:30")), "order-table")
    assert several.start_s == max(several.problem.open_s[0][0], 0.0) and outside_s(several) < 1
    # with a wish, from now on too
    wish = NotBeforeDoc(
        wish="not_before",
        of=ThingDoc(piece_id="piece-pop", step=None, what=None, nth=None),
        at=demo.clock.now() + timedelta(hours=3),
    )
    wished = soon(demo, [], "order-pops", wishes=[wish])
    assert 2.8 * HOUR <= wished.start_s < 3.2 * HOUR


def test_hours_that_are_too_short_are_said(demo: Workshop) -> None:
    with pytest.raises(OutOfRange, match="open it longer"):
        opened(demo, daily(("17:00", "17:05")), "order-table")
    # what cannot be ready in time is planned all the same, and said
    order = demo.get("order", "order-first-light").doc
    assert isinstance(order, Order)
    after = (order.due_at.weekday() + 1) % 7
    late = opened(demo, [Opening(day=after, opens="17:00", closes="20:00")], "order-first-light")
    assert "too_late" in {of.code for of in remarks_of(late)}
    assert outside_s(late) < 3600
