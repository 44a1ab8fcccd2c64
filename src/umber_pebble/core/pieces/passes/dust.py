"""Dust or glitter laid into the empty mould, or sprinkles and pieces on the wet melt: grams a casting."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Annotated, ClassVar, Literal

from shapely.geometry.base import BaseGeometry

from umber_pebble.core.pieces.bought import InIt, Status
from umber_pebble.core.pieces.faults import ImpossiblePass
from umber_pebble.core.pieces.fields import Number
from umber_pebble.core.pieces.hollow import Hollow
from umber_pebble.core.pieces.layers import LaidPass, plain
from umber_pebble.core.pieces.passes.base import (
    First,
    Ground,
    InMould,
    LayStyle,
    OnBody,
    Pace,
    PassKind,
    Place,
    Put,
    Soft,
)
from umber_pebble.core.texts import Name

ON_WET = 8.0
"""What is strewn on a wet melt comes after it."""


class Strewn(PassKind):
    """What goes into the empty mould, or on the wet melt."""

    __slots__ = ()
    ON: ClassVar[tuple[Ground, ...]] = ("mould", "body", "drawing")
    RANK: ClassVar = 0.0
    PACE: ClassVar[Pace] = "fill"
    ON_TOP: ClassVar = True
    on_wet: bool

    def weight_kg(self) -> float:
        return 0.0

    def rank(self, beside: Sequence[PassKind]) -> tuple[float, float]:
        return (ON_WET if self.on_wet else self.RANK), 0.0

    @property
    def soft(self) -> Soft | None:
        return "sprinkle" if self.on_wet else None

    def lay(self, at: InMould) -> tuple[LaidPass, Hollow]:
        if not self.on_wet and at.melted:
            raise ImpossiblePass("not_empty", "dust goes into the empty mould: move it before the first melt")
        if self.on_wet:
            self._sticks(at)
        return plain(at.i, self.weight_kg(), 0.0, 0.0, at.hollow.level_m), at.hollow

    def lay_on(self, at: OnBody) -> tuple[LaidPass, tuple[BaseGeometry, ...]]:
        self._sticks(at)
        return plain(at.i, self.weight_kg(), 0.0, 0.0, at.body.high_m), at.outer

    def _sticks(self, at: Place) -> None:
        if not at.melted:
            raise ImpossiblePass("nothing_wet", "there is no melt yet for it to stick to")


@dataclass(frozen=True, slots=True)
class Dust(Strewn):
    """Dust or glitter in the empty mould, or sprinkles and pieces on the wet melt."""

    LIES: ClassVar = "wall"
    name: Name
    kg: Annotated[float, Number("kg", 0.0, 5.0, 0.1)]
    on_wet: bool
    status: Status
    kind: Literal["dust"] = "dust"

    @classmethod
    def firsts(cls, first: First) -> dict[LayStyle | None, PassKind]:
        return {None: cls("Sprinkles", 0.0005, True, "food")}

    def in_it(self) -> tuple[InIt, ...]:
        return (InIt(self.name, self.status, comes_off=False),)

    def weight_kg(self) -> float:
        return self.kg

    def put(self) -> Put:
        return Put("dust", self.name)
