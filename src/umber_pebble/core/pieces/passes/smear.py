"""A leaf or petal smeared on a film with a spoon or knife."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Annotated, ClassVar, Literal

import shapely
from shapely.geometry.base import BaseGeometry

from umber_pebble.core.materials.load import Material
from umber_pebble.core.pieces.faults import ImpossiblePass
from umber_pebble.core.pieces.fields import Number
from umber_pebble.core.pieces.hollow import Hollow
from umber_pebble.core.pieces.layers import LaidPass
from umber_pebble.core.pieces.melt_ref import MeltRef
from umber_pebble.core.pieces.passes.base import First, Ground, InMould, LaidAs, LayStyle, PassKind
from umber_pebble.core.pieces.passes.heap import Heap, Heaped, Spot

LENS = 2 / 3
"""What two arcs that meet in points cover of the length and width they lie in."""


@dataclass(frozen=True, slots=True)
class Smear(Heap):
    """As long and wide as it lies, pointed at both ends, so thick; gap_m: so wide a vein is drawn out of it with a stick, along all of it."""

    ON: ClassVar[tuple[Ground, ...]] = ("mould",)
    RANK: ClassVar = 7.0
    melt: MeltRef
    length_m: Annotated[float, Number("m", 0.01, 0.3, 1.0, large=True)]
    width_m: Annotated[float, Number("m", 0.005, 0.15, 1.0, large=True)]
    thick_m: Annotated[float, Number("m", 0.0005, 0.01, 0.1)]
    gap_m: Annotated[float, Number("m", 0.0, 0.01, 0.5)]
    kind: Literal["smear"] = "smear"

    @classmethod
    def firsts(cls, first: First) -> dict[LayStyle | None, PassKind]:
        return {None: cls(first.melt, 0.06, 0.025, 0.0015, 0.002)}

    @property
    def laid_as(self) -> LaidAs:
        return "smear"

    @property
    def strokes(self) -> int:
        return 1 if self.gap_m == 0 else 2

    def lay(self, at: InMould) -> tuple[LaidPass, Hollow]:
        if self.length_m > (most := max(at.hollow.cavity.bounds_m())):
            raise ImpossiblePass("too_wide", "it is longer than what it lies on", self.length_m, most)
        return Heap.lay(self, at)

    def area_m2(self) -> float:
        """What it covers [m2]. Source: geometry"""
        return LENS * self.length_m * self.width_m - self.gap_m * self.length_m

    def heaped(self, i: int, melt: Material) -> Heaped:
        """As thick as it is spread."""
        most = LENS * self.width_m / 2
        if self.gap_m >= most:
            raise ImpossiblePass("too_wide", "of a vein so wide nothing is left beside it", self.gap_m, most)
        area = self.area_m2()
        kg = area * self.thick_m * melt.value("density_melt")
        return Heaped(
            kg, self.thick_m, self.width_m, area, self.thick_m, "two thirds of length x width, less the vein"
        )

    def shapes(self, spots: Sequence[Spot], high_m: float, wide_m: float) -> list[BaseGeometry]:
        """In a cut across it, the vein left open."""
        half, gap = wide_m / 2, self.gap_m / 2
        return [
            shapely.union_all(
                [shapely.box(x - half, z, x - gap, z + high_m), shapely.box(x + gap, z, x + half, z + high_m)]
            )
            for x, z in spots
        ]
