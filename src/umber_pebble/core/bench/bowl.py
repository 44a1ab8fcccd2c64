"""A bowl that is melted by bursts at the bench: its track, what to do next, whether any of it has been too hot."""

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np

from umber_pebble.core.bench.marks import HeatingMarks
from umber_pebble.core.bench.state import BurstDone, CookState, Reading, Sight
from umber_pebble.core.bench.track import Dot, Track, corrected_degc, curve_of, temperature_at_degc
from umber_pebble.core.heat.bands import Band
from umber_pebble.core.heat.conduction import Array
from umber_pebble.core.heat.pot_law import prior_line
from umber_pebble.core.materials.load import Material
from umber_pebble.core.melts.bursts import (
    GENTLE_FRAC,
    SMOOTH_FRAC,
    Belief,
    Bowl,
    Burst,
    Look,
    Next,
    School,
    ahead,
    bursts_of,
    clear_degc,
    next_burst,
)
from umber_pebble.core.spread import Spread, exact

TAIL_S = 120.0
"""How far a bowl's ribbon goes on after it is likely to be taken out."""
POINTS = 61


def _looks(
    bowl: Bowl, bursts: Sequence[Burst], readings: Sequence[Reading], sights: Sequence[Sight], at: float
) -> list[Look]:
    # between two bursts the last thing seen counts: what was said before it was a slip, or has passed
    last = {sum(b.at_s <= s.at_s - at for b in bursts): s for s in sights}
    out = [Look(sight.at_s - at, sight.what) for sight in last.values()]
    for r in readings:
        # a bowl is stirred before it is looked at
        degc, sd = corrected_degc(r, bowl.case, 0.0)
        out.append(Look(r.at_s - at, None, degc, sd))
    return sorted(out, key=lambda look: look.at_s)


def _bursts(done: Sequence[BurstDone], at: float) -> list[Burst]:
    return [Burst(b.at_s - at, b.seconds, b.power_frac) for b in done]


def belief_of(
    bowl: Bowl, done: Sequence[BurstDone], readings: Sequence[Reading], sights: Sequence[Sight]
) -> tuple[Belief, list[Burst]]:
    """What is held of a bowl after its bursts and looks, and the bursts, in seconds since the first.

    Source: gelman-2013
    """
    at = done[0].at_s
    bursts = _bursts(done, at)
    return Belief(bowl, bursts, _looks(bowl, bursts, readings, sights, at)), bursts


@dataclass(frozen=True, slots=True)
class Again:
    """How a vessel was when it was put on the heat again: how warm [degC], whether what is in it was still fluid, and in temper."""

    degc: float
    fluid: bool
    in_temper: bool

    def goes_to_degc(self, melt: Material, first_degc: float) -> float:
        """How hot it gets now: what is in temper no hotter than it works, else as hot as the first time [degC]. Source: common-practice"""
        return melt.spread("work_at").high if self.in_temper else first_degc


def again_at(before: Track, at_s: float) -> Again:
    """How a vessel is that is put on the heat again.

    Args:
        before: its track off the heat
        at_s: when it is put on [s since the run started]
    Source: definition
    """
    fluid = at_s <= before.windows["stiff"][0].likely
    return Again(temperature_at_degc(before, at_s).likely, fluid, fluid and before.tempered_s is not None)


def bowl_again(bowl: Bowl, again: Again | None, told_degc: float | None) -> Bowl:
    """A bowl as it goes into the oven: the first time as it was planned, again from how it is.

    Args:
        bowl: as planned
        again: how it is, None the first time
        told_degc: what somebody read then
    Source: beckett-2009, common-practice
    """
    if again is None:
        return bowl
    start, melted = again.degc if told_degc is None else told_degc, 1 - bowl.melt.value("set_thickens")
    to = again.goes_to_degc(bowl.melt, bowl.melt_to_degc)
    return replace(
        bowl,
        start_degc=min(start, to),
        melt_to_degc=to,
        school=School(min(GENTLE_FRAC, bowl.school.power_frac), "through") if again.in_temper else bowl.school,
        in_temper=again.in_temper,
        melted_frac=melted if again.fluid else 0.0,
    )


def warms_by(bowl: Bowl, again: Again) -> Next | None:
    """The burst by which a bowl is warmed again; None where the shortest would be too much for it. Source: common-practice"""
    step = next_burst(Belief(bowl_again(bowl, again, None)), [], 0.0)
    return step if step.act == "burst" else None


def too_hot(melt: Material, hottest_degc: float, readings: Sequence[Reading], sights: Sequence[Sight]) -> bool:
    """Whether a melt has been past what it bears: by the model, a reading, or grains that were seen [degC].

    Source: beckett-2009, common-practice
    """
    limit = melt.value("spoils_at")
    seen = any(s.what == "grainy" for s in sights)
    return seen or hottest_degc > limit or any(r.degc > limit for r in readings)


def taken_out(
    bowl: Bowl, done: Sequence[BurstDone], readings: Sequence[Reading], sights: Sequence[Sight], at_s: float
) -> tuple[Spread, bool]:
    """How warm a bowl is when it is taken out [degC], and whether any of it has been too hot.

    Args:
        bowl: as it went in
        done, readings, sights: since then
        at_s: when it is taken out [s since the run started]
    Source: incropera-2007, gelman-2013
    """
    belief, bursts = belief_of(bowl, done, readings, sights)
    after = belief.after(bursts, max(at_s - done[0].at_s, 1.0))
    return after.degc, too_hot(bowl.melt, after.hottest_degc.likely, readings, sights)


def bowl_track(bowl: Bowl, state: CookState) -> Track:
    """A bowl between its bursts: its temperature so far and to come, when it is likely done, and what to do next.

    Args:
        bowl: as it went in
        state: of its cook, heating
    Source: incropera-2007, gelman-2013
    """
    assert state.heated_s is not None
    at, stir = state.heated_s, bowl.oven.stir_s
    belief, bursts = belief_of(bowl, state.bursts, state.readings, state.sights)
    stirred = bursts[-1].at_s + bursts[-1].seconds + stir
    stirred = max([stirred, *(s.at_s - at for s in state.sights), *(r.at_s - at for r in state.readings)])
    steps, out = ahead(belief, bursts, stirred)
    whole = [*bursts, *bursts_of(steps, bowl.school, stirred)]
    until = out + TAIL_S
    temps, melted, hottest, stirs = belief.run(whole, until)
    ready = _ready_s(belief, temps, melted, stirs).plus(at)
    prior = Belief(bowl)
    before, *_ = prior.run(whole, until)
    grid = np.linspace(0.0, temps.shape[2] - 1, min(POINTS, temps.shape[2])).astype(int)
    now = int(min(stirred, temps.shape[2] - 1))
    end = exact(at + until)
    line = prior_line(0.0, 1.0, exact(1.0))
    start = exact(at)
    return Track(
        (Band("heating", start, ready), Band("ready", ready, end)),
        curve_of(grid + at, [belief.spread(temps[:, :, i]) for i in grid]),
        tuple(Dot(r.id, r.at_s, r.degc, r.degc, r.method, False) for r in state.readings),
        at,
        {"ready": (ready, exact(math.inf))},
        HeatingMarks(clear_degc(bowl), bowl.melt.value("spoils_at"), "overheats"),
        line,
        line,
        curve_of(grid + at, [prior.spread(before[:, :, i]) for i in grid]),
        step=steps[0] if steps else None,
        step_s=at + stirred,
        overheated=too_hot(bowl.melt, belief.spread(hottest[:, :, now]).likely, state.readings, state.sights),
    )


def _ready_s(belief: Belief, temps: Array, melted: Array, stirred: Array) -> Spread:
    """When it is as its school wants it, over the grid; the end where it does not come to it [s]."""
    bowl = belief.bowl
    if bowl.school.stop == "lumps":
        good = stirred >= clear_degc(bowl)
    else:
        good = (bowl.in_temper | (melted >= SMOOTH_FRAC)) & (temps >= clear_degc(bowl))
    last = temps.shape[2] - 1
    first = np.where(good.any(axis=2), good.argmax(axis=2), last).astype(np.float64)
    return belief.spread(first)
