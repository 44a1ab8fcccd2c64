"""What is poured out of one making of a melt, while a timetable is put together."""

from collections.abc import Sequence
from dataclasses import dataclass

from umber_pebble.core.plan.day.problem import Day


@dataclass(slots=True)
class Batch:
    """A melt that is made, or will be: for which draws; when it was ready last and first, until when it was poured from [s]; how often
    it was warmed; since when it has its vessel [s]. What came out of another melt was ready, as it were, before it was made."""

    draws: tuple[int, ...]
    ready_s: int = -1
    first_s: int = -1
    used_s: int = 0
    warmings: int = 0
    held_s: int = -1

    @property
    def made(self) -> bool:
        return self.first_s >= 0


def batches_of(day: Day, melt: int, rank: Sequence[float]) -> list[Batch]:
    """Batches of a melt, each as large as its vessel, in the order in which things go; first what is there already.

    Args:
        day, melt: what is asked, and which melt of it
        rank: per thing, what is lower goes first
    Source: definition
    """
    draws = sorted((i for i, d in enumerate(day.draws) if d.melt == melt), key=lambda i: rank[day.draws[i].task])
    there = day.there(melt)
    out: list[list[int]] = [[]] if there else []
    left = day.melts[melt].pours_mg - (there.poured_mg if there else 0)
    for d in draws:
        if not out or day.draws[d].mg > left:
            out.append([])
            left = day.melts[melt].pours_mg
        out[-1].append(d)
        left -= day.draws[d].mg
    batches = [Batch(tuple(batch)) for batch in out if batch]
    if there and out[0]:
        first = batches[0]
        first.ready_s, first.first_s, first.used_s = there.ready_s, there.first_s, there.used_s
        first.warmings, first.held_s = there.warmings, 0
    return batches
