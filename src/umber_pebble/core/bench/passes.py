"""Passes on one another at the bench: when the one under it bears the next, what hands put in, when a mould is free."""

import math
from dataclasses import dataclass, field
from typing import Any

from umber_pebble.core.bench.state import RunState
from umber_pebble.core.bench.track import Track
from umber_pebble.core.plan.cooks import READY, PotCook, Round
from umber_pebble.core.plan.problem import PlanInput


@dataclass(frozen=True, slots=True)
class Act:
    """One act: what, on which pot or round, the event that records it, and from when until when.

    `sure` is false where the high opening is not before the low closing: then a reading decides.
    `forecast` marks one that cannot be done yet, with the time it is likely to come.
    """

    kind: str
    subject: str
    event_kind: str | None
    payload: dict[str, Any]
    opens_s: float
    closes_s: float
    sure: bool = True
    params: dict[str, Any] = field(default_factory=dict)
    forecast: bool = False


def bears_next_s(plan: PlanInput, state: RunState, tracks: dict[int, Track], r: Round) -> float:
    """When the pass under a round bears it; the start where it goes into an empty mould, inf while that pass is not poured [s].

    Source: definition
    """
    if r.on is None:
        return 0.0
    if r.on not in tracks:
        return math.inf
    fat = not state.layout.sugars[state.rounds[r.on].line]
    name = READY[fat]
    return tracks[r.on].windows[name][0].high if name in tracks[r.on].windows else math.inf


def put_in_acts(plan: PlanInput, cooks: list[PotCook], state: RunState, tracks: dict[int, Track]) -> list[Act]:
    """What goes into the cavities by hand, once the pass under it bears it.

    Source: definition
    """
    out = []
    for r in (r for cook in cooks for r in cook.rounds):
        line, seen = plan.lines[r.line], state.rounds[r.number]
        at = bears_next_s(plan, state, tracks, r)
        if not line.first or seen.put_in_s is not None or seen.poured_s is not None or math.isinf(at):
            continue
        figures: dict[str, Any] = {
            "casts": r.casts, "line": r.line, "takes_s": r.casts * line.handfuls_s,
            "items": [{"what": h.what, "name": h.name, "kg": h.kg} for h in line.first],
        }  # fmt: skip
        payload = {"round": r.number, "first": True}
        out.append(Act("put_in", f"round:{r.number}", "inserted", payload, at, math.inf, True, figures))
    return out


def moulds_free_s(
    plan: PlanInput, cooks: list[PotCook], state: RunState, tracks: dict[int, Track]
) -> dict[int, float]:
    """Per cook, when every mould it needs is empty and clean again [s since the run started].

    Source: definition
    """
    free: dict[str, float] = {}
    out = {}
    for cook in cooks:
        moulds = [plan.lines[r.line].mould.mould_id for r in cook.rounds if r.on is None]
        on = [
            bears_next_s(plan, state, tracks, r) + _still_to_put_in_s(plan, state, r)
            for r in cook.rounds
            if r.on is not None
        ]
        out[cook.number] = max((*(free.get(m, 0.0) for m in moulds), *on), default=0.0)
        for r in cook.rounds:
            if not plan.lines[r.line].last:
                continue
            seen, hands = state.rounds[r.number], plan.paces.clean_s
            if seen.unmoulded_s is not None:
                at = seen.unmoulded_s
            elif r.number in tracks:
                at = tracks[r.number].windows["unmould"][0].high + r.casts * plan.paces.unmould_each_s
            else:
                at = math.inf
            mould = plan.lines[r.line].mould.mould_id
            free[mould] = max(free.get(mould, 0.0), at + hands)
    return out


def _still_to_put_in_s(plan: PlanInput, state: RunState, r: Round) -> float:
    return 0.0 if state.rounds[r.number].put_in_s is not None else r.casts * plan.lines[r.line].handfuls_s
