"""A cooling curve read for temper: inflection, slope there, under, well or over tempered."""

from collections.abc import Sequence
from dataclasses import dataclass
from math import erf, sqrt
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from umber_pebble.core.errors import Missing, OutOfRange, require_range
from umber_pebble.core.spread import Z_95, Spread

Array = NDArray[np.float64]
FEWEST, SHORTEST_S, LONGEST_GAP_S = 12, 150.0, 30.0
SMOOTH_S = (61.0, 91.0, 121.0)
SURE_K_MIN = 0.1
"""A curve is smoothed over a minute, a noisy one over longer, until its slope is as sure as this."""
HOTTEST_DEGC = 60.0
SETTLES_S = 20.0
"""What is read in the first moments is the probe warming up."""
FALLS_AGAIN_SDS = 4.0
AGAIN, NEAR_S, LEAST_SD_K_S = 60, 45, 1e-5
SURE_FRAC = 0.9
"""A class is said for sure when so much of the slope's spread lies in it."""


@dataclass(frozen=True, slots=True)
class Bands:
    """A probe's own bands: slopes at the inflection between which a sample is well tempered [K/min]."""

    over_below_k_min: float
    under_above_k_min: float

    def __post_init__(self) -> None:
        require_range("under_above_k_min", self.under_above_k_min, -3.0, 3.0)
        require_range("over_below_k_min", self.over_below_k_min, -3.0, self.under_above_k_min - 0.05)


CurveKind = Literal["under", "well", "over"]


@dataclass(frozen=True, slots=True)
class TemperTest:
    """What a cooling curve says: the smoothed curve, where it turns, its slope there with the spread its noise leaves
    [K/min], its class, the share of that spread that lies in it [frac], and whether that is nearly all."""

    times_s: tuple[float, ...]
    smooth_degc: tuple[float, ...]
    at_s: float
    at_degc: float
    slope_k_min: Spread
    kind: CurveKind
    sure_frac: float
    is_sure: bool


def tidy(times_s: Sequence[float], temps_degc: Sequence[float]) -> tuple[Array, Array]:
    """A curve's points in order, those of one moment averaged, from its start [s, degC].

    Raises: Missing: too few. OutOfRange: too short, a gap, no temperatures of chocolate (Fahrenheit?).
    Source: definition
    """
    if len(times_s) != len(temps_degc) or len(times_s) < FEWEST:
        raise Missing(f"a curve needs at least {FEWEST} readings", path="curve", got=len(times_s))
    t, y = np.asarray(times_s, dtype=float), np.asarray(temps_degc, dtype=float)
    if not (np.isfinite(t).all() and np.isfinite(y).all()):
        raise OutOfRange("a reading is no number", path="curve", got=None)
    if y.max() > HOTTEST_DEGC:
        raise OutOfRange(
            f"{y.max():g} degC is no temperature of a tempered sample: is the file in Fahrenheit? Then say so in its unit",
            path="curve",
            got=float(y.max()),
            limits={"high": HOTTEST_DEGC},
        )
    moments, back = np.unique(t, return_inverse=True)
    y = np.bincount(back, y) / np.bincount(back)
    gaps = np.diff(moments)
    if moments[-1] - moments[0] < SHORTEST_S:
        raise OutOfRange(
            "the curve is too short to turn",
            path="curve",
            got=float(moments[-1] - moments[0]),
            limits={"low": SHORTEST_S},
        )
    if gaps.max() > LONGEST_GAP_S:
        where = float(moments[int(gaps.argmax())] - moments[0])
        raise OutOfRange(
            f"nothing was read for {gaps.max():.0f} s from {where:.0f} s on: the slope may lie in that gap",
            path="curve",
            got=float(gaps.max()),
            limits={"high": LONGEST_GAP_S},
        )
    return moments - moments[0], y


def read_curve(times_s: Sequence[float], temps_degc: Sequence[float], bands: Bands) -> TemperTest:
    """Read a cooling curve as temper meters do.

    It falls, slows as the fat sets in its own heat, and falls again: where it is least steep (or rises most) is the
    inflection. A slope near zero there is well tempered; rising is under, falling on is over tempered. Smoothed by
    a cubic over a minute, or up to two where it is noisy. The steepest of many noisy slopes is too steep and smoothing flattens it:
    how much, and how sure it is, is told by reading the smoothed curve again with its own noise laid on it.
    Args:
        times_s, temps_degc: as read, in any order
        bands: of this probe
    Raises: as tidy; OutOfRange: it never slows and falls again.
    Source: common-practice, beckett-2009 (temper measurement), savitzky-golay-1964, efron-1979
    """
    t, y = tidy(times_s, temps_degc)
    grid = np.arange(0.0, t[-1] + 1e-9, 1.0)
    for over_s in SMOOTH_S:
        smooth, slope, sd, noise = _cubics(grid, t, y, over_s)
        if sd * 60.0 <= SURE_K_MIN:
            break
    turn = _turn(slope, sd, over_s)
    if turn is None:
        raise OutOfRange(
            "the curve never slows and falls again: it ends before the sample sets, or there is no fat that sets in it",
            path="curve",
            got=float(grid[-1]),
        )
    bias, sd = _again(grid, t, (smooth, slope), turn, noise, over_s)
    rate = Spread(*(slope[turn] - bias + z * sd for z in (-Z_95, 0.0, Z_95))).times(60.0)
    sure = _sure(rate, bands)
    kind = max(sure, key=lambda name: sure[name])
    return TemperTest(
        tuple(float(v) for v in grid[::2]),
        tuple(round(float(v), 3) for v in smooth[::2]),
        float(grid[turn]),
        float(smooth[turn]),
        rate,
        kind,
        sure[kind],
        sure[kind] >= SURE_FRAC,
    )


def _turn(slope: Array, sd: float, over_s: float) -> int | None:
    """Where the slope is least steep after the first, steepest fall, before it falls faster again [index]; None where it does not."""
    first, last = int(SETTLES_S), slope.size - int(over_s / 2)
    steep = first + int(slope[first:last].argmin())
    return next(
        (
            i
            for i in range(steep + 1, last - 1)
            if slope[i] >= slope[i - 1]
            and slope[i] >= slope[i + 1]
            and slope[i] - slope[i:last].min() > FALLS_AGAIN_SDS * sd
            and slope[i] >= slope[i : i + int(SMOOTH_S[0])].max()
        ),
        None,
    )


def _again(
    grid: Array, t: Array, curve: tuple[Array, Array], turn: int, noise: float, over_s: float
) -> tuple[float, float]:
    """How far off the slope is read from a curve like this, and how much that scatters [K/s]: read again and again, with noise."""
    near = slice(max(turn - NEAR_S, 0), turn + NEAR_S + 1)
    smooth, slope = curve
    rng, found, there = np.random.default_rng(1979), [], []
    for _ in range(AGAIN):
        y = np.interp(t, grid, smooth) + noise * rng.standard_normal(t.size)
        again = _cubics(grid, t, y, over_s)[1]
        found.append(float(again[near].max()))
        there.append(float(again[turn]))
    return float(np.mean(found)) - float(slope[turn]), max(float(np.std(there)), LEAST_SD_K_S)


def _cubics(grid: Array, t: Array, y: Array, over_s: float) -> tuple[Array, Array, float, float]:
    """Value and slope of a cubic through each stretch, the slope's standard deviation from the scatter [K/s], and that scatter [K]."""
    # imported where it is used: it takes longer to load than the rest of the app
    from scipy.signal import savgol_filter

    wide = int(over_s // 2) * 2 + 1
    even = np.interp(grid, t, y)
    smooth, slope = savgol_filter(even, wide, 3), savgol_filter(even, wide, 3, deriv=1)
    noise = float(np.std(y - np.interp(t, grid, smooth), ddof=4))
    count = max(over_s / float(np.median(np.diff(t))), 3.0)
    # a cubic's slope in the middle scatters 2.5 times as much as a line's
    return smooth, slope, 2.5 * noise / (over_s * np.sqrt(count / 12.0)), noise


def _sure(rate: Spread, bands: Bands) -> dict[CurveKind, float]:
    """Share of the slope's spread in each class, as a normal one [frac]."""
    sd = max((rate.high - rate.low) / 3.29, 1e-6)

    def below(limit: float) -> float:
        return 0.5 * (1 + erf((limit - rate.likely) / (sd * sqrt(2))))

    over, not_under = below(bands.over_below_k_min), below(bands.under_above_k_min)
    return {"under": 1 - not_under, "well": not_under - over, "over": over}
