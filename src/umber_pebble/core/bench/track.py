"""One ribbon: bands, a curve with its band, readings; and how readings are taken and fitted."""

import math
from collections.abc import Iterable, Sequence
from dataclasses import dataclass, replace

import numpy as np

from umber_pebble.core.bench.state import Reading
from umber_pebble.core.heat.pot_law import Clock, Line, fit_line
from umber_pebble.core.heat.unswirled import offsets
from umber_pebble.core.heat.vessel import PotCase
from umber_pebble.core.materials.load import material
from umber_pebble.core.melts.bursts import Next
from umber_pebble.core.spread import Spread

ODD_SDS = 4.0
DOUBT = 10.0
"""How much wider a belief becomes that two readings in a row contradict."""


@dataclass(frozen=True, slots=True)
class Band:
    """A stretch of a ribbon in one state; from and to with spread, seconds since the run started."""

    state: str
    start: Spread
    end: Spread


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
    """One ribbon: bands, curve, dots, and the times that matter [s since the run started]; of a bowl between bursts, what comes
    next and from when; whether any of it has been hotter than it bears."""

    bands: tuple[Band, ...]
    curve: Curve
    dots: tuple[Dot, ...]
    hot_until_s: float
    windows: dict[str, tuple[Spread, Spread]]
    marks_degc: dict[str, float]
    line: Line
    prior: Line
    predicted: Curve
    limited_by: str = ""
    step: Next | None = None
    step_s: float = 0.0
    overheated: bool = False


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


def _unsure(line: Line) -> Line:
    return Line(line.y0, line.rate, line.var_y0 * DOUBT**2, line.var_rate * DOUBT**2, line.cov * DOUBT**2)


@dataclass(frozen=True, slots=True)
class Observed:
    """What one look says of the line: at a time it is at y, give or take sd_y [scale of the clock].

    side: "at", or only "before" (it has not come so far) or "past" (it has). A reading is drawn with what it is taken for; sure: its method says
    the mean itself, so that two of them outweigh what was believed.
    """

    time: float
    y: float
    sd_y: float
    side: str = "at"
    reading: Reading | None = None
    taken_degc: float = 0.0
    sure: bool = True


def as_read(clock: Clock, reading: Reading, time: float, taken: float, sd: float) -> Observed:
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
    )


def fit_readings(prior: Line, observed: Sequence[Observed]) -> tuple[Line, list[Dot]]:
    """The line after what was read and seen, and how each reading is drawn; one far off the band is shown, not used
    until the next one is far off too [scale of the clock].

    Args:
        prior: the belief before
        observed: in order of time
    Source: gelman-2013
    """
    line, dots = prior, list[Dot]()
    doubted: Observed | None = None
    for o in observed:
        if (o.side == "before" and line.at(o.time) < o.y) or (o.side == "past" and line.at(o.time) > o.y):
            continue
        odd = o.reading is not None and abs(o.y - line.at(o.time)) > ODD_SDS * math.hypot(
            o.sd_y, line.sd_at(o.time)
        )
        if odd and doubted is not None and o.sure and doubted.sure:
            # two in a row: what was believed is wrong, not the readings
            line = fit_line(_unsure(line), [doubted.time], [doubted.y], [doubted.sd_y])
            odd, dots[-1] = False, replace(dots[-1], odd=False)
        if o.reading is not None:
            r = o.reading
            dots.append(Dot(r.id, r.at_s, r.degc, o.taken_degc, r.method, odd))
            doubted = o if odd else None
        if not odd:
            line = fit_line(line, [o.time], [o.y], [o.sd_y])
    return line, dots


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
