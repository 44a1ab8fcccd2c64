"""Curves and windows of the pots and rounds of a run, from its readings so far."""

import math
from collections import Counter
from collections.abc import Callable
from dataclasses import dataclass, replace

import numpy as np

from umber_pebble.core.bench.bowl import Again, bowl_again, bowl_track, taken_out, too_hot
from umber_pebble.core.bench.marks import HeatingMarks, PotMarks, Spoilt
from umber_pebble.core.bench.state import BurstDone, CookState, Rest
from umber_pebble.core.bench.track import Fit, TakenIn, Track, as_read, corrected_degc, curve_of, fit_readings
from umber_pebble.core.constants import HOT_TO_HOLD_DEGC
from umber_pebble.core.errors import OutOfRange
from umber_pebble.core.heat.bands import Band
from umber_pebble.core.heat.conduction import Array
from umber_pebble.core.heat.hob import LEAST_RISE_K, Heating, heating_curve
from umber_pebble.core.heat.melting import Melting, conductance, melting_curve
from umber_pebble.core.heat.pot_law import (
    OwnTime,
    StraightFit,
    balance_clock,
    law_clock,
    prior_line,
    reach_spread_s,
    temperature_spread_degc,
)
from umber_pebble.core.heat.pour import Flow, Flowing, PourLimit, Variant
from umber_pebble.core.heat.vessel import (
    PotCase,
    base_case,
    cooling_curve_degc,
    curve_times_s,
    varied_cases,
)
from umber_pebble.core.materials.load import material
from umber_pebble.core.melts.bursts import Bowl, bursts_of, plan_bursts
from umber_pebble.core.plan.cooks import PotCook
from umber_pebble.core.spread import Z_95, Spread, combine

TYPED_OFF_SD_K = 1.0
POINTS = 61
LEAST_AWAY_K, MOST_OF_IT_FRAC = 1.0, 0.6
"""What is kept warm is followed over so much of its way to where it settles [frac], and begins so far from there at least [K]."""


def pot_rate(clock: OwnTime, case: PotCase, from_degc: float, to_degc: float) -> float:
    """Speed of a pot on the clock's scale between two temperatures [scale / s].

    Args:
        clock: the scale
        case: the pot
        from_degc, to_degc: between which its curve goes one way
    Source: definition
    """
    time = balance_clock(curve_times_s(), cooling_curve_degc(case, from_degc)).of(to_degc)
    return (clock.of(to_degc) - clock.of(from_degc)) / time


@dataclass(frozen=True, slots=True)
class _Warp:
    """Run time to the pot's own time: faster as melt is poured out of it."""

    real: Array
    own: Array

    def to_own(self, t: float) -> float:
        return float(np.interp(t, self.real, self.own))

    def to_real(self, own: float) -> float:
        return float(np.interp(own, self.own, self.real))


def _towards(base: PotCase, start: float) -> tuple[float, float]:
    """Where what is kept warm begins, not quite as warm as it settles, and how warm it is most of the way there [degC]."""
    settled = float(cooling_curve_degc(base, start)[-1])
    start += math.copysign(max(LEAST_AWAY_K - abs(start - settled), 0.0), start - settled)
    return start, start + MOST_OF_IT_FRAC * (settled - start)


def _warp(
    base: PotCase, rest: Rest, kg: dict[int, float], from_degc: float, to_degc: float, clock: OwnTime
) -> _Warp:
    full = pot_rate(clock, base, from_degc, to_degc)
    real, own, left, speed = [0.0], [0.0], base.melt_kg, 1.0
    for at, gone in sorted([*((at, kg[number]) for at, number in rest.poured), *rest.taken]):
        t = max(at - rest.off_s, real[-1])
        own.append(own[-1] + speed * (t - real[-1]))
        real.append(t)
        left = max(left - gone, 0.02 * base.melt_kg, 0.002)
        speed = pot_rate(clock, replace(base, melt_kg=left), from_degc, to_degc) / full
    far = 6 * 3600.0
    own.append(own[-1] + speed * far)
    real.append(real[-1] + far)
    return _Warp(np.array(real), np.array(own))


def _readings_in(
    state: Rest, base: PotCase, prior: StraightFit, clock: OwnTime, warp: _Warp, before: TakenIn | None
) -> TakenIn:
    """A rest's readings taken in; those that were taken in before, by the same belief, stay as they were."""
    readings = tuple(sorted(state.readings, key=lambda r: r.at_s))
    rests_on = (prior, base, tuple(state.poured), tuple(state.taken))
    if before is None or before.rests_on != rests_on or readings[: len(before.readings)] != before.readings:
        before = TakenIn(rests_on, (), state.off_s, {}, Fit(prior))
    rows, moved, alike = [], before.moved_s, Counter(before.alike)
    for reading in readings[len(before.readings) :]:
        taken, sd = corrected_degc(reading, base, reading.at_s - moved, alike[reading.method])
        rows.append(as_read(clock, reading, warp.to_own(reading.at_s - state.off_s), taken, sd))
        alike[reading.method] += 1
        if reading.method == "immersed_swirled":
            moved, alike = reading.at_s, Counter()
    return TakenIn(rests_on, readings, moved, alike, fit_readings(prior, rows, before.fit))


def resting_track(
    cook: PotCook,
    state: Rest,
    finished_kg: dict[int, float],
    before: Track | None = None,
    again: Again | None = None,
) -> Track:
    """A vessel off the heat: fitted curve, pour window, ribbon [s since the run started].

    In air the closed law is fitted with known surroundings; on stone the full balance, scaled in time.
    Args:
        cook: frozen
        state: the rest of this cook
        finished_kg: melt gone per round poured
        before: the same vessel's track when it had been told less
        again: how it was when it was put on the heat for this rest, None the first time
    Source: incropera-2007, gelman-2013, williams-landel-ferry-1955
    """
    off_s, pot, flow = state.off_s, cook.way.rests, cook.flow
    gone = sum(finished_kg[number] for number in state.before)
    base = base_case(pot, cook.way.melt, max(cook.charge_kg - gone, 0.1 * cook.charge_kg))
    start, start_sd, overheated = _off(cook, state, again)
    start = max(start, pot.air_degc + 1.0)
    in_air = pot.stand.flags["pot_in_air"]
    times = curve_times_s()
    to = min(cook.window.close_degc.likely, start - 5.0)
    if cook.way.kept:
        start, to = _towards(base, start)
    clock = law_clock(pot.air_degc) if in_air else balance_clock(times, cooling_curve_degc(base, start))
    rate = combine(
        pot_rate(clock, base, start, to),
        [[pot_rate(clock, case, start, to) for case in pair] for pair in varied_cases(base)],
    )
    prior = prior_line(clock.of(start), abs(clock.slope(start)) * start_sd, rate)
    warp = _warp(base, state, finished_kg, start, to, clock)
    taken_in = _readings_in(state, base, prior, clock, warp, before.taken_in if before else None)
    line = taken_in.fit.line
    grid = np.linspace(0.0, float(times[-1]), 541)
    own = [warp.to_own(t) for t in grid]
    temps = [temperature_spread_degc(line, clock, t) for t in own]
    low, likely, high = (np.array([getattr(t, n) for t in temps]) for n in ("low", "likely", "high"))
    curves = (low, likely, high)
    opens, closes, stiff, limited_by = _pot_windows(flow, base, grid, curves)
    hold = reach_spread_s(line, clock, HOT_TO_HOLD_DEGC).high if pot.air_degc < HOT_TO_HOLD_DEGC - 1 else math.inf
    off = Spread(off_s, off_s, off_s)
    windows = {"pour": (opens.plus(off_s), closes.plus(off_s)), "stiff": (stiff.plus(off_s), stiff.plus(off_s))}
    end = off_s + float(grid[-1])
    step = max(1, round(float(stiff.high) * 1.6 / float(grid[1]) / POINTS))
    pick = slice(0, min(step * POINTS, grid.size), step)
    stiff_degc = flow.stiff_at_degc()
    marks = PotMarks(
        pour_opens=float(np.interp(opens.likely, grid, likely)),
        pour_closes=cook.window.close_degc.likely,
        stiff=float(np.interp(stiff.likely, grid, likely)) if stiff_degc is None else stiff_degc,
    )
    return Track(
        (
            Band("too_warm" if flow.tg is None else "too_hot", off, windows["pour"][0]),
            Band("pour", *windows["pour"]),
            Band("thickening", windows["pour"][1], windows["stiff"][0]),
            Band("stiff", windows["stiff"][0], Spread(end, end, end)),
        ),
        curve_of(grid[pick] + off_s, temps[pick]),
        taken_in.fit.dots,
        off_s + warp.to_real(hold) if math.isfinite(hold) else math.inf,
        windows,
        marks,
        line,
        prior,
        curve_of(grid[pick] + off_s, [temperature_spread_degc(prior, clock, t) for t in own[pick]]),
        limited_by,
        overheated=overheated,
        taken_in=taken_in,
        pours=_pours(cook, off_s, lambda of: _pot_windows(of, base, grid, curves)),
    )


def _off(cook: PotCook, state: Rest, again: Again | None) -> tuple[float, float, bool]:
    """How warm a vessel comes off the heat and how sure that is [degC, K], and if any of it has been too hot."""
    degc, sd = cook.flow.off.likely, (cook.flow.off.high - cook.flow.off.low) / (2 * Z_95)
    if state.portion and cook.portion_degc is not None:
        return cook.portion_degc, max(sd, material("kitchen", "usual", "portion").value("sure")), False
    if cook.tempering is not None:
        # what the plan pours is in temper; what comes off the heat is not
        degc, sd = (
            again.goes_to_degc(cook.way.melt, cook.way.end_degc) if again else cook.way.end_degc,
            TYPED_OFF_SD_K,
        )
    overheated = too_hot(cook.way.melt, state.off_degc or 0.0, state.readings, ())
    if state.melted is not None and isinstance(cook.heating, Bowl):
        m = state.melted
        bowl = bowl_again(cook.heating, again, state.from_degc)
        out, hot = taken_out(bowl, m.bursts, m.readings, m.sights, state.off_s)
        degc, sd, overheated = out.likely, max((out.high - out.low) / (2 * Z_95), 0.3), overheated or hot
    if state.off_degc is not None:
        return state.off_degc, TYPED_OFF_SD_K, overheated
    return degc, sd, overheated


def _pours(
    cook: PotCook, off_s: float, windows: Callable[[Flow], tuple[Spread, Spread, Spread, PourLimit]]
) -> dict[int, tuple[Spread, Spread, PourLimit]]:
    """Each line's own window; what flows alike is read once."""
    known: list[tuple[Flow, tuple[Spread, Spread, PourLimit]]] = []
    out = {}
    for line, (flow, _) in cook.pours.items():
        found = next((own for of, own in known if of == flow), None)
        if found is None:
            opens, closes, _, limit = windows(flow)
            found = opens.plus(off_s), closes.plus(off_s), limit
            known.append((flow, found))
        out[line] = found
    return out


def _pot_windows(
    flow: Flow, case: PotCase, grid: Array, curves: tuple[Array, Array, Array]
) -> tuple[Spread, Spread, Spread, PourLimit]:
    low, likely, high = curves

    def at(temps: Array, variant: Variant) -> Flowing:
        return flow.read(grid, temps, case.depth_m, variant)

    base = at(likely, flow.likely())
    rows = [
        [at(low, flow.likely()), at(high, flow.likely())],
        *([at(likely, variant) for variant in pair] for pair in flow.varied()),
    ]
    opens = combine(base.opens_s, [[f.opens_s for f in row] for row in rows])
    closes = combine(base.closes_s, [[f.closes_s for f in row] for row in rows])
    stiff = combine(max(base.stiff_s, base.closes_s), [[max(f.stiff_s, f.closes_s) for f in row] for row in rows])
    return opens, closes, stiff, base.limited_by


def _as_hot_as_the_ring_can(heating: Heating, at_least_degc: float, latent_j_kg: float) -> tuple[Array, Array]:
    """The heating curve on to browning; to the cook temperature only where the ring gets no further."""
    try:
        return heating_curve(heating, heating.efficiency.likely, latent_j_kg)
    except OutOfRange:
        return heating_curve(replace(heating, cook_degc=at_least_degc), heating.efficiency.likely, latent_j_kg)


def _heating_curve(cook: PotCook, state: CookState, again: Again | None) -> tuple[Array, Array]:
    """Times and temperatures of what is on the heat, on to where it spoils [s, degC]."""
    spoils, heating = cook.way.melt.value("spoils_at"), cook.heating
    start = heating.start_degc if again is None else again.degc
    # warming up again is not far from the end, and what was crystals and water has gone
    start = min(start if state.from_degc is None else state.from_degc, cook.way.end_degc - LEAST_RISE_K)
    assert not isinstance(heating, Bowl)
    if isinstance(heating, Melting):
        return melting_curve(replace(heating, start_degc=start, melt_to_degc=spoils), conductance().likely)
    hot = replace(
        heating,
        start_degc=start,
        crystalline=heating.crystalline and again is None,
        water_kg=heating.water_kg if again is None else 0.0,
        cook_degc=spoils,
    )
    return _as_hot_as_the_ring_can(hot, cook.way.end_degc, cook.way.melt.value("latent_crystal"))


def _with_bursts(bowl: Bowl, state: CookState) -> CookState:
    """A bowl that was put on as a whole is taken to go by its plan."""
    if state.bursts or state.heated_s is None:
        return state
    planned = bursts_of(plan_bursts(bowl).steps, bowl.school, state.heated_s)
    # what needs none is warmed otherwise
    none = [BurstDone(state.heated_s, 0.0, bowl.school.power_frac)]
    return replace(state, bursts=[BurstDone(b.at_s, b.seconds, b.power_frac) for b in planned] or none)


def heating_track(cook: PotCook, state: CookState, again: Again | None = None) -> Track:
    """A vessel on the heat: when it is hot enough, corrected by readings [s since the run started].

    Args:
        cook: frozen
        state: of this cook, heating
        again: how it was when it was put on, None the first time
    Source: incropera-2007, gelman-2013
    """
    assert state.heated_s is not None
    if isinstance(cook.heating, Bowl):
        bowl = bowl_again(cook.heating, again, state.from_degc)
        return bowl_track(bowl, _with_bursts(bowl, state))
    at, spoils, goal = state.heated_s, cook.way.melt.value("spoils_at"), cook.way.end_degc
    if again is not None:
        goal = again.goes_to_degc(cook.way.melt, goal)
    times, temps = _heating_curve(cook, state, again)
    clock = balance_clock(times, temps)
    prior = prior_line(
        0.0, 5.0, Spread(*sorted(cook.hob.likely / t for t in (cook.hob.high, cook.hob.likely, cook.hob.low)))
    )
    rows = []
    for reading in sorted(state.readings, key=lambda r: r.at_s):
        sd = material("kitchen", reading.method, "method").value("sd") * 2
        rows.append(as_read(clock, reading, reading.at_s - at, reading.degc, sd))
    fit = fit_readings(prior, rows)
    line, dots = fit.line, fit.dots
    ready = reach_spread_s(line, clock, goal).plus(at)
    browns = reach_spread_s(line, clock, spoils).plus(at)
    grid = np.linspace(0.0, (browns.high - at), POINTS)
    temps_then = [temperature_spread_degc(line, clock, float(t)) for t in grid]
    spoilt: Spoilt = "overheats" if isinstance(cook.heating, Melting) else "browns"
    return Track(
        (
            Band("heating", Spread(at, at, at), ready),
            Band("ready", ready, browns),
            Band(spoilt, browns, browns.plus(browns.high - at)),
        ),
        curve_of(grid + at, temps_then),
        tuple(dots),
        math.inf if goal >= HOT_TO_HOLD_DEGC else at,
        {"ready": (ready, browns)},
        HeatingMarks(goal, spoils, spoilt),
        line,
        prior,
        curve_of(grid + at, [temperature_spread_degc(prior, clock, float(t)) for t in grid]),
        overheated=too_hot(cook.way.melt, 0.0, state.readings, ()),
    )
