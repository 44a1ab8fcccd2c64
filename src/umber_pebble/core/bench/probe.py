"""Whether what a probe says may be believed."""

import itertools
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

LOWEST_DEGC, HIGHEST_DEGC = -30.0, 220.0
OLD_S = 10.0
# a slow probe takes this long to show what it was put into
SETTLES_S = 20.0
# melt in a pot never changes faster than this, a probe put in or taken out does
FASTEST_K_S = 12.0
# after a jump it is not believed until so many values have come without one
LATELY = 12
# a probe that shows the very same figure so often while it is warmer than its surroundings has stopped measuring
STUCK_VALUES = 30
STUCK_ABOVE_AIR_K = 8.0


ProbeState = Literal["ok", "waiting", "old", "out_of_range", "jumping", "settling", "stuck"]


@dataclass(frozen=True, slots=True)
class Value:
    """What a probe said: when it was heard, when that was on the run's clock [s], and the temperature [degC]."""

    heard_s: float
    at_s: float
    degc: float


def judged(values: Sequence[Value], now_s: float, put_in_s: float, air_degc: float) -> ProbeState:
    """What a probe's values amount to.

    Args:
        values: as they came, the newest last
        now_s: now, as heard_s [s]
        put_in_s: when it was put where it is, on the run's clock [s]
        air_degc: around it [degC]
    Source: assumption
    """
    if not values:
        return "waiting"
    last = values[-1]
    degc = last.degc
    if now_s - last.heard_s > OLD_S:
        return "old"
    if not LOWEST_DEGC <= degc <= HIGHEST_DEGC:
        return "out_of_range"
    for before, after in itertools.pairwise(values[-LATELY:]):
        if abs(after.degc - before.degc) > FASTEST_K_S * max(after.at_s - before.at_s, 1.0):
            return "jumping"
    if last.at_s - put_in_s < SETTLES_S:
        return "settling"
    same = [v.degc for v in values[-STUCK_VALUES:]]
    if len(same) == STUCK_VALUES and len(set(same)) == 1 and abs(degc - air_degc) > STUCK_ABOVE_AIR_K:
        return "stuck"
    return "ok"
