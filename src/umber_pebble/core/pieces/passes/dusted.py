"""Dust brushed on dry."""

from dataclasses import dataclass
from typing import Annotated, Literal

from umber_pebble.core.colour.flakes import DustSort
from umber_pebble.core.pieces.bought import Status
from umber_pebble.core.pieces.fields import Number, Size, Slide, Tint
from umber_pebble.core.pieces.finishes import Finish
from umber_pebble.core.pieces.passes.base import First, LayStyle, PassKind
from umber_pebble.core.pieces.passes.finishing import Finishing
from umber_pebble.core.texts import Hex, Name

GOLD, PALE = "#d4a72c", "#f4f4f2"
"""Of gold, and of a dust that has no colour but white."""


@dataclass(frozen=True, slots=True)
class DryDust(Finishing):
    """A dust of a sort and colour, brushed on a share of what is seen, in so many coats."""

    name: Name
    dust: DustSort
    colour: Annotated[Hex | None, Tint()]
    share_frac: Annotated[float, Number("frac", 0.01, 1.0, 5.0, Slide(0.05, Size(1.0)))]
    coats_count: Annotated[int, Number("count", 1, 6, 1.0, large=True)]
    status: Status
    kind: Literal["dusted"] = "dusted"

    @classmethod
    def firsts(cls, first: First) -> dict[LayStyle | None, PassKind]:
        return {None: cls("Gold dust", "highlighter", GOLD, 1.0, 2, "unknown")}

    def finish(self, area_m2: float) -> Finish:
        return Finish("dust", self.coats_count, area_m2, self.status, self.dust, self.colour or PALE)
