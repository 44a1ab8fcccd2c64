"""A cooling curve read for temper: inflection, slope there, under, well or over tempered."""

from collections.abc import Sequence
from dataclasses import dataclass
from math import erf, sqrt

import numpy as np
from numpy.typing import NDArray

from umber_pebble.core.errors import Missing, OutOfRange, require_range
from umber_pebble.core.spread import Spread

Array = NDArray[np.float64]
FEWEST, SHORTEST_S, LONGEST_GAP_S = 12, 150.0, 30.0
SMOOTH_S = (61.0, 91.0, 121.0)
SURE_K_MIN = 0.1
"""A curve is smoothed over a minute, a noisy one over longer, until its slope is as sure as this."""
HOTTEST_DEGC = 60.0
SETTLES_S = 20.0
"""What is read in the first moments is the probe warming up."""
FALLS_AGAIN_SDS = 4.0


@dataclass(frozen=True, slots=True)
class Bands:
    """A probe's own bands: slopes at the inflection between which a sample is well tempered [K/min]."""

    over_below_k_min: float
    under_above_k_min: float

    def __post_init__(self) -> None:
        require_range("under_above_k_min", self.under_above_k_min, -3.0, 3.0)
        require_range("over_below_k_min", self.over_below_k_min, -3.0, self.under_above_k_min - 0.05)


@dataclass(frozen=True, slots=True)
class TemperTest:
    """What a cooling curve says: the smoothed curve, where it turns, its slope there with the spread its noise leaves
    [K/min], its class, and the share of that spread that lies in each class [frac]."""

    times_s: tuple[float, ...]
    smooth_degc: tuple[float, ...]
    at_s: float
    at_degc: float
    slope_k_min: Spread
    kind: str
    sure: dict[str, float]


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
            path="curve", got=float(y.max()), limits={"high": HOTTEST_DEGC},
        )  # fmt: skip
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
            f"nothing was read for {gaps.max():.0f} s from {where:.0f} s on: the slope may lie in that gap", path="curve",
            got=float(gaps.max()), limits={"high": LONGEST_GAP_S},
        )  # fmt: skip
    return moments - moments[0], y


def read_curve(times_s: Sequence[float], temps_degc: Sequence[float], bands: Bands) -> TemperTest:
    """Read a cooling curve as temper meters do.

    It falls, slows as the fat sets in its own heat, and falls again: where it is least steep (or rises most) is the
    inflection. A slope near zero there is well tempered; rising is under, falling on is over tempered. Smoothed by
    a cubic over a minute, or up to two where it is noisy; the slope's spread is that fit's own.
    Args:
        times_s, temps_degc: as read, in any order
        bands: of this probe
    Raises: as tidy; OutOfRange: it never slows and falls again.
    Source: common-practice, beckett-2009 (temper measurement), savitzky-golay-1964
    """
    t, y = tidy(times_s, temps_degc)
    grid = np.arange(0.0, t[-1] + 1e-9, 1.0)
    even = np.interp(grid, t, y)
    for over_s in SMOOTH_S:
        smooth, slope, sd = _cubics(grid, even, t, y, over_s)
        if sd * 60.0 <= SURE_K_MIN:
            break
    first, last = int(SETTLES_S), grid.size - int(over_s / 2)
    # the first fall is the steepest: the inflection is where it is least steep before it falls faster again
    steep = first + int(slope[first:last].argmin())
    turn = next(
        (
            i for i in range(steep + 1, last - 1)
            if slope[i] >= slope[i - 1] and slope[i] >= slope[i + 1] and slope[i] - slope[i:last].min() > FALLS_AGAIN_SDS * sd
            and slope[i] >= slope[i : i + int(SMOOTH_S[0])].max()
        ),
        None,
    )  # fmt: skip
    if turn is None:
        raise OutOfRange(
            "the curve never slows and falls again: it ends before the sample sets, or there is no fat that sets in it",
            path="curve", got=float(grid[-1]),
        )  # fmt: skip
    rate = Spread(slope[turn] - 1.645 * sd, slope[turn], slope[turn] + 1.645 * sd).times(60.0)
    kind = (
        "over"
        if rate.likely < bands.over_below_k_min
        else "under"
        if rate.likely > bands.under_above_k_min
        else "well"
    )
    return TemperTest(
        tuple(float(v) for v in grid[::2]), tuple(round(float(v), 3) for v in smooth[::2]), float(grid[turn]),
        float(smooth[turn]), rate, kind, _sure(rate, bands),
    )  # fmt: skip


def _cubics(grid: Array, even: Array, t: Array, y: Array, over_s: float) -> tuple[Array, Array, float]:
    """Value and slope of a cubic through each stretch, and the slope's standard deviation from the scatter [K/s]."""
    half = int(over_s // 2)
    smooth, slope = np.empty_like(even), np.empty_like(even)
    for i in range(grid.size):
        a, b = max(i - half, 0), min(i + half + 1, grid.size)
        *_, c1, c0 = np.polyfit(grid[a:b] - grid[i], even[a:b], 3)
        smooth[i], slope[i] = c0, c1
    noise = float(np.std(y - np.interp(t, grid, smooth), ddof=4))
    count = max(over_s / float(np.median(np.diff(t))), 3.0)
    # a cubic's slope in the middle scatters 2.5 times as much as a line's
    return smooth, slope, 2.5 * noise / (over_s * np.sqrt(count / 12.0))


def _sure(rate: Spread, bands: Bands) -> dict[str, float]:
    """Share of the slope's spread in each class, as a normal one [frac]."""
    sd = max((rate.high - rate.low) / 3.29, 1e-6)

    def below(limit: float) -> float:
        return 0.5 * (1 + erf((limit - rate.likely) / (sd * sqrt(2))))

    over, not_under = below(bands.over_below_k_min), below(bands.under_above_k_min)
    return {"under": 1 - not_under, "well": not_under - over, "over": over}
