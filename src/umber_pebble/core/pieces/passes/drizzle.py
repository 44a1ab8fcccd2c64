"""Lines let fall or piped."""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Annotated, ClassVar, Literal

import shapely
from shapely.geometry.base import BaseGeometry

from umber_pebble.core.materials.load import Material
from umber_pebble.core.pieces.fields import Number
from umber_pebble.core.pieces.films import line_kg
from umber_pebble.core.pieces.melt_ref import MeltRef
from umber_pebble.core.pieces.passes.base import First, LaidAs, LayStyle, PassKind
from umber_pebble.core.pieces.passes.heap import Heap, Heaped, Spot


@dataclass(frozen=True, slots=True)
class Drizzle(Heap):
    """Lines over what is there: all their length, and how thick."""

    RANK: ClassVar = 8.5
    LIES: ClassVar = "top"
    EASED_OFF: ClassVar = True
    melt: MeltRef
    length_m: Annotated[float, Number("m", 0.005, 100.0, 10.0, large=True)]
    bore_m: Annotated[float, Number("m", 0.0005, 0.02, 0.1, bore=True)]
    kind: Literal["drizzle"] = "drizzle"

    @classmethod
    def firsts(cls, first: First) -> dict[LayStyle | None, PassKind]:
        return {None: cls(first.melt, 0.3, 0.0015)}

    @property
    def laid_as(self) -> LaidAs:
        return "drizzle"

    def heaped(self, i: int, melt: Material) -> Heaped:
        """As round as it runs."""
        kg = line_kg(self.length_m, self.bore_m, melt.value("density_melt"))
        wide = self.bore_m
        return Heaped(kg, wide, wide, self.length_m * wide, math.pi / 4 * wide, "length x cut of the line")

    def many(self, across_m: float) -> int:
        return max(1, min(round(self.length_m / across_m), int(across_m / self.bore_m)))

    def shapes(self, spots: Sequence[Spot], high_m: float, wide_m: float) -> list[BaseGeometry]:
        return [shapely.Point(x, z + high_m / 2).buffer(high_m / 2) for x, z in spots]
