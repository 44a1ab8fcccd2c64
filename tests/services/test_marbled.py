"""Melts that go into one pass, and what hands do in turn while it is soft."""

import math
from dataclasses import replace
from pathlib import Path

import pytest

from tests.conftest import clashes
from tests.services.test_divided import Studio
from umber_pebble.core.bench.act_kinds import Pour
from umber_pebble.core.bench.soft_kinds import Stick
from umber_pebble.core.errors import NotInSequence, OutOfRange
from umber_pebble.core.pieces.passes.dust import Dust
from umber_pebble.core.pieces.passes.fill import Fill
from umber_pebble.core.pieces.passes.shell import Shell
from umber_pebble.core.plan.checks import remarks_of
from umber_pebble.core.plan.needs import needs_of
from umber_pebble.core.plan.remarks import StripesApart
from umber_pebble.core.plan.sheets import sheets_for
from umber_pebble.demo.fill import WREN
from umber_pebble.services import bench
from umber_pebble.services.documents import OrderLine
from umber_pebble.services.piece_docs import Part, Piece


@pytest.fixture
def studio(tmp_path: Path) -> Studio:
    return Studio(tmp_path)


def of(piece: str, quantity: int) -> list[OrderLine]:
    return [OrderLine(piece_id=piece, quantity=quantity, spares="as_sure")]


def part_of(studio: Studio, piece: str) -> Part:
    doc = studio.workshop.get("piece", piece).doc
    assert isinstance(doc, Piece)
    return doc.parts[0]


def with_passes(studio: Studio, piece: str, *passes: object) -> None:
    stored = studio.workshop.get("piece", piece)
    assert isinstance(stored.doc, Piece)
    part = stored.doc.parts[0].model_copy(update={"passes": list(passes)})
    studio.workshop.save("piece", piece, stored.version, stored.doc.model_copy(update={"parts": [part]}))


def test_a_shell_of_three_colours_is_swirled_one_after_the_other_and_poured_at_once(studio: Studio) -> None:
    studio.order(lines=of("piece-swirled", 4))
    plan = studio.plan()
    dusk, moon, night, close = plan.problem.lines
    assert [line.kind for line in plan.problem.lines] == ["swirl", "swirl", "tipped", "close"]
    shell = dusk.cast.poured.value.likely + moon.cast.poured.value.likely + night.cast.poured.value.likely
    shares = [line.cast.poured.value.likely / shell for line in (dusk, moon, night)]
    assert shares == pytest.approx([0.3, 0.2, 0.5])
    # all three are molten beside each other, each in a vessel of its own
    assert len({plan.problem.way(line).vessel_id for line in (dusk, moon, night)}) == 3
    assert clashes(list(plan.tasks)) == []
    one, two, pour = (next(t for t in plan.tasks if t.round == n) for n in (0, 1, 2))
    assert [t.kind for t in (one, two, pour)] == ["swirl", "swirl", "pour"]
    assert one.end_s == pytest.approx(two.start_s) and two.end_s == pytest.approx(pour.start_s)
    # what is tipped out again has all colours in it: of each only what was never poured is left as it was
    for cook in plan.cooks:
        kept = cook.reserve_kg + cook.residue_kg.likely
        closes = close.cast.poured.value.likely - close.cast.finished.value.likely
        back = closes * plan.casts[3] if cook.way is plan.problem.way(close) else 0.0
        assert cook.left_kg == pytest.approx(kept + back, rel=1e-6)
    done = [act.what.laid for act in studio.led() if isinstance(act.what, Pour)]
    assert done == ["swirl", "swirl", "tipped", "close"]


def test_a_lollipop_takes_its_stick_and_then_its_sprinkles(studio: Studio) -> None:
    part = part_of(studio, "piece-lollipop")
    sprinkles, pearls = Dust("Star sprinkles", 0.0005, True, "food"), Dust("Sugar pearls", 0.001, True, "food")
    with_passes(studio, "piece-lollipop", *part.passes, sprinkles, pearls)
    studio.order(lines=of("piece-lollipop", 4))
    plan = studio.plan()
    [line] = plan.problem.lines
    assert [work.kind for work in line.works] == ["stick", "sprinkle"]
    # what goes on in the same way goes on at once, and each is at hand
    assert [on.name for on in line.works[1].on] == ["Star sprinkles", "Sugar pearls"]
    at_hand = {hand.name: (hand.count, hand.kg) for hand in needs_of(plan).by_hand}
    n = plan.casts[0]
    assert at_hand == {
        "Star sprinkles": (n, pytest.approx(n * 0.0005)),
        "Sugar pearls": (n, pytest.approx(n * 0.001)),
    }
    kinds = [act.what.kind for act in studio.led()]
    assert kinds.index("pour") < kinds.index("stick") < kinds.index("sprinkle") < kinds.index("unmould")


def test_sprinkles_are_noted_as_such_where_the_stick_was_missed(studio: Studio) -> None:
    part = part_of(studio, "piece-lollipop")
    with_passes(studio, "piece-lollipop", *part.passes, Dust("Star sprinkles", 0.0005, True, "food"))
    studio.order(lines=of("piece-lollipop", 4))
    studio.start("order-table")
    while not (soft := [act for act in bench.view(studio.runs, "led", WREN).acts if isinstance(act.what, Stick)]):
        studio.step()
    number = soft[0].subject.number
    studio.tell("inserted", round=number, what="sprinkle")
    assert list(studio.runs.look("led")[2].state.rounds[number].worked) == ["sprinkle"]
    # a stick is not pushed through them afterwards
    kinds = {act.what.kind for act in bench.view(studio.runs, "led", WREN).acts if act.subject.number == number}
    assert not kinds & {"stick", "sprinkle"}
    with pytest.raises(NotInSequence, match="other work"):
        studio.tell("combed", round=number, how="drag")


def test_what_an_older_version_noted_of_a_comb_is_the_one_that_was_next(studio: Studio) -> None:
    studio.order(lines=of("piece-crescent", 4))
    studio.start("order-table")
    while not (soft := [act for act in bench.view(studio.runs, "led", WREN).acts if act.what.kind == "comb"]):
        studio.step()
    number = soft[0].subject.number
    studio.tell("combed", round=number)
    assert list(studio.runs.look("led")[2].state.rounds[number].worked) == ["drag"]


def test_shares_that_leave_the_first_melt_nothing_are_refused(studio: Studio) -> None:
    shell = part_of(studio, "piece-swirled").passes[0]
    assert isinstance(shell, Shell)
    much = replace(shell, others=tuple(replace(share, share_frac=0.5) for share in shell.others))
    with pytest.raises(OutOfRange, match="others"):
        with_passes(studio, "piece-swirled", much)


def test_one_colour_is_not_dragged_through_nor_deeper_than_it_is(studio: Studio) -> None:
    fill, drag = part_of(studio, "piece-crescent").passes
    assert isinstance(fill, Fill)
    studio.order(lines=of("piece-crescent", 4))
    with_passes(studio, "piece-crescent", replace(fill, others=()), drag)
    with pytest.raises(OutOfRange, match="in one colour nothing is seen"):
        studio.plan()
    with_passes(studio, "piece-crescent", fill, replace(drag, deep_m=0.0025))
    with pytest.raises(OutOfRange, match="goes through"):
        studio.plan()


def test_stripes_that_take_longer_than_they_run_are_told(studio: Studio) -> None:
    fill, drag = part_of(studio, "piece-crescent").passes
    assert isinstance(fill, Fill)

    def told(bore_m: float) -> list[StripesApart]:
        with_passes(studio, "piece-crescent", replace(fill, stripes_m=bore_m), drag)
        studio.order(lines=of("piece-crescent", 12))
        return [of for of in remarks_of(studio.plan()) if isinstance(of, StripesApart)]

    assert told(0.007) == []
    [slow] = told(0.003)
    # by hand: as much of 145 x 2.5 mm as they lie on, out of 3 mm at 5 cm a second
    plan = studio.plan()
    line = plan.problem.lines[-1]
    assert line.mould.cutting is not None
    long_m = sheets_for(line.mould.cutting, {0: plan.casts[-1]}).last_m
    assert slow.takes_s == pytest.approx(long_m * 0.145 * 0.0025 / (math.pi * 0.0015**2) / 0.05, rel=0.03)
    assert slow.takes_s > slow.runs_s > 60
