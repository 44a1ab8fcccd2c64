"""Fat that sets: how much of it is solid at rest at a temperature, and how fast it gets there."""

import math
from dataclasses import dataclass
from functools import lru_cache

import numpy as np
from numba import njit
from numpy.typing import NDArray

from umber_pebble.core.errors import require_range
from umber_pebble.core.materials.load import Material

REMELT_S = 5.0
NEAREST_K = 0.01
SMALL_SHARE = 1e-4
"""So near to its rest nothing sets or melts any more [frac]."""
SLOW_STEP = 1e-7
"""What grows less in a step, of the time that it takes to set, does not grow [1]."""
LEAST = 1e-300
"""Of what is set at rest so much is there to grow from, where all had melted [frac]."""
SOLVED_K = 0.05
"""A step in the fat's own heat is solved once it moves by no more [K]."""

Kinetics = tuple[float, float, float, float, float, float]


@dataclass(frozen=True, slots=True)
class Setting:
    """Constants of a setting fat: melting point and width of the range [degC, K], most it can set [frac], Avrami
    exponent, half-time at a temperature [s, degC] and its slope with undercooling [K], heat [J/kg], share at the start.
    """

    melts_degc: float
    width_k: float
    most_frac: float
    exponent: float
    half_s: float
    half_at_degc: float
    slope_k: float
    latent_j_kg: float
    start_frac: float

    def __post_init__(self) -> None:
        require_range("half_s", self.half_s, 1e-6, 1e6)
        require_range("half_at_degc", self.half_at_degc, -40.0, self.melts_degc - 0.1)

    def rest_frac(self, degc: float) -> float:
        """Share set at rest at a temperature [frac]."""
        return float(rest_share_frac(degc, self.melts_degc, self.width_k, self.most_frac))

    def kinetics(self) -> Kinetics:
        """The row the compiled loops take; the rate constant is that at half_at_degc [1/s]."""
        rate = math.log(2.0) ** (1.0 / self.exponent) / self.half_s
        return (
            self.melts_degc,
            self.width_k,
            self.most_frac,
            self.exponent,
            rate * math.exp(self.slope_k / (self.melts_degc - self.half_at_degc)),
            self.slope_k,
        )


@njit(cache=True)
def rest_share_frac(temp_degc: float, melts_degc: float, width_k: float, most_frac: float) -> float:
    """Share set at rest at a temperature [frac].

    Args:
        temp_degc: temperature
        melts_degc, width_k: middle and width of the melting range
        most_frac: the most that sets, far below it
    Source: assumption
    """
    x = (temp_degc - melts_degc) / width_k
    if x > 40.0:
        return 0.0
    return most_frac / (1.0 + math.exp(x))


@njit(cache=True, error_model="numpy", inline="always")
def _grown(share, rest, temp_degc, seconds, k):  # type: ignore[no-untyped-def]
    """Share set after some seconds at one temperature below its rest, and its slope with that temperature [frac, 1/K]."""
    melts, width, most, n, rate0, slope = k
    under = melts - temp_degc
    if under <= NEAREST_K:
        return share, 0.0
    grows = rate0 * math.exp(-slope / under) * seconds
    if grows < SLOW_STEP:
        return share, 0.0
    u = max(share / rest, LEAST)
    before = -math.log1p(-u)
    done = before ** (1.0 / n)
    power = (done + grows) ** n
    left = math.exp(-power)
    # what is done falls as rest rises, and both rest and pace fall as it gets warmer
    of_rest = -(1.0 - rest / most) / width
    done_slope = -done * u / (n * before * (1.0 - u)) * of_rest
    pace_slope = -grows * slope / (under * under)
    return rest * (1.0 - left), rest * (
        of_rest * (1.0 - left) + left * n * power / (done + grows) * (done_slope + pace_slope)
    )


@njit(cache=True, error_model="numpy", inline="always")
def _after(share, rest, temp_degc, seconds, k):  # type: ignore[no-untyped-def]
    """As _grown, above its rest too."""
    if share < rest:
        return _grown(share, rest, temp_degc, seconds, k)
    kept = math.exp(-seconds / REMELT_S)
    return rest + (share - rest) * kept, -rest * (1.0 - rest / k[2]) / k[1] * (1.0 - kept)


@njit(cache=True)
def set_after_frac(share: float, temp_degc: float, seconds: float, k: tuple[float, ...]) -> float:
    """Share set after some seconds at one temperature, by the exact Avrami step [frac].

    Above its rest the share melts back, with REMELT_S as time constant.
    Args:
        share: set at the start, above 0
        temp_degc: temperature
        seconds: length of the step
        k: Setting.kinetics()
    Source: avrami-1939, assumption
    """
    after: float = _after(share, rest_share_frac(temp_degc, k[0], k[1], k[2]), temp_degc, seconds, k)[0]
    return after


@njit(cache=True, error_model="numpy")
def set_in_own_heat(
    share: float, temp_degc: float, seconds: float, warms_k: float, k: tuple[float, ...]
) -> tuple[float, float]:
    """Share and temperature after a step in which the fat is warmed by its own setting [frac, degC].

    Solves T = T0 + warms_k (X(T) - X0) for the T of the step by Newton's method within a bracket, so no step is
    too long and no heat is lost.
    Args:
        share, temp_degc: before
        seconds: length of the step
        warms_k: latent heat / heat capacity [K]
        k: Setting.kinetics()
    Source: avrami-1939, patankar-1980
    """
    rest = rest_share_frac(temp_degc, k[0], k[1], k[2])
    if abs(rest - share) < SMALL_SHARE:
        return share, temp_degc
    after, slope = _after(share, rest, temp_degc, seconds, k)
    rise = warms_k * (after - share)
    if rise == 0.0:
        return share, temp_degc
    # what sets warms itself, what melts cools: never past what it would at the temperature before
    low, high = min(temp_degc, temp_degc + rise), max(temp_degc, temp_degc + rise)
    t, step, before = temp_degc, rise / (1.0 - warms_k * slope), math.inf
    for _ in range(60):
        if not low < t + step < high or abs(step) > 0.5 * before:
            step = 0.5 * (low + high) - t
        t, before = t + step, abs(step)
        if abs(step) < SOLVED_K:
            break
        after, slope = _after(share, rest_share_frac(t, k[0], k[1], k[2]), t, seconds, k)
        off = t - temp_degc - warms_k * (after - share)
        if off > 0.0:
            high = t
        else:
            low = t
        step = -off / (1.0 - warms_k * slope)
    return share + (t - temp_degc) / warms_k, t


@njit(cache=True)
def _along(times, temps, share, k):  # type: ignore[no-untyped-def]
    out = np.empty(times.size)
    out[0] = share
    for i in range(1, times.size):
        middle = 0.5 * (temps[i] + temps[i - 1])
        out[i] = set_after_frac(out[i - 1], middle, times[i] - times[i - 1], k)
    return out


def set_along_frac(
    times_s: NDArray[np.float64], temps_degc: NDArray[np.float64], setting: Setting
) -> NDArray[np.float64]:
    """Share set along a temperature history [frac].

    Args:
        times_s: rising
        temps_degc: at those times
        setting: of the material
    Source: avrami-1939
    """
    share: NDArray[np.float64] = _along(times_s, temps_degc, setting.start_frac, setting.kinetics())
    return share


@lru_cache(maxsize=64)
def setting_of(melt: Material, half_factor: float = 1.0) -> Setting:
    """A material's setting, its half-time times a factor [SI].

    Args:
        melt: with the properties of a fat
        half_factor: on the half-time, above zero
    Source: definition
    """
    v = melt.value
    return Setting(
        v("melts_at"),
        v("melting_width"),
        v("sets_at_most"),
        v("avrami_exponent"),
        half_factor * v("half_time"),
        v("half_time_at"),
        v("half_time_slope"),
        v("latent_fat"),
        v("set_at_start"),
    )
