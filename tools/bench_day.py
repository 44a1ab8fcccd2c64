"""How soon a day has a timetable, and how much better it gets while somebody looks on."""

import sys
import tempfile
import time
from collections.abc import Iterator
from dataclasses import replace
from datetime import timedelta
from pathlib import Path

import numpy as np

sys.path.insert(0, str(Path(__file__).parent.parent))
from bench_rows import row, timed
from tests.core.plan.day.test_timetables import SHOPS, shop
from tests.plans import plan_order
from tests.services.test_going_on import Two

from umber_pebble.config import Config
from umber_pebble.core.plan.day.chances import chances, uncertain
from umber_pebble.core.plan.day.check import broken
from umber_pebble.core.plan.day.order import order_day
from umber_pebble.core.plan.day.problem import Day
from umber_pebble.core.plan.day.search import Solved, at_once, improved
from umber_pebble.demo.fill import fill
from umber_pebble.services.documents import Order
from umber_pebble.services.start import open_workshop
from umber_pebble.services.wish_docs import NotBeforeDoc, OverByDoc, ThingDoc
from umber_pebble.services.workshop import Workshop

SLICE, LOOKS_S, PIECES = 0.2, 20.0, 300


def days() -> None:
    """The demo's two large orders for one and two people, and job shops whose shortest end is known."""
    with tempfile.TemporaryDirectory() as folder:
        config = Config(Path(folder))
        fill(config)
        workshop = open_workshop(config)
        for order in ("order-table", "order-sky"):
            plan = plan_order(workshop, workshop.get("order", order).doc)
            sizes = [size.casts for size in plan.sizes]
            for people in (1, 2):
                asked = replace(plan.problem, people=tuple(map(str, range(people))))
                chosen = order_day(asked, plan.casts, sizes)
                of, table = chosen.of, chosen.table
                name = f"{order}, {people} at it"
                row(f"{name}: at once", timed(lambda _, d=of.day: at_once(d), 3), "1000")  # type: ignore[misc]
                found = searched(of.day)
                assert broken(of.day, found.table) == []
                row(f"{name}: end at once", [table.end_s(of.day) / 3600], "", "h")
                row(f"{name}: end after {LOOKS_S:g} s", [found.table.end_s(of.day) / 3600], "", "h")
                row(f"{name}: melts made (at once {table.batches})", [found.table.batches], "9", "")
                off = np.zeros((uncertain(of.day, found.table), 10_000), dtype=np.float32)
                row(
                    f"{name}: 10,000 days of it",
                    timed(lambda _, d=of.day, t=found.table, off=off: chances(d, t, off, 0.12), 5),  # type: ignore[misc]
                    "100",
                )
                row(f"{name}: may be shorter by at most", [100 * found.gap_frac(of.day)], "10", "%")
        _wished(workshop)
        _large(workshop)
        workshop.engine.dispose()
    for name in SHOPS:
        found = searched(shop(name))
        row(
            f"{name} of {SHOPS[name]['shortest']}",
            [found.table.end_s(shop(name))],
            str(SHOPS[name]["shortest"]),
            "",
        )


def _wished(workshop: Workshop) -> None:
    """The First-light table for two with a piece that is wished later, and two wishes that clash; and what is left of its run."""
    doc = workshop.get("order", "order-table").doc
    assert isinstance(doc, Order)
    of = ThingDoc(piece_id=doc.lines[3].piece_id, step=None, what=None, nth=None)
    later = NotBeforeDoc(wish="not_before", of=of, at=doc.due_at - timedelta(hours=2))
    clashes = OverByDoc(wish="over_by", of=of, at=doc.due_at - timedelta(hours=2))
    for name, wishes in (("a piece later", [later]), ("two wishes that clash", [later, clashes])):
        asked = doc.model_copy(update={"people": ["a", "b"], "wishes": wishes})
        row(f"{name}: planned whole", timed(lambda _, a=asked: plan_order(workshop, a), 3), "")  # type: ignore[misc]
    with tempfile.TemporaryDirectory() as folder:
        two = Two(Path(folder))
        two.go_on(60)
        two.look()
        row("a run after a slip: how to go on", timed(lambda _: two.look(), 5), "500")


def _large(workshop: Workshop) -> None:
    """Twelve kinds, 300 pieces, three people: in one opening of the kitchen, and with nights between."""
    sky = workshop.get("order", "order-sky").doc
    assert isinstance(sky, Order)
    each = PIECES / sum(line.quantity for line in sky.lines)
    lines = [line.model_copy(update={"quantity": round(line.quantity * each)}) for line in sky.lines]
    plan = plan_order(workshop, sky.model_copy(update={"lines": lines, "people": ["a", "b", "c"]}))
    sizes = [size.casts for size in plan.sizes]
    hours = tuple((day * 86_400.0 + 9 * 3600, day * 86_400.0 + 18 * 3600) for day in range(20))
    for name, asked in (
        (f"{PIECES} pieces, 3 at it", plan.problem),
        ("over nights", replace(plan.problem, open_s=hours)),
    ):
        row(
            f"{name}: first timetable, windows too",
            timed(lambda _, p=asked: order_day(p, plan.casts, sizes), 3),
            "1000",
        )  # type: ignore[misc]
        chosen = order_day(asked, plan.casts, sizes)
        assert broken(chosen.of.day, chosen.table) == []
        row(f"{name}: end", [chosen.table.end_s(chosen.of.day) / 3600], "", "h")


def searched(day: Day) -> Solved:
    """What search has found after so long."""
    until = time.perf_counter() + LOOKS_S

    def slices() -> Iterator[float]:
        while time.perf_counter() < until:
            yield SLICE

    return improved(day, at_once(day), slices(), lambda _: True)


if __name__ == "__main__":
    days()
