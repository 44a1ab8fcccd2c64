"""What to do next, and when it may be done, from the state of a run."""

import math
from collections.abc import Sequence
from dataclasses import asdict, dataclass, replace
from typing import Any

from umber_pebble.core.bench.again import missing, rounds_again
from umber_pebble.core.bench.events import (
    Acknowledged,
    Bent,
    Ended,
    Heated,
    Inserted,
    Moved,
    Poured,
    Replanned,
    Rested,
    Resumed,
    Unmoulded,
)
from umber_pebble.core.bench.passes import (
    Act,
    bears_next_s,
    by_hand_acts,
    moulds_free_s,
    put_in_acts,
    stay_ready_s,
    swirls_from_s,
    turn_acts,
)
from umber_pebble.core.bench.state import RunState
from umber_pebble.core.bench.track import Track
from umber_pebble.core.bench.vessel_acts import (
    bowl_act,
    burst_of,
    falls_to_s,
    heat_act,
    heater_free_s,
    temper_act,
    to_temper,
)
from umber_pebble.core.heat.pour import FatFlow, SugarFlow
from umber_pebble.core.heat.windows import PieceWindows
from umber_pebble.core.materials.load import material
from umber_pebble.core.melts.bursts import Bowl, again_s
from umber_pebble.core.plan.cooks import PotCook, Round, lies_of
from umber_pebble.core.plan.dips import bath_of
from umber_pebble.core.plan.habits import habits_of
from umber_pebble.core.plan.problem import PlanInput
from umber_pebble.core.plan.second_coat import rests_to_degc
from umber_pebble.core.plan.turns import turns_of
from umber_pebble.core.spread import Spread

# of acts that can all wait: what frees a mould first, then what takes a moment, then the next cook
WHEN_NOTHING_CLOSES = (
    "acknowledge",
    "pour",
    "turn",
    "bend",
    "stick",
    "sprinkle",
    "put_in",
    "by_hand",
    "move",
    "unmould",
    "burst",
    "stir",
    "temper",
    "too_warm",
    "keep",
    "off",
    "read",
    "outcomes",
    "warm",
    "heat",
    "again",
    "end",
)


@dataclass(frozen=True, slots=True)
class Call:
    """A call by sound and screen: at a time, before a window opens, before it closes, or at its close."""

    at_s: float
    kind: str
    window: str
    subject: str


def act_window(opens: Spread, closes: Spread, lasts_s: float = 0.0) -> tuple[float, float, bool]:
    """From the high opening to the low closing; where the act does not fit in that, the likely one, not sure [s].

    Args:
        opens, closes: of the window
        lasts_s: how long the act takes
    Source: definition
    """
    if opens.high + lasts_s <= closes.low:
        return opens.high, closes.low, True
    return opens.likely, max(closes.likely, opens.likely), False


def _to_pour(cook: PotCook, state: RunState) -> list[Round]:
    return [r for r in cook.rounds if state.rounds[r.number].poured_s is None]


def _waits_for_parts(plan: PlanInput, cook: PotCook, free_s: dict[int, float]) -> bool:
    """A melt for a join whose parts are not all cast: what is cast of them may have its vessel first."""
    joins = any(plan.lines[r.line].needs for r in cook.rounds)
    return joins and math.isinf(free_s[cook.number])


def _cook_acts(
    plan: PlanInput, cooks: list[PotCook], state: RunState, pots: dict[int, Track], rounds: dict[int, Track], now: float,
    free_s: dict[int, float], windows: dict[int, PieceWindows],
) -> list[Act]:  # fmt: skip
    """Per vessel, what the first cook that is not all poured needs."""
    out: list[Act] = []
    busy: set[str] = set()
    in_use = {c.way.vessel_id for c in cooks if state.cooks[c.number].phase != "waiting" and _to_pour(c, state)}
    for cook in cooks:
        waiting = _to_pour(cook, state)
        if not waiting or cook.way.vessel_id in busy:
            continue
        seen, subject = state.cooks[cook.number], f"pot:{cook.number}"
        if seen.phase == "waiting" and (cook.way.vessel_id in in_use or _waits_for_parts(plan, cook, free_s)):
            continue
        busy.add(cook.way.vessel_id)
        heater = heater_free_s(cooks, state, cook)
        if math.isinf(heater) and seen.phase == "waiting":
            continue
        if seen.phase == "waiting":
            casts = sum(state.rounds[r.number].to_pour for r in waiting)
            act = heat_act(plan, cook, casts, free_s[cook.number])
            out.append(replace(act, opens_s=max(act.opens_s, heater)))
        elif seen.phase == "heating" and isinstance(cook.heating, Bowl):
            act = bowl_act(cook, cook.heating, seen, pots[cook.number])
            out.append(replace(act, opens_s=max(act.opens_s, heater)) if act.kind == "burst" else act)
        elif seen.phase == "heating":
            # what is not known of the heat moves both alike, so the likely times bound the act
            ready, spoils = pots[cook.number].windows["ready"]
            figures = {"cook_degc": cook.way.end_degc, "melt": cook.way.melt.key}
            out.append(Act("off", subject, Rested(cook.number), ready.likely, spoils.likely, True, figures))
        elif to_temper(cook, seen):
            out.append(temper_act(cook, seen, pots[cook.number], now))
        else:
            out += _pour_acts(plan, cook, state, pots[cook.number], rounds, now, waiting, windows, heater)
    return out


def _pour_acts(
    plan: PlanInput, cook: PotCook, state: RunState, track: Track, rounds: dict[int, Track], now: float, waiting: list[Round],
    windows: dict[int, PieceWindows], heater_s: float,
) -> list[Act]:  # fmt: skip
    out, subject = list[Act](), f"pot:{cook.number}"
    to_pour = {r.number: state.rounds[r.number].to_pour for r in waiting}
    all_s = sum(to_pour[r.number] * plan.pour_each_s(plan.lines[r.line]) for r in waiting)
    opens, closes, sure = act_window(*track.windows["pour"], all_s)
    rest = state.cooks[cook.number].rests[-1]
    if not rest.readings and now < opens:
        half = rest.off_s + (track.windows["pour"][0].likely - rest.off_s) / 2
        melt = {"melt": cook.way.melt.key}
        out.append(Act("read", subject, None, half, opens, True, melt))
    if now > track.windows["stiff"][0].likely:
        figures: dict[str, Any] = {"cook_degc": cook.way.end_degc, "melt": cook.way.melt.key}
        if isinstance(cook.heating, Bowl):
            warm = burst_of(cook, cook.heating, again_s(cook.heating))
            figures |= {"seconds": warm.seconds, "power_frac": warm.power_frac}
            return [*out, Act("warm", subject, warm, max(now, heater_s), math.inf, True, figures)]
        return [
            *out,
            Act("warm", subject, Heated(cook.number), max(now, heater_s), math.inf, True, figures),
        ]
    seen = state.cooks[cook.number]
    gone = [r for r in cook.rounds if r not in waiting and r.number not in (seen.lost or ())]
    poured = sum(plan.lines[r.line].cast.poured.value.likely * r.casts for r in gone)
    left = cook.charge_kg - cook.residue_kg.likely - cook.bags_kg - poured - seen.taken_kg
    for r in waiting:
        under = bears_next_s(plan, state, rounds, r)
        if plan.lines[r.line].first and state.rounds[r.number].put_in_s is None:
            continue
        figures = {
            "left_kg": max(left, 0.0),
            "casts": to_pour[r.number], "filled": r.casts - to_pour[r.number], "each_kg": plan.lines[r.line].cast.poured.value.likely, "fill_m": plan.lines[r.line].fill_m,
            "kind": plan.lines[r.line].kind, "stays_kg": plan.lines[r.line].cast.finished.value.likely,
            "thick_m": plan.lines[r.line].cast.thickness.likely,
            "habits": [asdict(h) for h in habits_of(plan, r.line)],
            "line": r.line, "pour_s": to_pour[r.number] * plan.pour_each_s(plan.lines[r.line]), "limited_by": track.limited_by,
            "readings": len(rest.readings), "cook": cook.number, "melt": cook.way.melt.key,
        }  # fmt: skip
        if isinstance(cook.flow, SugarFlow):
            figures |= {"bubble_m": 2 * cook.way.melt.value("bubble_radius")}
        if plan.lines[r.line].whole_ball:
            turns = turns_of(windows[r.number])
            figures |= {
                "by_hand_s": turns.by_hand_s,
                "turns": turns.count,
                "practised": turns.practised,
                "every_s": turns.every_s,
            }
        if plan.lines[r.line].dip and isinstance(cook.flow, FatFlow):
            bath = bath_of(plan, cook, r)
            figures |= {
                "floor_degc": bath.floor_degc.likely,
                "most_degc": bath.most_degc,
                "warm_after": list(bath.warm_after),
            }
        from_s = max(opens, under)
        if r.on is not None and (rests_to := rests_to_degc(plan, cook, r)) is not None:
            from_s = max(from_s, falls_to_s(track, rests_to))
            figures |= {"rests_to_degc": rests_to}
        if softens := plan.lines[r.line].softens_s:
            figures |= {"softens_s": softens, "twists": material("kitchen", "dab", "join").value("twists")}
        if plan.lines[r.line].kind == "swirl":
            from_s = max(from_s, swirls_from_s(state, r.number))
        late = from_s >= closes
        out.append(
            Act(
                "pour",
                f"round:{r.number}",
                Poured(r.number),
                from_s,
                math.inf if late else closes,
                sure and not late,
                figures,
            )
        )
    return out


EVENT_OF_WORK = {"bend": Bent, "stick": Inserted, "sprinkle": Inserted}


def _round_acts(
    plan: PlanInput, cooks: list[PotCook], state: RunState, tracks: dict[int, Track], now: float,
    windows: dict[int, PieceWindows],
) -> list[Act]:  # fmt: skip
    out = []
    for cook, r in ((c, r) for c in cooks for r in c.rounds):
        seen, line = state.rounds[r.number], plan.lines[r.line]
        if seen.poured_s is None or seen.covered_s is not None or line.kind == "swirl":
            continue
        subject = f"round:{r.number}"
        figures: dict[str, Any] = {"casts": r.casts, "line": r.line, "melt": cook.way.melt.key}
        figures["kind"] = plan.lines[plan.chains[r.line][0]].kind
        figures["leaves"] = line.leaves
        if seen.unmoulded_s is not None:
            stiff = tracks[r.number].windows["bend_closes"][0] if line.released else None
            if stiff is not None and seen.worked_s is None and now < stiff.high:
                out.append(Act("bend", subject, Bent(r.number), seen.unmoulded_s, stiff.low, True, figures))
                continue
            if len(seen.outcomes) < r.casts:
                out.append(Act("outcomes", subject, None, seen.unmoulded_s, math.inf, True, figures))
            continue
        track = tracks[r.number]
        out += turn_acts(line, r, seen, windows[r.number], figures)
        workable = line.work and not line.released and seen.worked_s is None and now < _too_late(track, line.work)
        if line.work and workable:
            opens, closes, sure = act_window(*track.windows[line.work], r.casts * plan.work_each_s(line))
            out.append(Act(line.work, subject, EVENT_OF_WORK[line.work](r.number), opens, closes, sure, figures))
        ahead = lies_of(plan, line, r.casts)[len(seen.places) :]
        if ahead:
            stay, place = ahead[0]
            at = seen.poured_s + (stay.from_s if line.lies or workable else 0.0)
            figures_to = figures | {"place": place}
            out.append(Act("move", subject, Moved(r.number, place), at, math.inf, True, figures_to))
        if not line.last:
            continue
        ready, _ = track.windows["unmould"]
        closes = track.windows["over_chilled"][0].low if "over_chilled" in track.windows else math.inf
        if line.released:
            closes = track.windows["release"][1].low
        together = max(ready.high, stay_ready_s(plan, state, tracks, r))
        out.append(Act("unmould", subject, Unmoulded(r.number), together, closes, True, figures))
    return out


def _too_late(track: Track, work: str) -> float:
    """After this the hands' work on a round is no longer offered."""
    names = {"bend": ("brittle",), "stick": ("still", "bend_closes"), "sprinkle": ("sprinkle_closes",)}[work]
    return next((track.windows[name][0].likely for name in names if name in track.windows), math.inf)


def _forecasts(
    plan: PlanInput, cooks: list[PotCook], windows: dict[int, PieceWindows], state: RunState, acts: list[Act]
) -> list[Act]:
    """What follows the pour that is next: its unmoulding, then the cook that needs the mould."""
    pours = {a.tells.round: a for a in acts if isinstance(a.tells, Poured)}
    out, ready = [], 0.0
    for r in (r for cook in cooks for r in cook.rounds if r.number in pours):
        poured = pours[r.number].opens_s + r.casts * plan.pour_each_s(plan.lines[r.line])
        if not plan.lines[r.line].last:
            continue
        at = poured + windows[r.number].at["unmould"].high
        ready = at + r.casts * plan.paces.unmould_each_s + plan.paces.clean_s
        figures = {"casts": r.casts, "line": r.line}
        out.append(Act("unmould", f"round:{r.number}", None, at, math.inf, True, figures, True))
    waiting = [c for c in cooks if state.cooks[c.number].phase == "waiting"]
    if out and waiting:
        cook = waiting[0]
        at = max(ready - plan.paces.weigh_s - cook.hob.likely - cook.window.opens.likely, 0.0)
        fresh = {"fresh_kg": cook.fresh_kg}
        out.append(Act("heat", f"pot:{cook.number}", None, at, math.inf, True, fresh, True))
    return out


def next_acts(
    plan: PlanInput, cooks: list[PotCook], state: RunState, pots: dict[int, Track],
    tracks: dict[int, Track], windows: dict[int, PieceWindows], actor: str, now: float, more: Sequence[Act] = (),
) -> list[Act]:  # fmt: skip
    """The acts that lie ahead, the first being the one to do now [s since the run started].

    Those that may be done now come first, the one that closes soonest leading; then by opening.
    What cannot be done yet comes last.
    Args:
        plan, cooks, windows: frozen
        state, pots, tracks: of the run
        actor: whose acts
        now: seconds since the run started
        more: acts beside the pots and rounds
    Source: definition
    """
    if state.ended_s is not None:
        return []
    if state.layout.sugar and actor not in state.acknowledged:
        return [Act("acknowledge", "run", Acknowledged(), 0.0, math.inf)]
    acts = _cook_acts(plan, cooks, state, pots, tracks, now, moulds_free_s(plan, cooks, state, tracks), windows)
    acts += _round_acts(plan, cooks, state, tracks, now, windows) + put_in_acts(plan, cooks, state, tracks)
    acts += by_hand_acts(plan, state)
    acts += _forecasts(plan, cooks, windows, state, acts)
    if all(math.isinf(a.opens_s) for a in acts):
        # nothing is left but what cannot be done any more, as a join whose parts failed
        acts = _last_acts(plan, state, now)
    acts += more
    acts = sorted(acts, key=lambda a: _urgency(a, now))
    if state.paused_s is not None:
        acts.insert(0, Act("resume", "run", Resumed(), state.paused_s, math.inf))
    return acts


def _last_acts(plan: PlanInput, state: RunState, now: float) -> list[Act]:
    end, rows = Act("end", "run", Ended(), now, math.inf), rounds_again(plan, state)
    if not rows:
        return [end]
    short = sum(missing(plan, state).values())
    figures = {"short": short, "casts": sum(casts for _, casts in rows), "line": rows[0][0]}
    return [Act("again", "run", Replanned(rows), now, math.inf, True, figures), end]


def _urgency(act: Act, now: float) -> tuple[bool, bool, float, int]:
    waits = act.opens_s > now
    return (act.forecast, waits, act.opens_s if waits else act.closes_s, WHEN_NOTHING_CLOSES.index(act.kind))


CALLED = ("pour", "turn", "bend", "stick", "sprinkle", "unmould", "off", "keep")


def calls(acts: list[Act], before_s: float) -> list[Call]:
    """When to call: a little before a window opens, before it closes, and at the close [s].

    Args:
        acts: those ahead
        before_s: how long before, the kitchen's own
    Source: definition
    """
    out = []
    for act in acts:
        if act.forecast:
            continue
        if act.kind == "too_warm":
            # what lies in the warmth too long: only that it ends
            out.append(Call(act.opens_s - before_s, "closes", act.kind, act.subject))
        elif act.kind in CALLED:
            out.append(Call(act.opens_s - before_s, "opens", act.kind, act.subject))
            if math.isfinite(act.closes_s):
                out.append(Call(act.closes_s - before_s, "closes", act.kind, act.subject))
                out.append(Call(act.closes_s, "closed", act.kind, act.subject))
    return sorted(out, key=lambda c: c.at_s)
