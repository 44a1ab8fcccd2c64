"""A ribbon of paste: flat, as a ruffle, in pleats, or looped to a bow."""

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
class PasteRibbon(Modelled):
    """A ribbon rolled thin, by its length as it lies in the end: flat; gathered to a ruffle; in pleats; or as a bow, each half of its length a loop, laid double, and a knot round its middle."""

    CUT_OUT: ClassVar = True

    paste: PasteKey
    thick_m: Annotated[float, Number("m", 0.0005, 0.01, 0.1, large=True)]
    width_m: Annotated[float, Number("m", 0.003, 0.2, 1.0, large=True)]
    length_m: Annotated[float, Number("m", 0.005, 2.0, 5.0, large=True)]
    laid: Literal["flat", "ruffle", "pleats", "bow"]
    dry: bool
    colour: Annotated[Hex | None, Tint()]
    kind: Literal["ribbon"] = "ribbon"

    @classmethod
    def firsts(cls, first: First) -> dict[LayStyle | None, PassKind]:
        return {None: cls("gum_paste", 0.0015, 0.02, 0.05, "bow", True, None)}

    @property
    def strokes(self) -> int:
        return round(usual("rolls") + (0.0 if self.laid == "flat" else usual("lays")))

    def cut_m(self) -> float:
        """How long it is cut, the knot of a bow with it [m]. Source: common-practice"""
        knot = self.width_m if self.laid == "bow" else 0.0
        return self.length_m * usual(self.laid) + knot

    def volume_m3(self) -> float:
        return self.cut_m() * self.width_m * self.thick_m

    def thinnest_m(self) -> float:
        return self.thick_m

    def front(self) -> BaseGeometry:
        long, wide = self.length_m / 2, self.width_m / 2
        if self.laid != "bow":
            return shapely.box(-long, -wide, long, wide)
        turns = [2 * math.pi * i / 48 for i in range(48)]
        # two loops that meet in the middle
        loops = [(long * math.sin(t), wide * math.sin(2 * t) * 0.8) for t in turns]
        return shapely.union_all(
            [shapely.make_valid(shapely.Polygon(loops)), shapely.box(-wide / 3, -wide / 2, wide / 3, wide / 2)]
        )
