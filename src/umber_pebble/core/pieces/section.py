"""A build cut open: every pass as the area it has in the cut."""

from dataclasses import dataclass

import shapely
from shapely.geometry.base import BaseGeometry

from umber_pebble.core.moulds.cavity import Cavity, section_m
from umber_pebble.core.moulds.inset import inset
from umber_pebble.core.pieces.build import SIDES_FROM_FRAC
from umber_pebble.core.pieces.layers import Laid
from umber_pebble.core.pieces.passes import Close, Detail, Fill, Filling, Pass, Shell, Turned

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

    Details follow one another along the wall from the right, each on its share of it.
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
                area = _piece_of(hollow.difference(inside), used, used + one.share_frac)
                used += one.share_frac
            case Shell() if one.sides:
                inside = _hollow(cavity, by + one.thick_m, y)
                foot = by + SIDES_FROM_FRAC * (cavity.depth_m - by)
                area = _band(hollow.difference(inside), foot, cavity.depth_m)
            case Shell() | Turned():
                by += one.thick_m if isinstance(one, Shell) else row.thick_m
                inside = _hollow(cavity, by, y)
                area, hollow = hollow.difference(inside), inside
            case Filling() | Close() | Fill():
                area = _band(hollow, row.from_m, row.to_m)
            case _:
                continue
        area = area.difference(there)
        there = there.union(area)
        drawn = _layer(row.index, area.intersection(whole))
        if drawn is not None:
            out.append(drawn)
    return out


def _piece_of(band: BaseGeometry, from_frac: float, to_frac: float) -> BaseGeometry:
    """The part of a layer from one share of its width to another, counted from the right."""
    if band.is_empty:
        return band
    x0, low, x1, high = band.bounds
    a, b = x1 - to_frac * (x1 - x0), x1 - from_frac * (x1 - x0)
    return band.intersection(shapely.box(a, low - 1, b, high + 1))


def _layer(index: int, area: BaseGeometry) -> Layer | None:
    parts = [p for p in shapely.get_parts(area) if p.geom_type == "Polygon" and p.area > SEEN_M2]
    if not parts:
        return None
    largest = max(parts, key=lambda p: p.area).representative_point()
    rings = [
        [[round(x, 6), round(z, 6)] for x, z in ring.coords] for p in parts for ring in (p.exterior, *p.interiors)
    ]
    return Layer(index, rings, [largest.x, largest.y])
