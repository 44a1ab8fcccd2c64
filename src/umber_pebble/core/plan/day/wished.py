"""A timetable that keeps what is wished, as far as that can be kept."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace

from umber_pebble.core.errors import OutOfRange
from umber_pebble.core.plan.day.blocks import tails_s
from umber_pebble.core.plan.day.bounded import ranked
from umber_pebble.core.plan.day.check import broken
from umber_pebble.core.plan.day.clash import clash
from umber_pebble.core.plan.day.compile import OrderDay
from umber_pebble.core.plan.day.greedy import first_timetable
from umber_pebble.core.plan.day.held import EVER_S, held, things_of
from umber_pebble.core.plan.day.model import Model, Weights
from umber_pebble.core.plan.day.needs import NoPlace
from umber_pebble.core.plan.day.problem import Bound, Day, Timetable, fits
from umber_pebble.core.plan.day.search import at_once
from umber_pebble.core.plan.wishes import AwayFrom, BeginsAt, NotBefore, NotBy, OnlyBy, OverBy, ThereFrom

STEPS_S = (600, 600, 1200, 1200, 2400, 4800, 9600, 19200, 38400)
"""By how much sooner it is begun each time, where it is not late by more [s]."""
SPARE_COUNTS = 6
"""A minute less to spare counts like so many that it is begun sooner. Source: assumption"""
NEARER = 2
"""So many beginnings between the last two are looked at [count]."""
SEARCH = 2.0
"""How long a timetable is searched for where none is found at once, by the solver's own clock."""


@dataclass(frozen=True, slots=True)
class Outcome:
    """What came of wishes, by their numbers: those of things that are not made any more; sets that clash, each no larger than it has to
    be; those for which no timetable was found, though they may be kept; those that make it late, of which none can be left out."""

    gone: tuple[int, ...] = ()
    clashes: tuple[tuple[int, ...], ...] = ()
    unfound: tuple[int, ...] = ()
    late: tuple[int, ...] = ()


NOTHING_WISHED = Outcome()


@dataclass(frozen=True, slots=True)
class Begun:
    """An order's day with what is wished of it, begun at a moment [s from now]."""

    of: OrderDay
    table: Timetable
    begins_s: int


def wished(
    days: Sequence[OrderDay], known: tuple[OrderDay, Timetable], spare_s: float, weights: Weights
) -> tuple[Begun | None, Outcome]:
    """An order's day as it is wished, as late as it may begin; None where nothing is found even without any wish; and what came of them.

    Args:
        days: the order's day, or a few ways to lay it out
        known: one of them with a timetable that leaves wishes aside
        spare_s: how much sooner than it is due all should be ready, where there is time for that [s]
        weights: by which timetables are chosen
    Source: definition, or-tools
    """
    return _Wished(days, known, spare_s, weights).found()


class _Wished:
    def __init__(
        self, days: Sequence[OrderDay], known: tuple[OrderDay, Timetable], spare_s: float, weights: Weights
    ) -> None:
        self.days, self.weights = days, weights
        self.of, self.table = known
        self.plan = self.of.plan
        self.due = int(self.plan.due_s)
        self.by = int(self.plan.due_s - spare_s)
        """When it should be ready, with time to spare [s from now]."""
        self.tried: dict[tuple[tuple[int, ...], int], Begun | None] = {}

    def found(self) -> tuple[Begun | None, Outcome]:
        gone = tuple(n for n, _ in enumerate(self.plan.wishes) if self._gone(n))
        wishes = [n for n, _ in enumerate(self.plan.wishes) if n not in gone]
        clashes = list[tuple[int, ...]]()
        while True:
            as_it_is = self._as_it_is(wishes)
            if as_it_is is not None:
                return as_it_is, Outcome(gone, tuple(clashes))
            some = self._clash(wishes) if wishes and self._first(wishes, self._latest()) is None else ()
            if some:
                clashes.append(some)
                wishes = [n for n in wishes if n not in some]
                continue
            begun = self._begun(wishes)
            if begun is not None:
                late = self._late(wishes) if wishes and self._ends_s(begun) > self.due else ()
                return begun, Outcome(gone, tuple(clashes), (), late)
            searched = self._searched(wishes) if wishes else None
            unfound = () if searched else tuple(wishes)
            return searched or (self._begun([]) if wishes else None), Outcome(gone, tuple(clashes), unfound)

    def _as_it_is(self, wishes: Sequence[int]) -> Begun | None:
        """The timetable that leaves wishes aside, where it keeps them all the same, begun when one of them says."""
        these = [self.plan.wishes[n] for n in wishes]
        moments = [self._latest()]
        moments += [
            round(wish.at_s) - self.table.start_s[i]
            for wish in these
            if isinstance(wish, BeginsAt)
            for i in things_of(self.of, wish.of)
        ]
        for at in sorted(moments, reverse=True):
            day = (
                self._held(self.of, wishes, at)
                if at >= 0 and at + self.table.end_s(self.of.day) <= self.due
                else None
            )
            if day is not None and not broken(day, self.table):
                return Begun(replace(self.of, day=day), self._kept(day) or self.table, at)
        return None

    def _clash(self, wishes: Sequence[int]) -> tuple[int, ...]:
        return clash(lambda these: self._held(self.of, these, 0), wishes, self.table)

    def _latest(self) -> int:
        """The latest it would begin without wishes; now, where it is to be soon."""
        return 0 if self.plan.soon else max(self.by - self.table.end_s(self.of.day), 0)

    def _gone(self, n: int) -> bool:
        wish = self.plan.wishes[n]
        if isinstance(wish, ThereFrom | AwayFrom):
            return wish.person not in range(self.of.day.people)
        nobody = isinstance(wish, OnlyBy | NotBy) and wish.person not in range(self.of.day.people)
        return nobody or not things_of(self.of, wish.of)

    def _held(self, of: OrderDay, wishes: Sequence[int], begins_s: int) -> Day | None:
        return held(of, [self.plan.wishes[n] for n in wishes], begins_s)

    def _ends_s(self, begun: Begun) -> int:
        return begun.begins_s + begun.table.end_s(begun.of.day)

    def _begun(self, wishes: Sequence[int]) -> Begun | None:
        """From the latest beginning on sooner and sooner, until it is in time with time to spare, and then as late as it still is."""
        found, at, late_at = list[Begun](), self._latest(), None
        for step in (0, *STEPS_S):
            at = max(at - step, 0)
            begun = self._first(wishes, at)
            if begun:
                found.append(begun)
                if self._ends_s(begun) <= self.by:
                    break
            late_at = at
            if at == 0:
                break
        if not found:
            return None
        if late_at is not None and self._ends_s(found[-1]) <= self.by:
            found.append(self._later(found[-1], late_at, wishes))
        return self._better(self._trimmed(min(found, key=self._cost), wishes), wishes)

    def _cost(self, begun: Begun) -> tuple[int, int]:
        """What is bad about it: how late it is; how soon it has to be begun, and what is gone of the time to spare."""
        ends = self._ends_s(begun)
        return max(ends - self.due, 0), self.due - begun.begins_s + SPARE_COUNTS * max(ends - self.by, 0)

    def _later(self, best: Begun, late_at: int, wishes: Sequence[int]) -> Begun:
        """Between a beginning in time and one that is not."""
        for _ in range(NEARER):
            at = (best.begins_s + late_at) // 2
            begun = self._first(wishes, at)
            if begun and self._ends_s(begun) <= self.by:
                best = begun
            else:
                late_at = at
        return best

    def _first(self, wishes: Sequence[int], at: int) -> Begun | None:
        """What is found at once and ends soonest, of the ways to lay it out, what is wished first where that is needed."""
        key = (tuple(wishes), at)
        if key not in self.tried:
            self.tried[key] = self._tried(wishes, at)
        return self.tried[key]

    def _tried(self, wishes: Sequence[int], at: int) -> Begun | None:
        found = list[Begun]()
        # what has to be over by a moment first, where that is wished and the usual order is late
        for rank in (tails_s, lambda day: ranked(day, tails_s(day))):
            found += [begun for of in self.days if (begun := self._laid(of, wishes, at, rank))]
            soonest = min(found, key=self._ends_s, default=None)
            in_time = soonest is not None and self._ends_s(soonest) <= self.by
            if in_time or not any(isinstance(self.plan.wishes[n], OverBy | BeginsAt) for n in wishes):
                break
        return soonest

    def _laid(
        self, of: OrderDay, wishes: Sequence[int], at: int, rank: Callable[[Day], list[float]]
    ) -> Begun | None:
        day = self._held(of, wishes, at)
        if day is None:
            return None
        try:
            begun = Begun(replace(of, day=day), first_timetable(day, rank(day)), at)
        except NoPlace:
            return None
        # who never comes back does nothing
        return begun if self._ends_s(begun) < at + EVER_S // 2 else None

    def _trimmed(self, begun: Begun, wishes: Sequence[int]) -> Begun:
        """Begun when its first thing begins."""
        table = begun.table
        first = min([*table.start_s, *(heat.start_s for heat in table.heats)])
        at = begun.begins_s + first
        day = self._held(begun.of, wishes, at)
        assert day is not None
        moved = Timetable(
            tuple(s - first for s in table.start_s),
            table.who,
            tuple(replace(heat, start_s=heat.start_s - first) for heat in table.heats),
        )
        return Begun(replace(begun.of, day=day), moved, at)

    def _better(self, begun: Begun, wishes: Sequence[int]) -> Begun:
        """With the one that was chosen before, where that keeps this day, else the best of a few."""
        day, kept = begun.of.day, self._kept(begun.of.day)
        if kept is not None:
            return replace(begun, table=kept)
        try:
            other = at_once(day, self.weights)
        except OutOfRange:
            return begun
        return replace(begun, table=min(begun.table, other, key=lambda one: self.weights.of(day, one)))

    def _kept(self, day: Day) -> Timetable | None:
        """The one that was chosen before, where it keeps a day."""
        kept = self.plan.kept
        return kept if kept is not None and fits(day, kept) and not broken(day, kept) else None

    def _searched(self, wishes: Sequence[int]) -> Begun | None:
        """What the solver finds where nothing is found at once."""
        these = [self.plan.wishes[n] for n in wishes]
        moments = [wish.at_s for wish in these if isinstance(wish, BeginsAt | NotBefore | OverBy)]
        soon = min([self.due, *moments]) - self.table.end_s(self.of.day)
        day = self._held(self.of, wishes, max(int(soon), 0))
        if day is None:
            return None
        found, *_ = Model(day, self.table, self.weights).solved(SEARCH, around=False)
        if found is None:
            return None
        return self._trimmed(Begun(replace(self.of, day=day), found, max(int(soon), 0)), wishes)

    def _late(self, wishes: Sequence[int]) -> tuple[int, ...]:
        """Which of them make it late, where that can be proven."""

        def due(these: Sequence[int]) -> Day | None:
            day = self._held(self.of, these, 0)
            over = tuple(Bound(i, over_by_s=self.due) for i in self.of.day.done)
            return day and replace(day, bounds=(*day.bounds, *over))

        return clash(due, wishes, self.table)
