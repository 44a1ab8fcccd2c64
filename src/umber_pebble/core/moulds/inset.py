"""The hollow that is left inside a cavity when its wall and floor carry an even layer: its inward offset."""

import math
from dataclasses import dataclass, replace
from functools import lru_cache

import numpy as np
import shapely
from scipy.interpolate import CubicSpline

from umber_pebble.core.errors import OutOfRange
from umber_pebble.core.moulds.domes import Cap, HalfCapsule, HalfEllipsoid
from umber_pebble.core.moulds.outline import SMALLEST_M, Array, Outline, Points, polygon
from umber_pebble.core.moulds.shape import SHALLOWEST_M, Shape, checked_level
from umber_pebble.core.moulds.walled import Walled

AROUND, OUTWARDS = 48, 48
NARROWEST_M = 1e-4
"""A hollow narrower or shallower than this is none."""
SIDE_M = 1e-4


@dataclass(frozen=True)
class Inner:
    """What is left of an outline an inset further in."""

    outline: Outline
    by_m: float

    def left(self, inset_m: float) -> tuple[float, float]:
        return self.outline.left(self.by_m + inset_m)

    def points(self) -> Points:
        shape = polygon(self.outline.points()).buffer(-self.by_m, quad_segs=16)
        # where a narrow place closes, the largest of what is left is the hollow that is drawn
        largest = max(shapely.get_parts(shape), key=lambda part: part.area)
        return tuple((float(x), float(y)) for x, y in largest.exterior.coords[:-1])


@dataclass(frozen=True)
class InnerEllipsoid:
    """The parallel body inside a half ellipsoid; it is none itself, so it is found from its surface, moved in along its normals."""

    outer: HalfEllipsoid
    by_m: float

    @property
    def depth_m(self) -> float:
        return self.outer.half_m - self.by_m

    def rim(self) -> Points:
        radius, _ = _surface(self)
        angles = np.arange(AROUND) * 2 * math.pi / AROUND
        return tuple(
            (float(r * math.cos(a)), float(r * math.sin(a))) for r, a in zip(radius[-1], angles, strict=True)
        )

    def area_m2(self, level_m: float) -> float:
        return float(_areas(self)(checked_level(self, level_m)))

    def filled_m3(self, level_m: float) -> float:
        return float(_areas(self).integrate(0.0, checked_level(self, level_m)))

    def wetted_m2(self, level_m: float) -> float:
        """By Steiner: the area changes by the layer's curvature, so as the volume between two layers does."""
        step = min(SIDE_M, self.by_m / 2)
        z = checked_level(self, level_m)
        more = replace(self, by_m=self.by_m - step)
        return float(more.filled_m3(min(z + step, more.depth_m)) - self.filled_m3(z)) / step

    def floor_m(self, x: Array, y: Array) -> Array:
        radius, levels = _surface(self)
        away, turn = np.hypot(x, y), np.mod(np.arctan2(y, x), 2 * math.pi)
        column = np.rint(turn / (2 * math.pi) * AROUND).astype(int) % AROUND
        out = np.full(np.shape(x), np.nan)
        for i in np.unique(column):
            here = column == i
            out[here] = np.interp(away[here], radius[:, i], levels, right=np.nan)
        return out


@lru_cache(maxsize=64)
def _surface(inner: InnerEllipsoid) -> tuple[Array, Array]:
    """How far the hollow reaches from its axis, by level and direction [m]; levels from its floor [m]."""
    a, b, c, by = inner.outer.length_m / 2, inner.outer.width_m / 2, inner.outer.half_m, inner.by_m
    # points of the outer body a little past its rim, so that the hollow's rim is reached
    theta = np.linspace(0.0, math.pi / 2 + 0.6, 4 * OUTWARDS)[:, None]
    phi = np.linspace(0.0, 2 * math.pi, 2 * AROUND, endpoint=False)[None, :]
    x, y, z = a * np.sin(theta) * np.cos(phi), b * np.sin(theta) * np.sin(phi), -c * np.cos(theta)
    nx, ny, nz = x / a**2, y / b**2, z / c**2
    size = by / np.sqrt(nx**2 + ny**2 + nz**2)
    px, py, pz = x - size * nx, y - size * ny, z - size * nz
    levels = np.linspace(0.0, inner.depth_m, OUTWARDS)
    radius = np.empty((OUTWARDS, AROUND))
    # along each meridian by level first, then by the direction it came to lie in
    rs, turns = np.hypot(px, py), np.unwrap(np.arctan2(py, px), axis=1)
    directions = np.arange(AROUND) * 2 * math.pi / AROUND
    columns = range(rs.shape[1])
    at = levels - inner.depth_m
    r = np.array([np.interp(at, pz[:, j], rs[:, j]) for j in columns])
    t = np.mod([np.interp(at, pz[:, j], turns[:, j]) for j in columns], 2 * math.pi)
    for k in range(OUTWARDS):
        order = np.argsort(t[:, k])
        radius[k] = np.interp(directions, t[order, k], r[order, k], period=2 * math.pi)
    return radius, levels


@lru_cache(maxsize=64)
def _areas(inner: InnerEllipsoid) -> CubicSpline:
    """Open surface over the level [m2]."""
    radius, levels = _surface(inner)
    return CubicSpline(levels, (radius**2).sum(axis=1) * math.pi / AROUND)


def inset(shape: Shape, by_m: float) -> Shape:
    """The hollow inside an even layer on wall and floor; its floor lies by_m above the cavity's, its rim at the same height.

    Args:
        shape: the cavity, or a hollow in it
        by_m: thickness of the layer, square to the wall [m]
    Raises: OutOfRange: nothing is left inside.
    Source: geometry
    """
    if by_m <= 0:
        return shape
    deepest = thickest_m(shape)
    if by_m >= deepest:
        raise OutOfRange(
            "the layer is thicker than the narrow place: nothing is left inside",
            path="thickness_m",
            got=by_m,
            limits={"low": 0.0, "high": deepest},
        )
    match shape:
        case Cap():
            ball, lift = shape.ball_m - by_m, shape.cap_m - by_m
            return Cap(2 * math.sqrt(max(ball**2 - (ball - lift) ** 2, 0.0)), lift)
        case HalfCapsule():
            return HalfCapsule(shape.length_m - 2 * by_m, shape.width_m - 2 * by_m)
        case HalfEllipsoid():
            return InnerEllipsoid(shape, by_m)
        case InnerEllipsoid():
            return replace(shape, by_m=shape.by_m + by_m)
        case Walled():
            outline, before = (
                (shape.outline.outline, shape.outline.by_m)
                if isinstance(shape.outline, Inner)
                else (shape.outline, 0.0)
            )
            across = by_m / math.cos(shape.draft_rad)
            return Walled(
                Inner(outline, before + across),
                shape.depth_m - by_m,
                shape.draft_rad,
                max(shape.edge_m - by_m, 0.0),
            )
    raise TypeError(f"no hollow of a {type(shape).__name__}")


@lru_cache(maxsize=256)
def thickest_m(shape: Shape) -> float:
    """Thickness of the layer that just leaves a hollow [m]. Source: geometry"""
    deep = shape.depth_m - max(2 * NARROWEST_M, SHALLOWEST_M)
    match shape:
        case Cap():
            # its opening may become no smaller than the smallest cavity
            return min(deep, shape.ball_m - math.hypot(shape.ball_m - shape.cap_m, SMALLEST_M / 2))
        case HalfCapsule():
            return min(deep, (shape.width_m - SMALLEST_M) / 2)
        case HalfEllipsoid() | InnerEllipsoid():
            outer = shape if isinstance(shape, HalfEllipsoid) else shape.outer
            a, b, c = outer.length_m / 2, outer.width_m / 2, outer.half_m
            # further in than its sharpest bend, layers would meet themselves
            bend = min(a, b, c) ** 2 / max(a, b, c)
            return min(deep, bend - (shape.by_m if isinstance(shape, InnerEllipsoid) else 0.0))
        case Walled():
            low, high = 0.0, deep
            for _ in range(40):
                mid = (low + high) / 2
                low, high = (mid, high) if _leaves(shape, mid) else (low, mid)
            return low
    raise TypeError(f"no hollow of a {type(shape).__name__}")


def _leaves(shape: Walled, by_m: float) -> bool:
    inward = shape.inset_m(0.0) + by_m
    return shape.outline.left(inward)[0] > NARROWEST_M**2
