"""A piece from the cold in a warm room: how long it sweats, and how much."""

import math
from dataclasses import dataclass

from umber_pebble.core.heat.convection import h_convection_w_m2k, h_radiation_w_m2k
from umber_pebble.core.humidity.dew import dew_point_degc, vapour_pressure_pa

LENGTH_M, EMISSIVITY = 0.05, 0.9
AIR_CP_J_KGK, VAPOUR_R_J_KGK, EVAPORATION_J_KG, LEWIS = 1006.0, 461.5, 2.45e6, 0.85
STEP_S, LONGEST_S = 2.0, 3 * 3600.0


@dataclass(frozen=True, slots=True)
class Sweat:
    """From leaving the cold: until its surface is above the dew point, until it is dry again [s]; most water on it
    [kg/m2]; the dew point [degC]."""

    sweats_s: float
    dry_s: float
    water_kg_m2: float
    dew_degc: float


def sweat(
    thickness_m: float, density_kg_m3: float, cp_j_kgk: float, from_degc: float, room_degc: float, humidity_frac: float
) -> Sweat:  # fmt: skip
    """What a slab does that is taken from the cold into a room, both faces in still air.

    The piece as one temperature; vapour comes and goes with the heat by Lewis' rule, and its heat warms the piece.
    Args:
        thickness_m, density_kg_m3, cp_j_kgk: of the piece
        from_degc: as it leaves the cold
        room_degc, humidity_frac: of the room
    Raises: OutOfRange: a room outside the vapour law.
    Source: incropera-2007 (section 6.7), magnus-alduchov-1996
    """
    dew = dew_point_degc(room_degc, humidity_frac)
    in_air = humidity_frac * vapour_pressure_pa(room_degc) / (VAPOUR_R_J_KGK * (room_degc + 273.15))
    stores = density_kg_m3 * cp_j_kgk * thickness_m / 2
    t, water, most, clear, dry = from_degc, 0.0, 0.0, 0.0, 0.0
    for step in range(1, int(LONGEST_S / STEP_S)):
        h = h_convection_w_m2k(t, room_degc, LENGTH_M, 0)
        at_skin = vapour_pressure_pa(max(t, -40.0)) / (VAPOUR_R_J_KGK * (t + 273.15))
        air_kg_m3 = 353.0 / (room_degc + 273.15)
        comes = h / (air_kg_m3 * AIR_CP_J_KGK * LEWIS ** (2 / 3)) * (in_air - at_skin)
        comes = max(comes, -water / STEP_S)
        water += comes * STEP_S
        most = max(most, water)
        heat = (h + h_radiation_w_m2k(t, room_degc, EMISSIVITY)) * (room_degc - t) + EVAPORATION_J_KG * comes
        t += heat * STEP_S / stores
        if t < dew:
            clear = step * STEP_S
        if water > 0:
            dry = step * STEP_S
        elif t >= dew:
            break
    return Sweat(clear, dry if math.isfinite(dry) else LONGEST_S, most, dew)
