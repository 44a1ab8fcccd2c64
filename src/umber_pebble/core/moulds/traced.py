"""Lines of melt piped over a drawing: the bead as it lies, and what all of them make."""

import itertools
import math
from dataclasses import dataclass
from functools import lru_cache

import numpy as np
import shapely
from shapely.geometry.base import BaseGeometry

from umber_pebble.core.errors import OutOfRange, require_range
from umber_pebble.core.moulds.outline import Array, Points
from umber_pebble.core.moulds.shape import Shape, checked_level

FINEST_BORE_M, WIDEST_BORE_M = 0.0008, 0.012
WIDEST_M = 0.6
MOST_LINES, MOST_POINTS = 1000, 40_000


@dataclass(frozen=True, slots=True)
class Line:
    """One line of a drawing, from end to end [m]; twice: a second one is piped on it once it has set."""

    points: Points
    twice: bool = False

    @property
    def path(self) -> shapely.LineString:
        return shapely.LineString(self.points)

    @property
    def length_m(self) -> float:
        return sum(math.dist(a, b) for a, b in itertools.pairwise(self.points))


@dataclass(frozen=True, slots=True)
class Bead:
    """A line as it lies: half round, so wide and high [m], as much in its cut as came out of the opening.

    pi r^2 / 2 = n pi d^2 / 4 of n lines on each other.
    """

    radius_m: float

    @property
    def wide_m(self) -> float:
        return 2 * self.radius_m

    @property
    def high_m(self) -> float:
        return self.radius_m

    @property
    def cut_m2(self) -> float:
        return math.pi * self.radius_m**2 / 2


def bead(bore_m: float, twice: bool = False) -> Bead:
    """The bead out of an opening.

    Args:
        bore_m: of the bag or nozzle, 0.8 to 12 mm [m]
        twice: two lines on each other
    Raises: OutOfRange: an opening outside.
    Source: geometry, assumption
    """
    require_range("bore_m", bore_m, FINEST_BORE_M, WIDEST_BORE_M)
    return Bead(bore_m * math.sqrt((2 if twice else 1) / 2))


@dataclass(frozen=True)
class Traced:
    """Lines about the middle of their drawing, piped out of an opening so wide [m]. As something to be filled it is as deep as its
    highest bead, and as large as they cover."""

    lines: tuple[Line, ...]
    bore_m: float

    def __post_init__(self) -> None:
        bead(self.bore_m)
        if not 1 <= len(self.lines) <= MOST_LINES or sum(len(of.points) for of in self.lines) > MOST_POINTS:
            raise OutOfRange(
                f"a drawing has 1 to {MOST_LINES} lines, and {MOST_POINTS:,} points at most: save it simplified",
                path="lines",
                got=len(self.lines),
                limits={"low": 1, "high": MOST_LINES},
            )
        for i, of in enumerate(self.lines):
            if len(of.points) < 2 or of.length_m < self.bore_m:
                raise OutOfRange(
                    f"line {i + 1} is no longer than its opening is wide: take it away, or a finer opening",
                    path=f"lines.{i}",
                    got=of.length_m if len(of.points) > 1 else 0.0,
                    limits={"low": self.bore_m},
                )
        x0, y0, x1, y1 = self.bounds
        require_range("drawing.wide_m", x1 - x0, 0.0, WIDEST_M)
        require_range("drawing.high_m", y1 - y0, 0.0, WIDEST_M)

    @property
    def bounds(self) -> tuple[float, float, float, float]:
        """How far its beads reach, left and below, right and above."""
        xs, ys = ([point[axis] for of in self.lines for point in of.points] for axis in (0, 1))
        half = max(self.bead_of(of).radius_m for of in self.lines)
        return min(xs) - half, min(ys) - half, max(xs) + half, max(ys) + half

    def bead_of(self, line: Line) -> Bead:
        """How one of its lines lies."""
        return bead(self.bore_m, line.twice)

    @property
    def piped_m(self) -> float:
        """The length of all that is piped, what is piped twice counted twice."""
        return sum(of.length_m * (2 if of.twice else 1) for of in self.lines)

    @property
    def volume_m3(self) -> float:
        """Of all its beads."""
        return sum(of.length_m * self.bead_of(of).cut_m2 for of in self.lines)

    @property
    def strokes(self) -> int:
        """How often hands set down, once for every line."""
        return sum(2 if of.twice else 1 for of in self.lines)

    @property
    def again_frac(self) -> float:
        """The share of what is piped that goes on lines that have one already."""
        return sum(of.length_m for of in self.lines if of.twice) / self.piped_m

    @property
    def depth_m(self) -> float:
        return max(self.bead_of(of).high_m for of in self.lines)

    def rim(self) -> Points:
        return rings(covered(self).convex_hull)[0]

    def area_m2(self, level_m: float) -> float:
        checked_level(self, level_m)
        return float(covered(self).area)

    def filled_m3(self, level_m: float) -> float:
        return self.volume_m3 * checked_level(self, level_m) / self.depth_m

    def wetted_m2(self, level_m: float) -> float:
        return self.area_m2(level_m)

    def floor_m(self, x: Array, y: Array) -> Array:
        return np.where(shapely.contains_xy(covered(self), x, y), 0.0, np.nan)


def traced_of(shape: Shape) -> Traced | None:
    """The drawing that lines are piped over; None of a hollow that melt is poured into. Source: definition"""
    return shape if isinstance(shape, Traced) else None


@lru_cache(maxsize=64)
def covered(of: Traced) -> BaseGeometry:
    """What its beads cover, from above [m]. Source: geometry"""
    return shapely.union_all([line.path.buffer(of.bead_of(line).radius_m, quad_segs=4) for line in of.lines])


def rings(area: BaseGeometry) -> tuple[Points, ...]:
    """An area's edges, its holes with them [m]. Source: geometry"""
    return tuple(
        tuple((float(x), float(y)) for x, y in ring.coords)
        for part in shapely.get_parts(area)
        for ring in (part.exterior, *part.interiors)
    )
