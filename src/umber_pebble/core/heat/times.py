"""Times to march through, and when a history passes a limit."""

import math

import numpy as np
from numba import njit

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
    below = temps_degc <= limit_degc
    i = int(below.argmax())
    if not below[i]:
        return math.inf
    if i == 0:
        return float(times_s[0])
    a, b = temps_degc[i - 1], temps_degc[i]
    return float(times_s[i - 1] + (times_s[i] - times_s[i - 1]) * (a - limit_degc) / (a - b))


@njit(cache=True)
def first_that_stays_s(times, above, least_s, share, out):  # type: ignore[no-untyped-def]
    """When each case first comes to zero and stays there for so long and for such a share of that time [s]; inf if never.

    Args:
        times: of all of them [s]
        above: what is left until it holds, zero and below once it does [case, time]
        least_s, share: how long it has to stay [s, 1]
        out: written to [case]
    Source: definition
    """
    for c in range(above.shape[0]):
        out[c] = np.inf
        again, first = np.inf, -1
        for i in range(times.size - 1, -1, -1):
            if above[c, i] > 0.0:
                again = times[i]
            elif again > times[i] + least_s + share * times[i]:
                first = i
        if first == 0:
            out[c] = times[0]
        elif first > 0:
            a, b = max(above[c, first - 1], 1e-9), above[c, first]
            out[c] = times[first - 1] + (times[first] - times[first - 1]) * a / (a - b)
