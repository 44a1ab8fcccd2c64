"""The body of revolution that cools like a cavity's cast."""

import math
from functools import lru_cache

import numpy as np

from umber_pebble.core.heat.body import Revolved
from umber_pebble.core.moulds.cavity import Cavity
from umber_pebble.core.moulds.outline import polygon

LEVELS = 24
LEAST_M = 1e-5


@lru_cache(maxsize=256)
def body_of(cavity: Cavity, level_m: float) -> Revolved:
    """The body with a cast's area at every height, drawn in until its edge cools as much of it as the outline's edge does.

    A square, a heart or a star has more edge for its area than a disc: it cools over its edge as a disc of the radius
    2 area / edge does.
    Args:
        cavity: the cavity
        level_m: its fill level, above the floor [m]
    Raises: OutOfRange: level outside the cavity.
    Source: geometry, assumption
    """
    rim = polygon(cavity.shape.rim())
    reach = min(2 * math.sqrt(math.pi * rim.area) / rim.length, 1.0)
    points = [(0.0, 0.0)]
    # closer together at the floor, where it may be round
    for z in level_m * (1 - np.cos(np.linspace(0.0, math.pi / 2, LEVELS))):
        wide = reach * math.sqrt(max(cavity.shape.area_m2(min(float(z), level_m)), 0.0) / math.pi)
        r = max(wide, points[-1][0])
        if r > points[-1][0] + LEAST_M or z > points[-1][1] + LEAST_M:
            points.append((r, float(z)))
    return Revolved(tuple(points))
