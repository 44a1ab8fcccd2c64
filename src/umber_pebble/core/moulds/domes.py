"""Cavities without a flat floor: caps and half balls, half ellipsoids, half capsules."""

import math
from dataclasses import dataclass

import numpy as np

from umber_pebble.core.errors import require_range
from umber_pebble.core.moulds.outline import Array, Circle, Points, unit_circle
from umber_pebble.core.moulds.shape import DEEPEST_M, SHALLOWEST_M, checked_level


@dataclass(frozen=True)
class Cap:
    """A spherical cap by its opening and depth; a half ball when the depth is half the opening."""

    diameter_m: float
    cap_m: float

    def __post_init__(self) -> None:
        Circle(self.diameter_m)
        require_range("depth_m", self.cap_m, SHALLOWEST_M, min(DEEPEST_M, self.diameter_m / 2 * (1 + 1e-9)))

    @property
    def depth_m(self) -> float:
        return self.cap_m

    @property
    def ball_m(self) -> float:
        """Radius of the ball."""
        return ((self.diameter_m / 2) ** 2 + self.cap_m**2) / (2 * self.cap_m)

    def rim(self) -> Points:
        return Circle(self.diameter_m).points()

    def area_m2(self, level_m: float) -> float:
        z = checked_level(self, level_m)
        return math.pi * z * (2 * self.ball_m - z)

    def filled_m3(self, level_m: float) -> float:
        z = checked_level(self, level_m)
        return math.pi * z**2 * (3 * self.ball_m - z) / 3

    def wetted_m2(self, level_m: float) -> float:
        return 2 * math.pi * self.ball_m * checked_level(self, level_m)

    def floor_m(self, x: Array, y: Array) -> Array:
        away = x**2 + y**2
        inside = away <= (self.diameter_m / 2) ** 2 * (1 + 1e-9)
        return np.where(inside, self.ball_m - np.sqrt(np.maximum(self.ball_m**2 - away, 0.0)), np.nan)


@dataclass(frozen=True)
class HalfEllipsoid:
    """Half an ellipsoid by the length and width of its opening and its depth."""

    length_m: float
    width_m: float
    half_m: float

    def __post_init__(self) -> None:
        Circle(self.length_m)
        Circle(self.width_m)
        require_range("depth_m", self.half_m, SHALLOWEST_M, DEEPEST_M)

    @property
    def depth_m(self) -> float:
        return self.half_m

    def _share(self, level_m: float) -> float:
        """Square of the size of a slice against the opening."""
        return 1 - ((self.half_m - checked_level(self, level_m)) / self.half_m) ** 2

    def rim(self) -> Points:
        return tuple((x * self.length_m / 2, y * self.width_m / 2) for x, y in unit_circle())

    def area_m2(self, level_m: float) -> float:
        return math.pi * self.length_m * self.width_m / 4 * self._share(level_m)

    def filled_m3(self, level_m: float) -> float:
        u = 1 - checked_level(self, level_m) / self.half_m
        return math.pi * self.length_m * self.width_m / 4 * self.half_m * (2 / 3 - u + u**3 / 3)

    def wetted_m2(self, level_m: float) -> float:
        """By Gauss' rule over both angles of its parametric form."""
        a, b, c = self.length_m / 2, self.width_m / 2, self.half_m
        top = math.acos(max(min(1 - checked_level(self, level_m) / c, 1.0), -1.0))
        nodes, weights = np.polynomial.legendre.leggauss(48)
        theta, phi = top / 2 * (nodes + 1), math.pi / 4 * (nodes + 1)
        s, co = np.sin(theta)[:, None], np.cos(theta)[:, None]
        patch = s * np.sqrt((a * b * co) ** 2 + (c * s) ** 2 * ((b * np.cos(phi)) ** 2 + (a * np.sin(phi)) ** 2))
        return float(4 * top / 2 * math.pi / 4 * weights @ patch @ weights)

    def floor_m(self, x: Array, y: Array) -> Array:
        away = (2 * x / self.length_m) ** 2 + (2 * y / self.width_m) ** 2
        return np.where(away <= 1 + 1e-9, self.half_m * (1 - np.sqrt(np.maximum(1 - away, 0.0))), np.nan)


@dataclass(frozen=True)
class HalfCapsule:
    """A capsule cut lengthwise: a half cylinder between two quarter balls, by its whole length and width."""

    length_m: float
    width_m: float

    def __post_init__(self) -> None:
        Circle(self.width_m)
        require_range("length_m", self.length_m, self.width_m, 0.5)

    @property
    def depth_m(self) -> float:
        return self.width_m / 2

    @property
    def _straight_m(self) -> float:
        return self.length_m - self.width_m

    def rim(self) -> Points:
        half, r = self._straight_m / 2, self.width_m / 2
        return tuple((x * r + math.copysign(half, x), y * r) for x, y in unit_circle())

    def area_m2(self, level_m: float) -> float:
        z, r = checked_level(self, level_m), self.width_m / 2
        half = math.sqrt(max(z * (2 * r - z), 0.0))
        return 2 * half * self._straight_m + math.pi * half**2

    def filled_m3(self, level_m: float) -> float:
        z, r = checked_level(self, level_m), self.width_m / 2
        segment = r**2 * math.acos(max(min((r - z) / r, 1.0), -1.0)) - (r - z) * math.sqrt(
            max(z * (2 * r - z), 0.0)
        )
        return segment * self._straight_m + math.pi * z**2 * (3 * r - z) / 3

    def wetted_m2(self, level_m: float) -> float:
        z, r = checked_level(self, level_m), self.width_m / 2
        return 2 * r * math.acos(max(min((r - z) / r, 1.0), -1.0)) * self._straight_m + 2 * math.pi * r * z

    def floor_m(self, x: Array, y: Array) -> Array:
        r = self.width_m / 2
        along = np.maximum(np.abs(x) - self._straight_m / 2, 0.0)
        away = along**2 + y**2
        return np.where(away <= r**2 * (1 + 1e-9), r - np.sqrt(np.maximum(r**2 - away, 0.0)), np.nan)
