"""A join by edible glue."""

from typing import ClassVar

from umber_pebble.core.heat.casting import Place
from umber_pebble.core.materials.load import Material
from umber_pebble.core.pieces.joining.base import Held, JoinBy, JoinKind
from umber_pebble.core.pieces.joints import Joint, glued


class ByGlue(JoinKind):
    """Edible glue on the faces that meet."""

    BY: ClassVar[JoinBy] = "glue"
    LEFT_OUT: ClassVar[tuple[str, ...]] = ("melt", "gap_m", "deep_m")

    def held(self, joint: Joint, melt: Material, count: int, place: Place) -> Held:
        """Source: common-practice, assumption"""
        time, kg = glued(joint)
        return Held(count * kg, time)
