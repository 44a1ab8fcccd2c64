"""A comb, fork or skewer drawn through a melt while it is wet."""

from dataclasses import dataclass
from typing import Annotated, ClassVar, Literal

from umber_pebble.core.pieces.faults import ImpossiblePass
from umber_pebble.core.pieces.fields import Number
from umber_pebble.core.pieces.hollow import Hollow
from umber_pebble.core.pieces.layers import LaidPass
from umber_pebble.core.pieces.passes.base import First, InMould, LayStyle, PassKind, Put, Soft
from umber_pebble.core.pieces.passes.drawn import Drawn

DEEP_FRAC = 0.3
"""How deep it is first drawn, of the layer: shallow, never through to the paper. Source: common-practice"""


@dataclass(frozen=True, slots=True)
class Comb(Drawn):
    """Drawn so often over a casting, on a sheet over the whole of it, and so deep; how: through colours that lie side by side while they
    still run, or for lines that stay, once nothing runs back."""

    RANK: ClassVar = 8.3
    how: Literal["drag", "comb"]
    strokes_count: Annotated[int, Number("count", 1, 40, 1.0, large=True)]
    deep_m: Annotated[float, Number("m", 0.0002, 0.05, 0.1)]
    kind: Literal["comb"] = "comb"

    @classmethod
    def firsts(cls, first: First) -> dict[LayStyle | None, PassKind]:
        return {None: cls("drag", 4, max(DEEP_FRAC * first.depth_m, 0.0002))}

    @property
    def soft(self) -> Soft | None:
        return self.how

    @property
    def strokes(self) -> int:
        return self.strokes_count

    def put(self) -> Put:
        return Put("comb", f"{self.strokes} stroke{'s' if self.strokes > 1 else ''}", kg=0.0)

    def lay(self, at: InMould) -> tuple[LaidPass, Hollow]:
        colours = {ref for row in at.laid if row.cast for ref, _ in at.passes[row.index].melts()}
        if self.how == "drag" and len(colours) == 1:
            raise ImpossiblePass(
                "one_colour",
                "in one colour nothing is seen of it: lay a second beside it, or comb lines that stay",
            )
        return Drawn.lay(self, at)
