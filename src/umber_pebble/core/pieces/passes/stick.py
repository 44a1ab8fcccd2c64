"""A stick or skewer."""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Annotated, ClassVar, Literal

from shapely.geometry.base import BaseGeometry

from umber_pebble.core.errors import require_range
from umber_pebble.core.moulds.traced import traced_of
from umber_pebble.core.pieces.bought import InIt
from umber_pebble.core.pieces.fields import Number
from umber_pebble.core.pieces.hollow import Hollow
from umber_pebble.core.pieces.layers import LaidPass, plain
from umber_pebble.core.pieces.passes.base import (
    First,
    Ground,
    InMould,
    LayStyle,
    OnBody,
    Pace,
    PassKind,
    Put,
    Soft,
)

INTO_FILL = 6.5
"""A stick goes into a solid fill while that is soft."""


@dataclass(frozen=True, slots=True)
class Stick(PassKind):
    """A stick or skewer, so much of it inside; use: it stays where it is, is drawn back for the filling and pushed in again, or only
    makes a hole."""

    ON: ClassVar[tuple[Ground, ...]] = ("mould", "body", "drawing")
    RANK: ClassVar = 3.0
    PACE: ClassVar[Pace] = "stick"
    diameter_m: Annotated[float, Number("m", 0.001, 0.02, 0.5)]
    inside_m: Annotated[float, Number("m", 0.002, 0.3, 1.0)]
    use: Literal["stays", "reseated", "hole"]
    kind: Literal["stick"] = "stick"

    @classmethod
    def firsts(cls, first: First) -> dict[LayStyle | None, PassKind]:
        return {None: cls(0.004, 0.03, "stays")}

    def rank(self, beside: Sequence[PassKind]) -> tuple[float, float]:
        return (INTO_FILL if any(one.SOLID for one in beside) else self.RANK), 0.0

    @property
    def soft(self) -> Soft | None:
        return "stick"

    @property
    def volume_m3(self) -> float:
        """What it displaces. Source: geometry"""
        across = require_range("stick.diameter_m", self.diameter_m, 0.0005, 0.03)
        return math.pi * across**2 / 4 * self.inside_m

    @property
    def pushed_in_m3(self) -> float:
        return 0.0 if self.use == "hole" else self.volume_m3

    def in_it(self) -> tuple[InIt, ...]:
        return () if self.use == "hole" else (InIt("Stick", "contact", comes_off=True),)

    def put(self) -> Put:
        return Put("stick", "stick")

    def put_again(self) -> Put | None:
        return Put("stick", "the stick, drawn back and reseated", kg=0.0) if self.use == "reseated" else None

    def lay(self, at: InMould) -> tuple[LaidPass, Hollow]:
        hollow, inside = at.hollow, self.volume_m3
        made = plain(at.i, 0.0, inside, self.diameter_m, hollow.level_m)
        # one pushed into a solid fill has its room there already
        there = self.use == "hole" or (at.before is not None and at.before.SOLID)
        # lines are piped over one that lies there, and need no room for it
        there = there or traced_of(hollow.cavity.shape) is not None
        return made, hollow if there else hollow.with_in_it(inside, "stick")

    def lay_on(self, at: OnBody) -> tuple[LaidPass, tuple[BaseGeometry, ...]]:
        return plain(at.i, 0.0, self.volume_m3, self.diameter_m, at.body.high_m), at.outer
