"""Orders as older versions stored them: a field for each way, before they had ways by family."""

from typing import Any

import pytest

from umber_pebble.services.doc_base import STORED
from umber_pebble.services.documents import Order

BARE: dict[str, Any] = {
    "name": "Older",
    "due_at": "2031-05-02T18:00:00Z",
    "lines": [{"piece_id": "piece-disc", "quantity": 6}],
    "confidence_frac": 0.9,
    "reserve_frac": 0.05,
}
ISOMALT = {
    "vessel_id": "pot",
    "stand_id": "bench",
    "ring_id": "left",
    "place_id": "slab",
    "crystalline": True,
    "water": "auto",
    "cook_degc": 160.0,
}
COATING = {"vessel_id": "bowl", "stand_id": "bench", "by_id": "oven", "place_id": "fridge", "melt_to_degc": 43.0}
HOW = {"power": "half", "stop": "lumps"}
COUVERTURE = {
    "vessel_id": "cup",
    "stand_id": "bench",
    "by_id": "bath",
    "place_id": "fridge",
    "power": "full",
    "school": "slab",
    "seed_degc": 18.0,
}


@pytest.mark.parametrize(
    ("more", "coating", "couverture"),
    [
        # it melted through at full power, kept nothing warm, and knew no couverture: that is seeded where coating is melted
        ({"isomalt": ISOMALT, "coating": COATING}, ("full", "through"), ("bowl", "seed", 20.0)),
        (
            {"isomalt": ISOMALT, "coating": COATING | HOW, "couverture": COUVERTURE, "vessels": []},
            ("half", "lumps"),
            ("cup", "slab", 18.0),
        ),
    ],
)
def test_an_older_order_has_its_ways_by_family(
    more: dict[str, Any], coating: tuple[str, str], couverture: tuple[str, str, float]
) -> None:
    order = Order.model_validate(BARE | more, strict=False, context=STORED)
    ways = {family: way.model_dump() for family, way in order.ways.items()}
    assert ways["isomalt"] == ISOMALT | {"kind": "cooked", "kept_id": None, "divided": False}
    assert (ways["coating"]["power"], ways["coating"]["stop"], ways["coating"]["melt_to_degc"]) == (*coating, 43.0)
    found = ways["couverture"]
    assert (found["vessel_id"], found["school"], found["seed_degc"]) == couverture
    # what is stored from now on reads as it is
    assert Order.model_validate(order.model_dump(mode="json"), strict=False, context=STORED) == order
