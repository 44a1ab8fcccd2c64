"""Sugars that set to a glass: isomalt, cooked sugar, caramel. One physics for the three; their values are data."""

from umber_pebble.core.families.family import Ends, Family
from umber_pebble.core.glass.viscosity import (
    log_viscosity_wlf_1955,
    temperature_at_log_viscosity_degc,
    tg_spread_degc,
)
from umber_pebble.core.materials.load import Material
from umber_pebble.core.spread import Spread, exact


class Glass(Family):
    """A sugar glass."""

    rows = "sugar"
    made = "cooked"
    dissolves = "water"
    parts_from = "oil"
    parting = "does not mix with sugar"
    skins = False
    sets_in_the_cold = False
    eased_off = True
    hot = True
    bends = True
    hygroscopic = True
    tempers = False
    ends = Ends("holds", "holds", "thread_closes")
    goes_to, short_by = "cook_to", "cook_below"

    def __init__(
        self, key: str, *, nibs: bool = False, wet: bool = False, staged: bool = False, shaken: bool = False
    ) -> None:
        self.key, self.nibs, self.wet, self.staged, self.shaken = key, nibs, wet, staged, shaken

    def coolest_degc(self, melt: Material) -> float:
        """Where it no longer spreads. Source: williams-landel-ferry-1955"""
        return temperature_at_log_viscosity_degc(melt.value("log_pour_close"), self._tg(melt).likely)

    def poured_at(self, melt: Material) -> tuple[Spread, Spread | None]:
        """Anywhere from there up to its cook. Source: common-practice, williams-landel-ferry-1955"""
        closes, hottest = self.coolest_degc(melt), melt.value("cook_to")
        return Spread(closes, (closes + hottest) / 2, hottest), self._tg(melt)

    def runs_off(self, melt: Material, degc: float | None) -> tuple[Spread, Spread]:
        """No yield value; half way between a fresh cook and the closing, in its logarithm. Source: williams-landel-ferry-1955"""
        hot, close = (
            log_viscosity_wlf_1955(melt.value("cook_to"), self._tg(melt).likely),
            melt.value("log_pour_close"),
        )
        ends = ((3 * hot + close) / 4, (hot + close) / 2, (hot + 3 * close) / 4)
        return exact(0.0), Spread(*(10**log for log in ends))

    def dipped_at(self, melt: Material, degc: float | None) -> float | None:
        """As it is poured. Source: common-practice"""
        return degc

    def stands_pa(self, melt: Material) -> Spread | None:
        """It has no yield value. Source: definition"""
        return None

    def softens_degc(self, melt: Material) -> float | None:
        """No filling is so hot. Source: common-practice"""
        return None

    def _tg(self, melt: Material) -> Spread:
        return tg_spread_degc(melt, melt.spread("water_dry_melt"))


ISOMALT, COOKED_SUGAR, CARAMEL = (
    Glass("isomalt", nibs=True, wet=True),
    Glass("cooked_sugar", wet=True, staged=True),
    Glass("caramel", shaken=True),
)
