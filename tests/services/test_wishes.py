"""What is wished of an order's day is kept, costs what it says, and clashes only by proof."""

import time
from datetime import datetime, timedelta

import pytest

from tests.plans import plan_order
from umber_pebble.core.plan.compile import Plan
from umber_pebble.core.plan.day.check import broken
from umber_pebble.core.plan.day.held import place_of
from umber_pebble.core.plan.tasks import Task
from umber_pebble.core.plan.wishes import Thing
from umber_pebble.services.documents import Order
from umber_pebble.services.wish_docs import (
    BeginsAtDoc,
    NotBeforeDoc,
    OverByDoc,
    ThingDoc,
    WishDoc,
)
from umber_pebble.services.workshop import Workshop

WREN, SOL = "Wren", "Sol"
MINUTE = timedelta(minutes=1)


def table(
    demo: Workshop, *wishes: WishDoc, people: tuple[str, ...] = (WREN, SOL), order: str = "order-table"
) -> Order:
    doc = demo.get("order", order).doc
    assert isinstance(doc, Order)
    return doc.model_copy(update={"people": list(people), "wishes": list(wishes)})


def things(plan: Plan, item: int, what: str) -> list[tuple[Thing, Task]]:
    """What hands do to a line of the order, and which of its things each is."""
    out = []
    for task in plan.tasks:
        of = None if task.thing is None else place_of(plan.day, plan.day.names[task.thing])
        if of is not None and of.item == item and task.kind == what:
            out.append((of, task))
    return out


def doc_of(order: Order, thing: Thing) -> ThingDoc:
    return ThingDoc(piece_id=order.lines[thing.item].piece_id, step=thing.step, what=thing.what, nth=thing.nth)


def whole(order: Order, item: int) -> ThingDoc:
    return ThingDoc(piece_id=order.lines[item].piece_id, step=None, what=None, nth=None)


@pytest.fixture
def now(demo: Workshop) -> datetime:
    return demo.clock.now()


def test_a_pour_that_is_held_begins_then_and_everything_else_goes_round_it(demo: Workshop, now: datetime) -> None:
    free = plan_order(demo, table(demo))
    thing, task = things(free, 1, "pour")[0]
    at = now + timedelta(seconds=round(task.start_s)) - 40 * MINUTE
    order = table(demo)
    plan = plan_order(demo, table(demo, BeginsAtDoc(wish="begins_at", of=doc_of(order, thing), at=at)))
    assert plan.chosen.outcome.clashes == () and plan.chosen.outcome.unfound == ()
    held = next(task for of, task in things(plan, 1, "pour") if of == thing)
    assert held.start_s == pytest.approx((at - now).total_seconds(), abs=1)
    assert broken(plan.day.day, plan.table) == []
    assert plan.ends_s <= plan.problem.due_s


def test_b(demo: Workshop, now: datetime) -> None:
    for item in range(len(table(demo).lines)):
        order = table(demo)
        free = plan_order(demo, order)
        ends = (
            max(t.end_s for kind in ("unmould", "stick", "bend") for _, t in things(free, item, kind))
            if any(things(free, item, k) for k in ("unmould", "stick", "bend"))
            else None
        )
        for people in ((WREN,), (WREN, SOL)):
            for wish in (
                NotBeforeDoc(
                    wish="not_before",
                    of=whole(order, item),
                    at=now + timedelta(seconds=free.start_s) + 90 * MINUTE,
                ),
                OverByDoc(
                    wish="over_by", of=whole(order, item), at=now + timedelta(seconds=free.ends_s) - 120 * MINUTE
                ),
            ):
                t0 = time.perf_counter()
                plan = plan_order(demo, table(demo, wish, people=people))
                dt = time.perf_counter() - t0
                o = plan.chosen.outcome
                f = plan.chosen.unwished
                print(
                    item,
                    len(people),
                    wish.wish,
                    f"{dt:.2f}s",
                    o,
                    f"{plan.lasts_s / 60:.0f} min",
                    f"free {f.table.end_s(f.of.day) / 60:.0f}",
                    f"late {(plan.ends_s - plan.problem.due_s) / 60:.0f}",
                    broken(plan.day.day, plan.table),
                )


def test_p(demo: Workshop, now: datetime) -> None:
    import cProfile
    import pstats

    order = table(demo)
    free = plan_order(demo, order)
    wish = NotBeforeDoc(
        wish="not_before", of=whole(order, 1), at=now + timedelta(seconds=free.start_s) + 90 * MINUTE
    )
    p = cProfile.Profile()
    p.enable()
    plan_order(demo, table(demo, wish, people=(WREN,)))
    p.disable()
    pstats.Stats(p).sort_stats("cumtime").print_stats(30)
