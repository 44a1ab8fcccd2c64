"""The bath of a pour that dips: how it cools over a round, and when it is warmed."""

from umber_pebble.core.errors import OutOfRange
from umber_pebble.core.melts.dip import Dip, Dipped, dipped
from umber_pebble.core.melts.hold import Held
from umber_pebble.core.plan.cooks import PotCook, Round
from umber_pebble.core.plan.problem import PlanInput, PlanLine
from umber_pebble.core.spread import exact

ROUND_M3 = 0.52
"""Volume of a body against that of the cylinder round it: a ball's is pi / 6."""
LONGEST_IN_S = 3.0


def dip_of(plan: PlanInput, line: PlanLine, casts: int) -> Dip:
    """What one round of a line dips [SI].

    Args:
        plan, line: the line, with its dip and the body it lies on
        casts: of the round
    Raises: OutOfRange: the line dips nothing.
    Source: geometry
    """
    if line.dip is None:
        raise OutOfRange("this line dips nothing", path="line.kind", got=line.kind)
    depth, width = line.dip
    [(of, _, degc), *_] = line.under
    every = plan.pour_each_s(line)
    return Dip(
        casts,
        ROUND_M3 * of.value("density") * width**2 * depth,
        plan.room_degc if degc is None else degc,
        of.value("cp"),
        depth,
        width,
        line.cast.finished.value.likely,
        min(LONGEST_IN_S, every),
        every,
        of.value("conductivity"),
        of.value("density"),
    )


def bath_of(plan: PlanInput, cook: PotCook, r: Round) -> Dipped:
    """The bath over a round's dips, from the warmest it may be [degC, kg].

    Args:
        plan: the plan
        cook, r: a cook of fat and its round that dips
    Raises: OutOfRange: the vessel is narrower than the piece.
    Source: incropera-2007, avrami-1939
    """
    held = Held(cook.way.melt, cook.charge_kg, exact(cook.way.melt.value("dip_most")), "bowl", plan.room_degc)
    return dipped(held, dip_of(plan, plan.lines[r.line], r.casts), cook.way.pot.diameter_m)
