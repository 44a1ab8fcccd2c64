"""Outlines of cavities at the rim: how much of one is left, and how long its edge is, an inset further in."""

import math
from dataclasses import dataclass
from functools import lru_cache
from typing import Protocol

import numpy as np
import shapely
from numpy.typing import NDArray

from umber_pebble.core.errors import OutOfRange, require_range

Array = NDArray[np.float64]
Points = tuple[tuple[float, float], ...]

SMALLEST_M, WIDEST_M = 0.003, 0.5
MOST_POINTS = 4000
HEART_POINTS = 120
ROUND_POINTS = 128


class Outline(Protocol):
    """A closed curve in the plane of the rim, x across and y along, about its middle [m]."""

    def left(self, inset_m: float) -> tuple[float, float]:
        """Area and edge of what lies at least an inset from the rim [m2, m]."""
        ...

    def points(self) -> Points:
        """The rim as a polygon, for drawings and for what lies where [m]."""
        ...


@dataclass(frozen=True, slots=True)
class Circle:
    """A circle by its diameter [m]."""

    diameter_m: float

    def __post_init__(self) -> None:
        require_range("diameter_m", self.diameter_m, SMALLEST_M, WIDEST_M)

    def left(self, inset_m: float) -> tuple[float, float]:
        r = max(self.diameter_m / 2 - inset_m, 0.0)
        return math.pi * r**2, 2 * math.pi * r

    def points(self) -> Points:
        return tuple((x * self.diameter_m / 2, y * self.diameter_m / 2) for x, y in unit_circle())


@dataclass(frozen=True, slots=True)
class Bar:
    """A rectangle by length and width, its corners rounded [m]."""

    length_m: float
    width_m: float
    corner_m: float

    def __post_init__(self) -> None:
        require_range("length_m", self.length_m, SMALLEST_M, WIDEST_M)
        require_range("width_m", self.width_m, SMALLEST_M, WIDEST_M)
        require_range("corner_m", self.corner_m, 0.0, min(self.length_m, self.width_m) / 2)

    def left(self, inset_m: float) -> tuple[float, float]:
        a, b = self.length_m - 2 * inset_m, self.width_m - 2 * inset_m
        if min(a, b) <= 0:
            return 0.0, 0.0
        r = max(self.corner_m - inset_m, 0.0)
        return a * b - (4 - math.pi) * r**2, 2 * (a + b) - (8 - 2 * math.pi) * r

    def points(self) -> Points:
        a, b, r = self.length_m / 2, self.width_m / 2, self.corner_m
        if r == 0:
            return (a, b), (-a, b), (-a, -b), (a, -b)
        out: list[tuple[float, float]] = []
        for i, (sx, sy) in enumerate(((1, 1), (-1, 1), (-1, -1), (1, -1))):
            angles = (i + np.linspace(0.0, 1.0, ROUND_POINTS // 4)) * math.pi / 2
            xs, ys = _on_circle(r, angles)
            out += [(float(sx * (a - r) + x), float(sy * (b - r) + y)) for x, y in zip(xs, ys, strict=True)]
        return tuple(out)


@dataclass(frozen=True)
class Drawn:
    """A polygon as drawn or imported: its corners in order, not crossing itself [m]."""

    corners: Points

    def __post_init__(self) -> None:
        if not 3 <= len(self.corners) <= MOST_POINTS:
            raise OutOfRange(
                f"an outline needs 3 to {MOST_POINTS} points",
                path="corners",
                got=len(self.corners),
                limits={"low": 3, "high": MOST_POINTS},
            )
        shape = shapely.Polygon(self.corners)
        if not shape.is_valid:
            raise OutOfRange("the outline crosses itself", path="corners", got=shapely.is_valid_reason(shape))
        x0, y0, x1, y1 = shape.bounds
        for name, size in (("width_m", x1 - x0), ("length_m", y1 - y0)):
            require_range(name, size, SMALLEST_M, WIDEST_M)

    def left(self, inset_m: float) -> tuple[float, float]:
        whole = polygon(self.corners)
        # an inset of less than a nanometre is rounding, and shapely makes nothing of it
        shape = whole.buffer(-inset_m, quad_segs=8) if inset_m > 1e-9 else whole
        return float(shape.area), float(shape.length)

    def points(self) -> Points:
        return self.corners


@lru_cache(maxsize=128)
def polygon(points: Points) -> shapely.Polygon:
    """The polygon of a rim [m]. Source: geometry"""
    made = shapely.Polygon(points)
    shapely.prepare(made)
    return made


def unit_circle() -> Points:
    """Points of a circle of radius one [1]. Source: geometry"""
    angles = np.arange(ROUND_POINTS) * 2 * math.pi / ROUND_POINTS
    return tuple((float(x), float(y)) for x, y in zip(*_on_circle(1.0, angles), strict=True))


def _on_circle(radius: float, angles: Array) -> tuple[Array, Array]:
    return radius * np.cos(angles), radius * np.sin(angles)


def heart(width_m: float) -> Drawn:
    """A heart by its width: x = 16 sin^3 t, y = 13 cos t - 5 cos 2t - 2 cos 3t - cos 4t, scaled [m].

    Raises: OutOfRange: width_m outside.
    Source: geometry
    """
    require_range("width_m", width_m, SMALLEST_M, WIDEST_M)
    t = np.arange(HEART_POINTS) * 2 * math.pi / HEART_POINTS
    x = 16 * np.sin(t) ** 3
    y = 13 * np.cos(t) - 5 * np.cos(2 * t) - 2 * np.cos(3 * t) - np.cos(4 * t)
    scale = width_m / 32
    return Drawn(centred(tuple((float(a * scale), float(b * scale)) for a, b in zip(x, y, strict=True))))


def star(diameter_m: float, tips: int, inner_frac: float) -> Drawn:
    """A star by the diameter of its tips, their number, and how far in the notches lie [m].

    Args:
        diameter_m: of the circle through the tips [m]
        tips: 3 to 24
        inner_frac: radius of the notches against that of the tips, 0.2 to 0.95
    Raises: OutOfRange: one of them outside.
    Source: geometry
    """
    require_range("diameter_m", diameter_m, SMALLEST_M, WIDEST_M)
    require_range("tips", tips, 3, 24)
    require_range("inner_frac", inner_frac, 0.2, 0.95)
    angles = math.pi / 2 + np.arange(2 * tips) * math.pi / tips
    radii = np.where(np.arange(2 * tips) % 2 == 0, 1.0, inner_frac) * diameter_m / 2
    tips_ = zip(radii * np.cos(angles), radii * np.sin(angles), strict=True)
    return Drawn(centred(tuple((float(x), float(y)) for x, y in tips_)))


def centred(points: Points) -> Points:
    """The same points about the middle of their bounds [m]. Source: geometry"""
    xs, ys = [x for x, _ in points], [y for _, y in points]
    mx, my = (min(xs) + max(xs)) / 2, (min(ys) + max(ys)) / 2
    return tuple((x - mx, y - my) for x, y in points)
