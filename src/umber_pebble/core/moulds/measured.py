"""Cavities from what was measured: sizes, the weight of water they hold, or both."""

import math
from collections.abc import Callable
from dataclasses import dataclass
from functools import partial

from umber_pebble.core.errors import Missing, OutOfRange, require_range
from umber_pebble.core.moulds.cavity import Cavity
from umber_pebble.core.moulds.outline import SMALLEST_M, WIDEST_M, Circle
from umber_pebble.core.moulds.shape import DEEPEST_M, SHALLOWEST_M, Shape
from umber_pebble.core.moulds.walled import Walled

CALIPER_M = 0.0005
SCALE_KG = 0.0005


@dataclass(frozen=True, slots=True)
class CavityFit:
    """A cavity from what was measured; when both ways are given, the two volumes and if they disagree."""

    cavity: Cavity
    measured_m3: float
    weighed_m3: float | None
    tolerance_frac: float
    disagree: bool


def water_density_kg_m3(water_degc: float) -> float:
    """Density of water at 1 atm, 0 to 60 C [kg/m3].

    Raises: OutOfRange: water_degc outside.
    Source: kell-1975
    """
    t = require_range("water_degc", water_degc, 0.0, 60.0)
    top = 999.83952 + 16.945176 * t - 7.9870401e-3 * t**2 - 46.170461e-6 * t**3
    top += 105.56302e-9 * t**4 - 280.54253e-12 * t**5
    return top / (1 + 16.879850e-3 * t)


def water_m3(water_kg: float, water_degc: float = 20.0) -> float:
    """Volume of a weight of water [m3].

    Args:
        water_kg: 0.01 g to 20 kg [kg]
        water_degc: its temperature, 0 to 60 [degC]
    Raises: OutOfRange: one of them outside.
    Source: kell-1975
    """
    return require_range("water_kg", water_kg, 1e-5, 20.0) / water_density_kg_m3(water_degc)


def _solve(low: float, high: float, target_m3: float, volume: Callable[[float], float], by: str) -> float:
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


def round_by_water(
    diameter_m: float | None, depth_m: float | None, draft_rad: float, edge_m: float, water_kg: float | None
) -> Walled:
    """A round cavity from two of its opening, its depth and the weight of water it holds.

    Args:
        diameter_m: at the open face [m]
        depth_m: floor to rim [m]
        draft_rad: from upright, 0 to 60 degrees [rad]
        edge_m: radius between floor and wall [m]
        water_kg: water that fills it level [kg]
    Raises: Missing: fewer than two. OutOfRange: a size is impossible.
    Source: geometry, kell-1975
    """
    if sum(x is not None for x in (diameter_m, depth_m, water_kg)) < 2:
        raise Missing(
            "give two of these: diameter, depth, weight of water",
            path="depth_m" if depth_m is None else "diameter_m",
        )
    if diameter_m is not None and depth_m is not None:
        return Walled(Circle(diameter_m), depth_m, draft_rad, edge_m)
    assert water_kg is not None
    target = water_m3(water_kg)

    def holds(diameter: float, depth: float) -> float:
        try:
            return Walled(Circle(diameter), depth, draft_rad, edge_m).filled_m3(depth)
        except OutOfRange:
            return 0.0

    if diameter_m is not None:
        # a drafted cone cannot be deeper than its point
        point = diameter_m / 2 / math.tan(draft_rad) if draft_rad > 0 else DEEPEST_M
        deepest = min(DEEPEST_M, point * (1 - 1e-9))
        depth_m = _solve(max(SHALLOWEST_M, edge_m), deepest, target, partial(holds, diameter_m), "depth_m")
        return Walled(Circle(diameter_m), depth_m, draft_rad, edge_m)
    assert depth_m is not None
    require_range("depth_m", depth_m, SHALLOWEST_M, DEEPEST_M)
    diameter_m = _solve(SMALLEST_M, WIDEST_M, target, partial(holds, depth=depth_m), "diameter_m")
    return Walled(Circle(diameter_m), depth_m, draft_rad, edge_m)


def fit_cavity(shape: Shape, water_kg: float | None) -> CavityFit:
    """A cavity of a measured shape, its volume corrected by the weight of water it holds.

    The weight decides, since a scale errs less than a caliper in a soft mould; the two disagree when they
    differ by more than 0.5 mm and 0.5 g explain.
    Args:
        shape: from its sizes
        water_kg: water that fills it level, or None [kg]
    Raises: OutOfRange: the two differ more than five times.
    Source: geometry, kell-1975
    """
    measured = shape.filled_m3(shape.depth_m)
    if water_kg is None:
        return CavityFit(Cavity(shape), measured, None, 0.0, False)
    weighed = water_m3(water_kg)
    rim = shape.rim()
    edge = sum(math.dist(a, b) for a, b in zip(rim, (*rim[1:], rim[0]), strict=True))
    tolerance = (
        CALIPER_M / 2 * edge / shape.area_m2(shape.depth_m) + CALIPER_M / shape.depth_m + SCALE_KG / water_kg
    )
    factor = weighed / measured
    if not 0.2 <= factor <= 5.0:
        raise OutOfRange(
            "the water and the sizes differ more than five times: one of them is mistyped",
            path="water_kg",
            got=water_kg,
            limits={"low": 0.2 * water_kg / factor, "high": 5 * water_kg / factor},
        )
    return CavityFit(Cavity(shape, factor), measured, weighed, tolerance, abs(factor - 1) > tolerance)
