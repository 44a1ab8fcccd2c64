"""Wishes that cannot all be kept, by proof: what is not proven is not called a clash."""

from collections.abc import Callable, Sequence
from dataclasses import replace

from umber_pebble.core.plan.day.model import Model
from umber_pebble.core.plan.day.problem import Day, Timetable
from umber_pebble.core.plan.day.search import USUAL

PROOF = 0.15
"""How long a proof is looked for, by the solver's own clock."""


def clash(held: Callable[[Sequence[int]], Day | None], wishes: Sequence[int], known: Timetable) -> tuple[int, ...]:
    """Wishes that clash, of which none can be left out: without it the others may be kept; nothing where no clash is proven. What is
    poured of which melt is left aside: without that it is no easier to clash, and much sooner proven.

    Args:
        held: a day with some of the wishes, by their numbers; None: nobody is left to do something
        wishes: by their numbers
        known: a timetable of the same things
    Source: or-tools
    """

    def impossible(some: Sequence[int]) -> bool:
        day = held(some)
        if day is None:
            return True
        poured = replace(known, heats=())
        return Model(replace(day, draws=(), melts=()), poured, USUAL).impossible(PROOF)

    core = list(wishes)
    if not core or not impossible(core):
        return ()
    for wish in wishes:
        rest = [other for other in core if other != wish]
        if impossible(rest):
            core = rest
    return tuple(core)
