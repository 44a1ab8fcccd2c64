"""What a pass of one melt, or marbled with a second, has in common with others."""

from typing import Annotated

from umber_pebble.core.pieces.fields import Also, Number, Only, Size, Slide, Told
from umber_pebble.core.pieces.melt_ref import MeltRef
from umber_pebble.core.pieces.passes.base import PassKind

SecondMelt = Annotated[MeltRef | None, Told(also=(Also("second_frac", 0.3, 0.0),))]
SecondShare = Annotated[float, Number("frac", 0.0, 0.95, 5.0, Slide(0.05, Size(0.95))), Only("second")]


class Marbled(PassKind):
    """Of one melt, or of a share of a second too."""

    __slots__ = ()
    melt: MeltRef
    second: MeltRef | None
    second_frac: float

    def melts(self) -> tuple[tuple[MeltRef, float], ...]:
        if self.second is None or self.second_frac <= 0:
            return ((self.melt, 1.0),)
        return (self.melt, 1 - self.second_frac), (self.second, self.second_frac)
