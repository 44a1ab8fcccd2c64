"""What questions share: the kitchen they are asked in, and what is usual where nobody said."""

from collections.abc import Mapping
from typing import Any, TypeVar

from umber_pebble.core.heat.vessel import Pot
from umber_pebble.services.doc_base import Doc
from umber_pebble.services.documents import Kitchen, Place
from umber_pebble.services.snapshot import pot_case, prior_loss
from umber_pebble.services.way_docs import WayDoc
from umber_pebble.services.workshop import KITCHEN_ID, Workshop

A = TypeVar("A", bound=Doc)
USUAL: dict[str, Any] = {"thickness_m": 0.005, "mould": "silicone", "quantity": 12, "kg": 0.3, "wanted": "#3f7fd0"}
"""Common practice, no source."""


def kitchen_of(workshop: Workshop) -> Kitchen:
    """The kitchen a question is asked in."""
    kitchen = workshop.get("kitchen", KITCHEN_ID).doc
    assert isinstance(kitchen, Kitchen)
    return kitchen


def filled(asked: A, usual: Mapping[str, Any]) -> tuple[A, tuple[str, ...]]:
    """A question with what is not told as usual, and the names of that."""
    missing = {name: of for name, of in usual.items() if getattr(asked, name) is None}
    return asked.model_copy(update=missing), tuple(missing)


def cold_place(kitchen: Kitchen) -> Place:
    """Its fridge, or where it has none, the first of its places."""
    return next((p for p in kitchen.places if p.kind == "fridge"), kitchen.places[0])


def usual_pot(kitchen: Kitchen, way: WayDoc) -> Pot:
    """The vessel a melt is usually made in, on the bench."""
    vessel = next(v for v in kitchen.vessels if v.id == way.vessel_id)
    return pot_case(vessel, kitchen.places[0], kitchen, prior_loss())
