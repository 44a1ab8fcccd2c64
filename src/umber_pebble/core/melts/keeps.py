"""How long a held batch lasts, with the band that everything not known of it makes."""

import math
from collections.abc import Callable
from dataclasses import dataclass, replace

import numpy as np

from umber_pebble.core.errors import require_range
from umber_pebble.core.heat.conduction import Array
from umber_pebble.core.heat.design import normal_design, split_normal
from umber_pebble.core.materials.load import model_factors
from umber_pebble.core.melts.hold import STEP_S, Held, HeldCase, Story, marks_of, temps_of, tip_of
from umber_pebble.core.spread import Spread, exact

AHEAD_S = 2 * 3600.0
COARSE_S = 20.0
FEW, MANY = 32, 512
"""Draws behind a band, and those it is read off at [count]."""
SHIFT_S = 60.0
"""Added to a time before its logarithm is taken, so that what comes at once is no outlier."""


@dataclass(frozen=True, slots=True)
class Keeps:
    """A held batch now and ahead, all times from its filling [s]: its temperature [degC], until when it flows freely and until
    when at all (inf: as long as it stands so), when its tip closes, from when it is warmer than it
    bears as it stands now (inf: never), and whether it has been so before."""

    times_s: Array
    likely_degc: Array
    low_degc: Array
    high_degc: Array
    flows_s: Spread
    stiff_s: Spread
    tip_s: Spread
    too_warm_s: float
    was_too_warm: bool
    kg: float


def keeps(held: Held, story: Story, now_s: float) -> Keeps:
    """How a held batch stands and how long it lasts as it stands, with spread.

    Args:
        held: as it was filled
        story: since then
        now_s: since it was filled [s]
    Raises: OutOfRange: a time before the filling.
    Source: incropera-2007 (section 5.1), avrami-1939, williams-landel-ferry-1955, mckay-1979
    """
    require_range("now_s", now_s, 0.0, 1e7)
    inputs, until = _inputs(held, story), now_s + AHEAD_S
    temps, *likely = _one(held, story, until, _likely(held), STEP_S)
    drawn, many = normal_design(len(inputs), FEW), _sided(normal_design(len(inputs), MANY), inputs)
    curves, *times = _drawn(held, story, until, inputs, drawn)
    terms = _sided(drawn, inputs)
    flows, stiff, tip = (_spread(at, found, terms, many) for at, found in zip(likely, times, strict=True))
    fine, coarse = (np.arange(0.0, until + step, step) for step in (STEP_S, COARSE_S))
    lower, upper = (np.interp(fine, coarse, end) for end in np.quantile(curves, (0.05, 0.95), axis=0))
    # a burst is shorter than the coarse step, so the likely curve may leave the band there
    lower, upper = np.minimum(lower, temps), np.maximum(upper, temps)
    above = (temps > held.melt.value("spoils_at")) if held.tg is None else np.zeros(fine.size, dtype=bool)
    last = _last(story)
    hot = np.flatnonzero(above & (fine >= last))
    taken = sum(kg for t, kg in story.used)
    return Keeps(
        fine,
        temps,
        lower,
        upper,
        flows,
        stiff,
        tip,
        float(fine[hot[0]]) if hot.size else math.inf,
        bool(above[fine < last].any()),
        max(held.kg - taken, 0.0),
    )


def drawn_times(held: Held, story: Story, draw: Callable[[int], Array]) -> tuple[Array, Array, Array]:
    """When a batch no longer flows, is stiff, and its idle tip is stiff, at draws of all that is not known of it [s]; inf: never.

    Args:
        held, story: as for keeps, from its filling on
        draw: standard normal draws [run, input] for so many inputs
    Source: incropera-2007 (section 5.1), avrami-1939
    """
    inputs = _inputs(held, story)
    _, flows, stiff, tip = _drawn(held, story, AHEAD_S, inputs, draw(len(inputs)))
    return flows, stiff, tip


def _last(story: Story) -> float:
    """When it was last moved, warmed or read [s]."""
    return max([0.0, *(s.at_s for s in story.stood), *(w.at_s for w in story.warmed), *(t for t, _ in story.read)])


def _likely(held: Held) -> HeldCase:
    return HeldCase(
        held.melt.value("set_thickens") if held.tg is None else 0.0, held.tg.likely if held.tg else 0.0
    )


def _inputs(held: Held, story: Story) -> dict[str, Spread]:
    """What is not known of a batch, by the fields of its case."""
    melt, spot = held.melt, story.stood[-1].spot
    out = {
        "loss": model_factors()["loss_factor"].spread,
        "to_air": _relative(spot.to_air_w_m2k),
        "to_place": _relative(spot.to_place_w_m2k),
        "cp": _relative(melt.spread("cp_melt")),
        "off_k": _about_zero(held.degc),
    }
    if held.tg is None:
        out["thick"] = melt.spread("set_thickens")
        out["half"] = _relative(melt.spread("half_time"))
        out["melts_k"] = _about_zero(melt.spread("melts_at"))
    else:
        out["tg"] = held.tg
    return {name: of for name, of in out.items() if of.high > of.low}


def _relative(of: Spread) -> Spread:
    return of.times(1 / of.likely) if of.likely else exact(1.0)


def _about_zero(of: Spread) -> Spread:
    return Spread(of.low - of.likely, 0.0, of.high - of.likely)


def _one(
    held: Held, story: Story, until_s: float, case: HeldCase, step_s: float
) -> tuple[Array, float, float, float]:
    idle = max([0.0, *(w.at_s for w in story.warmed), *(t for t, _ in story.used)])
    times, temps, share = temps_of(held, story, until_s, case, step_s)
    flows, stiff = marks_of(held, times, temps, share, case, _last(story))
    return temps, flows, stiff, tip_of(held, temps, times, case, idle)


def _drawn(
    held: Held, story: Story, until_s: float, inputs: dict[str, Spread], drawn: Array
) -> tuple[Array, Array, Array, Array]:
    """Temperatures [degC] and the three times [s] of every draw."""
    values = {name: split_normal(of, drawn[:, i]) for i, (name, of) in enumerate(inputs.items())}
    base = _likely(held)
    rows = [
        _one(held, story, until_s, replace(base, **{name: float(v[n]) for name, v in values.items()}), COARSE_S)
        for n in range(drawn.shape[0])
    ]
    curves, flows, stiff, tip = (np.array(one) for one in zip(*rows, strict=True))
    return curves, flows, stiff, tip


def _sided(z: Array, inputs: dict[str, Spread]) -> Array:
    """Draws as deviations of their inputs, with a constant before them [run, term]."""
    cols = [(split_normal(of, z[:, i]) - of.likely) / (of.high - of.low) for i, of in enumerate(inputs.values())]
    return np.column_stack((np.ones(z.shape[0]), *cols))


def _spread(likely: float, times: Array, terms: Array, many: Array) -> Spread:
    """5 to 95 % of a time from its draws [s]: its logarithm as linear in them where all come to an end, what is left over added;
    else by their own order, what is not reached being later than all."""
    ends = (0.05, 0.95)
    if np.isfinite(times).all():
        logs = np.log(times + SHIFT_S)
        slopes = np.linalg.lstsq(terms, logs, rcond=None)[0]
        wider = math.sqrt(times.size / max(times.size - terms.shape[1], 1))
        rest = np.tile(wider * (logs - terms @ slopes), math.ceil(many.shape[0] / times.size))
        read = np.exp(many @ slopes + rest[: many.shape[0]]) - SHIFT_S
        low, high = (float(v) for v in np.quantile(read, ends))
    else:
        # where its end is open, the band keeps its nine tenths by where it begins
        late = float(np.quantile(times, ends[1], method="closest_observation"))
        early = ends[0] if math.isfinite(late) else 2 * ends[0]
        low, high = float(np.quantile(times, early, method="closest_observation")), late
    return Spread(max(min(low, likely), 0.0), likely, max(high, likely))
