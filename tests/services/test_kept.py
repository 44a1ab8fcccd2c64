"""What an order keeps warm: which of its melts the kitchen's warm water takes, and what the bench says of it."""

from pathlib import Path

import numpy as np
import pytest

from tests.plans import plan_order
from tests.services.test_led import Hand, first
from umber_pebble.core.bench.act_kinds import TakeOut
from umber_pebble.core.bench.subject import Subject
from umber_pebble.services import bench
from umber_pebble.services.documents import Kitchen, Order
from umber_pebble.services.workshop import KITCHEN_ID


def kept_at(hand: Hand, degc: float) -> Order:
    """The First-light table with all of its melts to be kept in water so warm."""
    kitchen = hand.workshop.get("kitchen", KITCHEN_ID)
    assert isinstance(kitchen.doc, Kitchen)
    warmers = [kitchen.doc.warmers[0].model_copy(update={"keeps_degc": degc})]
    hand.workshop.save("kitchen", KITCHEN_ID, kitchen.version, kitchen.doc.model_copy(update={"warmers": warmers}))
    order = hand.workshop.get("order", "order-table")
    assert isinstance(order.doc, Order)
    ways = {family: way.model_copy(update={"kept_id": "warm-water"}) for family, way in order.doc.ways.items()}
    doc = order.doc.model_copy(update={"ways": ways})
    hand.workshop.save("order", "order-table", order.version, doc)
    return doc


@pytest.mark.parametrize(
    ("degc", "kept", "not_kept"),
    [
        # a coating is kept as warm as it pours; dark chocolate in temper no warmer than it works, hot sugar in no water
        (38.0, {"coating", "coating#c98a2b"}, {"dark", "isomalt", "coating#1f2a44"}),
        (31.0, {"dark"}, {"isomalt"}),
    ],
)
def test_each_melt_is_kept_where_it_bears_it(
    tmp_path: Path, degc: float, kept: set[str], not_kept: set[str]
) -> None:
    hand = Hand(tmp_path, None)
    plan = plan_order(hand.workshop, kept_at(hand, degc))
    ways = plan.problem.ways
    assert kept <= {melt for melt, way in ways.items() if way.kept}
    assert not_kept <= {melt for melt, way in ways.items() if not way.kept}


def test_the_bench_says_where_a_bowl_stands_and_shows_it_there(tmp_path: Path) -> None:
    hand = Hand(tmp_path, None)
    kept_at(hand, 38.0)
    hand.start("order-table")
    for _ in range(40):
        view = bench.view(hand.runs, "led", hand.who)
        act = first(view)
        cooks = hand.runs.look("led")[2].cooks
        if isinstance(act.what, TakeOut) and cooks[act.subject.number].way.kept:
            break
        hand.step()
    assert act.kept == bench.KeptIn("Warm water", "bath", 38.0)
    number = act.subject.number
    hand.step()
    hand.wait(3600.0)
    view = bench.view(hand.runs, "led", hand.who)
    [there] = [of for of in view.ribbons if of.subject == Subject("pot", number)]
    assert there.place == "Warm water"
    # an hour on it is as warm as the water keeps it, and pours
    track = hand.runs.look("led")[2].pots[number]
    assert 34.0 < np.interp(view.elapsed_s, track.curve.times_s, track.curve.likely_degc) < 38.0
    assert track.windows["pour"][1].likely > view.elapsed_s
