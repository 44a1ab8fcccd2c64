"""Places of a kitchen as the engine takes them, and the ways through them."""

from dataclasses import replace

from umber_pebble.core.errors import OutOfRange
from umber_pebble.core.glass.water import pressure_pa
from umber_pebble.core.heat.casting import STILL_M_S, PlaceStay
from umber_pebble.core.heat.casting import Place as PlaceCase
from umber_pebble.core.heat.convection import thin_air_factor
from umber_pebble.core.materials.load import material
from umber_pebble.services.documents import Kitchen, Place
from umber_pebble.services.piece_docs import StayDoc


def pick(rows: list, wanted: str, path: str):  # type: ignore[no-untyped-def, type-arg]
    """One of the kitchen's by its id.

    Raises: OutOfRange: it is not there any more.
    """
    for row in rows:
        if row.id == wanted:
            return row
    raise OutOfRange(
        "this is not in the kitchen any more: choose another",
        path=path,
        got=wanted,
        limits={"one_of": [row.id for row in rows]},
    )


def air_degc(place: Place, kitchen: Kitchen) -> float:
    """The air of a place: its own, or the room's."""
    return kitchen.room_degc if place.air_degc is None else place.air_degc


def place_degc(place: Place, kitchen: Kitchen) -> float:
    """A place's surface: its own temperature, or its air's."""
    return air_degc(place, kitchen) if place.surface_degc is None else place.surface_degc


def place_case(place: Place, kitchen: Kitchen) -> PlaceCase:
    """A place as the engine takes it."""
    fan = material("kitchen", "desk_fan" if place.kind == "room" else "fridge_fan", "air").spread("speed")
    unsure = 0.0 if place.kind == "room" else material("kitchen", "unsure", "air").spread("off").high
    return PlaceCase(
        material("surfaces", place.surface),
        place.thickness_m,
        place_degc(place, kitchen),
        air_degc(place, kitchen),
        fan if place.fan else STILL_M_S,
        unsure,
        thin_air=thin_air_factor(pressure_pa(kitchen.altitude_m)),
    )


def way_of(stays: list[StayDoc], kitchen: Kitchen, path: str) -> tuple[tuple[PlaceStay, str], ...]:
    """A way through places as the engine takes it, each with its place's id.

    Raises: OutOfRange: a place is gone.
    """
    return tuple(
        (
            PlaceStay(s.from_s, _kept(pick(kitchen.places, s.place_id, f"{path}.{i}.place_id"), s.care, kitchen)),
            s.place_id,
        )
        for i, s in enumerate(stays)
    )


def _kept(place: Place, care: str, kitchen: Kitchen) -> PlaceCase:
    case = place_case(place, kitchen)
    if care == "wrapped":
        return replace(case, shelter=material("kitchen", "wrapped", "care").value("shelter"))
    if care == "hand":
        hand = material("kitchen", "hand", "care")
        warm = hand.value("degc")
        return replace(case, surface_degc=warm, air_degc=warm, touch_w_m2k=hand.value("touch"))
    return case
