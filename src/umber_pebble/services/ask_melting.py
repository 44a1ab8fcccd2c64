"""Questions before the pour: how much is melted, how it is heated, seeded and coloured."""

import math
from collections.abc import Mapping
from datetime import timedelta
from typing import Any

from umber_pebble.core.errors import OutOfRange
from umber_pebble.core.families.known import family_of
from umber_pebble.core.heat.vessel import base_case
from umber_pebble.core.materials.load import Material
from umber_pebble.core.melts.bursts import Bowl, plan_bursts
from umber_pebble.core.plan.compile import Plan, compile_plan
from umber_pebble.core.plan.making import Charge
from umber_pebble.core.plan.summary import summary_of
from umber_pebble.services import asks
from umber_pebble.services.ask_usual import USUAL, filled, kitchen_of, usual_pot
from umber_pebble.services.colouring import MELTS_OF, RecipeRequest, colour_batch
from umber_pebble.services.documents import Colour, Order, OrderLine
from umber_pebble.services.explorer import melt_of
from umber_pebble.services.gathering import ovens, snapshot_of
from umber_pebble.services.piece_docs import Piece
from umber_pebble.services.ready import READY, ready_mould, ready_piece, usual_thick_m
from umber_pebble.services.snapshot import plan_input
from umber_pebble.services.temper import SeedRequest, check_tempers, seed_bowl
from umber_pebble.services.way_docs import SEED_DEGC
from umber_pebble.services.ways import USUAL_RESERVE_FRAC, USUAL_SURE_FRAC, making_of, usual_ways
from umber_pebble.services.workshop import Workshop

ASKED, DAYS = "asked", 2
"""Of an order that is only asked about: the ids of what is not stored, in how many days it is due."""


def how_much(workshop: Workshop, told: asks.AskHowMuch) -> asks.HowMuchAnswer:
    """What is melted for so many. Raises: NotFound, OutOfRange."""
    if told.piece_id is not None:
        asked, assumed = filled(told, {"quantity": USUAL["quantity"]})
        plan = _planned(workshop, asked.quantity or USUAL["quantity"], told.piece_id, {}, {})
    else:
        ready = READY[told.shape or "disc"]
        usual = {
            "quantity": USUAL["quantity"],
            "shape": ready.key,
            "across_m": ready.across_m,
            "material": ready.material,
        }
        asked, assumed = filled(told, usual)
        across = asked.across_m or ready.across_m
        usual_m = usual_thick_m(ready, across)
        asked, more = filled(asked, {"thickness_m": usual_m})
        thick = asked.thickness_m or usual_m
        moulds = {ASKED: ready_mould(ready, across, thick)}
        pieces = {ASKED: ready_piece(ready, ASKED, thick, asked.material or ready.material)}
        plan = _planned(workshop, asked.quantity or USUAL["quantity"], ASKED, pieces, moulds)
        assumed += more
    summary = summary_of(plan)
    melts = tuple(asks.MeltOf(m.material, m.name, m.colour, m.fresh.value.likely) for m in summary.melts)
    first = summary.castings[0]
    return asks.HowMuchAnswer(
        asked,
        assumed,
        sum(m.kg for m in melts),
        sum(line.cast.finished.value.likely * line.quantity for line in plan.problem.lines if not line.with_next)
        / (asked.quantity or 1),
        melts,
        summary.casts,
        summary.sure_frac,
        sum(c.rounds for c in summary.castings),
        len(plan.cooks),
        first.at_once,
        plan.problem.reserve_frac,
    )


def _planned(
    workshop: Workshop, count: int, piece: str, pieces: Mapping[str, Piece], moulds: Mapping[str, Any]
) -> Plan:
    """An order of so many of one piece, stored or not, compiled."""
    now = workshop.clock.now()
    order = Order(
        name="Asked",
        due_at=now + timedelta(days=DAYS),
        lines=[OrderLine(piece_id=piece, quantity=count, spares="as_sure")],
        ways={},
        confidence_frac=USUAL_SURE_FRAC,
        vessels=[],
        reserve_frac=USUAL_RESERVE_FRAC,
        people=[],
        timetable=None,
        together=[],
        wishes=[],
        begins="late",
    )
    with workshop.session() as session:
        return compile_plan(plan_input(snapshot_of(session, order, unstored=(pieces, moulds)), now))


def heat(workshop: Workshop, told: asks.AskHeat) -> asks.HeatAnswer:
    """How it is heated as the kitchen usually does. Raises: OutOfRange."""
    kitchen = kitchen_of(workshop)
    melt = melt_of(workshop, told.material or "coating")
    asked, assumed = filled(told, {"material": melt.key, "kg": USUAL["kg"]})
    kg = asked.kg or USUAL["kg"]
    family = family_of(melt)
    way = usual_ways(kitchen)[family.key]
    with workshop.session() as session:
        by = making_of(way, family, melt, kitchen, ovens(session, kitchen))
    case = base_case(usual_pot(kitchen, way), melt, kg)
    charge = Charge(case, kitchen.room_degc, kitchen.altitude_m, math.inf, False, False, lambda tg: tg)
    water = melt.value("water_added") * kg if by.wet(melt, kg) else 0.0
    heating, lasts = by.heating(charge, water)
    bursts = None
    if isinstance(heating, Bowl):
        bursts = tuple(step.seconds for step in plan_bursts(heating).steps if step.act == "burst")
    return asks.HeatAnswer(asked, assumed, bursts, lasts, by.end_degc, water, way.vessel_id, by.heater_id)


def seed(workshop: Workshop, told: asks.AskSeed) -> asks.SeedAnswer:
    """Seed for it. Raises: OutOfRange: it needs no temper."""
    kitchen = kitchen_of(workshop)
    melt = melt_of(workshop, told.material or "dark")
    check_tempers(melt)
    asked, assumed = filled(told, {"material": melt.key, "kg": USUAL["kg"]})
    family = family_of(melt)
    way = usual_ways(kitchen)[family.key]
    seeded = seed_bowl(
        workshop,
        SeedRequest(
            material=melt.key,
            vessel_id=way.vessel_id,
            melt_kg=asked.kg or USUAL["kg"],
            melt_degc=melt.value(family.goes_to),
            seed_degc=min(SEED_DEGC, kitchen.room_degc),
            through=True,
            seeded_degc=None,
            added_kg=None,
            read_degc=None,
        ),
    )
    return asks.SeedAnswer(
        asked,
        assumed,
        seeded.seed,
        seeded.share_frac,
        seeded.melt_to,
        seeded.seed_at,
        seeded.work_at,
        seeded.spoils_degc,
    )


def colour(workshop: Workshop, told: asks.AskColour) -> asks.ColourAnswer:
    """The recipe from the colours at hand. Raises: OutOfRange: it is not coloured."""
    melt = melt_of(workshop, told.material or "isomalt")
    usual = {
        "wanted": USUAL["wanted"],
        "material": melt.key,
        "kg": USUAL["kg"],
        "thickness_m": USUAL["thickness_m"],
    }
    asked, assumed = filled(told, usual)
    base = next((base for base, melts in MELTS_OF.items() if _root(workshop, melt) in melts), None)
    if base is None:
        raise OutOfRange(
            f"{melt.name} is not coloured: take isomalt, a coating or white couverture", path="material"
        )
    kind = family_of(melt).dissolves
    colours = [
        of.id
        for of in workshop.all("colour")
        if isinstance(of.doc, Colour) and of.doc.kind == kind and of.doc.mg_per_g
    ]
    if not colours:
        return asks.ColourAnswer(asked, assumed, base, None)
    recipe = colour_batch(
        workshop,
        RecipeRequest(
            base=base,
            batch_kg=asked.kg or USUAL["kg"],
            wanted=asked.wanted or USUAL["wanted"],
            thicknesses_m=[asked.thickness_m or USUAL["thickness_m"]],
            on_white=False,
            colour_ids=colours[:12],
            already=[],
        ),
    )
    return asks.ColourAnswer(asked, assumed, base, recipe)


def _root(workshop: Workshop, melt: Material) -> str:
    """Of a material of one's own, the one of the tables it is like."""
    own = {of.id: getattr(of.doc, "like", "") for of in workshop.all("material")}
    return own.get(melt.key, melt.key)
