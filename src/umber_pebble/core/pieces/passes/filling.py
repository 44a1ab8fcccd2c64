"""A filling, by the gap it leaves to the rim, or by weight."""

from dataclasses import dataclass, replace
from typing import Annotated, ClassVar, Literal

from shapely.geometry.base import BaseGeometry

from umber_pebble.core.errors import require_range
from umber_pebble.core.explained import explained, given
from umber_pebble.core.families.known import family_of
from umber_pebble.core.materials.load import material
from umber_pebble.core.moulds.cavity import open_m2
from umber_pebble.core.pieces.cut import Cut
from umber_pebble.core.pieces.faults import ImpossiblePass
from umber_pebble.core.pieces.fields import Number, Only, Size, Slide, Told
from umber_pebble.core.pieces.hollow import Hollow
from umber_pebble.core.pieces.layers import LaidPass
from umber_pebble.core.pieces.melt_ref import OwnMelts
from umber_pebble.core.pieces.passes.base import Edge, First, InMould, LayStyle, Pace, PassKind, Put
from umber_pebble.core.spread import Spread


@dataclass(frozen=True, slots=True)
class Filling(PassKind):
    """A filling by the gap it leaves, or by weight; how warm it goes in, and the share that stays in bag or spoon."""

    RANK: ClassVar = 5.0
    PACE: ClassVar[Pace] = "fill"
    SOLVED_BY: ClassVar = "gap_m"
    EDGE: ClassVar = Edge("gap_m", "gap")
    GRAINY: ClassVar = True
    filling: Literal["cake", "ganache", "cream", "fruit"]
    gap_m: Annotated[
        float | None,
        Number("m", 0.0, 0.1, 0.1, Slide(0.0, Size(0.1, 0.8)), large=True),
        Told(Size(0.002, 1 / 3), instead="kg"),
    ]
    kg: Annotated[float | None, Number("kg", 0.0, 5.0, 0.5, large=True), Only("gap_m", False)]
    degc: Annotated[float, Number("degC", -20.0, 100.0, 1.0)]
    loss_frac: Annotated[float, Number("frac", 0.0, 0.5, 1.0)]
    kind: Literal["filling"] = "filling"

    @classmethod
    def firsts(cls, first: First) -> dict[LayStyle | None, PassKind]:
        return {None: cls("cake", Size(0.002, 1 / 3).at(first.depth_m), None, first.room_degc, 0.05)}

    def put(self) -> Put:
        return Put("filling", material("fillings", self.filling).name, self.filling)

    def lay(self, at: InMould) -> tuple[LaidPass, Hollow]:
        hollow, of = at.hollow, material("fillings", self.filling)
        if hollow.shell is None:
            raise ImpossiblePass("no_shell", "nothing holds the filling: put a shell before it")
        softens = family_of(hollow.shell).softens_degc(hollow.shell)
        if softens is not None and self.degc >= softens:
            words = "so warm, it melts the shell: let it cool"
            raise ImpossiblePass("melts_shell", words, self.degc, softens, "degC")
        density, room = of.spread("density"), hollow.free_m3(hollow.rim_m)
        if self.kg is not None:
            volume = require_range(f"passes.{at.i}.kg", self.kg, 1e-5, 5.0) / density.likely
            if volume > room:
                raise ImpossiblePass(
                    "no_room", "more filling than there is room", self.kg, room * density.likely, "kg"
                )
            kg = Spread(self.kg, self.kg, self.kg)
        else:
            gap = require_range(f"passes.{at.i}.gap_m", self.gap_m or 0.0, 0.0, 0.1)
            top = hollow.rim_m - gap
            volume = hollow.free_m3(top)
            if top <= hollow.level_m or volume <= 0:
                deep = hollow.rim_m - hollow.level_m
                raise ImpossiblePass("no_room", "with this gap nothing of it fits", gap, deep)
            kg = density.times(volume)
        level = hollow.level_of(volume)
        finished = explained(
            kg,
            "kg",
            "room in the shell up to its level x density" if self.kg is None else "as given",
            given("room", volume, "m3"),
            given("density", density, "kg/m3"),
            sources=("geometry", of["density"].source),
        )
        poured = explained(
            kg.times(1 / (1 - require_range(f"passes.{at.i}.loss_frac", self.loss_frac, 0.0, 0.5))),
            "kg",
            "finished and what stays in bag or spoon",
            given("finished", kg, "kg"),
            given("stays", self.loss_frac, "frac"),
        )
        thick = volume / open_m2(hollow.cavity, max(level - hollow.lift_m, 1e-6))
        made = LaidPass(at.i, finished, poured, volume, thick, hollow.level_m, level, None, ())
        return made, replace(hollow, level_m=level, taken_m3=0.0, on_top=(of, thick, self.degc))

    def cut(self, row: LaidPass, cut: Cut, own: OwnMelts) -> BaseGeometry:
        return cut.filled(row.from_m, row.to_m)
