"""Fats that set by crystals: coating, which needs no temper, and couverture, which does."""

import math

from umber_pebble.core.constants import GAS_J_MOLK, ZERO_CELSIUS_K
from umber_pebble.core.errors import require_range
from umber_pebble.core.families.family import Ends, Family
from umber_pebble.core.materials.load import Material
from umber_pebble.core.spread import Spread

CASSON_AT_DEGC = 40.0
"""Where the tables' Casson constants hold."""


def thicker_by(melt: Material, degc: float) -> float:
    """Plastic viscosity of a molten fat at a temperature against that at CASSON_AT_DEGC [1], by its energy of flow.

    Args:
        melt: a fat
        degc: 15 to 60 [degC]
    Raises: OutOfRange: outside.
    Source: arrhenius-1889, assumption
    """
    require_range("degc", degc, 15.0, 60.0)
    per_k = 1 / (degc + ZERO_CELSIUS_K) - 1 / (CASSON_AT_DEGC + ZERO_CELSIUS_K)
    return math.exp(melt.value("casson_energy") / GAS_J_MOLK * per_k)


class Fat(Family):
    """A fat, as a maker sells it."""

    rows = "fat"
    dissolves = "oil"
    parts_from = "water"
    parting = "seizes a fat"
    nibs = False
    wet = False
    staged = False
    shaken = False
    skins = True
    sets_in_the_cold = True
    eased_off = False
    hot = False
    bends = False
    hygroscopic = False
    ends = Ends("touch", "still", "skin")
    goes_to, short_by = "melt_to", "melt_below"

    def __init__(self, key: str, *, tempers: bool) -> None:
        self.key, self.tempers = key, tempers
        self.made = "tempered" if tempers else "melted"

    def coolest_degc(self, melt: Material) -> float:
        """Where it would set. Source: common-practice"""
        return melt.value("melts_at")

    def poured_at(self, melt: Material) -> tuple[Spread, Spread | None]:
        """In temper where it is tempered, else from where it would set up to the hottest it is poured. Source: common-practice"""
        if self.tempers:
            return melt.spread("work_at"), None
        low, high = self.coolest_degc(melt), melt.value("pour_below")
        return Spread(low, (low + high) / 2, high), None

    def runs_off(self, melt: Material, degc: float | None) -> tuple[Spread, Spread]:
        """As Casson has it, thicker where it is colder. Source: casson-1959"""
        thicker = 1.0 if degc is None else thicker_by(melt, degc)
        return melt.spread("casson_yield"), melt.spread("casson_viscosity").times(thicker)

    def dipped_at(self, melt: Material, degc: float | None) -> float | None:
        """As warm as a bath may be. Source: common-practice"""
        return melt.value("dip_most") if degc is None else degc

    def stands_pa(self, melt: Material) -> Spread | None:
        """Source: casson-1959"""
        return melt.spread("casson_yield")

    def softens_degc(self, melt: Material) -> float | None:
        """Source: wille-lutton-1966"""
        return melt.value("melts_at")


COATING, COUVERTURE = Fat("coating", tempers=False), Fat("couverture", tempers=True)
