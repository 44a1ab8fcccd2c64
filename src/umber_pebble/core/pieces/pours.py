"""How warm a melt is poured where no vessel is known yet."""

from umber_pebble.core.glass.viscosity import temperature_at_log_viscosity_degc, tg_spread_degc
from umber_pebble.core.materials.load import Material
from umber_pebble.core.spread import Spread


def coolest_degc(melt: Material) -> float:
    """The coolest it may be poured [degC]. Source: common-practice, williams-landel-ferry-1955"""
    if melt.flags.get("fat", False):
        return melt.value("melts_at")
    tg = tg_spread_degc(melt, melt.spread("water_dry_melt"))
    return temperature_at_log_viscosity_degc(melt.value("log_pour_close"), tg.likely)


def poured_at(melt: Material) -> tuple[Spread, Spread | None]:
    """A couverture where it works, others anywhere from the closing of their window up [degC]; and a sugar's glass transition.

    Source: common-practice, williams-landel-ferry-1955
    """
    fat = melt.flags.get("fat", False)
    tg = None if fat else tg_spread_degc(melt, melt.spread("water_dry_melt"))
    if "work_at" in melt.properties:
        return melt.spread("work_at"), tg
    closes, hottest = coolest_degc(melt), melt.value("pour_below" if fat else "cook_to")
    return Spread(closes, (closes + hottest) / 2, hottest), tg
