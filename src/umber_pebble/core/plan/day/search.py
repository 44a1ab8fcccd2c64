"""The timetable of a day: the best of a few that are there at once, then better ones while somebody looks."""

from collections.abc import Callable, Iterable
from dataclasses import dataclass

from umber_pebble.core.errors import OutOfRange
from umber_pebble.core.plan.day.blocks import tails_s
from umber_pebble.core.plan.day.bounded import ranked
from umber_pebble.core.plan.day.bounds import least_end_s
from umber_pebble.core.plan.day.greedy import NoPlace, first_timetable
from umber_pebble.core.plan.day.model import Model, Weights
from umber_pebble.core.plan.day.problem import Day, Timetable

USUAL = Weights()
APART_FRAC = 0.3
MOST_STARTS, AT_ONCE = 8, 80_000
"""So many timetables at once at most, of a day of n things so many as n squared goes into that: it takes as long [count]."""
PROOF_EVERY = 4
GOLDEN = 0.6180339887498949


@dataclass(frozen=True, slots=True)
class Solved:
    """The best timetable so far, the least that any can end at [s], and whether nothing better is left."""

    table: Timetable
    least_s: int
    best: bool

    def gap_frac(self, day: Day) -> float:
        """By how much it might end sooner at most [frac]. Source: definition"""
        end = self.table.end_s(day)
        return (end - min(self.least_s, end)) / end if end else 0.0


def at_once(day: Day, weights: Weights = USUAL, starts: int = MOST_STARTS) -> Timetable:
    """The best of a few timetables that are found without search [s].

    Args:
        day: what is asked
        weights: by which the best is chosen
        starts: so many at most [count]
    Raises: OutOfRange: none is found.
    Source: definition
    """
    tails, found = tails_s(day), list[Timetable]()
    for n in range(max(1, min(starts, AT_ONCE // max(len(day.tasks), 1) ** 2))):
        # the usual order, and some not far from it, the same each time
        first = ranked(day, tails) if n % 2 else tails
        near = [1 + APART_FRAC * (2 * (n * (i + 1) * GOLDEN % 1) - 1) if n else 1.0 for i in range(len(tails))]
        try:
            found.append(first_timetable(day, [tail * by for tail, by in zip(first, near, strict=True)]))
        except NoPlace:
            continue
    if not found:
        raise OutOfRange("no timetable was found for this", path="lines", got=len(day.tasks))
    return min(found, key=lambda table: weights.of(day, table))


def improved(
    day: Day,
    table: Timetable,
    slices: Iterable[float],
    goes_on: Callable[[Solved], bool],
    weights: Weights = USUAL,
) -> Solved:
    """Searches on from a timetable, slice by slice, each from the best of the one before; the same for the same input.

    Args:
        day, table: what is asked, and a timetable that keeps it
        slices: how long to search each time, by the solver's own clock
        goes_on: told after each slice; false stops
        weights: of the end against melts made anew
    Source: or-tools
    """
    best = Solved(table, least_end_s(day), False)
    for n, lasts in enumerate(slices):
        found, least, proven = Model(day, best.table, weights).solved(lasts, around=n % PROOF_EVERY != 0)
        better = min((best.table, *([found] if found else [])), key=lambda one: weights.of(day, one))
        best = Solved(better, max(best.least_s, least), proven)
        if proven or not goes_on(best):
            break
    return best
