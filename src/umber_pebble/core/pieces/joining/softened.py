"""A join by warming both faces."""

from typing import ClassVar

from umber_pebble.core.families.known import family_of
from umber_pebble.core.heat.casting import Place
from umber_pebble.core.materials.load import Material
from umber_pebble.core.pieces.joining.base import Held, JoinBy, JoinKind
from umber_pebble.core.pieces.joints import Joint, bead_casting, holding, softened_m


class BySoftening(JoinKind):
    """Both faces are warmed and pressed together: of their own melt, none is added."""

    BY: ClassVar[JoinBy] = "soften"
    LEFT_OUT: ClassVar[tuple[str, ...]] = ("melt", "gap_m", "deep_m")

    def held(self, joint: Joint, melt: Material, count: int, place: Place) -> Held:
        """Source: common-practice, assumption"""
        pour, tg = family_of(melt).poured_at(melt)
        return Held(0.0, holding(bead_casting(joint, melt, softened_m(), pour, tg, place), False))
