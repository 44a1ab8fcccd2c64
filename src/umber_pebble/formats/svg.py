"""An outline out of an SVG file or the text of a path. What could do harm is refused, what is crooked is mended in words."""

import io
import re
from dataclasses import dataclass
from xml.etree.ElementTree import Element, ParseError

import defusedxml.ElementTree as SafeTree
import numpy as np
import shapely
from defusedxml.common import DefusedXmlException
from svgelements import SVG, Path, Shape

from umber_pebble.core.errors import OutOfRange, require_range
from umber_pebble.core.moulds.outline import MOST_POINTS, Points, centred

LARGEST_CHARACTERS = 5_000_000
LARGEST_POINTS = 40_000
MOST_NUMBERS, MOST_ELEMENTS, DEEPEST = 200_000, 5_000, 60
MOST_CROSSINGS, AT_A_TIME = 2_000, 5
"""A mended outline has as many pieces as it crosses itself: what crosses more often is a drawing, no outline."""
NUMBER = re.compile(r"[0-9]+")
METRES_PER_PIXEL = 0.0254 / 96
CURVE_STEPS = 16
FINEST_M = 2e-5
HARMFUL = {
    "script": "a script",
    "foreignobject": "foreign content",
    "image": "a picture",
    "use": "a reference",
    "a": "a link",
    "style": "a style sheet",
    "animate": "an animation",
    "set": "an animation",
}
SIZES = ("width", "height", "x", "y", "cx", "cy", "r", "rx", "ry", "x1", "x2", "y1", "y2")


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
    if len(text) > LARGEST_CHARACTERS:
        raise _refused(f"the file is too large: at most {LARGEST_CHARACTERS:,} characters")
    if sum(1 for _ in NUMBER.finditer(text)) > MOST_NUMBERS:
        raise _refused(
            f"it has too many points: at most {MOST_NUMBERS:,} numbers; save the outline alone, simplified"
        )
    if text.lstrip().startswith("<"):
        paths, metres = _of_file(text), METRES_PER_PIXEL
    else:
        paths, metres = [_path(text)], 0.001
    remarks: list[str] = []
    shapes = [shape for path in paths for shape in _polygons(path, metres, remarks)]
    if not shapes:
        raise _refused("there is no closed outline in it")
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


def _refused(message: str) -> OutOfRange:
    return OutOfRange(message, path="svg", got=None)


def _of_file(text: str) -> list[Path]:
    try:
        root = SafeTree.fromstring(text, forbid_dtd=True)
    except DefusedXmlException as error:
        raise _refused("it defines entities or a document type: save it as plain SVG") from error
    except (ParseError, ValueError) as error:
        raise _refused(f"this is not well-formed: {error}") from error
    if _local(root.tag) != "svg":
        raise _refused("this is not an SVG file")
    _small(root)
    for element in root.iter():
        _harmless(element.tag, element.attrib)
    try:
        drawing = SVG.parse(io.StringIO(text))
        return [Path(element) for element in drawing.elements() if isinstance(element, Shape)]
    except (ValueError, TypeError, AttributeError, IndexError, ZeroDivisionError, RecursionError) as error:
        raise _refused("it cannot be read as a drawing: save the outline as one plain path") from error


def _small(root: Element) -> None:
    waiting, count = [(root, 1)], 0
    while waiting:
        element, depth = waiting.pop()
        count += 1
        if count > MOST_ELEMENTS or depth > DEEPEST:
            raise _refused("it holds too many things, or things too deep in each other: save the outline alone")
        waiting += [(inner, depth + 1) for inner in element]


def _local(tag: object) -> str:
    return str(tag).rpartition("}")[2].lower()


def _harmless(tag: object, attributes: dict[str, str]) -> None:
    if _local(tag) in HARMFUL:
        raise _refused(f"it contains {HARMFUL[_local(tag)]}: save the outline alone as plain SVG")
    for name, value in attributes.items():
        plain = _local(name)
        if plain.startswith("on") or plain == "href" or "url(" in value:
            raise _refused("it contains a link or a script: save the outline alone as plain SVG")
        if plain in SIZES and value.strip().endswith("%"):
            raise _refused(f"{plain} is in percent: give it in millimetres")


def _path(text: str) -> Path:
    if not re.fullmatch(r"[MmZzLlHhVvCcSsQqTtAaEe0-9+\-.,\s]*", text):
        raise _refused("this is no path: it starts with M and holds only path letters and numbers")
    try:
        return Path(text)
    except (ValueError, TypeError, AttributeError, IndexError, ZeroDivisionError) as error:
        raise _refused("this path cannot be read") from error


def _polygons(path: Path, metres: float, remarks: list[str]) -> list[shapely.Polygon]:
    out: list[shapely.Polygon] = []
    for part in path.as_subpaths():
        points = _flat(Path(part))
        if len(points) > LARGEST_POINTS:
            raise _refused(f"the outline has too many points: at most {LARGEST_POINTS:,}")
        finite = [(x * metres, y * metres) for x, y in points if abs(x) < 1e7 and abs(y) < 1e7]
        if len(finite) != len(points):
            raise _refused("a number in the outline is out of range")
        if len(set(finite)) < 3:
            continue
        if finite[0] != finite[-1] and shapely.Point(finite[0]).distance(shapely.Point(finite[-1])) > FINEST_M:
            remarks.append("an open outline was closed")
        shape = shapely.Polygon(finite)
        if not shape.is_valid:
            _crosses_little(finite)
            remarks.append("the outline crossed itself: mended, look at the result")
            shape = shapely.make_valid(shape)
        out += [p for p in shapely.get_parts(shape) if isinstance(p, shapely.Polygon) and p.area > 0]
    return out


def _crosses_little(points: list[tuple[float, float]]) -> None:
    """Counted before it is mended, some stretches at a time, and only as far as it takes."""
    ends = np.array([*points, points[0]])
    lines = shapely.linestrings(np.stack((ends[:-1], ends[1:]), axis=1))
    tree, found = shapely.STRtree(lines), 0
    for start in range(0, len(lines), AT_A_TIME):
        near, far = tree.query(lines[start : start + AT_A_TIME], predicate="crosses")
        found += int((far > near + start).sum())
        if found > MOST_CROSSINGS:
            raise _refused(
                f"the outline crosses itself more than {MOST_CROSSINGS:,} times: save the outline alone, as one plain path"
            )


def _flat(path: Path) -> list[tuple[float, float]]:
    points: list[tuple[float, float]] = []
    for segment in path:
        if segment.end is None:
            continue
        if len(points) > LARGEST_POINTS:
            break
        kind = type(segment).__name__
        if kind in ("Move", "Line", "Close"):
            points.append((float(segment.end.x), float(segment.end.y)))
        else:
            places = (segment.point(i / CURVE_STEPS) for i in range(1, CURVE_STEPS + 1))
            points += [(float(p.x), float(p.y)) for p in places]
    return points


def _corners(outline: shapely.Polygon) -> Points:
    finest = FINEST_M
    plain = shapely.simplify(outline, finest)
    while len(plain.exterior.coords) > MOST_POINTS:
        finest *= 2
        plain = shapely.simplify(outline, finest)
    return tuple((float(x), float(y)) for x, y in plain.exterior.coords[:-1])
