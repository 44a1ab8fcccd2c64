"""What is poured out of one making of a melt, while a timetable is put together."""

from collections.abc import Sequence
from dataclasses import dataclass

from umber_pebble.core.plan.day.problem import Day


@dataclass(slots=True)
class Batch:
    """A melt that is made, or will be: for which draws; when it was ready last and first, until when it was poured from [s]; how often
    it was warmed; since when it has its vessel [s]."""

    draws: tuple[int, ...]
    ready_s: int = -1
    first_s: int = -1
    used_s: int = 0
    warmings: int = 0
    held_s: int = -1

    @property
    def made(self) -> bool:
        return self.ready_s >= 0


def batches_of(day: Day, melt: int, rank: Sequence[float]) -> list[Batch]:
    """Batches of a melt, each as large as its vessel, in the order in which things go.

    Args:
        day, melt: what is asked, and which melt of it
        rank: per thing, what is lower goes first
    Source: definition
    """
    draws = sorted((i for i, d in enumerate(day.draws) if d.melt == melt), key=lambda i: rank[day.draws[i].task])
    out: list[list[int]] = []
    for d in draws:
        if not out or sum(day.draws[i].mg for i in out[-1]) + day.draws[d].mg > day.melts[melt].pours_mg:
            out.append([])
        out[-1].append(d)
    return [Batch(tuple(batch)) for batch in out]
