"""How a run may go on from where it is, each way with when it ends and what is lost."""

import math
import threading
import time
from collections.abc import Iterator, Mapping
from dataclasses import dataclass, field, replace
from datetime import datetime

from umber_pebble.core.bench.colder import Chilled, chilled
from umber_pebble.core.bench.left_out import Spared, spared
from umber_pebble.core.bench.now import RunNow
from umber_pebble.core.bench.onward import How, Onward, Others, offered, searched, ways_on
from umber_pebble.core.bench.rest_of_day import Rest, rest_of_day
from umber_pebble.core.bench.side_events import Hers, PourAt
from umber_pebble.core.bench.track import Track
from umber_pebble.core.errors import CoreError
from umber_pebble.core.plan.alternatives import sooner_s
from umber_pebble.core.plan.compile import Plan
from umber_pebble.core.plan.problem import Named
from umber_pebble.core.plan.tasks import TaskKind
from umber_pebble.core.plan.timetable import round_numbers
from umber_pebble.services.interpreted import FrozenPlan, Interpreted, run_now, track_of_round
from umber_pebble.services.runs import RunService
from umber_pebble.services.together import next_due

AGAIN_S = 30.0
"""So long an answer is good where nothing happens [s]."""
SEARCH_S = 6.0
"""So long somebody at the bench looks on while an order is searched for [s]."""


@dataclass(frozen=True, slots=True)
class LostShown:
    """What is too late for its window: which round, of what, what is done to it, when its window closes [s]."""

    round: int
    named: Named
    kind: TaskKind
    closes_s: float


@dataclass(frozen=True, slots=True)
class SparedShown:
    """What is left out of a line: its rounds, castings fewer [count], how sure it is of enough with them and without [frac], and whether
    nobody doubts it."""

    named: Named
    rounds: tuple[int, ...]
    casts: int
    sure_frac: float
    then_frac: float
    enough: bool


@dataclass(frozen=True, slots=True)
class ChilledShown:
    """What is moved: which round, of what, to where; from when it may be turned out there and by when it has to be, None: it does not
    crack [s since the run started]."""

    round: int
    named: Named
    place: str
    out_s: float
    cracks_s: float | None


@dataclass(frozen=True, slots=True)
class WayOn:
    """A way to go on: when all is ready [s since the run started]; when rounds are poured, whose hands do what, as they are told when it
    is taken; what is lost; what it leaves out, and what it moves into the cold; whether it is worth offering."""

    how: How
    ends_s: float
    offered: bool
    pours: tuple[PourAt, ...]
    whose: tuple[Hers, ...]
    lost: list[LostShown]
    spared: list[SparedShown] = field(default_factory=list)
    chilled: list[ChilledShown] = field(default_factory=list)


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
        self._known: tuple[tuple[str, int, int], _Left | None, GoingOn] | None = None

    def look(self, run_id: str) -> GoingOn:
        """The ways to go on from now; none where the run is not of the day that would be planned today, or has rounds more.

        Raises: NotFound. Unreadable.
        """
        with self._one:
            return self._look(run_id)[1]

    def search(self, run_id: str, seconds: float = SEARCH_S) -> GoingOn:
        """The same, with the order that a search of so long finds, where that ends sooner than what is known.

        Raises: NotFound. Unreadable.
        """
        with self._one:
            left, known = self._look(run_id)
            assert self._known is not None
            key, until = self._known[0], time.monotonic() + seconds
        # the others' screens are answered meanwhile
        found = left and searched(left.rest, left.plan.problem.people, lambda: time.monotonic() < until)
        if not left or not found:
            return known
        ways = [left.better(way, found, known.ways[0]) for way in known.ways]
        going_on = _going_on(known.run_id, known.seq, known.due_s, ways)
        with self._one:
            if self._known is not None and self._known[0] == key:
                self._known = key, left, going_on
        return going_on

    def _look(self, run_id: str) -> tuple["_Left | None", GoingOn]:
        clock = self.service.workshop.clock
        run, frozen, seen, _ = self.service.look(run_id)
        elapsed = _since(run.started_at, clock.now())
        key = (run_id, seen.seq, int(elapsed // AGAIN_S))
        if self._known is None or self._known[0] != key:
            due_s = _since(run.started_at, next_due(frozen.snapshot.order, frozen.snapshot.shares, clock.now()))
            plan = self._plan(run_id, frozen)
            over = seen.state.ended_s is not None or (plan and len(plan.rounds) != len(seen.state.rounds))
            left = None if plan is None or over else _left(plan, frozen, seen, elapsed)
            ways = [] if left is None else list(left.ways(seen.state.planned))
            self._known = key, left, _going_on(run_id, seen.seq, due_s, ways)
        return self._known[1:]

    def _plan(self, run_id: str, frozen: FrozenPlan) -> Plan | None:
        """The run's plan; None where it cannot be made today, or does not come out as the run has it."""
        try:
            plan = self.service.plan_of(run_id, frozen)
        except CoreError:
            return None
        rounds = tuple(sorted((r for c in frozen.cooks for r in c.rounds), key=lambda r: r.number))
        return plan if plan.rounds == rounds[: len(plan.rounds)] else None


@dataclass(frozen=True, slots=True)
class _Left:
    """What is left of a run, as it is and in other ways, and what those leave out and move."""

    plan: Plan
    rest: Rest
    others: Others
    spares: list[Spared]
    cold: list[Chilled]

    def ways(self, pours_s: Mapping[int, float]) -> Iterator[WayOn]:
        for way in ways_on(self.rest, self.others, self.plan.table, pours_s, self.plan.problem.people):
            yield self.shown(way)

    def better(self, way: WayOn, found: Onward, now: WayOn) -> WayOn:
        """A way, or what was found of its kind where that ends sooner."""
        if way.how != found.how or way.ends_s <= found.ends_s:
            return way
        return self.shown(offered(found, now.ends_s, len(now.lost)))

    def shown(self, way: Onward) -> WayOn:
        lines = self.plan.problem.lines
        return WayOn(
            way.how,
            way.ends_s,
            way.offered,
            way.pours,
            way.whose,
            [LostShown(of.round, _named(self.plan, of.round), of.kind, of.closes_s) for of in way.lost],
            [
                SparedShown(lines[of.line].named, of.rounds, of.casts, of.sure_frac, of.then_frac, of.enough)
                for of in self.spares
                if way.how == "without_spares"
            ],
            [
                ChilledShown(c.round, _named(self.plan, c.round), c.place, c.out_s, _or_none(c.cracks_s))
                for c in self.cold
                if way.how == "colder"
            ],
        )


def _left(plan: Plan, frozen: FrozenPlan, seen: Interpreted, elapsed: float) -> _Left:
    run, numbers = run_now(frozen, seen, elapsed), round_numbers(plan.day, plan.table)

    def rest_of(run: RunNow) -> Rest:
        return rest_of_day(plan.day, numbers, run, plan.fares.start_s)

    def moved(number: int, place: str) -> Track:
        return track_of_round(frozen, seen, number, (elapsed, place))

    spares, cold = spared(frozen.plan, run.state), chilled(run, frozen.places, moved)
    fewer = run.state.apart()
    for number in (number for of in spares for number in of.rounds):
        fewer.rounds[number].left_out = True
    others = Others(
        rest_of(replace(run, state=fewer)) if spares else None,
        rest_of(replace(run, rounds=run.rounds | {of.round: of.there for of in cold})) if cold else None,
    )
    return _Left(plan, rest_of(run), others, spares, cold)


def _named(plan: Plan, number: int) -> Named:
    return plan.problem.lines[plan.rounds[number].line].named


def _or_none(at_s: float) -> float | None:
    return at_s if math.isfinite(at_s) else None


def _going_on(run_id: str, seq: int, due_s: float, ways: list[WayOn]) -> GoingOn:
    if not ways:
        return GoingOn(run_id, seq, due_s, 0.0, 0.0, ways)
    ends = {way.how: way.ends_s for way in ways}
    as_it_goes = ends["as_it_goes"]
    sooner = as_it_goes - ends.get("rearranged", as_it_goes)
    return GoingOn(run_id, seq, due_s, max(as_it_goes - due_s, 0.0), sooner if sooner >= sooner_s() else 0.0, ways)


def _since(started: datetime, at: datetime) -> float:
    return (at - started).total_seconds()
