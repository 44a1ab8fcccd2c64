"""A body dipped whole, or to a line, straight or at a slant."""

import math
from dataclasses import dataclass, replace
from typing import Annotated, ClassVar, Literal

import shapely
from shapely.geometry.base import BaseGeometry

from umber_pebble.core.errors import require_range
from umber_pebble.core.explained import explained, given
from umber_pebble.core.materials.load import material
from umber_pebble.core.pieces.body import Body, revolved_m3
from umber_pebble.core.pieces.cut import BodyCut
from umber_pebble.core.pieces.faults import ImpossiblePass
from umber_pebble.core.pieces.fields import Also, Number, Only, Size, Slide, Told
from umber_pebble.core.pieces.films import dip_film_m
from umber_pebble.core.pieces.hollow import THICKEST_M
from umber_pebble.core.pieces.layers import Extent, LaidPass, melted
from umber_pebble.core.pieces.melt_ref import MeltRef, OwnMelts
from umber_pebble.core.pieces.passes.base import Edge, First, Ground, LaidAs, LayStyle, OnBody, PassKind
from umber_pebble.core.pieces.passes.marbled import Marbled, Others
from umber_pebble.core.spread import Spread, combine

FAR_M = 2.0


@dataclass(frozen=True, slots=True)
class Dip(Marbled):
    """A dip: whole (line None) or to a line over its lowest point, which stands at a slant; thickness of the coat None: what stays on
    it; marbled with shares of other melts, floated on the bath and used up with it."""

    ON: ClassVar[tuple[Ground, ...]] = ("body",)
    RANK: ClassVar = 7.0
    COATS: ClassVar = True
    SOLVED_BY: ClassVar = "thick_m"
    EDGE: ClassVar = Edge("line_m", "level", whole=True, slant="slant_rad")
    melt: MeltRef
    line_m: Annotated[
        float | None,
        Number("m", 0.001, 0.4, 1.0, Slide(0.001, Size(0.4, 1.0)), large=True),
        Told(Size(0.4, 0.7), also=(Also("slant_rad", 0.0, 0.0),)),
    ]
    slant_rad: Annotated[float, Number("rad", 0.0, 1.2, 5.0), Only("line_m")]
    thick_m: Annotated[float | None, Number("m", 2e-5, THICKEST_M, 0.1), Told(reckoned=True)]
    others: Others
    kind: Literal["dip"] = "dip"

    @classmethod
    def firsts(cls, first: First) -> dict[LayStyle | None, PassKind]:
        return {None: cls(first.melt, None, 0.0, None, ())}

    @property
    def laid_as(self) -> LaidAs:
        return "dip"

    def dipped_m(self, body: Body) -> tuple[float, float]:
        return (body.high_m if self.line_m is None else self.line_m), body.diameter_m

    def film(self, line_m: float, own: OwnMelts) -> Spread:
        """The coat that stays on a dipped body [m]: as told, or by what drains and is dragged along.

        Args:
            line_m: how high it is under the melt [m]
            own: the workshop's own melts
        Raises: OutOfRange: a size outside.
        Source: landau-levich-1942, casson-1959
        """
        if self.thick_m is not None:
            return Spread(self.thick_m, self.thick_m, self.thick_m)
        usual = material("kitchen", "usual", "film")
        return dip_film_m(self.material(own), line_m, usual.value("drains"), usual.value("drawn"))

    def lay_on(self, at: OnBody) -> tuple[LaidPass, tuple[BaseGeometry, ...]]:
        require_range(f"passes.{at.i}.slant_rad", self.slant_rad, 0.0, 1.2)
        self.check_shares(at.i)
        body, melt = at.body, self.material(at.own)
        line, _ = self.dipped_m(body)
        if line > body.high_m:
            raise ImpossiblePass("too_deep", "it is dipped deeper than it is high", line, body.high_m)
        film, most = self.film(line, at.own), body.diameter_m / 4
        if film.likely > most:
            raise ImpossiblePass("too_thick", "the coat is thicker than half of what it covers", film.likely, most)
        thick = require_range(f"passes.{at.i}.thick_m", film.likely, 5e-5, 0.03)
        grown = tuple(self.coated(cut, thick, angle) for cut, angle in zip(at.outer, at.angles, strict=True))
        volume = revolved_m3([new.difference(old) for new, old in zip(grown, at.outer, strict=True)])
        made = melted(
            at.i,
            melt,
            Extent(volume, thick, volume / thick, 0.0, line),
            "body with its coat less the body, below the line",
        )
        kg = _weighs(volume, film, melt.spread("density_melt"))
        finished = explained(
            kg,
            "kg",
            "volume of the coat x density of the melt",
            given("volume", volume, "m3"),
            given("coat", film, "m"),
            given("density", melt.spread("density_melt"), "kg/m3"),
            sources=("landau-levich-1942", "casson-1959", "geometry") if self.thick_m is None else ("geometry",),
        )
        assert made.cast is not None
        slab = film if self.thick_m is None else made.cast.slab
        cast = replace(made.cast, finished=finished, poured=finished, slab=slab, thickness=slab)
        under = ((body.material, body.behind_m, body.degc),)
        return replace(made, finished=finished, poured=finished, cast=cast, under=under), grown

    def coated(self, cut: BaseGeometry, thick_m: float, angle: float) -> BaseGeometry:
        """A cut with a coat on it up to its line, in a plane turned by an angle against the slant [rad]. Source: geometry"""
        coat = cut.buffer(thick_m)
        if self.line_m is not None:
            rise = math.tan(self.slant_rad) * math.cos(angle) * FAR_M
            corners = [
                (-FAR_M, -FAR_M),
                (FAR_M, -FAR_M),
                (FAR_M, self.line_m + rise),
                (-FAR_M, self.line_m - rise),
            ]
            coat = coat.intersection(shapely.Polygon(corners))
        return cut.union(coat)

    def cut_on(self, row: LaidPass, cut: BodyCut, own: OwnMelts) -> BaseGeometry:
        return cut.coated(self.coated(cut.outer, row.thick_m, cut.angle))


def _weighs(volume_m3: float, film: Spread, density: Spread) -> Spread:
    kg, low, high = volume_m3 * density.likely, film.low / film.likely, film.high / film.likely
    return combine(kg, [[volume_m3 * density.low, volume_m3 * density.high], [low * kg, high * kg]])
