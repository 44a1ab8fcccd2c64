"""Lacquer sprayed over."""

from dataclasses import dataclass
from typing import Annotated, Literal

from umber_pebble.core.pieces.bought import Status
from umber_pebble.core.pieces.fields import Number, Size, Slide
from umber_pebble.core.pieces.finishes import Finish
from umber_pebble.core.pieces.passes.base import First, LayStyle, PassKind
from umber_pebble.core.pieces.passes.finishing import Finishing
from umber_pebble.core.texts import Name


@dataclass(frozen=True, slots=True)
class Lacquered(Finishing):
    """In so many light coats, one for satin, a second for gloss."""

    name: Name
    share_frac: Annotated[float, Number("frac", 0.01, 1.0, 5.0, Slide(0.05, Size(1.0)))]
    coats_count: Annotated[int, Number("count", 1, 4, 1.0, large=True)]
    status: Status
    kind: Literal["lacquered"] = "lacquered"

    @classmethod
    def firsts(cls, first: First) -> dict[LayStyle | None, PassKind]:
        return {None: cls("Edible lacquer", 1.0, 1, "food")}

    def finish(self, area_m2: float) -> Finish:
        return Finish("lacquer", self.coats_count, area_m2, self.status)
