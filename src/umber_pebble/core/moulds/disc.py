"""A round disc cavity with draft: a frustum, open at the top."""

import math
from dataclasses import dataclass

from umber_pebble.core.errors import Missing, OutOfRange, require_range

CALIPER_M = 0.0005
SCALE_KG = 0.0005
FULLEST_M = 0.1
WIDEST_M = 0.5


@dataclass(frozen=True, slots=True)
class Disc:
    """Open diameter, depth, draft from upright, and how the weighed volume compares with the measured one."""

    top_m: float
    depth_m: float
    draft_rad: float
    volume_factor: float = 1.0

    @property
    def slope(self) -> float:
        return math.tan(self.draft_rad)

    def radius_m(self, level_m: float) -> float:
        """Radius at a height above the floor [m]."""
        return self.top_m / 2 - (self.depth_m - level_m) * self.slope


@dataclass(frozen=True, slots=True)
class DiscFit:
    """A disc from what was measured; when both ways are given, the two volumes and if they disagree."""

    disc: Disc
    measured_m3: float | None
    weighed_m3: float | None
    tolerance_frac: float
    disagree: bool


def frustum_m3(disc: Disc, level_m: float) -> float:
    """Volume from the floor to a level, as measured by its sizes [m3].

    Args:
        disc: the cavity
        level_m: 0 to its depth [m]
    Raises: OutOfRange: level_m below the floor or above the rim.
    Source: geometry
    """
    require_range("fill_m", level_m, 0.0, disc.depth_m)
    r0, r1 = disc.radius_m(0.0), disc.radius_m(level_m)
    return math.pi * level_m / 3 * (r0**2 + r0 * r1 + r1**2)


def volume_m3(disc: Disc, level_m: float) -> float:
    """Volume filled to a level; corrected by the weight of water when that is known [m3].

    Raises: OutOfRange: level_m below the floor or above the rim.
    Source: geometry
    """
    return disc.volume_factor * frustum_m3(disc, level_m)


def level_m(disc: Disc, fill_m3: float) -> float:
    """Level to which a volume fills the cavity [m].

    Args:
        disc: the cavity
        fill_m3: 0 to its whole volume [m3]
    Raises: OutOfRange: more than the cavity holds.
    Source: geometry
    """
    whole = volume_m3(disc, disc.depth_m)
    require_range("fill_m3", fill_m3, 0.0, whole * (1 + 1e-9))
    low, high = 0.0, disc.depth_m
    for _ in range(60):
        mid = (low + high) / 2
        low, high = (mid, high) if volume_m3(disc, mid) < fill_m3 else (low, mid)
    return high


def wetted_m2(disc: Disc, level: float) -> float:
    """Floor and wall covered up to a level [m2].

    Raises: OutOfRange: level outside the cavity.
    Source: geometry
    """
    require_range("fill_m", level, 0.0, disc.depth_m)
    r0, r1 = disc.radius_m(0.0), disc.radius_m(level)
    return math.pi * r0**2 + math.pi * (r0 + r1) * math.hypot(level, r1 - r0)


def open_m2(disc: Disc, level: float) -> float:
    """Open surface at a level [m2].

    Raises: OutOfRange: level outside the cavity.
    Source: geometry
    """
    require_range("fill_m", level, 0.0, disc.depth_m)
    return math.pi * disc.radius_m(level) ** 2


def water_density_kg_m3(water_degc: float) -> float:
    """Density of water at 1 atm, 0 to 60 C [kg/m3].

    Raises: OutOfRange: water_degc outside.
    Source: kell-1975
    """
    t = require_range("water_degc", water_degc, 0.0, 60.0)
    top = 999.83952 + 16.945176 * t - 7.9870401e-3 * t**2 - 46.170461e-6 * t**3
    top += 105.56302e-9 * t**4 - 280.54253e-12 * t**5
    return top / (1 + 16.879850e-3 * t)


def _checked(top_m: float, depth_m: float, draft_rad: float) -> Disc:
    require_range("diameter_m", top_m, 0.003, WIDEST_M)
    require_range("depth_m", depth_m, 0.0005, FULLEST_M)
    require_range("draft_rad", draft_rad, 0.0, math.radians(60))
    disc = Disc(top_m, depth_m, draft_rad)
    if disc.radius_m(0.0) <= 0:
        raise OutOfRange(
            "with this draft and depth the floor has no width left",
            path="draft_rad",
            got=draft_rad,
            limits={"low": 0.0, "high": math.atan(top_m / 2 / depth_m)},
        )
    return disc


def _solve(low: float, high: float, draft_rad: float, target_m3: float, by: str, other: float) -> float:
    def volume(x: float) -> float:
        top, depth = (x, other) if by == "diameter_m" else (other, x)
        disc = Disc(top, depth, draft_rad)
        return frustum_m3(disc, depth) if disc.radius_m(0.0) > 0 else 0.0

    if volume(high) < target_m3:
        raise OutOfRange(
            f"no {by} up to {high:g} m holds this much water",
            path="water_kg",
            got=target_m3,
            limits={"high": high},
        )
    for _ in range(80):
        mid = (low + high) / 2
        low, high = (mid, high) if volume(mid) < target_m3 else (low, mid)
    return high


def fit_disc(
    *,
    diameter_m: float | None,
    depth_m: float | None,
    draft_rad: float,
    water_kg: float | None,
    water_degc: float = 20.0,
) -> DiscFit:
    """A disc from measured sizes, from one size and the weight of water it holds, or from both.

    With both, the weight decides the volume, since a scale errs less than a caliper in a soft mould;
    they disagree when they differ by more than 0.5 mm and 0.5 g explain.
    Args:
        diameter_m: at the open face [m]
        depth_m: floor to rim [m]
        draft_rad: from upright, 0 to 60 degrees [rad]
        water_kg: water that fills it level [kg]
        water_degc: its temperature, 0 to 60 [degC]
    Raises: Missing: fewer than two of diameter, depth and water. OutOfRange: a size is impossible.
    Source: geometry, kell-1975
    """
    if water_kg is not None:
        require_range("water_kg", water_kg, 1e-5, 20.0)
    weighed = None if water_kg is None else water_kg / water_density_kg_m3(water_degc)
    if sum(x is not None for x in (diameter_m, depth_m, weighed)) < 2:
        raise Missing(
            "give two of these: diameter, depth, weight of water",
            path="depth_m" if depth_m is None else "diameter_m",
        )
    if depth_m is None and diameter_m is not None and weighed is not None:
        # a drafted cone cannot be deeper than its point
        deepest = min(FULLEST_M, diameter_m / 2 / math.tan(draft_rad)) if draft_rad > 0 else FULLEST_M
        depth_m = _solve(1e-5, deepest * (1 - 1e-9), draft_rad, weighed, "depth_m", diameter_m)
        return DiscFit(_checked(diameter_m, depth_m, draft_rad), None, weighed, 0.0, False)
    if diameter_m is None and depth_m is not None and weighed is not None:
        require_range("depth_m", depth_m, 0.0005, FULLEST_M)
        diameter_m = _solve(1e-4, WIDEST_M, draft_rad, weighed, "diameter_m", depth_m)
        return DiscFit(_checked(diameter_m, depth_m, draft_rad), None, weighed, 0.0, False)
    assert diameter_m is not None and depth_m is not None
    disc = _checked(diameter_m, depth_m, draft_rad)
    measured = frustum_m3(disc, depth_m)
    if weighed is None or water_kg is None:
        return DiscFit(disc, measured, None, 0.0, False)
    tolerance = 2 * CALIPER_M / diameter_m + CALIPER_M / depth_m + SCALE_KG / water_kg
    factor = weighed / measured
    if not 0.2 <= factor <= 5.0:
        raise OutOfRange(
            "the water and the sizes differ more than five times: one of them is mistyped",
            path="water_kg",
            got=water_kg,
            limits={"low": 0.2 * water_kg / factor, "high": 5 * water_kg / factor},
        )
    disagree = abs(factor - 1) > tolerance
    return DiscFit(Disc(disc.top_m, disc.depth_m, draft_rad, factor), measured, weighed, tolerance, disagree)
