"""A solid fill to a level, of one melt or marbled with others."""

from dataclasses import dataclass, replace
from typing import Annotated, ClassVar, Literal

from shapely.geometry.base import BaseGeometry

from umber_pebble.core.moulds.cavity import open_m2, volume_m3
from umber_pebble.core.pieces.cast import amounts
from umber_pebble.core.pieces.cut import Cut
from umber_pebble.core.pieces.faults import ImpossiblePass
from umber_pebble.core.pieces.fields import Number, Only, Size, Slide, Told
from umber_pebble.core.pieces.hollow import THINNEST_M, Hollow, room
from umber_pebble.core.pieces.in_the_round import body_of
from umber_pebble.core.pieces.layers import Extent, LaidPass, melted
from umber_pebble.core.pieces.melt_ref import MeltRef, OwnMelts
from umber_pebble.core.pieces.passes.base import Edge, First, InMould, LaidAs, LayStyle, PassKind
from umber_pebble.core.pieces.passes.marbled import Marbled, Others


@dataclass(frozen=True, slots=True)
class Fill(Marbled):
    """A solid fill to a level; marbled with shares of other melts, stirred in by a few turns, the good side first, or piped in stripes
    side by side out of bags or nozzles so wide."""

    RANK: ClassVar = 6.0
    COVERS: ClassVar = True
    SOLVED_BY: ClassVar = "level_m"
    EDGE: ClassVar = Edge("level_m", "level")
    SOLID: ClassVar = True
    melt: MeltRef
    level_m: Annotated[float, Number("m", 0.0002, 0.1, 0.1, Slide(0.0002, Size(0.1, 1.0)), large=True)]
    others: Others
    stripes_m: Annotated[
        float | None, Told(first=Size(0.004)), Number("m", 0.0008, 0.02, 0.5, bore=True), Only("others")
    ]
    kind: Literal["fill"] = "fill"

    @classmethod
    def firsts(cls, first: First) -> dict[LayStyle | None, PassKind]:
        return {None: cls(first.melt, Size(0.1, 1.0).at(first.depth_m), (), None)}

    @property
    def laid_as(self) -> LaidAs:
        return "fill" if self.piped_m is None else "stripes"

    @property
    def piped_m(self) -> float | None:
        return self.stripes_m if len(self.melts()) > 1 else None

    def lay(self, at: InMould) -> tuple[LaidPass, Hollow]:
        hollow, level, melt = at.hollow, self.level_m, self.material(at.own)
        rim = hollow.rim_m
        self.check_shares(at.i)
        if level > rim * (1 + 1e-9):
            raise ImpossiblePass("above_rim", "the fill stands above the rim", level, rim)
        if level <= hollow.level_m or level - hollow.lift_m < THINNEST_M:
            raise ImpossiblePass("no_room", "it ends below what is there already", level, hollow.level_m)
        level, pushed = min(level, rim), at.after and at.after.pushed_in_m3
        hollow = replace(hollow, taken_m3=hollow.taken_m3 + (pushed or 0.0))
        if hollow.shell is None and hollow.level_m == 0.0:
            most = room("put_in") * volume_m3(hollow.cavity, level)
            if hollow.taken_m3 > most:
                raise ImpossiblePass("too_large", "what is in it leaves no room", hollow.taken_m3, most, "m3")
            cast = amounts(hollow.cavity, level, melt, hollow.taken_m3)
            made = LaidPass(
                at.i,
                cast.finished,
                cast.poured,
                cast.volume.value.likely,
                cast.thickness.likely,
                0.0,
                level,
                cast,
                (),
                body=body_of(hollow.cavity, level),
            )
        else:
            area = open_m2(hollow.cavity, level - hollow.lift_m)
            volume = hollow.free_m3(level)
            if volume < THINNEST_M * area:
                words = "what is in it already leaves no room below this level"
                raise ImpossiblePass("too_thin", words, volume / area, THINNEST_M)
            made = melted(
                at.i,
                melt,
                Extent(volume, volume / area, area, hollow.level_m, level),
                "hollow up to the level",
                heap_m2=area if level >= rim - 1e-9 else 0.0,
            )
        return made, replace(hollow, level_m=level, taken_m3=0.0, closed=level >= rim - 1e-9)

    def cut(self, row: LaidPass, cut: Cut, own: OwnMelts) -> BaseGeometry:
        return cut.filled(row.from_m, row.to_m)
