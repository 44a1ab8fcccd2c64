"""Cavities as documents to cavities as the engine takes them."""

import math
from dataclasses import replace

from umber_pebble.core.errors import OutOfRange
from umber_pebble.core.materials.load import material
from umber_pebble.core.moulds.cutting import CuttingPlan, cutting_plan
from umber_pebble.core.moulds.domes import Cap, HalfCapsule, HalfEllipsoid
from umber_pebble.core.moulds.measured import CavityFit, fit_cavity, round_by_water
from umber_pebble.core.moulds.outline import Bar, Circle, Drawn, Outline, centred, heart, star
from umber_pebble.core.moulds.shape import Shape
from umber_pebble.core.moulds.traced import Line, Traced, traced_of
from umber_pebble.core.moulds.walled import Walled
from umber_pebble.core.plan.problem import Mould as MouldCase
from umber_pebble.services import documents, shape_docs


def _walled(
    outline: Outline,
    shape: shape_docs.BarShape | shape_docs.HeartShape | shape_docs.StarShape | shape_docs.OutlineShape,
) -> Walled:
    return Walled(outline, shape.depth_m, shape.draft_rad, shape.edge_m)


def _cone(shape: shape_docs.ConeShape) -> Walled:
    lean = (shape.diameter_m - shape.floor_m) / 2
    if lean < 0:
        raise OutOfRange(
            "the floor is wider than the opening: nothing would come out",
            path="floor_m",
            got=shape.floor_m,
            limits={"low": 0.003, "high": shape.diameter_m},
        )
    return Walled(Circle(shape.diameter_m), shape.depth_m, math.atan(lean / shape.depth_m))


def shape_of(cavity: shape_docs.Cavity) -> Shape:
    """The shape of a cavity from its measured sizes.

    Raises: Missing, OutOfRange: too little measured, or an impossible size.
    """
    match cavity.shape:
        case shape_docs.RoundShape() as s:
            return round_by_water(s.diameter_m, s.depth_m, s.draft_rad, s.edge_m, cavity.water_kg)
        case shape_docs.ConeShape() as s:
            return _cone(s)
        case shape_docs.BarShape() as s:
            return _walled(Bar(s.length_m, s.width_m, s.corner_m), s)
        case shape_docs.HalfBallShape() as s:
            return Cap(s.diameter_m, s.diameter_m / 2)
        case shape_docs.CapShape() as s:
            return Cap(s.diameter_m, s.depth_m)
        case shape_docs.EllipsoidShape() as s:
            return HalfEllipsoid(s.length_m, s.width_m, s.depth_m)
        case shape_docs.CapsuleShape() as s:
            return HalfCapsule(s.length_m, s.width_m)
        case shape_docs.HeartShape() as s:
            return _walled(heart(s.width_m), s)
        case shape_docs.StarShape() as s:
            return _walled(star(s.diameter_m, s.tips, s.inner_frac), s)
        case shape_docs.OutlineShape() as s:
            return _walled(Drawn(centred(tuple((x, y) for x, y in s.corners))), s)
        case shape_docs.LinesShape() as s:
            return drawing_of(s)


def drawing_of(shape: shape_docs.LinesShape) -> Traced:
    """A drawing as the engine takes it.

    Raises: OutOfRange: too large, too many lines or points, a line of no length.
    """
    lines = tuple(Line(tuple((x, y) for x, y in line.points), line.twice) for line in shape.lines)
    return Traced(lines, shape.bore_m)


def cavity_fit(cavity: shape_docs.Cavity) -> CavityFit:
    """A cavity from what was measured.

    Raises: Missing, OutOfRange: too little measured, an impossible size, or water and sizes far apart.
    """
    shape = shape_of(cavity)
    if cavity.water_kg is not None and traced_of(shape) is not None:
        raise OutOfRange("a drawing holds no water: leave it empty", path="water_kg", got=cavity.water_kg)
    return fit_cavity(shape, cavity.water_kg)


def kind_of(mould: documents.Mould, index: int) -> shape_docs.Cavity:
    """One kind of a mould's cavities.

    Raises: OutOfRange: it has no such kind.
    """
    if index >= len(mould.cavities):
        raise OutOfRange(
            "the mould has no such cavity any more: choose another",
            path="cavity",
            got=index,
            limits={"low": 0, "high": len(mould.cavities) - 1},
        )
    return mould.cavities[index]


def cutting_of(mould: documents.Mould, *kinds: int) -> CuttingPlan | None:
    """What is cut out of a sheet, by all its cutters or some; None of a mould with cavities of its own.

    Raises: OutOfRange: a piece that is larger than its sheet. And as its shapes.
    """
    if mould.sheet is None:
        return None
    cutters = [mould.cavities[kind] for kind in kinds] or mould.cavities
    shapes = [cavity_fit(of).cavity.shape for of in cutters]
    for kind, shape in enumerate(shapes):
        if traced_of(shape) is not None:
            raise OutOfRange("lines are piped, not cut: choose an outline", path=f"cavities.{kind}.shape")
    rims = tuple(shape.rim() for shape in shapes)
    return cutting_plan(mould.sheet.cut(), rims, tuple(of.count for of in cutters))


def mould_case(mould_id: str, mould: documents.Mould, index: int) -> MouldCase:
    """One kind of a mould's cavities as the engine takes it: what is under the cast, and what bears its heat."""
    kind = kind_of(mould, index)
    under, thick, bears = material("moulds", mould.material), mould.wall_m, mould.bears_degc
    if mould.mat is not None:
        under, thick = material("moulds", mould.mat.material), mould.mat.thickness_m
        bears = min(bears, under.value("bears"))
    alone = cutting_of(mould, index)
    return MouldCase(
        mould_id,
        index,
        under,
        thick,
        replace(cavity_fit(kind).cavity, flat=alone is not None),
        kind.count if alone is None else len(alone.cuts),
        mould.owned,
        bears,
        mould.name,
        detail_m=mould.detail_m,
        oiled=mould.oiled,
        cutting=alone,
        by_all=cutting_of(mould) if len(mould.cavities) > 1 else None,
        base_m=None if mould.base is None else (mould.base.length_m, mould.base.width_m),
    )
