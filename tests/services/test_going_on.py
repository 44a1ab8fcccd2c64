"""What is left of a run may be arranged anew at any moment, for whoever is there, and the run goes by it to its end."""

import time
from pathlib import Path

import pytest

from tests.services.test_led import MOST_ACTS, SOL, Hand
from umber_pebble.demo.fill import WREN
from umber_pebble.services.documents import Order
from umber_pebble.services.going_on import Onwards


def test_explore(tmp_path: Path) -> None:
    hand = Hand(tmp_path, None)
    stored = hand.workshop.get("order", "order-table")
    doc = stored.doc.model_copy(update={"people": [WREN, SOL]})
    hand.workshop.save("order", "order-table", stored.version, doc)
    hand.start("order-table")
    on = Onwards(hand.runs)
    for n in range(MOST_ACTS):
        if n % 12 == 0:
            t0 = time.perf_counter()
            look = on.look("led")
            print(n, f"{hand.elapsed_s/60:.0f}", f"{time.perf_counter()-t0:.2f}s", [(w.how, round(w.ends_s / 60), [(l.kind, l.round) for l in w.lost]) for w in look.ways])
            if not look.ways:
                from umber_pebble.core.plan.day import greedy
                from umber_pebble.core.bench.rest_of_day import rest_of_day
                from umber_pebble.core.plan.timetable import round_numbers
                run, frozen, seen, _ = hand.runs.look("led")
                plan = on._plans["led"]
                rest = rest_of_day(plan.day, round_numbers(plan.day, plan.table), seen.cooks, seen.state, hand.elapsed_s)
                g = greedy._Greedy(rest.day, [float(x) for x in plan.table.start_s])
                try: g.table()
                except greedy.NoPlace: pass
                stuck = [b for b in g.blocks if b.tasks[0] not in g.start]
                print("now", round(hand.elapsed_s), "people", g.people[0].spans[-2:])
                for b in stuck[:6]:
                    print([(i, plan.day.names[i].kind, plan.day.names[i].filling, i in rest.done) for i in b.tasks], [bb for bb in rest.day.bounds if bb.task in b.tasks], "earliest", g._earliest(b), [s.of for i in b.tasks for s in g.enters[i]], [ (rest.day.draws[g.draw[i]].melt) for i in b.tasks if i in g.draw])
                print([ (m, [ (x.made, x.ready_s, len(x.draws), x.warmings) for x in of]) for m, of in enumerate(g.batches)])
        if not hand.step():
            break
    print(n, hand.elapsed_s / 60)
