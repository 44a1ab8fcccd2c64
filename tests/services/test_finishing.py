"""Finishes from the piece to its box: after the rest from the cold, coat by coat, as much as they take, and what of it may be eaten."""

from dataclasses import replace
from pathlib import Path

import pytest

from tests.services.test_divided import Studio
from tests.services.test_marbled import of, part_of, with_passes
from umber_pebble.core.bench.act_kinds import ByHand
from umber_pebble.core.errors import OutOfRange
from umber_pebble.core.humidity.evaporate import dries_s, film_of
from umber_pebble.core.materials.load import material
from umber_pebble.core.moulds.cavity import Cavity, wetted_m2
from umber_pebble.core.moulds.outline import Circle
from umber_pebble.core.moulds.walled import Walled
from umber_pebble.core.pieces.build import lay
from umber_pebble.core.pieces.eaten import eaten
from umber_pebble.core.pieces.melt_ref import MeltRef
from umber_pebble.core.pieces.passes.dusted import GOLD, DryDust
from umber_pebble.core.pieces.passes.fill import Fill
from umber_pebble.core.pieces.passes.lacquered import Lacquered
from umber_pebble.core.pieces.passes.painted import Painted
from umber_pebble.core.pieces.passes.stick import Stick
from umber_pebble.core.pieces.passes.wire import Wire
from umber_pebble.core.plan.checks import remarks_of
from umber_pebble.core.plan.day.check import broken
from umber_pebble.core.plan.finishing import rests_s
from umber_pebble.core.plan.needs import needs_of
from umber_pebble.core.plan.remarks import NotFood, WeakSpirit
from umber_pebble.services.pieces import PartRequest, part_figures

FILL = Fill(MeltRef("coating", None), 0.006, (), None)
DUST = DryDust("Gold dust", "highlighter", GOLD, 1.0, 2, "food")
PAINT = Painted("Gold paint", "lustre", GOLD, 0.5, 1, 0.4, 0.5, "food")
LACQUER = Lacquered("Lacquer", 1.0, 1, "food")


@pytest.fixture
def studio(tmp_path: Path) -> Studio:
    return Studio(tmp_path)


def test_a_finish_lies_on_what_is_seen_and_comes_last() -> None:
    disc = Cavity(Walled(Circle(0.05), 0.01))
    laid, faults = lay(disc, (FILL, DUST))
    assert not faults
    # floor and wall up to 6 mm, by hand: pi r2 + 2 pi r h; 1.5 g a square metre and coat
    assert (
        laid[1].area_m2 == pytest.approx(wetted_m2(disc, 0.006)) == pytest.approx(0.0019635 + 0.00094248, rel=1e-3)
    )
    assert laid[1].finished.value.likely == pytest.approx(2 * 0.0015 * laid[1].area_m2)
    assert [f.code for f in lay(disc, (DUST,))[1]] == ["nothing_there"]
    # what stands too early says so itself, and the rest is laid
    laid, [early] = lay(disc, (DUST, FILL, LACQUER))
    assert (early.index, early.code, [row.index for row in laid]) == (0, "after_finish", [1, 2])


def test_finishes_are_put_on_once_it_is_out_and_no_longer_cold_each_when_the_one_before_is_dry(
    studio: Studio,
) -> None:
    with_passes(studio, "piece-bonbon", *part_of(studio, "piece-bonbon").passes, DUST, PAINT, LACQUER)
    studio.order(lines=of("piece-bonbon", 8))
    plan = studio.plan()
    steps = plan.problem.by_hand
    assert [step.named.step for step in steps] == ["gold dust, 1", "gold dust, 2", "gold paint", "lacquer"]
    kitchen = plan.problem
    dries = dries_s(film_of(25e-6 * 0.5, 0.4), kitchen.room_degc, kitchen.humidity_frac)
    assert steps[2].rests.likely == pytest.approx(dries)
    assert not broken(plan.day.day, plan.table)
    out = max(t.end_s for t in plan.tasks if t.kind == "unmould")
    done = sorted((t for t in plan.tasks if t.kind == "finish"), key=lambda t: t.start_s)
    assert [t.number for t in done] == [0, 1, 2, 3]
    # 14.5 mm of chocolate from a fridge of 4 degC: by hand exp(-t/tau) of 17.5 K to 5 K with tau of 15 min and some
    assert 600 < steps[0].out_s.likely < 1800 and done[0].start_s >= out + steps[0].out_s.likely - 1
    assert done[3].start_s >= done[2].end_s + dries - 1
    needs = {need.name: need for need in needs_of(plan).finishes}
    assert needs["Gold dust"].pots == 1 and needs["Lacquer"].liquid_m3 > 0
    # half of the dust is knocked off
    assert needs["Gold dust"].dust_kg == pytest.approx(8 * 2 * 2 * steps[0].kg, rel=1e-6)
    weak = next(of for of in remarks_of(plan) if isinstance(of, WeakSpirit))
    assert (weak.alcohol_frac, weak.least_frac) == (0.4, 0.8)
    told = [str(act.what.step.named.step) for act in studio.led() if isinstance(act.what, ByHand)]
    assert told == ["gold dust, 1", "gold dust, 2", "gold paint", "lacquer"]


def test_sugar_out_of_the_cold_rests_too_and_what_has_no_finish_is_planned_as_ever(studio: Studio) -> None:
    isomalt = material("melts", "isomalt")
    assert 200 < rests_s(isomalt, 0.006, 4.0, 21.5, 0.46).likely < 1500
    with_passes(studio, "piece-disc", *part_of(studio, "piece-disc").passes, LACQUER)
    studio.order(lines=of("piece-disc", 4))
    assert [step.what for step in studio.plan().problem.by_hand] == ["finish"]


def test_what_is_not_cold_needs_no_rest_and_thin_less_than_thick() -> None:
    of_coating = material("melts", "coating")
    warm = rests_s(of_coating, 0.006, 20.0, 21.0, 0.5)
    thin, thick = (rests_s(of_coating, t, 4.0, 21.5, 0.46).likely for t in (0.004, 0.012))
    assert warm.high == 0.0 and 120 < thin < thick / 2
    # common practice, no source: about 10 min to room temperature, of a usual piece
    assert 300 < rests_s(of_coating, 0.006, 4.0, 21.5, 0.46).likely < 900
    # in a damp room it is dry only later
    assert rests_s(of_coating, 0.006, 4.0, 21.5, 0.8).likely > rests_s(of_coating, 0.006, 4.0, 21.5, 0.46).likely


def test_swatches_say_where_a_base_swallows_its_dust(studio: Studio) -> None:
    def dusted(melt: MeltRef) -> bool:
        part = part_of(studio, "piece-bonbon").model_copy(update={"passes": [replace(FILL, melt=melt), DUST]})
        figures = part_figures(studio.workshop, PartRequest(part=part, cut_frac=0.0))
        [swatch] = [row.swatches for row in figures.rows if row.swatches]
        assert len(swatch.here) == len(swatch.matching) == 3
        return swatch.swallowed

    assert dusted(MeltRef("dark", None)) and not dusted(MeltRef("coating", "#c98a2b"))


def test_a_part_takes_the_worst_of_what_stays_on_it_and_the_label_says_what_comes_off(studio: Studio) -> None:
    wire, stick = Wire("Wire", 24, 1, 0.05, 0.01, 0.0, 0.001, "unknown"), Stick(0.004, 0.03, "stays")
    told = eaten(
        [
            ("Cap", (FILL, DUST)),
            ("Star", (FILL, wire, stick)),
            ("Moon", (FILL, replace(DUST, status="non_toxic"))),
        ]
    )
    assert [part.eaten for part in told.parts] == [True, True, False]
    assert told.label == "Remove before eating: Wire (Star), Stick (Star). Not for eating: Moon (Gold dust)."
    assert eaten([("Cap", (FILL, DUST))]).label == ""
    with_passes(studio, "piece-bonbon", *part_of(studio, "piece-bonbon").passes, replace(DUST, status="non_toxic"))
    studio.order(lines=of("piece-bonbon", 2))
    assert [(of.thing, of.status) for of in remarks_of(studio.plan()) if isinstance(of, NotFood)] == [
        ("Gold dust", "non_toxic")
    ]
    with pytest.raises(OutOfRange, match="move it down, after all that is cast"):
        with_passes(studio, "piece-bonbon", DUST, *part_of(studio, "piece-bonbon").passes)
        studio.plan()
