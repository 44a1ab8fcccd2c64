"""What a vessel is charged with: the melt that stays in it, and the part that is kept back as seed."""

import math
from collections.abc import Sequence

from umber_pebble.core.constants import GRAVITY_M_S2
from umber_pebble.core.families.known import family_of
from umber_pebble.core.heat.vessel import PotCase
from umber_pebble.core.materials.load import material
from umber_pebble.core.melts.dip import bath_kg
from umber_pebble.core.plan.problem import MeltWay, PlanLine
from umber_pebble.core.spread import Spread, combine


def residue_kg(case: PotCase, log_visc: float, factor: Spread) -> Spread:
    """Melt that stays on the pot after draining, by the film on a drained wall and floor [kg].

    Mean film 2/3 sqrt(visc L / (rho g t)) on the wetted wall (L its height) and the tipped floor (L its width).
    Args:
        case: the pot and its melt
        log_visc: log10 of the viscosity when it is emptied [log10 Pa s]
        factor: what this pot was seen to keep against this film
    Source: jeffreys-1930, assumption
    """
    density, drain = case.melt.value("density_melt"), case.melt.spread("drain")
    width, height = case.pot.diameter_m, min(case.depth_m, case.pot.height_m)

    def kept(seconds: float, f: float) -> float:
        film = [2 / 3 * math.sqrt(10**log_visc * x / (density * GRAVITY_M_S2 * seconds)) for x in (height, width)]
        film_m3 = film[0] * math.pi * width * height + min(film[1], height) * case.base_m2
        return min(f * density * film_m3, case.melt_kg)

    return combine(
        kept(drain.likely, factor.likely),
        [
            [kept(drain.low, factor.likely), kept(drain.high, factor.likely)],
            [kept(drain.likely, factor.low), kept(drain.likely, factor.high)],
        ],
    )


def bath_left_kg(way: MeltWay, lines: Sequence[PlanLine]) -> float:
    """What must stay in a vessel so that the last piece is still covered when it is dipped, the vessel tilted [kg].

    Args:
        way: of the melt
        lines: that are made of it
    Raises: OutOfRange: the vessel is narrower than what is dipped.
    Source: geometry
    """
    density, wide = way.melt.value("density_melt"), way.pot.diameter_m
    return max((bath_kg(density, wide, *line.dip)[1] for line in lines if line.dip), default=0.0)


PIPED = {"stripes", "lines", "detail", "drizzle", "dollop", "join"}


def bags_kg(lines: Sequence[PlanLine]) -> float:
    """Melt that stays in the bags these lines are piped from, a bag each, one for all of a sheet [kg]. Source: from-memory"""
    bags = {line.mould.mould_id if line.mould.shares else i for i, line in enumerate(lines) if line.kind in PIPED}
    return len(bags) * material("kitchen", "usual", "bag").value("keeps")


def holds_kg(way: MeltWay, wet: bool) -> float:
    """What a vessel holds of a melt, as full as it may be [kg].

    Args:
        way: of the melt
        wet: cooked with water
    Source: common-practice
    """
    fullest = material("kitchen", family_of(way.melt).rows, "fullest").value("of_height")
    room = way.pot.height_m * fullest * math.pi * way.pot.diameter_m**2 / 4
    return room * way.melt.value("density_melt") / (1 + (way.melt.value("water_added") if wet else 0.0))
