"""The track of a poured round: how it cools where it lies, and its windows."""

from dataclasses import replace

import numpy as np

from umber_pebble.core.bench.marks import marks_of
from umber_pebble.core.bench.state import RoundState
from umber_pebble.core.bench.track import Observed, Track, as_read, curve_of, fit_readings
from umber_pebble.core.constants import HOT_TO_HOLD_DEGC
from umber_pebble.core.families.known import family_of
from umber_pebble.core.heat.bands import Band, Use, cast_bands, in_order
from umber_pebble.core.heat.casting import Place, PlaceStay
from umber_pebble.core.heat.pot_law import (
    balance_clock,
    prior_line,
    temperature_spread_degc,
)
from umber_pebble.core.heat.windows import PieceWindows
from umber_pebble.core.heat.works import WORKS
from umber_pebble.core.materials.load import Material, material, tempered
from umber_pebble.core.plan.cooks import PotCook, casting_of, path_of, route_of, windows_of
from umber_pebble.core.plan.problem import PlanInput, PlanLine
from umber_pebble.core.spread import Z_95, Spread, combine, exact

POINTS = 61


# what somebody sees, as the mark it speaks of and on which side of it the cast is
SEEN_AS = {
    "sugar": {
        "moves": ("holds", "before"),
        "lets_go": ("bend_opens", "at"),
        "resists": ("bend_closes", "at"),
        "cracked": ("brittle", "past"),
    },
    "fat": {
        "moves": ("still", "before"),
        "lets_go": ("unmould", "at"),
        "resists": ("unmould", "before"),
        "cracked": ("over_chilled", "past"),
    },
}
LEAST_SEEN_SD = 0.05
"""No eye is surer of a moment than this share of the time since the pour."""


def seen_as(melt: Material, windows: PieceWindows, what: str, time: float) -> Observed:
    """What somebody saw of a round as an observation of its pace: its own time is that of the mark [s].

    The mark's own spread, which no reading narrows, is how sure that is.
    Args:
        melt, windows: of the round
        what: one of SIGHTS
        time: since the pour
    Source: gelman-2013, assumption
    """
    mark, side = SEEN_AS[family_of(melt).rows][what]
    own, spread = windows.at[mark].likely, windows.by_material[mark]
    return Observed(time, own, max((spread.high - spread.low) / (2 * Z_95), LEAST_SEEN_SD * own, 1.0), side)


def round_track(
    plan: PlanInput,
    cook: PotCook,
    line_index: int,
    state: RoundState,
    pour: Spread,
    places: dict[str, Place],
    temper: str = "tempered",
) -> Track:
    """A poured round: how it cools where it lies, and its windows [s since the run started].

    Args:
        plan, cook: frozen
        line_index: its line
        state: of this round, poured
        pour: temperature of the pot when it was poured [degC]
        places: places by id
        temper: in which it was poured
    Source: patankar-1980, williams-landel-ferry-1955, gelman-2013
    """
    assert state.poured_s is not None
    at, order = state.poured_s, plan.lines[line_index]
    # where it has lain, and from there on where it is to go
    ways = route_of(plan, order, state.casts)
    kept = [
        ways[k][0].place if k < len(ways) and ways[k][1] == p else places[p]
        for k, (_, p) in enumerate(state.places)
    ]
    lain = [PlaceStay(max(t - at, 0.0), place) for (t, _), place in zip(state.places, kept, strict=True)]
    # one that was moved on at the same moment was never there
    path = tuple(
        s for s, after in zip(lain, [*lain[1:], None], strict=True) if after is None or after.from_s > s.from_s
    )
    path += tuple(s for s in path_of(plan, order, state.casts)[len(lain) :] if s.from_s > path[-1].from_s)
    casting = casting_of(plan, order, pour, cook.flow, path)
    w = windows_of(order, replace(casting, melt=tempered(casting.melt, temper)))
    run = w.likely_run
    clock = balance_clock(run.times_s, np.minimum.accumulate(run.mean_degc))
    prior = prior_line(0.0, 2.0, w.pace)
    rows = []
    for reading in sorted(state.readings, key=lambda r: r.at_s):
        sd = material("kitchen", reading.method, "method").value("sd")
        rows.append(as_read(clock, reading, reading.at_s - at, reading.degc, sd))
    rows += [seen_as(cook.way.melt, w, sight.what, sight.at_s - at) for sight in state.sights]
    fit = fit_readings(prior, sorted(rows, key=lambda o: o.time))
    line, dots = fit.line, fit.dots

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
    for name, work in WORKS.items():
        if work.closes in windows:
            windows[name] = (then[work.opens] if work.opens else exact(at), then[work.closes])
    return Track(
        _round_bands(cook.way.melt, state, order, then, at, end, w),
        curve_of(grid + at, spreads),
        tuple(dots),
        hold.high if pour.high >= HOT_TO_HOLD_DEGC else at,
        windows,
        marks_of(w),
        line,
        prior,
        curve_of(grid + at, [temperature_spread_degc(prior, clock, float(t)) for t in grid]),
    )


def _round_bands(
    melt: Material,
    state: RoundState,
    line: PlanLine,
    then: dict[str, Spread],
    at: float,
    end: float,
    w: PieceWindows,
) -> tuple[Band, ...]:
    """What a round's ribbon shows: bands in order, the last open one to the end."""
    poured, released = exact(at), line.released and "bend" not in state.worked
    if state.unmoulded_s is not None:
        out = exact(state.unmoulded_s)
        if released:
            return in_order([("soft", poured), ("bend", out), ("stiff", then["bend_closes"])], exact(end))
        return in_order([("setting", poured), ("set", out)], exact(max(end, state.unmoulded_s)))
    left = tuple(of.kind for of in line.works_left(state.worked))
    use = Use(left, line.last, released, line.joins)
    never = frozenset(name for name in then if w.never(name))
    return cast_bands(then, never, family_of(melt).ends.held_until, use, at, end)
