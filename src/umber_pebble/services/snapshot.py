"""Everything a plan rests on, taken together; frozen as it stands when a run starts."""

from datetime import datetime

from umber_pebble.core.errors import OutOfRange
from umber_pebble.core.heat.piece import Place as PlaceCase
from umber_pebble.core.heat.vessel import Pot
from umber_pebble.core.materials.load import material, model_factors
from umber_pebble.core.moulds.disc import DiscFit, fit_disc
from umber_pebble.core.plan.problem import CookChoice, Line, Paces, PlanInput, Ring
from umber_pebble.core.plan.problem import Mould as MouldCase
from umber_pebble.core.plan.spares import BreakRate
from umber_pebble.core.spread import Spread
from umber_pebble.services.docs import Doc, Kitchen, Mould, Order, Piece, Place

MELT = "isomalt"


class FactorSpread(Doc):
    low: float
    likely: float
    high: float

    def spread(self) -> Spread:
        return Spread(self.low, self.likely, self.high)


class Counts(Doc):
    broken: int
    good: int


class Snapshot(Doc):
    """Order, kitchen, pieces, moulds and calibrations, with the versions they had."""

    order: Order
    kitchen: Kitchen
    pieces: dict[str, Piece]
    moulds: dict[str, Mould]
    versions: dict[str, int]
    breaks: dict[str, Counts]
    loss: FactorSpread
    residue: FactorSpread


def prior_loss() -> Spread:
    """A pot's loss against the model before any run."""
    return model_factors()["loss_factor"].spread


def prior_residue() -> Spread:
    """Melt a pot keeps against the film before any run: the film's own spread, so no factor on it."""
    return Spread(0.7, 1.0, 1.4)


def disc_of(mould: Mould) -> DiscFit:
    """The cavity from what was measured."""
    return fit_disc(
        diameter_m=mould.diameter_m, depth_m=mould.depth_m, draft_rad=mould.draft_rad, water_kg=mould.water_kg
    )


def mould_case(mould_id: str, mould: Mould) -> MouldCase:
    """A mould as the engine takes it."""
    made_of = material("moulds", mould.material)
    return MouldCase(
        mould_id, made_of, mould.wall_m, disc_of(mould).disc, mould.cavities, mould.owned, mould.bears_degc
    )


def _pick(rows: list, wanted: str, path: str):  # type: ignore[no-untyped-def, type-arg]
    for row in rows:
        if row.id == wanted:
            return row
    raise OutOfRange(
        "this is not in the kitchen any more: choose another",
        path=path,
        got=wanted,
        limits={"one_of": [row.id for row in rows]},
    )


def place_degc(place: Place, kitchen: Kitchen) -> float:
    """A place's own temperature, or the room's."""
    return kitchen.room_degc if place.surface_degc is None else place.surface_degc


def place_case(place: Place, kitchen: Kitchen) -> PlaceCase:
    """A place as the engine takes it."""
    surface = material("surfaces", place.surface)
    return PlaceCase(surface, place.thickness_m, place_degc(place, kitchen), kitchen.room_degc)


def places(snapshot: Snapshot) -> dict[str, PlaceCase]:
    """The places a mould may lie in, the order's own first."""
    rows = sorted(snapshot.kitchen.places, key=lambda p: p.id != snapshot.order.place_id)
    return {p.id: place_case(p, snapshot.kitchen) for p in rows}


def plan_input(snapshot: Snapshot, now: datetime) -> PlanInput:
    """The engine's problem from the documents.

    Raises: OutOfRange: a ring, pot or place is gone; a size is impossible.
    """
    order, kitchen = snapshot.order, snapshot.kitchen
    vessel = _pick(kitchen.vessels, order.vessel_id, "vessel_id")
    stand = _pick(kitchen.places, order.stand_id, "stand_id")
    ring = _pick(kitchen.rings, order.ring_id, "ring_id")
    place = _pick(kitchen.places, order.place_id, "place_id")
    pot = Pot(
        vessel.diameter_m,
        vessel.height_m,
        vessel.mass_kg,
        material("kitchen", vessel.metal, "pot"),
        material("surfaces", stand.surface),
        place_degc(stand, kitchen),
        kitchen.room_degc,
        snapshot.loss.spread(),
    )
    lines = []
    for row in order.lines:
        piece = snapshot.pieces[row.piece_id]
        counts = snapshot.breaks.get(piece.mould_id, Counts(broken=0, good=0))
        lines.append(
            Line(
                piece.name,
                row.quantity,
                mould_case(piece.mould_id, snapshot.moulds[piece.mould_id]),
                piece.fill_m,
                piece.bend,
                BreakRate(counts.broken, counts.good),
            )
        )
    return PlanInput(
        lines=tuple(lines),
        due_s=(order.due_at - now).total_seconds(),
        melt=material("isomalt", MELT),
        cook=CookChoice(
            order.crystalline, {"auto": None, "dry": False, "wet": True}[order.water], order.cook_degc
        ),
        pot=pot,
        ring=Ring(ring.power_w, material("kitchen", ring.kind, "ring").spread("efficiency")),
        place=place_case(place, kitchen),
        paces=Paces(**kitchen.paces.model_dump()),
        room_degc=kitchen.room_degc,
        humidity_frac=kitchen.humidity_frac,
        altitude_m=kitchen.altitude_m,
        confidence_frac=order.confidence_frac,
        reserve_frac=order.reserve_frac,
        residue_factor=snapshot.residue.spread(),
    )
