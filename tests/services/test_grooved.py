"""A slab with grooves in its back, from the build to the end of its run."""

from dataclasses import replace
from pathlib import Path

import pytest

from tests.plans import plan_order
from tests.services.test_led import Hand
from umber_pebble.core.errors import OutOfRange
from umber_pebble.core.pieces.melt_ref import MeltRef
from umber_pebble.core.pieces.passes.groove import Groove
from umber_pebble.services.documents import Order, OrderLine
from umber_pebble.services.piece_docs import Piece
from umber_pebble.services.setting import SettingRequest, part_sets


def slab(hand: Hand, melt: str, *grooves: Groove) -> Order:
    """Four slabs of a melt, 4 mm thick, each with these grooves."""
    like = hand.workshop.get("piece", "piece-disc").doc
    assert isinstance(like, Piece)
    [part] = like.parts
    fill = replace(part.passes[0], melt=MeltRef(melt, None))
    name = f"slab-{melt}-{len(grooves)}"
    made = part.model_copy(update={"passes": [fill, *grooves]})
    hand.workshop.create("piece", name, like.model_copy(update={"name": name, "parts": [made]}))
    order = hand.workshop.get("order", "order-table").doc
    assert isinstance(order, Order)
    return order.model_copy(update={"lines": [OrderLine(piece_id=name, quantity=4)], "ways": {}})


def test_grooves_are_drawn_while_the_back_is_leathery(tmp_path: Path) -> None:
    """After it no longer runs and before its film comes off it takes a groove: common practice, no source."""
    hand = Hand(tmp_path, None)
    order = slab(hand, "coating", Groove(3, 0.001, 0.0015))
    plan = plan_order(hand.workshop, order)
    [task] = [t for t in plan.tasks if t.kind == "groove"]
    [pour] = [t for t in plan.tasks if t.kind == "pour"]
    at = plan.windows[0].at
    assert task.hands
    # a stroke for each of them on each casting
    assert task.end_s - task.start_s == pytest.approx(plan.casts[0] * 3 * plan.problem.paces.stick_each_s)
    assert task.start_s - pour.start_s + 1e-6 >= at["groove_opens"].likely > at["stick_closes"].likely
    assert at["groove_opens"].likely < at["groove_closes"].likely < at["unmould"].likely
    # one round in the editor waits for it as well, and sets no longer for it
    piece = hand.workshop.get("piece", order.lines[0].piece_id).doc
    assert isinstance(piece, Piece)
    sets = part_sets(hand.workshop, SettingRequest(part=piece.parts[0]))
    [poured, waits, drawn, rest] = sets.stretches
    assert [s.what for s in sets.stretches] == ["hands", "sets", "hands", "sets"]
    assert sets.cools is not None
    assert waits.to_s - poured.to_s == pytest.approx(sets.cools.windows["groove_opens"].likely)
    assert rest.to_s - drawn.to_s + waits.to_s - poured.to_s == pytest.approx(sets.rows[0].sets.likely)
    # nothing is taken off by it
    assert plan.fresh_kg("coating") == plan_order(hand.workshop, slab(hand, "coating")).fresh_kg("coating")
    hand.workshop.create("order", "slabs", order)
    hand.start("slabs")
    while hand.step():
        pass
    told = [kind for kind, _ in hand.done]
    assert told.index("pour") < told.index("groove") < told.index("unmould")


@pytest.mark.parametrize(
    ("melt", "deep_m", "said"), [("isomalt", 0.0015, "never leathery"), ("coating", 0.005, "goes through")]
)
def test_what_is_not_grooved_is_said(tmp_path: Path, melt: str, deep_m: float, said: str) -> None:
    hand = Hand(tmp_path, None)
    with pytest.raises(OutOfRange, match=said):
        plan_order(hand.workshop, slab(hand, melt, Groove(3, 0.001, deep_m)))
