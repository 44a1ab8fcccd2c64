"""Melt from what is in the cavity to the rim, levelled."""

import math
from dataclasses import dataclass, replace
from typing import ClassVar, Literal

from shapely.geometry.base import BaseGeometry

from umber_pebble.core.moulds.cavity import open_m2
from umber_pebble.core.pieces.cut import Cut
from umber_pebble.core.pieces.faults import ImpossiblePass
from umber_pebble.core.pieces.hollow import THINNEST_M, Hollow
from umber_pebble.core.pieces.layers import Extent, LaidPass, melted
from umber_pebble.core.pieces.melt_ref import MeltRef, OwnMelts
from umber_pebble.core.pieces.passes.base import First, InMould, LaidAs, LayStyle, PassKind


@dataclass(frozen=True, slots=True)
class Close(PassKind):
    """Melt to the rim, levelled."""

    RANK: ClassVar = 7.0
    COVERS: ClassVar = True
    melt: MeltRef
    kind: Literal["close"] = "close"

    @classmethod
    def firsts(cls, first: First) -> dict[LayStyle | None, PassKind]:
        return {None: cls(first.melt)}

    def melts(self) -> tuple[tuple[MeltRef, float], ...]:
        return ((self.melt, 1.0),)

    @property
    def laid_as(self) -> LaidAs:
        return "close"

    def lay(self, at: InMould) -> tuple[LaidPass, Hollow]:
        hollow = at.hollow
        if hollow.shell is None or hollow.level_m >= hollow.rim_m - 1e-6:
            raise ImpossiblePass("nothing_to_close", "there is no gap to the rim: leave one under it")
        volume, area = hollow.free_m3(hollow.rim_m), open_m2(hollow.cavity, hollow.cavity.depth_m)
        thick = volume / area
        if thick < THINNEST_M:
            raise ImpossiblePass("too_thin", "the gap is too small for a close", thick, THINNEST_M)
        under = () if hollow.on_top is None else (hollow.on_top,)
        for of, _, degc in under:
            firm = of.value("firm_below") if "firm_below" in of.properties else math.inf
            if degc > firm:
                words = "the filling is still soft: it sinks in, let it firm first"
                raise ImpossiblePass("unset_filling", words, degc, firm, "degC")
        made = melted(
            at.i,
            self.material(at.own),
            Extent(volume, thick, area, hollow.level_m, hollow.rim_m),
            "hollow from the filling to the rim",
            heap_m2=area,
        )
        return replace(made, under=under), replace(hollow, level_m=hollow.rim_m, closed=True)

    def cut(self, row: LaidPass, cut: Cut, own: OwnMelts) -> BaseGeometry:
        return cut.filled(row.from_m, row.to_m)
