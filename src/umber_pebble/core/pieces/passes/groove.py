"""Grooves drawn into the back of what is level, along which it then breaks."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Annotated, ClassVar, Literal

import shapely
from shapely.geometry.base import BaseGeometry

from umber_pebble.core.pieces.cut import Cut
from umber_pebble.core.pieces.fields import Number
from umber_pebble.core.pieces.layers import LaidPass
from umber_pebble.core.pieces.melt_ref import OwnMelts
from umber_pebble.core.pieces.passes.base import First, LayStyle, PassKind, Put, Soft
from umber_pebble.core.pieces.passes.drawn import Drawn

DEEP_FRAC = 0.4
"""How deep a groove is first drawn, of the layer. Source: from-memory"""


@dataclass(frozen=True, slots=True)
class Groove(Drawn):
    """So many lines across the back, drawn with a point or the back of a knife while it is leathery: how wide and how deep."""

    RANK: ClassVar = 8.7
    count: Annotated[int, Number("count", 1, 40, 1.0, large=True)]
    wide_m: Annotated[float, Number("m", 0.0005, 0.01, 0.5)]
    deep_m: Annotated[float, Number("m", 0.0002, 0.05, 0.1)]
    kind: Literal["groove"] = "groove"

    @classmethod
    def firsts(cls, first: First) -> dict[LayStyle | None, PassKind]:
        return {None: cls(3, 0.001, max(DEEP_FRAC * first.depth_m, 0.0002))}

    @property
    def soft(self) -> Soft | None:
        return "groove"

    @property
    def strokes(self) -> int:
        return self.count

    def put(self) -> Put:
        return Put("groove", f"{self.count} groove{'s' if self.count > 1 else ''}", kg=0.0)

    def cut(self, row: LaidPass, cut: Cut, own: OwnMelts) -> BaseGeometry:
        """As notches from the back, evenly across."""
        west, _, east, _ = cut.whole.bounds
        every = (east - west) / (self.count + 1)
        at = [west + every * (i + 1) for i in range(self.count)]
        return shapely.union_all(_notches(at, row.from_m, self.wide_m, self.deep_m))


def _notches(at: Sequence[float], top_m: float, wide_m: float, deep_m: float) -> list[BaseGeometry]:
    half = wide_m / 2
    return [shapely.Polygon([(x - half, top_m), (x + half, top_m), (x, top_m - deep_m)]) for x in at]
