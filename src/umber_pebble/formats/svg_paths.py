"""The paths of an SVG file, or of the text of one: what could do harm is refused."""

import io
import re
from dataclasses import dataclass
from xml.etree.ElementTree import Element, ParseError

import defusedxml.ElementTree as SafeTree
from defusedxml.common import DefusedXmlException
from svgelements import SVG, Path, Shape

from umber_pebble.core.errors import OutOfRange

LARGEST_CHARACTERS = 5_000_000
LARGEST_POINTS = 40_000
MOST_NUMBERS, MOST_ELEMENTS, DEEPEST = 200_000, 5_000, 60
NUMBER = re.compile(r"[0-9]+")
ABSOLUTE = re.compile(r"\s*[0-9.eE+-]+\s*(mm|cm|in|pt|pc|q)\s*", re.IGNORECASE)
"""A size that says how large it is on paper; pixels do not."""
METRES_PER_PIXEL = 0.0254 / 96
CURVE_STEPS = 16
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
Points = list[tuple[float, float]]


@dataclass(frozen=True, slots=True)
class ReadPaths:
    """Paths as their corners, curves in steps [m, y downwards], and whether the file says how large it is."""

    parts: list[Points]
    told: bool


def read_paths(text: str) -> ReadPaths:
    """All paths of an SVG file, or of the text of one path in millimetres.

    Args:
        text: the file, at most 5 million characters
    Raises: OutOfRange: too large, no SVG, harmful or percent parts.
    """
    if len(text) > LARGEST_CHARACTERS:
        raise refused(f"the file is too large: at most {LARGEST_CHARACTERS:,} characters")
    if sum(1 for _ in NUMBER.finditer(text)) > MOST_NUMBERS:
        raise refused(
            f"it has too many points: at most {MOST_NUMBERS:,} numbers; save the drawing alone, simplified"
        )
    if text.lstrip().startswith("<"):
        (paths, told), metres = _of_file(text), METRES_PER_PIXEL
    else:
        paths, told, metres = [_path(text)], True, 0.001
    parts = [_flat(Path(part), metres) for path in paths for part in path.as_subpaths()]
    return ReadPaths(parts, told)


def refused(message: str) -> OutOfRange:
    """What is said of a file that is not read."""
    return OutOfRange(message, path="svg", got=None)


def _of_file(text: str) -> tuple[list[Path], bool]:
    try:
        root = SafeTree.fromstring(text, forbid_dtd=True)
    except DefusedXmlException as error:
        raise refused("it defines entities or a document type: save it as plain SVG") from error
    except (ParseError, ValueError) as error:
        raise refused(f"this is not well-formed: {error}") from error
    if _local(root.tag) != "svg":
        raise refused("this is not an SVG file")
    _small(root)
    for element in root.iter():
        _harmless(element.tag, element.attrib)
    try:
        drawing = SVG.parse(io.StringIO(text))
        paths = [Path(element) for element in drawing.elements() if isinstance(element, Shape)]
    except (ValueError, TypeError, AttributeError, IndexError, ZeroDivisionError, RecursionError) as error:
        raise refused("it cannot be read as a drawing: save it as plain paths") from error
    return paths, ABSOLUTE.fullmatch(root.get("width", "")) is not None


def _small(root: Element) -> None:
    waiting, count = [(root, 1)], 0
    while waiting:
        element, depth = waiting.pop()
        count += 1
        if count > MOST_ELEMENTS or depth > DEEPEST:
            raise refused("it holds too many things, or things too deep in each other: save the drawing alone")
        waiting += [(inner, depth + 1) for inner in element]


def _local(tag: object) -> str:
    return str(tag).rpartition("}")[2].lower()


def _harmless(tag: object, attributes: dict[str, str]) -> None:
    if _local(tag) in HARMFUL:
        raise refused(f"it contains {HARMFUL[_local(tag)]}: save the drawing alone as plain SVG")
    for name, value in attributes.items():
        plain = _local(name)
        if plain.startswith("on") or plain == "href" or "url(" in value:
            raise refused("it contains a link or a script: save the drawing alone as plain SVG")
        if plain in SIZES and value.strip().endswith("%"):
            raise refused(f"{plain} is in percent: give it in millimetres")


def _path(text: str) -> Path:
    if not re.fullmatch(r"[MmZzLlHhVvCcSsQqTtAaEe0-9+\-.,\s]*", text):
        raise refused("this is no path: it starts with M and holds only path letters and numbers")
    try:
        return Path(text)
    except (ValueError, TypeError, AttributeError, IndexError, ZeroDivisionError) as error:
        raise refused("this path cannot be read") from error


def _flat(path: Path, metres: float) -> Points:
    points: Points = []
    for segment in path:
        if segment.end is None:
            continue
        if len(points) > LARGEST_POINTS:
            raise refused(f"a line has too many points: at most {LARGEST_POINTS:,}")
        kind = type(segment).__name__
        if kind in ("Move", "Line", "Close"):
            points.append((float(segment.end.x), float(segment.end.y)))
        else:
            places = (segment.point(i / CURVE_STEPS) for i in range(1, CURVE_STEPS + 1))
            points += [(float(p.x), float(p.y)) for p in places]
    if any(abs(value) >= 1e7 for point in points for value in point):
        raise refused("a number in it is out of range")
    return [(x * metres, y * metres) for x, y in points]
