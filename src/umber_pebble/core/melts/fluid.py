"""How fluid a wafer is, by tests anybody can do: how far a spoonful spreads on a plate, and what a spoon keeps."""

import math
from dataclasses import dataclass
from typing import Literal

from umber_pebble.core.constants import GRAVITY_M_S2
from umber_pebble.core.errors import require_range
from umber_pebble.core.materials.load import Material, material
from umber_pebble.core.spread import Spread

Feels = Literal["fluid", "usual", "stiff"]


@dataclass(frozen=True, slots=True)
class Fluidity:
    """A melt's yield value by a test [Pa], its usual one, and what that makes it."""

    yield_pa: Spread
    usual: Spread
    feels: Feels


def _usual() -> Material:
    return material("kitchen", "usual", "fluid")


def yield_of_spread_pa(kg: float, wide_m: float, density_kg_m3: float) -> Spread:
    """Yield value of a spoonful that has come to rest on a level plate [Pa]: 225 rho g V^2 / (128 pi^2 R^5).

    Args:
        kg: of it, 2 to 200 g
        wide_m: across, 10 mm to 0.4 m
        density_kg_m3: of the melt
    Raises: OutOfRange: outside.
    Source: roussel-coussot-2005
    """
    require_range("kg", kg, 0.002, 0.2)
    require_range("wide_m", wide_m, 0.01, 0.4)

    def tau(mass: float, wide: float) -> float:
        volume = mass / density_kg_m3
        return 225 * density_kg_m3 * GRAVITY_M_S2 * volume**2 / (128 * math.pi**2 * (wide / 2) ** 5)

    off = 1 + _usual().value("read")
    return Spread(tau(kg, wide_m * off), tau(kg, wide_m), tau(kg, wide_m / off))


def yield_of_spoon_pa(kept_kg: float, area_m2: float) -> Spread:
    """Yield value of what a dipped spoon, held upright until it no longer drips, keeps on both faces [Pa]: tau = g m / A.

    Args:
        kept_kg: what it weighs more than clean, 0.1 to 50 g
        area_m2: of both faces that were dipped
    Raises: OutOfRange: outside.
    Source: casson-1959
    """
    require_range("kept_kg", kept_kg, 1e-4, 0.05)
    require_range("area_m2", area_m2, 1e-4, 0.1)
    tau = kept_kg * GRAVITY_M_S2 / area_m2
    # it still drips a little when it is taken to have stopped, so this is the most it can be
    return _usual().spread("keeps").times(tau)


def fluidity(melt: Material, yield_pa: Spread) -> Fluidity:
    """What a test makes of a melt, against its table's own spread [Pa]. Source: assumption"""
    usual, apart = melt.spread("casson_yield"), _usual().value("apart")
    feels: Feels = (
        "fluid"
        if yield_pa.likely < usual.likely / apart
        else "stiff"
        if yield_pa.likely > usual.likely * apart
        else "usual"
    )
    return Fluidity(yield_pa, usual, feels)
