"""Water left by a cook, and the temperature at which it would boil."""

import math
from functools import cache
from typing import TYPE_CHECKING

from umber_pebble.core.constants import SEA_LEVEL_PA
from umber_pebble.core.errors import require_range
from umber_pebble.core.materials.load import Material, table
from umber_pebble.core.spread import Spread

if TYPE_CHECKING:
    from scipy.interpolate import PchipInterpolator


@cache
def _curves() -> "tuple[PchipInterpolator, PchipInterpolator]":
    # imported where it is used: it takes longer to load than the rest of the app
    from scipy.interpolate import PchipInterpolator

    rows = table("boiling")
    solids, boils = rows["solids_frac"], rows["boils_degc"]
    return PchipInterpolator(boils, solids), PchipInterpolator(solids, boils)


def pressure_pa(altitude_m: float) -> float:
    """Pressure of the standard atmosphere [Pa].

    Args:
        altitude_m: -500 to 5000 [m]
    Raises: OutOfRange: altitude_m outside.
    Source: icao-1993
    """
    require_range("altitude_m", altitude_m, -500.0, 5000.0)
    return float(SEA_LEVEL_PA * (1.0 - 2.25577e-5 * altitude_m) ** 5.25588)


def boiling_drop_k(altitude_m: float) -> float:
    """How much lower water boils at this altitude, by Antoine's equation for water [K].

    Args:
        altitude_m: -500 to 5000 [m]
    Raises: OutOfRange: altitude_m outside.
    Source: antoine-1888
    """

    def boils_degc(pressure: float) -> float:
        return 1730.63 / (8.07131 - math.log10(pressure / 133.322)) - 233.426

    return boils_degc(SEA_LEVEL_PA) - boils_degc(pressure_pa(altitude_m))


def water_left_frac(cook_degc: float, altitude_m: float) -> float:
    """Water left in a syrup boiled to this temperature, by mass [frac].

    Args:
        cook_degc: final temperature, 112 to 175 [degC]; above the table's end its last value holds
        altitude_m: -500 to 5000 [m]
    Raises: OutOfRange: cook_degc outside.
    Source: sugar-boiling-table
    """
    require_range("cook_degc", cook_degc, 112.0, 185.0)
    at_sea = cook_degc + boiling_drop_k(altitude_m)
    top = table("boiling")["boils_degc"][-1]
    return float(1.0 - _curves()[0](min(at_sea, top)))


def boils_at_degc(water_frac: float, altitude_m: float) -> float:
    """Temperature at which a melt of this water content boils [degC].

    Drier than the table: the table's end, since no higher point is known.
    Args:
        water_frac: 0 to 0.2 by mass
        altitude_m: -500 to 5000 [m]
    Raises: OutOfRange: water_frac outside.
    Source: sugar-boiling-table
    """
    require_range("water_frac", water_frac, 0.0, 0.2)
    driest = table("boiling")["solids_frac"][-1]
    return float(_curves()[1](min(1.0 - water_frac, driest))) - boiling_drop_k(altitude_m)


def water_of_cook(material: Material, *, wet: bool, cook_degc: float, altitude_m: float) -> Spread:
    """Water left by this cook, with spread: from the table for a wet one; of a dry one the material's own at its usual cook, less
    or more with the temperature as in the table [frac].

    Raises: OutOfRange: cook_degc or altitude_m outside the table.
    Source: sugar-boiling-table, assumption
    """
    if not wet:
        usual, here = (water_left_frac(t, altitude_m) for t in (material.value("cook_to"), cook_degc))
        return material.spread("water_dry_melt").times(here / usual)
    return material.spread("water_cooked_factor").times(water_left_frac(cook_degc, altitude_m))
