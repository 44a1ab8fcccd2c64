"""What of a day hangs together by windows, and how long each thing is followed by others."""

import itertools
from collections import defaultdict
from collections.abc import Hashable, Mapping, Sequence
from dataclasses import dataclass, replace

from umber_pebble.core.plan.day.problem import Day, Edge, Lag, Stay


@dataclass(frozen=True, slots=True)
class Block:
    """Things that hang together by windows, each so long after the first [s]."""

    tasks: tuple[int, ...]
    at_s: dict[int, int]

    def edge_s(self, day: Day, task: int, edge: Edge) -> int:
        """When one of them begins or ends [s from the first]. Source: definition"""
        return self.at_s[task] + (day.tasks[task].lasts_s if edge == "end" else 0)


def shift_s(day: Day, lag: Lag) -> int:
    """The least from the start of a lag's first thing to the start of its other [s]. Source: definition"""
    first = day.tasks[lag.first].lasts_s if lag.first_edge == "end" else 0
    return first + lag.least_s - (day.tasks[lag.then].lasts_s if lag.then_edge == "end" else 0)


def tails_s(day: Day) -> list[float]:
    """For each thing, less the time from its start until all that follows it is done [s]: what is lower goes first.

    Source: definition
    """
    after: dict[int, list[tuple[int, int]]] = defaultdict(list)
    for lag in day.lags:
        if lag.least_s >= 0:
            after[lag.first].append((lag.then, shift_s(day, lag)))
    tail: dict[int, int] = {}

    def of(i: int, above: frozenset[int]) -> int:
        if i not in tail:
            inner = above | {i}
            follows = (shift + of(j, inner) for j, shift in after[i] if j not in inner)
            tail[i] = max([day.tasks[i].lasts_s, *follows])
        return tail[i]

    return [-float(of(i, frozenset())) for i in range(len(day.tasks))]


def tails_in_turn_s(day: Day) -> list[float]:
    """The same, with what stays one after the other in what there is one of following in turn: so a mould that is filled often is seen
    to be what the day waits for [s].

    Source: definition
    """
    lags, last = list(day.lags), dict[str, Stay]()
    for stay in day.stays:
        if day.capacity.get(stay.of, 1) == 1:
            before = last.get(stay.of)
            if before is not None:
                lags.append(Lag(before.then, before.then_edge, stay.first, stay.first_edge, before.after_s))
            last[stay.of] = stay
    return tails_s(replace(day, lags=tuple(lags)))


def blocks_of(day: Day) -> list[Block]:
    """Things that a longest time ties together, each as early as the others and one pair of hands let it be.

    Source: definition
    """
    of = list(range(len(day.tasks)))

    def root(i: int) -> int:
        while of[i] != i:
            i = of[i]
        return i

    for lag in day.lags:
        if lag.most_s is not None:
            of[root(lag.first)] = root(lag.then)
    groups: dict[int, list[int]] = defaultdict(list)
    for i in range(len(day.tasks)):
        groups[root(i)].append(i)
    return [_laid(day, group) for group in groups.values()]


def _laid(day: Day, group: list[int]) -> Block:
    inside = set(group)
    lags = [lag for lag in day.lags if lag.first in inside and lag.then in inside]
    at = dict.fromkeys(group, 0)
    for _ in range(2 * len(group) + 2):
        before = dict(at)
        for lag in lags:
            shift = shift_s(day, lag)
            at[lag.then] = max(at[lag.then], at[lag.first] + shift)
            if lag.most_s is not None:
                # what may not be so late pulls the first after it
                at[lag.first] = max(at[lag.first], at[lag.then] - shift - (lag.most_s - lag.least_s))
        ordered = sorted((i for i in group if day.tasks[i].hands), key=lambda i: (at[i], i))
        for a, b in itertools.pairwise(ordered):
            at[b] = max(at[b], at[a] + day.tasks[a].lasts_s)
        if at == before:
            break
    start = min(at.values())
    order = sorted(group, key=lambda i: (at[i], i))
    return Block(tuple(order), {i: at[i] - start for i in order})


def between(day: Day, of: Mapping[int, Block]) -> tuple[dict[int, list[tuple[int, int]]], dict[int, set[int]]]:
    """For each thing what of other blocks it waits for, and how long after its start [s]; for each block, by its first thing, which
    others wait for it.

    Args:
        day, of: what is asked, and the block of each thing
    Source: definition
    """
    before, followers = defaultdict[int, list[tuple[int, int]]](list), defaultdict[int, set[int]](set)
    for lag in day.lags:
        if of[lag.first] is not of[lag.then]:
            before[lag.then].append((lag.first, shift_s(day, lag)))
            followers[of[lag.first].tasks[0]].add(of[lag.then].tasks[0])
    return before, followers


def alike(day: Day, blocks: Sequence[Block]) -> dict[int, int]:
    """Blocks that ask for the same and have the same to come after them, by the number of the first of them.

    Args:
        day, blocks: what is asked, and its blocks
    Source: definition
    """
    tails, draw = tails_s(day), {d.task: replace(d, task=0) for d in day.draws}
    enters = defaultdict[int, list[Hashable]](list)
    for stay in day.stays:
        enters[stay.first].append((stay.of, stay.amount, stay.first_edge, stay.then_edge, stay.after_s))
    bounds = defaultdict[int, list[Hashable]](list)
    for bound in day.bounds:
        bounds[bound.task].append(replace(bound, task=0))
    first: dict[Hashable, int] = {}
    return {
        block.tasks[0]: first.setdefault(
            tuple(
                (day.tasks[i], block.at_s[i], tails[i], draw.get(i), tuple(enters[i]), tuple(bounds[i]))
                for i in block.tasks
            ),
            block.tasks[0],
        )
        for block in blocks
    }
