"""Dipping: what it takes out of a bath, and how much melt covers a piece."""

import math
from dataclasses import dataclass

from umber_pebble.core.errors import OutOfRange, require_range
from umber_pebble.core.fat.crystallise import set_after_frac, setting_of
from umber_pebble.core.materials.load import Material, material
from umber_pebble.core.melts.hold import LEAST_KG, Held, Spot, capacity_j_k, loses, spot_of
from umber_pebble.core.spread import Spread, combine


@dataclass(frozen=True, slots=True)
class Dipped:
    """What dipping does to a bath: how warm it is after each of them, nothing done to it [degC], how much melt is left [kg];
    between which temperatures it is dipped [degC]; after which of them it is warmed, and the heat that takes each time [J]; the
    least melt that covers a piece upright, and tilted [kg]."""

    after_degc: tuple[float, ...]
    left_kg: float
    floor_degc: Spread
    most_degc: float
    warm_after: tuple[int, ...]
    warm_j: float
    upright_kg: float
    tilted_kg: float
    tilt_rad: float


@dataclass(frozen=True, slots=True)
class Dip:
    """Centres to be dipped: how many, each of a weight, temperature and heat capacity, dipped to a depth, as wide, and coated
    with so much [kg, degC, J/kgK, m]; each is in the melt for so long, one after the other every so many seconds [s]."""

    count: int
    kg: float
    degc: float
    cp_j_kgk: float
    depth_m: float
    width_m: float
    coat_kg: float
    seconds: float
    every_s: float
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
        require_range("dip.every_s", self.every_s, self.seconds, 600.0)


CLEAR_M = 0.003
"""Melt that must stand under and over what is dipped."""
MOST_TILT_RAD = 0.6
COLDEST_DEGC = 15.0


def dip_floor_degc(melt: Material, seconds: float) -> Spread:
    """The coldest a bath may be kept so long before setting thickens it [degC].

    Where the share that sets in that time comes to set_thickens; with what is not known of half-time and share.
    Args:
        melt: a fat, from where nothing of it has set but its seed
        seconds: how long it is dipped from, above zero
    Raises: OutOfRange: seconds not above zero.
    Source: avrami-1939, assumption
    """
    require_range("seconds", seconds, 1.0, 36_000.0)
    half, thick = melt.spread("half_time"), melt.spread("set_thickens")

    def floor(half_s: float, limit: float) -> float:
        setting = setting_of(melt, half_s / half.likely)
        kinetics, low, high = setting.kinetics(), COLDEST_DEGC, melt.value("melts_at")
        for _ in range(40):
            mid = (low + high) / 2
            thickens = set_after_frac(setting.start_frac, mid, seconds, kinetics) > limit
            low, high = (mid, high) if thickens else (low, mid)
        return high

    return combine(
        floor(half.likely, thick.likely),
        [
            [floor(half.low, thick.likely), floor(half.high, thick.likely)],
            [floor(half.likely, thick.low), floor(half.likely, thick.high)],
        ],
    )


def _effusivity(dip: Dip) -> float:
    return math.sqrt(dip.conductivity * dip.density * dip.cp_j_kgk)


def meets_degc(dip: Dip, melt: Material, bath_degc: float) -> float:
    """Temperature at which a centre and a bath meet [degC]: two half spaces in contact.

    Args:
        dip, melt, bath_degc: as in taken_by_dip_j
    Source: incropera-2007, section 5.7
    """
    own = _effusivity(dip)
    bath = math.sqrt(melt.value("conductivity_melt") * melt.value("density_melt") * melt.value("cp_melt"))
    return (bath * bath_degc + own * dip.degc) / (bath + own)


def taken_by_dip_j(dip: Dip, melt: Material, bath_degc: float) -> float:
    """Heat one centre takes out of a bath while it is in it [J]: two half spaces in contact, at most until it is as warm.

    Q = 2 e A (T_s - T_c) sqrt(t / pi), e the effusivity of the centre, T_s where both meet.
    Args:
        dip: the centre
        melt: of the bath
        bath_degc: of it
    Source: incropera-2007, section 5.7
    """
    own, area = _effusivity(dip), math.pi * dip.width_m * dip.depth_m + math.pi * dip.width_m**2 / 4
    given = 2 * own * area * (meets_degc(dip, melt, bath_degc) - dip.degc) * math.sqrt(dip.seconds / math.pi)
    return min(given, dip.kg * dip.cp_j_kgk * (bath_degc - dip.degc))


def dipped(held: Held, dip: Dip, diameter_m: float) -> Dipped:
    """A bath over its dips, standing in the room, when it is warmed, and how much of it the piece needs.

    Args:
        held: the bath
        dip: what is dipped
        diameter_m: of a straight-sided vessel, wider than the piece [m]
    Raises: OutOfRange: the vessel is narrower than the piece.
    Source: incropera-2007, avrami-1939, geometry
    """
    upright, tilted, tilt = bath_kg(held.melt.value("density_melt"), diameter_m, dip.depth_m, dip.width_m)
    melt, spot = held.melt, spot_of("air", held.room_degc)
    # a bath for few pieces stands for a while, too, until they are at hand
    stands_s = max(dip.count * dip.every_s, material("kitchen", "usual", "dip").value("stands"))
    floor, most = dip_floor_degc(melt, stands_s), melt.value("dip_most")
    degc, kept, kg, after, warm = held.degc.likely, held.degc.likely, held.kg, list[float](), list[int]()
    for n in range(1, dip.count + 1):
        degc, kept = (_after_one(held, dip, kg, spot, t) for t in (degc, kept))
        kg = max(kg - dip.coat_kg, LEAST_KG)
        after.append(degc)
        if kept < floor.likely and n < dip.count:
            warm.append(n)
            kept = most
    warm_j = capacity_j_k(held, held.kg) * (most - floor.likely)
    return Dipped(tuple(after), kg, floor, most, tuple(warm), warm_j, upright, tilted, tilt)


def _after_one(held: Held, dip: Dip, kg: float, spot: Spot, degc: float) -> float:
    """A bath after one more centre, and the time until the next [degC]."""
    degc -= taken_by_dip_j(dip, held.melt, degc) / capacity_j_k(held, kg)
    rate, rest = loses(held, kg, spot, 1.0)
    return rest + (degc - rest) * math.exp(-rate * dip.every_s)


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
            "the vessel is too narrow for the piece",
            path="diameter_m",
            got=diameter_m,
            limits={"low": width_m + 2 * CLEAR_M},
        )
    floor, need = math.pi * diameter_m**2 / 4, depth_m + CLEAR_M
    displaced = math.pi * width_m**2 / 4 * depth_m
    upright = density_kg_m3 * max(floor * need - displaced, 0.0)
    # tilted until the floor would run dry, the low side is twice as deep as the level
    tilt = min(MOST_TILT_RAD, math.atan(need / diameter_m))
    tilted = density_kg_m3 * max(floor * (need - diameter_m / 2 * math.tan(tilt)) - displaced, 0.0)
    return upright, tilted, tilt
