"""What the services are tried on."""

from collections.abc import Iterator

import pytest

from tests.services.test_runs import order
from umber_pebble.config import Config
from umber_pebble.demo.fill import KITCHEN, fill
from umber_pebble.demo.moulds import MOULDS
from umber_pebble.demo.pieces import PIECES
from umber_pebble.services.start import open_workshop
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


@pytest.fixture(scope="module")
def demo(tmp_path_factory: pytest.TempPathFactory) -> Iterator[Workshop]:
    """A workshop with all of the demo's data."""
    config = Config(tmp_path_factory.mktemp("demo"))
    fill(config)
    made = open_workshop(config)
    yield made
    made.engine.dispose()
