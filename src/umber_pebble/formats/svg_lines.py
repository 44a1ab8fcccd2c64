"""The lines of a drawing out of an SVG file or the text of a path."""

from dataclasses import dataclass

import shapely

from umber_pebble.core.errors import require_range
from umber_pebble.core.moulds.outline import Points
from umber_pebble.core.moulds.traced import FINEST_BORE_M, MOST_LINES, MOST_POINTS, WIDEST_M
from umber_pebble.formats.svg_paths import read_paths, refused

FINEST_M = 5e-5
"""So far from where it is a line may be drawn."""


@dataclass(frozen=True, slots=True)
class ReadLines:
    """Lines about the middle of all of them [m], how wide they are [m], whether the file said that, and what was left out, in words."""

    lines: tuple[Points, ...]
    wide_m: float
    told: bool
    remarks: tuple[str, ...]


def read_lines(text: str, width_m: float | None) -> ReadLines:
    """All lines of an SVG file, or of the text of one path in millimetres; an outline is a line round it.

    Args:
        text: the file, at most 5 million characters
        width_m: scale it to this width; None: as it says itself, or a pixel as usual [m]
    Raises: OutOfRange: too large, no SVG, harmful or percent parts, no line in it, too many.
    """
    read, remarks = read_paths(text), list[str]()
    paths = [shapely.LineString(points) for points in read.parts if len(points) > 1]
    if not any(path.length > 0 for path in paths):
        raise refused("there is no line in it")
    every = shapely.MultiLineString([path for path in paths if path.length > 0])
    x0, y0, x1, y1 = every.bounds
    # what goes straight up is as wide as it is high
    across = x1 - x0 if x1 - x0 >= FINEST_M else y1 - y0
    scale = 1.0 if width_m is None else require_range("width_m", width_m, 0.005, WIDEST_M) / across
    middle = (x0 + x1) / 2, (y0 + y1) / 2
    lines = dict[Points, None]()
    for path in paths:
        # SVG counts y downwards
        moved = shapely.LineString([((x - middle[0]) * scale, (middle[1] - y) * scale) for x, y in path.coords])
        if moved.length >= FINEST_BORE_M:
            lines[tuple((float(x), float(y)) for x, y in shapely.simplify(moved, FINEST_M).coords)] = None
    lost = len(read.parts) - len(lines)
    if not lines:
        raise refused("so small, all of its lines are dots: give the width it is to have")
    if lost:
        remarks.append(f"{lost} dots, lines of no length or lines drawn twice are left out")
    if len(lines) > MOST_LINES or sum(map(len, lines)) > MOST_POINTS:
        raise refused(f"at most {MOST_LINES:,} lines with {MOST_POINTS:,} points in all: save it simplified")
    return ReadLines(tuple(lines), across * scale, read.told or width_m is not None, tuple(remarks))
