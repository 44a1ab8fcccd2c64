"""A charge that is tempered: what of it is kept back as seed, and how long it takes."""

from dataclasses import dataclass, replace

from umber_pebble.core.heat.times import falls_below_s
from umber_pebble.core.heat.vessel import HORIZON_S, Pot, PotCase, cooling_curve_degc, curve_times_s, varied_cases
from umber_pebble.core.materials.load import material
from umber_pebble.core.spread import Spread, combine
from umber_pebble.core.temper.schools import Tempering, steps
from umber_pebble.core.temper.seed import Bowl as BowlOf
from umber_pebble.core.temper.seed import plan_seed

LEAST_MELT_KG = 0.01


@dataclass(frozen=True, slots=True)
class Temper:
    """How a couverture is tempered: by which school, and how warm seed, slab or cold water is [degC]."""

    school: str
    cold_degc: float


def tempered_charge(
    pot: Pot, by: Temper, case: PotCase, melted_degc: float, hob: Spread
) -> tuple[Tempering, float, Spread]:
    """How a charge is tempered, what of it is kept back as seed [kg], and the time with that [s].

    Args:
        pot, by: its vessel, and how it is tempered
        case: the charge in its vessel, seed with it
        melted_degc: how warm it is melted
        hob: until it is melted [s]
    Raises: OutOfRange: seed too warm, or a weight outside the balance.
    Source: incropera-2007, common-practice
    """
    wall, charge_kg = pot.metal, case.melt_kg
    bowl = BowlOf(pot.mass_kg, wall.value("cp"), material("kitchen", "usual", "seed").value("bowl_follows"))
    whole = Tempering(case.melt, by.school, charge_kg, melted_degc, by.cold_degc, bowl)
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
    smear, cools = material("kitchen", "usual", "smear").spread("sets"), _cools_s(whole, case, melted_degc)
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
