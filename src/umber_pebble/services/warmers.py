"""What a kitchen keeps melts warm in, as a document and as the engine takes it."""

from dataclasses import replace
from typing import Literal

from pydantic import Field

from umber_pebble.core.heat.vessel import Pot
from umber_pebble.core.materials.load import material
from umber_pebble.core.plan.keeper import Keeper
from umber_pebble.services.doc_base import Doc, Id, Name, Whole


class Warmer(Doc):
    """What keeps vessels of melt warm: water of a bath, a warming plate, a low oven; how warm it is, how many it takes at once."""

    id: Id
    name: Name
    kind: Literal["bath", "plate", "oven"]
    keeps_degc: float = Field(ge=25, le=160)
    vessels: Whole = Field(ge=1, le=40)


def keeper_of(stands: Pot, warmer: Warmer, room_degc: float) -> Keeper:
    """A vessel in what keeps it warm, from the same on its stand."""
    keeps = material("kitchen", warmer.kind, "keeps")
    air = warmer.keeps_degc if keeps.flags["all_round"] else room_degc
    return Keeper(
        warmer.id, replace(stands, stand=keeps, below_degc=warmer.keeps_degc, air_degc=air), warmer.vessels
    )
