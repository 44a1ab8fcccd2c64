"""A cutting plan or a drawing to scale, to lie under a sheet or a film: as SVG, and as PDF over as many pages as it takes."""

import io
import math
from collections.abc import Sequence
from dataclasses import dataclass, replace
from xml.etree import ElementTree as xml

from reportlab.lib.colors import HexColor
from reportlab.lib.pagesizes import A4
from reportlab.lib.units import mm
from reportlab.pdfgen.canvas import Canvas

from umber_pebble.formats.wall import BOLD, INK, PLAIN, QUIET, has_letters

MARGIN, OVERLAP = 12 * mm, 8 * mm
PER_M = 1000 * mm
RULE_M = 0.05
"""A line so long is drawn on every page: what it measures says whether it was printed to scale [m]."""
Ring = Sequence[tuple[float, float]]
PALE = "#d9cfc4"
ROUND = {"stroke-linecap": "round", "stroke-linejoin": "round"}


@dataclass(frozen=True, slots=True)
class Stroke:
    """A line, and how wide what is piped on it lies [m]."""

    points: Ring
    wide_m: float


@dataclass(frozen=True, slots=True)
class Drawn:
    """What is drawn to scale: how large all of it is [m], its closed outlines [m], from the lower left corner, and its lines."""

    length_m: float
    width_m: float
    rings: Sequence[Ring] = ()
    strokes: Sequence[Stroke] = ()

    def mirrored(self) -> "Drawn":
        """As it is seen from below."""
        rings = [self._across(ring) for ring in self.rings]
        strokes = [replace(stroke, points=self._across(stroke.points)) for stroke in self.strokes]
        return replace(self, rings=rings, strokes=strokes)

    def _across(self, points: Ring) -> Ring:
        return [(self.length_m - x, y) for x, y in points]


def write_svg(title: str, of: Drawn) -> str:
    """In millimetres, one unit each."""
    wide, high = of.length_m * 1000, of.width_m * 1000
    root = xml.Element(
        "svg",
        {
            "xmlns": "http://www.w3.org/2000/svg",
            "width": f"{wide:g}mm",
            "height": f"{high:g}mm",
            "viewBox": f"0 0 {wide:g} {high:g}",
        },
    )
    xml.SubElement(root, "title").text = title
    style = {"fill": "none", "stroke": "#2b1b14", "stroke-width": "0.25"}
    xml.SubElement(root, "rect", {"width": f"{wide:g}", "height": f"{high:g}", **style})

    def path(points: Ring) -> str:
        return "M" + " L".join(f"{x * 1000:.3f} {high - y * 1000:.3f}" for x, y in points)

    for stroke in of.strokes:
        broad = {"stroke": PALE, "stroke-width": f"{stroke.wide_m * 1000:g}", **ROUND}
        xml.SubElement(root, "path", {**style, **broad, "d": path(stroke.points)})
    for stroke in of.strokes:
        xml.SubElement(root, "path", {**style, "d": path(stroke.points)})
    for ring in of.rings:
        xml.SubElement(root, "path", {**style, "d": f"{path(ring)} Z"})
    return xml.tostring(root, encoding="unicode") + "\n"


def write_pages(title: str, of: Drawn) -> bytes:
    """A4 pages that are laid edge over edge, each with a line of known length."""
    out = io.BytesIO()
    canvas = Canvas(out, pagesize=A4)
    canvas.setTitle(title)
    room = A4[0] - 2 * MARGIN, A4[1] - 3 * MARGIN
    wide, high = of.length_m * PER_M, of.width_m * PER_M
    lies = math.prod(_pages((high, wide), room)) < math.prod(_pages((wide, high), room))
    size = (high, wide) if lies else (wide, high)
    across, down = _pages(size, room)
    words = title if has_letters(title) else ""
    for row in range(down):
        for column in range(across):
            left, low = (n * (side - OVERLAP) for n, side in zip((column, row), room, strict=True))
            canvas.saveState()
            frame = canvas.beginPath()
            frame.rect(MARGIN, MARGIN, *room)
            canvas.clipPath(frame, stroke=0)
            canvas.translate(MARGIN - left, MARGIN - low)
            _draw(canvas, of, lies)
            canvas.restoreState()
            _told(canvas, f"{words}  {row * across + column + 1} / {across * down}")
            canvas.showPage()
    canvas.save()
    return out.getvalue()


def _pages(size: tuple[float, float], room: tuple[float, float]) -> tuple[int, int]:
    across, down = (
        max(1, math.ceil((long - OVERLAP) / (side - OVERLAP))) for long, side in zip(size, room, strict=True)
    )
    return across, down


def _draw(canvas: Canvas, of: Drawn, lies: bool) -> None:
    def line(points: Ring, closed: bool) -> None:
        path = canvas.beginPath()
        # lying, it is turned by a quarter and not mirrored
        (x0, y0), *rest = [(of.width_m - y, x) if lies else (x, y) for x, y in points]
        path.moveTo(x0 * PER_M, y0 * PER_M)
        for x, y in rest:
            path.lineTo(x * PER_M, y * PER_M)
        if closed:
            path.close()
        canvas.drawPath(path)

    canvas.setLineCap(1)
    canvas.setLineJoin(1)
    canvas.setStrokeColor(HexColor(PALE))
    for stroke in of.strokes:
        canvas.setLineWidth(stroke.wide_m * PER_M)
        line(stroke.points, closed=False)
    canvas.setStrokeColor(INK)
    canvas.setLineWidth(0.3)
    for stroke in of.strokes:
        line(stroke.points, closed=False)
    for ring in ([(0.0, 0.0), (of.length_m, 0.0), (of.length_m, of.width_m), (0.0, of.width_m)], *of.rings):
        line(ring, closed=True)


def _told(canvas: Canvas, words: str) -> None:
    top = A4[1] - 1.2 * MARGIN
    canvas.setFillColor(INK)
    canvas.setFont(BOLD, 11)
    canvas.drawString(MARGIN, top, words)
    canvas.setStrokeColor(INK)
    canvas.line(MARGIN, top - 8 * mm, MARGIN + RULE_M * PER_M, top - 8 * mm)
    canvas.setFillColor(QUIET)
    canvas.setFont(PLAIN, 9)
    canvas.drawString(MARGIN, top - 7 * mm + 1, f"{RULE_M * 1000:g} mm: print at 100 %, and measure this line")
