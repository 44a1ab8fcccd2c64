"""A rose of paste, petal by petal."""

import math
from dataclasses import dataclass
from typing import Annotated, Literal

import shapely
import shapely.affinity
from shapely.geometry.base import BaseGeometry

from umber_pebble.core.pieces.fields import Number, Tint
from umber_pebble.core.pieces.passes.base import First, LayStyle, PassKind
from umber_pebble.core.pieces.passes.modelled import Modelled, PasteKey, usual
from umber_pebble.core.texts import Hex


@dataclass(frozen=True, slots=True)
class Rose(Modelled):
    """A cone as high as a petal is wide, and so many petals pressed thin out of discs, laid round it."""

    paste: PasteKey
    petals_count: Annotated[int, Number("count", 1, 30, 1.0, large=True)]
    petal_m: Annotated[float, Number("m", 0.005, 0.1, 1.0, large=True)]
    thick_m: Annotated[float, Number("m", 0.0005, 0.005, 0.1)]
    dry: bool
    colour: Annotated[Hex | None, Tint()]
    kind: Literal["rose"] = "rose"

    @classmethod
    def firsts(cls, first: First) -> dict[LayStyle | None, PassKind]:
        return {None: cls("gum_paste", 9, 0.025, 0.0015, True, None)}

    @property
    def strokes(self) -> int:
        return round(usual("cone") + usual("petal") * self.petals_count)

    def volume_m3(self) -> float:
        cone = math.pi * (self.petal_m / 4) ** 2 * self.petal_m / 3
        return cone + self.petals_count * math.pi * self.petal_m**2 / 4 * self.thick_m

    def thinnest_m(self) -> float:
        return self.thick_m

    def front(self) -> BaseGeometry:
        petal = shapely.Point(self.petal_m / 3, 0).buffer(self.petal_m / 2, quad_segs=16)
        ring = max(3, min(self.petals_count, 6))
        return shapely.union_all(
            [shapely.affinity.rotate(petal, 360 / ring * k, origin=(0, 0)) for k in range(ring)]
        )
