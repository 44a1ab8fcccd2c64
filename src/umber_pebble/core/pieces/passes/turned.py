"""A hollow ball: all its melt poured into one half of its mould and turned over the wall of both."""

from dataclasses import dataclass
from typing import Annotated, ClassVar, Literal

from shapely.geometry.base import BaseGeometry

from umber_pebble.core.errors import require_range
from umber_pebble.core.moulds.cavity import wetted_m2
from umber_pebble.core.moulds.inset import thickest_m
from umber_pebble.core.pieces.cut import Cut
from umber_pebble.core.pieces.faults import ImpossiblePass
from umber_pebble.core.pieces.fields import Number
from umber_pebble.core.pieces.hollow import THINNEST_M, Hollow, band_m3, inside, room
from umber_pebble.core.pieces.layers import Extent, LaidPass, melted
from umber_pebble.core.pieces.melt_ref import MeltRef, OwnMelts
from umber_pebble.core.pieces.passes.base import First, InMould, LaidAs, LayStyle, PassKind


@dataclass(frozen=True, slots=True)
class Turned(PassKind):
    """A hollow ball, cast whole in a mould of two halves: its whole weight, turned over the wall. Older ones were counted by halves,
    which were joined: they have no `whole`."""

    RANK: ClassVar = 2.0
    COVERS: ClassVar = True
    TWO_HALVES: ClassVar = True
    melt: MeltRef
    ball_kg: Annotated[float, Number("kg", 0.001, 5.0, 1.0, large=True)]
    whole: Literal[True] = True
    kind: Literal["turned"] = "turned"

    @classmethod
    def firsts(cls, first: First) -> dict[LayStyle | None, PassKind]:
        return {None: cls(first.melt, 0.113)}

    def melts(self) -> tuple[tuple[MeltRef, float], ...]:
        return ((self.melt, 1.0),)

    @property
    def laid_as(self) -> LaidAs:
        return "turned"

    def lay(self, at: InMould) -> tuple[LaidPass, Hollow]:
        require_range(f"passes.{at.i}.ball_kg", self.ball_kg, 0.001, 5.0)
        hollow, cavity, melt = at.hollow, at.hollow.cavity, self.material(at.own)
        density = melt.value("density_melt")
        volume = self.ball_kg / 2 / density
        most = room("ball") * hollow.free_m3(hollow.rim_m)
        if volume >= most:
            words = "so much fills the ball: it would not be hollow"
            raise ImpossiblePass("too_much", words, self.ball_kg, 2 * most * density, "kg")
        low, high = 0.0, thickest_m(cavity.shape) * (1 - 1e-6)
        for _ in range(50):
            mid = (low + high) / 2
            low, high = (mid, high) if band_m3(cavity, max(mid, 1e-7)) < volume else (low, mid)
        thick = high
        if thick < THINNEST_M:
            least = 2 * band_m3(cavity, THINNEST_M) * density
            raise ImpossiblePass("too_thin", "so little does not cover the wall", self.ball_kg, least, "kg")
        lift = hollow.lift_m + thick
        made = melted(
            at.i,
            melt,
            Extent(volume, thick, wetted_m2(cavity, cavity.depth_m), 0.0, hollow.rim_m),
            "half of the ball's melt, turned over the wall",
        )
        return made, Hollow(inside(cavity, thick), lift, 0.0, lift, melt, closed=True)

    def cut(self, row: LaidPass, cut: Cut, own: OwnMelts) -> BaseGeometry:
        return cut.lined(row.thick_m)
