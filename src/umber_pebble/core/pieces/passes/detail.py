"""A detail, cap, accent or brushed coat: a share of the cavity's surface, or an outline of its own."""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Annotated, ClassVar, Literal

import shapely
from annotated_types import Interval, Len
from shapely.geometry.base import BaseGeometry

from umber_pebble.core.errors import require_range
from umber_pebble.core.moulds.cavity import Cavity, open_m2, wetted_m2
from umber_pebble.core.moulds.inset import thickest_m
from umber_pebble.core.pieces.cut import Cut
from umber_pebble.core.pieces.faults import ImpossiblePass
from umber_pebble.core.pieces.fields import Number, Only, Size, Slide, Told
from umber_pebble.core.pieces.hollow import THICKEST_M, Hollow, band_m3
from umber_pebble.core.pieces.layers import Extent, LaidPass, melted
from umber_pebble.core.pieces.melt_ref import MeltRef, OwnMelts
from umber_pebble.core.pieces.passes.base import Edge, First, InMould, LaidAs, LayStyle, PassKind, Thin
from umber_pebble.core.pieces.transfers import LaidBy
from umber_pebble.core.texts import Name

LEAST_SHARE_FRAC = 0.001
Coordinate = Annotated[float, Interval(ge=-1.0, le=1.0)]
Outline = Annotated[tuple[tuple[Coordinate, Coordinate], ...], Len(3, 400)]


@dataclass(frozen=True, slots=True)
class Detail(PassKind):
    """A detail, cap, accent or brushed coat on a share of the wall, so thick; by: what it is laid on with; outline: its own from above,
    corners about the middle of the cavity, which then says its share."""

    RANK: ClassVar = 1.0
    LIES: ClassVar = "wall"
    SOLVED_BY: ClassVar = "thick_m"
    EDGE: ClassVar = Edge("thick_m", "layer")
    name: Name
    melt: MeltRef
    outline: Annotated[Outline | None, Told(Size(1.0, 1 / 3))]
    share_frac: Annotated[float, Number("frac", 0.0, 1.0, 1.0, Slide(0.005, Size(1.0))), Only("outline", False)]
    thick_m: Annotated[float, Number("m", 2e-5, THICKEST_M, 0.1, Slide(0.0002, Size(0.006, 0.6)), large=True)]
    by: LaidBy
    kind: Literal["detail"] = "detail"

    @classmethod
    def firsts(cls, first: First) -> dict[LayStyle | None, PassKind]:
        butter = MeltRef("cocoa_butter", None)
        return {
            None: cls("Detail", first.melt, None, 0.1, 0.001, "piped"),
            "brushed": cls("Brushed accent", first.melt, None, 0.3, 0.0002, "brush"),
            "splattered": cls("Splatter", first.melt, None, 0.15, 0.0003, "splatter"),
            "finger": cls("Finger smear", first.melt, None, 0.1, 0.0005, "finger"),
            "butter": cls("Cocoa butter", butter, None, 1.0, 0.0001, "brush"),
            "scratched": cls("Scratched lines", butter, None, 0.8, 0.0001, "scratch"),
            "mottled": cls("Mottled", butter, None, 0.4, 0.0001, "mottle"),
            "sprayed": cls("Sprayed", butter, None, 1.0, 0.00005, "spray"),
        }

    @property
    def laid_by(self) -> LaidBy:
        return self.by

    def melts(self) -> tuple[tuple[MeltRef, float], ...]:
        return ((self.melt, 1.0),)

    def rank(self, beside: Sequence[PassKind]) -> tuple[float, float]:
        return self.RANK, self.share_frac

    @property
    def laid_as(self) -> LaidAs:
        return "detail"

    @property
    def thin(self) -> Thin:
        return Thin(self.melt, self.share_frac, self.outline, self.thick_m)

    def with_behind(self, name: str, melt: MeltRef) -> "Detail":
        return replace(self, name=name, melt=melt, by="spray" if self.by == "spray" else "brush")

    def step(self) -> str:
        return self.name.lower()

    def lay(self, at: InMould) -> tuple[LaidPass, Hollow]:
        require_range(f"passes.{at.i}.share_frac", self.share_frac, LEAST_SHARE_FRAC, 1.0)
        require_range(f"passes.{at.i}.thick_m", self.thick_m, 2e-5, THICKEST_M)
        hollow, cavity = at.hollow, at.hollow.cavity
        if not hollow.bare:
            raise ImpossiblePass("not_empty", "details go onto the bare wall: move it before the filling")
        most = thickest_m(cavity.shape)
        if self.thick_m >= most:
            raise ImpossiblePass("too_thick", "it is thicker than the narrow place", self.thick_m, most)
        share = self.share_frac if self.outline is None else _own_share_frac(self.outline, cavity)
        area = share * (open_m2(cavity, 0.0) if cavity.flat else wetted_m2(cavity, cavity.depth_m))
        volume = hollow.fits(area * self.thick_m if cavity.flat else share * band_m3(cavity, self.thick_m))
        made = melted(
            at.i,
            self.material(at.own),
            Extent(volume, self.thick_m, area, hollow.lift_m, hollow.lift_m + self.thick_m),
            "share of the layer",
        )
        return made, replace(hollow, taken_m3=hollow.taken_m3 + volume)

    def cut(self, row: LaidPass, cut: Cut, own: OwnMelts) -> BaseGeometry:
        """Under its outline, or along the wall from the right, each on its share of it."""
        if cut.cavity.flat:
            layer = cut.filled(row.from_m, row.from_m + self.thick_m)
        else:
            layer = cut.hollow.difference(cut.inside(cut.by_m + self.thick_m))
        if self.outline is not None:
            return _under(layer, self.outline, cut.y_m)
        begins, cut.used_frac = cut.used_frac, cut.used_frac + self.share_frac
        return _piece_of(layer, begins, cut.used_frac)


def _own_share_frac(outline: Outline, cavity: Cavity) -> float:
    """What an outline covers of the cavity, both seen from above."""
    rim = shapely.Polygon(cavity.shape.rim())
    share = float(shapely.make_valid(shapely.Polygon(outline)).intersection(rim).area / rim.area)
    if share < LEAST_SHARE_FRAC:
        raise ImpossiblePass("outside", "its outline lies outside the cavity", share, LEAST_SHARE_FRAC, "frac")
    return share


def _piece_of(layer: BaseGeometry, from_frac: float, to_frac: float) -> BaseGeometry:
    """The part of a layer from one share of its width to another, counted from the right."""
    if layer.is_empty:
        return layer
    x0, low, x1, high = layer.bounds
    a, b = x1 - to_frac * (x1 - x0), x1 - from_frac * (x1 - x0)
    return layer.intersection(shapely.box(a, low - 1, b, high + 1))


def _under(layer: BaseGeometry, outline: Outline, y_m: float) -> BaseGeometry:
    """The part of a layer that lies under an outline, where the cut crosses it."""
    shape = shapely.make_valid(shapely.Polygon(outline))
    x0, _, x1, _ = shape.bounds
    crossed = shape.intersection(shapely.LineString([(x0 - 1, y_m), (x1 + 1, y_m)]))
    spans = [run.bounds for run in shapely.get_parts(crossed) if run.length > 0]
    return shapely.union_all([layer.intersection(shapely.box(a, -1.0, b, 1.0)) for a, _, b, _ in spans])
