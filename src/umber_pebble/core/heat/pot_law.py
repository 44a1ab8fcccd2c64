"""The closed cooling law of a pot in air, and its fit to readings with known surroundings."""

import math
from collections.abc import Callable, Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from umber_pebble.core.errors import require_range
from umber_pebble.core.spread import Z_95, Spread

Array = NDArray[np.float64]


def law_degc(start_degc: float, around_degc: float, k: float, time_s: float) -> float:
    """T = Te + [(T0-Te)^-1/4 + k t/4]^-4, the solution of dT/dt = -k (T-Te)^1.25 [degC].

    Args:
        start_degc: T0, above around_degc [degC]
        around_degc: Te [degC]
        k: loss constant, at least zero [K^-1/4 s^-1]
        time_s: at least zero [s]
    Raises: OutOfRange: start_degc not above around_degc.
    Source: incropera-2007, section 5.3 (natural convection, h ~ dT^1/4)
    """
    require_range("start_degc", start_degc, around_degc + 1e-9, 400.0)
    return float(around_degc + ((start_degc - around_degc) ** -0.25 + k * time_s / 4) ** -4.0)


def law_time_s(start_degc: float, around_degc: float, k: float, temp_degc: float) -> float:
    """Time at which the law reaches temp_degc [s].

    Args:
        start_degc, around_degc, k: as in law_degc
        temp_degc: above around_degc [degC]
    Raises: OutOfRange: temp_degc not above around_degc.
    Source: incropera-2007, section 5.3
    """
    require_range("temp_degc", temp_degc, around_degc + 1e-9, 400.0)
    return float(4.0 / k * ((temp_degc - around_degc) ** -0.25 - (start_degc - around_degc) ** -0.25))


@dataclass(frozen=True, slots=True)
class OwnTime:
    """A scale on which a cooling pot moves straight: `of` a temperature, `back` to one, slope of `of` in T."""

    of: Callable[[float], float]
    back: Callable[[float], float]
    slope: Callable[[float], float]


def law_clock(around_degc: float) -> OwnTime:
    """The straight scale of the closed law, y = 4 (T-Te)^-1/4, so that dy/dt = k [K^-1/4].

    Source: incropera-2007, section 5.3
    """
    return OwnTime(
        of=lambda t: float(4.0 * max(t - around_degc, 0.05) ** -0.25),
        back=lambda y: float(around_degc + (max(y, 1e-3) / 4.0) ** -4.0),
        slope=lambda t: -float(max(t - around_degc, 0.05) ** -1.25),
    )


def balance_clock(times_s: Array, temps_degc: Array) -> OwnTime:
    """The straight scale of a full balance: the time at which the reference curve passes T [s].

    For pots on cold stone or a hot ring, where the closed law does not hold.
    Args:
        times_s, temps_degc: the reference curve, falling or rising throughout
    Source: definition
    """
    turn = -1 if temps_degc[0] > temps_degc[-1] else 1
    t, y = temps_degc[::turn], times_s[::turn]

    def of(temp: float) -> float:
        return float(np.interp(temp, t, y))

    return OwnTime(
        of=of,
        back=lambda s: float(np.interp(s, times_s, temps_degc)),
        slope=lambda temp: of(temp + 0.5) - of(temp - 0.5),
    )


@dataclass(frozen=True, slots=True)
class StraightFit:
    """y = y0 + rate * t with the covariance of the two."""

    y0: float
    rate: float
    var_y0: float
    var_rate: float
    cov: float

    def at(self, time: float) -> float:
        return self.y0 + self.rate * time

    def sd_at(self, time: float) -> float:
        return math.sqrt(max(self.var_y0 + 2 * time * self.cov + time**2 * self.var_rate, 0.0))


def prior_line(y0: float, sd_y0: float, rate: Spread) -> StraightFit:
    """What is believed before any reading: a start and a rate with spread [scale of the clock].

    Args:
        y0, sd_y0: start on the clock's scale and its standard deviation
        rate: slope on that scale, 5 / 50 / 95 %
    Source: gelman-2013
    """
    sd_rate = max((rate.high - rate.low) / (2 * Z_95), 1e-9 * abs(rate.likely))
    return StraightFit(y0, rate.likely, sd_y0**2, sd_rate**2, 0.0)


def fit_line(
    prior: StraightFit, times: Sequence[float], values: Sequence[float], sds: Sequence[float]
) -> StraightFit:
    """The line after readings: linear regression with a normal prior, in closed form [scale of the clock].

    Args:
        prior: belief before
        times, values, sds: readings on the clock's scale with standard deviations above zero
    Source: gelman-2013, section 14.8
    """
    y0, rate, a, b, c = prior.y0, prior.rate, prior.var_y0, prior.cov, prior.var_rate
    for t, y, sd in zip(times, values, sds, strict=True):
        # the covariance times (1, t), and the gain
        u, v = a + b * t, b + c * t
        whole = u + v * t + sd**2
        off = y - y0 - rate * t
        y0, rate = y0 + u / whole * off, rate + v / whole * off
        a, b, c = a - u * u / whole, b - u * v / whole, c - v * v / whole
    return StraightFit(y0, rate, a, c, b)


def temperature_spread_degc(line: StraightFit, clock: OwnTime, time: float) -> Spread:
    """The band of the fitted curve at a time [degC].

    Args:
        line: fitted line
        clock: its scale
        time: on the line's time axis
    Source: gelman-2013
    """
    y, half = line.at(time), Z_95 * line.sd_at(time)
    low, mid, high = sorted((clock.back(y - half), clock.back(y), clock.back(y + half)))
    return Spread(low, mid, high)


def reach_spread_s(line: StraightFit, clock: OwnTime, temp_degc: float) -> Spread:
    """When the fitted curve passes a temperature, with its band [time axis of the line].

    The reading error in y at the crossing is carried to time by the local slope.
    Args:
        line: fitted line with rate above zero
        clock: its scale
        temp_degc: temperature looked for [degC]
    Source: gelman-2013
    """
    likely = (clock.of(temp_degc) - line.y0) / line.rate
    half = Z_95 * line.sd_at(likely) / line.rate
    return Spread(likely - half, likely, likely + half)
