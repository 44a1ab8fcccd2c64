"""A ball of paste."""

import math
from dataclasses import dataclass
from typing import Annotated, ClassVar, Literal

import shapely
from shapely.geometry.base import BaseGeometry

from umber_pebble.core.pieces.fields import Number, Tint
from umber_pebble.core.pieces.passes.base import First, LayStyle, PassKind
from umber_pebble.core.pieces.passes.modelled import Modelled, PasteKey
from umber_pebble.core.texts import Hex


@dataclass(frozen=True, slots=True)
class Ball(Modelled):
    """A ball rolled between the palms, by its diameter."""

    ROLLED: ClassVar = "rope"
    paste: PasteKey
    diameter_m: Annotated[float, Number("m", 0.002, 0.15, 1.0, large=True)]
    dry: bool
    colour: Annotated[Hex | None, Tint()]
    kind: Literal["ball"] = "ball"

    @classmethod
    def firsts(cls, first: First) -> dict[LayStyle | None, PassKind]:
        return {None: cls("fondant", 0.02, False, None)}

    def volume_m3(self) -> float:
        return math.pi * self.diameter_m**3 / 6

    def thinnest_m(self) -> float:
        return self.diameter_m

    def front(self) -> BaseGeometry:
        return shapely.Point(0, 0).buffer(self.diameter_m / 2, quad_segs=24)
