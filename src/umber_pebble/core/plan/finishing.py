"""When a piece that comes out of the cold may be dusted or painted."""

import math

from umber_pebble.core.constants import SEA_LEVEL_PA
from umber_pebble.core.heat.convection import h_radiation_w_m2k
from umber_pebble.core.heat.sweat import EMISSIVITY, sweat
from umber_pebble.core.humidity.evaporate import drying
from umber_pebble.core.materials.load import Material, material
from umber_pebble.core.spread import Spread, exact


def _as_set(melt: Material, name: str) -> float:
    """Of a melt that has set; a glass is as it was poured."""
    known = next(of for of in (f"{name}_set", f"{name}_glass", f"{name}_melt") if melt.has(of))
    return melt.value(known)


def rests_s(melt: Material, thick_m: float, from_degc: float, room_degc: float, humidity_frac: float) -> Spread:
    """How long a piece out of the cold is left until it no longer sweats and is near the room [s]; none where it is not cold.

    Args:
        melt: that it is of
        thick_m: of it, above zero
        from_degc: as warm as it comes out
        room_degc, humidity_frac: of the room
    Raises: OutOfRange: a room outside.
    Source: incropera-2007, common-practice
    """
    near = material("kitchen", "rest", "finish").spread("near")
    if room_degc - from_degc <= near.low:
        return exact(0.0)
    density, cp = (_as_set(melt, name) for name in ("density", "cp"))
    wet = sweat(thick_m, density, cp, from_degc, room_degc, humidity_frac, SEA_LEVEL_PA).dry_s or 0.0
    middle = (from_degc + room_degc) / 2
    takes = drying("still") + h_radiation_w_m2k(middle, room_degc, EMISSIVITY)
    pace = density * cp * thick_m / 2 / takes
    low, likely, high = (
        max(wet, pace * math.log((room_degc - from_degc) / max(k, 0.5)))
        for k in (near.high, near.likely, near.low)
    )
    return Spread(low, likely, high)
