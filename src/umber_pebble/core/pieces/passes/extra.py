"""Sweets, pearls, boards, cups, papers: bought as they are."""

from dataclasses import dataclass
from typing import Annotated, ClassVar, Literal

import shapely
from shapely.geometry.base import BaseGeometry

from umber_pebble.core.pieces.bought import Bought, Status, usual_row
from umber_pebble.core.pieces.faults import ImpossiblePass
from umber_pebble.core.pieces.fields import Number
from umber_pebble.core.pieces.hollow import Hollow
from umber_pebble.core.pieces.layers import LaidPass
from umber_pebble.core.pieces.passes.base import First, InMould, LayStyle, Pace, PassKind, Soft
from umber_pebble.core.pieces.passes.dust import ON_WET
from umber_pebble.core.pieces.passes.things import Thing
from umber_pebble.core.texts import Name


@dataclass(frozen=True, slots=True)
class Extra(Thing):
    """So many, each of a weight and so wide; on the wet melt, or in the cavity before it, where they take the melt's room; by itself where it is in
    no mould."""

    PACE: ClassVar[Pace] = "stick"
    name: Name
    sort: Literal["sweet", "pearls", "board", "cup", "paper", "other"]
    count: Annotated[int, Number("count", 1, 200, 1.0, large=True)]
    each_kg: Annotated[float, Number("kg", 0.0, 1.0, 0.1)]
    wide_m: Annotated[float, Number("m", 0.0005, 0.6, 1.0)]
    on_wet: bool
    status: Status
    kind: Literal["extra"] = "extra"

    @classmethod
    def firsts(cls, first: First) -> dict[LayStyle | None, PassKind]:
        return {
            None: cls("Sugar pearls", "pearls", 3, 0.0001, 0.004, True, "food"),
            "sweets": cls("Sweet", "sweet", 1, 0.003, 0.015, True, "food"),
            "set_out": cls("Board", "board", 1, 0.02, 0.1, True, "contact"),
        }

    def rank(self, beside: object) -> tuple[float, float]:
        return (ON_WET if self.on_wet else 4.0), 0.0

    @property
    def soft(self) -> Soft | None:
        return "sprinkle" if self.on_wet else None

    def weight_kg(self) -> float:
        return self.count * self.each_kg

    def bought(self) -> Bought:
        return Bought(self.sort, self.count, self.status)

    def front(self) -> BaseGeometry:
        return shapely.Point(0, 0).buffer(self.wide_m / 2, quad_segs=24)

    def lay(self, at: InMould) -> tuple[LaidPass, Hollow]:
        made = self._told(at.i, at.hollow.level_m)
        if self.on_wet:
            if not at.melted:
                raise ImpossiblePass("nothing_wet", "there is no melt yet for it to stick to")
            return made, at.hollow
        volume = self.weight_kg() / usual_row(self.sort).value("density")
        return made, at.hollow.with_in_it(volume, self.name.lower())
