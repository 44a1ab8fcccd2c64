"""How long a melt that was made before takes until it may be poured again."""

from dataclasses import replace

from umber_pebble.core.heat.hob import LEAST_RISE_K, Heating, hob_time_s
from umber_pebble.core.heat.melting import Melting
from umber_pebble.core.melts.bursts import Bowl, again_s
from umber_pebble.core.plan.cooks import PotCook
from umber_pebble.core.plan.problem import PlanInput
from umber_pebble.core.spread import Spread


def warmed_s(heating: Heating | Melting | Bowl, hob: Spread, close_degc: float, stir_s: float) -> float:
    """How long a melt that is still fluid is warmed [s]: of wafers in a microwave a burst and a stir, on a ring from where it is too
    thick to pour.

    Args:
        heating, hob: how it was heated first, and how long that took [s]
        close_degc: where it is too thick to pour
        stir_s: the kitchen's own
    Source: common-practice, incropera-2007
    """
    match heating:
        case Bowl():
            return again_s(heating) + stir_s
        case Heating():
            start = min(close_degc, heating.cook_degc - LEAST_RISE_K)
            return hob_time_s(replace(heating, water_kg=0.0, crystalline=False, start_degc=start)).likely
        case Melting():
            return hob.likely


def warms_s(plan: PlanInput, cook: PotCook, stood_s: float) -> float:
    """How long a cook takes until it may be poured again, when it has stood off the heat for so long [s].

    Args:
        plan, cook: of the run
        stood_s: since it came off the heat
    Source: common-practice, incropera-2007
    """
    window = cook.window
    fluid = stood_s <= window.closes.likely
    warmed = warmed_s(cook.heating, cook.hob, window.close_degc.likely, plan.paces.stir_s)
    return (warmed if fluid else cook.hob.likely) + window.opens.likely
