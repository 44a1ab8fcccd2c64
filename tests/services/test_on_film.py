"""What lies on a film and takes its form with it, films under a loose base, leaves that are spread and petals out of spoons."""

import math
from dataclasses import replace
from pathlib import Path

import pytest
import shapely

from tests.services.test_divided import Studio
from tests.services.test_marbled import of, part_of, with_passes
from umber_pebble.core.bench.act_kinds import Unmould
from umber_pebble.core.bench.soft_kinds import ShapeFilm
from umber_pebble.core.errors import OutOfRange
from umber_pebble.core.moulds.cavity import Cavity
from umber_pebble.core.moulds.outline import Bar
from umber_pebble.core.moulds.walled import Walled
from umber_pebble.core.pieces.build import lay
from umber_pebble.core.pieces.melt_ref import MeltRef
from umber_pebble.core.pieces.passes.band import FilmBand
from umber_pebble.core.pieces.passes.curved import Curved
from umber_pebble.core.pieces.passes.fill import Fill
from umber_pebble.core.pieces.passes.printed import Print
from umber_pebble.core.pieces.passes.smear import Smear
from umber_pebble.core.plan.needs import needs_of
from umber_pebble.demo.fill import WREN
from umber_pebble.services import bench
from umber_pebble.services.documents import LooseBase, Mould

COATING = MeltRef("coating", None)
STRIP = Cavity(Walled(Bar(0.21, 0.04, 0.0), 0.003))
FILL = Fill(COATING, 0.0015, (), None)


@pytest.fixture
def studio(tmp_path: Path) -> Studio:
    return Studio(tmp_path)


def test_a_band_reaches_once_round_its_form_and_laps_or_is_refused_with_what_it_needs() -> None:
    # by hand: pi x 61.5 mm and 8 mm for the seam
    assert FilmBand(0.06, 0.008, 4).length_m(0.0015) == pytest.approx(math.pi * 0.0615 + 0.008)
    laid, faults = lay(STRIP, (FILL, FilmBand(0.06, 0.008, 4)))
    assert len(laid) == 2 and not faults
    [short] = lay(STRIP, (FILL, FilmBand(0.065, 0.008, 4)))[1]
    assert short.code == "too_short" and short.limit == pytest.approx(math.pi * 0.0665 + 0.008)
    assert short.got == pytest.approx(0.21)
    [dry] = lay(STRIP, (FilmBand(0.06, 0.008, 4),))[1]
    assert dry.code == "nothing_wet"
    glass = lay(STRIP, (replace(FILL, melt=MeltRef("isomalt", None)), Curved("v", 0.02, "form", 1)))[1]
    assert [of.code for of in glass] == ["no_leather"]


def test_bands_are_wrapped_while_they_bend_as_many_at_once_as_there_are_forms(studio: Studio) -> None:
    studio.order(lines=of("piece-ring", 6))
    plan = studio.plan()
    # one form holds one band until it has set
    assert plan.problem.lines[0].mould.at_once == 4
    assert max(r.casts for r in plan.rounds) == 4
    for task in (t for t in plan.tasks if t.kind == "shape"):
        pour = next(t for t in plan.tasks if t.kind == "pour" and t.round == task.round)
        at = plan.windows[task.round or 0].at
        assert task.start_s - pour.start_s >= at["comb_opens"].likely - 1
        assert task.start_s - pour.end_s <= at["cutter_closes"].likely
    done = [act.what for act in _told(studio)]
    wrapped = [what for what in done if isinstance(what, ShapeFilm)]
    assert sum(what.casts for what in wrapped) == plan.casts[0]
    assert {on.shaped.how for what in wrapped for on in what.items if on.shaped} == {"band"}
    assert all(what.on_form for what in done if isinstance(what, Unmould))
    with_passes(studio, "piece-ring", *part_of(studio, "piece-ring").passes[:1], FilmBand(0.08, 0.008, 4))
    with pytest.raises(OutOfRange, match="does not reach round its form"):
        studio.plan()


def _told(studio: Studio) -> list[bench.ActView]:
    """All that is done, where nothing is told whose time nobody knows, as a round that waits for its forms."""
    done = list[bench.ActView]()
    studio.start("order-table")
    while True:
        acts = bench.view(studio.runs, "led", WREN).acts
        assert all(math.isfinite(act.opens_s) for act in acts)
        done.append(acts[0])
        if not studio.step():
            return done


def test_a_leaf_is_two_arcs_less_its_vein_and_is_laid_over_its_form_with_its_film(studio: Studio) -> None:
    long, wide, vein = 0.06, 0.025, 0.002
    # two parabolas over the same chord, drawn and measured
    xs = [long * (i / 400 - 0.5) for i in range(401)]
    edge = [(x, wide / 2 * (1 - (2 * x / long) ** 2)) for x in xs]
    drawn = shapely.Polygon([*edge, *[(x, -y) for x, y in reversed(edge)]])
    leaf = Smear(COATING, long, wide, 0.0015, 0.0)
    assert leaf.area_m2() == pytest.approx(drawn.area, rel=1e-4)
    assert replace(leaf, gap_m=vein).area_m2() == pytest.approx(drawn.area - vein * long, rel=1e-4)
    table = Cavity(Walled(Bar(0.09, 0.04, 0.0), 0.004))
    laid, faults = lay(table, (leaf,))
    assert not faults and laid[0].finished.value.likely == pytest.approx(drawn.area * 0.0015 * 1245, rel=0.02)
    assert [f.code for f in lay(table, (replace(leaf, length_m=0.12),))[1]] == ["too_wide"]
    assert [f.code for f in lay(table, (replace(leaf, gap_m=0.009),))[1]] == ["too_wide"]
    studio.order(lines=of("piece-plume", 12))
    # a film of twelve, over one of the two forms
    assert studio.plan().problem.lines[0].mould.at_once == 12
    done = [act.what.kind for act in studio.led()]
    assert done.index("pour") < done.index("shape") < done.index("unmould")


def test_what_is_bent_with_its_film_wants_one(studio: Studio) -> None:
    with_passes(studio, "piece-disc", FILL, Curved("curve", 0.08, "form", 1))
    studio.order(lines=of("piece-disc", 4))
    with pytest.raises(OutOfRange, match="pour it on a film"):
        studio.plan()


def test_a_film_lies_on_the_loose_base_once_for_all_cavities_or_on_a_corner_of_each(studio: Studio) -> None:
    stored = studio.workshop.get("mould", "mould-sky")
    assert isinstance(stored.doc, Mould)
    star = part_of(studio, "piece-topper-belt").passes[0]
    film = Print("Star film", False, "transfer", "food", 1, "flat")
    with_passes(studio, "piece-topper-belt", film, star)
    studio.order(lines=of("piece-topper-belt", 6))
    [alone] = needs_of(studio.plan()).films
    based = stored.doc.model_copy(update={"base": LooseBase(length_m=0.275, width_m=0.135)})
    studio.workshop.save("mould", "mould-sky", stored.version, based)
    plan = studio.plan()
    [need] = needs_of(plan).films
    assert (need.film.long_m, need.film.wide_m, need.film.of.laid) == (0.275, 0.135, "base")
    cavities = plan.problem.lines[0].mould.cavities
    assert need.count == sum(math.ceil(r.casts / cavities) for r in plan.rounds) < alone.count
    off = [act.what for act in studio.led() if isinstance(act.what, Unmould)]
    assert off and all(what.films == ("Star film",) for what in off)
    # a texture pressed on a corner: half as long and wide, and 5 mm over
    with_passes(studio, "piece-topper-belt", star, replace(film, on_wet=True, laid="corner", of="texture"))
    [corner] = needs_of(studio.plan()).films
    assert corner.film.long_m == pytest.approx((alone.film.long_m - 0.01) / 2 + 0.005)


def test_a_petal_is_let_out_of_its_spoon_by_a_warm_hand(studio: Studio) -> None:
    stored = studio.workshop.get("mould", "mould-sky")
    assert isinstance(stored.doc, Mould)
    spoons = stored.doc.model_copy(update={"material": "spoon", "bears_degc": 300.0})
    studio.workshop.save("mould", "mould-sky", stored.version, spoons)
    studio.order(lines=of("piece-topper-belt", 2))
    out = [act.what for act in studio.led() if isinstance(act.what, Unmould)]
    assert out and all(what.warmed and not what.on_form for what in out)
