"""What no timetable of a day can end before: each mould's fillings one after the other, and all that hands have to do."""

import itertools
import math
from collections import defaultdict

from umber_pebble.core.plan.day.problem import Day, Stay


def longest_s(day: Day) -> dict[tuple[int, int], int]:
    """For each two things of which one leads to the other, the least time from start to start [s]. Source: definition"""
    after: dict[int, list[tuple[int, int]]] = defaultdict(list)
    for lag in day.lags:
        shift = lag.least_s
        shift += day.tasks[lag.first].lasts_s if lag.first_edge == "end" else 0
        shift -= day.tasks[lag.then].lasts_s if lag.then_edge == "end" else 0
        if shift >= 0:
            after[lag.first].append((lag.then, shift))
    far: dict[int, dict[int, int]] = {}

    def of(i: int) -> dict[int, int]:
        if i not in far:
            far[i] = here = {i: 0}
            for j, shift in after[i]:
                for k, more in of(j).items():
                    here[k] = max(here.get(k, 0), shift + more)
        return far[i]

    return {(i, j): s for i in range(len(day.tasks)) for j, s in of(i).items()}


def stay_s(day: Day, far: dict[tuple[int, int], int], stay: Stay) -> int:
    """The least a stay lasts [s]. Source: definition"""
    start = day.tasks[stay.first].lasts_s if stay.first_edge == "end" else 0
    end = (day.tasks[stay.then].lasts_s if stay.then_edge == "end" else 0) + stay.after_s
    return max(far.get((stay.first, stay.then), 0) + end - start, 0)


def least_end_s(day: Day) -> int:
    """The least time until all is ready [s]: the longest chain, the fullest mould or place, the hands.

    Source: definition
    """
    far = longest_s(day)
    done = {i: day.tasks[i].lasts_s for i in day.done}
    tail = {
        i: max((s + done[j] for (k, j), s in far.items() if k == i and j in done), default=0)
        for i in range(len(day.tasks))
    }
    least = max([0, *(tail[i] for i in tail)])
    by: dict[str, list[Stay]] = defaultdict(list)
    for stay in day.stays:
        by[stay.of].append(stay)
    for of, stays in by.items():
        lasts = [stay_s(day, far, stay) for stay in stays]
        # the last one need not be over, only what is made in it ready
        spare = max(s - _ready_s(day, stay, tail) for s, stay in zip(lasts, stays, strict=True))
        work = sum(s * stay.amount for s, stay in zip(lasts, stays, strict=True))
        least = max(least, -(-work // day.capacity.get(of, 1)) - spare)
    return max(least, _worked_by_s(day))


def _worked_by_s(day: Day) -> int:
    """When hands may have done all that they have to do, whoever is there [s]."""
    needs: float = hands_s(day)
    marks = sorted({0, *(mark for _, *span in day.closed for mark in span)})
    for start, end in itertools.pairwise([*marks, math.inf]):
        there = day.people - sum(a <= start < b for _, a, b in day.closed)
        if there and needs <= there * (end - start):
            return int(start + needs // there)
        needs -= there * (end - start)
    raise AssertionError("whoever is away comes back")


def after_the_end(day: Day) -> frozenset[int]:
    """What may be done when all is ready: nothing waits for it, nobody asks for it, and what it frees is not needed again.

    Source: definition
    """
    followed = {lag.first for lag in day.lags} | set(day.done)
    later = frozenset(range(len(day.tasks))) - followed
    frees: dict[str, list[int]] = defaultdict(list)
    for stay in day.stays:
        if stay.then in later:
            frees[stay.of].append(stay.then)
    for of, tasks in frees.items():
        # all but the last that fit side by side are over before these begin; which those are is open, so the longest
        shortest = sorted(set(tasks), key=lambda i: (day.tasks[i].lasts_s, i))
        later -= frozenset(shortest[: max(len(shortest) - day.capacity.get(of, 1), 0)])
    return later


def hands_s(day: Day) -> int:
    """What hands have to do before all is ready, each melt that is not there yet made once [s]. Source: definition"""
    later, drawn = after_the_end(day), {draw.melt for draw in day.draws}
    own = sum(t.lasts_s for i, t in enumerate(day.tasks) if t.hands and i not in later)
    made = (
        m.weigh_s + sum(b - a for a, b in m.first.hands)
        for i, m in enumerate(day.melts)
        if i in drawn and not day.there(i) and m.portion is None
    )
    return own + sum(made)


def _ready_s(day: Day, stay: Stay, tail: dict[int, int]) -> int:
    """How long after a stay has begun what it is for is ready at the earliest [s]."""
    start = day.tasks[stay.first].lasts_s if stay.first_edge == "end" else 0
    return max(tail[stay.first] - start, 0)
