"""Curves and windows of the pots and rounds of a run, from its readings so far."""

import math
from dataclasses import dataclass, replace

import numpy as np

from umber_pebble.core.bench.state import CookState, Rest, RoundState
from umber_pebble.core.bench.track import Band, Observed, Track, as_read, corrected_degc, curve_of, fit_readings
from umber_pebble.core.constants import HOT_TO_HOLD_DEGC
from umber_pebble.core.errors import OutOfRange
from umber_pebble.core.heat.conduction import Array
from umber_pebble.core.heat.hob import Heating, heating_curve
from umber_pebble.core.heat.melting import Melting, melting_curve, power_spread, stretch
from umber_pebble.core.heat.piece import Place, Stay
from umber_pebble.core.heat.pot_law import (
    Z_95,
    Clock,
    balance_clock,
    law_clock,
    prior_line,
    reach_spread_s,
    temperature_spread_degc,
)
from umber_pebble.core.heat.pour import Flowing, SugarFlow, Variant
from umber_pebble.core.heat.vessel import (
    PotCase,
    base_case,
    cooling_curve_degc,
    curve_times_s,
    varied_cases,
)
from umber_pebble.core.heat.windows import WORKS, PieceWindows, windows_s
from umber_pebble.core.materials.load import material
from umber_pebble.core.pieces.cast import CastAmounts
from umber_pebble.core.plan.cooks import PotCook, casting_of, lies_of, path_of
from umber_pebble.core.plan.problem import PlanInput
from umber_pebble.core.spread import Spread, combine

TYPED_OFF_SD_K = 1.0
POINTS = 61


def pot_rate(clock: Clock, case: PotCase, from_degc: float, to_degc: float) -> float:
    """Speed of a pot on the clock's scale between two temperatures [scale / s].

    Args:
        clock: the scale
        case: the pot
        from_degc, to_degc: falling
    Source: definition
    """
    curve = cooling_curve_degc(case, from_degc)
    time = float(np.interp(-to_degc, -curve, curve_times_s()))
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


def _warp(
    base: PotCase, rest: Rest, kg: dict[int, float], from_degc: float, to_degc: float, clock: Clock
) -> _Warp:
    full = pot_rate(clock, base, from_degc, to_degc)
    real, own, left, speed = [0.0], [0.0], base.melt_kg, 1.0
    for at, number in sorted(rest.poured):
        t = max(at - rest.off_s, real[-1])
        own.append(own[-1] + speed * (t - real[-1]))
        real.append(t)
        left = max(left - kg[number], 0.02 * base.melt_kg, 0.002)
        speed = pot_rate(clock, replace(base, melt_kg=left), from_degc, to_degc) / full
    far = 6 * 3600.0
    own.append(own[-1] + speed * far)
    real.append(real[-1] + far)
    return _Warp(np.array(real), np.array(own))


def resting_track(cook: PotCook, state: Rest, finished_kg: dict[int, float]) -> Track:
    """A vessel off the heat: fitted curve, pour window, ribbon [s since the run started].

    In air the closed law is fitted with known surroundings; on stone the full balance, scaled in time.
    Args:
        cook: frozen
        state: the rest of this cook
        finished_kg: melt gone per round poured
    Source: incropera-2007, gelman-2013, williams-landel-ferry-1955
    """
    off_s, pot, flow = state.off_s, cook.way.pot, cook.flow
    gone = sum(finished_kg[number] for number in state.before)
    base = base_case(pot, cook.way.melt, max(cook.charge_kg - gone, 0.1 * cook.charge_kg))
    start = state.off_degc if state.off_degc is not None else cook.way.end_degc
    in_air = pot.stand.flags["pot_in_air"]
    times = curve_times_s()
    clock = law_clock(pot.air_degc) if in_air else balance_clock(times, cooling_curve_degc(base, start))
    to = min(cook.window.close_degc.likely, start - 5.0)
    rate = combine(
        pot_rate(clock, base, start, to),
        [[pot_rate(clock, case, start, to) for case in pair] for pair in varied_cases(base)],
    )
    start_sd = TYPED_OFF_SD_K if state.off_degc is not None else (flow.off.high - flow.off.low) / 3.29
    prior = prior_line(clock.of(start), abs(clock.slope(start)) * start_sd, rate)
    warp = _warp(base, state, finished_kg, start, to, clock)
    rows, moved = [], off_s
    for reading in sorted(state.readings, key=lambda r: r.at_s):
        taken, sd = corrected_degc(reading, base, reading.at_s - moved)
        rows.append(as_read(clock, reading, warp.to_own(reading.at_s - off_s), taken, sd))
        moved = reading.at_s if reading.method == "immersed_swirled" else moved
    line, dots = fit_readings(prior, rows)

    grid = np.linspace(0.0, float(times[-1]), 541)
    own = [warp.to_own(t) for t in grid]
    temps = [temperature_spread_degc(line, clock, t) for t in own]
    low, likely, high = (np.array([getattr(t, n) for t in temps]) for n in ("low", "likely", "high"))
    opens, closes, stiff, limited_by = _pot_windows(cook, base, grid, (low, likely, high))
    hold = reach_spread_s(line, clock, HOT_TO_HOLD_DEGC).high if pot.air_degc < HOT_TO_HOLD_DEGC - 1 else math.inf
    off = Spread(off_s, off_s, off_s)
    windows = {"pour": (opens.plus(off_s), closes.plus(off_s)), "stiff": (stiff.plus(off_s), stiff.plus(off_s))}
    end = off_s + float(grid[-1])
    step = max(1, round(float(stiff.high) * 1.6 / float(grid[1]) / POINTS))
    pick = slice(0, min(step * POINTS, grid.size), step)
    stiff_degc = flow.stiff_at_degc()
    marks = {
        "pour_closes": cook.window.close_degc.likely,
        "stiff": float(np.interp(stiff.likely, grid, likely)) if stiff_degc is None else stiff_degc,
        "pour_opens": float(np.interp(opens.likely, grid, likely)),
    }
    return Track(
        (
            Band("too_hot" if isinstance(flow, SugarFlow) else "too_warm", off, windows["pour"][0]),
            Band("pour", *windows["pour"]),
            Band("thickening", windows["pour"][1], windows["stiff"][0]),
            Band("stiff", windows["stiff"][0], Spread(end, end, end)),
        ),
        curve_of(grid[pick] + off_s, temps[pick]),
        tuple(dots),
        off_s + warp.to_real(hold) if math.isfinite(hold) else math.inf,
        windows,
        marks,
        line,
        prior,
        curve_of(grid[pick] + off_s, [temperature_spread_degc(prior, clock, t) for t in own[pick]]),
        limited_by,
    )


def _pot_windows(
    cook: PotCook, case: PotCase, grid: Array, curves: tuple[Array, Array, Array]
) -> tuple[Spread, Spread, Spread, str]:
    low, likely, high = curves
    flow = cook.flow

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


def _heating_curve(cook: PotCook, state: CookState) -> tuple[Array, Array]:
    """Times and temperatures of what is on the heat, on to where it spoils [s, degC]."""
    spoils, heating = cook.way.melt.value("spoils_at"), cook.heating
    start = state.from_degc if state.from_degc is not None else heating.start_degc
    # warming up again is not far from the end, and what was crystals and water has gone
    again, start = state.heatings > 1, min(start, cook.way.end_degc - 10.0)
    if isinstance(heating, Melting):
        power = power_spread(heating).likely
        there = replace(heating, start_degc=start)
        times, temps = melting_curve(replace(there, melt_to_degc=spoils), power)
        return times * stretch(heating, melting_curve(there, power)[0][-1]), temps
    hot = replace(
        heating,
        start_degc=start,
        crystalline=heating.crystalline and not again,
        water_kg=0.0 if again else heating.water_kg,
        cook_degc=spoils,
    )
    return _as_hot_as_the_ring_can(hot, cook.way.end_degc, cook.way.melt.value("latent_crystal"))


def heating_track(cook: PotCook, state: CookState) -> Track:
    """A vessel on the heat: when it is hot enough, corrected by readings [s since the run started].

    Args:
        cook: frozen
        state: of this cook, heating
    Source: incropera-2007, gelman-2013
    """
    assert state.heated_s is not None
    at, spoils, goal = state.heated_s, cook.way.melt.value("spoils_at"), cook.way.end_degc
    times, temps = _heating_curve(cook, state)
    clock = balance_clock(times, temps)
    prior = prior_line(
        0.0, 5.0, Spread(*sorted(cook.hob.likely / t for t in (cook.hob.high, cook.hob.likely, cook.hob.low)))
    )
    rows = []
    for reading in sorted(state.readings, key=lambda r: r.at_s):
        sd = material("kitchen", reading.method, "method").value("sd") * 2
        rows.append(as_read(clock, reading, reading.at_s - at, reading.degc, sd))
    line, dots = fit_readings(prior, rows)
    ready = reach_spread_s(line, clock, goal).plus(at)
    browns = reach_spread_s(line, clock, spoils).plus(at)
    grid = np.linspace(0.0, (browns.high - at), POINTS)
    temps_then = [temperature_spread_degc(line, clock, float(t)) for t in grid]
    spoilt = "overheats" if isinstance(cook.heating, Melting) else "browns"
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
        {"ready": goal, spoilt: spoils},
        line,
        prior,
        curve_of(grid + at, [temperature_spread_degc(prior, clock, float(t)) for t in grid]),
    )


# what somebody sees, as the mark it speaks of and on which side of it the cast is
SEEN_AS = {
    "sugar": {
        "moves": ("holds", "before"), "lets_go": ("bend_opens", "at"), "resists": ("bend_closes", "at"),
        "cracked": ("brittle", "past"),
    },
    "fat": {
        "moves": ("still", "before"), "lets_go": ("unmould", "at"), "resists": ("unmould", "before"),
        "cracked": ("over_chilled", "past"),
    },
}  # fmt: skip
LEAST_SEEN_SD = 0.05
"""No eye is surer of a moment than this share of the time since the pour."""


def seen_as(windows: PieceWindows, what: str, time: float) -> Observed:
    """What somebody saw of a round as an observation of its pace: its own time is that of the mark [s].

    The mark's own spread, which no reading narrows, is how sure that is.
    Args:
        windows: of the round
        what: one of SIGHTS
        time: since the pour
    Source: gelman-2013, assumption
    """
    mark, side = SEEN_AS["fat" if "touch" in windows.at else "sugar"][what]
    own, spread = windows.at[mark].likely, windows.by_material[mark]
    return Observed(time, own, max((spread.high - spread.low) / (2 * Z_95), LEAST_SEEN_SD * own, 1.0), side)


def round_track(
    plan: PlanInput, cook: PotCook, line_index: int, amount: CastAmounts, state: RoundState, pour: Spread,
    places: dict[str, Place],
) -> Track:  # fmt: skip
    """A poured round: how it cools where it lies, and its windows [s since the run started].

    Args:
        plan, cook, amount: frozen
        line_index: its line
        state: of this round, poured
        pour: temperature of the pot when it was poured [degC]
        places: places by id
    Source: patankar-1980, williams-landel-ferry-1955, gelman-2013
    """
    assert state.poured_s is not None
    at, order = state.poured_s, plan.lines[line_index]
    # where it has lain, and from there on where it is to go
    ways = lies_of(plan, order, state.casts)
    kept = [
        ways[k][0].place if k < len(ways) and ways[k][1] == p else places[p]
        for k, (_, p) in enumerate(state.places)
    ]
    path = tuple(Stay(max(t - at, 0.0), place) for (t, _), place in zip(state.places, kept, strict=True))
    path += tuple(s for s in path_of(plan, order, state.casts)[len(path) :] if s.from_s > path[-1].from_s)
    w = windows_s(casting_of(plan, order, amount, pour, cook.flow, path))
    run = w.likely_run
    clock = balance_clock(run.times_s, np.minimum.accumulate(run.mean_degc))
    prior = prior_line(0.0, 2.0, w.pace)
    rows = []
    for reading in sorted(state.readings, key=lambda r: r.at_s):
        sd = material("kitchen", reading.method, "method").value("sd")
        rows.append(as_read(clock, reading, reading.at_s - at, reading.degc, sd))
    rows += [seen_as(w, sight.what, sight.at_s - at) for sight in state.sights]
    line, dots = fit_readings(prior, sorted(rows, key=lambda o: o.time))

    def when(own: Spread) -> Spread:
        def real(t: float) -> float:
            return (t - line.y0) / line.rate

        half = 1.645 * line.sd_at(real(own.likely)) / line.rate
        spread = combine(
            real(own.likely),
            [[real(own.low), real(own.high)], [real(own.likely) - half, real(own.likely) + half]],
        )
        return Spread(*(max(v, 0.0) for v in (spread.low, spread.likely, spread.high))).plus(at)

    then = {name: when(spread) for name, spread in w.by_material.items()}
    hold = when(w.cool_to_hold)
    end = then["unmould"].likely + (then["unmould"].high - at)
    if "over_chilled" in then and not w.never("over_chilled"):
        end = max(end, then["over_chilled"].high)
    grid = np.linspace(0.0, end - at, POINTS)
    spreads = [temperature_spread_degc(line, clock, float(t)) for t in grid]
    windows = {name: (spread, spread) for name, spread in then.items() if name == "unmould" or not w.never(name)}
    for work, (opens, closes) in WORKS.items():
        if closes in windows:
            windows[work] = (then[opens] if opens else Spread(at, at, at), then[closes])
    return Track(
        _round_bands(state, order.work, then, at, end, w),
        curve_of(grid + at, spreads),
        tuple(dots),
        hold.high if pour.high >= HOT_TO_HOLD_DEGC else at,
        windows,
        w.limits,
        line,
        prior,
        curve_of(grid + at, [temperature_spread_degc(prior, clock, float(t)) for t in grid]),
    )


def _round_bands(
    state: RoundState, work: str | None, then: dict[str, Spread], at: float, end: float, w: PieceWindows
) -> tuple[Band, ...]:
    """What a round's ribbon shows: bands in order, the last open one to the end."""
    poured, tail = Spread(at, at, at), Spread(end, end, end)
    if state.unmoulded_s is not None:
        out, last = (Spread(t, t, t) for t in (state.unmoulded_s, max(end, state.unmoulded_s)))
        return Band("setting", poured, out), Band("set", out, last)
    if "touch" in then:
        starts = [
            ("fluid", poured),
            ("thickens", then["stick_closes"]),
            ("touch", then["touch"]),
            ("unmould", then["unmould"]),
        ]
        if not w.never("over_chilled"):
            starts.append(("over_chilled", then["over_chilled"]))
        if work == "stick" and state.worked_s is None:
            starts[0] = ("stick", poured)
    elif work == "bend" and state.worked_s is None:
        starts = [
            ("soft", poured),
            ("bend", then["bend_opens"]),
            ("stiff", then["bend_closes"]),
            ("unmould", then["unmould"]),
        ]
    elif work == "stick" and state.worked_s is None:
        starts = [("stick", poured), ("setting", then["stick_closes"]), ("unmould", then["unmould"])]
    else:
        starts = [("setting", poured), ("unmould", then["unmould"])]
    ends = [start for _, start in starts[1:]] + [tail]
    return tuple(Band(name, start, until) for (name, start), until in zip(starts, ends, strict=True))
