"""How thin a piece may be and still leave its mould whole."""

import math

from umber_pebble.core.errors import require_range
from umber_pebble.core.families.known import family_of
from umber_pebble.core.materials.load import Material, material
from umber_pebble.core.spread import Spread, combine

PLATE = 0.31
"""Greatest bending stress of a square plate on its edges under an even pressure: 0.31 p L^2 / t^2."""


def least_thickness_m(melt: Material, span_m: float, mould: Material) -> Spread:
    """The least thickness that survives leaving the mould [m]: a plate of that span under what pushes or pulls it out.

    Args:
        melt: a sugar or a fat
        span_m: the shorter way across, 1 mm to 1 m
        mould: silicone is pushed from behind, a thin mould gives, out of a stiff one it is tapped
    Raises: OutOfRange: span_m outside.
    Source: timoshenko-woinowsky-1959, assumption
    """
    require_range("span_m", span_m, 0.001, 1.0)
    rows = family_of(melt).rows
    usual, load = material("kitchen", "usual", "leaving"), material("kitchen", rows, "leaving").spread("load")
    of = mould.flags
    share = 1.0 if of.get("bends", False) else usual.value("gives" if of.get("gives", False) else "stiff")
    bends, safety = material("kitchen", rows, "strength").spread("bends"), usual.value("safety")

    def least(pressure: float, bears: float) -> float:
        return span_m * math.sqrt(PLATE * share * pressure * safety / bears)

    return combine(
        least(load.likely, bends.likely),
        [
            [least(load.low, bends.likely), least(load.high, bends.likely)],
            [least(load.likely, bends.high), least(load.likely, bends.low)],
        ],
    )
