"""Ribbon, lace or paper that goes round a form at its widest."""

from dataclasses import dataclass
from typing import Annotated, ClassVar, Literal

import shapely
from shapely.geometry.base import BaseGeometry

from umber_pebble.core.pieces.bought import Bought, Status, round_m, wetted
from umber_pebble.core.pieces.fields import Number
from umber_pebble.core.pieces.passes.base import First, Ground, LayStyle, PassKind
from umber_pebble.core.pieces.passes.things import Thing
from umber_pebble.core.texts import Name


@dataclass(frozen=True, slots=True)
class Trim(Thing):
    """Cut to go once round a form so wide across, its ends lapping; so high."""

    ON: ClassVar[tuple[Ground, ...]] = ("hand",)
    name: Name
    sort: Literal["ribbon", "lace", "paper"]
    count: Annotated[int, Number("count", 1, 20, 1.0)]
    form_m: Annotated[float, Number("m", 0.01, 0.6, 5.0, large=True)]
    overlap_m: Annotated[float, Number("m", 0.0, 0.1, 1.0)]
    high_m: Annotated[float, Number("m", 0.002, 0.2, 1.0)]
    status: Status
    kind: Literal["trim"] = "trim"

    @classmethod
    def firsts(cls, first: First) -> dict[LayStyle | None, PassKind]:
        return {
            None: cls("Ribbon", "ribbon", 1, 0.07, 0.01, 0.015, "unknown"),
            "lace": cls("Sugar lace", "lace", 1, 0.07, 0.005, 0.02, "food"),
        }

    def bought(self) -> Bought:
        softens, dissolves = wetted(self.sort) or (None, None)
        long = round_m(self.form_m, self.overlap_m)
        return Bought(self.sort, self.count, self.status, long, softens=softens, dissolves=dissolves)

    def front(self) -> BaseGeometry:
        return shapely.box(-self.form_m / 2, -self.high_m / 2, self.form_m / 2, self.high_m / 2)
