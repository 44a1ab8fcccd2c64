"""A piece from the cold in a warm room: when it comes out, how long it sweats, and how much."""

import itertools
from dataclasses import dataclass

from umber_pebble.core.constants import SEA_LEVEL_PA
from umber_pebble.core.heat.casting import PlaceStay
from umber_pebble.core.heat.convection import h_convection_w_m2k, h_radiation_w_m2k, thin_air_factor
from umber_pebble.core.humidity.dew import dew_point_degc, humidity_ratio

LENGTH_M, EMISSIVITY = 0.05, 0.9
AIR_CP_J_KGK, EVAPORATION_J_KG, LEWIS = 1006.0, 2.45e6, 0.85
STEP_S, LONGEST_S = 2.0, 3 * 3600.0


@dataclass(frozen=True, slots=True)
class Sweat:
    """From leaving the cold: until its surface is above the dew point, until it is dry again [s], None: not within LONGEST_S; most
    water on it [kg/m2]; the dew point [degC]."""

    sweats_s: float | None
    dry_s: float | None
    water_kg_m2: float
    dew_degc: float


def leaves_cold_s(path: tuple[PlaceStay, ...], unmoulds_s: float, dew_degc: float) -> float:
    """When a piece comes out of the cold [s from the pour]: as it is carried from a place colder than the room's dew point to a
    warmer one, mould or no mould; where it never is, as it leaves its mould.

    Args:
        path: its places
        unmoulds_s: when it leaves its mould
        dew_degc: of the room
    Source: definition
    """
    out = [
        after.from_s
        for before, after in itertools.pairwise(path)
        if before.place.air_degc < dew_degc <= after.place.air_degc
    ]
    return out[-1] if out else unmoulds_s


def sweat(
    thickness_m: float,
    density_kg_m3: float,
    cp_j_kgk: float,
    from_degc: float,
    room_degc: float,
    humidity_frac: float,
    pressure_pa: float = SEA_LEVEL_PA,
) -> Sweat:
    """What a slab does that is taken from the cold into a room, both faces in still air.

    The piece as one temperature; vapour comes and goes by the difference of humidity ratios with the heat's coefficient over the
    air's heat capacity (Lewis' rule), and its heat warms the piece.
    Args:
        thickness_m, density_kg_m3, cp_j_kgk: of the piece
        from_degc: as it leaves the cold
        room_degc, humidity_frac: of the room
        pressure_pa: of the air
    Raises: OutOfRange: a room outside the vapour law.
    Source: incropera-2007 (section 6.7), magnus-alduchov-1996
    """
    dew = dew_point_degc(room_degc, humidity_frac)
    in_air = humidity_ratio(room_degc, humidity_frac, pressure_pa)
    stores = density_kg_m3 * cp_j_kgk * thickness_m / 2
    t, water, most = from_degc, 0.0, 0.0
    thin = thin_air_factor(pressure_pa)
    clear: float | None = 0.0 if t >= dew else None
    for step in range(1, int(LONGEST_S / STEP_S)):
        if t >= dew and clear is None:
            clear = step * STEP_S
        if t >= dew and water <= 0.0:
            return Sweat(clear, step * STEP_S if most > 0 else 0.0, most, dew)
        h = thin * h_convection_w_m2k(t, room_degc, LENGTH_M, 0)
        at_skin = humidity_ratio(max(t, -40.0), 1.0, pressure_pa)
        comes = max(h / (AIR_CP_J_KGK * LEWIS ** (2 / 3)) * (in_air - at_skin), -water / STEP_S)
        water += comes * STEP_S
        most = max(most, water)
        heat = (h + h_radiation_w_m2k(t, room_degc, EMISSIVITY)) * (room_degc - t) + EVAPORATION_J_KG * comes
        t += heat * STEP_S / stores
    return Sweat(clear, None, most, dew)
