"""How far hands are off their pace, from day to day and from one thing to the next."""

from functools import lru_cache

import numpy as np

from umber_pebble.core.plan.day.chances import Draws

OFF_FRAC = 0.15
"""The deviation of the logarithm of how long a thing takes hands, against how long it is planned [frac]. Source: assumption"""
OF_THE_DAY_FRAC = 0.5
"""How much of its variance a whole day has in common: a slow day is slow in all that is done [frac]. Source: assumption"""
DAYS = 4000
SEED = 11
KEPT = 8


@lru_cache(KEPT)
def off_pace(rows: int) -> Draws:
    """Standard normal draws [thing, day] of which those of one day go together, the same each time.

    Args:
        rows: how many things [count]
    Source: assumption
    """
    rng = np.random.default_rng(SEED)
    own, days = rng.standard_normal((rows, DAYS)), rng.standard_normal((1, DAYS))
    return np.asarray(np.sqrt(1 - OF_THE_DAY_FRAC) * own + np.sqrt(OF_THE_DAY_FRAC) * days, dtype=np.float32)
