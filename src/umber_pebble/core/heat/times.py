"""Times to march through, and when a history passes a limit."""

import math

import numpy as np
from numba import njit

from umber_pebble.core.errors import require_range
from umber_pebble.core.heat.conduction import Array

FIRST_STEP_S = 0.25
STEP_GROWTH = 1.015
LEAST_STAY_S, STAYS = 5.0, 0.2
"""A state holds when it lasts so long, and for such a share of the time it took to come [s, 1]."""
TURNS_K = 10.0
"""Kelvins that weigh as much as a whole share set where two conditions are compared."""


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


@njit(cache=True, error_model="numpy", inline="always")
def _far(values, limits, rises, c, i):  # type: ignore[no-untyped-def]
    """How far a case still is from all its limits at once, zero and below once it is past them; the farthest counts."""
    far = -np.inf
    for q in range(len(values)):
        at, now = limits[q][c], values[q][c, i]
        far = max(far, at - now if rises[q] else (now - at) / TURNS_K)
    return far


@njit(cache=True, error_model="numpy")
def first_past_s(times, values, limits, rises):  # type: ignore[no-untyped-def]
    """When each case first is past several limits at once and stays so for a while [s, by case]; inf if never.

    Args:
        times: of all of them [s]
        values: a series for each limit [case, time]
        limits: by case, in each series' unit
        rises: whether a series rises to its limit
    Source: definition
    """
    cases = values[0].shape[0]
    out = np.full(cases, np.inf)
    for c in range(cases):
        again, first = np.inf, -1
        for i in range(times.size - 1, -1, -1):
            if _far(values, limits, rises, c, i) > 0.0:
                again = times[i]
            elif again > times[i] + LEAST_STAY_S + STAYS * times[i]:
                first = i
        if first == 0:
            out[c] = times[0]
        elif first > 0:
            a, b = max(_far(values, limits, rises, c, first - 1), 1e-9), _far(values, limits, rises, c, first)
            out[c] = times[first - 1] + (times[first] - times[first - 1]) * a / (a - b)
    return out
