"""Lines piped over a drawing."""

from dataclasses import dataclass, replace
from typing import ClassVar, Literal

from shapely.geometry.base import BaseGeometry

from umber_pebble.core.moulds.traced import covered, traced_of
from umber_pebble.core.pieces.cut import Cut
from umber_pebble.core.pieces.faults import ImpossiblePass
from umber_pebble.core.pieces.hollow import Hollow
from umber_pebble.core.pieces.layers import Extent, LaidPass, melted
from umber_pebble.core.pieces.melt_ref import MeltRef, OwnMelts
from umber_pebble.core.pieces.passes.base import First, Ground, InMould, LaidAs, LayStyle, PassKind


@dataclass(frozen=True, slots=True)
class Lines(PassKind):
    """All lines of a drawing, out of the opening it is drawn for; those that are marked once more when the first have set."""

    RANK: ClassVar = 6.0
    ON: ClassVar[tuple[Ground, ...]] = ("drawing",)
    LIES: ClassVar = "wall"
    melt: MeltRef
    kind: Literal["lines"] = "lines"

    @classmethod
    def firsts(cls, first: First) -> dict[LayStyle | None, PassKind]:
        return {None: cls(first.melt)}

    def melts(self) -> tuple[tuple[MeltRef, float], ...]:
        return ((self.melt, 1.0),)

    @property
    def laid_as(self) -> LaidAs:
        return "lines"

    def lay(self, at: InMould) -> tuple[LaidPass, Hollow]:
        of, hollow = traced_of(at.hollow.cavity.shape), at.hollow
        if of is None:
            raise ImpossiblePass("wants_lines", "lines are piped over a drawing: choose one, or drizzle them")
        if hollow.level_m > 0:
            raise ImpossiblePass("not_empty", "its lines are piped already: mark those that are piped twice")
        area = float(covered(of).area)
        made = melted(
            at.i,
            self.material(at.own),
            Extent(of.volume_m3, of.volume_m3 / area, area, 0.0, of.depth_m),
            "length of all lines x cut of the opening",
        )
        return made, replace(hollow, level_m=of.depth_m)

    def cut(self, row: LaidPass, cut: Cut, own: OwnMelts) -> BaseGeometry | None:
        return cut.whole
