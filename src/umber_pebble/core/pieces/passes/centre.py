"""A solid centre: a nut, a fruit, a ball of paste."""

from dataclasses import dataclass
from typing import Annotated, ClassVar, Literal

from umber_pebble.core.pieces.fields import Number
from umber_pebble.core.pieces.hollow import Hollow
from umber_pebble.core.pieces.layers import LaidPass, plain
from umber_pebble.core.pieces.passes.base import First, InMould, LayStyle, Pace, PassKind, Put
from umber_pebble.core.texts import Name


@dataclass(frozen=True, slots=True)
class Centre(PassKind):
    """A solid centre that displaces melt: its grams, and what it displaces."""

    RANK: ClassVar = 4.0
    PACE: ClassVar[Pace] = "fill"
    name: Name
    kg: Annotated[float, Number("kg", 0.0, 5.0, 0.1)]
    volume_m3: Annotated[float, Number("m3", 0.0, 0.005, 0.1)]
    kind: Literal["centre"] = "centre"

    @classmethod
    def firsts(cls, first: First) -> dict[LayStyle | None, PassKind]:
        return {None: cls("Nut", 0.001, 1e-6)}

    def put(self) -> Put:
        return Put("centre", self.name)

    def lay(self, at: InMould) -> tuple[LaidPass, Hollow]:
        made = plain(at.i, self.kg, self.volume_m3, 0.0, at.hollow.level_m)
        return made, at.hollow.with_in_it(self.volume_m3, "centre")
