"""Bought things from the piece to the end of its run: at hand, cut, wetted, set in while it is soft, and what of it is not eaten."""

from pathlib import Path

import pytest

from tests.services.test_divided import Studio
from tests.services.test_marbled import of, part_of
from umber_pebble.core.bench.act_kinds import ByHand
from umber_pebble.core.bench.soft_kinds import Sprinkle, Stick
from umber_pebble.core.plan.checks import remarks_of
from umber_pebble.core.plan.needs import needs_of
from umber_pebble.core.plan.remarks import NotFood
from umber_pebble.services.piece_docs import Piece
from umber_pebble.services.pieces import PartRequest, part_figures


@pytest.fixture
def studio(tmp_path: Path) -> Studio:
    return Studio(tmp_path)


def test_wires_pearls_lace_and_boards_are_at_hand_and_set_where_they_go(studio: Studio) -> None:
    studio.order(lines=of("piece-pick", 8))
    plan = studio.plan()
    needs = {need.name: need for need in needs_of(plan).bought}
    casts = plan.casts[0]
    assert needs["Covered wire"].count == casts and needs["Sugar pearls"].count == 3 * casts
    assert needs["Sugar lace"].count == needs["Cake board"].count == 8
    # 80 mm out, 12 mm in, 4 mm of foot
    assert needs["Covered wire"].long_m == pytest.approx(0.096)
    assert not needs_of(plan).sticks
    lace = next(step for step in plan.problem.by_hand if step.items[0].name == "Sugar lace")
    assert lace.what == "fit" and lace.count * lace.each_s == pytest.approx(8 * 12 + 90)
    # what is only for contact says itself what it is; of a wire nobody knows is said
    assert [of.thing for of in remarks_of(plan) if isinstance(of, NotFood)] == ["Covered wire"]
    done = [act.what for act in studio.led()]
    wires = [what for what in done if isinstance(what, Stick)]
    assert [on.name for what in wires for on in what.items] == ["Covered wire"] * len(plan.rounds)
    assert any(isinstance(what, Sprinkle) for what in done)
    assert {what.step.items[0].name for what in done if isinstance(what, ByHand)} == {"Sugar lace", "Cake board"}


def test_a_wire_says_what_it_bears_where_it_is_set(studio: Studio) -> None:
    figures = part_figures(studio.workshop, PartRequest(part=part_of(studio, "piece-pick"), cut_frac=0.0))
    [wire] = [row.wire for row in figures.rows if row.wire]
    assert 0.0005 < wire.thick_m < 0.00052 and wire.holds_kg is not None
    assert wire.bears_kg > 0.003


def test_an_order_of_bought_things_alone_plans(studio: Studio) -> None:
    stored = studio.workshop.get("piece", "piece-pick")
    assert isinstance(stored.doc, Piece)
    made = stored.doc.model_copy(update={"parts": stored.doc.parts[1:]})
    studio.workshop.save("piece", "piece-pick", stored.version, made)
    studio.order(lines=of("piece-pick", 3))
    assert [step.what for step in studio.plan().problem.by_hand] == ["fit", "fit"]
