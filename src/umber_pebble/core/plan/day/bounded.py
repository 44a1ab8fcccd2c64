"""When a block may be, by what is wished of its things; and hands saved for what is wished to begin at a moment."""

import math
from collections import defaultdict
from collections.abc import Sequence

from umber_pebble.core.plan.day.blocks import Block
from umber_pebble.core.plan.day.lines import Line
from umber_pebble.core.plan.day.problem import Bound, Day

Saved = list[tuple[int, int, int]]
"""Whose hands, from then until then [s]."""


def ranked(day: Day, rank: Sequence[float]) -> list[float]:
    """Ranks by which what has to be over by a moment goes before all else, and what leads to it [1].

    Args:
        day: what is asked
        rank: per thing, what is lower goes first
    Source: definition
    """
    before = defaultdict[int, list[int]](list)
    for lag in day.lags:
        before[lag.then].append(lag.first)
    by: dict[int, float] = {}
    reached = [(bound.task, bound.over_by_s) for bound in day.bounds if bound.over_by_s is not None]
    while reached:
        task, over = reached.pop()
        if by.get(task, math.inf) > over:
            by[task] = over
            reached += [(first, over) for first in before[task]]
    if not by:
        return list(rank)
    # the sooner it has to be over, the lower
    first, last = min(rank), max(by.values()) + 1
    return [first - (last - by[i]) if i in by else of for i, of in enumerate(rank)]


class Bounded:
    """The bounds of a day's blocks, and hands that are saved for some of them."""

    def __init__(self, day: Day, blocks: Sequence[Block], people: Sequence[Line]) -> None:
        self.day, self.people = day, people
        self.of = defaultdict[int, list[Bound]](list)
        for bound in day.bounds:
            self.of[bound.task].append(bound)
        self.saved = {block.tasks[0]: self._save(block) for block in blocks}

    def soonest_s(self, block: Block) -> int:
        """Not before its things are wished to begin [s]. Source: definition"""
        wished = ((bound.not_before_s or 0) - block.at_s[i] for i in block.tasks for bound in self.of[i])
        return max([0, *wished])

    def latest_s(self, block: Block) -> float:
        """Not later than its things are wished to be over [s]. Source: definition"""
        return min(
            (
                bound.over_by_s - self.day.tasks[i].lasts_s - block.at_s[i]
                for i in block.tasks
                for bound in self.of[i]
                if bound.over_by_s is not None
            ),
            default=math.inf,
        )

    def _save(self, block: Block) -> Saved:
        at, saved = self.soonest_s(block), Saved()
        for i in block.tasks if at == self.latest_s(block) else ():
            start, end = at + block.at_s[i], at + block.at_s[i] + self.day.tasks[i].lasts_s
            person = next((p for p in sorted(self.day.able(i)) if self.people[p].free(start, end)), None)
            if self.day.tasks[i].hands and end > start and person is not None:
                self.people[person].take(start, end)
                saved.append((person, start, end))
        return saved

    def lend(self, block: Block) -> None:
        """Hands that were saved for a block are free for it. Source: definition"""
        for person, start, end in self.saved[block.tasks[0]]:
            self.people[person].give(start, end, 1, start)

    def save_again(self, block: Block) -> None:
        """They are saved again: the block was not put. Source: definition"""
        for person, start, end in self.saved[block.tasks[0]]:
            self.people[person].take(start, end)
