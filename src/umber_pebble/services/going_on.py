"""How a run may go on from where it is, each way with when it ends and what is lost."""

import threading
from collections.abc import Iterator
from dataclasses import dataclass
from datetime import datetime

from umber_pebble.core.bench.onward import How, ways_on
from umber_pebble.core.bench.rest_of_day import rest_of_day
from umber_pebble.core.bench.side_events import Hers, PourAt
from umber_pebble.core.errors import CoreError
from umber_pebble.core.plan.alternatives import sooner_s
from umber_pebble.core.plan.compile import Plan
from umber_pebble.core.plan.problem import Named
from umber_pebble.core.plan.tasks import TaskKind
from umber_pebble.core.plan.timetable import round_numbers
from umber_pebble.services.interpreted import FrozenPlan, Interpreted
from umber_pebble.services.runs import RunService
from umber_pebble.services.together import next_due

AGAIN_S = 30.0
"""So long an answer is good where nothing happens [s]."""


@dataclass(frozen=True, slots=True)
class LostShown:
    """What is too late for its window: which round, of what, what is done to it, when its window closes [s]."""

    round: int
    named: Named
    kind: TaskKind
    closes_s: float


@dataclass(frozen=True, slots=True)
class WayOn:
    """A way to go on: when all is ready [s since the run started]; when rounds are poured, whose hands do what, as they are told when it
    is taken; and what is lost."""

    how: How
    ends_s: float
    pours: tuple[PourAt, ...]
    whose: tuple[Hers, ...]
    lost: list[LostShown]


@dataclass(frozen=True, slots=True)
class GoingOn:
    """The ways to go on as of an event, first as it is going; due_s: when it is due [s since the run started]; by how much it is late as
    it is going, and how much sooner another order noticeably ends [s], 0 where neither is so."""

    run_id: str
    seq: int
    due_s: float
    late_s: float
    sooner_s: float
    ways: list[WayOn]


class Onwards:
    """Answers how a run may go on, for all screens alike: reckoned for one of them at a time, and again after an event or a while."""

    def __init__(self, service: RunService) -> None:
        self.service = service
        self._one = threading.Lock()
        self._known: tuple[tuple[str, int, int], GoingOn] | None = None

    def look(self, run_id: str) -> GoingOn:
        """The ways to go on from now; none where the run is not of the day that would be planned today, or has rounds more.

        Raises: NotFound. Unreadable.
        """
        clock = self.service.workshop.clock
        with self._one:
            run, frozen, seen, _ = self.service.look(run_id)
            elapsed = _since(run.started_at, clock.now())
            key = (run_id, seen.seq, int(elapsed // AGAIN_S))
            if self._known is None or self._known[0] != key:
                due = next_due(frozen.snapshot.order, frozen.snapshot.shares, clock.now())
                ways = list(self._ways(run_id, frozen, seen, elapsed))
                self._known = key, _going_on(run_id, seen.seq, _since(run.started_at, due), ways)
            return self._known[1]

    def _ways(self, run_id: str, frozen: FrozenPlan, seen: Interpreted, elapsed: float) -> Iterator[WayOn]:
        plan = self._plan(run_id, frozen)
        if plan is None or seen.state.ended_s is not None or len(plan.rounds) != len(seen.state.rounds):
            return
        numbers = round_numbers(plan.day, plan.table)
        rest = rest_of_day(plan.day, numbers, seen.cooks, seen.state, (plan.fares.start_s, elapsed))
        for way in ways_on(rest, plan.table, seen.state.planned, plan.problem.people):
            lost = [
                LostShown(of.round, plan.problem.lines[plan.rounds[of.round].line].named, of.kind, of.closes_s)
                for of in way.lost
            ]
            yield WayOn(way.how, way.ends_s, way.pours, way.whose, lost)

    def _plan(self, run_id: str, frozen: FrozenPlan) -> Plan | None:
        """The run's plan; None where it cannot be made today, or does not come out as the run has it."""
        try:
            plan = self.service.plan_of(run_id, frozen)
        except CoreError:
            return None
        rounds = tuple(sorted((r for c in frozen.cooks for r in c.rounds), key=lambda r: r.number))
        return plan if plan.rounds == rounds[: len(plan.rounds)] else None


def _going_on(run_id: str, seq: int, due_s: float, ways: list[WayOn]) -> GoingOn:
    if not ways:
        return GoingOn(run_id, seq, due_s, 0.0, 0.0, ways)
    ends = {way.how: way.ends_s for way in ways}
    as_it_goes = ends["as_it_goes"]
    sooner = as_it_goes - ends.get("rearranged", as_it_goes)
    return GoingOn(run_id, seq, due_s, max(as_it_goes - due_s, 0.0), sooner if sooner >= sooner_s() else 0.0, ways)


def _since(started: datetime, at: datetime) -> float:
    return (at - started).total_seconds()
