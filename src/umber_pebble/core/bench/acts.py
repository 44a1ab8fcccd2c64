"""What to do next, and when it may be done, from the state of a run."""

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Literal

from umber_pebble.core.bench.act_kinds import (
    WHEN_NOTHING_CLOSES,
    Acknowledge,
    Again,
    BurstAgain,
    Called,
    CalledKind,
    End,
    Move,
    Outcomes,
    Resume,
    TakeOff,
    TooWarm,
    Unmould,
    What,
)
from umber_pebble.core.bench.again import missing, rounds_again
from umber_pebble.core.bench.events import (
    Acknowledged,
    Bent,
    Body,
    Combed,
    CutOut,
    Ended,
    Grooved,
    Inserted,
    Moved,
    Poured,
    Replanned,
    Rested,
    Resumed,
    Unmoulded,
)
from umber_pebble.core.bench.marks import HeatingMarks
from umber_pebble.core.bench.now import RunNow
from umber_pebble.core.bench.passes import (
    Act,
    by_hand_acts,
    put_in_acts,
    rounds_ready_s,
    turn_acts,
)
from umber_pebble.core.bench.pour_acts import act_window, pour_acts, sheet_in
from umber_pebble.core.bench.soft_kinds import Bend, Comb, CutPieces, Groove, PressFilm, ShapeFilm, Sprinkle, Stick
from umber_pebble.core.bench.soiled import to_wash
from umber_pebble.core.bench.state import RoundState, RunState
from umber_pebble.core.bench.stays import turned_out_s
from umber_pebble.core.bench.subject import RUN, Subject
from umber_pebble.core.bench.track import Track
from umber_pebble.core.bench.vessel_acts import (
    bowl_act,
    heat_act,
    heater_free_s,
    temper_act,
    to_temper,
)
from umber_pebble.core.bench.whose import hands_for
from umber_pebble.core.families.known import family_of
from umber_pebble.core.heat.works import WORKS, held_there
from umber_pebble.core.materials.load import material
from umber_pebble.core.melts.bursts import Bowl
from umber_pebble.core.plan.cooks import PotCook, Round, route_of
from umber_pebble.core.plan.handwork import SoftWork
from umber_pebble.core.plan.problem import PlanInput, PlanLine


@dataclass(frozen=True, slots=True)
class Call:
    """A call by sound and screen: at a time, before a window opens, before it closes, or at its close."""

    at_s: float
    kind: Literal["opens", "closes", "closed"]
    window: CalledKind
    subject: Subject


def _to_pour(cook: PotCook, state: RunState) -> list[Round]:
    return [r for r in cook.rounds if state.rounds[r.number].waits]


def _waits_for_parts(run: RunNow, ready_s: dict[int, float]) -> set[int]:
    """Cooks that are only left to join parts that are not all cast: what is cast of them, of the same melt, may have their vessel first."""
    left = {cook.number: _to_pour(cook, run.state) for cook in run.cooks}
    return {
        number
        for number, waiting in left.items()
        if waiting
        and any(run.plan.lines[r.line].joins for r in waiting)
        and all(math.isinf(ready_s[r.number]) for r in waiting)
    }


def _cook_acts(run: RunNow) -> list[Act]:
    """Per vessel, what the first cook that is not all poured needs."""
    plan, cooks, state, pots = run.plan, run.cooks, run.state, run.pots
    ready = rounds_ready_s(run)
    out: list[Act] = []
    busy: set[str] = set()
    joins = _waits_for_parts(run, ready)
    divides = {r.into for r in state.rounds if r.waits}
    in_use = [c for c in cooks if state.cooks[c.number].phase != "waiting" and _to_pour(c, state)]
    for cook in cooks:
        waiting = _to_pour(cook, state)
        if not waiting or cook.way.vessel_id in busy:
            continue
        seen, subject = state.cooks[cook.number], Subject("pot", cook.number)
        first_s = min(max(ready[r.number], run.expected_s(r.number)) for r in waiting)
        held = [c for c in in_use if c.way.vessel_id == cook.way.vessel_id]
        if seen.phase == "waiting" and any(c.number not in joins or c.way is not cook.way for c in held):
            continue
        if seen.phase != "heating" and cook.number in joins:
            continue
        if seen.phase == "waiting" and cook.number in divides:
            # it comes out of another vessel
            continue
        busy.add(cook.way.vessel_id)
        heater = heater_free_s(cooks, state, cook)
        if math.isinf(heater) and seen.phase == "waiting":
            continue
        if seen.phase == "waiting":
            casts = sum(state.rounds[r.number].to_pour for r in waiting if r.into is None)
            act = heat_act(plan, cook, casts, first_s, to_wash(run, cook))
            out.append(replace(act, opens_s=max(act.opens_s, heater)))
        elif seen.phase == "heating" and isinstance(cook.heating, Bowl):
            act = bowl_act(cook, cook.heating, seen, pots[cook.number])
            out.append(replace(act, opens_s=max(act.opens_s, heater)) if isinstance(act.what, BurstAgain) else act)
        elif seen.phase == "heating":
            # what is not known of the heat moves both alike, so the likely times bound the act
            heated = pots[cook.number]
            hot, spoils = heated.windows["ready"]
            assert isinstance(heated.marks, HeatingMarks)
            off = TakeOff(heated.marks.ready, family_of(cook.way.melt).shaken)
            out.append(Act(off, subject, Rested(cook.number), hot.likely, spoils.likely))
        elif to_temper(cook, seen, pots[cook.number]):
            out.append(temper_act(cook, seen, pots[cook.number], run.now_s))
        else:
            out += pour_acts(run, cook, waiting, heater, ready)
    return out


def _work_act(run: RunNow, work: SoftWork, r: Round, opens: float, closes: float, sure: bool = True) -> Act:
    """What hands do with a round while it is soft."""
    subject, on, line = Subject("round", r.number), work.on, run.plan.lines[r.line]
    what: What
    told: Body
    match work.kind:
        case "bend":
            what, told = Bend(r.line, r.casts, line.released), Bent(r.number)
        case "stick":
            what, told = Stick(r.line, r.casts, on), Inserted(r.number, what="stick")
        case "sprinkle":
            what, told = Sprinkle(r.line, r.casts, on), Inserted(r.number, what="sprinkle")
        case "film":
            what, told = PressFilm(r.line, r.casts, on, sheet_in(run, r)), Inserted(r.number, what="film")
        case "drag" | "comb" as how:
            what, told = Comb(r.line, r.casts, on, how, sheet_in(run, r)), Combed(r.number, how)
        case "groove":
            what, told = Groove(r.line, r.casts, on), Grooved(r.number)
        case "shape":
            what, told = ShapeFilm(r.line, r.casts, on, sheet_in(run, r)), Bent(r.number)
        case "cut":
            what, told = CutPieces(r.line, r.casts), CutOut(r.number)
    return Act(what, subject, told, opens, closes, sure)


def _round_acts(run: RunNow) -> list[Act]:
    plan, state, tracks, now = run.plan, run.state, run.rounds, run.now_s
    out = []
    for r in run.all_rounds:
        seen, line = state.rounds[r.number], plan.lines[r.line]
        if seen.poured_s is None or seen.covered_s is not None or not line.cast_on:
            continue
        subject = Subject("round", r.number)
        if seen.unmoulded_s is not None:
            bends = [of for of in line.works_left(seen.worked) if line.released and of.kind == "bend"]
            stiff = tracks[r.number].windows["bend_closes"][0] if bends else None
            if stiff is not None and now < stiff.high:
                out.append(_work_act(run, bends[0], r, seen.unmoulded_s, stiff.low))
                continue
            if len(seen.outcomes) < r.casts:
                out.append(Act(Outcomes(r.line, r.casts), subject, None, seen.unmoulded_s))
            continue
        track = tracks[r.number]
        out += turn_acts(plan.way(line).melt, line, r, seen, run.windows[r.number])
        workable = [of for of in _soft_works(line, seen) if now < _too_late(track, of.kind)]
        if workable and not _led_by_another(run, r, workable[0]):
            next_ = workable[0]
            window = act_window(*track.windows[next_.kind], r.casts * plan.work_each_s(line, next_))
            out.append(_work_act(run, next_, r, *window))
        route = route_of(plan, line, r.casts)
        ahead = route[len(seen.places) :]
        pulled = any(stay.place.slid_out for stay, place in route if place == seen.places[-1][1])
        if ahead and not (held_there([of.kind for of in workable], pulled) or _goes_with_another(run, r)):
            stay, place = ahead[0]
            at = seen.poured_s + (stay.from_s if line.lies or workable else 0.0)
            out.append(Act(Move(r.line, r.casts, place, pulled), subject, Moved(r.number, place), at))
        if not line.last:
            continue
        ready, _ = track.windows["unmould"]
        closes = track.windows["over_chilled"][0].low if "over_chilled" in track.windows else math.inf
        if line.released:
            closes = track.windows["release"][1].low
        together = max(ready.high, turned_out_s(run, r))
        out.append(Act(_unmould(run, r), subject, Unmoulded(r.number), together, closes))
    return out


def _soft_works(line: PlanLine, seen: RoundState) -> tuple[SoftWork, ...]:
    """What hands still do with it in its mould: what is released warm is bent out of it."""
    return tuple(of for of in line.works_left(seen.worked) if not (line.released and of.kind == "bend"))


def _goes_with_another(run: RunNow, r: Round) -> bool:
    """Whether it is moved with the rest of its sheet."""
    sheet = [run.state.rounds[number] for number in run.state.layout.with_it(r.number)]
    lies = len(run.state.rounds[r.number].places)
    return any(of.number < r.number and of.in_mould and len(of.places) == lies for of in sheet)


def _led_by_another(run: RunNow, r: Round, work: SoftWork) -> bool:
    """Whether it is done with the rest of its sheet."""
    sheet = [run.state.rounds[number] for number in run.state.layout.with_it(r.number)]
    others = (of for of in sheet if of.number < r.number and of.in_mould)
    return bool(work.on) and any(work.kind not in of.worked for of in others)


def _unmould(run: RunNow, r: Round) -> Unmould:
    plan, line = run.plan, run.plan.lines[r.line]
    # those on it, and those it was poured on
    on = [put for i in plan.chains[r.line] for put in plan.lines[i].inclusions if put.film is not None]
    films = tuple(dict.fromkeys(put.name for put in on))
    return Unmould(
        r.line,
        r.casts,
        plan.lines[plan.chains[r.line][0]].kind,
        line.leaves,
        sheet_in(run, r),
        films,
        warmed=line.mould.material.flags.get("warmed", False),
        on_form=any(of.kind == "shape" for of in line.works),
    )


def _too_late(track: Track, work: str) -> float:
    """After this the hands' work on a round is no longer offered."""
    return next((track.windows[name][0].likely for name in WORKS[work].ends if name in track.windows), math.inf)


def _forecasts(run: RunNow, acts: list[Act]) -> list[Act]:
    """What follows the pour that is next: its unmoulding, then the cook that needs the mould."""
    plan, cooks, state = run.plan, run.cooks, run.state
    pours = {a.tells.round: a for a in acts if isinstance(a.tells, Poured)}
    out, ready = [], 0.0
    for r in (r for cook in cooks for r in cook.rounds if r.number in pours):
        poured = pours[r.number].opens_s + r.casts * plan.pour_each_s(plan.lines[r.line])
        if not plan.lines[r.line].last:
            continue
        at = poured + run.windows[r.number].at["unmould"].high
        ready = at + r.casts * plan.paces.unmould_each_s + plan.paces.clean_s
        out.append(Act(_unmould(run, r), Subject("round", r.number), None, at, forecast=True))
    waiting = [c for c in cooks if state.cooks[c.number].phase == "waiting" and _to_pour(c, state)]
    if out and waiting:
        cook = waiting[0]
        casts = sum(state.rounds[r.number].to_pour for r in _to_pour(cook, state))
        out.append(replace(heat_act(plan, cook, casts, ready, to_wash(run, cook)), tells=None, forecast=True))
    return out


def next_acts(run: RunNow, actor: str, more: Sequence[Act] = ()) -> list[Act]:
    """The acts that lie ahead, the first being the one to do now [s since the run started].

    Those that may be done now come first, the one that closes soonest leading; then by opening. What is for other hands comes after
    that, unless nobody has done it for a while or it closes soon. What cannot be done yet comes last.
    Args:
        run: at a moment
        actor: whose acts
        more: acts beside the pots and rounds
    Source: definition
    """
    plan, state, now = run.plan, run.state, run.now_s
    if state.ended_s is not None:
        return []
    if state.layout.hot and actor not in state.acknowledged:
        return [Act(Acknowledge(), RUN, Acknowledged(), 0.0)]
    acts = _cook_acts(run) + _round_acts(run)
    acts += put_in_acts(run) + by_hand_acts(plan, state)
    acts += _forecasts(run, acts)
    if all(math.isinf(a.opens_s) for a in acts):
        # nothing is left but what cannot be done any more, as a join whose parts failed
        acts = _last_acts(plan, state, now)
    acts = [replace(act, who=hands_for(run, act)) for act in (*acts, *more)]
    acts = sorted(acts, key=lambda a: (_for_another(a, actor, now, plan.paces.call_before_s), *_urgency(a, now)))
    if state.paused_s is not None:
        acts.insert(0, Act(Resume(), RUN, Resumed(), state.paused_s))
    return acts


def _last_acts(plan: PlanInput, state: RunState, now: float) -> list[Act]:
    end, rows = Act(End(), RUN, Ended(), now), rounds_again(plan, state)
    if not rows:
        return [end]
    again = Again(sum(missing(plan, state).values()), sum(casts for _, casts in rows), rows[0][0])
    return [Act(again, RUN, Replanned(rows), now), end]


def _for_another(act: Act, actor: str, now: float, a_while_s: float) -> tuple[bool, bool]:
    """Whether it cannot be done at all yet; and whether it is somebody else's, who may still be coming to it, or one's own that is so far
    off that there is time for that."""
    late = now - act.opens_s > a_while_s or act.closes_s - now < a_while_s
    theirs = act.who not in ("", actor) and not late
    idle_s = material("kitchen", "usual", "idle").value("from")
    return act.forecast or math.isinf(act.opens_s), theirs or act.opens_s - now > idle_s


def _urgency(act: Act, now: float) -> tuple[bool, bool, float, int]:
    waits = act.opens_s > now
    return (act.forecast, waits, act.opens_s if waits else act.closes_s, WHEN_NOTHING_CLOSES.index(type(act.what)))


def calls(acts: list[Act], before_s: float) -> list[Call]:
    """When to call: a little before a window opens, before it closes, and at the close [s].

    Args:
        acts: those ahead
        before_s: how long before, the kitchen's own
    Source: definition
    """
    out = []
    for act in acts:
        if act.forecast or not isinstance(act.what, Called):
            continue
        kind, subject = act.what.kind, act.subject
        if isinstance(act.what, TooWarm):
            # what lies in the warmth too long: only that it ends
            out.append(Call(act.opens_s - before_s, "closes", kind, subject))
            continue
        out.append(Call(act.opens_s - before_s, "opens", kind, subject))
        if math.isfinite(act.closes_s):
            out.append(Call(act.closes_s - before_s, "closes", kind, subject))
            out.append(Call(act.closes_s, "closed", kind, subject))
    return sorted(out, key=lambda c: c.at_s)


def timer_calls(state: RunState) -> list[Call]:
    """When timers of one's own ring, if nobody has heard them [s]. Source: definition"""
    return [Call(t.rings_s, "opens", "timer", Subject("timer", t.number)) for t in state.timers if not t.over]
