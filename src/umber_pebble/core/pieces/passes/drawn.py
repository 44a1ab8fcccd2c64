"""What is drawn into the back of a melt that is level has in common with others of its sort."""

from typing import ClassVar

from umber_pebble.core.pieces.faults import ImpossiblePass
from umber_pebble.core.pieces.hollow import THINNEST_M, Hollow
from umber_pebble.core.pieces.layers import LaidPass, plain
from umber_pebble.core.pieces.passes.base import InMould, Pace, PassKind


class Drawn(PassKind):
    """Drawn so deep into what lies level: nothing is taken off, what the point moves stands beside it."""

    __slots__ = ()
    PACE: ClassVar[Pace] = "stick"
    ON_TOP: ClassVar = True
    LIES: ClassVar = "top"
    deep_m: float

    @property
    def drawn_m(self) -> float | None:
        return self.deep_m

    def lay(self, at: InMould) -> tuple[LaidPass, Hollow]:
        wet = next((row for row in reversed(at.laid) if row.cast), None)
        if wet is None:
            raise ImpossiblePass("nothing_wet", "there is no melt yet to draw into")
        melt = at.passes[wet.index].material(at.own)
        if not melt.has("set_cut"):
            raise ImpossiblePass(
                "no_leather",
                f"{melt.name} goes from soft to glass and is never leathery: cut it with scissors while it is soft",
            )
        if wet.to_m - wet.from_m - self.deep_m < THINNEST_M:
            raise ImpossiblePass("too_deep", "it goes through", self.deep_m, wet.to_m - wet.from_m - THINNEST_M)
        return plain(at.i, 0.0, 0.0, self.deep_m, at.hollow.level_m), at.hollow
