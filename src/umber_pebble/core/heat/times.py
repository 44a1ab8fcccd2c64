"""Times to march through, and when a history passes a limit."""

import math

import numpy as np

from umber_pebble.core.errors import require_range
from umber_pebble.core.heat.conduction import Array

FIRST_STEP_S = 0.25
STEP_GROWTH = 1.015


def growing_times_s(end_s: float, first_s: float = FIRST_STEP_S, growth: float = STEP_GROWTH) -> Array:
    """Times from zero to end_s with steps that grow by a constant factor [s].

    Args:
        end_s: above first_s, at most 10 days
        first_s, growth: first step above zero, factor above 1
    Raises: OutOfRange: end_s outside.
    Source: definition
    """
    require_range("end_s", end_s, first_s, 864_000.0)
    count = math.ceil(math.log1p(end_s * (growth - 1) / first_s) / math.log(growth))
    times: Array = first_s * (growth ** np.arange(count + 1, dtype=np.float64) - 1) / (growth - 1)
    times[-1] = end_s
    return times


def falls_below_s(times_s: Array, temps_degc: Array, limit_degc: float) -> float:
    """When a falling series first is at or below a limit, linear between points [s]; inf when it never is.

    Args:
        times_s, temps_degc: the series
        limit_degc: the limit [degC]
    Source: definition
    """
    return float(crossings_s(times_s, temps_degc[None, :], limit_degc)[0])


def crossings_s(times_s: Array, temps_degc: Array, limit_degc: float) -> Array:
    """The same for many series at once [case].

    Args:
        times_s: of all of them
        temps_degc: [case, time]
        limit_degc: the limit [degC]
    Source: definition
    """
    below = temps_degc <= limit_degc
    i, case = below.argmax(axis=1), np.arange(below.shape[0])
    before = np.maximum(i - 1, 0)
    a, b = temps_degc[case, before], temps_degc[case, i]
    t0, t1 = times_s[before], times_s[i]
    with np.errstate(invalid="ignore", divide="ignore"):
        at = np.where(i == 0, t1, t0 + (t1 - t0) * (a - limit_degc) / (a - b))
    out: Array = np.where(below[case, i], at, np.inf)
    return out
