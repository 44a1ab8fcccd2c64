"""Heat from a surface to the air: natural convection by published correlations, and radiation."""

import math

import numpy as np
from numba import njit

from umber_pebble.core.constants import GRAVITY_M_S2, SEA_LEVEL_PA, STEFAN_BOLTZMANN_W_M2K4, ZERO_CELSIUS_K

_G = GRAVITY_M_S2
_SIGMA = STEFAN_BOLTZMANN_W_M2K4
_ZERO = ZERO_CELSIUS_K
# a tray or the mould's cells: the length over which a stream's boundary layer starts anew
STREAM_LENGTH_M = 0.06


@njit(cache=True)
def air_properties(film_degc: float) -> tuple[float, float, float]:
    """Kinematic viscosity, conductivity and Prandtl number of air at sea level [m2/s, W/mK, 1].

    Args:
        film_degc: film temperature, -50 to 250 [degC]
    Source: sutherland-1893
    """
    t = film_degc + _ZERO
    warmer = t / 273.15
    risen = warmer * math.sqrt(warmer)
    mu = 1.716e-5 * risen * (273.15 + 110.4) / (t + 110.4)
    k = 0.02414 * risen * (273.15 + 194.0) / (t + 194.0)
    density = 101325.0 / (287.05 * t)
    return mu / density, k, 1006.0 * mu / k


def thin_air_factor(pressure_pa: float) -> float:
    """What less air leaves of a convection coefficient [1]: Gr goes as density squared, and h as its fourth root; a laminar stream's
    as the root of density.

    Args:
        pressure_pa: of the air, above zero
    Source: mcadams-1954, pohlhausen-1921
    """
    return math.sqrt(pressure_pa / SEA_LEVEL_PA)


@njit(cache=True)
def nusselt_plate_churchill_chu_1975(pr: float, gr: float) -> float:
    """Mean Nusselt number of a vertical plate, laminar and turbulent [1].

    Args:
        pr: Prandtl number
        gr: Grashof number on the height
    Source: churchill-chu-1975, eq. 9
    """
    ra = pr * gr
    nu: float = (0.825 + 0.387 * ra ** (1 / 6) / (1.0 + (0.492 / pr) ** (9 / 16)) ** (8 / 27)) ** 2
    return nu


@njit(cache=True)
def nusselt_up_mcadams_1954(pr: float, gr: float) -> float:
    """Mean Nusselt number of a hot plate facing up, length = area / perimeter [1].

    Args:
        pr: Prandtl number
        gr: Grashof number
    Source: mcadams-1954
    """
    ra = pr * gr
    nu: float = 0.54 * math.sqrt(math.sqrt(ra)) if ra <= 1e7 else 0.15 * np.cbrt(ra)
    return nu


@njit(cache=True)
def nusselt_down_mcadams_1954(pr: float, gr: float) -> float:
    """Mean Nusselt number of a hot plate facing down, length = area / perimeter [1].

    Args:
        pr: Prandtl number
        gr: Grashof number
    Source: mcadams-1954
    """
    nu: float = 0.27 * math.sqrt(math.sqrt(pr * gr))
    return nu


@njit(cache=True)
def nusselt_stream_pohlhausen_1921(pr: float, re: float) -> float:
    """Mean Nusselt number of a flat plate in a laminar stream along it [1].

    Args:
        pr: Prandtl number, above 0.6
        re: Reynolds number on its length, to 5e5
    Source: pohlhausen-1921
    """
    nu: float = 0.664 * math.sqrt(re) * np.cbrt(pr)
    return nu


@njit(cache=True)
def h_stream_w_m2k(surface_degc: float, air_degc: float, length_m: float, air_m_s: float) -> float:
    """Forced convection coefficient of a plate in a stream of air [W/m2K].

    Args:
        surface_degc, air_degc: temperatures [degC]
        length_m: along the stream [m]
        air_m_s: speed of the air, zero for none [m/s]
    Source: pohlhausen-1921
    """
    if air_m_s <= 0.0:
        return 0.0
    nu, k, pr = air_properties(0.5 * (surface_degc + air_degc))
    return nusselt_stream_pohlhausen_1921(pr, air_m_s * length_m / nu) * k / length_m


@njit(cache=True)
def h_convection_w_m2k(surface_degc: float, air_degc: float, length_m: float, facing: int) -> float:
    """Natural convection coefficient [W/m2K].

    Args:
        surface_degc, air_degc: temperatures [degC]
        length_m: height of a wall, or area / perimeter of a plate [m]
        facing: 0 vertical, 1 up, 2 down, for a surface warmer than the air; a colder plate swaps 1 and 2
    Source: churchill-chu-1975, mcadams-1954
    """
    difference = abs(surface_degc - air_degc)
    if difference < 1e-6:
        difference = 1e-6
    nu, k, pr = air_properties(0.5 * (surface_degc + air_degc))
    beta = 1.0 / (0.5 * (surface_degc + air_degc) + _ZERO)
    gr = _G * beta * difference * length_m**3 / nu**2
    if facing == 0:
        return nusselt_plate_churchill_chu_1975(pr, gr) * k / length_m
    upward = (facing == 1) == (surface_degc >= air_degc)
    if upward:
        return nusselt_up_mcadams_1954(pr, gr) * k / length_m
    return nusselt_down_mcadams_1954(pr, gr) * k / length_m


@njit(cache=True)
def h_radiation_w_m2k(surface_degc: float, around_degc: float, emissivity: float) -> float:
    """Radiation as a coefficient on the temperature difference [W/m2K].

    Args:
        surface_degc, around_degc: temperatures [degC]
        emissivity: 0 to 1
    Source: incropera-2007, eq. 1.9
    """
    ts, te = surface_degc + _ZERO, around_degc + _ZERO
    return emissivity * _SIGMA * (ts + te) * (ts * ts + te * te)


@njit(cache=True)
def fin_loss_w_k(
    h_w_m2k: float, conductivity_w_mk: float, thickness_m: float, width_m: float, height_m: float
) -> float:
    """Heat lost by a dry pot wall above the melt, per kelvin at its foot; the fin's tip insulated [W/K].

    Args:
        h_w_m2k: both faces of the wall together
        conductivity_w_mk: of the wall
        thickness_m, width_m, height_m: wall thickness, circumference, height above the melt [m]
    Source: incropera-2007, eq. 3.76
    """
    if height_m <= 0.0:
        return 0.0
    m = math.sqrt(h_w_m2k / (conductivity_w_mk * thickness_m))
    return width_m * math.sqrt(h_w_m2k * conductivity_w_mk * thickness_m) * math.tanh(m * height_m)
