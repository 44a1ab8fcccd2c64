"""Drawings that lines are piped over: whether they hold, what would make them hold, and to scale on paper."""

import math
from collections.abc import Mapping
from dataclasses import dataclass

from pydantic import Field

from umber_pebble.core.errors import Missing
from umber_pebble.core.explained import Explained, explained, given
from umber_pebble.core.families.known import family_of
from umber_pebble.core.filigree.bending import lifted
from umber_pebble.core.filigree.check import Checked, checked
from umber_pebble.core.filigree.mend import MendKind, mends
from umber_pebble.core.materials.load import Material
from umber_pebble.core.melts.bag import bag_flows_s
from umber_pebble.core.moulds.traced import Traced, bead
from umber_pebble.core.pieces.stripes import piping_s
from umber_pebble.core.spread import Spread
from umber_pebble.formats.apart import apart
from umber_pebble.formats.svg_lines import read_lines
from umber_pebble.formats.to_scale import Drawn, Stroke, write_pages, write_svg
from umber_pebble.services.doc_base import Doc, Id, Whole
from umber_pebble.services.documents import Kitchen, Mould, OwnMaterial
from umber_pebble.services.materials_own import castable
from umber_pebble.services.shape_docs import DrawnLine, LinesShape
from umber_pebble.services.shapes import drawing_of
from umber_pebble.services.workshop import KITCHEN_ID, Workshop, own_materials

MARGIN_M = 0.005
"""So far from its lines a drawing is framed on paper."""
Points = list[list[float]]


class FiligreeRequest(Doc):
    """A drawing as it stands in the editor, what is piped over it, and how often it lies on a board."""

    shape: LinesShape
    material: Id
    count: Whole = Field(ge=1, le=200)


@dataclass(frozen=True, slots=True)
class WeakSpan:
    """A span that reaches too far between its joins: where [m], how far, how far it may [m], the share that breaks there [frac]."""

    points: Points
    reach_m: float
    holds_m: float
    breaks_frac: float


@dataclass(frozen=True, slots=True)
class SingleJoin:
    """What hangs on one join: where that is [m], the lines of it [m], its length, how far it reaches, how far a loose end may [m], its
    weight [kg]; whether it is one loose end, whether it is more than is safe, the share that breaks there [frac]."""

    at: list[float]
    lines: list[Points]
    length_m: float
    reach_m: float
    holds_m: float
    kg: float
    loose_end: bool
    far: bool
    breaks_frac: float


@dataclass(frozen=True, slots=True)
class Bag:
    """What a board is piped out of: its melt [kg], how long that takes and, in a bag in the hand, flows [s], None: as long as it is held; out of
    how many bags, filled one after the other, it is piped."""

    board_kg: float
    board_s: float
    flows: Spread | None
    bags: int


@dataclass(frozen=True, slots=True)
class FiligreeFigures:
    """A drawing as a filigree: how large it is and its bead [m]; what it weighs, how long it is piped; in which parts it comes off, by the
    numbers of their lines, that with the longest lines first; what reaches too far, what hangs on one join; the share that breaks as it
    is lifted [frac]; whether it comes off in one and nothing reaches too far."""

    wide_m: float
    high_m: float
    bead_wide_m: float
    bead_high_m: float
    weight: Explained
    piped: Explained
    takes: Explained
    bag: Bag
    parts: list[list[int]]
    spans: list[WeakSpan]
    joins: list[SingleJoin]
    breaks_frac: float
    holds: bool


@dataclass(frozen=True, slots=True)
class MendShown:
    """A way to mend a drawing: its lines then, how many of them are new, how many are then piped twice that were not; in how many parts it
    comes off then, how many spans and ends still reach too far, and the share that breaks [frac]."""

    kind: MendKind
    lines: list[DrawnLine]
    added: int
    doubled: int
    parts: int
    far: int
    breaks_frac: float


def filigree_figures(workshop: Workshop, asked: FiligreeRequest) -> FiligreeFigures:
    """A drawing checked.

    Raises: OutOfRange: a drawing that is none, or no such melt.
    """
    drawing, melt = drawing_of(asked.shape), _melt(workshop, asked)
    of = checked(drawing, lifted(melt))
    x0, y0, x1, y1 = drawing.bounds
    lies = bead(drawing.bore_m)
    density = melt.spread("density_melt")
    return FiligreeFigures(
        x1 - x0,
        y1 - y0,
        lies.wide_m,
        lies.high_m,
        explained(
            density.times(drawing.volume_m3),
            "kg",
            "length x cut of the opening x density of the melt",
            given("length", drawing.piped_m, "m"),
            given("opening", drawing.bore_m, "m"),
            given("density", density, "kg/m3"),
            sources=("geometry", melt["density_melt"].source),
        ),
        explained(drawing.piped_m, "m", "all lines, what is piped twice counted twice", sources=("geometry",)),
        explained(
            piping_s(drawing.piped_m, drawing.strokes),
            "s",
            "length / pace, and setting down for every line",
            given("length", drawing.piped_m, "m"),
            given("lines", float(drawing.strokes), "count"),
            sources=("from-memory",),
        ),
        _bag(workshop, melt, drawing, asked.count),
        [sorted(part) for part in of.joined.parts],
        [WeakSpan(_points(one.span.path.coords), one.reach_m, one.holds_m, one.breaks_frac) for one in of.far],
        [
            SingleJoin(
                list(one.hanging.at),
                [_points(of.joined.spans[i].path.coords) for i in one.hanging.some],
                one.hanging.length_m,
                one.hanging.reach_m,
                one.holds_m,
                one.kg,
                one.hanging.loose_end,
                one.far,
                one.breaks_frac,
            )
            for one in of.hangs
            if one.far or not one.hanging.loose_end
        ],
        of.breaks_frac,
        of.holds,
    )


def _bag(workshop: Workshop, melt: Material, drawing: Traced, count: int) -> Bag:
    kitchen = workshop.get("kitchen", KITCHEN_ID).doc
    assert isinstance(kitchen, Kitchen)
    kg = count * drawing.volume_m3 * melt.value("density_melt")
    takes_s = count * piping_s(drawing.piped_m, drawing.strokes)
    degc, tg = family_of(melt).poured_at(melt)
    flows = bag_flows_s(melt, kg, degc, tg, kitchen.room_degc)
    lasts = math.isfinite(flows.likely)
    return Bag(kg, takes_s, flows if lasts else None, math.ceil(takes_s / flows.likely) if lasts else 1)


def filigree_mends(workshop: Workshop, asked: FiligreeRequest) -> list[MendShown]:
    """The ways that help a drawing; none where it holds.

    Raises: as its figures.
    """
    drawing, melt = drawing_of(asked.shape), lifted(_melt(workshop, asked))
    return [_shown(drawing, one.kind, one.drawing, one.after) for one in mends(checked(drawing, melt), melt)]


def _shown(before: Traced, kind: MendKind, to: Traced, after: Checked) -> MendShown:
    lines = [
        DrawnLine(points=[[round(x, 6), round(y, 6)] for x, y in line.points], twice=line.twice)
        for line in to.lines
    ]
    far = len(after.far) + sum(one.far for one in after.hangs)
    doubled = sum(line.twice for line in to.lines) - sum(line.twice for line in before.lines)
    added = len(to.lines) - len(before.lines)
    return MendShown(kind, lines, added, doubled, after.apart, far, after.breaks_frac)


def _melt(workshop: Workshop, asked: FiligreeRequest) -> Material:
    with workshop.session() as session:
        own: Mapping[str, OwnMaterial] = own_materials(session)
    return castable(asked.material, own, "material")


def _points(coords: object) -> Points:
    return [[round(x, 5), round(y, 5)] for x, y in coords]  # type: ignore[attr-defined]


@dataclass(frozen=True, slots=True)
class LinesOf:
    """Lines about the middle of all of them [m], how wide they are [m], whether the file said how large they are, and what was left out, in
    words."""

    lines: list[Points]
    wide_m: float
    told: bool
    remarks: list[str]


def lines_of_svg(svg: str, width_m: float | None) -> LinesOf:
    """The lines of an SVG file.

    Raises: OutOfRange: too large, harmful, too long to read, or no line in it.
    """
    read = apart("svg", read_lines, svg, width_m)
    lines = [[[round(x, 6), round(y, 6)] for x, y in line] for line in read.lines]
    return LinesOf(lines, read.wide_m, read.told, list(read.remarks))


def drawing_svg(workshop: Workshop, mould_id: str, mirrored: bool) -> str:
    """A board's drawings to scale, each once, to lie under a film, as SVG. Raises: NotFound. Missing: it has none."""
    return write_svg(*_drawn(workshop, mould_id, mirrored))


def drawing_pdf(workshop: Workshop, mould_id: str, mirrored: bool) -> bytes:
    """The same as PDF. Raises: as its SVG."""
    return write_pages(*_drawn(workshop, mould_id, mirrored))


def _drawn(workshop: Workshop, mould_id: str, mirrored: bool) -> tuple[str, Drawn]:
    """One over the other."""
    mould = workshop.get("mould", mould_id).doc
    assert isinstance(mould, Mould)
    drawings = [drawing_of(of.shape) for of in mould.cavities if isinstance(of.shape, LinesShape)]
    if not drawings:
        raise Missing("nothing here is a drawing that lines are piped over", path="cavities.0.shape")
    strokes, low_m, wide_m = list[Stroke](), MARGIN_M, 0.0
    for of in drawings:
        x0, y0, x1, y1 = of.bounds
        for line in of.lines:
            moved = [(x - x0 + MARGIN_M, y - y0 + low_m) for x, y in line.points]
            strokes.append(Stroke(moved, of.bead_of(line).wide_m))
        low_m, wide_m = low_m + y1 - y0 + MARGIN_M, max(wide_m, x1 - x0)
    drawn = Drawn(wide_m + 2 * MARGIN_M, low_m, strokes=strokes)
    return mould.name, drawn.mirrored() if mirrored else drawn
