"""Opening a workshop: database migrated, clock chosen, first things there."""

from dataclasses import dataclass
from datetime import UTC, datetime
from typing import Any, Literal

from sqlalchemy.orm import Session

from umber_pebble.config import Config
from umber_pebble.services.clock import Clock, DrivenClock, SteadyClock
from umber_pebble.services.documents import Bath, Kitchen, Microwave, Paces, Place, Ring, Units, Vessel
from umber_pebble.services.live import Broker
from umber_pebble.services.workshop import KITCHEN_ID, UNITS_ID, Workshop
from umber_pebble.store import queries
from umber_pebble.store.engine import migrate, open_engine

FIRST_UNITS = Units(temperature="C", mass="g", length="mm", volume="ml")


def place(place_id: str, name: str, **told: Any) -> Place:
    """A place, by default a wire rack in still room air."""
    rack = {
        "kind": "room",
        "fan": False,
        "surface": "trivet",
        "thickness_m": 0.005,
        "surface_degc": None,
        "air_degc": None,
        "moulds": None,
    }
    return Place(id=place_id, name=name, **{**rack, **told})


FIRST_KITCHEN = Kitchen(
    name="My kitchen",
    zone="Europe/London",
    altitude_m=50.0,
    room_degc=21.0,
    humidity_frac=0.5,
    rings=[Ring(id="ring", name="Hob ring", kind="electric", power_w=1800.0)],
    microwaves=[Microwave(id="microwave", name="Microwave", power_w=800.0)],
    baths=[Bath(id="bath", name="Water bath", water_degc=65.0)],
    warmers=[],
    places=[
        place("bench", "Bench top", surface="wood", thickness_m=0.03),
        place("slab", "Cold slab", surface="granite", thickness_m=0.02, surface_degc=14.0),
        place("fridge", "Fridge", kind="fridge", air_degc=5.0),
        place("freezer", "Freezer", kind="freezer", air_degc=-18.0),
    ],
    vessels=[
        Vessel(id="pot", name="Pot, 16 cm", made_of="steel", diameter_m=0.16, height_m=0.09, mass_kg=1.0),
        Vessel(id="bowl", name="Bowl, 15 cm", made_of="plastic", diameter_m=0.15, height_m=0.08, mass_kg=0.12),
    ],
    people=["Me"],
    hours=[],
    rosters=[],
    paces=Paces(
        weigh_s=120.0,
        pour_each_s=6.0,
        bend_each_s=12.0,
        fill_each_s=12.0,
        stick_each_s=5.0,
        join_each_s=15.0,
        stir_s=15.0,
        unmould_each_s=8.0,
        clean_s=240.0,
        dry_s=600.0,
        call_before_s=20.0,
    ),
)


UsualKey = Literal["home", "shared", "humid", "high"]


@dataclass(frozen=True, slots=True)
class UsualKitchen:
    """A kitchen as many have it, to start from; each of its fields is changed afterwards."""

    key: UsualKey
    kitchen: Kitchen


USUAL_KITCHENS = (
    UsualKitchen("home", FIRST_KITCHEN),
    UsualKitchen(
        "shared",
        FIRST_KITCHEN.model_copy(
            update={
                "name": "Shared kitchen",
                "room_degc": 20.0,
                "humidity_frac": 0.5,
                "rings": [
                    Ring(id="ring", name="Induction ring", kind="induction", power_w=3000.0),
                    Ring(id="ring-gas", name="Gas ring", kind="gas", power_w=3500.0),
                ],
                "microwaves": [Microwave(id="microwave", name="Catering microwave", power_w=1100.0)],
                "places": [
                    place("bench", "Steel bench", surface="steel", thickness_m=0.002),
                    place("slab", "Marble slab", surface="marble", thickness_m=0.02, surface_degc=18.0),
                    place("rack", "Rack by the fan", fan=True),
                    place("fridge", "Shared fridge", kind="fridge", fan=True, air_degc=4.0, moulds=4),
                    place("freezer", "Freezer", kind="freezer", air_degc=-18.0),
                ],
                "vessels": [
                    *FIRST_KITCHEN.vessels,
                    Vessel(
                        id="pot-large",
                        name="Pot, 24 cm",
                        made_of="steel",
                        diameter_m=0.24,
                        height_m=0.14,
                        mass_kg=2.2,
                    ),
                    Vessel(
                        id="glass-bowl",
                        name="Glass bowl, 20 cm",
                        made_of="glass",
                        diameter_m=0.2,
                        height_m=0.1,
                        mass_kg=0.8,
                    ),
                ],
            }
        ),
    ),
    UsualKitchen(
        "humid",
        FIRST_KITCHEN.model_copy(
            update={"name": "Warm, humid kitchen", "room_degc": 28.0, "humidity_frac": 0.7, "altitude_m": 10.0}
        ),
    ),
    UsualKitchen(
        "high",
        FIRST_KITCHEN.model_copy(
            update={"name": "Kitchen high up", "room_degc": 20.0, "humidity_frac": 0.35, "altitude_m": 1800.0}
        ),
    ),
)
"""Common practice, no source."""


def open_workshop(config: Config, clock: Clock | None = None) -> Workshop:
    """Open or make the database of a configuration."""
    engine = open_engine(config.database)
    migrate(engine, config.database, config.backups)
    with Session(engine) as session:
        newest = queries.last_received(session)
    if clock is None:
        clock = DrivenClock(newest or datetime.now(UTC)) if config.driven_clock else SteadyClock(newest)
    workshop = Workshop(engine, clock, Broker())
    with workshop.session() as session:
        known = {kind for kind in ("kitchen", "units") if queries.things(session, kind)}
    if "kitchen" not in known:
        workshop.create("kitchen", KITCHEN_ID, FIRST_KITCHEN)
    if "units" not in known:
        workshop.create("units", UNITS_ID, FIRST_UNITS)
    return workshop
