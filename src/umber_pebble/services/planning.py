"""Figures while somebody edits: a mould measured, a piece filled, an order compiled."""

from dataclasses import dataclass

from umber_pebble.core.errors import Missing
from umber_pebble.core.explained import Explained, explained, given
from umber_pebble.core.glass.viscosity import temperature_at_log_viscosity_degc, tg_spread_degc
from umber_pebble.core.heat.piece import Casting, Place, Stay, windows_s
from umber_pebble.core.heat.vessel import Pot, base_case, cooling_curve_degc
from umber_pebble.core.materials.load import material
from umber_pebble.core.moulds.disc import level_m, open_m2, volume_m3, wetted_m2
from umber_pebble.core.pieces.cast import CastAmounts, amounts, level_for_mass_m
from umber_pebble.core.plan.compile import Plan, compile_plan
from umber_pebble.core.spread import Spread, exact
from umber_pebble.services.docs import Kitchen, Mould, Order
from umber_pebble.services.snapshot import MELT, disc_of, place_case, plan_input
from umber_pebble.services.workshop import KITCHEN_ID, Workshop, load, snapshot_of


@dataclass(frozen=True, slots=True)
class Section:
    """What a section drawing needs: sizes of the cavity and its wall [m]."""

    top_m: float
    bottom_m: float
    depth_m: float
    wall_m: float


@dataclass(frozen=True, slots=True)
class MouldFigures:
    """A mould's cavity worked out, and if sizes and water weight disagree."""

    section: Section
    volume: Explained
    open: Explained
    area: Explained
    measured_m3: float | None
    weighed_m3: float | None
    tolerance_frac: float
    disagree: bool


@dataclass(frozen=True, slots=True)
class PieceFigures:
    """A piece's cast at its level, and how it would cool in the kitchen's first place [s from the pour]."""

    section: Section
    amounts: CastAmounts
    place: str
    pour: Spread
    bend_opens: Spread
    bend_closes: Spread
    brittle: Spread
    unmould: Spread


def _section(mould: Mould) -> Section:
    disc = disc_of(mould).disc
    return Section(disc.top_m, 2 * disc.radius_m(0.0), disc.depth_m, mould.wall_m)


def measure_mould(mould: Mould) -> MouldFigures:
    """Volume, open surface and area of a cavity.

    Raises: Missing, OutOfRange: too little measured, or an impossible size.
    """
    fit = disc_of(mould)
    disc = fit.disc
    sizes = (
        given("open diameter", disc.top_m, "m"),
        given("depth", disc.depth_m, "m"),
        given("draft", disc.draft_rad, "rad"),
    )
    if fit.weighed_m3 is None:
        volume = explained(
            volume_m3(disc, disc.depth_m), "m3", "frustum from the sizes", *sizes, sources=("geometry",)
        )
    else:
        assert mould.water_kg is not None
        volume = explained(
            fit.weighed_m3,
            "m3",
            "weight of the water it holds / density of water at 20 degrees",
            given("water", mould.water_kg, "kg"),
            *sizes,
            sources=("kell-1975",),
        )
    return MouldFigures(
        _section(mould),
        volume,
        explained(open_m2(disc, disc.depth_m), "m2", "circle at the rim", *sizes, sources=("geometry",)),
        explained(wetted_m2(disc, disc.depth_m), "m2", "floor + wall", *sizes, sources=("geometry",)),
        fit.measured_m3,
        fit.weighed_m3,
        fit.tolerance_frac,
        fit.disagree,
    )


def measure_piece(
    workshop: Workshop, mould_id: str, fill_m: float | None, volume_m3_: float | None, finished_kg: float | None
) -> PieceFigures:
    """A cast from its level, its volume or its weight, whichever is given.

    Raises: NotFound: the mould. Missing: none given. OutOfRange: more than the cavity holds.
    """
    mould = workshop.get("mould", mould_id).doc
    assert isinstance(mould, Mould)
    disc, melt = disc_of(mould).disc, material("isomalt", MELT)
    if fill_m is None and volume_m3_ is not None:
        fill_m = level_m(disc, volume_m3_)
    elif fill_m is None and finished_kg is not None:
        fill_m = level_for_mass_m(disc, finished_kg, melt)
    if fill_m is None:
        raise Missing("give a level, a volume or a weight", path="fill_m")
    kitchen = workshop.get("kitchen", KITCHEN_ID).doc
    assert isinstance(kitchen, Kitchen)
    amount, [place, *_] = amounts(disc, fill_m, melt), kitchen.places
    tg = tg_spread_degc(melt, melt.spread("water_dry_melt"))
    # no pot is known here: poured anywhere between a fresh cook and the closing of its window
    closes = temperature_at_log_viscosity_degc(melt.value("log_pour_close"), tg.likely)
    pour = Spread(closes, (closes + melt.value("cook_to")) / 2, melt.value("cook_to"))
    case = Casting(
        melt, material("moulds", mould.material), fill_m, amount.volume_over_area_m, disc.top_m, mould.wall_m, pour, tg,
        (Stay(0.0, place_case(place, kitchen)),),
    )  # fmt: skip
    w = windows_s(case)
    return PieceFigures(
        _section(mould), amount, place.name, pour, w.bend_opens, w.bend_closes, w.brittle, w.unmould
    )


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
    """Compile the engine's inner loops once, on the smallest problem."""
    iso, steel = material("isomalt", MELT), material("kitchen", "steel", "pot")
    wood, silicone = material("surfaces", "wood"), material("moulds", "silicone")
    cooling_curve_degc(base_case(Pot(0.16, 0.1, 1.0, steel, wood, 21.0, 21.0, exact(1.0)), iso, 0.2), 160.0)
    disc = Casting(
        iso,
        silicone,
        0.004,
        0.002,
        0.05,
        0.003,
        exact(140.0),
        exact(50.0),
        (Stay(0.0, Place(wood, 0.02, 21.0, 21.0)),),
    )
    windows_s(disc)
