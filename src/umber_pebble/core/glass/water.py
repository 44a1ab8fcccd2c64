"""Water left by a cook, and the temperature at which it would boil."""

import math
from functools import cache
from typing import TYPE_CHECKING

from umber_pebble.core.constants import SEA_LEVEL_PA, ZERO_CELSIUS_K
from umber_pebble.core.errors import require_range
from umber_pebble.core.materials.load import Material, table
from umber_pebble.core.spread import Spread

if TYPE_CHECKING:
    from scipy.interpolate import PchipInterpolator


_IF97 = (
    0.11670521452767e4,
    -0.72421316703206e6,
    -0.17073846940092e2,
    0.12020824702470e5,
    -0.32325550322333e7,
    0.14915108613530e2,
    -0.48232657361591e4,
    0.40511340542057e6,
    -0.23855557567849,
    0.65017534844798e3,
)


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


def saturation_pa(degc: float) -> float:
    """Pressure at which water boils at a temperature: the saturation line of IAPWS-IF97, region 4 [Pa].

    Args:
        degc: 0 to 300 [degC]
    Raises: OutOfRange: degc outside.
    Source: iapws-if97, eq. 30
    """
    t = require_range("degc", degc, 0.0, 300.0) + ZERO_CELSIUS_K
    n = _IF97
    theta = t + n[8] / (t - n[9])
    a = theta**2 + n[0] * theta + n[1]
    b = n[2] * theta**2 + n[3] * theta + n[4]
    c = n[5] * theta**2 + n[6] * theta + n[7]
    return float(1e6 * (2 * c / (-b + math.sqrt(b**2 - 4 * a * c))) ** 4)


def saturation_degc(pressure: float) -> float:
    """Temperature at which water boils under a pressure [degC].

    Args:
        pressure: 612 Pa to 8.5 MPa [Pa]
    Raises: OutOfRange: pressure outside.
    Source: iapws-if97, eq. 31
    """
    beta = (require_range("pressure", pressure, 612.0, 8.5e6) / 1e6) ** 0.25
    n = _IF97
    e = beta**2 + n[2] * beta + n[5]
    f = n[0] * beta**2 + n[3] * beta + n[6]
    g = n[1] * beta**2 + n[4] * beta + n[7]
    d = 2 * g / (-f - math.sqrt(f**2 - 4 * e * g))
    both = n[9] + d
    return float((both - math.sqrt(both**2 - 4 * (n[8] + n[9] * d))) / 2 - ZERO_CELSIUS_K)


def boils_here_degc(sea_degc: float, altitude_m: float) -> float:
    """Where a syrup boils at an altitude that boils at some temperature at sea level [degC].

    The same water activity under less pressure: the water over it needs as much less. A syrup loses more kelvins than water does.
    Args:
        sea_degc: where it boils at sea level
        altitude_m: -500 to 5000 [m]
    Raises: OutOfRange: outside.
    Source: iapws-if97, raoult-1887
    """
    return saturation_degc(saturation_pa(sea_degc) * pressure_pa(altitude_m) / SEA_LEVEL_PA)


def boils_at_sea_degc(here_degc: float, altitude_m: float) -> float:
    """The same the other way round [degC].

    Args:
        here_degc: where it boils at this altitude
        altitude_m: -500 to 5000 [m]
    Raises: OutOfRange: outside.
    Source: iapws-if97, raoult-1887
    """
    return saturation_degc(saturation_pa(here_degc) * SEA_LEVEL_PA / pressure_pa(altitude_m))


def boils_from_degc(altitude_m: float) -> float:
    """Where the boiling table begins at an altitude: a syrup with more water is still far from it [degC].

    Source: sugar-boiling-table, iapws-if97
    """
    return boils_here_degc(table("boiling")["boils_degc"][0], altitude_m)


def water_left_frac(cook_degc: float, altitude_m: float) -> float:
    """Water left in a syrup boiled to this temperature, by mass [frac].

    Args:
        cook_degc: final temperature, from where the table begins at this altitude to 185 [degC]; above the table's end its last
            value holds
        altitude_m: -500 to 5000 [m]
    Raises: OutOfRange: cook_degc outside.
    Source: sugar-boiling-table
    """
    require_range("cook_degc", cook_degc, boils_from_degc(altitude_m) - 1e-6, 185.0)
    at_sea = max(boils_at_sea_degc(cook_degc, altitude_m), table("boiling")["boils_degc"][0])
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
    return boils_here_degc(float(_curves()[1](min(1.0 - water_frac, driest))), altitude_m)


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
