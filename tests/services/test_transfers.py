"""Printed films: how they are cut, pressed on what no longer runs, at hand, and peeled when it has set."""

from dataclasses import replace
from pathlib import Path

import pytest

from tests.services.test_divided import Studio
from tests.services.test_marbled import of, part_of, with_passes
from umber_pebble.core.bench.act_kinds import Pour, Unmould
from umber_pebble.core.bench.soft_kinds import PressFilm
from umber_pebble.core.errors import OutOfRange
from umber_pebble.core.pieces.melt_ref import MeltRef
from umber_pebble.core.pieces.passes.base import PassKind
from umber_pebble.core.pieces.passes.dip import Dip
from umber_pebble.core.pieces.passes.fill import Fill
from umber_pebble.core.pieces.passes.printed import Print
from umber_pebble.core.plan.checks import remarks_of
from umber_pebble.core.plan.needs import needs_of
from umber_pebble.core.plan.remarks import NotEaten
from umber_pebble.services.covering import Covering
from umber_pebble.services.pieces import PartRequest, part_figures

PRINT = Print("Comet print", True, "transfer", "food", 6, "flat")


@pytest.fixture
def studio(tmp_path: Path) -> Studio:
    return Studio(tmp_path)


def test_a_strip_is_pressed_on_dipped_pralines_while_they_take_it_and_peeled_at_the_end(studio: Studio) -> None:
    studio.order(lines=of("piece-praline", 12))
    plan = studio.plan()
    [line] = plan.problem.lines
    [film] = needs_of(plan).films
    # by hand: six of 26 mm side by side with 5 mm between and round them; as many strips as there are sixes
    assert (film.film.long_m, film.film.wide_m) == pytest.approx((6 * 0.026 + 7 * 0.005, 0.036))
    assert film.count == sum(-(-r.casts // 6) for r in plan.rounds)
    # never so wet that the print swims, nor when nothing sticks any more
    for task in (t for t in plan.tasks if t.kind == "film"):
        pour = next(t for t in plan.tasks if t.kind == "pour" and t.round == task.round)
        at = plan.windows[task.round or 0].at
        assert task.start_s - pour.start_s >= at["comb_opens"].likely - 1
        assert task.start_s - pour.end_s <= at["comb_closes"].likely
    done = studio.led()
    pressed = [act for act in done if isinstance(act.what, PressFilm)]
    assert sum(act.what.casts for act in pressed) == plan.casts[0]  # type: ignore[union-attr]
    off = [act.what for act in done if isinstance(act.what, Unmould)]
    assert [what.films for what in off] == [("Comet print",)] * len(plan.rounds)
    assert line.dip is not None


def test_each_by_itself_takes_more_film_and_more_time_of_hands(studio: Studio) -> None:
    dip, strip = part_of(studio, "piece-praline").passes
    assert isinstance(dip, Dip) and isinstance(strip, Print)
    hands = []
    for in_row in (6, 1):
        with_passes(studio, "piece-praline", dip, replace(strip, in_row=in_row))
        studio.order(lines=of("piece-praline", 6))
        plan = studio.plan()
        [film] = needs_of(plan).films
        hands.append((film.count, sum(t.end_s - t.start_s for t in plan.tasks if t.kind == "film")))
    (strips, one), (pieces, each) = hands
    assert (strips, pieces) == (-(-plan.casts[0] // 6), plan.casts[0]) and each == pytest.approx(6 * one, rel=0.05)


def test_a_texture_is_used_again_and_what_is_no_food_is_told(studio: Studio) -> None:
    [fill] = part_of(studio, "piece-disc").passes
    assert isinstance(fill, Fill)
    coated = replace(fill, melt=MeltRef("coating", None))
    bubbles = Print("Packing film", True, "texture", "decoration", 1, "flat")
    with_passes(studio, "piece-disc", coated, bubbles)
    # one mould of fourteen: what is peeled off the first filling goes on the second
    studio.order(lines=of("piece-disc", 24))
    plan = studio.plan()
    assert len(plan.rounds) > 1
    [film] = needs_of(plan).films
    assert film.count == max(r.casts for r in plan.rounds) < plan.casts[0]
    [told] = [remark for remark in remarks_of(plan) if isinstance(remark, NotEaten)]
    assert told.film == "Packing film"
    with_passes(studio, "piece-disc", coated, replace(bubbles, of="transfer", made_for="food"))
    plan = studio.plan()
    [film] = needs_of(plan).films
    assert film.count == plan.casts[0] and not [r for r in remarks_of(plan) if isinstance(r, NotEaten)]


def test_a_film_is_not_pressed_on_hot_sugar_nor_on_nothing(studio: Studio) -> None:
    [fill] = part_of(studio, "piece-disc").passes
    assert isinstance(fill, Fill)
    with_passes(studio, "piece-disc", fill, PRINT)
    studio.order(lines=of("piece-disc", 4))
    with pytest.raises(OutOfRange, match="too hot while it takes a film"):
        studio.plan()
    with_passes(studio, "piece-disc", PRINT, replace(fill, melt=MeltRef("coating", None)))
    with pytest.raises(OutOfRange, match="no melt yet"):
        studio.plan()


def test_a_film_laid_into_the_empty_mould_is_at_hand_too(studio: Studio) -> None:
    [fill] = part_of(studio, "piece-disc").passes
    assert isinstance(fill, Fill)
    coated = replace(fill, melt=MeltRef("coating", None))
    with_passes(studio, "piece-disc", replace(PRINT, on_wet=False, in_row=1), coated)
    studio.order(lines=of("piece-disc", 4))
    plan = studio.plan()
    [film] = needs_of(plan).films
    assert film.count == plan.casts[0]
    kinds = [act.what.kind for act in studio.led()]
    assert kinds.index("put_in") < kinds.index("pour") and "film" not in kinds


def test_a_transfer_of_ones_own_is_painted_on_the_film_set_and_poured_over(studio: Studio) -> None:
    studio.order(lines=of("piece-tile", 18))
    plan = studio.plan()
    scratched, mottled, fill = plan.problem.lines
    # 18 tiles and 3 to spare of 40 mm, by hand: a sheet of 300 by 145 mm, and 52 mm of another for one row of three;
    # 0.1 mm on 80 % of both, 900 kg/m3, at 3 cm2 a second, taken up once a sheet of 18
    sheets_m2 = (0.3 + 0.006 + 0.04 + 0.006) * 0.145
    assert plan.casts == (21, 21, 21)
    assert 21 * scratched.cast.poured.value.likely == pytest.approx(0.8 * sheets_m2 * 0.0001 * 900, rel=1e-3)
    lasts = plan.problem.pour_lasts_s(scratched, 21)
    assert lasts == pytest.approx(6 * 21 / 18 + 0.8 * sheets_m2 / 0.0003, rel=1e-3)
    done = studio.led()
    pours = [act.what for act in done if isinstance(act.what, Pour)]
    assert [pour.laid_by for pour in pours] == ["scratch", "mottle", "piped"]
    assert all(pour.sheet is not None for pour in pours)
    assert [line.kind for line in (scratched, mottled, fill)] == ["detail", "detail", "fill"]


def test_light_colours_over_dark_chocolate_are_told_to_need_white_and_it_is_put_there(studio: Studio) -> None:
    night, ochre, fill = part_of(studio, "piece-tile").passes

    def covers(*passes: PassKind) -> dict[int, Covering | None]:
        part = part_of(studio, "piece-tile").model_copy(update={"passes": list(passes)})
        figures = part_figures(studio.workshop, PartRequest(part=part, cut_frac=0.0))
        return {row.index: row.covering for row in figures.rows}

    first = covers(night, ochre, fill)
    assert first[0] is not None and first[0].white is None
    assert first[1] is not None and first[1].white is not None and first[2] is None
    then = covers(night, ochre, first[1].white, fill)
    assert then[1] is not None and then[1].white is None
    assert then[1].seen == first[1].with_white
    # over white chocolate it is another thing
    over_white = covers(night, ochre, replace(fill, melt=MeltRef("white", None)))  # type: ignore[call-arg, arg-type]
    assert over_white[1] is not None and over_white[1].off < 0.7 * first[1].off
    assert over_white[1].white is None
