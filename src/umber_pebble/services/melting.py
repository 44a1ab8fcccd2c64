"""Before the pour: an oven's power, bursts, a cook of sugar, dry caramel, a bath for dipping; asked apart from any order."""

import math
from dataclasses import dataclass, replace
from typing import Literal

from pydantic import Field

from umber_pebble.core.errors import OutOfRange
from umber_pebble.core.families.known import family_of
from umber_pebble.core.heat.hob import Heating, hob_time_s
from umber_pebble.core.heat.vessel import base_case
from umber_pebble.core.materials.load import like, material
from umber_pebble.core.melts.bursts import Bowl, BurstPlan, School, plan_bursts
from umber_pebble.core.melts.centre import ColdCentre, cold_centre
from umber_pebble.core.melts.dip import Dip, Dipped, dipped
from umber_pebble.core.melts.fluid import Fluidity, fluidity, yield_of_spoon_pa, yield_of_spread_pa
from umber_pebble.core.melts.hold import Held
from umber_pebble.core.melts.oven import coupled_w, nib_bursts, nib_duty_frac, power_by_water_w
from umber_pebble.core.melts.sugar import (
    Caramel,
    Clearer,
    Cooking,
    Fault,
    clearer,
    cooking,
    dry_caramel,
    faults,
    white_passes_frac,
)
from umber_pebble.core.pieces.films import dip_film_m
from umber_pebble.core.plan.compile import check_vessel
from umber_pebble.core.plan.sugar_cook import check_nibs
from umber_pebble.core.spread import Spread, exact
from umber_pebble.services.doc_base import Doc, Id
from umber_pebble.services.documents import Kitchen
from umber_pebble.services.explorer import melt_of
from umber_pebble.services.gathering import ovens
from umber_pebble.services.ovens import FactorSpread, oven_case, ring_case
from umber_pebble.services.places import pick
from umber_pebble.services.snapshot import pot_case, prior_loss
from umber_pebble.services.ways import HALF
from umber_pebble.services.workshop import KITCHEN_ID, Workshop

WAFER_LOW, WAFER_HIGH = 0.8, 1.25


class PowerRequest(Doc):
    """A bowl of water that was heated, to measure an oven by."""

    water_kg: float
    from_degc: float
    to_degc: float
    seconds: float
    vessel_kg: float


class BurstsRequest(Doc):
    """Wafers or chopped couverture to be melted in a microwave."""

    material: Id
    vessel_id: Id
    oven_id: Id
    melt_kg: float
    wafer_m: float
    melt_to_degc: float
    power: Literal["full", "half"]
    stop: Literal["lumps", "through"]


class FluidRequest(Doc):
    """A test of how fluid a melt is: a spoonful on a plate, by weight and how wide it comes to lie; or a spoon, by what it keeps."""

    material: Id
    by: Literal["plate", "spoon"]
    kg: float
    wide_m: float
    area_m2: float


class CookRequest(Doc):
    """Isomalt or sugar to be cooked; water_kg None: a tenth, if it is a large cook, or what sugar needs."""

    material: Id
    vessel_id: Id
    ring_id: Id
    sugar_kg: float = Field(ge=0.005, le=20)
    water_kg: float | None = Field(ge=0, le=20)
    cook_degc: float
    crystalline: bool
    before: int
    white_frac: float
    thickness_m: float


class CaramelRequest(Doc):
    """Sugar to be melted dry in a shallow pan."""

    vessel_id: Id
    ring_id: Id
    sugar_kg: float = Field(ge=0.02, le=2)
    off_degc: float


class DipRequest(Doc):
    """Centres to be dipped into a bath; centre_degc None: as warm as the room."""

    material: Id
    melt_kg: float
    melt_degc: float = Field(ge=0, le=80)
    diameter_m: float = Field(ge=0.02, le=1)
    count: int
    centre_kg: float
    centre_degc: float | None
    depth_m: float
    width_m: float
    seconds: float


@dataclass(frozen=True, slots=True)
class Cooked:
    """A cook, whether its pot holds the foam, light through a pane with its white nibs, and what may be seen in it; in a
    microwave, in how many bursts; what hotter and cooler cooks come to."""

    cook: Cooking
    boils_over: bool
    passes_frac: float
    faults: list[Fault]
    bursts: int | None
    clearer: list[Clearer]


def _kitchen(workshop: Workshop) -> Kitchen:
    kitchen = workshop.get("kitchen", KITCHEN_ID).doc
    assert isinstance(kitchen, Kitchen)
    return kitchen


def _ovens(workshop: Workshop, kitchen: Kitchen) -> dict[str, FactorSpread]:
    with workshop.session() as session:
        return ovens(session, kitchen)


def oven_power_w(workshop: Workshop, asked: PowerRequest) -> float:
    """An oven's power by the water test.

    Raises: OutOfRange: a value that cannot be, or an oven that comes out impossible.
    """
    room = _kitchen(workshop).room_degc
    return power_by_water_w(asked.water_kg, asked.from_degc, asked.to_degc, asked.seconds, asked.vessel_kg, room)


def bursts(workshop: Workshop, asked: BurstsRequest) -> BurstPlan:
    """The bursts a bowl is likely to need.

    Raises: OutOfRange: a size, weight or power that cannot be; metal in the microwave; a sugar.
    """
    kitchen, melt = _kitchen(workshop), melt_of(workshop, asked.material)
    if not family_of(melt).skins:
        words = f"{melt.name} is cooked, not melted as wafers: its nibs are under isomalt and sugar"
        raise OutOfRange(words, path="material", got=asked.material)
    vessel, oven = (
        pick(kitchen.vessels, asked.vessel_id, "vessel_id"),
        pick(kitchen.microwaves, asked.oven_id, "oven_id"),
    )
    case = base_case(pot_case(vessel, kitchen.places[0], kitchen, prior_loss()), melt, asked.melt_kg)
    check_vessel(True, False, case.pot.metal, vessel.id, "vessel_id", asked.melt_to_degc)
    wafer = Spread(WAFER_LOW * asked.wafer_m, asked.wafer_m, WAFER_HIGH * asked.wafer_m)
    school = School(HALF if asked.power == "half" else 1.0, asked.stop)
    return plan_bursts(
        Bowl(
            case,
            oven_case(oven, kitchen, _ovens(workshop, kitchen)),
            kitchen.room_degc,
            asked.melt_to_degc,
            wafer,
            school,
        )
    )


@dataclass(frozen=True, slots=True)
class Fluid:
    """What a test says of a melt: its fluidity; what a dip of 30 mm keeps of it and of the usual one [m]; what helps a stiff one."""

    fluidity: Fluidity
    coat: Spread
    usual_coat: Spread
    faults: list[Fault]


DIPPED_M = 0.03


def fluid(workshop: Workshop, asked: FluidRequest) -> Fluid:
    """How fluid a melt is by a test, and what that does to a coat.

    Raises: OutOfRange: a weight, width or surface that cannot be; no fat.
    """
    melt = melt_of(workshop, asked.material)
    if not family_of(melt).skins:
        raise OutOfRange("this test is for a fat", path="material", got=asked.material)
    by_plate = asked.by == "plate"
    found = (
        yield_of_spread_pa(asked.kg, asked.wide_m, melt.value("density_melt"))
        if by_plate
        else yield_of_spoon_pa(asked.kg, asked.area_m2)
    )
    tested = like(melt, melt.key, melt.name, (("casson_yield", found),))
    film = material("kitchen", "usual", "film")
    coat, usual = (dip_film_m(m, DIPPED_M, film.value("drains"), film.value("drawn")) for m in (tested, melt))
    return Fluid(fluidity(melt, found), coat, usual, faults(family_of(melt).rows))


def fat_faults(workshop: Workshop, key: str) -> list[Fault]:
    """What may be seen in a bowl of a fat, and what to do.

    Raises: OutOfRange: no such material.
    """
    return faults(family_of(melt_of(workshop, key)).rows)


def cook(workshop: Workshop, asked: CookRequest) -> Cooked:
    """A cook of isomalt or sugar on a ring.

    Raises: OutOfRange: a weight, water or temperature that cannot be, a ring too weak.
    """
    kitchen, melt = _kitchen(workshop), melt_of(workshop, asked.material)
    family = family_of(melt)
    if family.made != "cooked":
        raise OutOfRange(f"{melt.name} is {family.made}, not cooked", path="material", got=asked.material)
    vessel = pick(kitchen.vessels, asked.vessel_id, "vessel_id")
    ring = pick([*kitchen.rings, *kitchen.microwaves], asked.ring_id, "ring_id")
    heat = ring_case(ring, kitchen, _ovens(workshop, kitchen))
    if heat.bursts:
        check_nibs(melt, "ring_id")
    wall = material("kitchen", vessel.made_of, "pot")
    check_vessel(heat.bursts, not heat.bursts, wall, asked.vessel_id, "vessel_id", asked.cook_degc)
    water = 0.0 if heat.bursts else asked.water_kg
    if water is None:
        wet = asked.sugar_kg >= melt.value("large_cook")
        water = melt.value("water_added") * asked.sugar_kg if wet else 0.0
    case = base_case(pot_case(vessel, kitchen.places[0], kitchen, prior_loss()), melt, asked.sugar_kg)
    heating = Heating(
        case,
        water,
        asked.crystalline,
        kitchen.room_degc,
        asked.cook_degc,
        kitchen.altitude_m,
        heat.given_w(melt, asked.sugar_kg),
        heat.efficiency,
    )
    made = cooking(heating, hob_time_s(heating), asked.before)
    made = made if family.staged else replace(made, stages=())
    passes = white_passes_frac(asked.white_frac, asked.thickness_m)
    bursts = nib_bursts(made.time_s.likely * nib_duty_frac(kitchen.paces.stir_s)) if heat.bursts else None
    return Cooked(
        made,
        made.foam_m > made.height_m,
        passes,
        faults(family.rows),
        bursts,
        clearer(heating, asked.before),
    )


def caramel(workshop: Workshop, asked: CaramelRequest) -> Caramel:
    """Dry caramel by stages, and when a spoonful of it holds a thread.

    Raises: OutOfRange: a weight or temperature that cannot be.
    """
    kitchen = _kitchen(workshop)
    vessel, ring = (
        pick(kitchen.vessels, asked.vessel_id, "vessel_id"),
        pick(kitchen.rings, asked.ring_id, "ring_id"),
    )
    case = base_case(
        pot_case(vessel, kitchen.places[0], kitchen, prior_loss()), material("melts", "caramel"), asked.sugar_kg
    )
    efficiency = material("kitchen", ring.kind, "ring").spread("efficiency")
    return dry_caramel(case, ring.power_w, efficiency, asked.off_degc, kitchen.room_degc)


@dataclass(frozen=True, slots=True)
class DipBath:
    """A bath over its dips; seconds in the kitchen's first microwave that warm it again, None where there is none; what a centre
    that is not as warm as the room does, None of one that is."""

    dips: Dipped
    warm_s: float | None
    cold: ColdCentre | None


def dip(workshop: Workshop, asked: DipRequest) -> DipBath:
    """A bath over its dips, and how much of it a piece needs.

    Raises: OutOfRange: a size, weight or temperature that cannot be.
    """
    kitchen, melt = _kitchen(workshop), melt_of(workshop, asked.material)
    usual, room = material("kitchen", "usual", "dip"), kitchen.room_degc
    degc = room if asked.centre_degc is None else asked.centre_degc
    area = math.pi * asked.width_m * asked.depth_m + math.pi * asked.width_m**2 / 4
    held = Held(melt, asked.melt_kg, exact(asked.melt_degc), "bowl", kitchen.room_degc)
    centre = Dip(
        asked.count,
        asked.centre_kg,
        degc,
        usual.value("cp"),
        asked.depth_m,
        asked.width_m,
        usual.value("coat") * melt.value("density_melt") * area,
        asked.seconds,
        max(asked.seconds, kitchen.paces.pour_each_s),
    )
    bath = dipped(held, centre, asked.diameter_m)
    coat, of = usual.value("coat"), material("fillings", "fruit")
    cold = (
        cold_centre(melt, centre, of, asked.melt_degc, coat, room, kitchen.humidity_frac)
        if degc < room - 1.0
        else None
    )
    ovens = kitchen.microwaves[:1]
    seconds = [bath.warm_j / coupled_w(o.power_w, asked.melt_kg, _share()) for o in ovens]
    return DipBath(bath, seconds[0] if seconds else None, cold)


def _share() -> float:
    return material("kitchen", "coupling", "microwave").value("share")
