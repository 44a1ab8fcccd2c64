"""Two parts put together, and what is asked of a way to join them: each answers in a module of its own."""

from abc import ABC, abstractmethod
from dataclasses import dataclass
from typing import Annotated, ClassVar, Literal

from umber_pebble.core.heat.casting import Place
from umber_pebble.core.materials.load import Material
from umber_pebble.core.pieces.fields import Number, Only, PartNo, Shape
from umber_pebble.core.pieces.joints import Holding, Joint
from umber_pebble.core.pieces.melt_ref import MeltRef

JoinBy = Literal["melt", "soften", "glue"]


@dataclass(frozen=True, slots=True)
class Join(Shape):
    """Two parts put together, so many times in a piece: by what; the seam, or dots of one; how wide bead or dots are; gap and depth
    under a bead; props: pieces they hold at once, 0: by hand. What a way does not take is kept, for when it is chosen again."""

    part: PartNo
    to: PartNo
    by: JoinBy
    melt: MeltRef
    count: Annotated[int, Number("count", 1, 200, 1.0)]
    seam_m: Annotated[float, Number("m", 0.0, 2.0, 5.0), Only("dots", so=False)]
    dots: Annotated[int, Number("count", 0, 50, 1.0), Only("dots")]
    bead_m: Annotated[float, Number("m", 0.0005, 0.03, 0.5)]
    gap_m: Annotated[float, Number("m", 0.0, 0.02, 0.5), Only("dots", so=False)]
    deep_m: Annotated[float, Number("m", 0.0, 0.05, 0.5), Only("dots", so=False)]
    props: Annotated[int, Number("count", 0, 500, 1.0)]


@dataclass(frozen=True, slots=True)
class Held:
    """A join as it is held: its melt or glue for one piece [kg], how long [s]."""

    kg: float
    holding: Holding


class JoinKind(ABC):
    """A way to join."""

    BY: ClassVar[JoinBy]
    POURED: ClassVar[bool] = False
    """It takes melt, which a plan pours."""
    LEFT_OUT: ClassVar[tuple[str, ...]] = ()
    """Fields of a join that it does not take."""

    @abstractmethod
    def held(self, joint: Joint, melt: Material, count: int, place: Place) -> Held:
        """What so many joins of one piece take, and how long each is held.

        Args:
            joint: one of them
            melt: what is poured, or what the parts are of
            count: how many
            place: where they are joined
        Raises: OutOfRange: a size that cannot be.
        """
