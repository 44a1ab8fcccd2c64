"""What takes another form with the film it lies on, while it is soft, has in common."""

from typing import ClassVar

from umber_pebble.core.pieces.faults import ImpossiblePass
from umber_pebble.core.pieces.hollow import Hollow
from umber_pebble.core.pieces.layers import LaidPass, plain
from umber_pebble.core.pieces.passes.base import InMould, Pace, PassKind, Put, Soft
from umber_pebble.core.pieces.transfers import ShapedAs


class Shaped(PassKind):
    """Bent with its film, once it no longer runs, and left on its form until it has set; forms_count: how many forms there are."""

    __slots__ = ()
    RANK: ClassVar = 8.9
    PACE: ClassVar[Pace] = "fill"
    ON_TOP: ClassVar = True
    WITH_FILM: ClassVar = True
    forms_count: int

    @property
    def soft(self) -> Soft | None:
        return "shape"

    @property
    def forms(self) -> int:
        return self.forms_count

    def shaped(self) -> ShapedAs:
        """How it is bent."""
        raise NotImplementedError

    def put(self) -> Put:
        of = self.shaped()
        return Put("shape", {"curve": "curved form", "v": "fold", "band": "band"}[of.how], kg=0.0, shaped=of)

    def lay(self, at: InMould) -> tuple[LaidPass, Hollow]:
        wet = next((row for row in reversed(at.laid) if row.cast), None)
        if wet is None:
            raise ImpossiblePass("nothing_wet", "there is no melt yet to bend")
        melt = at.passes[wet.index].material(at.own)
        if not melt.has("set_cut"):
            raise ImpossiblePass(
                "no_leather", f"{melt.name} is bent by itself while it is soft: choose that below, without a film"
            )
        self._fits(at, wet.to_m)
        return plain(at.i, 0.0, 0.0, 0.0, at.hollow.level_m), at.hollow

    def _fits(self, at: InMould, thick_m: float) -> None:
        """Nothing where it is long enough for its form.

        Raises: Wrong: it is not.
        """
