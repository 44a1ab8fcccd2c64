"""Vapour in room air: its pressure and dew point."""

import math

from umber_pebble.core.errors import require_range

MOLAR_MASS_RATIO = 0.62198
"""Of water to dry air."""
_A, _B_DEGC, _P0_PA = 17.625, 243.04, 610.94


def vapour_pressure_pa(temp_degc: float) -> float:
    """Saturation pressure of water vapour over water [Pa].

    Args:
        temp_degc: -40 to 50 [degC]
    Raises: OutOfRange: temp_degc outside.
    Source: magnus-alduchov-1996
    """
    t = require_range("temp_degc", temp_degc, -40.0, 50.0)
    return _P0_PA * math.exp(_A * t / (_B_DEGC + t))


def humidity_ratio(air_degc: float, humidity_frac: float, pressure_pa: float) -> float:
    """Water by mass of dry air [kg/kg].

    Args:
        air_degc: -40 to 50 [degC]
        humidity_frac: 0 to 1
        pressure_pa: of the air
    Raises: OutOfRange: air_degc outside.
    Source: magnus-alduchov-1996, incropera-2007
    """
    vapour = humidity_frac * vapour_pressure_pa(air_degc)
    return MOLAR_MASS_RATIO * vapour / (pressure_pa - vapour)


def dew_point_degc(air_degc: float, humidity_frac: float) -> float:
    """Temperature below which a surface sweats in this air [degC].

    Args:
        air_degc: -40 to 50 [degC]
        humidity_frac: 0.01 to 1
    Raises: OutOfRange: one of them outside.
    Source: magnus-alduchov-1996
    """
    require_range("humidity_frac", humidity_frac, 0.01, 1.0)
    x = math.log(humidity_frac * vapour_pressure_pa(air_degc) / _P0_PA)
    return _B_DEGC * x / (_A - x)
