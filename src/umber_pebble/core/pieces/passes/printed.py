"""A printed film or a texture, which is used again: laid into the empty mould, or pressed on what no longer runs and has not set."""

from dataclasses import dataclass
from typing import Annotated, ClassVar, Literal

from umber_pebble.core.pieces.bought import InIt
from umber_pebble.core.pieces.faults import ImpossiblePass
from umber_pebble.core.pieces.fields import Number
from umber_pebble.core.pieces.passes.base import First, LayStyle, PassKind, Place, Put, Soft
from umber_pebble.core.pieces.passes.dust import Strewn
from umber_pebble.core.pieces.transfers import Film
from umber_pebble.core.texts import Name


@dataclass(frozen=True, slots=True)
class Print(Strewn):
    """A printed film, its cocoa butter towards the melt, or a texture: laid into the empty mould, or pressed on the melt; a strip over so
    many in a row, or a piece for each; laid on all of it, on a corner, or folded to a V."""

    LIES: ClassVar = "top"
    name: Name
    on_wet: bool
    of: Literal["transfer", "texture"]
    made_for: Literal["food", "decoration"]
    in_row: Annotated[int, Number("count", 1, 12, 1.0)]
    laid: Literal["flat", "corner", "folded"]
    kind: Literal["print"] = "print"

    @classmethod
    def firsts(cls, first: First) -> dict[LayStyle | None, PassKind]:
        return {None: cls("Printed film", True, "transfer", "food", 1, "flat")}

    @property
    def soft(self) -> Soft | None:
        return "film" if self.on_wet else None

    @property
    def put_film(self) -> Film:
        over = self.in_row if self.laid == "flat" else 1
        return Film(over, self.of == "texture", self.made_for == "food", self.laid)

    def in_it(self) -> tuple[InIt, ...]:
        return (InIt(self.name, "food" if self.made_for == "food" else "no_contact", comes_off=False),)

    def put(self) -> Put:
        return Put("print", self.name, kg=0.0)

    def _sticks(self, at: Place) -> None:
        Strewn._sticks(self, at)
        wet = next(row for row in reversed(at.laid) if row.cast)
        melt = at.passes[wet.index].material(at.own)
        if self.on_wet and not melt.has("set_cut"):
            raise ImpossiblePass(
                "no_leather", f"{melt.name} is too hot while it takes a film: press it on chocolate or coating"
            )
