"""Wires, by their gauge."""

from dataclasses import dataclass
from typing import Annotated, Literal

import shapely
from shapely.geometry.base import BaseGeometry

from umber_pebble.core.pieces.bought import (
    LEAST_GAUGE,
    MOST_GAUGE,
    Bought,
    Status,
    WireSet,
    wire_bears_kg,
    wire_m,
)
from umber_pebble.core.pieces.faults import ImpossiblePass
from umber_pebble.core.pieces.fields import Number
from umber_pebble.core.pieces.hollow import Hollow
from umber_pebble.core.pieces.layers import LaidPass
from umber_pebble.core.pieces.passes.base import First, InMould, LayStyle, PassKind, Soft
from umber_pebble.core.pieces.passes.stick import INTO_FILL
from umber_pebble.core.pieces.passes.things import Thing
from umber_pebble.core.texts import Name


@dataclass(frozen=True, slots=True)
class Wire(Thing):
    """So many of a gauge, each so long out of what holds it and so deep in it, with a foot bent at its end; what it carries at its other
    end."""

    name: Name
    gauge: Annotated[int, Number("count", LEAST_GAUGE, MOST_GAUGE, 1.0, large=True)]
    count: Annotated[int, Number("count", 1, 50, 1.0)]
    out_m: Annotated[float, Number("m", 0.005, 0.6, 5.0, large=True)]
    inside_m: Annotated[float, Number("m", 0.001, 0.1, 1.0)]
    foot_m: Annotated[float, Number("m", 0.0, 0.03, 1.0)]
    load_kg: Annotated[float, Number("kg", 0.0, 1.0, 0.5)]
    status: Status
    kind: Literal["wire"] = "wire"

    @classmethod
    def firsts(cls, first: First) -> dict[LayStyle | None, PassKind]:
        return {None: cls("Wire", 24, 1, 0.06, 0.01, 0.004, 0.002, "unknown")}

    def rank(self, beside: object) -> tuple[float, float]:
        return INTO_FILL, 1.0

    @property
    def soft(self) -> Soft | None:
        return "stick"

    @property
    def thick_m(self) -> float:
        """How thick it is [m]."""
        return wire_m(self.gauge)

    @property
    def wire(self) -> WireSet:
        return WireSet(self.thick_m, self.out_m, self.inside_m, self.foot_m, self.load_kg)

    def bought(self) -> Bought:
        cut = self.out_m + self.inside_m + self.foot_m
        return Bought("wire", self.count, self.status, cut, self.inside_m, self.foot_m)

    def front(self) -> BaseGeometry:
        return shapely.LineString([(0, 0), (0, self.out_m)]).buffer(self.thick_m / 2)

    def _bears(self) -> None:
        bears = wire_bears_kg(self.thick_m, self.out_m)
        if self.load_kg > bears:
            words = "so long and thin it bends for good under what it carries: shorter, or a lower gauge"
            raise ImpossiblePass("too_much", words, self.load_kg, bears, "kg")

    def lay(self, at: InMould) -> tuple[LaidPass, Hollow]:
        if not at.melted:
            raise ImpossiblePass("nothing_wet", "there is no melt yet to hold it")
        self._bears()
        return Thing.lay(self, at)

    def lay_by_hand(self, i: int) -> LaidPass:
        self._bears()
        return Thing.lay_by_hand(self, i)
