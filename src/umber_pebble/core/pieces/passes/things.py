"""What is bought and put in, on or beside a piece has in common."""

from typing import ClassVar

from shapely.geometry.base import BaseGeometry

from umber_pebble.core.pieces.bought import Bought, InIt, Status
from umber_pebble.core.pieces.hollow import Hollow
from umber_pebble.core.pieces.layers import LaidPass, plain
from umber_pebble.core.pieces.passes.base import Ground, InMould, OnBody, Pace, PassKind, Put
from umber_pebble.core.texts import Name


class Thing(PassKind):
    """Bought: what it is called, how many of it [count], and whether it may be eaten."""

    __slots__ = ()
    ON: ClassVar[tuple[Ground, ...]] = ("mould", "body", "drawing", "hand")
    RANK: ClassVar = 9.2
    PACE: ClassVar[Pace] = "fill"
    ON_TOP: ClassVar = True
    name: Name
    count: int
    status: Status

    def bought(self) -> Bought:
        """It as it is bought and cut."""
        raise NotImplementedError

    def weight_kg(self) -> float:
        """All of it [kg]."""
        return 0.0

    @property
    def strokes(self) -> int:
        return self.count

    @property
    def dries(self) -> bool:
        return False

    def put(self) -> Put:
        return Put("bought", self.name, bought=self.bought())

    def in_it(self) -> tuple[InIt, ...]:
        return (InIt(self.name, self.status, comes_off=True),)

    def step(self) -> str:
        return self.name.lower()

    def front(self) -> BaseGeometry | None:
        return None

    def _told(self, i: int, level_m: float) -> LaidPass:
        return plain(i, self.weight_kg(), 0.0, 0.0, level_m)

    def lay(self, at: InMould) -> tuple[LaidPass, Hollow]:
        return self._told(at.i, at.hollow.level_m), at.hollow

    def lay_on(self, at: OnBody) -> tuple[LaidPass, tuple[BaseGeometry, ...]]:
        return self._told(at.i, at.body.high_m), at.outer

    def lay_by_hand(self, i: int) -> LaidPass:
        return self._told(i, 0.0)
