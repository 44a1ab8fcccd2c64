"""What is wished of an order's day is kept, costs what it says, and clashes in words that can be acted on."""

from collections.abc import Iterator
from datetime import datetime, timedelta

import pytest

from umber_pebble.core.errors import OutOfRange
from umber_pebble.core.plan.alternatives import Alternative, Change, HelpChange
from umber_pebble.core.plan.compile import Plan
from umber_pebble.core.plan.day.check import broken
from umber_pebble.core.plan.day.held import place_of
from umber_pebble.core.plan.summary import summary_of
from umber_pebble.core.plan.tasks import Task
from umber_pebble.core.plan.wishes import SKILL_OF, Thing
from umber_pebble.services.documents import Kitchen, Order
from umber_pebble.services.plan_parts import PlanParts, PlanRequest
from umber_pebble.services.wish_docs import (
    AwayFromDoc,
    BeginsAtDoc,
    NotBeforeDoc,
    NotByDoc,
    OnlyByDoc,
    Opening,
    OverByDoc,
    Roster,
    ThereFromDoc,
    ThingDoc,
    WishDoc,
)
from umber_pebble.services.workshop import KITCHEN_ID, Workshop

WREN, SOL = "Wren", "Sol"
BOTH = (WREN, SOL)
MINUTE, HOUR = timedelta(minutes=1), timedelta(hours=1)


class Day:
    """The demo's table of ten kinds, planned as of one moment."""

    def __init__(self, demo: Workshop) -> None:
        self.demo, self.now = demo, demo.clock.now()

    def order(self, *wishes: WishDoc, people: tuple[str, ...] = BOTH) -> Order:
        doc = self.demo.get("order", "order-table").doc
        assert isinstance(doc, Order)
        return doc.model_copy(update={"people": list(people), "wishes": list(wishes)})

    def plan(self, *wishes: WishDoc, people: tuple[str, ...] = BOTH) -> Plan:
        plan = PlanParts(self.demo).compiled(self.order(*wishes, people=people), self.now)
        assert broken(plan.day.day, plan.table) == []
        return plan

    def at(self, s: float) -> datetime:
        return self.now + timedelta(seconds=round(s))

    def whole(self, item: int) -> ThingDoc:
        return ThingDoc(piece_id=self.order().lines[item].piece_id, step=None, what=None, nth=None)

    def doc(self, thing: Thing) -> ThingDoc:
        piece = self.order().lines[thing.item].piece_id
        return ThingDoc(piece_id=piece, step=thing.step, what=thing.what, nth=thing.nth)


@pytest.fixture
def day(demo: Workshop) -> Day:
    return Day(demo)


def things(plan: Plan) -> Iterator[tuple[Thing, Task]]:
    """What hands do that may be wished of."""
    for task in plan.tasks:
        of = None if task.thing is None else place_of(plan.day, plan.day.names[task.thing])
        if of is not None and task.hands:
            yield of, task


def of_item(plan: Plan, item: int) -> list[Task]:
    return [task for of, task in things(plan) if of.item == item]


def test_everything_that_hands_do_is_called_by_something_of_its_own(day: Day) -> None:
    named = [of for of, _ in things(day.plan())]
    assert len(named) == len(set(named)) > 80


@pytest.mark.parametrize(("kind", "by_minutes"), [("pour", -20), ("unmould", 15), ("clean", -10)])
def test_what_is_held_begins_then_and_all_else_goes_round_it(day: Day, kind: str, by_minutes: int) -> None:
    free = day.plan()
    thing, task = next((of, task) for of, task in things(free) if task.kind == kind and of.item == 5)
    at = day.at(task.start_s) + by_minutes * MINUTE
    plan = day.plan(BeginsAtDoc(wish="begins_at", of=day.doc(thing), at=at))
    held = next(task for of, task in things(plan) if of == thing)
    assert day.at(held.start_s) == at
    assert plan.ends_s <= plan.problem.due_s
    kept = summary_of(plan).wishes
    assert kept is not None and (kept.gone, kept.clashes, kept.unfound, kept.late) == ((), (), (), ())
    assert kept.longer_s == pytest.approx(plan.lasts_s - free.lasts_s, abs=1)
    assert kept.sooner_s == pytest.approx(free.start_s - plan.start_s, abs=1)
    assert kept.longer_s < 3600


@pytest.mark.parametrize("people", [(WREN,), BOTH])
def test_a_piece_is_begun_no_sooner_or_ready_no_later_than_is_wished(day: Day, people: tuple[str, ...]) -> None:
    free = day.plan(people=people)
    later = day.at(free.start_s) + HOUR
    plan = day.plan(NotBeforeDoc(wish="not_before", of=day.whole(3), at=later), people=people)
    assert min(task.start_s for task in of_item(free, 3)) < free.start_s + 3600
    assert day.at(min(task.start_s for task in of_item(plan, 3))) >= later
    sooner = day.at(free.ends_s) - 2 * HOUR
    plan = day.plan(OverByDoc(wish="over_by", of=day.whole(9), at=sooner), people=people)
    ready = [task for task in of_item(plan, 9) if task.kind != "clean"]
    assert day.at(max(task.end_s for task in ready)) <= sooner


def test_who_is_wished_to_does_it_and_who_is_not_does_not(day: Day) -> None:
    wishes = (
        OnlyByDoc(wish="only_by", of=day.whole(0), person=SOL),
        NotByDoc(wish="not_by", of=day.whole(1), person=SOL),
    )
    plan = day.plan(*wishes)
    assert {task.who for task in of_item(plan, 0)} == {1}
    assert {task.who for task in of_item(plan, 1)} == {0}


def test_a_second_pair_of_hands_for_two_hours_helps_in_these_hours_only(day: Day) -> None:
    alone = day.plan(people=(WREN,))
    comes = day.at(alone.ends_s) - 4 * HOUR
    wish = ThereFromDoc(wish="there_from", person=SOL, at=comes, until=comes + 2 * HOUR)
    helped = day.plan(wish)
    hers = [task for task in helped.tasks if task.who == 1]
    assert sum(task.end_s - task.start_s for task in hers) > 1200
    assert all(comes <= day.at(task.start_s) and day.at(task.end_s) <= comes + 2 * HOUR for task in hers)
    assert helped.lasts_s < alone.lasts_s - 600
    away = day.plan(AwayFromDoc(wish="away_from", person=SOL, at=comes, until=comes + 2 * HOUR))
    for task in (task for task in away.tasks if task.who == 1):
        assert day.at(task.end_s) <= comes or day.at(task.start_s) >= comes + 2 * HOUR


def test_wishes_that_clash_are_named_and_left_out_and_the_rest_is_kept(day: Day) -> None:
    free = day.plan(people=(WREN,))
    pours = [(of, task) for of, task in things(free) if task.kind == "pour"]
    (one, first), (other, _) = pours[0], next(p for p in pours if p[0].item != pours[0][0].item)
    at = day.at(first.start_s)
    same = [BeginsAtDoc(wish="begins_at", of=day.doc(thing), at=at) for thing in (one, other)]
    gone = day.whole(0).model_copy(update={"piece_id": "not-in-it"})
    wishes = (
        NotBeforeDoc(wish="not_before", of=day.whole(9), at=day.at(free.start_s) + HOUR),
        *same,
        NotBeforeDoc(wish="not_before", of=gone, at=at),
        OnlyByDoc(wish="only_by", of=day.whole(2), person="Nobody known"),
    )
    plan = day.plan(*wishes, people=(WREN,))
    kept = summary_of(plan).wishes
    assert kept is not None
    assert (kept.gone, kept.clashes, kept.unfound) == ((3, 4), ((1, 2),), ())
    assert day.at(min(task.start_s for task in of_item(plan, 9))) >= wishes[0].at


def test_a_wish_that_makes_it_late_is_named(day: Day) -> None:
    free = day.plan()
    late = day.at(free.ends_s) - 20 * MINUTE
    idle = OverByDoc(wish="over_by", of=day.whole(0), at=day.at(free.ends_s))
    said = summary_of(day.plan(idle, NotBeforeDoc(wish="not_before", of=day.whole(1), at=late)))
    assert said.wishes is not None and said.wishes.late == (1,)
    # not that there is too little time for it
    assert all(remark.code != "too_late" for remark in said.warnings)


def test_each_does_what_she_does_in_her_own_hours(demo: Workshop, day: Day) -> None:
    kitchen = demo.get("kitchen", KITCHEN_ID)
    doc = kitchen.doc
    assert isinstance(doc, Kitchen)
    week = [Opening(day=n, opens="18:00", closes="23:00") for n in range(7)]
    rosters = [Roster(name=SOL, hours=week, leaves=["heat", "pour"])]
    saved = demo.save("kitchen", KITCHEN_ID, kitchen.version, doc.model_copy(update={"rosters": rosters}))
    try:
        plan = day.plan()
        hers = [task for task in plan.tasks if task.who == 1]
        assert hers and {SKILL_OF[task.kind] for task in hers}.isdisjoint({"heat", "pour"})
        assert {day.at(task.start_s).hour for task in hers} <= set(range(18, 23))
        # alone, what she leaves to others is left undone
        with pytest.raises(OutOfRange, match="leaves that to others"):
            day.plan(people=(SOL,))
    finally:
        demo.save("kitchen", KITCHEN_ID, saved.version, doc)


def offers(day: Day, *wishes: WishDoc) -> tuple[Alternative, dict[str, tuple[Change, Alternative]]]:
    """What is planned for one person, and what would help, by what would be changed."""
    asked = PlanRequest(order=day.order(*wishes, people=(WREN,)), planned_at=day.now)
    planned, *others = PlanParts(day.demo).alternatives(asked)
    return planned, {change.code: (change, other) for other in others for change in other.changes}


def test_help_for_a_while_is_offered_at_the_price_it_has_when_it_is_asked_for(day: Day) -> None:
    planned, by = offers(day)
    change, helped = by["help"]
    assert isinstance(change, HelpChange)
    there = ThereFromDoc(wish="there_from", person=SOL, at=day.at(change.from_s), until=day.at(change.to_s))
    assert day.plan(there).lasts_s == pytest.approx(helped.lasts_s, abs=1)
    assert helped.lasts_s < planned.lasts_s - 300
    # all day is offered only where it helps more
    assert "people" not in by or by["people"][1].lasts_s < helped.lasts_s - 300


def test_a_wish_that_costs_much_is_offered_to_be_lifted(day: Day) -> None:
    alone = day.plan(people=(WREN,))
    planned, by = offers(
        day, NotBeforeDoc(wish="not_before", of=day.whole(1), at=day.at(alone.start_s) + 3 * HOUR)
    )
    _, lifted = by["wish"]
    assert lifted.lasts_s == pytest.approx(alone.lasts_s, abs=1)
    assert lifted.lasts_s < planned.lasts_s - 300


def test_a_shorter_day_that_keeps_what_is_wished_stays_the_orders_own(day: Day) -> None:
    wish = NotBeforeDoc(wish="not_before", of=day.whole(2), at=day.at(day.plan().start_s) + HOUR)
    order, parts = day.order(wish), PlanParts(day.demo)
    first = parts.compiled(order, day.now)
    found = parts.shorter(PlanRequest(order=order, planned_at=day.now))
    assert found.timetable is not None
    shorter = parts.compiled(order.model_copy(update={"timetable": found.timetable}), day.now)
    assert shorter.table == found.timetable.table() != first.table
    assert broken(shorter.day.day, shorter.table) == []
    assert day.at(min(task.start_s for task in of_item(shorter, 2))) >= wish.at
    # and as of a later moment, the day it is due the same
    later = parts.compiled(order.model_copy(update={"timetable": found.timetable}), day.now + 7 * MINUTE)
    assert later.table == shorter.table


def test_what_is_held_where_it_is_costs_nothing(day: Day) -> None:
    free = day.plan()
    for thing, task in list(things(free))[::15]:
        at = day.at(task.start_s).replace(second=0)
        kept = summary_of(day.plan(BeginsAtDoc(wish="begins_at", of=day.doc(thing), at=at))).wishes
        assert kept is not None and kept.longer_s == 0 and abs(kept.sooner_s) <= 60
