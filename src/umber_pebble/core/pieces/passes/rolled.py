"""A paste rolled out and cut."""

from dataclasses import dataclass
from typing import Annotated, ClassVar, Literal

import shapely
from shapely.geometry.base import BaseGeometry

from umber_pebble.core.pieces.fields import Number, Tint
from umber_pebble.core.pieces.passes.base import First, LayStyle, PassKind
from umber_pebble.core.pieces.passes.modelled import Modelled, PasteKey, usual
from umber_pebble.core.texts import Hex


@dataclass(frozen=True, slots=True)
class Rolled(Modelled):
    """Rolled out and cut to a length and a width, as many layers of it on each other as come to a height."""

    CUT_OUT: ClassVar = True

    paste: PasteKey
    thick_m: Annotated[float, Number("m", 0.0005, 0.03, 0.5, large=True)]
    length_m: Annotated[float, Number("m", 0.005, 1.0, 5.0, large=True)]
    width_m: Annotated[float, Number("m", 0.005, 1.0, 5.0, large=True)]
    layers_count: Annotated[int, Number("count", 1, 40, 1.0)]
    dry: bool
    colour: Annotated[Hex | None, Tint()]
    kind: Literal["rolled"] = "rolled"

    @classmethod
    def firsts(cls, first: First) -> dict[LayStyle | None, PassKind]:
        return {None: cls("fondant", 0.003, 0.1, 0.06, 1, True, None)}

    @property
    def strokes(self) -> int:
        return round(usual("rolls")) + self.layers_count

    def volume_m3(self) -> float:
        return self.thick_m * self.length_m * self.width_m * self.layers_count

    def thinnest_m(self) -> float:
        return self.thick_m

    def front(self) -> BaseGeometry:
        return shapely.box(-self.length_m / 2, -self.width_m / 2, self.length_m / 2, self.width_m / 2)
