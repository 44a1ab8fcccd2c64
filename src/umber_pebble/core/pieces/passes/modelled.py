"""What is modelled of a paste by hand has in common: no mould, no melt."""

from typing import ClassVar, Literal

from shapely.geometry.base import BaseGeometry

from umber_pebble.core.materials.load import Material, material
from umber_pebble.core.pieces.faults import ImpossiblePass
from umber_pebble.core.pieces.hollow import Hollow
from umber_pebble.core.pieces.layers import LaidPass, plain
from umber_pebble.core.pieces.of_paste import OfPaste
from umber_pebble.core.pieces.passes.base import Ground, InMould, Pace, PassKind, Put
from umber_pebble.core.texts import Hex

PasteKey = Literal["fondant", "gum_paste", "modelling_chocolate", "marzipan"]


def usual(name: str) -> float:
    """What is usual of things modelled [1, count]. Source: from-memory"""
    return material("kitchen", "usual", "modelled").value(name)


class Modelled(PassKind):
    """Modelled of a paste: how much of it, how thin it is, and how it looks; dry: it dries on its form before it goes on."""

    __slots__ = ()
    ON: ClassVar[tuple[Ground, ...]] = ("hand",)
    RANK: ClassVar = 5.0
    PACE: ClassVar[Pace] = "fill"
    ROLLED: ClassVar[Literal["rolled", "rope"]] = "rolled"
    """Whether it is rolled out or rolled round: a paste bears either to its own thickness."""
    CUT_OUT: ClassVar[bool] = False
    """It is cut out of what is rolled out, the off-cuts kneaded in again."""
    paste: PasteKey
    colour: Hex | None
    dry: bool

    def volume_m3(self) -> float:
        """Of all of it [m3]."""
        raise NotImplementedError

    def thinnest_m(self) -> float:
        """Its thinnest place [m]."""
        raise NotImplementedError

    def front(self) -> BaseGeometry:
        """As it is seen, about its middle [m]."""
        raise NotImplementedError

    @property
    def dries(self) -> bool:
        return self.dry

    def pressed_of(self) -> Material:
        return material("pastes", self.paste)

    def of_paste(self) -> OfPaste:
        return OfPaste(self.paste, self.colour, self.CUT_OUT)

    def put(self) -> Put:
        return Put("paste", self.pressed_of().name)

    def lay(self, at: InMould) -> tuple[LaidPass, Hollow]:
        raise ImpossiblePass("wants_hand", "this is modelled by hand, in no mould")

    def lay_by_hand(self, i: int) -> LaidPass:
        of = self.pressed_of()
        least, thin = of.value(f"{self.ROLLED}_least"), self.thinnest_m()
        if thin < least:
            words = {"rolled": "rolled so thin it tears", "rope": "so thin a rope breaks under its own weight"}
            raise ImpossiblePass("too_thin", f"{of.name}: {words[self.ROLLED]}", thin, least)
        volume = self.volume_m3()
        return plain(i, volume * of.value("density"), volume, thin, 0.0)
