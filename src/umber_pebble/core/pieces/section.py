"""A build cut open: every pass as the area it has in the cut."""

import math
from dataclasses import dataclass

import shapely
from shapely.geometry.base import BaseGeometry

from umber_pebble.core.moulds.cavity import Cavity, section_m
from umber_pebble.core.moulds.inset import inset
from umber_pebble.core.pieces.body import Body, profile
from umber_pebble.core.pieces.build import SIDES_FROM_FRAC
from umber_pebble.core.pieces.coats import coat_cuts
from umber_pebble.core.pieces.heaps import heaped
from umber_pebble.core.pieces.layers import Laid
from umber_pebble.core.pieces.passes import (
    Close,
    Cluster,
    Detail,
    Dollop,
    Drizzle,
    Fill,
    Filling,
    Pass,
    Paste,
    Shell,
    Turned,
)

Ring = list[list[float]]
SEEN_M2 = 1e-9
"""A sliver smaller than this is not drawn."""


@dataclass(frozen=True, slots=True)
class Layer:
    """A pass in the cut: which, its areas as rings of (across, height) [m], and a point in the largest of them."""

    index: int
    rings: list[Ring]
    at: list[float]


def _hollow(cavity: Cavity, by_m: float, y_m: float) -> BaseGeometry:
    """The cut through the hollow inside a layer."""
    inner = Cavity(inset(cavity.shape, by_m)) if by_m > 0 else cavity
    _, along = inner.bounds_m()
    cut = 2 * y_m / along
    if abs(cut) > 1:
        return shapely.Polygon()
    runs = [shapely.Polygon([(x, z + by_m) for x, z in run]) for run in section_m(inner, cut)]
    return shapely.make_valid(shapely.union_all(runs))


def _band(region: BaseGeometry, from_m: float, to_m: float) -> BaseGeometry:
    x0, _, x1, _ = region.bounds if not region.is_empty else (0.0, 0.0, 0.0, 0.0)
    return region.intersection(shapely.box(x0 - 1, from_m, x1 + 1, to_m))


def layers_of(cavity: Cavity, passes: tuple[Pass, ...], laid: list[Laid], cut_frac: float) -> list[Layer]:
    """The passes of a build in a cut, each without what lies there before it.

    A detail with an outline of its own lies under it; the others follow one another along the wall from the right, each on its
    share of it.
    Args:
        cavity: the cavity
        passes, laid: the build
        cut_frac: where it is cut, -1 (near edge) to 1 (far edge)
    Raises: OutOfRange: cut_frac outside.
    Source: geometry
    """
    y = cut_frac * cavity.bounds_m()[1] / 2
    hollow, by = _hollow(cavity, 0.0, y), 0.0
    whole, there, out, used = hollow, shapely.Polygon(), list[Layer](), 0.0
    for row in laid:
        one = passes[row.index]
        match one:
            case Detail():
                inside = _hollow(cavity, by + one.thick_m, y)
                band = hollow.difference(inside)
                if one.outline is not None:
                    area = _under_outline(band, one.outline, y)
                else:
                    area = _piece_of(band, used, used + one.share_frac)
                    used += one.share_frac
            case Shell() if one.sides:
                inside = _hollow(cavity, by + one.thick_m, y)
                foot = by + SIDES_FROM_FRAC * (cavity.depth_m - by)
                area = _band(hollow.difference(inside), foot, cavity.depth_m)
            case Shell() | Turned():
                by += one.thick_m if isinstance(one, Shell) else row.thick_m
                inside = _hollow(cavity, by, y)
                area, hollow = hollow.difference(inside), inside
            case Filling() | Close() | Fill() | Paste():
                area = _band(hollow, row.from_m, row.to_m)
            case Drizzle() | Dollop() | Cluster():
                region = hollow if row.from_m < cavity.depth_m else whole
                if region.is_empty:
                    continue
                low, _, high, _ = region.bounds
                out += _heaped(row, one, [(x, row.from_m) for x in _evenly(one, low, high)])
                continue
            case _:
                continue
        area = area.difference(there)
        there = there.union(area)
        drawn = _layer(row.index, area.intersection(whole))
        if drawn is not None:
            out.append(drawn)
    return out


def layers_on(body: Body, passes: tuple[Pass, ...], laid: list[Laid], cut_frac: float) -> list[Layer]:
    """The passes on a body in a cut through its axis.

    Args:
        body, passes, laid: the build
        cut_frac: how the cut is turned, 0 along the slant, -1 and 1 across it
    Source: geometry
    """
    cuts = coat_cuts(body, passes, laid, cut_frac * math.pi / 2)
    out = [drawn for index, area in cuts if (drawn := _layer(index, area)) is not None]
    outer = shapely.union_all([profile(body.shape, body.diameter_m, body.high_m), *(area for _, area in cuts)])
    for row in laid:
        one = passes[row.index]
        if isinstance(one, (Drizzle, Dollop, Cluster)):
            low, _, high, _ = outer.bounds
            out += _heaped(row, one, [(x, _top(outer, x)) for x in _evenly(one, low, high)])
    return sorted(out, key=lambda layer: layer.index)


def _top(area: BaseGeometry, x: float) -> float:
    _, low, _, high = area.bounds
    return float(area.intersection(shapely.LineString([(x, low - 1), (x, high + 1)])).bounds[3])


def _evenly(one: Drizzle | Dollop | Cluster, low: float, high: float) -> list[float]:
    """Where a cut meets them: lines and dollops lie evenly over what they are on."""
    across, n = high - low, 1
    if isinstance(one, Drizzle):
        n = max(1, min(round(one.length_m / across), int(across / one.bore_m)))
    elif isinstance(one, Dollop):
        n = max(1, min(round(one.count**0.5), int(across / one.diameter_m)))
    return [low + across * (k + 0.5) / n for k in range(n)]


def _heaped(row: Laid, one: Drizzle | Dollop | Cluster, at: list[tuple[float, float]]) -> list[Layer]:
    """Lines as rounds, dollops and clusters as caps, each on its place (across, height)."""
    high = row.thick_m
    if isinstance(one, Drizzle):
        shapes = [shapely.Point(x, z + high / 2).buffer(high / 2) for x, z in at]
    else:
        half = (one.diameter_m if isinstance(one, Dollop) else heaped(row.index, one, 0.0)[1]) / 2
        radius = (half**2 + high**2) / (2 * high)
        caps = [shapely.Point(x, z + high - radius).buffer(radius, quad_segs=32) for x, z in at]
        shapes = [
            cap.intersection(shapely.box(x - half, z, x + half, z + high))
            for cap, (x, z) in zip(caps, at, strict=True)
        ]
    drawn = _layer(row.index, shapely.MultiPolygon([s for s in shapes if s.geom_type == "Polygon"]))
    return [] if drawn is None else [drawn]


def _piece_of(band: BaseGeometry, from_frac: float, to_frac: float) -> BaseGeometry:
    """The part of a layer from one share of its width to another, counted from the right."""
    if band.is_empty:
        return band
    x0, low, x1, high = band.bounds
    a, b = x1 - to_frac * (x1 - x0), x1 - from_frac * (x1 - x0)
    return band.intersection(shapely.box(a, low - 1, b, high + 1))


def _under_outline(band: BaseGeometry, outline: tuple[tuple[float, float], ...], y_m: float) -> BaseGeometry:
    """The part of a layer that lies under an outline, where the cut crosses it."""
    shape = shapely.make_valid(shapely.Polygon(outline))
    x0, _, x1, _ = shape.bounds
    crossed = shape.intersection(shapely.LineString([(x0 - 1, y_m), (x1 + 1, y_m)]))
    spans = [run.bounds for run in shapely.get_parts(crossed) if run.length > 0]
    return shapely.union_all([band.intersection(shapely.box(a, -1.0, b, 1.0)) for a, _, b, _ in spans])


def _layer(index: int, area: BaseGeometry) -> Layer | None:
    parts = [p for p in shapely.get_parts(area) if p.geom_type == "Polygon" and p.area > SEEN_M2]
    if not parts:
        return None
    largest = max(parts, key=lambda p: p.area).representative_point()
    rings = [
        [[round(x, 6), round(z, 6)] for x, z in ring.coords] for p in parts for ring in (p.exterior, *p.interiors)
    ]
    return Layer(index, rings, [largest.x, largest.y])
