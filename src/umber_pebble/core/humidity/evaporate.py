"""A thin film of alcohol and water drying in room air."""

import math
from dataclasses import dataclass

from umber_pebble.core.errors import require_range
from umber_pebble.core.humidity.dew import vapour_pressure_pa
from umber_pebble.core.materials.load import material

GAS_J_MOLK, ZERO_DEGC = 8.314462, 273.15
ALCOHOL_KG_MOL, WATER_KG_MOL = 0.046069, 0.018015
ALCOHOL_KG_M3, WATER_KG_M3 = 789.0, 998.0
ANTOINE = (8.20417, 1642.89, 230.300)
MMHG_PA = 133.322
AIR_KG_M3, AIR_CP_J_KGK = 1.19, 1006.0
LEWIS_ALCOHOL, LEWIS_WATER = 1.79, 0.86
"""Of air's warmth against either's vapour in it. Source: handbook-properties"""
STEPS = 100
"""So many it takes a film to dry, about [count]."""


def drying(name: str) -> float:
    """What is usual of drying: how little left is dry [frac], what still air takes from a small face [W/m2K]. Source: incropera-2007, assumption"""
    return material("kitchen", "dries", "finish").value(name)


@dataclass(frozen=True, slots=True)
class Film:
    """What is left of a film [kg/m2]."""

    alcohol: float
    water: float


def film_of(volume_m: float, alcohol_frac: float) -> Film:
    """A film so thick before it dries, of a spirit.

    Args:
        volume_m: m3 on each m2 [m]
        alcohol_frac: of its volume, 0 to 1
    Raises: OutOfRange: a share that is none.
    Source: definition
    """
    share = require_range("alcohol_frac", alcohol_frac, 0.0, 1.0)
    return Film(volume_m * share * ALCOHOL_KG_M3, volume_m * (1 - share) * WATER_KG_M3)


def alcohol_pressure_pa(temp_degc: float) -> float:
    """Saturation pressure of ethanol [Pa].

    Args:
        temp_degc: 0 to 78 [degC]
    Raises: OutOfRange: outside.
    Source: reid-1987
    """
    a, b, c = ANTOINE
    return float(MMHG_PA * 10 ** (a - b / (require_range("temp_degc", temp_degc, 0.0, 78.0) + c)))


def dries_s(film: Film, room_degc: float, humidity_frac: float) -> float:
    """How long a film takes until it is dry, inf where the air is too damp [s].

    Each leaves by its share of the molecules (Raoult) and how far its pressure is above that in the room, at the pace at which the air takes
    heat (Lewis); what it lies on keeps it as warm as the room.
    Args:
        film: as it is laid
        room_degc: 0 to 45 [degC]
        humidity_frac: of the room, 0 to 1
    Raises: OutOfRange: outside.
    Source: raoult-1887, incropera-2007 (section 6.7)
    """
    start = film.alcohol + film.water
    if start <= 0:
        return 0.0
    spirit, vapour = alcohol_pressure_pa(room_degc), vapour_pressure_pa(room_degc)
    per_pa = 1 / (GAS_J_MOLK * (room_degc + ZERO_DEGC))
    pace, little = drying("still") / (AIR_KG_M3 * AIR_CP_J_KGK), drying("left") * start
    of_alcohol = pace / LEWIS_ALCOHOL ** (2 / 3) * ALCOHOL_KG_MOL * per_pa
    of_water = pace / LEWIS_WATER ** (2 / 3) * WATER_KG_MOL * per_pa
    alcohol, water, at = film.alcohol, film.water, 0.0
    while alcohol + water > little:
        moles = alcohol / ALCOHOL_KG_MOL + water / WATER_KG_MOL
        share = alcohol / ALCOHOL_KG_MOL / moles
        leaves = of_alcohol * share * spirit
        dries = of_water * ((1 - share) * vapour - humidity_frac * vapour) if water > 0 else 0.0
        if leaves + dries <= 1e-12:
            return math.inf
        step = (alcohol + water) / (leaves + max(dries, 0.0)) / STEPS
        alcohol, water = max(alcohol - leaves * step, 0.0), max(water - dries * step, 0.0)
        at += step
    return at
