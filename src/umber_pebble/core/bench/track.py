"""One ribbon: bands, a curve with its band, readings; and how readings are taken and fitted."""

import math
from collections.abc import Callable, Iterable, Mapping, Sequence
from dataclasses import dataclass, field, replace

import numpy as np

from umber_pebble.core.bench.marks import Marks
from umber_pebble.core.bench.state import InTemper, Reading
from umber_pebble.core.heat.bands import Band
from umber_pebble.core.heat.pot_law import OwnTime, StraightFit, fit_line
from umber_pebble.core.heat.pour import PourLimit
from umber_pebble.core.heat.unswirled import offsets
from umber_pebble.core.heat.vessel import PotCase
from umber_pebble.core.materials.load import material
from umber_pebble.core.melts.bursts import Next
from umber_pebble.core.spread import Spread

ODD_SDS = 4.0
DOUBT = 10.0
"""How much wider a belief becomes that two readings in a row contradict."""


@dataclass(frozen=True, slots=True)
class Dot:
    """A reading as drawn: what was typed, what the app takes it for, and if it is left out as odd."""

    id: str
    at_s: float
    degc: float
    taken_degc: float
    method: str
    odd: bool


@dataclass(frozen=True, slots=True)
class Curve:
    """A temperature over time with its band [s since the run started, degC]."""

    times_s: tuple[float, ...]
    low_degc: tuple[float, ...]
    likely_degc: tuple[float, ...]
    high_degc: tuple[float, ...]


def curve_of(times: Iterable[float], temps: Sequence[Spread]) -> Curve:
    """A curve from times [s] and temperatures with their band [degC], to 0.1 s and 0.01 K. Source: definition"""
    return Curve(
        tuple(round(float(t), 1) for t in times),
        tuple(round(t.low, 2) for t in temps),
        tuple(round(t.likely, 2) for t in temps),
        tuple(round(t.high, 2) for t in temps),
    )


@dataclass(frozen=True, slots=True)
class Track:
    """One ribbon: bands, curve, dots, and the times that matter [s since the run started]; of a vessel off the heat, from when to when
    each line may be poured of it, and what keeps it from sooner; of what is tempered, in which temper it is, and since when it was found
    to be; of a bowl between bursts, what comes next and from when; whether any of it has been hotter than it bears."""

    bands: tuple[Band, ...]
    curve: Curve
    dots: tuple[Dot, ...]
    hot_until_s: float
    windows: dict[str, tuple[Spread, Spread]]
    marks: Marks
    line: StraightFit
    prior: StraightFit
    predicted: Curve
    limited_by: PourLimit = "heat"
    step: Next | None = None
    step_s: float = 0.0
    overheated: bool = False
    taken_in: "TakenIn | None" = None
    pours: dict[int, tuple[Spread, Spread, PourLimit]] = field(default_factory=dict)
    temper: InTemper | None = None
    tempered_s: float | None = None


READ_OF = {"immersed_swirled": "mean", "immersed_unswirled": "middle", "infrared": "surface"}


def corrected_degc(reading: Reading, case: PotCase, unswirled_s: float, alike: int = 0) -> tuple[float, float]:
    """What a reading says of the melt's mean, and its standard deviation [degC, K].

    What is not known of the correction is the same in readings taken alike, so more of them do not make it surer: the doubt of each
    further one grows, and together they never weigh more than about one.
    Args:
        reading: as typed, with its method
        case: the pot
        unswirled_s: since the melt was last moved
        alike: readings by the same method since then [count]
    Source: carslaw-jaeger-1959, gelman-2013, assumption
    """
    method = material("kitchen", reading.method, "method")
    if reading.method == "immersed_swirled":
        return reading.degc, method.value("sd")
    found = offsets(case, reading.degc, unswirled_s, READ_OF[reading.method])
    offset = found.surface_k if reading.method == "infrared" else found.middle_k
    doubt = method.value("offset_unknown") * max(abs(offset), abs(found.surface_k) / 2)
    return reading.degc - offset, math.hypot(method.value("sd"), doubt * (1 + alike))


def _unsure(line: StraightFit) -> StraightFit:
    return StraightFit(line.y0, line.rate, line.var_y0 * DOUBT**2, line.var_rate * DOUBT**2, line.cov * DOUBT**2)


@dataclass(frozen=True, slots=True)
class Observed:
    """What one look says of the line: at a time it is at y, give or take sd_y [scale of the clock].

    side: "at", or only "before" (it has not come so far) or "past" (it has). A reading is drawn with what it is taken for; sure: its method says
    the mean itself, so that two of them outweigh what was believed; here_sd_y: its standard deviation at another place of the scale.
    """

    time: float
    y: float
    sd_y: float
    side: str = "at"
    reading: Reading | None = None
    taken_degc: float = 0.0
    sure: bool = True
    here_sd_y: Callable[[float], float] | None = None


def as_read(clock: OwnTime, reading: Reading, time: float, taken: float, sd: float) -> Observed:
    """A temperature as an observation of the line [scale of the clock].

    Args:
        clock: the scale
        reading, time: what was read, and when on the line's time
        taken, sd: what it is taken for and its standard deviation [degC, K]
    Source: definition
    """
    return Observed(
        time,
        clock.of(taken),
        max(abs(clock.slope(taken)) * sd, 1e-9),
        "at",
        reading,
        taken,
        reading.method == "immersed_swirled",
        lambda y: max(abs(clock.slope(clock.back(y))) * sd, 1e-9),
    )


@dataclass(frozen=True, slots=True)
class Fit:
    """A line after what it was told, how each reading is drawn, and one that is doubted until the next [scale of the clock]."""

    line: StraightFit
    dots: tuple[Dot, ...] = ()
    doubted: Observed | None = None


@dataclass(frozen=True, slots=True)
class TakenIn:
    """The readings of a vessel at rest that its line rests on, so that the next one need not begin again: what the fit rests on, the
    readings in order, when the melt was last moved [s], the readings by each method since, and the fit."""

    rests_on: object
    readings: tuple[Reading, ...]
    moved_s: float
    alike: Mapping[str, int]
    fit: Fit


def fit_readings(prior: StraightFit, observed: Sequence[Observed], before: Fit | None = None) -> Fit:
    """The line after what was read and seen, and how each reading is drawn [scale of the clock].

    One far off the band is shown, not used, until the next one is far off too and the two agree: a pot does not run backwards, so a
    probe that is still warming up is no evidence. What a hand said of a reading, taken in or left out, counts before all that.
    Args:
        prior: the belief before
        observed: in order of time
        before: the fit of what came before them, if there was any
    Source: gelman-2013
    """
    fit = before or Fit(prior)
    line, dots, doubted = fit.line, list(fit.dots), fit.doubted
    for o in observed:
        if (o.side == "before" and line.at(o.time) < o.y) or (o.side == "past" and line.at(o.time) > o.y):
            continue
        said = o.reading.use if o.reading is not None else None
        after: StraightFit | None = None
        if said is not False and (said or o.reading is None or _near(line, o)):
            after = _taken_in(line if said is not True or _near(line, o) else _unsure(line), o, prior)
        elif said is None and doubted is not None and o.sure and doubted.sure:
            # two in a row that agree: what was believed is wrong, not the readings
            wide = _taken_in(_unsure(line), doubted, prior)
            if wide is not None and _near(wide, o) and (after := _taken_in(wide, o, prior)) is not None:
                dots[-1] = replace(dots[-1], odd=False)
        if o.reading is not None:
            r = o.reading
            dots.append(Dot(r.id, r.at_s, r.degc, o.taken_degc, r.method, after is None))
            doubted = o if after is None and said is None else None
        line = after or line
    return Fit(line, tuple(dots), doubted)


SLOWEST = 0.05
"""Of the pace believed before any reading; slower than this nothing cools or warms, however it is wrapped."""


def _near(line: StraightFit, o: Observed) -> bool:
    """Within what line and reading are unsure by. Near the air the scale is so steep that anything would be: it counts as it is where
    the line is."""
    here = line.at(o.time)
    sd = o.sd_y if o.here_sd_y is None else min(o.sd_y, o.here_sd_y(here))
    return abs(o.y - here) <= ODD_SDS * math.hypot(sd, line.sd_at(o.time))


def _taken_in(line: StraightFit, o: Observed, prior: StraightFit) -> StraightFit | None:
    """The line with one more observation; None where it would stand still or run backwards."""
    after = fit_line(line, [o.time], [o.y], [o.sd_y])
    return after if after.rate > SLOWEST * prior.rate else None


def temperature_at_degc(track: Track, at_s: float) -> Spread:
    """Temperature on a track's curve at a time [degC].

    Args:
        track: a pot's or a round's
        at_s: seconds since the run started
    Source: definition
    """
    curve = track.curve
    series = (curve.low_degc, curve.likely_degc, curve.high_degc)
    return Spread(*(float(np.interp(at_s, curve.times_s, s)) for s in series))
