"""Figures of a part while it is built: what it is cast in, its passes laid and cut open, a pass by its weight."""

from dataclasses import dataclass

from pydantic import Field

from umber_pebble.core.errors import Missing, OutOfRange
from umber_pebble.core.explained import Explained, explained, given
from umber_pebble.core.families.known import family_of
from umber_pebble.core.pieces.body import profile
from umber_pebble.core.pieces.bought import WireBears, wire_bears
from umber_pebble.core.pieces.dipped import Dipped
from umber_pebble.core.pieces.faults import BuildFault
from umber_pebble.core.pieces.fields import with_told
from umber_pebble.core.pieces.finishes import Finish, coat_of, strong_enough_frac
from umber_pebble.core.pieces.layers import LaidPass
from umber_pebble.core.pieces.passes.base import Soft
from umber_pebble.core.pieces.section import Layer, layers_in_hand, layers_of, layers_on
from umber_pebble.core.pieces.stripes import Stripes
from umber_pebble.core.pieces.usual import usual_order
from umber_pebble.core.spread import combine
from umber_pebble.services.builds import hands_each_s
from umber_pebble.services.built import Built
from umber_pebble.services.coats import stripes_of
from umber_pebble.services.covering import Covering, coverings
from umber_pebble.services.doc_base import Doc, Id, Whole
from umber_pebble.services.documents import Colour, Kitchen, Mould, OwnMaterial
from umber_pebble.services.dusting import Swatches, swatches
from umber_pebble.services.piece_docs import Part
from umber_pebble.services.planning import Section, section_of
from umber_pebble.services.shapes import mould_case
from umber_pebble.services.workshop import KITCHEN_ID, Workshop

LEVELS, STEPS = 24, 20


class PartRequest(Doc):
    """A part as it stands in the editor, and where it is cut: -1 near edge, 0 middle, 1 far edge."""

    part: Part
    cut_frac: float = Field(ge=-1, le=1)


class WeightRequest(Doc):
    """A weight or volume typed for a pass, to be turned into its thickness, level or gap."""

    part: Part
    index: int = Field(ge=0, le=15)
    finished_kg: float | None
    volume_m3: float | None


@dataclass(frozen=True, slots=True)
class CoatTold:
    """A coat of a finish: how long it dries in this room [s]; weak: its spirit has less alcohol than is usual, least_frac [frac]."""

    dries_s: float
    weak: bool
    least_frac: float


@dataclass(frozen=True, slots=True)
class PassRow:
    """A pass as it lies [SI]; hands_s: what hands take for a casting; soft: what they do with it where the melt before it is still
    soft; stripes: of its melts, where they are piped in such; left_m:
    under what is drawn into the melt before it; covering: of a thin coloured layer, how it looks over what is behind it;
    wire: what one bears; swatches: of a dust, how it looks; coat: of a finish, how it dries."""

    index: int
    melted: bool
    finished: Explained
    poured: Explained
    volume_m3: float
    thick_m: float
    from_m: float
    to_m: float
    hands_s: float
    soft: Soft | None
    stripes: Stripes | None
    left_m: float | None
    covering: Covering | None
    wire: WireBears | None
    swatches: Swatches | None
    coat: CoatTold | None


@dataclass(frozen=True, slots=True)
class PartFigures:
    """A part's passes as layers of its cut and as rows, in which order they are usually laid, what cannot be; its weight."""

    layers: list[Layer]
    rows: list[PassRow]
    usual: list[int]
    faults: list[BuildFault]
    finished: Explained


def part_figures(workshop: Workshop, asked: PartRequest) -> PartFigures:
    """A part's passes laid and cut.

    Raises: NotFound: the mould. OutOfRange: a number no pass may have.
    """
    built, kitchen = workshop.built(asked.part), workshop.get("kitchen", KITCHEN_ID).doc
    assert isinstance(kitchen, Kitchen)
    relatives = {of.id: of.doc.like for of in workshop.all("material") if isinstance(of.doc, OwnMaterial)}
    covers, dusts = coverings(built, relatives), swatches(built, relatives)
    rows = [
        PassRow(
            row.index,
            row.cast is not None,
            row.finished,
            row.poured,
            row.volume_m3,
            row.thick_m,
            row.from_m,
            row.to_m,
            hands_each_s(built, row, kitchen.paces),
            one.soft,
            stripes_of(built, row),
            _left_under_m(built, row),
            covers.get(row.index),
            _wire(built, row),
            dusts.get(row.index),
            _coat(one.finish(row.area_m2), kitchen),
        )
        for row in built.laid
        for one in [built.passes[row.index]]
    ]
    faults = [*built.faults, *_wrong_colours(workshop, built)]
    return PartFigures(_layers(built, asked.cut_frac), rows, usual_order(built.passes), faults, _weighs(built))


def _left_under_m(built: Built, row: LaidPass) -> float | None:
    deep = built.passes[row.index].drawn_m
    wet = next((of for of in reversed(built.laid) if of.cast and of.index < row.index), None)
    return None if deep is None or wet is None else wet.to_m - wet.from_m - deep


def _wire(built: Built, row: LaidPass) -> WireBears | None:
    wire = built.passes[row.index].wire
    wet = next((of for of in reversed(built.laid) if of.cast and of.index < row.index), None)
    of = None if wet is None else family_of(built.passes[wet.index].material(built.own)).rows
    return None if wire is None else wire_bears(wire, of)


def _coat(of: Finish | None, kitchen: Kitchen) -> CoatTold | None:
    if of is None:
        return None
    least = strong_enough_frac()
    dries = coat_of(of, kitchen.room_degc, kitchen.humidity_frac).dries_s
    return CoatTold(dries, of.sort == "paint" and of.alcohol_frac < least, least)


def _weighs(built: Built) -> Explained:
    whole = sum(row.finished.value.likely + row.beside_kg for row in built.laid)
    weights = [row.finished.value for row in built.laid]
    return explained(
        combine(whole, [[whole - v.likely + v.low, whole - v.likely + v.high] for v in weights]),
        "kg",
        "all passes of one casting",
        *(given(f"pass {row.index + 1}", row.finished.value, "kg") for row in built.laid),
        sources=("geometry",),
    )


def _wrong_colours(workshop: Workshop, built: Built) -> list[BuildFault]:
    """Passes in a colour for which only colours of the wrong kind are at hand."""
    kinds = {doc.kind for stored in workshop.all("colour") if isinstance(doc := stored.doc, Colour)}
    out = []
    for i, one in enumerate(built.passes):
        for melt, _ in one.melts():
            family = family_of(melt.of(built.own))
            if "#" in melt.key and kinds == {family.parts_from}:
                words = f"only {family.parts_from}-based colours are at hand, and that {family.parting}"
                out.append(BuildFault(i, "wrong_colour", f"{words}: get {family.dissolves}-based ones"))
    return out


def _layers(built: Built, cut_frac: float) -> list[Layer]:
    if built.by_hand:
        return layers_in_hand(built.passes, built.laid)
    if built.body is None:
        return layers_of(built.mould.cavity, built.passes, built.laid, cut_frac, built.own)
    return layers_on(built.body, built.passes, built.laid, cut_frac, built.own)


class BaseRequest(Doc):
    """What a part is cast in or made on, and where it is cut."""

    mould_id: Id | None
    cavity: Whole = Field(ge=0, le=11)
    body: Dipped | None
    cut_frac: float = Field(ge=-1, le=1)


@dataclass(frozen=True, slots=True)
class PartBase:
    """A cavity or a body cut open, and a cavity's opening from above [m]."""

    section: Section
    rim: list[list[float]]


def part_base(workshop: Workshop, asked: BaseRequest) -> PartBase:
    """What a part is cast in or made on.

    Raises: NotFound: the mould. OutOfRange: no such cavity.
    """
    if asked.body is not None:
        body = asked.body
        ring = [[x, z] for x, z in profile(body.shape, body.diameter_m, body.high_m).exterior.coords]
        return PartBase(Section([ring], body.diameter_m, body.diameter_m, body.high_m, 0.0, "body"), [])
    if asked.mould_id is None:
        return PartBase(Section([], 0.0, 0.0, 0.0, 0.0, "hand"), [])
    mould_id = asked.mould_id
    mould = workshop.get("mould", mould_id).doc
    assert isinstance(mould, Mould)
    case = mould_case(mould_id, mould, asked.cavity)
    return PartBase(
        section_of(case.cavity, case.wall_m, asked.cut_frac), [[x, y] for x, y in case.cavity.shape.rim()]
    )


def solve_pass(workshop: Workshop, asked: WeightRequest) -> float:
    """The thickness, level or gap of a pass that gives a weight or volume [m].

    Raises: Missing: none given, or a pass that has none. OutOfRange: more or less than it can be.
    """
    if asked.index >= len(asked.part.passes) or (asked.finished_kg is None and asked.volume_m3 is None):
        raise Missing("give a pass, and its weight or volume", path="finished_kg")
    name = asked.part.passes[asked.index].SOLVED_BY
    if name is None:
        raise Missing("this pass is not by weight", path="index", got=asked.index)
    built = workshop.built(asked.part)
    deep = built.mould.cavity.depth_m if built.body is None else built.body.diameter_m / 4
    passes = built.passes[: asked.index + 2]
    by_volume = asked.finished_kg is None

    def amount(value: float) -> float:
        changed = with_told(passes[asked.index], name, value)
        laid = built.again((*passes[: asked.index], changed, *passes[asked.index + 1 :]))
        row = next((r for r in laid if r.index == asked.index), None)
        if row is None:
            return 0.0
        return row.volume_m3 if by_volume else row.finished.value.likely

    wanted, path = (asked.volume_m3, "volume_m3") if by_volume else (asked.finished_kg, "finished_kg")
    assert wanted is not None
    # amounts grow with level and thickness, and fall with a gap; what cannot be counts as nothing
    most, at = max((amount(v), v) for v in (deep * (i + 1) / LEVELS for i in range(LEVELS)))
    if not 0 < wanted <= most * (1 + 1e-6):
        words = "there is not so much room" if wanted > 0 else "it must be above zero"
        raise OutOfRange(words, path=path, got=wanted, limits={"high": most})
    low, high = (0.0, at) if name != "gap_m" else (deep, 0.0)
    for _ in range(STEPS):
        mid = (low + high) / 2
        low, high = (mid, high) if amount(mid) < wanted else (low, mid)
    return high
