"""What is taken when, of hands and of things, and where something first fits."""

import bisect
import itertools
import math
from collections import defaultdict
from collections.abc import Sequence

Span = tuple[int, float]
"""From then until then [s]; until inf: nobody knows yet."""
EVER_S = 10**9
"""Longer than any day, before it or after it [s]."""


class Line:
    """Something of which there is so much, and what of it is taken when; of what there is one, never twice at once."""

    def __init__(self, capacity: int) -> None:
        self.capacity = capacity
        self.spans: list[tuple[int, float, int]] = []

    def take(self, start: int, end: float, amount: int = 1) -> None:
        """Takes so much from then until then. Source: definition"""
        if end > start:
            bisect.insort(self.spans, (start, end, amount))

    def give(self, start: int, end: float, amount: int, until: int) -> None:
        """What was taken with no end is over then. Source: definition"""
        self.spans.remove((start, end, amount))
        self.take(start, until, amount)

    def fits(self, from_s: int, wanted: Sequence[Span], amount: int = 1) -> float:
        """The first time from which all these spans, counted from it, find so much of it free [s]; inf: never.

        Source: definition
        """
        at: float = from_s
        moved = True
        while moved and at < math.inf:
            moved = False
            for a, b in wanted:
                while (later := self._later(at + a, at + b, amount)) > at + a:
                    at, moved = later - a, True
                    if at == math.inf:
                        return at
        return at

    def free(self, start: float, end: float, amount: int = 1) -> bool:
        """Whether so much of it is free all that time. Source: definition"""
        return self._later(start, end, amount) <= start

    def _later(self, start: float, end: float, amount: int) -> float:
        """The start itself where so much is free, or when the next of what is in the way is over."""
        if amount > self.capacity:
            return math.inf
        if self.capacity == 1:
            return self._gap(start, end)
        over = [(s, e, n) for s, e, n in self.spans if s < end and start < e]
        if sum(n for *_, n in over) + amount <= self.capacity:
            return start
        marks = sorted([(s, n) for s, _, n in over] + [(e, -n) for _, e, n in over])
        taken = 0
        for at, n in marks:
            taken += n
            if taken + amount > self.capacity and at < end:
                return min(e for s, e, _ in over if s <= at < e)
        return start

    def _gap(self, start: float, end: float) -> float:
        """When all that is in the way one after the other is over."""
        at = start
        # nothing overlaps, so what ends after the start begins no earlier than the last that begins before it
        before = max(bisect.bisect_left(self.spans, (start, -math.inf, 0)) - 1, 0)
        for s, e, _ in itertools.islice(self.spans, before, None):
            if s >= at + (end - start):
                break
            at = max(at, e)
        return at


def apart(spans: Sequence[tuple[int, int]]) -> list[tuple[int, int]]:
    """The same time, in spans that do not overlap. Source: definition"""
    out: list[tuple[int, int]] = []
    for start, end in sorted(spans):
        if out and start <= out[-1][1]:
            out[-1] = (out[-1][0], max(out[-1][1], end))
        else:
            out.append((start, end))
    return out


def whose(
    people: Sequence[Line], wanted: Sequence[tuple[Sequence[Span], frozenset[int]]], at: int
) -> list[int] | None:
    """Somebody who is free for each at a time, nobody twice at once; None where there is not.

    Args:
        people: what each one's hands do
        wanted: spans of hands, counted from the time, and who may do them [s]
        at: the time [s]
    Source: definition
    """
    mine: dict[int, list[Span]] = defaultdict(list)
    out = []
    for spans, able in wanted:
        for person in sorted(able):
            other = any(s < b and a < e for s, e in mine[person] for a, b in spans)
            if not other and all(people[person].free(at + a, at + b) for a, b in spans):
                mine[person] += spans
                out.append(person)
                break
        else:
            return None
    return out
