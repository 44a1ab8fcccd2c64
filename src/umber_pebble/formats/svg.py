"""An outline out of an SVG file or the text of a path; what is crooked is mended in words."""

from dataclasses import dataclass

import numpy as np
import shapely

from umber_pebble.core.errors import require_range
from umber_pebble.core.moulds.outline import MOST_POINTS, Points, centred
from umber_pebble.formats.svg_paths import read_paths, refused

MOST_CROSSINGS, AT_A_TIME = 2_000, 5
"""A mended outline has as many pieces as it crosses itself: what crosses more often is a drawing, no outline."""
FINEST_M = 2e-5


@dataclass(frozen=True, slots=True)
class ReadOutline:
    """Corners about their middle [m], and what was mended or left out, in words."""

    corners: Points
    remarks: tuple[str, ...]


def read_outline(text: str, width_m: float | None) -> ReadOutline:
    """The largest closed outline of an SVG file, or of the text of one path in millimetres.

    Args:
        text: the file, at most 5 million characters
        width_m: scale it to this width; None: as it says itself [m]
    Raises: OutOfRange: too large, no SVG, harmful or percent parts, no outline in it.
    """
    remarks: list[str] = []
    shapes = [shape for part in read_paths(text).parts for shape in _polygons(part, remarks)]
    if not shapes:
        raise refused("there is no closed outline in it")
    largest = max(shapes, key=lambda shape: shape.area)
    if len(shapes) > 1:
        remarks.append(f"{len(shapes)} outlines: the largest is used")
    if largest.interiors:
        remarks.append("holes are left out")
    outline = shapely.Polygon(largest.exterior)
    x0, _, x1, _ = outline.bounds
    if width_m is not None:
        require_range("width_m", width_m, 0.003, 0.5)
        outline = shapely.transform(outline, lambda xy: xy * (width_m / (x1 - x0)))
    corners = _corners(outline)
    # SVG counts y downwards
    return ReadOutline(centred(tuple((x, -y) for x, y in corners)), tuple(dict.fromkeys(remarks)))


def _polygons(points: list[tuple[float, float]], remarks: list[str]) -> list[shapely.Polygon]:
    if len(set(points)) < 3:
        return []
    if points[0] != points[-1] and shapely.Point(points[0]).distance(shapely.Point(points[-1])) > FINEST_M:
        remarks.append("an open outline was closed")
    shape = shapely.Polygon(points)
    if not shape.is_valid:
        _crosses_little(points)
        remarks.append("the outline crossed itself: mended, look at the result")
        shape = shapely.make_valid(shape)
    return [p for p in shapely.get_parts(shape) if isinstance(p, shapely.Polygon) and p.area > 0]


def _crosses_little(points: list[tuple[float, float]]) -> None:
    """Counted before it is mended, some stretches at a time, and only as far as it takes."""
    ends = np.array([*points, points[0]])
    lines = shapely.linestrings(np.stack((ends[:-1], ends[1:]), axis=1))
    tree, found = shapely.STRtree(lines), 0
    for start in range(0, len(lines), AT_A_TIME):
        near, far = tree.query(lines[start : start + AT_A_TIME], predicate="crosses")
        found += int((far > near + start).sum())
        if found > MOST_CROSSINGS:
            raise refused(
                f"the outline crosses itself more than {MOST_CROSSINGS:,} times: save the outline alone, as one plain path"
            )


def _corners(outline: shapely.Polygon) -> Points:
    finest = FINEST_M
    plain = shapely.simplify(outline, finest)
    while len(plain.exterior.coords) > MOST_POINTS:
        finest *= 2
        plain = shapely.simplify(outline, finest)
    return tuple((float(x), float(y)) for x, y in plain.exterior.coords[:-1])
