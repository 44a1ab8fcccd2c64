"""What is put on a piece once it is out of its mould has in common."""

import math
from collections.abc import Sequence
from dataclasses import replace
from typing import ClassVar

import shapely
from shapely.geometry.base import BaseGeometry

from umber_pebble.core.moulds.cavity import open_m2, wetted_m2
from umber_pebble.core.moulds.traced import covered, traced_of
from umber_pebble.core.pieces.bought import InIt, Status
from umber_pebble.core.pieces.faults import ImpossiblePass
from umber_pebble.core.pieces.finishes import Finish, lies_kg_m2
from umber_pebble.core.pieces.hollow import Hollow
from umber_pebble.core.pieces.layers import LaidPass, plain
from umber_pebble.core.pieces.passes.base import Ground, InMould, OnBody, Pace, PassKind, Place, Put
from umber_pebble.core.texts import Name


class Finishing(PassKind):
    """A finish on a share of what is seen; area_m2 is told by what it lies on."""

    __slots__ = ()
    ON: ClassVar[tuple[Ground, ...]] = ("mould", "body", "drawing")
    RANK: ClassVar = 20.0
    PACE: ClassVar[Pace] = "fill"
    ON_TOP: ClassVar = True
    AFTER: ClassVar = True
    name: Name
    share_frac: float
    coats_count: int
    status: Status

    def finish(self, area_m2: float) -> Finish:
        """It on such an area."""
        raise NotImplementedError

    def put(self) -> Put:
        return Put("finish", self.name)

    def in_it(self) -> tuple[InIt, ...]:
        return (InIt(self.name, self.status, comes_off=False),)

    def step(self) -> str:
        return self.name.lower()

    def lay(self, at: InMould) -> tuple[LaidPass, Hollow]:
        cavity = at.hollow.cavity
        if (drawing := traced_of(cavity.shape)) is not None:
            area = covered(drawing).area
        elif cavity.flat:
            area = open_m2(cavity, 0.0)
        else:
            area = wetted_m2(cavity, min(max((row.to_m for row in at.laid), default=0.0), cavity.depth_m))
        return self._told(at, area, at.hollow.level_m), at.hollow

    def lay_on(self, at: OnBody) -> tuple[LaidPass, tuple[BaseGeometry, ...]]:
        return self._told(at, _turned_m2(at.outer), at.body.high_m), at.outer

    def _told(self, at: Place, face_m2: float, level_m: float) -> LaidPass:
        if not at.laid:
            raise ImpossiblePass("nothing_there", "there is nothing yet for it to lie on")
        of = self.finish(face_m2 * self.share_frac)
        made = plain(at.i, lies_kg_m2(of) * of.area_m2, 0.0, 0.0, level_m)
        return replace(made, area_m2=of.area_m2)


def _turned_m2(planes: Sequence[BaseGeometry]) -> float:
    """The surface of what is cut by planes through its axis [m2], by Guldin: each bit of its outline once round."""
    total = 0.0
    for cut in planes:
        xy = shapely.get_coordinates(shapely.get_exterior_ring(cut))
        steps = xy[1:] - xy[:-1]
        middle = (xy[1:, 0] + xy[:-1, 0]) / 2
        total += float((abs(middle) * (steps**2).sum(axis=1) ** 0.5).sum()) * math.pi
    return total / len(planes)
