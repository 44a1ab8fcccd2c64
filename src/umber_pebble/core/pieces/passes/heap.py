"""What stands on a cast, a body or a sheet: what lines, dollops and clusters have in common."""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import ClassVar

import shapely
from shapely.geometry.base import BaseGeometry

from umber_pebble.core.materials.load import Material, material
from umber_pebble.core.pieces.cut import BodyCut, Cut
from umber_pebble.core.pieces.faults import ImpossiblePass
from umber_pebble.core.pieces.hollow import Hollow
from umber_pebble.core.pieces.layers import Extent, LaidPass, melted
from umber_pebble.core.pieces.melt_ref import MeltRef, OwnMelts
from umber_pebble.core.pieces.passes.base import Ground, InMould, OnBody, PassKind

Spot = tuple[float, float]


@dataclass(frozen=True, slots=True)
class Heaped:
    """What all of a heap weighs [kg], how high and wide one stands [m], what they cover [m2], how thick in the mean [m], and how that
    was found, in words."""

    kg: float
    high_m: float
    wide_m: float
    area_m2: float
    mean_m: float
    what: str


def contact_rad() -> float:
    """The angle at which a melt stands [rad]. Source: assumption"""
    return material("kitchen", "usual", "film").value("contact")


class Heap(PassKind):
    """It lies on what is there, and may stand over the rim."""

    __slots__ = ()
    ON: ClassVar[tuple[Ground, ...]] = ("mould", "body")
    ON_TOP: ClassVar = True
    melt: MeltRef

    def heaped(self, i: int, melt: Material) -> Heaped:
        """How it lies.

        Raises: OutOfRange: a size outside.
        """
        raise NotImplementedError

    def many(self, across_m: float) -> int:
        """How many a cut across so much meets."""
        return 1

    def beside_kg(self) -> float:
        """What lies in it that is not melt."""
        return 0.0

    def melts(self) -> tuple[tuple[MeltRef, float], ...]:
        return ((self.melt, 1.0),)

    def _made(self, i: int, melt: Material, level_m: float) -> tuple[LaidPass, float]:
        of = self.heaped(i, melt)
        density = melt.value("density_melt")
        made = melted(
            i, melt, Extent(of.kg / density, of.mean_m, of.area_m2, level_m, level_m + of.high_m), of.what
        )
        return replace(made, thick_m=of.high_m, beside_kg=self.beside_kg()), of.wide_m

    def lay(self, at: InMould) -> tuple[LaidPass, Hollow]:
        made, wide = self._made(at.i, self.material(at.own), at.hollow.level_m)
        least = min(at.hollow.cavity.bounds_m())
        if wide > least:
            raise ImpossiblePass("too_wide", "it is wider than what it lies on", wide, least)
        return made, at.hollow

    def lay_on(self, at: OnBody) -> tuple[LaidPass, tuple[BaseGeometry, ...]]:
        made, _ = self._made(at.i, self.material(at.own), at.body.high_m)
        return replace(made, under=((at.body.material, at.body.behind_m, at.body.degc),)), at.outer

    def shapes(self, spots: Sequence[Spot], high_m: float, wide_m: float) -> list[BaseGeometry]:
        """As caps, each on its place (across, height) [m]."""
        half = wide_m / 2
        radius = (half**2 + high_m**2) / (2 * high_m)
        return [
            shapely.Point(x, z + high_m - radius)
            .buffer(radius, quad_segs=32)
            .intersection(shapely.box(x - half, z, x + half, z + high_m))
            for x, z in spots
        ]

    def _drawn(self, row: LaidPass, spots: Sequence[Spot], own: OwnMelts) -> BaseGeometry:
        wide = self.heaped(row.index, self.material(own)).wide_m
        shapes = self.shapes(spots, row.thick_m, wide)
        return shapely.union_all(shapes)

    def _evenly(self, low: float, high: float) -> list[float]:
        n = self.many(high - low)
        return [low + (high - low) * (k + 0.5) / n for k in range(n)]

    def cut(self, row: LaidPass, cut: Cut, own: OwnMelts) -> BaseGeometry | None:
        region = cut.hollow if row.from_m < cut.cavity.depth_m else cut.whole
        if region.is_empty:
            return None
        low, _, high, _ = region.bounds
        return self._drawn(row, [(x, row.from_m) for x in self._evenly(low, high)], own)

    def cut_on(self, row: LaidPass, cut: BodyCut, own: OwnMelts) -> BaseGeometry:
        low, _, high, _ = cut.outer.bounds
        return self._drawn(row, [(x, _top(cut.outer, x)) for x in self._evenly(low, high)], own)


def _top(area: BaseGeometry, x: float) -> float:
    _, low, _, high = area.bounds
    return float(area.intersection(shapely.LineString([(x, low - 1), (x, high + 1)])).bounds[3])
