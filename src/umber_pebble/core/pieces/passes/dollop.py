"""Dollops."""

import math
from dataclasses import dataclass
from typing import Annotated, ClassVar, Literal

from umber_pebble.core.errors import require_range
from umber_pebble.core.materials.load import Material
from umber_pebble.core.pieces.fields import Number
from umber_pebble.core.pieces.films import dab
from umber_pebble.core.pieces.melt_ref import MeltRef
from umber_pebble.core.pieces.passes.base import First, LaidAs, LayStyle, PassKind
from umber_pebble.core.pieces.passes.heap import Heap, Heaped


@dataclass(frozen=True, slots=True)
class Dollop(Heap):
    """Dollops: how many, and how wide."""

    RANK: ClassVar = 8.5
    LIES: ClassVar = "top"
    melt: MeltRef
    count: Annotated[int, Number("count", 1, 500, 1)]
    diameter_m: Annotated[float, Number("m", 0.002, 0.1, 0.5, large=True)]
    kind: Literal["dollop"] = "dollop"

    @classmethod
    def firsts(cls, first: First) -> dict[LayStyle | None, PassKind]:
        return {None: cls(first.melt, 3, 0.012)}

    @property
    def laid_as(self) -> LaidAs:
        return "dollop"

    def step(self) -> str:
        return "dollops"

    def heaped(self, i: int, melt: Material) -> Heaped:
        """As its yield value lets it lie."""
        require_range(f"passes.{i}.count", self.count, 1, 500)
        lies, wide = dab(melt, self.diameter_m, tapped=True), self.diameter_m
        density = melt.value("density_melt")
        kg, area = self.count * lies.volume.likely * density, self.count * math.pi * wide**2 / 4
        what = "as it spreads on its yield value, tapped, x how many"
        return Heaped(kg, lies.high.likely, wide, area, kg / density / area, what)

    def many(self, across_m: float) -> int:
        return max(1, min(round(math.sqrt(self.count)), int(across_m / self.diameter_m)))
