"""An even layer on wall and floor, spread, or filled and tipped out."""

from dataclasses import dataclass, replace
from typing import Annotated, ClassVar, Literal

from shapely.geometry.base import BaseGeometry

from umber_pebble.core.errors import require_range
from umber_pebble.core.moulds.cavity import volume_m3, wetted_m2
from umber_pebble.core.moulds.inset import thickest_m
from umber_pebble.core.pieces.cut import Cut, band
from umber_pebble.core.pieces.faults import ImpossiblePass
from umber_pebble.core.pieces.fields import Number, Only, Size, Slide
from umber_pebble.core.pieces.hollow import THICKEST_M, THINNEST_M, Hollow, inside, room
from umber_pebble.core.pieces.layers import Extent, LaidPass, melted
from umber_pebble.core.pieces.melt_ref import MeltRef, OwnMelts
from umber_pebble.core.pieces.passes.base import Edge, First, InMould, LaidAs, LayStyle, PassKind
from umber_pebble.core.pieces.passes.marbled import Marbled, Others

SIDES_FROM_FRAC = 1 / 3


@dataclass(frozen=True, slots=True)
class Shell(Marbled):
    """An even layer on the wall, a second shell on the first; emptied: the cavity is filled and tipped out, otherwise it is spread by
    spoon or brush; sides: only up the sides, from a third of the depth; dwell_s: how long the mould stands full before it is tipped
    out; marbled with shares of other melts, the good side first."""

    RANK: ClassVar = 2.0
    COVERS: ClassVar = True
    SOLVED_BY: ClassVar = "thick_m"
    EDGE: ClassVar = Edge("thick_m", "layer", unless="sides")
    melt: MeltRef
    thick_m: Annotated[float, Number("m", 2e-5, THICKEST_M, 0.1, Slide(0.0002, Size(0.006, 0.6)), large=True)]
    emptied: bool
    sides: bool
    dwell_s: Annotated[float, Number("s", 0.0, 1800.0, 5.0), Only("emptied")]
    others: Others
    kind: Literal["shell"] = "shell"

    @classmethod
    def firsts(cls, first: First) -> dict[LayStyle | None, PassKind]:
        # how long it stands full is a first guess: what that brings is shown beside it
        return {None: cls(first.melt, 0.0015, False, False, 20.0, ())}

    @property
    def laid_as(self) -> LaidAs:
        return "tipped" if self.emptied else "shell"

    def tipped(self) -> tuple[float, float] | None:
        return (self.thick_m, self.dwell_s) if self.emptied else None

    def lay(self, at: InMould) -> tuple[LaidPass, Hollow]:
        self.check_shares(at.i)
        require_range(f"passes.{at.i}.thick_m", self.thick_m, THINNEST_M, THICKEST_M)
        hollow, cavity = at.hollow, at.hollow.cavity
        if not hollow.bare:
            raise ImpossiblePass("not_empty", "a shell goes on the wall: move it before the filling")
        most = thickest_m(cavity.shape)
        if self.thick_m >= most:
            raise ImpossiblePass("too_thick", "the shell is thicker than the narrow place", self.thick_m, most)
        whole, melt = hollow.free_m3(hollow.rim_m), self.material(at.own)
        if self.sides:
            foot = SIDES_FROM_FRAC * cavity.depth_m
            wall = wetted_m2(cavity, cavity.depth_m) - wetted_m2(cavity, foot)
            volume = min(wall * self.thick_m, room("put_in") * whole)
            low = hollow.lift_m + foot
            made = melted(at.i, melt, Extent(volume, self.thick_m, wall, low, hollow.rim_m), "wall x thickness")
            return made, replace(hollow, taken_m3=hollow.taken_m3 + volume, shell=hollow.shell and melt)
        inner = inside(cavity, self.thick_m)
        band_ = volume_m3(cavity, cavity.depth_m) - volume_m3(inner, inner.depth_m)
        # details lie in the layer: it covers them, and what stands out of it stays in the hollow
        volume = hollow.fits(max(band_ - hollow.taken_m3, room("covers") * band_))
        left = max(hollow.taken_m3 - (band_ - volume), 0.0)
        lift = hollow.lift_m + self.thick_m
        made = melted(
            at.i,
            melt,
            Extent(volume, self.thick_m, wetted_m2(cavity, cavity.depth_m), hollow.lift_m, hollow.rim_m),
            "cavity less the hollow inside it, less what lies in the layer",
            poured_m3=whole if self.emptied else None,
        )
        return made, Hollow(inner, lift, left, lift, melt)

    def cut(self, row: LaidPass, cut: Cut, own: OwnMelts) -> BaseGeometry:
        if not self.sides:
            return cut.lined(self.thick_m)
        foot = cut.by_m + SIDES_FROM_FRAC * (cut.cavity.depth_m - cut.by_m)
        return band(cut.hollow.difference(cut.inside(cut.by_m + self.thick_m)), foot, cut.cavity.depth_m)
