"""Rounds that are left out of a run: what is only cast to spare, and how sure it is of enough without it."""

from collections.abc import Iterator
from dataclasses import dataclass

from umber_pebble.core.bench.payload import one_of, refuse
from umber_pebble.core.bench.side_events import LeftOut
from umber_pebble.core.bench.state import RoundState, RunState
from umber_pebble.core.plan.problem import PlanInput
from umber_pebble.core.plan.spares import chance_enough_frac

ENOUGH_FRAC = 0.995
"""From here on nobody doubts that it is enough [frac]. Source: assumption"""


def left_out(state: RunState, said: LeftOut) -> None:
    """Castings that are not begun are not cast, with all their passes. Raises: OutOfRange, NotInSequence. Source: definition"""
    rounds = [one_of(state.rounds, number, "round") for number in said.rounds]
    for r in rounds:
        if _begun(r):
            raise refuse("what is begun is not left out", "poured", round=r.number)
    for r in state.rounds:
        if r.on is not None and (r.number in said.rounds) != (r.on in said.rounds):
            raise refuse("a casting is left out with all its passes", "other_work", round=r.number)
    for r in rounds:
        r.left_out = True
    needless_portions(state)


def needless_portions(state: RunState) -> None:
    """What would be divided off for a cook that was made by itself, or of which nothing is poured, is not. Source: definition"""
    for r in state.rounds:
        if r.into is not None and r.waits:
            poured_of = any(of.waits for of in state.rounds if of.cook == r.into)
            r.left_out = not poured_of or state.cooks[r.into].phase != "waiting"


@dataclass(frozen=True, slots=True)
class Spared:
    """What may be left out of a line: the rounds of all its passes, castings fewer [count], and how sure it is of enough good ones with
    them and without [frac]."""

    line: int
    rounds: tuple[int, ...]
    casts: int
    sure_frac: float
    then_frac: float

    @property
    def enough(self) -> bool:
        """Whether nobody doubts that there are enough without them."""
        return self.then_frac >= ENOUGH_FRAC


def spared(plan: PlanInput, state: RunState) -> list[Spared]:
    """What is still to be cast and only to spare: the rounds last numbered, as long as there are as many without them as are wanted
    where nothing more breaks.

    Args:
        plan: frozen
        state: of the run
    Source: beta-binomial
    """
    return [
        of for i, line in enumerate(plan.lines) if line.last and not line.joins for of in _of_line(plan, state, i)
    ]


def _of_line(plan: PlanInput, state: RunState, i: int) -> Iterator[Spared]:
    line, good = plan.lines[i], state.good(i)
    rounds = [r for r in state.rounds if r.line == i and not r.left_out]
    told = [usable for r in rounds for usable, _ in r.outcomes.values()]
    broken = sum(not usable for usable in told)
    rate = line.break_rate.counted(broken, len(told) - broken)
    open_casts = left = sum(r.casts for r in rounds) - len(told)
    wanted, out = max(line.quantity - good, 0), list[RoundState]()
    for r in sorted(rounds, key=lambda r: -r.number):
        if left - r.casts >= wanted and not any(_begun(of) for of in _casting(state, r)):
            left -= r.casts
            out.append(r)
    if out:
        numbers = tuple(sorted(of.number for r in out for of in _casting(state, r)))
        sure, then = (chance_enough_frac(casts, wanted, rate) for casts in (open_casts, left))
        yield Spared(i, numbers, open_casts - left, sure, then)


def _casting(state: RunState, r: RoundState) -> list[RoundState]:
    """A casting's rounds, from its last pass to its first."""
    return [r] if r.on is None else [r, *_casting(state, state.rounds[r.on])]


def _begun(r: RoundState) -> bool:
    return r.poured_s is not None or r.put_in_s is not None or r.filled > 0
