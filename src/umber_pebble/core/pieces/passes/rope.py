"""A rope of paste, of one strand or several."""

import math
from dataclasses import dataclass
from typing import Annotated, ClassVar, Literal

import shapely
from shapely.geometry.base import BaseGeometry

from umber_pebble.core.pieces.fields import Number, Tint
from umber_pebble.core.pieces.passes.base import First, LayStyle, PassKind
from umber_pebble.core.pieces.passes.modelled import Modelled, PasteKey, usual
from umber_pebble.core.texts import Hex


@dataclass(frozen=True, slots=True)
class Rope(Modelled):
    """A rope by the thickness of a strand and its length as it lies; several strands are twisted, once round in so many of their
    thickness."""

    ROLLED: ClassVar = "rope"
    paste: PasteKey
    thick_m: Annotated[float, Number("m", 0.001, 0.05, 0.5, large=True)]
    length_m: Annotated[float, Number("m", 0.005, 2.0, 5.0, large=True)]
    strands_count: Annotated[int, Number("count", 1, 6, 1.0)]
    dry: bool
    colour: Annotated[Hex | None, Tint()]
    kind: Literal["rope"] = "rope"

    @classmethod
    def firsts(cls, first: First) -> dict[LayStyle | None, PassKind]:
        return {None: cls("fondant", 0.006, 0.15, 2, True, None)}

    @property
    def strokes(self) -> int:
        return round(usual("twists") + usual("strand") * self.strands_count)

    def strand_m(self) -> float:
        """How long a strand is before it is twisted: a helix about the middle of the rope [m]. Source: geometry"""
        if self.strands_count == 1:
            return self.length_m
        # strands side by side on a circle touch each other
        radius = self.thick_m / 2 / math.sin(math.pi / self.strands_count)
        return self.length_m * math.hypot(1.0, 2 * math.pi * radius / (usual("winds") * self.thick_m))

    def volume_m3(self) -> float:
        return self.strands_count * self.strand_m() * math.pi * self.thick_m**2 / 4

    def thinnest_m(self) -> float:
        return self.thick_m

    def front(self) -> BaseGeometry:
        half, wide = self.length_m / 2, self.thick_m / 2 * (1 if self.strands_count == 1 else 2)
        return shapely.LineString([(-half, 0), (half, 0)]).buffer(wide, cap_style="flat")
