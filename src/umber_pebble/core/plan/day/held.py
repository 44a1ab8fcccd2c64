"""A day with what is wished of it, and with whoever is away, begun at a moment."""

import itertools
from collections.abc import Iterable, Iterator
from dataclasses import dataclass, replace

from umber_pebble.core.plan.day.compile import Named, OrderDay
from umber_pebble.core.plan.day.problem import Bound, Day
from umber_pebble.core.plan.tasks import TaskKind
from umber_pebble.core.plan.wishes import (
    AwayFrom,
    BeginsAt,
    NotBefore,
    NotBy,
    OnlyBy,
    OverBy,
    ThereFrom,
    Thing,
    Wish,
)

MANY_TIMES: frozenset[TaskKind] = frozenset({"turn"})
"""What is done to a filling again and again, so long after its pour."""
EVER_S = 30 * 24 * 3600
"""Whoever does not come back is away for so long [s]."""


def things_of(of: OrderDay, thing: Thing) -> list[int]:
    """The things of a day that somebody means. Source: definition"""
    return [i for i, name in enumerate(of.names) if _means(of, thing, name)]


def _means(of: OrderDay, thing: Thing, name: Named) -> bool:
    at = _place_of(of, name)
    return (
        at is not None
        and at.item == thing.item
        and thing.step in (None, at.step)
        and thing.what in (None, at.what)
        and thing.nth in (None, at.nth)
    )


def place_of(of: OrderDay, name: Named) -> Thing | None:
    """What is meant by one thing of a day and no other; None where it only waits for the rest. Source: definition"""
    return None if name.kind in MANY_TIMES else _place_of(of, name)


def _place_of(of: OrderDay, name: Named) -> Thing | None:
    plan = of.plan
    if name.filling is not None:
        filling = of.fillings[name.filling]
        item = plan.lines[filling.line].item
        mine = [n for n, line in enumerate(plan.lines) if line.item == item]
        return Thing(item, mine.index(filling.line), name.kind, filling.nth)
    if name.by_hand is not None:
        item = plan.by_hand[name.by_hand].item
        poured = sum(line.item == item for line in plan.lines)
        mine = [n for n, step in enumerate(plan.by_hand) if step.item == item]
        return Thing(item, poured + mine.index(name.by_hand), name.kind, 0)
    return None


@dataclass(frozen=True, slots=True)
class _Asked:
    """What a wish asks of a day begun at a moment."""

    of: OrderDay
    begins_s: int

    def _at(self, s: float) -> int:
        return round(s - self.begins_s)

    def bounds(self, wish: Wish) -> Iterator[Bound]:
        match wish:
            case BeginsAt(thing, at_s):
                for i in things_of(self.of, thing):
                    yield Bound(i, self._at(at_s), self._at(at_s) + self.of.day.tasks[i].lasts_s)
            case NotBefore(thing, at_s):
                for i in things_of(self.of, thing):
                    yield Bound(i, not_before_s=self._at(at_s))
            case OverBy(thing, at_s):
                for i in things_of(self.of, thing):
                    if thing.what or not self._afterwards(i):
                        yield Bound(i, over_by_s=self._at(at_s))
            case OnlyBy() | NotBy() | ThereFrom() | AwayFrom():
                return

    def _afterwards(self, i: int) -> bool:
        """Whether a piece is ready without it: a mould that is cleaned, paste that dries by itself."""
        name = self.of.names[i]
        dries = name.by_hand is not None and self.of.plan.by_hand[name.by_hand].by_itself
        return name.kind == "clean" or (dries and name.kind == "rest")

    def away(self, wish: Wish) -> Iterator[tuple[int, int, int]]:
        match wish:
            case AwayFrom(person, from_s, to_s):
                yield person, self._at(from_s), self._at(to_s)
            case ThereFrom(person, from_s, to_s):
                yield person, 0, self._at(from_s)
                yield person, self._at(to_s), self._at(to_s) + EVER_S
            case _:
                return

    def able(self, wish: Wish, able: dict[int, frozenset[int]]) -> None:
        """Takes out of who is able to do what whoever is not wished to."""
        match wish:
            case OnlyBy(thing, person):
                for i in things_of(self.of, thing):
                    able[i] &= {person}
            case NotBy(thing, person):
                for i in things_of(self.of, thing):
                    able[i] -= {person}
            case _:
                return


def held(of: OrderDay, wishes: Iterable[Wish], begins_s: int) -> Day | None:
    """A day begun at a moment, with what is wished of it; None where nobody is left to do something.

    Args:
        of: an order's day
        wishes: times from now
        begins_s: from now [s]
    Source: definition
    """
    asked, plan, day = _Asked(of, begins_s), of.plan, of.day
    bounds, away = list[Bound](), [(p, round(a - begins_s), round(b - begins_s)) for p, a, b in plan.away]
    for closes, opens in _closings(plan.open_s):
        away += [(p, round(closes - begins_s), round(opens - begins_s)) for p in range(day.people)]
    able = {i: day.able(i) for i, task in enumerate(day.tasks) if task.hands}
    for wish in wishes:
        bounds += asked.bounds(wish)
        away += asked.away(wish)
        asked.able(wish, able)
    if not all(able.values()):
        return None
    everybody = frozenset(range(day.people))
    tasks = tuple(
        replace(task, able=able[i]) if i in able and able[i] != everybody else task
        for i, task in enumerate(day.tasks)
    )
    closed = tuple(sorted((p, max(a, 0), b) for p, a, b in away if b > max(a, 0)))
    return replace(day, tasks=tasks, bounds=tuple(bounds), closed=_joined(closed))


def _closings(open_s: tuple[tuple[float, float], ...]) -> Iterator[tuple[float, float]]:
    """When nobody may be in the kitchen."""
    if not open_s:
        return
    yield 0.0, open_s[0][0]
    for (_, closes), (opens, _) in itertools.pairwise(open_s):
        yield closes, opens
    yield open_s[-1][1], open_s[-1][1] + EVER_S


def _joined(closed: tuple[tuple[int, int, int], ...]) -> tuple[tuple[int, int, int], ...]:
    """The same, of each person in spans that do not overlap."""
    out: list[tuple[int, int, int]] = []
    for person, start, end in closed:
        if out and out[-1][0] == person and start <= out[-1][2]:
            out[-1] = (person, out[-1][1], max(out[-1][2], end))
        else:
            out.append((person, start, end))
    return tuple(out)
