"""How a timetable fares when hands are slower or quicker than thought: many days of it, in the order in which it was planned."""

import itertools
from collections import defaultdict
from collections.abc import Iterator
from dataclasses import dataclass, field

import numpy as np
from numpy.typing import NDArray

from umber_pebble.core.plan.day.problem import Day, Draw, Edge, Placed, Timetable, placed

Draws = NDArray[np.float32]
HALF_A_SECOND = 0.5
SAFE_FRAC = 0.99
"""A window that is kept on so many days may be called safe [frac]."""
SLIPS = 8
"""Sizes of a slip that are tried of each window [count]."""
IN_TIME_FRAC = 0.95
"""On how many days all should be ready when it is due, where there is time for that [frac]."""


@dataclass(frozen=True, slots=True)
class Chances:
    """Many days of a timetable: when all was ready on each [s]; and for each longest time, by its number among the lags, and each draw
    from its melt, how late it was against its window on each [s], below zero where it was kept."""

    ends_s: Draws
    lags_late_s: dict[int, Draws]
    draws_late_s: dict[int, Draws]

    def by_frac(self, due_s: float) -> float:
        """On how many days all is ready by a time [frac]. Source: definition"""
        return float((self.ends_s <= due_s).mean())

    @property
    def least_frac(self) -> float:
        """On how many days the window is kept that is lost most often [frac]."""
        return min(
            (kept_frac(late) for late in (*self.lags_late_s.values(), *self.draws_late_s.values())), default=1.0
        )


def kept_frac(late_s: Draws) -> float:
    """On how many days a window is kept, of how late it is on each [frac]. Source: definition"""
    # whole seconds are what is planned in
    return float((late_s <= HALF_A_SECOND).mean())


@dataclass(frozen=True, slots=True)
class Window:
    """A window over many days: what is done in it, on how many days in time [frac], how much longer it is than that takes [s], whether a
    piece is lost with it: what may be warmed again is not; and whether it is kept wherever one thing slips within its own window."""

    task: int
    kept_frac: float
    room_s: int
    costly: bool
    bears_slips: bool

    @property
    def safe(self) -> bool:
        """Whether it is called safe."""
        return self.kept_frac >= SAFE_FRAC and self.bears_slips


def spare_s(found: Chances, ends_s: float) -> float:
    """How much sooner than it is due all should be planned to be ready [s]. Source: definition"""
    return max(float(np.quantile(found.ends_s, IN_TIME_FRAC)) - ends_s, 0.0)


def windows(day: Day, found: Chances, slipped: Chances) -> Iterator[Window]:
    """All windows of a day, of days with hands off their pace and of days on which one thing slips. Source: definition"""
    for n, late in found.lags_late_s.items():
        lag = day.lags[n]
        assert lag.most_s is not None
        bears = bool((slipped.lags_late_s[n] <= HALF_A_SECOND).all())
        yield Window(lag.then, kept_frac(late), lag.most_s - lag.least_s, True, bears)
    for d, late in found.draws_late_s.items():
        draw = day.draws[d]
        bears = bool((slipped.draws_late_s[d] <= HALF_A_SECOND).all())
        yield Window(draw.task, kept_frac(late), _room_s(day, draw), not day.melts[draw.melt].warmings, bears)


def _room_s(day: Day, draw: Draw) -> int:
    return draw.closes_s - draw.opens_s - day.tasks[draw.task].lasts_s


def chances(day: Day, table: Timetable, normal: Draws, spread_frac: float) -> Chances:
    """Many days of a timetable: everything is done in the order planned, nothing before it was planned but what follows in a window,
    which comes right after what it follows.

    Args:
        day, table: what is asked, and a timetable that keeps it
        normal: standard normal draws [thing or heat's time of hands, day], as many rows as `uncertain` says
        spread_frac: how far hands are off their pace, as the deviation of its logarithm [frac]
    Source: definition
    """
    return _Days(day, table, np.exp(np.float32(spread_frac) * normal.astype(np.float32)), {}).chances()


def slipped(day: Day, table: Timetable, slips: Draws) -> Chances:
    """Days on each of which one thing begins later than it could, by up to half its window, and hands are on their pace.

    Args:
        day, table: what is asked, and a timetable that keeps it
        slips: per day, which of all windows and how far into its half, both from 0 to 1 [2, day]
    Source: definition
    """
    rooms = _rooms(day)
    late = dict[int, Draws]()
    if rooms:
        which = np.minimum((slips[0] * len(rooms)).astype(int), len(rooms) - 1)
        for n, (task, room) in enumerate(rooms):
            own = np.where(which == n, slips[1] * np.float32(max(room, 0) / 2), 0).astype(np.float32)
            late[task] = late[task] + own if task in late else own
    pace = np.ones((uncertain(day, table), slips.shape[1]), dtype=np.float32)
    return _Days(day, table, pace, late).chances()


def uncertain(day: Day, table: Timetable) -> int:
    """How many times of hands a timetable has [count]. Source: definition"""
    return len(day.tasks) + sum(len(p.hands) for p in placed(day, table.heats))


@dataclass(slots=True)
class _Node:
    """Something with a time of its own: planned when and for how long [s], which row its pace is, None where no hands are at it, and
    what it waits for: so long after the start, or the end, of another."""

    planned_s: int
    lasts_s: int
    row: int | None
    floats: bool = False
    after_start: list[tuple[int, int]] = field(default_factory=list)
    after_end: list[tuple[int, int]] = field(default_factory=list)


def each_slip(day: Day) -> Draws:
    """Every window slipping in its turn, by a little to all of its half [2, day]. Source: definition"""
    count = len(_rooms(day))
    which = (np.arange(count, dtype=np.float32) + 0.5) / max(count, 1)
    far = np.arange(1, SLIPS + 1, dtype=np.float32) / SLIPS
    return np.stack([np.repeat(which, SLIPS), np.tile(far, count)])


def _rooms(day: Day) -> list[tuple[int, int]]:
    """All windows: what is done in each, and how much longer it is than that takes [s]."""
    rooms = [(lag.then, lag.most_s - lag.least_s) for lag in day.lags if lag.most_s is not None]
    return rooms + [(draw.task, _room_s(day, draw)) for draw in day.draws]


class _Days:
    def __init__(self, day: Day, table: Timetable, pace: Draws, late: dict[int, Draws]) -> None:
        self.day, self.table, self.pace, self.late = day, table, pace, late
        self.heats = placed(day, table.heats)
        self.nodes = [
            _Node(start, task.lasts_s, i if task.hands else None)
            for i, (start, task) in enumerate(zip(table.start_s, day.tasks, strict=True))
        ]
        self.ready: list[int] = []
        self.spans: list[list[int]] = []
        for heat in self.heats:
            self._heat(heat)
        self.heat_of = {d: n for n, heat in enumerate(table.heats) for d in heat.draws}
        self._lags()
        self._draws()
        self._in_turn()
        self._heated_in_time()

    def _heat(self, heat: Placed) -> None:
        """A heat: its times of hands, one after the other at their moments, and when it is ready."""
        first = len(self.nodes)
        begins = heat.hands[0][0] if heat.hands else heat.heat.start_s
        rows = [len(self.day.tasks) + sum(map(len, self.spans)) + k for k in range(len(heat.hands))]
        for k, (a, b) in enumerate(heat.hands):
            node = _Node(a, b - a, rows[k])
            if k:
                node.after_start.append((first, a - begins))
                node.after_end.append((first + k - 1, 0))
            self.nodes.append(node)
        last = len(self.nodes) - 1
        ready = _Node(heat.ready_s, 0, None, floats=True)
        if heat.hands:
            ready.after_start.append((first, heat.ready_s - begins))
            ready.after_end.append((last, 0))
        elif (portion := self.day.melts[heat.heat.melt].portion) is not None:
            ready.after_end.append((portion.task, -portion.stood_s))
        self.nodes.append(ready)
        self.ready.append(len(self.nodes) - 1)
        self.spans.append(list(range(first, last + 1)))

    def _lags(self) -> None:
        for lag in self.day.lags:
            node = self.nodes[lag.then]
            least = lag.least_s - (self.day.tasks[lag.then].lasts_s if lag.then_edge == "end" else 0)
            (node.after_start if lag.first_edge == "start" else node.after_end).append((lag.first, least))
            if lag.most_s is not None:
                node.floats = True

    def _draws(self) -> None:
        for d, n in self.heat_of.items():
            draw = self.day.draws[d]
            self.nodes[draw.task].after_end.append((self.ready[n], draw.opens_s))

    def _heated_in_time(self) -> None:
        """A melt goes on as much later as what its first pour waits for is late by then."""
        for heat, spans in zip(self.table.heats, self.spans, strict=True):
            pours = [self.day.draws[d].task for d in heat.draws]
            if not pours or not spans:
                continue
            first, put_on = min((self.nodes[i] for i in pours), key=lambda of: of.planned_s), self.nodes[spans[0]]
            lead = first.planned_s - put_on.planned_s
            for there, here in ((first.after_start, put_on.after_start), (first.after_end, put_on.after_end)):
                here += [(i, shift - lead) for i, shift in there if self._over(i) < put_on.planned_s]

    def _over(self, node: int) -> int:
        return self.nodes[node].planned_s + self.nodes[node].lasts_s

    def _in_turn(self) -> None:
        """What one pair of hands, a heater, a mould, a place has in turn."""
        people: dict[int, list[int]] = defaultdict(list)
        for i, who in enumerate(self.table.who):
            if who is not None:
                people[who].append(i)
        for n, heat in enumerate(self.heats):
            for node, person in zip(self.spans[n], heat.heat.who, strict=True):
                people[person].append(node)
        for rows in people.values():
            rows.sort(key=lambda i: (self.nodes[i].planned_s, self.nodes[i].lasts_s, i))
            for a, b in itertools.pairwise(rows):
                self.nodes[b].after_end.append((a, 0))
        for before, edge, after, shift in self._places():
            self._waits(after, before, edge, shift)
        self._vessels_and_heaters()

    def _waits(self, node: int, other: int, edge: Edge, shift: int) -> None:
        """One waits for another, where it begins no sooner: what is only freed while it is on its way there is not looked at."""
        if self.nodes[other].planned_s <= self.nodes[node].planned_s:
            of = self.nodes[node]
            (of.after_start if edge == "start" else of.after_end).append((other, shift))

    def _vessels_and_heaters(self) -> None:
        """A heat waits until what was in its vessel is poured, and until its heater is free."""
        vessels, heaters = defaultdict[str, list[int]](list), defaultdict[str, list[int]](list)
        for n, heat in enumerate(self.table.heats):
            if self.spans[n]:
                vessels[self.day.melts[heat.melt].vessel].append(n)
                heaters[self.day.melts[heat.melt].heater].append(n)
        for before, after in self._pairs(vessels):
            for d in self.table.heats[before].draws:
                self._waits(self.spans[after][0], self.day.draws[d].task, "end", 0)
        for before, after in self._pairs(heaters):
            was, then = self.heats[before], self.heats[after]
            # what is weighed first is weighed while the other is still on
            lead = then.on_s - then.hands[0][0]
            node, first = self.spans[after][0], self.spans[before][0]
            self._waits(node, first, "start", was.off_s - was.hands[0][0] - lead)
            for i, (_, end) in zip(self.spans[before], was.hands, strict=True):
                if end == was.off_s:
                    self._waits(node, i, "end", -lead)

    def _pairs(self, by: dict[str, list[int]]) -> Iterator[tuple[int, int]]:
        """Heats one after the other in or on what there is one of."""
        for name, rows in by.items():
            if self.day.capacity.get(name, 1) == 1:
                yield from itertools.pairwise(sorted(rows, key=lambda n: self.heats[n].on_s))

    def _places(self) -> Iterator[tuple[int, Edge, int, int]]:
        """What frees a place, by which of its edges, and what is next in it."""
        by: dict[str, list[int]] = defaultdict(list)
        for n, stay in enumerate(self.day.stays):
            by[stay.of].append(n)

        def begins(n: int) -> int:
            stay = self.day.stays[n]
            return self.table.edge_s(self.day, stay.first, stay.first_edge)

        for of, stays in by.items():
            units: list[int | None] = [None] * self.day.capacity.get(of, 1)
            until = [0] * len(units)
            for n in sorted(stays, key=begins):
                stay = self.day.stays[n]
                free = sorted((u for u in range(len(units)) if until[u] <= begins(n)), key=lambda u: -until[u])
                for unit in free[: stay.amount]:
                    before = units[unit]
                    if before is not None:
                        # where a stay begins with the end of something, that may be begun so much sooner
                        sooner = self.day.tasks[stay.first].lasts_s if stay.first_edge == "end" else 0
                        was = self.day.stays[before]
                        yield was.then, was.then_edge, stay.first, was.after_s - sooner
                    units[unit] = n
                    until[unit] = self.table.edge_s(self.day, stay.then, stay.then_edge) + stay.after_s

    def chances(self) -> Chances:
        days = self.pace.shape[1]
        starts = np.zeros((len(self.nodes), days), dtype=np.float32)
        ends = np.zeros_like(starts)
        for i in self._order():
            node, at = self.nodes[i], starts[i]
            waits = node.after_start or node.after_end
            at[:] = 0.0 if node.floats and waits else node.planned_s
            for other, shift in node.after_start:
                np.maximum(at, starts[other] + np.float32(shift), out=at)
            for other, shift in node.after_end:
                np.maximum(at, ends[other] + np.float32(shift), out=at)
            if i in self.late:
                at += self.late[i]
            lasts = np.float32(node.lasts_s)
            ends[i] = at + (lasts if node.row is None else lasts * self.pace[node.row])
        done = ends[list(self.day.done)].max(axis=0) if self.day.done else np.zeros(days, dtype=np.float32)
        return Chances(done, self._lags_late(starts, ends), self._draws_late(ends))

    def _order(self) -> list[int]:
        """Nodes, each after all that it waits for."""
        left = {i: {o for o, _ in (*node.after_start, *node.after_end)} for i, node in enumerate(self.nodes)}
        after: dict[int, list[int]] = defaultdict(list)
        for i, waits in left.items():
            for other in waits:
                after[other].append(i)
        ready, out = [i for i, waits in left.items() if not waits], list[int]()
        while ready:
            i = ready.pop()
            out.append(i)
            for j in after[i]:
                left[j].discard(i)
                if not left[j]:
                    ready.append(j)
        assert len(out) == len(self.nodes), "a day goes on, it never turns back"
        return out

    def _lags_late(self, starts: Draws, ends: Draws) -> dict[int, Draws]:
        edges = {"start": starts, "end": ends}
        return {
            n: edges[lag.then_edge][lag.then] - edges[lag.first_edge][lag.first] - np.float32(lag.most_s)
            for n, lag in enumerate(self.day.lags)
            if lag.most_s is not None
        }

    def _draws_late(self, ends: Draws) -> dict[int, Draws]:
        return {
            d: ends[self.day.draws[d].task] - ends[self.ready[n]] - np.float32(self.day.draws[d].closes_s)
            for d, n in self.heat_of.items()
        }
