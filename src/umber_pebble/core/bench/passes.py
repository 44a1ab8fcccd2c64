"""Passes on one another at the bench: when the one under it bears the next, what hands put in, when a mould is free."""

import math
from collections.abc import Iterable
from dataclasses import dataclass

from umber_pebble.core.bench.act_kinds import ByHand, PutIn, Turn, What
from umber_pebble.core.bench.events import Body, Flipped, Inserted, Made
from umber_pebble.core.bench.now import RunNow
from umber_pebble.core.bench.state import RoundState, RunState
from umber_pebble.core.bench.stays import moulds_free_s
from umber_pebble.core.bench.subject import Subject
from umber_pebble.core.bench.track import Track
from umber_pebble.core.families.known import family_of
from umber_pebble.core.heat.windows import PieceWindows
from umber_pebble.core.materials.load import Material
from umber_pebble.core.pieces.ratios import Mixing, mixing_of
from umber_pebble.core.plan.cooks import Round
from umber_pebble.core.plan.habits import habits_of
from umber_pebble.core.plan.problem import HandStep, PlanInput, PlanLine
from umber_pebble.core.plan.turns import turns_of


@dataclass(frozen=True, slots=True)
class Act:
    """One act: what, of what, the event that tells it, and from when until when.

    `sure` is false where the high opening is not before the low closing: then a reading decides.
    `forecast` marks one that cannot be done yet, with the time it is likely to come; who: whose hands it was planned for, "" anybody's.
    """

    what: What
    subject: Subject
    tells: Body | None
    opens_s: float
    closes_s: float = math.inf
    sure: bool = True
    forecast: bool = False
    who: str = ""


def bears_next_s(plan: PlanInput, state: RunState, tracks: dict[int, Track], r: Round) -> float:
    """When the pass under a round bears it; the start where it goes into an empty mould, inf while that pass is not poured [s].

    Source: definition
    """
    if (line := plan.lines[r.line]).joins:
        return joinable_s(plan, state, line)
    if r.on is None:
        return 0.0
    if plan.lines[state.rounds[r.on].line].with_next:
        return math.inf if state.rounds[r.on].poured_s is None else 0.0
    if r.on not in tracks:
        return math.inf
    name = family_of(plan.way(plan.lines[state.rounds[r.on].line]).melt).ends.bears_next
    return tracks[r.on].windows[name][0].high if name in tracks[r.on].windows else math.inf


def joinable_s(plan: PlanInput, state: RunState, join: PlanLine | HandStep) -> float:
    """When all castings that something joins are out of their moulds and what hands made is dry, inf while they are not, or too many of
    them failed [s since the run started].

    Source: definition
    """
    if not _enough(plan, state, join.needs):
        return math.inf
    rests_s = join.out_s.high if isinstance(join, HandStep) else 0.0
    out = (math.inf if r.unmoulded_s is None else r.unmoulded_s + rests_s for r in _cast_of(state, join.needs))
    return max([_dry_s(plan, state, join), *out])


def _dry_s(plan: PlanInput, state: RunState, join: PlanLine | HandStep) -> float:
    """When all that hands made for it is out of its mould and dry enough, at the earliest; inf while it is not made."""
    steps = plan.by_hand
    dry = (state.made.get(i, math.inf) + steps[i].rests.likely + steps[i].dries.low for i in join.after_steps)
    return max(dry, default=0.0)


def _enough(plan: PlanInput, state: RunState, needs: tuple[int, ...]) -> bool:
    """Whether as many castings of these lines are good, or not looked at yet, as are wanted."""
    return all(
        sum(r.casts - r.failed for r in _cast_of(state, (i,))) + state.found.get(i, 0) >= plan.lines[i].quantity
        for i in needs
    )


def _joins_from_s(plan: PlanInput, state: RunState, tracks: dict[int, Track], join: PlanLine) -> float:
    """The same, with what is poured taken out of its mould when it may be."""
    if not _enough(plan, state, join.needs):
        return math.inf
    at = _dry_s(plan, state, join)
    for r in _cast_of(state, join.needs):
        if r.unmoulded_s is not None:
            at = max(at, r.unmoulded_s)
        elif r.number in tracks:
            at = max(at, tracks[r.number].windows["unmould"][0].high + r.casts * plan.paces.unmould_each_s)
        else:
            return math.inf
    return at


def _cast_of(state: RunState, lines: tuple[int, ...]) -> list[RoundState]:
    """The rounds of some lines that are cast, or are to be."""
    return [r for r in state.rounds if r.line in lines and not r.left_out]


def put_in_acts(run: RunNow) -> list[Act]:
    """What goes into the cavities by hand, once the pass under it bears it, or the mould is empty and clean.

    Args:
        run: at a moment
    Source: definition
    """
    plan, state, tracks, out = run.plan, run.state, run.rounds, list[Act]()
    free = moulds_free_s(run, out=True)
    for r in run.all_rounds:
        line, seen = plan.lines[r.line], state.rounds[r.number]
        at = bears_next_s(plan, state, tracks, r)
        if r.on is None:
            at = max(at, free[r.stay])
        if not line.first or seen.put_in_s is not None or seen.poured_s is not None or math.isinf(at):
            continue
        habits = tuple(habits_of(plan, r.line, put_in=True))
        mixed = _mixed((of.key, of.kg * r.casts) for of in line.first)
        what = PutIn(r.line, r.casts, line.first, mixed, r.casts * line.handfuls_s, habits)
        out.append(Act(what, Subject("round", r.number), Inserted(r.number, first=True), at))
    return out


def turn_acts(melt: Material, line: PlanLine, r: Round, seen: RoundState, windows: PieceWindows) -> list[Act]:
    """The next turn of a ball, while any is due: a missed one is due at once, and the one after it as long after as ever.

    Source: common-practice
    """
    if not line.whole_ball or seen.poured_s is None or seen.unmoulded_s is not None:
        return []
    turns, done = turns_of(melt, windows), len(seen.turned_s)
    if done >= turns.count:
        return []
    after = seen.turned_s[-1] if seen.turned_s else seen.poured_s + r.casts * line.hold_s + turns.by_hand_s
    at = after + turns.every_s
    what = Turn(r.line, r.casts, done + 1, turns.count, turns.practised)
    return [Act(what, Subject("round", r.number), Flipped(r.number), at, at + turns.every_s / 2)]


def by_hand_acts(plan: PlanInput, state: RunState) -> list[Act]:
    """What is made of no melt: parts pressed of paste, and joins once all they join is out of its mould.

    Source: definition
    """
    out = []
    for i, step in enumerate(plan.by_hand):
        at = joinable_s(plan, state, step)
        if i in state.made or math.isinf(at):
            continue
        mixed = _mixed((of.of.key, of.kg * step.count) for of in step.pastes)
        out.append(Act(ByHand(step, mixed), Subject("hand", i), Made(i), at))
    return out


def _mixed(made: Iterable[tuple[str, float]]) -> tuple[Mixing, ...]:
    """What of it is mixed, each once [kg]."""
    totals: dict[str, float] = {}
    for key, kg in made:
        totals[key] = totals.get(key, 0.0) + kg
    return tuple(of for key, kg in totals.items() if kg > 0 and (of := mixing_of(key, kg)) is not None)


def rounds_ready_s(run: RunNow) -> dict[int, float]:
    """Per round that is still to be poured, from when it may be, as far as is known now: its mould is empty and clean, what is under it
    bears it or what it joins is out, and hands have put in what goes in first [s since the run started].

    Args:
        run: at a moment
    Source: definition
    """
    plan, state, tracks = run.plan, run.state, run.rounds
    free, out = moulds_free_s(run), dict[int, float]()
    for r in run.all_rounds:
        if state.rounds[r.number].poured_s is not None:
            continue
        line = plan.lines[r.line]
        if r.on is None or plan.lines[state.rounds[r.on].line].with_next:
            at = max(free[r.stay], _joins_from_s(plan, state, tracks, line) if line.joins else 0.0)
        else:
            at = bears_next_s(plan, state, tracks, r)
        out[r.number] = at + _still_to_put_in_s(plan, state, r)
    return out


def _still_to_put_in_s(plan: PlanInput, state: RunState, r: Round) -> float:
    return 0.0 if state.rounds[r.number].put_in_s is not None else r.casts * plan.lines[r.line].handfuls_s
