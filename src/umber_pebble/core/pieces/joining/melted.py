"""A join by melt: a bead, or dots."""

from typing import ClassVar

from umber_pebble.core.families.known import family_of
from umber_pebble.core.heat.casting import Place
from umber_pebble.core.materials.load import Material
from umber_pebble.core.pieces.joining.base import Held, JoinBy, JoinKind
from umber_pebble.core.pieces.joints import Joint, bead_casting, holding, joined


class ByMelt(JoinKind):
    """A bead or dots of melt."""

    BY: ClassVar[JoinBy] = "melt"
    POURED: ClassVar[bool] = True

    def held(self, joint: Joint, melt: Material, count: int, place: Place) -> Held:
        """Source: geometry, common-practice"""
        pour, tg = family_of(melt).poured_at(melt)
        laid = joined(joint, melt, count)
        casting = bead_casting(joint, melt, laid.thick_m, pour, tg, place)
        return Held(laid.finished.value.likely, holding(casting, joint.dots > 0))
