"""A band that is wrapped round a form with its film."""

import math
from dataclasses import dataclass
from typing import Annotated, ClassVar, Literal

from umber_pebble.core.pieces.faults import ImpossiblePass
from umber_pebble.core.pieces.fields import Number
from umber_pebble.core.pieces.passes.base import First, InMould, LayStyle, PassKind
from umber_pebble.core.pieces.passes.shaped import Shaped
from umber_pebble.core.pieces.transfers import ShapedAs


@dataclass(frozen=True, slots=True)
class FilmBand(Shaped):
    """Round a form so wide across, its ends lapping by so much at the seam."""

    EACH: ClassVar = True
    form_m: Annotated[float, Number("m", 0.01, 0.6, 5.0, large=True)]
    overlap_m: Annotated[float, Number("m", 0.0, 0.1, 1.0)]
    forms_count: Annotated[int, Number("count", 1, 200, 1.0)]
    kind: Literal["band"] = "band"

    @classmethod
    def firsts(cls, first: First) -> dict[LayStyle | None, PassKind]:
        return {None: cls(0.06, 0.008, 4)}

    def shaped(self) -> ShapedAs:
        return ShapedAs("band", self.form_m, self.overlap_m, magnets=False)

    def length_m(self, thick_m: float) -> float:
        """Of a band so thick: once round its form, in the middle of it, and the seam [m]. Source: geometry"""
        return math.pi * (self.form_m + thick_m) + self.overlap_m

    def _fits(self, at: InMould, thick_m: float) -> None:
        needs, has = self.length_m(thick_m), max(at.hollow.cavity.bounds_m())
        if has < needs * (1 - 1e-9):
            raise ImpossiblePass("too_short", "it does not reach round its form with that seam", has, needs)
