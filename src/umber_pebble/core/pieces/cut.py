"""A build cut open, as its passes are laid into the cut one after another."""

from dataclasses import dataclass, field

import shapely
from shapely.affinity import translate
from shapely.geometry.base import BaseGeometry

from umber_pebble.core.moulds.cavity import Cavity, section_m
from umber_pebble.core.moulds.inset import inset
from umber_pebble.core.moulds.traced import Traced, covered, traced_of

SEEN_M2 = 1e-9
"""A sliver smaller than this is not drawn."""


@dataclass(slots=True)
class Cut:
    """A cut through a cavity, across its length at a place [m]: how far in the wall stands by now [m], and the share of it that
    details took so far [frac]."""

    cavity: Cavity
    y_m: float
    by_m: float = 0.0
    used_frac: float = 0.0
    whole: BaseGeometry = field(init=False)
    hollow: BaseGeometry = field(init=False)

    def __post_init__(self) -> None:
        self.whole = self.hollow = self.inside(0.0)

    def inside(self, by_m: float) -> BaseGeometry:
        """The cut through the hollow inside a layer."""
        if (drawing := traced_of(self.cavity.shape)) is not None:
            return from_above(drawing)
        inner = Cavity(inset(self.cavity.shape, by_m)) if by_m > 0 else self.cavity
        _, along = inner.bounds_m()
        cut = 2 * self.y_m / along
        if abs(cut) > 1:
            return shapely.Polygon()
        runs = [shapely.Polygon([(x, z + by_m) for x, z in run]) for run in section_m(inner, cut)]
        return shapely.make_valid(shapely.union_all(runs))

    def lined(self, thick_m: float) -> BaseGeometry:
        """A layer on what is there, which from now on is the wall."""
        self.by_m += thick_m
        inner = self.inside(self.by_m)
        area, self.hollow = self.hollow.difference(inner), inner
        return area

    def filled(self, from_m: float, to_m: float) -> BaseGeometry:
        """The hollow between two heights."""
        return band(self.hollow, from_m, to_m)


def from_above(of: Traced) -> BaseGeometry:
    """What lines cover, in the place of a cut: from above, over the lowest of them [m]. Source: geometry"""
    area = covered(of)
    return translate(area, 0.0, -area.bounds[1])


@dataclass(slots=True)
class BodyCut:
    """A cut through a body's axis, turned by an angle [rad], with the coats on it so far."""

    angle: float
    outer: BaseGeometry

    def coated(self, grown: BaseGeometry) -> BaseGeometry:
        """A coat, which from now on is on it."""
        area, self.outer = grown.difference(self.outer), grown
        return area


def band(region: BaseGeometry, from_m: float, to_m: float) -> BaseGeometry:
    """What of a region lies between two heights [m]. Source: geometry"""
    x0, _, x1, _ = region.bounds if not region.is_empty else (0.0, 0.0, 0.0, 0.0)
    return region.intersection(shapely.box(x0 - 1, from_m, x1 + 1, to_m))
