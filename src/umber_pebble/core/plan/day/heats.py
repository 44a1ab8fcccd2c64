"""How a melt of a day is made, kept going, and made anew: on its heater, with hands at it or without."""

import math
from collections.abc import Sequence

from umber_pebble.core.families.known import family_of
from umber_pebble.core.heat.vessel import HORIZON_S
from umber_pebble.core.materials.load import material
from umber_pebble.core.melts.bursts import Bowl
from umber_pebble.core.plan.cooks import pour_of
from umber_pebble.core.plan.day.problem import Heating, Melt
from umber_pebble.core.plan.problem import MeltWay, PlanInput, PlanLine
from umber_pebble.core.plan.warming import warmed_s


def melt_of(plan: PlanInput, way: MeltWay, lines: Sequence[PlanLine], charge_kg: float, pours_mg: int) -> Melt:
    """A melt of a day [s, mg].

    Args:
        plan, way, lines: the order, how the melt is made, what is poured of it
        charge_kg: likely to be in its vessel
        pours_mg: that may be poured of one batch
    Raises: OutOfRange, MouldTooWeak: as its pour.
    Source: definition
    """
    # it is only warmed while any of its lines might still be poured
    pours = [pour_of(plan, way, charge_kg, [line]) for line in lines]
    _, window, charge, _ = max(pours, key=lambda pour: pour[1].closes.likely)
    water_kg = way.melt.value("water_added") * charge_kg if way.by.wet(way.melt, charge_kg) else 0.0
    heating, hob = way.by.heating(charge, water_kg)
    tempering, _, whole = way.by.tempering(way.pot, charge.case, hob)
    warmed = warmed_s(heating, hob, window.close_degc.likely, plan.paces.stir_s)
    if isinstance(heating, Bowl):
        first, warm = _by_bursts(hob.likely), _by_bursts(warmed)
    else:
        first, warm = _looked_at(plan, hob.likely), _looked_at(plan, warmed)
    if tempering is not None and whole.likely > hob.likely:
        first = _tempered(plan, first, whole.likely)
    kept = material("kitchen", family_of(way.melt).rows, "batch")
    return Melt(
        vessel=way.vessel_id,
        heater=way.by.heater_id,
        pours_mg=pours_mg,
        weigh_s=math.ceil(plan.paces.weigh_s),
        first=first,
        warm=warm,
        # what never sets where it is kept is only warmed, however long it has stood
        again=warm if way.kept and window.closes.likely >= HORIZON_S else first,
        fluid_s=math.floor(window.closes.likely),
        warmings=int(kept.value("warmings")),
        life_s=int(kept.value("life")),
        wash_s=int(kept.value("washed")),
        soaks_s=int(kept.value("soaks")),
    )


def _by_bursts(lasts_s: float) -> Heating:
    """Bursts and stirs in turn: somebody stands by all along."""
    lasts = math.ceil(lasts_s)
    return Heating(lasts, lasts, ((0, lasts),))


def _looked_at(plan: PlanInput, lasts_s: float) -> Heating:
    """Put on, looked at and stirred every so often, taken off."""
    lasts, stir = math.ceil(lasts_s), math.ceil(plan.paces.stir_s)
    every = int(material("kitchen", "usual", "look").value("every"))
    looks = [(at, at + stir) for at in range(0, max(lasts - 2 * stir, 1), every)]
    return Heating(lasts, lasts, (*looks, (max(lasts - stir, looks[-1][1]), max(lasts, looks[-1][1] + 1))))


def _tempered(plan: PlanInput, melted: Heating, whole_s: float) -> Heating:
    """Melted, left to cool, its seed stirred in, and its smear looked at when that has set."""
    lasts, stir = math.ceil(whole_s), math.ceil(plan.paces.stir_s)
    smear = math.ceil(material("kitchen", "usual", "smear").value("sets"))
    stirs = math.ceil(material("kitchen", "stirring", "seed").value("takes"))
    seeded = max(lasts - smear - stirs, melted.lasts_s)
    return Heating(lasts, melted.on_s, (*melted.hands, (seeded, seeded + stirs), (lasts - stir, lasts)))
