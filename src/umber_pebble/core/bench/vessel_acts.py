"""What a vessel needs until it may be poured: weighed and heated, burst by burst, off the heat, tempered."""

import math

import numpy as np

from umber_pebble.core.bench.act_kinds import (
    BurstAgain,
    Bursts,
    InOven,
    Remedy,
    StirOn,
    TakeOut,
    Temper,
    Wash,
    Weigh,
)
from umber_pebble.core.bench.events import Body, Burst, Heated, Rested, Seeded, Smeared, Stepped
from umber_pebble.core.bench.passes import Act
from umber_pebble.core.bench.state import CookState, RunState
from umber_pebble.core.bench.subject import Subject
from umber_pebble.core.bench.tempering import TemperNow, temper_now
from umber_pebble.core.bench.track import Track
from umber_pebble.core.families.known import family_of
from umber_pebble.core.heat.times import falls_below_s
from umber_pebble.core.materials.load import material
from umber_pebble.core.melts.bursts import Bowl, Next, plan_bursts
from umber_pebble.core.melts.sugar import faults
from umber_pebble.core.plan.cooks import PotCook
from umber_pebble.core.plan.problem import PlanInput


def heater_free_s(cooks: list[PotCook], state: RunState, cook: PotCook) -> float:
    """When the heater of a cook holds nothing else [s since the run started]: one ring, one bath place, one microwave; inf while
    another pot is on it, and in a microwave until the other bowl's burst is over.

    Args:
        cooks, state: of the run
        cook: that wants it
    Source: definition
    """
    free = 0.0
    for other in cooks:
        seen = state.cooks[other.number]
        if (
            other.number == cook.number
            or seen.phase != "heating"
            or other.way.by.heater_id != cook.way.by.heater_id
        ):
            continue
        if not seen.bursts:
            return math.inf
        free = max(free, seen.bursts[-1].at_s + seen.bursts[-1].seconds)
    return free


def to_temper(cook: PotCook, seen: CookState, track: Track) -> bool:
    """Not in temper yet; where anything was poured already, somebody has decided otherwise. Source: definition"""
    t, rest = cook.tempering, seen.rests[-1]
    return t is not None and t.school != "none" and track.tempered_s is None and not rest.poured


def temper_act(cook: PotCook, seen: CookState, track: Track, now: float) -> Act:
    """The one act at the bowl; a smear that is laid is looked at when its clock has run. Source: common-practice"""
    assert cook.tempering is not None
    step, opens, melted = temper_now(cook.tempering, seen.rests[-1], track, now)
    tells = _tells(cook.number, step)
    smear = material("kitchen", "usual", "smear").spread("sets")
    what = Temper(
        step.act,
        step.kg,
        step.to_degc,
        step.share_frac,
        melted,
        smear,
        falls_to_s(track, step.to_degc),
        bool(seen.rests[-1].seeded),
        material("kitchen", "usual", "seed").value("practised"),
    )
    return Act(what, Subject("pot", cook.number), tells, opens)


def _tells(cook: int, step: TemperNow) -> Body | None:
    """What tells a step of tempering; None where looking is all it asks."""
    match step.act:
        case "seed" | "more":
            return Seeded(cook, step.kg)
        case "take out" | "test":
            return Smeared(cook, True)
        case "melt":
            return Stepped(cook, "through")
        case "read" | "stir" | "look" | "chill" | "pour":
            return None
        case act:
            return Stepped(cook, act)


def falls_to_s(track: Track, degc: float) -> float:
    """When a vessel's likely curve comes down to a temperature [s since the run started]; inf when it never does. Source: definition"""
    return falls_below_s(np.array(track.curve.times_s), np.array(track.curve.likely_degc), degc)


def heat_act(plan: PlanInput, cook: PotCook, casts: int, free_s: float, wash: Wash | None) -> Act:
    """Weigh and put on, in time for the moulds; the vessel is cleaned first. Source: definition"""
    washed_s = wash.lasts_s + wash.soaks_s if wash else 0.0
    before = free_s - washed_s - plan.paces.weigh_s - cook.hob.likely - cook.window.opens.likely
    bursts: Bursts | None = None
    tells: Heated | Burst = Heated(cook.number)
    if isinstance(cook.heating, Bowl):
        steps = plan_bursts(cook.heating).steps
        tells = burst_of(cook, steps[0])
        bursts = Bursts(tuple(s.seconds for s in steps if s.act == "burst"), tells.power_frac)
    what = Weigh(
        cook.fresh_kg,
        cook.water_kg,
        cook.seed_kg,
        cook.way.end_degc,
        cook.hob.likely,
        casts,
        tuple(r.line for r in cook.rounds),
        bursts,
        family_of(cook.way.melt).shaken,
        wash,
    )
    return Act(what, Subject("pot", cook.number), tells, max(before, 0.0))


def _remedy(cook: PotCook, seen: CookState) -> Remedy | None:
    """What was last seen in the bowl, where it is a fault: what it means and what may be done."""
    last = seen.sights[-1].what if seen.sights else ""
    fault = next((f for f in faults(family_of(cook.way.melt).rows) if f.seen == last), None)
    return Remedy(last, fault.means, fault.do) if fault else None


def burst_of(cook: PotCook, step: Next) -> Burst:
    """What is told of a burst [s, frac]. Source: definition"""
    return Burst(cook.number, step.seconds, step.power_frac)


def bowl_act(cook: PotCook, bowl: Bowl, seen: CookState, track: Track) -> Act:
    """The next burst, or out of the oven; not before the last one has been stirred. Source: common-practice"""
    subject, step, opens = Subject("pot", cook.number), track.step, track.step_s
    on_until = seen.bursts[-1].at_s + seen.bursts[-1].seconds if seen.bursts else None
    in_oven = InOven(on_until, track.overheated, _remedy(cook, seen))
    if step is None:
        out = TakeOut(in_oven, bowl.school.stop == "lumps", cook.flow.off.likely)
        return Act(out, subject, Rested(cook.number), opens)
    if step.act == "stir":
        return Act(StirOn(in_oven), subject, None, opens)
    after = step.after
    burst = BurstAgain(
        in_oven,
        step.seconds,
        step.power_frac,
        after.degc.likely,
        after.melted_frac.likely,
        after.hottest_degc.high,
    )
    return Act(burst, subject, burst_of(cook, step), opens)
