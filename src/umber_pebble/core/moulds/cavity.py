"""Cavities: volume, open surface, wetted area, local thickness and sections, for any fill level."""

from dataclasses import dataclass
from functools import lru_cache

import numpy as np
import shapely

from umber_pebble.core.errors import require_range
from umber_pebble.core.moulds.outline import polygon
from umber_pebble.core.moulds.shape import Shape
from umber_pebble.core.spread import Spread

THIN_SHARE = 0.05
HALVINGS = 24
# how a cast's slab compares with 2 V/A (docs/heat.md): its free edge and corners cool it too, and not all of them alike
SLAB_OVER_TWO_V_A = (1.0, 1.12, 1.3)
THINNEST_M = 2e-4
# places whose slabs differ less than this from the whole are not told apart
PLACES_ALIKE = 0.15


@dataclass(frozen=True)
class Cavity:
    """A shape, and how the volume that was weighed compares with the measured one; flat: it has a floor alone, its walls are cut after it is
    poured."""

    shape: Shape
    volume_factor: float = 1.0
    flat: bool = False

    @property
    def depth_m(self) -> float:
        return self.shape.depth_m

    def bounds_m(self) -> tuple[float, float]:
        """Size of the opening across and along."""
        xs, ys = zip(*self.shape.rim(), strict=True)
        return max(xs) - min(xs), max(ys) - min(ys)


def volume_m3(cavity: Cavity, level_m: float) -> float:
    """Volume filled to a level; corrected by the weight of water when that is known [m3].

    Raises: OutOfRange: level_m below the floor or above the rim.
    Source: geometry
    """
    return cavity.volume_factor * cavity.shape.filled_m3(level_m)


def open_m2(cavity: Cavity, level_m: float) -> float:
    """Open surface at a level [m2].

    Raises: OutOfRange: level_m outside the cavity.
    Source: geometry
    """
    return cavity.shape.area_m2(level_m)


def wetted_m2(cavity: Cavity, level_m: float) -> float:
    """Floor and wall covered up to a level [m2].

    Raises: OutOfRange: level_m outside the cavity.
    Source: geometry
    """
    return cavity.shape.wetted_m2(level_m)


def level_m(cavity: Cavity, fill_m3: float) -> float:
    """Level to which a volume fills the cavity [m].

    Args:
        cavity: the cavity
        fill_m3: 0 to its whole volume [m3]
    Raises: OutOfRange: more than the cavity holds.
    Source: geometry
    """
    whole = volume_m3(cavity, cavity.depth_m)
    require_range("fill_m3", fill_m3, 0.0, whole * (1 + 1e-9))
    low, high = 0.0, cavity.depth_m
    for _ in range(60):
        mid = (low + high) / 2
        low, high = (mid, high) if volume_m3(cavity, mid) < fill_m3 else (low, mid)
    return high


@lru_cache(maxsize=256)
def thickness_m(cavity: Cavity, level: float) -> Spread:
    """How thick a cast is over its open surface: thin places (5 %), its mean, its thickest place [m].

    Args:
        cavity: the cavity
        level: its fill level [m]
    Raises: OutOfRange: level outside the cavity.
    Source: geometry
    """
    whole = cavity.shape.area_m2(require_range("fill_m", level, 0.0, cavity.depth_m))
    if whole <= 0:
        return Spread(0.0, 0.0, level)
    # thinner than t is what the cavity, filled to t below the level, leaves dry
    low, high = 0.0, level
    for _ in range(HALVINGS):
        middle = (low + high) / 2
        dry = 1 - cavity.shape.area_m2(level - middle) / whole
        low, high = (middle, high) if dry < THIN_SHARE else (low, middle)
    mean = cavity.shape.filled_m3(level) / whole
    return Spread(min(low, mean), min(mean, level), level)


def slab_m(cavity: Cavity, level: float) -> Spread:
    """The slab that cools like the cast, with spread: 2 V/A and a little more, never thicker than its thickest place [m].

    Args:
        cavity: the cavity
        level: its fill level [m]
    Raises: OutOfRange: level outside the cavity.
    Source: geometry, assumption
    """
    two_v_a = 2 * volume_m3(cavity, level) / (open_m2(cavity, level) + wetted_m2(cavity, level))
    deepest = max(thickness_m(cavity, level).high, two_v_a)
    return Spread(*(min(two_v_a * factor, deepest) for factor in SLAB_OVER_TWO_V_A))


def place_slabs_m(cavity: Cavity, level: float) -> tuple[float, float] | None:
    """The slabs that its thin places and its thickest place cool like; None where they are the whole's [m].

    A place as thick as d in an opening w by l cools through all of them: 1 / (1/d + 1/w + 1/l). That is V/A of a box,
    and R/2 in the middle of a half ball; taken with the same factor as the whole.
    Args:
        cavity: the cavity
        level: its fill level [m]
    Raises: OutOfRange: level outside the cavity.
    Source: geometry, assumption
    """
    thick, whole = thickness_m(cavity, level), slab_m(cavity, level).likely
    factor, sides = SLAB_OVER_TWO_V_A[1], sum(1 / size for size in cavity.bounds_m())

    def slab(d: float) -> float:
        return min(max(factor / (1 / max(d, THINNEST_M) + sides), THINNEST_M), max(d, THINNEST_M))

    thin, deep = slab(thick.low), slab(thick.high)
    alike = thin > whole * (1 - PLACES_ALIKE) and deep < whole * (1 + PLACES_ALIKE)
    return None if alike else (min(thin, whole), max(deep, whole))


def section_m(cavity: Cavity, cut_frac: float, count: int = 121) -> list[list[tuple[float, float]]]:
    """Floor and wall where a vertical plane cuts the cavity: runs of (across, height), from rim to rim [m].

    Args:
        cavity: the cavity
        cut_frac: where it is cut, from -1 (near edge) over 0 (middle) to 1 (far edge)
        count: points in a run
    Raises: OutOfRange: cut_frac outside.
    Source: geometry
    """
    require_range("cut_frac", cut_frac, -1.0, 1.0)
    across, along = cavity.bounds_m()
    y = cut_frac * along / 2 * (1 - 1e-6)
    line = shapely.LineString([(-across, y), (across, y)])
    chords = shapely.intersection(polygon(cavity.shape.rim()), line)
    runs = []
    for chord in shapely.get_parts(chords):
        if chord.length <= 1e-9:
            continue
        x0, _, x1, _ = chord.bounds
        # closer together near the rim, where a wall may be steep
        xs = x0 + (x1 - x0) * (1 - np.cos(np.linspace(0.0, np.pi, count))) / 2
        inner = np.clip(xs, x0 + 1e-9, x1 - 1e-9)
        floor = cavity.shape.floor_m(inner, np.full(count, y))
        middle = [(float(x), float(z)) for x, z in zip(xs, floor, strict=True) if np.isfinite(z)]
        runs.append([(float(x0), cavity.depth_m), *middle, (float(x1), cavity.depth_m)])
    return runs
