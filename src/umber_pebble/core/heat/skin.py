"""The skin that sets on a mould's wall while the mould stands full."""

from dataclasses import replace
from functools import lru_cache

import numpy as np

from umber_pebble.core.errors import OutOfRange
from umber_pebble.core.heat.casting import Casting
from umber_pebble.core.heat.conduction import Array, History
from umber_pebble.core.heat.piece import Grid, base, run_all
from umber_pebble.core.spread import Spread

FINE = Grid(40, 4, 5, 8, 0.5, 1.03)
SLOW_AND_FAST = ("low", "likely", "high")


class Skin:
    """How thick a skin has set on the wall over time, of a fat [m, s]."""

    def __init__(self, casting: Casting) -> None:
        """Reckons the casting three times: with a fat that sets fast, likely, slowly.

        Raises: OutOfRange: a sugar, which has no skin that stays when it is tipped out.
        """
        if casting.tg is not None:
            raise OutOfRange(
                "a shell is tipped out of fat: sugar is spread or turned", path="melt", got=casting.melt.name
            )
        half, likely = casting.melt.spread("half_time"), base(casting)
        cases = [replace(likely, half_factor=getattr(half, end) / half.likely) for end in SLOW_AND_FAST]
        self._runs = [
            _thickness(run_all([case], FINE, kept=True).fields[0], casting, case.depth_m) for case in cases
        ]

    def at(self, seconds: float) -> Spread:
        """Thickness after standing so long [m]. Source: avrami-1939, patankar-1980"""
        fast, likely, slow = (float(np.interp(seconds, times, skin)) for times, skin in self._runs)
        return Spread(min(slow, likely), likely, max(fast, likely))

    def until(self, thick_m: float) -> float | None:
        """How long it stands until the likely skin is so thick [s]; None if it never is. Source: avrami-1939, patankar-1980"""
        times, skin = self._runs[1]
        reached = np.flatnonzero(skin >= thick_m)
        return float(times[reached[0]]) if reached.size else None


@lru_cache(maxsize=32)
def skin_of(casting: Casting) -> Skin:
    """The skin of a casting; the same is reckoned once [m, s].

    Raises: as the skin itself.
    Source: avrami-1939, patankar-1980
    """
    return Skin(casting)


def _thickness(field: History, casting: Casting, depth_m: float) -> tuple[Array, Array]:
    """From the wall inwards, how far the melt no longer runs: the depth at which just so much of it has set."""
    stays = casting.melt.value("set_thickens")
    share = field.set_of_layer(0)[:, ::-1]
    width = depth_m / share.shape[1]
    still = np.cumprod(share >= stays, axis=1).sum(axis=1)
    skin = still * width
    for i, n in enumerate(still):
        if 0 < n < share.shape[1]:
            inner, outer = share[i, n], share[i, n - 1]
            skin[i] += width * ((outer - stays) / (outer - inner) - 0.5)
    return field.times_s, np.maximum.accumulate(skin)
