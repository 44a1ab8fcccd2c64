"""Dipping: what it takes out of a bath, and how much melt covers a piece."""

import math
from dataclasses import dataclass

from umber_pebble.core.errors import OutOfRange, require_range
from umber_pebble.core.materials.load import Material
from umber_pebble.core.melts.hold import LEAST_KG, Held, capacity_j_k


@dataclass(frozen=True, slots=True)
class Dipped:
    """What dipping does to a bath: how warm it is after all of them [degC], how much melt is left [kg], after how many it is
    colder than it should be (None: not by these), and the least melt that covers a piece upright, and tilted [kg]."""

    degc: float
    left_kg: float
    cold_after: int | None
    upright_kg: float
    tilted_kg: float
    tilt_rad: float


@dataclass(frozen=True, slots=True)
class Dip:
    """Centres to be dipped: how many, each of a weight, temperature and heat capacity, dipped to a depth, as wide, and coated
    with so much [kg, degC, J/kgK, m]; each is in the melt for so long [s]."""

    count: int
    kg: float
    degc: float
    cp_j_kgk: float
    depth_m: float
    width_m: float
    coat_kg: float
    seconds: float
    conductivity: float = 0.35
    density: float = 900.0

    def __post_init__(self) -> None:
        require_range("dip.count", self.count, 1, 500)
        require_range("dip.kg", self.kg, 0.001, 2.0)
        require_range("dip.degc", self.degc, -30.0, 60.0)
        require_range("dip.depth_m", self.depth_m, 0.002, 0.3)
        require_range("dip.width_m", self.width_m, 0.002, 0.3)
        require_range("dip.coat_kg", self.coat_kg, 0.0, 0.5)
        require_range("dip.seconds", self.seconds, 0.2, 60.0)


CLEAR_M = 0.003
"""Melt that must stand under and over what is dipped."""
MOST_TILT_RAD = 0.6


def taken_by_dip_j(dip: Dip, melt: Material, bath_degc: float) -> float:
    """Heat one centre takes out of a bath while it is in it [J]: two half spaces in contact, at most until it is as warm.

    Q = 2 e A (T_s - T_c) sqrt(t / pi), e the effusivity of the centre, T_s where both meet.
    Args:
        dip: the centre
        melt: of the bath
        bath_degc: of it
    Source: incropera-2007, section 5.7
    """
    own = math.sqrt(dip.conductivity * dip.density * dip.cp_j_kgk)
    bath = math.sqrt(melt.value("conductivity_melt") * melt.value("density_melt") * melt.value("cp_melt"))
    meets = (bath * bath_degc + own * dip.degc) / (bath + own)
    area = math.pi * dip.width_m * dip.depth_m + math.pi * dip.width_m**2 / 4
    given = 2 * own * area * (meets - dip.degc) * math.sqrt(dip.seconds / math.pi)
    return min(given, dip.kg * dip.cp_j_kgk * (bath_degc - dip.degc))


def dipped(held: Held, dip: Dip, diameter_m: float, least_degc: float) -> Dipped:
    """A bath after dipping, and how much of it the piece needs.

    Args:
        held: the bath
        dip: what is dipped
        diameter_m: of a straight-sided vessel, wider than the piece [m]
        least_degc: below this the coat comes out too thick [degC]
    Raises: OutOfRange: the vessel is narrower than the piece.
    Source: incropera-2007, geometry
    """
    upright, tilted, tilt = bath_kg(held.melt.value("density_melt"), diameter_m, dip.depth_m, dip.width_m)
    degc, kg, cold = held.degc.likely, held.kg, None
    for n in range(dip.count):
        degc -= taken_by_dip_j(dip, held.melt, degc) / capacity_j_k(held, kg)
        kg = max(kg - dip.coat_kg, LEAST_KG)
        if cold is None and degc < least_degc:
            cold = n + 1
    return Dipped(degc, kg, cold, upright, tilted, tilt)


def bath_kg(density_kg_m3: float, diameter_m: float, depth_m: float, width_m: float) -> tuple[float, float, float]:
    """The least melt that covers what is dipped, in an upright and in a tilted vessel [kg], and that tilt [rad].

    Args:
        density_kg_m3: of the melt [kg/m3]
        diameter_m: of a straight-sided vessel, wider than the piece [m]
        depth_m, width_m: how deep the piece goes in, and how wide it is [m]
    Raises: OutOfRange: the vessel is narrower than the piece.
    Source: geometry
    """
    if diameter_m <= width_m + 2 * CLEAR_M:
        raise OutOfRange(
            "the vessel is too narrow for the piece", path="diameter_m", got=diameter_m,
            limits={"low": width_m + 2 * CLEAR_M},
        )  # fmt: skip
    floor, need = math.pi * diameter_m**2 / 4, depth_m + CLEAR_M
    displaced = math.pi * width_m**2 / 4 * depth_m
    upright = density_kg_m3 * max(floor * need - displaced, 0.0)
    # tilted until the floor would run dry, the low side is twice as deep as the level
    tilt = min(MOST_TILT_RAD, math.atan(need / diameter_m))
    tilted = density_kg_m3 * max(floor * (need - diameter_m / 2 * math.tan(tilt)) - displaced, 0.0)
    return upright, tilted, tilt
