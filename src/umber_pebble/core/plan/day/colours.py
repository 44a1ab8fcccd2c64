"""Melts that share a vessel, in an order in which little is washed."""

from collections import defaultdict
from collections.abc import Sequence

from umber_pebble.core.plan.day.blocks import blocks_of
from umber_pebble.core.plan.day.problem import Day


def by_vessel(day: Day) -> dict[str, list[int]]:
    """The melts that are made in one vessel, by vessel, where one may have to be washed out for another. Source: definition"""
    vessels = defaultdict[str, list[int]](list)
    for m, melt in enumerate(day.melts):
        vessels[melt.vessel].append(m)
    return {
        vessel: melts
        for vessel, melts in vessels.items()
        if any(day.cleaned_of(m, other) for m in melts for other in melts)
    }


def light_first(day: Day, rank: Sequence[float]) -> list[float]:
    """Ranks by which of the melts of one vessel that one goes first after which most others need no wash [1].

    Args:
        day: what is asked
        rank: per thing, what is lower goes first; what hangs together with a pour out of a vessel changes places
    Source: common-practice
    """
    out, block = list(rank), {i: of.tasks for of in blocks_of(day) for i in of.tasks}
    for melts in by_vessel(day).values():
        things = {m: {i for d in day.draws if d.melt == m for i in block[d.task]} for m in melts}
        first = {m: min(rank[i] for i in tasks) for m, tasks in things.items() if tasks}
        turns = sorted(first, key=lambda m: (-len(day.melts[m].leads_on.intersection(melts)), first[m]))
        for n, (m, at) in enumerate(zip(turns, sorted(first.values()), strict=True)):
            for i in things[m]:
                out[i] = rank[i] + at - first[m] + n
    return out
