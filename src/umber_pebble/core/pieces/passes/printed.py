"""A printed sheet or a texture: laid into the empty mould, or on the wet melt."""

from dataclasses import dataclass
from typing import ClassVar, Literal

from umber_pebble.core.pieces.passes.base import First, Ground, LayStyle, PassKind, Put
from umber_pebble.core.pieces.passes.dust import Strewn
from umber_pebble.core.texts import Name


@dataclass(frozen=True, slots=True)
class Print(Strewn):
    """A printed sheet or a texture: laid into the empty mould, or on the wet melt."""

    ON: ClassVar[Ground] = "mould"
    LIES: ClassVar = "top"
    name: Name
    on_wet: bool
    kind: Literal["print"] = "print"

    @classmethod
    def firsts(cls, first: First) -> dict[LayStyle | None, PassKind]:
        return {None: cls("Printed sheet", False)}

    def put(self) -> Put:
        return Put("print", self.name)
