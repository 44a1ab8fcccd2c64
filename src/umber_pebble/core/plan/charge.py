"""What a vessel is charged with: the melt that stays in it, and the part that is kept back as seed."""

import math
from collections.abc import Sequence
from dataclasses import replace

from umber_pebble.core.constants import GRAVITY_M_S2
from umber_pebble.core.heat.times import falls_below_s
from umber_pebble.core.heat.vessel import HORIZON_S, PotCase, cooling_curve_degc, curve_times_s, varied_cases
from umber_pebble.core.materials.load import material
from umber_pebble.core.melts.dip import bath_kg
from umber_pebble.core.plan.problem import Line, SugarCook, Temper, Way
from umber_pebble.core.spread import Spread, combine
from umber_pebble.core.temper.schools import Tempering, steps
from umber_pebble.core.temper.seed import Bowl as BowlOf
from umber_pebble.core.temper.seed import plan_seed

LEAST_MELT_KG = 0.01


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


def bath_left_kg(way: Way, lines: Sequence[Line]) -> float:
    """What must stay in a vessel so that the last piece is still covered when it is dipped, the vessel tilted [kg].

    Args:
        way: of the melt
        lines: that are made of it
    Raises: OutOfRange: the vessel is narrower than what is dipped.
    Source: geometry
    """
    density, wide = way.melt.value("density_melt"), way.pot.diameter_m
    return max((bath_kg(density, wide, *line.dip)[1] for line in lines if line.dip), default=0.0)


PIPED = {"detail", "drizzle", "dollop", "join"}


def bags_kg(lines: Sequence[Line]) -> float:
    """Melt that stays in the bags these lines are piped from, a bag each [kg]. Source: from-memory"""
    return sum(line.kind in PIPED for line in lines) * material("kitchen", "usual", "bag").value("keeps")


def holds_kg(way: Way, wet: bool) -> float:
    """What a vessel holds of a melt, as full as it may be [kg].

    Args:
        way: of the melt
        wet: cooked with water
    Source: common-practice
    """
    fullest = material("kitchen", "sugar" if isinstance(way.by, SugarCook) else "fat", "fullest").value(
        "of_height"
    )
    room = way.pot.height_m * fullest * math.pi * way.pot.diameter_m**2 / 4
    return room * way.melt.value("density_melt") / (1 + (way.melt.value("water_added") if wet else 0.0))


def tempered_charge(way: Way, by: Temper, case: PotCase, hob: Spread) -> tuple[Tempering, float, Spread]:
    """How a charge is tempered, what of it is kept back as seed [kg], and the time with that [s].

    Args:
        way, by: how it is melted and tempered
        case: the charge in its vessel, seed with it
        hob: until it is melted [s]
    Raises: OutOfRange: seed too warm, or a weight outside the balance.
    Source: incropera-2007, common-practice
    """
    wall, charge_kg = way.pot.metal, case.melt_kg
    bowl = BowlOf(way.pot.mass_kg, wall.value("cp"), material("kitchen", "usual", "seed").value("bowl_follows"))
    whole = Tempering(way.melt, by.school, charge_kg, way.end_degc, by.cold_degc, bowl)
    seed = 0.0
    if by.school == "seed":
        # seed and melt together are the charge, and the seed for a melt is a straight line: some for it, some for the bowl
        all_, half = (
            plan_seed(replace(whole, melt_kg=m).seeding).seed_kg.likely for m in (charge_kg, charge_kg / 2)
        )
        each = 2 * (all_ - half) / charge_kg
        seed = min(all_ / (1 + each), charge_kg - LEAST_MELT_KG)
        whole = replace(whole, melt_kg=max(charge_kg - seed, LEAST_MELT_KG))
    if by.school == "none":
        return whole, seed, hob
    stirs = material("kitchen", "stirring", "seed").spread("takes")
    smear, cools = material("kitchen", "usual", "smear").spread("sets"), _cools_s(whole, case, way.end_degc)
    parts = (hob, cools, stirs, smear)
    return whole, seed, Spread(*(sum(getattr(p, end) for p in parts) for end in ("low", "likely", "high")))


def _cools_s(t: Tempering, case: PotCase, from_degc: float) -> Spread:
    """How long it cools, stirred, to where its school's next step begins; nothing for one that begins hot [s]."""
    after_melting = steps(t)[1]
    if after_melting.act != "cool":
        return Spread(0.0, 0.0, 0.0)

    def falls_s(one: PotCase) -> float:
        return min(
            falls_below_s(curve_times_s(), cooling_curve_degc(one, from_degc), after_melting.to_degc), HORIZON_S
        )

    return combine(falls_s(case), [[falls_s(one) for one in pair] for pair in varied_cases(case)])
