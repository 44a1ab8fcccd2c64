"""Figures while somebody edits: a mould measured, a piece filled, an order compiled."""

from dataclasses import dataclass, replace

from umber_pebble.core.errors import Missing
from umber_pebble.core.explained import Explained, explained, given
from umber_pebble.core.glass.viscosity import temperature_at_log_viscosity_degc, tg_spread_degc
from umber_pebble.core.heat.piece import Casting, Place, Stay
from umber_pebble.core.heat.pour import FatFlow, pour_window_s
from umber_pebble.core.heat.vessel import Pot, base_case
from umber_pebble.core.heat.windows import windows_s
from umber_pebble.core.materials.load import Material, material
from umber_pebble.core.moulds.cavity import (
    Cavity,
    level_m,
    open_m2,
    section_m,
    slab_m,
    thickness_m,
    volume_m3,
    wetted_m2,
)
from umber_pebble.core.pieces.cast import CastAmounts, amounts, level_for_mass_m
from umber_pebble.core.plan.compile import Plan, compile_plan
from umber_pebble.core.plan.problem import Stick as StickCase
from umber_pebble.core.spread import Spread, exact
from umber_pebble.formats.svg import read_outline
from umber_pebble.services import docs
from umber_pebble.services.docs import Kitchen, Mould, Order
from umber_pebble.services.docs import Place as PlaceDoc
from umber_pebble.services.shapes import cavity_fit, mould_case
from umber_pebble.services.snapshot import castable, plan_input, way_of
from umber_pebble.services.workshop import KITCHEN_ID, Workshop, load, own_materials, snapshot_of


@dataclass(frozen=True, slots=True)
class Section:
    """What a section drawing needs: the cut as runs of (across, height) from rim to rim, and sizes [m]."""

    runs: list[list[list[float]]]
    across_m: float
    along_m: float
    depth_m: float
    wall_m: float


@dataclass(frozen=True, slots=True)
class CavityFigures:
    """A kind of cavity worked out, and if sizes and water weight disagree; rim is its opening from above [m]."""

    section: Section
    rim: list[list[float]]
    volume: Explained
    open: Explained
    area: Explained
    thickness: Explained
    measured_m3: float
    weighed_m3: float | None
    tolerance_frac: float
    disagree: bool


@dataclass(frozen=True, slots=True)
class PieceFigures:
    """A piece's cast at its level, and how it would cool where its material usually sets [s from the pour]."""

    section: Section
    amounts: CastAmounts
    place: str
    pour: Spread
    windows: dict[str, Spread]
    never: list[str]


def _section(cavity: Cavity, under_m: float, cut_frac: float) -> Section:
    across, along = cavity.bounds_m()
    runs = [[[x, z] for x, z in run] for run in section_m(cavity, cut_frac)]
    return Section(runs, across, along, cavity.depth_m, under_m)


def measure_cavity(kind: docs.Cavity, wall_m: float, cut_frac: float) -> CavityFigures:
    """Volume, open surface, area and thickness of a kind of cavity, cut where asked.

    Raises: Missing, OutOfRange: too little measured, or an impossible size.
    """
    fit = cavity_fit(kind)
    cavity, depth = fit.cavity, fit.cavity.depth_m
    across, along = cavity.bounds_m()
    sizes = (given("opening across", across, "m"), given("opening along", along, "m"), given("depth", depth, "m"))
    if fit.weighed_m3 is None:
        volume = explained(
            volume_m3(cavity, depth), "m3", "its slices from the floor to the rim", *sizes, sources=("geometry",)
        )
    else:
        assert kind.water_kg is not None
        volume = explained(
            fit.weighed_m3,
            "m3",
            "weight of the water it holds / density of water at 20 degrees",
            given("water", kind.water_kg, "kg"),
            *sizes,
            sources=("kell-1975",),
        )
    thick = thickness_m(cavity, depth)
    return CavityFigures(
        _section(cavity, wall_m, cut_frac),
        [[x, y] for x, y in cavity.shape.rim()],
        volume,
        explained(open_m2(cavity, depth), "m2", "area of the opening at the rim", *sizes, sources=("geometry",)),
        explained(wetted_m2(cavity, depth), "m2", "floor + wall", *sizes, sources=("geometry",)),
        explained(
            thick,
            "m",
            "filled to the rim: its thin places (a twentieth of the opening), its mean, its thickest place",
            given("thickest place", thick.high, "m"),
            given("cools like a slab of", slab_m(cavity, depth), "m"),
            sources=("geometry", "assumption"),
        ),
        fit.measured_m3,
        fit.weighed_m3,
        fit.tolerance_frac,
        fit.disagree,
    )


@dataclass(frozen=True, slots=True)
class CastAsked:
    """A cast as it stands in the editor: its material and mould, its stick, and its level, volume or weight."""

    material: str
    mould_id: str
    cavity: int
    stick: StickCase | None
    stays: list[docs.Stay]
    fill_m: float | None
    volume_m3: float | None
    finished_kg: float | None


def measure_piece(workshop: Workshop, asked: CastAsked) -> PieceFigures:
    """A cast from its level, its volume or its weight, whichever is given.

    Raises: NotFound: the mould. Missing: none given. OutOfRange: more than the cavity holds.
    """
    mould = workshop.get("mould", asked.mould_id).doc
    assert isinstance(mould, Mould)
    with workshop.session() as session:
        melt = castable(asked.material, own_materials(session), "material")
    case = mould_case(asked.mould_id, mould, asked.cavity)
    cavity = case.cavity
    inside = asked.stick.inside_m3 if asked.stick else 0.0
    fill_m = asked.fill_m
    if fill_m is None and asked.volume_m3 is not None:
        fill_m = level_m(cavity, asked.volume_m3 + inside)
    elif fill_m is None and asked.finished_kg is not None:
        fill_m = level_for_mass_m(cavity, asked.finished_kg, melt, inside)
    if fill_m is None:
        raise Missing("give a level, a volume or a weight", path="fill_m")
    kitchen = workshop.get("kitchen", KITCHEN_ID).doc
    assert isinstance(kitchen, Kitchen)
    amount = amounts(cavity, fill_m, melt, inside)
    sets_in = _sets_in(kitchen, melt)
    stays = asked.stays or [docs.Stay(from_s=0.0, place_id=sets_in.id, care="none")]
    way = way_of(stays, kitchen, "stays")
    # no vessel is known here: poured anywhere between as hot as it may be and the closing of its window
    if asked.material == "isomalt":
        tg = tg_spread_degc(melt, melt.spread("water_dry_melt"))
        closes, hottest = (
            temperature_at_log_viscosity_degc(melt.value("log_pour_close"), tg.likely),
            melt.value("cook_to"),
        )
    else:
        tg, closes, hottest = None, melt.value("melts_at"), melt.value("pour_below")
    pour = Spread(closes, (closes + hottest) / 2, hottest)
    w = windows_s(
        Casting(
            melt, case.material, amount.slab, amount.plate_m, case.wall_m, pour, tg, tuple(stay for stay, _ in way),
            thin_m=amount.thin_m, thick_m=amount.thick_m,
        )
    )  # fmt: skip
    names = {place.id: place.name for place in kitchen.places}
    never = [name for name in w.at if w.never(name)]
    place = ", then ".join(dict.fromkeys(names[place_id] for _, place_id in way))
    return PieceFigures(_section(cavity, case.wall_m, 0.0), amount, place, pour, w.at, never)


def _sets_in(kitchen: Kitchen, melt: Material) -> PlaceDoc:
    """Where a cast would usually set: fat in the first fridge, sugar on the first place."""
    cold = [p for p in kitchen.places if p.kind == "fridge"] if melt.flags.get("fat", False) else []
    return [*cold, *kitchen.places][0]


@dataclass(frozen=True, slots=True)
class OutlineOf:
    """Corners about their middle [m], and what was mended, in words."""

    corners: list[list[float]]
    remarks: list[str]


def outline_of(svg: str, width_m: float | None) -> OutlineOf:
    """An outline out of an SVG file.

    Raises: OutOfRange: too large, harmful, or no outline in it.
    """
    read = read_outline(svg, width_m)
    return OutlineOf([[x, y] for x, y in read.corners], list(read.remarks))


def plan_order(workshop: Workshop, order: Order) -> Plan:
    """Compile an order as it stands in the editor.

    Raises: NotFound, and whatever the engine refuses.
    """
    with workshop.session() as session:
        for i, line in enumerate(order.lines):
            load(session, "piece", line.piece_id, path=f"lines.{i}.piece_id")
        snapshot = snapshot_of(session, order)
    return compile_plan(plan_input(snapshot, workshop.clock.now()))


def warm_up() -> None:
    """Compile the engine's inner loops once, on the smallest problem of each kind."""
    isomalt, coating = material("melts", "isomalt"), material("melts", "coating")
    wood, steel = material("surfaces", "wood"), material("kitchen", "steel", "pot")
    case = base_case(Pot(0.16, 0.1, 1.0, steel, wood, 21.0, 21.0, exact(1.0)), isomalt, 0.2)
    pour_window_s(case, FatFlow(coating, exact(42.0), 200.0))
    sugar = Casting(
        isomalt, material("moulds", "silicone"), exact(0.004), 0.0125, 0.003, exact(140.0), exact(50.0),
        (Stay(0.0, Place(wood, 0.02, 21.0, 21.0)),),
    )  # fmt: skip
    windows_s(sugar)
    windows_s(replace(sugar, melt=coating, pour=exact(38.0), tg=None))
