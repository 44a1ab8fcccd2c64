"""What the services are tried on."""

import pytest

from tests.services.test_runs import order
from umber_pebble.demo.fill import KITCHEN
from umber_pebble.demo.pieces import MOULDS, PIECES
from umber_pebble.services.workshop import Workshop


@pytest.fixture
def stocked(workshop: Workshop) -> Workshop:
    """A workshop with the demo's kitchen, moulds and pieces, and one order."""
    kitchen = workshop.get("kitchen", "kitchen")
    workshop.save("kitchen", "kitchen", kitchen.version, KITCHEN)
    for kind, things in (("mould", MOULDS), ("piece", PIECES)):
        for key, doc in things.items():
            workshop.create(kind, key, doc)
    workshop.create("order", "order", order(workshop))
    return workshop
