"""Dust in a spirit, painted on."""

from dataclasses import dataclass
from typing import Annotated, Literal

from umber_pebble.core.colour.flakes import DustSort
from umber_pebble.core.pieces.bought import Status
from umber_pebble.core.pieces.fields import Number, Size, Slide, Tint
from umber_pebble.core.pieces.finishes import Finish
from umber_pebble.core.pieces.passes.base import First, LayStyle, PassKind
from umber_pebble.core.pieces.passes.dusted import GOLD, PALE
from umber_pebble.core.pieces.passes.finishing import Finishing
from umber_pebble.core.texts import Hex, Name


@dataclass(frozen=True, slots=True)
class Painted(Finishing):
    """A dust of a sort and colour in a carrier of so much alcohol by volume, so much of the mix dust, painted on a share of what is seen."""

    name: Name
    dust: DustSort
    colour: Annotated[Hex | None, Tint()]
    share_frac: Annotated[float, Number("frac", 0.01, 1.0, 5.0, Slide(0.05, Size(1.0)))]
    coats_count: Annotated[int, Number("count", 1, 6, 1.0, large=True)]
    alcohol_frac: Annotated[float, Number("frac", 0.0, 0.97, 1.0)]
    dust_frac: Annotated[float, Number("frac", 0.1, 0.8, 5.0, Slide(0.2, Size(0.7)))]
    status: Status
    kind: Literal["painted"] = "painted"

    @classmethod
    def firsts(cls, first: First) -> dict[LayStyle | None, PassKind]:
        return {None: cls("Gold paint", "highlighter", GOLD, 0.3, 2, 0.95, 0.5, "unknown")}

    def finish(self, area_m2: float) -> Finish:
        return Finish(
            "paint",
            self.coats_count,
            area_m2,
            self.status,
            self.dust,
            self.colour or PALE,
            self.alcohol_frac,
            self.dust_frac,
        )
