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
# a step that warms the fat less than this is not worth solving for
SMALL_K = 0.1
SMALL_SHARE = 1e-4
SOLVED_K = 2e-3

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
    melts, width, most, n, rate0, slope = k
    rest = rest_share_frac(temp_degc, melts, width, most)
    if share >= rest:
        return rest + (share - rest) * math.exp(-seconds / REMELT_S)
    under = melts - temp_degc
    if under <= NEAREST_K:
        return share
    done = (-math.log(1.0 - share / rest)) ** (1.0 / n)
    return rest * (1.0 - math.exp(-((done + rate0 * math.exp(-slope / under) * seconds) ** n)))


@njit(cache=True)
def set_in_own_heat(
    share: float, temp_degc: float, seconds: float, warms_k: float, k: tuple[float, ...]
) -> tuple[float, float]:
    """Share and temperature after a step in which the fat is warmed by its own setting [frac, degC].

    Solves T = T0 + warms_k (X(T) - X0) for the T of the step, so no step is too long and no heat is lost.
    Args:
        share, temp_degc: before
        seconds: length of the step
        warms_k: latent heat / heat capacity [K]
        k: Setting.kinetics()
    Source: avrami-1939, patankar-1980
    """
    if abs(rest_share_frac(temp_degc, k[0], k[1], k[2]) - share) < SMALL_SHARE:
        return share, temp_degc
    first = set_after_frac(share, temp_degc, seconds, k)
    a, b = temp_degc, temp_degc + warms_k * (first - share)
    if abs(b - a) < SMALL_K:
        return first, b
    fa = -(b - a)
    fb = b - temp_degc - warms_k * (set_after_frac(share, b, seconds, k) - share)
    t = b
    for _ in range(60):
        t = b - fb * (b - a) / (fb - fa) if fb != fa else 0.5 * (a + b)
        f = t - temp_degc - warms_k * (set_after_frac(share, t, seconds, k) - share)
        if abs(f) < SOLVED_K or abs(b - a) < 1e-7:
            break
        if f * fb < 0.0:
            a, fa = b, fb
        else:
            fa *= 0.5
        b, fb = t, f
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
