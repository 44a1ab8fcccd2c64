"""A heap of nuts or the like, bound by melt."""

import math
from dataclasses import dataclass
from typing import Annotated, ClassVar, Literal

from umber_pebble.core.errors import require_range
from umber_pebble.core.materials.load import Material, material
from umber_pebble.core.pieces.fields import Number, Size, Slide
from umber_pebble.core.pieces.films import cap_high_m, cap_wide_m
from umber_pebble.core.pieces.melt_ref import MeltRef
from umber_pebble.core.pieces.passes.base import First, Ground, LaidAs, LayStyle, PassKind, Put
from umber_pebble.core.pieces.passes.heap import Heap, Heaped, contact_rad
from umber_pebble.core.texts import Name


@dataclass(frozen=True, slots=True)
class Cluster(Heap):
    """A heap of nuts or the like, bound by a share of melt: the nuts, and the melt's share of the heap."""

    ON: ClassVar[tuple[Ground, ...]] = ("mould",)
    RANK: ClassVar = 7.0
    GRAINY: ClassVar = True
    name: Name
    melt: MeltRef
    inside_kg: Annotated[float, Number("kg", 0.0005, 2.0, 0.5, large=True)]
    melt_frac: Annotated[float, Number("frac", 0.05, 0.95, 1.0, Slide(0.1, Size(0.8)))]
    kind: Literal["cluster"] = "cluster"

    @classmethod
    def firsts(cls, first: First) -> dict[LayStyle | None, PassKind]:
        return {None: cls("Nuts", first.melt, 0.01, 0.35)}

    @property
    def laid_as(self) -> LaidAs:
        return "cluster"

    def put(self) -> Put:
        return Put("centre", self.name, kg=self.inside_kg)

    def beside_kg(self) -> float:
        return self.inside_kg

    def heaped(self, i: int, melt: Material) -> Heaped:
        """A cap on its contact angle."""
        require_range(f"passes.{i}.inside_kg", self.inside_kg, 1e-4, 2.0)
        require_range(f"passes.{i}.melt_frac", self.melt_frac, 0.05, 0.95)
        kg = self.inside_kg * self.melt_frac / (1 - self.melt_frac)
        heap = kg / melt.value("density_melt") + self.inside_kg / material("fillings", "nuts").value("density")
        wide = cap_wide_m(heap, contact_rad())
        area = math.pi * wide**2 / 4
        what = "share of the heap that binds what is in it"
        return Heaped(kg, cap_high_m(wide, contact_rad()), wide, area, heap / area, what)
