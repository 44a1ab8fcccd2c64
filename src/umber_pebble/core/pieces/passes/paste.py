"""A paste pressed in by hand, by weight."""

from dataclasses import dataclass, replace
from typing import Annotated, ClassVar, Literal

from shapely.geometry.base import BaseGeometry

from umber_pebble.core.errors import require_range
from umber_pebble.core.materials.load import Material, material
from umber_pebble.core.pieces.cut import Cut
from umber_pebble.core.pieces.faults import ImpossiblePass
from umber_pebble.core.pieces.fields import Number, Tint
from umber_pebble.core.pieces.hollow import Hollow
from umber_pebble.core.pieces.layers import LaidPass, plain
from umber_pebble.core.pieces.melt_ref import OwnMelts
from umber_pebble.core.pieces.of_paste import OfPaste
from umber_pebble.core.pieces.passes.base import First, InMould, LayStyle, Pace, PassKind, Put
from umber_pebble.core.pieces.passes.modelled import PasteKey
from umber_pebble.core.texts import Hex


@dataclass(frozen=True, slots=True)
class Paste(PassKind):
    """A paste pressed in by hand, by weight: fondant, gum paste, modelling chocolate."""

    RANK: ClassVar = 5.0
    PACE: ClassVar[Pace] = "fill"
    paste: PasteKey
    kg: Annotated[float, Number("kg", 0.0, 5.0, 0.5, large=True, rolled=True)]
    colour: Annotated[Hex | None, Tint()]
    kind: Literal["paste"] = "paste"

    @classmethod
    def firsts(cls, first: First) -> dict[LayStyle | None, PassKind]:
        return {None: cls("fondant", 0.005, None)}

    def put(self) -> Put:
        return Put("paste", self.pressed_of().name)

    def of_paste(self) -> OfPaste:
        return OfPaste(self.paste, self.colour, cut_out=False)

    def pressed_of(self) -> Material:
        return material("pastes", self.paste)

    def lay(self, at: InMould) -> tuple[LaidPass, Hollow]:
        hollow, density = at.hollow, self.pressed_of().spread("density")
        volume = require_range(f"passes.{at.i}.kg", self.kg, 1e-5, 5.0) / density.likely
        room = hollow.free_m3(hollow.rim_m)
        if volume > room * (1 + 1e-9):
            raise ImpossiblePass("no_room", "more paste than there is room", self.kg, room * density.likely, "kg")
        level = hollow.level_of(min(volume, room))
        made = plain(at.i, self.kg, volume, level - hollow.level_m, hollow.level_m)
        after = replace(hollow, level_m=level, taken_m3=0.0, closed=level >= hollow.rim_m - 1e-6)
        return replace(made, to_m=level), after

    def cut(self, row: LaidPass, cut: Cut, own: OwnMelts) -> BaseGeometry:
        return cut.filled(row.from_m, row.to_m)
