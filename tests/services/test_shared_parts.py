"""A dozen with seven different toppers out of four parts: each part made once for all that want it."""

import json
from dataclasses import replace
from datetime import timedelta
from pathlib import Path

import pytest

from tests.services.test_divided import Studio
from umber_pebble.core.pieces.joining.base import Join
from umber_pebble.core.pieces.melt_ref import MeltRef
from umber_pebble.core.plan.compile import Plan, compile_plan
from umber_pebble.services.documents import Order
from umber_pebble.services.gathering import snapshot_of
from umber_pebble.services.piece_docs import Piece
from umber_pebble.services.shared_parts import made_as
from umber_pebble.services.snapshot import Snapshot, plan_input
from umber_pebble.services.together import Share


@pytest.fixture
def studio(tmp_path: Path) -> Studio:
    made = Studio(tmp_path)
    twelve = made.workshop.get("order", "order-toppers").doc
    assert isinstance(twelve, Order)
    made.order(lines=twelve.lines)
    return made


def snapshot(studio: Studio) -> Snapshot:
    with studio.workshop.session() as session:
        return snapshot_of(session, studio.order())


def planned(studio: Studio, of: Snapshot) -> Plan:
    return compile_plan(plan_input(of, studio.workshop.clock.now()))


def test_parts_alike_are_made_together_and_the_order_is_led_to_the_end(studio: Studio) -> None:
    plan = studio.plan()
    # by hand: 2 x 1 + 2 x 2 + 2 x 1 + 1 x 3 stars, 2 + 4 + 1 meteorites, 2 + 2 + 1 hearts, 3 x 2 constellations
    made = {str(line.named): line.quantity for line in plan.problem.lines}
    assert made == {"Star": 11, "Meteorite": 7, "Heart": 5, "Constellation": 6}
    alone = planned(studio, snapshot(studio).model_copy(update={"parts_together": False}))
    assert len(alone.problem.lines) == 13 and sum(line.quantity for line in alone.problem.lines) == 29
    # out of fewer rounds than each topper by itself, and sooner
    assert len(plan.rounds) < len(alone.rounds)
    assert plan.lasts_s < alone.lasts_s
    studio.led()


def test_a_run_begun_before_parts_were_made_together_is_read_as_it_was(studio: Studio) -> None:
    told = snapshot(studio).model_dump(mode="json")
    del told["parts_together"]
    older = Snapshot.model_validate_json(json.dumps(told), context={"stored": True})
    assert len(plan_input(older, studio.workshop.clock.now()).lines) == 13


def test_what_is_alike_is_cast_alike(studio: Studio) -> None:
    of = snapshot(studio)
    pieces, order = dict(of.pieces), of.order
    north, south = pieces["piece-topper-north"], pieces["piece-topper-south"]
    rows = [line for line in order.lines if line.piece_id in ("piece-topper-north", "piece-topper-south")]
    two = order.model_copy(update={"lines": rows})

    def stars(change: dict[str, object], shares: tuple[Share, ...] = ()) -> set[tuple[tuple[int, int], int, int]]:
        [star, *others] = south.parts
        changed = south.model_copy(update={"parts": [star.model_copy(update=change), *others]})
        alike = made_as(two, {**pieces, "piece-topper-south": changed}, shares, True)
        return {(of.first, of.quantity, of.item) for of in (alike[0, 0], alike[1, 0])}

    assert north.parts[0].passes == south.parts[0].passes
    assert stars({}) == stars({"name": "Little star", "seen": "open"}) == {((0, 0), 6, 0)}
    apart = {((0, 0), 2, 0), ((1, 0), 4, 1)}
    thinner = [replace(south.parts[0].passes[0], level_m=0.005)]  # type: ignore[call-arg]
    for change in ({"passes": thinner}, {"cavity": 1}, {"bent": True}):
        assert stars(change) == apart
    # they are wanted when the first of those that want them is
    soon = Share(line=1, name="Tea", quantity=2, due_at=two.due_at - timedelta(hours=3))
    assert stars({}, (soon,)) == {((0, 0), 6, 1)}


def test_joins_wait_for_the_parts_that_others_want_too(studio: Studio) -> None:
    for key in ("piece-topper-south", "piece-topper-fall"):
        stored = studio.workshop.get("piece", key)
        assert isinstance(stored.doc, Piece)
        join = Join(0, 1, "melt", MeltRef("dark", None), 1, 0.0, 1, 0.004, 0.0, 0.0, 0)
        studio.workshop.save("piece", key, stored.version, stored.doc.model_copy(update={"joins": [join]}))
    plan = studio.plan()
    lines = plan.problem.lines
    at = {str(line.named): i for i, line in enumerate(lines)}
    needs = [set(line.needs) for line in lines if line.joins]
    assert needs == [{at["Star"], at["Meteorite"]}, {at["Meteorite"], at["Constellation"]}]
    out = {
        r.line: t.end_s
        for t in plan.tasks
        if t.kind == "unmould" and t.round is not None
        for r in [plan.rounds[t.round]]
    }
    for t in (t for t in plan.tasks if t.kind == "pour" and t.round is not None):
        line = lines[plan.rounds[t.round].line] if t.round is not None else lines[0]
        assert all(t.start_s >= out[i] for i in line.needs)
    studio.led()
