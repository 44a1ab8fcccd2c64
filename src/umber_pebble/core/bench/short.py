"""Running short in the middle of a pour: what can still be finished, how long the poured ones stay open, what to melt now."""

import math
from dataclasses import dataclass

from umber_pebble.core.bench.state import RunState
from umber_pebble.core.errors import OutOfRange, require_range
from umber_pebble.core.families.known import family_of
from umber_pebble.core.heat.windows import PieceWindows
from umber_pebble.core.plan.cooks import PotCook, Round, make_cook
from umber_pebble.core.plan.problem import PlanInput
from umber_pebble.core.spread import Spread


@dataclass(frozen=True, slots=True)
class Short:
    """A pour that runs short: cavities filled, that the rest of the bowl still fills, and that stay empty; one cavity's and
    what to melt [kg]; how long those poured last stay open, and how long a fresh melt takes [s]; shows: whether a
    join in a cavity left half full would show."""

    filled: int
    more: int
    empty: int
    each_kg: float
    melt_kg: float
    open_s: Spread
    makes_s: float
    shows: bool


def running_short(
    plan: PlanInput, cook: PotCook, number: int, state: RunState, windows: PieceWindows, filled: int, fills: int
) -> Short:
    """What to do when a bowl runs out in the middle of a round.

    Args:
        plan, cook, windows: of the round
        number: of the round, not poured yet
        state: of the run
        filled: cavities that are full
        fills: how many more what is left will fill, by eye
    Raises: OutOfRange: a round that is not being poured, or more cavities than it has.
    Source: avrami-1939, common-practice
    """
    target = state.rounds[number]
    if target.cook != cook.number or target.poured_s is not None:
        raise OutOfRange("this round is not being poured", path="round", got=number)
    require_range("filled", filled, target.filled, target.casts)
    line = plan.lines[target.line]
    each = line.cast.poured.value.likely
    require_range("fills", fills, 0, target.casts)
    more = min(fills, target.casts - filled)
    empty = target.casts - filled - more
    name = family_of(cook.way.melt).ends.runs_together
    open_s = windows.at[name] if name in windows.at else windows.at["unmould"]
    if empty == 0:
        return Short(filled, more, 0, each, 0.0, open_s, 0.0, False)
    again = make_cook(plan, cook.number, (Round(number, target.line, cook.number, empty, target.on),), 0.0)
    makes = plan.paces.weigh_s + again.hob.likely + again.window.opens.likely
    return Short(filled, more, empty, each, again.fresh_kg, open_s, makes, makes > open_s.low or math.isinf(makes))
