"""The timetable of a day: the best of a few that are there at once, then better ones while somebody looks."""

from collections.abc import Callable, Iterable
from dataclasses import dataclass
from typing import NamedTuple

from umber_pebble.core.errors import OutOfRange
from umber_pebble.core.plan.day.blocks import tails_in_turn_s, tails_s
from umber_pebble.core.plan.day.bounded import ranked
from umber_pebble.core.plan.day.bounds import least_end_s
from umber_pebble.core.plan.day.colours import by_vessel, light_first
from umber_pebble.core.plan.day.greedy import first_timetable
from umber_pebble.core.plan.day.model import Model, Weights
from umber_pebble.core.plan.day.needs import NoPlace
from umber_pebble.core.plan.day.problem import Day, Timetable

USUAL = Weights()


class Start(NamedTuple):
    """An order that is tried: whether what has one mould in turn counts, how much sooner what is followed by more goes [1], whether what is
    not poured for long is kept warm, and how far from that it goes [frac]."""

    in_turn: bool
    bias: float
    keeps: bool
    apart: float


STARTS = (
    Start(in_turn=True, bias=0.1, keeps=True, apart=0.0),
    Start(in_turn=True, bias=0.5, keeps=True, apart=0.0),
    Start(in_turn=True, bias=0.0, keeps=False, apart=0.0),
    Start(in_turn=False, bias=0.1, keeps=True, apart=0.0),
    Start(in_turn=True, bias=0.2, keeps=False, apart=0.0),
    Start(in_turn=True, bias=0.5, keeps=True, apart=0.3),
    Start(in_turn=False, bias=0.0, keeps=False, apart=0.0),
    Start(in_turn=False, bias=0.1, keeps=True, apart=0.3),
)
"""What was best on the demo's days comes first."""
MOST_STARTS, AT_ONCE = len(STARTS), 80_000
"""So many timetables at once at most, of a day of n things so many as n squared goes into that: it takes as long [count]."""
IN_COLOURS = 3
"""So many of them are tried with the lightest colour of a vessel first too [count]."""
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
    turns, tails, found = tails_in_turn_s(day), tails_s(day), list[Timetable]()
    count = max(1, min(starts, AT_ONCE // max(len(day.tasks), 1) ** 2))
    for n in range(count):
        start = STARTS[n]
        first = turns if start.in_turn else tails
        # the usual order, and some not far from it, the same each time
        near = [1 + start.apart * (2 * (n * (i + 1) * GOLDEN % 1) - 1) for i in range(len(first))]
        rank = [tail * by for tail, by in zip(ranked(day, first) if n % 2 else first, near, strict=True)]
        # the colours of a vessel as they come, and so that it is washed less
        for of in (rank, light_first(day, rank)) if n < IN_COLOURS and by_vessel(day) else (rank,):
            try:
                found.append(first_timetable(day, of, start.bias, start.keeps))
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
