"""Figures of a part while it is built: its passes laid and cut open, how each sets, and a round of its mould."""

from dataclasses import dataclass

from pydantic import Field

from umber_pebble.core.errors import Missing, OutOfRange
from umber_pebble.core.explained import Explained, explained, given
from umber_pebble.core.families.known import family_of
from umber_pebble.core.heat.piece import Casting, Stay, Under, as_ball
from umber_pebble.core.heat.skin import Skin
from umber_pebble.core.heat.windows import PieceWindows, windows_s
from umber_pebble.core.materials.load import Material, material
from umber_pebble.core.moulds.cavity import slab_m
from umber_pebble.core.pieces.body import profile
from umber_pebble.core.pieces.cast import CastAmounts
from umber_pebble.core.pieces.faults import BuildFault
from umber_pebble.core.pieces.fields import with_told
from umber_pebble.core.pieces.films import TooThin, shell_against_film
from umber_pebble.core.pieces.layers import Laid
from umber_pebble.core.pieces.passes.base import Soft
from umber_pebble.core.pieces.section import Layer, layers_of, layers_on
from umber_pebble.core.pieces.usual import usual_order
from umber_pebble.core.plan.cooks import ready_for_next
from umber_pebble.core.plan.turns import stays_in, turns_of
from umber_pebble.core.spread import Spread, combine, exact
from umber_pebble.services.builds import Built, hands_s, leaves_at
from umber_pebble.services.doc_base import Doc
from umber_pebble.services.docs import Colour, Kitchen, Place
from umber_pebble.services.piece_docs import Part
from umber_pebble.services.piece_docs import Stay as StayDoc
from umber_pebble.services.places import place_case, way_of
from umber_pebble.services.planning import Section, section_of
from umber_pebble.services.workshop import KITCHEN_ID, Workshop

LEVELS, STEPS = 24, 20


class PartAsked(Doc):
    """A part as it stands in the editor, and where it is cut: -1 near edge, 0 middle, 1 far edge."""

    part: Part
    cut_frac: float = Field(ge=-1, le=1)


class WeightAsked(Doc):
    """A weight or volume typed for a pass, to be turned into its thickness, level or gap."""

    part: Part
    index: int = Field(ge=0, le=15)
    finished_kg: float | None
    volume_m3: float | None


@dataclass(frozen=True, slots=True)
class PassRow:
    """A pass as it lies [SI]; sets: until the next may go on it, or until it leaves the mould [s from its pour], None where
    nothing sets; hands_s: what hands take for a casting; turned_s: and to turn it while it sets; keeps: of a shell that is tipped out, what the wall keeps; soft: what hands do
    with it where the melt before it is still soft."""

    index: int
    melted: bool
    finished: Explained
    poured: Explained
    volume_m3: float
    thick_m: float
    from_m: float
    to_m: float
    sets: Spread | None
    place: str | None
    hands_s: float
    turned_s: float
    keeps: TooThin | None
    soft: Soft | None


@dataclass(frozen=True, slots=True)
class Stretch:
    """A stretch of one round of the mould: the hands at a pass, or that it sets [s]."""

    index: int
    what: str
    from_s: float
    to_s: float


@dataclass(frozen=True, slots=True)
class Cools:
    """How the last melt of a part cools where it usually sets [s from its pour]."""

    place: str
    pour: Spread
    windows: dict[str, Spread]
    never: list[str]


@dataclass(frozen=True, slots=True)
class PartFigures:
    """A part worked out: its section, its passes as layers and rows, in which order they are usually laid, what cannot be; its
    weight; a round of its mould, whose opening from above is rim [m]."""

    section: Section
    layers: list[Layer]
    rim: list[list[float]]
    cavities: int
    rows: list[PassRow]
    usual: list[int]
    faults: list[BuildFault]
    finished: Explained
    stretches: list[Stretch]
    all_s: Spread
    hands_s: float
    cools: Cools | None


def part_figures(workshop: Workshop, asked: PartAsked) -> PartFigures:
    """A part's passes laid and cut.

    Raises: NotFound: the mould. OutOfRange: a number no pass may have.
    """
    built, kitchen = workshop.built(asked.part), workshop.get("kitchen", KITCHEN_ID).doc
    assert isinstance(kitchen, Kitchen)
    last = max((row.index for row in built.laid if row.cast), default=-1)
    rows, cools, whole = list[PassRow](), None, 0.0
    for row in built.laid:
        sets, keeps, place, turned_s, one = None, None, None, 0.0, built.passes[row.index]
        if row.cast is not None:
            melt = one.material(built.own)
            w, place, pour = _windows(asked.part, built, row, row.cast, melt, kitchen)
            sets = (
                w.leaving_at(leaves_at(asked.part, built)).at["unmould"]
                if row.index == last
                else ready_for_next(melt, w)
            )
            keeps = _keeps(built, row, kitchen)
            if one.TWO_HALVES:
                turns = turns_of(melt, w)
                turned_s = turns.by_hand_s / built.mould.at_once + turns.count * turns.each_s
            if row.index == last:
                cools = Cools(place, pour, w.at, [name for name in w.at if w.never(name)])
        whole += row.finished.value.likely + row.beside_kg
        rows.append(
            PassRow(
                row.index, row.cast is not None, row.finished, row.poured, row.volume_m3, row.thick_m, row.from_m, row.to_m,
                sets, place, hands_s(one, kitchen.paces), turned_s, keeps, one.soft,
            )
        )  # fmt: skip
    casts = built.mould.at_once
    stretches, now, spreads = _round_of(asked.part, rows, casts)
    weights = [row.finished.value for row in built.laid]
    finished = explained(
        combine(whole, [[whole - v.likely + v.low, whole - v.likely + v.high] for v in weights]), "kg", "all passes of one casting",
        *(given(f"pass {row.index + 1}", row.finished.value, "kg") for row in built.laid), sources=("geometry",),
    )  # fmt: skip
    return PartFigures(
        *_cut(built, asked.cut_frac),
        [] if built.body else [[x, y] for x, y in built.mould.cavity.shape.rim()],
        casts,
        rows,
        usual_order(built.passes),
        [*built.faults, *_wrong_colours(workshop, built)],
        finished,
        stretches,
        combine(now, [[now - s.likely + s.low, now - s.likely + s.high] for s in spreads]),
        sum((row.hands_s + row.turned_s) * casts for row in rows),
        cools,
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


def _round_of(part: Part, rows: list[PassRow], casts: int) -> tuple[list[Stretch], float, list[Spread]]:
    """One round of a mould, pass after pass: what is put into or onto a soft melt comes before it has set; its end, and the
    spreads of what sets."""
    out, now, spreads, setting = list[Stretch](), 0.0, list[Spread](), None
    for row in [*rows, None]:
        soft = row is not None and setting is not None and row.soft is not None
        if setting is not None and setting.sets is not None and not soft:
            out.append(Stretch(setting.index, "sets", now, now := now + setting.sets.likely))
            spreads.append(setting.sets)
            setting = None
        if row is not None:
            out.append(Stretch(row.index, "hands", now, now := now + row.hands_s * casts))
            setting = row if row.melted else setting
    return out, now, spreads


def _cut(built: Built, cut_frac: float) -> tuple[Section, list[Layer]]:
    if built.body is None:
        cavity = built.mould.cavity
        layers = layers_of(cavity, built.passes, built.laid, cut_frac, built.own)
        return section_of(cavity, built.mould.wall_m, cut_frac), layers
    body = built.body
    ring = [[x, z] for x, z in profile(body.shape, body.diameter_m, body.high_m).exterior.coords]
    section = Section([ring], body.diameter_m, body.diameter_m, body.high_m, 0.0, True)
    return section, layers_on(body, built.passes, built.laid, cut_frac, built.own)


def _keeps(built: Built, row: Laid, kitchen: Kitchen) -> TooThin | None:
    """What a wall keeps of a shell that is tipped out: its film, and the skin that set while the mould stood full."""
    one = built.passes[row.index]
    tipped = one.tipped()
    if tipped is None:
        return None
    melt, (thick_m, dwell_s) = one.material(built.own), tipped
    family = family_of(melt)
    if not family.skins:
        return None
    cavity, drains = built.mould.cavity, material("kitchen", "usual", "film").value("drains")
    half = slab_m(cavity, cavity.depth_m).likely
    pour, _ = family.poured_at(melt)
    cold = [p for p in kitchen.places if p.kind == "fridge"]

    def skin(place: Place) -> Skin:
        path = (Stay(0.0, place_case(place, kitchen)),)
        return Skin(Casting(melt, built.mould.material, exact(half), half, built.mould.wall_m, pour, None, path))

    here = skin(kitchen.places[0])
    return shell_against_film(
        melt, thick_m, cavity.depth_m, drains, dwell_s, here, skin(cold[0]) if cold else here
    )


def _windows(
    part: Part, built: Built, row: Laid, cast: CastAmounts, melt: Material, kitchen: Kitchen
) -> tuple[PieceWindows, str, Spread]:
    """How a pass sets where its material usually does, poured anywhere between as hot as it may be and its closing."""
    stays = part.stays or [StayDoc(from_s=0.0, place_id=_sets_in(kitchen, melt).id, care="none")]
    way = way_of(stays, kitchen, "stays")
    pour, tg = family_of(melt).poured_at(melt)
    path: tuple[Stay, ...] = tuple(stay for stay, _ in way)
    cold = path[0].place.surface_degc
    casting = Casting(
        melt, built.mould.material, cast.slab, cast.plate_m, built.mould.wall_m, pour, tg, path,
        tuple(Under(of, thick, cold if degc is None else degc) for of, thick, degc in row.under), thin_m=cast.thin_m, thick_m=cast.thick_m,
        beside=built.mould.cavities, body=row.body,
    )  # fmt: skip
    names = {place.id: place.name for place in kitchen.places}
    if built.passes[row.index].TWO_HALVES:
        windows = stays_in(
            melt, windows_s(as_ball(casting, cast.thickness, min(built.mould.cavity.bounds_m()) / 2))
        )
    else:
        windows = windows_s(casting)
    return windows, ", then ".join(dict.fromkeys(names[place_id] for _, place_id in way)), pour


def _sets_in(kitchen: Kitchen, melt: Material) -> Place:
    """Where a cast would usually set: in the first fridge, or on the first place."""
    cold = [p for p in kitchen.places if p.kind == "fridge"] if family_of(melt).sets_in_the_cold else []
    return [*cold, *kitchen.places][0]


def solve_pass(workshop: Workshop, asked: WeightAsked) -> float:
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
