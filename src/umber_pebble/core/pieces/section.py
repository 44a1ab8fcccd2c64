"""A build cut open: every pass as the area it has in the cut."""

import math
from collections.abc import Sequence
from dataclasses import dataclass

import shapely
from shapely.affinity import translate
from shapely.geometry.base import BaseGeometry

from umber_pebble.core.moulds.cavity import Cavity
from umber_pebble.core.pieces.body import Body, profile
from umber_pebble.core.pieces.cut import SEEN_M2, BodyCut, Cut
from umber_pebble.core.pieces.layers import LaidPass
from umber_pebble.core.pieces.melt_ref import OwnMelts
from umber_pebble.core.pieces.passes.base import PassKind

Ring = list[list[float]]
FINE_M = 1e-5
"""So far from where it is a corner may be drawn."""


@dataclass(frozen=True, slots=True)
class Layer:
    """A pass in the cut: which, its areas as rings of (across, height) [m], and where in the largest of them a line to its name may end."""

    index: int
    rings: list[Ring]
    across_m: float
    height_m: float


def layers_of(
    cavity: Cavity, passes: Sequence[PassKind], laid: Sequence[LaidPass], cut_frac: float, own: OwnMelts = ()
) -> list[Layer]:
    """The passes of a build in a cut, each without what lies there before it.

    Args:
        cavity: the cavity
        passes, laid: the build
        cut_frac: where it is cut, -1 (near edge) to 1 (far edge)
        own: melts of the workshop's own
    Raises: OutOfRange: cut_frac outside.
    Source: geometry
    """
    cut, there, out = Cut(cavity, cut_frac * cavity.bounds_m()[1] / 2), shapely.Polygon(), list[Layer]()
    for row in laid:
        one = passes[row.index]
        area = one.cut(row, cut, own)
        if area is None:
            continue
        if not one.ON_TOP:
            area = area.difference(there)
            there = there.union(area)
            area = area.intersection(cut.whole)
        out += _layer(row.index, area)
    return out


def layers_on(
    body: Body, passes: Sequence[PassKind], laid: Sequence[LaidPass], cut_frac: float, own: OwnMelts = ()
) -> list[Layer]:
    """The passes on a body in a cut through its axis.

    Args:
        body, passes, laid, own: the build
        cut_frac: how the cut is turned, 0 along the slant, -1 and 1 across it
    Source: geometry
    """
    cut, out = BodyCut(cut_frac * math.pi / 2, profile(body.shape, body.diameter_m, body.high_m)), list[Layer]()
    for row in sorted(laid, key=lambda row: not passes[row.index].COATS):
        area = passes[row.index].cut_on(row, cut, own)
        if area is not None:
            out += _layer(row.index, area)
    return sorted(out, key=lambda layer: layer.index)


def layers_in_hand(passes: Sequence[PassKind], laid: Sequence[LaidPass]) -> list[Layer]:
    """What is modelled by hand, as it is seen, each on the same board.

    Args:
        passes, laid: the build
    Source: geometry
    """
    out = list[Layer]()
    for row in laid:
        seen = passes[row.index].front()
        if seen is not None:
            out += _layer(row.index, translate(seen, 0.0, -seen.bounds[1]))
    return out


def _layer(index: int, area: BaseGeometry) -> list[Layer]:
    parts = [p for p in shapely.get_parts(area.simplify(FINE_M)) if p.geom_type == "Polygon" and p.area > SEEN_M2]
    if not parts:
        return []
    largest = max(parts, key=lambda p: p.area).representative_point()
    rings = [
        [[round(x, 6), round(z, 6)] for x, z in ring.coords] for p in parts for ring in (p.exterior, *p.interiors)
    ]
    return [Layer(index, rings, largest.x, largest.y)]
