"""Cavities with a wall: an outline, a depth, a draft and a rounded edge at the floor."""

import itertools
import math
from dataclasses import dataclass
from functools import lru_cache

import numpy as np
import shapely
from scipy.interpolate import CubicHermiteSpline

from umber_pebble.core.errors import OutOfRange, require_range
from umber_pebble.core.moulds.outline import Array, Outline, Points, polygon
from umber_pebble.core.moulds.shape import DEEPEST_M, SHALLOWEST_M, checked_level

STEEPEST_RAD = math.radians(60)
SLICES = 32
GAUSS = 5
FLOOR_STEPS = 640
# an edge rounder than this is drawn; less is a corner
SHARP_M = 1e-6


@dataclass(frozen=True)
class Walled:
    """An outline, a depth, a wall leaning out by the draft, and a rounded edge at the floor."""

    outline: Outline
    depth_m: float
    draft_rad: float = 0.0
    edge_m: float = 0.0

    def __post_init__(self) -> None:
        require_range("depth_m", self.depth_m, SHALLOWEST_M, DEEPEST_M)
        require_range("draft_rad", self.draft_rad, 0.0, STEEPEST_RAD)
        require_range("edge_m", self.edge_m, 0.0, self.depth_m)
        if self.edge_m < SHARP_M:
            object.__setattr__(self, "edge_m", 0.0)
        if self.outline.left(self.inset_m(0.0))[0] <= 0:
            raise OutOfRange(
                "with this draft, depth and edge the floor has no width left",
                path="draft_rad",
                got=self.draft_rad,
                limits={"low": 0.0, "high": self._steepest()},
            )

    def _steepest(self) -> float:
        low, high = 0.0, STEEPEST_RAD
        for _ in range(40):
            middle = (low + high) / 2
            fits = self.outline.left(_inset_m(0.0, self.depth_m, middle, self.edge_m))[0] > 0
            low, high = (middle, high) if fits else (low, middle)
        return low

    def inset_m(self, level_m: float) -> float:
        """How far in from the rim the wall stands at a level."""
        return _inset_m(level_m, self.depth_m, self.draft_rad, self.edge_m)

    def rim(self) -> Points:
        return self.outline.points()

    def area_m2(self, level_m: float) -> float:
        return self.outline.left(self.inset_m(checked_level(self, level_m)))[0]

    def filled_m3(self, level_m: float) -> float:
        return float(_profile(self).volume(checked_level(self, level_m)))

    def wetted_m2(self, level_m: float) -> float:
        profile = _profile(self)
        return float(np.interp(checked_level(self, level_m), profile.levels, profile.walls))

    def floor_m(self, x: Array, y: Array) -> Array:
        levels = np.linspace(self.depth_m, 0.0, FLOOR_STEPS)
        insets = np.array([self.inset_m(z) for z in levels])
        rim = polygon(self.rim())
        points = shapely.points(x, y)
        inside = shapely.covers(rim, points)
        return np.where(inside, np.interp(shapely.distance(points, rim.boundary), insets, levels), np.nan)


def _inset_m(level_m: float, depth_m: float, draft: float, edge: float) -> float:
    """Wall in from the rim at a level; the edge is an arc that meets floor and wall without a corner."""
    lean, tangent = math.tan(draft), edge * (1 - math.sin(draft))
    if level_m >= tangent:
        return (depth_m - level_m) * lean
    arc = math.sqrt(max(edge**2 - (edge - level_m) ** 2, 0.0))
    return depth_m * lean - (tangent * lean - edge * math.cos(draft) + arc)


@dataclass(frozen=True)
class _Profile:
    volume: CubicHermiteSpline
    levels: Array
    walls: Array


@lru_cache(maxsize=128)
def _profile(shape: Walled) -> _Profile:
    """Volume and wetted area over the level, by Gauss' rule in each of many slices."""
    edge, draft = shape.edge_m, shape.draft_rad
    tangent = edge * (1 - math.sin(draft))
    nodes, weights = np.polynomial.legendre.leggauss(GAUSS)
    levels, volumes, walls = [0.0], [0.0], [shape.outline.left(shape.inset_m(0.0))[0]]

    def add(top: float, zs: Array, dz: Array, ds: Array) -> None:
        left = np.array([shape.outline.left(shape.inset_m(float(z))) for z in zs])
        levels.append(top)
        volumes.append(volumes[-1] + float(dz @ left[:, 0]))
        walls.append(walls[-1] + float(ds @ left[:, 1]))

    # the rounded edge by its angle, the wall above it by its height
    if edge > 0:
        for low, high in itertools.pairwise(np.linspace(0.0, math.pi / 2 - draft, SLICES)):
            half = (high - low) / 2
            angle = (high + low) / 2 + half * nodes
            add(
                edge * (1 - math.cos(high)),
                edge * (1 - np.cos(angle)),
                half * weights * edge * np.sin(angle),
                half * weights * edge,
            )
    if shape.depth_m > tangent + SHARP_M:
        for low, high in itertools.pairwise(np.linspace(tangent, shape.depth_m, SLICES)):
            half = (high - low) / 2
            add(high, (high + low) / 2 + half * nodes, half * weights, half * weights / math.cos(draft))
    areas = [shape.outline.left(shape.inset_m(z))[0] for z in levels]
    return _Profile(CubicHermiteSpline(levels, volumes, areas), np.array(levels), np.array(walls))
