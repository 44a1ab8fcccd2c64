"""What stands in the moulds of a run: when a round finds its mould empty and clean, and when a mould may be turned out."""

import math
from collections.abc import Sequence
from dataclasses import dataclass

from umber_pebble.core.bench.now import RunNow
from umber_pebble.core.plan.cooks import Round


@dataclass(frozen=True, slots=True)
class Stay:
    """What stands in moulds of one kind together: how many of them [count], whether any of it is poured, from when they are free
    again [s since the run started, inf: not known]."""

    moulds: int
    begun: bool
    free_s: float


def moulds_free_s(run: RunNow, out: bool = False) -> dict[int, float]:
    """Per stay, when there are moulds for it, empty, clean and dry [s since the run started]; those of stays that were begun, 0.

    Stays of a mould come in the order in which their first rounds are numbered.
    Args:
        run: at a moment
        out: whether only what has been turned out counts, not what soon may be
    Source: definition
    """
    plan = run.plan
    of_mould: dict[str, dict[int, list[Round]]] = {}
    for r in sorted(run.all_rounds, key=lambda r: r.number):
        of_mould.setdefault(plan.lines[r.line].mould.mould_id, {}).setdefault(r.stay, []).append(r)
    free: dict[int, float] = {}
    for stays in of_mould.values():
        owned = plan.lines[next(iter(stays.values()))[0].line].mould.owned
        before = list[Stay]()
        for number, here in stays.items():
            stay = _stay(run, here, out)
            free[number] = 0.0 if stay.begun else _room_s(before, owned, stay.moulds)
            before.append(stay)
    return free


def _stay(run: RunNow, here: Sequence[Round], out: bool) -> Stay:
    plan = run.plan
    mould = plan.lines[here[0].line].mould
    moulds = min(max(math.ceil(r.casts / mould.cavities) for r in here), mould.owned)
    begun = any(run.state.rounds[r.number].poured_s is not None for r in here)
    ends = [_out_s(run, r, out) for r in here if plan.lines[r.line].last]
    wait = plan.paces.clean_s + plan.paces.dry_s if mould.washed else 0.0
    return Stay(moulds, begun, max(ends, default=math.inf) + wait)


def _out_s(run: RunNow, r: Round, out: bool) -> float:
    plan, tracks, seen = run.plan, run.rounds, run.state.rounds[r.number]
    if plan.lines[r.line].mould.hands and seen.poured_s is not None:
        return seen.poured_s
    if seen.unmoulded_s is not None:
        return seen.unmoulded_s
    if out or r.number not in tracks:
        return math.inf
    return tracks[r.number].windows["unmould"][0].high + r.casts * plan.paces.unmould_each_s


def _room_s(before: Sequence[Stay], owned: int, moulds: int) -> float:
    """When so many of a mould are free beside what stands in the others."""
    for at in sorted([0.0, *(stay.free_s for stay in before)]):
        if sum(stay.moulds for stay in before if stay.free_s > at) + moulds <= owned:
            return at
    return math.inf


def turned_out_s(run: RunNow, r: Round) -> float:
    """When all that stands in a round's mould may be turned out, since it is turned over as a whole [s since the run started]; inf while
    something in it waits for a pass that is still to come.

    Args:
        run: at a moment
        r: in its mould
    Source: definition
    """
    plan, tracks = run.plan, run.rounds
    line = plan.lines[r.line]
    if line.mould.hands or line.released:
        return 0.0
    at = 0.0
    for other in run.all_rounds:
        if other.stay != r.stay or plan.lines[other.line].mould.mould_id != line.mould.mould_id:
            continue
        seen = run.state.rounds[other.number]
        if seen.poured_s is None:
            return math.inf
        if seen.in_mould and other.number in tracks and plan.lines[other.line].last:
            at = max(at, tracks[other.number].windows["unmould"][0].high)
    return at
