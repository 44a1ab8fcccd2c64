"""A ball in a two-part mould: how often it is turned, and until when it stays in its mould."""

import math
from dataclasses import dataclass, replace

from umber_pebble.core.families.known import family_of
from umber_pebble.core.heat.windows import PieceWindows
from umber_pebble.core.materials.load import Material, material
from umber_pebble.core.spread import Spread


@dataclass(frozen=True, slots=True)
class Turns:
    """How a ball is turned: by hand all over for so long [s], then on a new side every so often [s], so many times, of which
    practice asks at least so many [count]; each takes so long [s], and may be so much sooner or later [s]; then it stays in its mould for so
    long at least [s]."""

    by_hand_s: float
    every_s: float
    count: int
    practised: int
    each_s: float
    off_s: float
    then_s: float

    def at_s(self, n: int) -> float:
        """When the n-th turn is due, the first being 1 [s from when it was clipped and turned by hand]. Source: common-practice"""
        return n * self.every_s

    @property
    def last_s(self) -> float:
        """When the last of them is due [s from when it was turned by hand]."""
        return self.at_s(self.count)


def turns_of(melt: Material, windows: PieceWindows) -> Turns:
    """How often a ball is turned: until nothing in its wall runs any more, but no less often than practice does.

    Args:
        melt: of it
        windows: of its wall
    Source: common-practice, avrami-1939
    """
    ball, held_until = material("kitchen", "usual", "ball"), family_of(melt).ends.held_until
    still = windows.at[held_until].likely
    every, least = ball.value("every"), int(ball.value("least"))
    needed = math.ceil(min(still, windows.horizon_s) / every)
    off = min(every - ball.spread("every").low, ball.spread("every").high - every)
    return Turns(
        ball.value("by_hand"), every, max(needed, least), least, ball.value("turn"), off, ball.value("then")
    )


def stays_in(melt: Material, windows: PieceWindows) -> PieceWindows:
    """A ball's windows where it leaves its mould no sooner than practice lets it: its turns, and a while more [s].

    Source: common-practice
    """
    turns, out = turns_of(melt, windows), windows.at["unmould"]
    least = turns.last_s + turns.then_s
    held = Spread(*(max(v, least) for v in (out.low, out.likely, out.high)))
    own = windows.by_material["unmould"]
    kept = Spread(*(max(v, least) for v in (own.low, own.likely, own.high)))
    return replace(windows, at=windows.at | {"unmould": held}, by_material=windows.by_material | {"unmould": kept})
