"""Slack where it is wanted: windows that would be lost too often are planned as if they closed sooner."""

import math
from collections.abc import Callable
from dataclasses import replace

import numpy as np

from umber_pebble.core.plan.day.chances import (
    SAFE_FRAC,
    Chances,
    Draws,
    chances,
    each_slip,
    kept_frac,
    slipped,
    uncertain,
    windows,
)
from umber_pebble.core.plan.day.model import Weights
from umber_pebble.core.plan.day.paces import OFF_FRAC
from umber_pebble.core.plan.day.problem import Day, Timetable
from umber_pebble.core.plan.day.search import USUAL, at_once

TRIES = 6
WARMED_S = 60
"""What is easily lost and may be warmed again counts as so much of the end [s]. Source: assumption"""
Paces = Callable[[int], Draws]


def with_slack(day: Day, first: Timetable, paces: Paces, weights: Weights = USUAL) -> Timetable:
    """A timetable at once whose windows are safe, as far as they have room for it; of several tries the one of whose windows the fewest
    are easily lost, and then ends soonest.

    Args:
        day, first: what is asked, and the timetable to begin with
        paces: standard normal draws for so many times of hands
        weights: by which timetables are chosen
    Raises: OutOfRange: no timetable is found.
    Source: definition
    """
    tight, table, tries = day, first, list[tuple[Timetable, Chances]]()
    for _ in range(TRIES):
        found = chances(day, table, paces(uncertain(day, table)), OFF_FRAC)
        tries.append((table, found))
        closer = _tightened(tight, found)
        if closer == tight:
            break
        tight = closer
        table = at_once(tight, weights)
    return min(tries, key=lambda one: _loses(day, weights, *one))[0]


def _loses(day: Day, weights: Weights, table: Timetable, found: Chances) -> tuple[int, int]:
    """What is bad about a timetable, the worst first: windows that cost pieces when they are lost; how long it takes, with what is
    warmed again instead."""
    lost = [of for of in windows(day, found, slipped(day, table, each_slip(day))) if not of.safe]
    costly = sum(window.costly for window in lost)
    return costly, weights.of(day, table) + WARMED_S * (len(lost) - costly)


def _tightened(tight: Day, found: Chances) -> Day:
    """Windows that are lost too often, closed sooner by what they were late on all but the worst days."""
    lags, draws = list(tight.lags), list(tight.draws)
    for n, late in found.lags_late_s.items():
        most = lags[n].most_s
        if most is not None and kept_frac(late) < SAFE_FRAC:
            lags[n] = replace(lags[n], most_s=max(most - _over_s(late), lags[n].least_s))
    for d, late in found.draws_late_s.items():
        if kept_frac(late) < SAFE_FRAC:
            least = draws[d].opens_s + tight.tasks[draws[d].task].lasts_s
            draws[d] = replace(draws[d], closes_s=max(draws[d].closes_s - _over_s(late), least))
    return replace(tight, lags=tuple(lags), draws=tuple(draws))


def _over_s(late: Draws) -> int:
    return max(math.ceil(float(np.quantile(late, SAFE_FRAC))), 1)
