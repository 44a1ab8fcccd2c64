"""A sheet from its cutters to the log: what is poured for it, cut, broken out; and to scale on paper."""

import re
from dataclasses import replace
from pathlib import Path
from xml.etree import ElementTree as xml

import pytest
import shapely
from pypdf import PdfReader

from tests.services.test_divided import Studio
from umber_pebble.core.bench.act_kinds import Pour
from umber_pebble.core.bench.soft_kinds import Comb
from umber_pebble.core.errors import CoreError
from umber_pebble.core.moulds.cutting import CuttingPlan, cut_out, shortest_plan
from umber_pebble.core.pieces.passes.printed import Print
from umber_pebble.core.plan.needs import needs_of
from umber_pebble.core.plan.sheets import cut_to_size
from umber_pebble.demo.fill import WREN
from umber_pebble.services import bench
from umber_pebble.services.documents import Mould, OrderLine
from umber_pebble.services.piece_docs import Piece
from umber_pebble.services.sheets import SheetRequest, cutting_pdf, cutting_svg, sheet_figures

SHEET = "mould-aurora"


@pytest.fixture
def studio(tmp_path: Path) -> Studio:
    return Studio(tmp_path)


def sheet_of(studio: Studio) -> Mould:
    doc = studio.workshop.get("mould", SHEET).doc
    assert isinstance(doc, Mould) and doc.sheet is not None
    return doc


def _lines(**counts: int) -> list[OrderLine]:
    return [OrderLine(piece_id=f"piece-{key}", quantity=n, spares="as_sure") for key, n in counts.items()]


def plain(studio: Studio) -> None:
    """Both pieces of one melt, as it is poured."""
    for key in ("piece-crescent", "piece-spark"):
        stored = studio.workshop.get("piece", key)
        assert isinstance(stored.doc, Piece)
        [part] = stored.doc.parts
        fill = replace(part.passes[0], others=(), stripes_m=None)
        made = stored.doc.model_copy(update={"parts": [part.model_copy(update={"passes": [fill]})]})
        studio.workshop.save("piece", key, stored.version, made)


def test_crescents_and_stars_are_cut_out_of_one_sheet_of_stripes_and_led_to_the_end(studio: Studio) -> None:
    studio.order(lines=_lines(crescent=20, spark=6))
    plan = studio.plan()
    figures = sheet_figures(SheetRequest(mould=sheet_of(studio), wanted=None))
    lines = plan.problem.lines
    assert len(lines) == 6 and all(line.mould.shares for line in lines)
    assert [lines[i].mould.cavities for i in (0, 3)] == figures.counts
    # 2.5 mm of as much of a sheet as they lie on is piped for them, half of it in the first colour
    counts = [plan.casts[2], plan.casts[5]]
    ends = [sorted(max(x for x, _ in of.ring) for of in figures.pieces if of.kind == kind) for kind in (0, 1)]
    margin_m = sheet_of(studio).sheet.margin_m  # type: ignore[union-attr]
    as_whole_m = max(ends[0][counts[0] - 1], ends[1][counts[1] - 1]) + margin_m
    last = sheet_figures(SheetRequest(mould=sheet_of(studio), wanted=counts)).wanted
    assert last is not None and last.count == 1
    # nested anew for as many as are wanted, it is shorter than so many pieces of the whole one, and still a web apart
    long_m = max(x for of in last.pieces for x, _ in of.ring) + margin_m
    assert 0.05 < long_m < 0.9 * as_whole_m and last.last_m == pytest.approx(long_m, abs=1e-5)
    assert [sum(of.kind == kind for of in last.pieces) for kind in (0, 1)] == counts
    cut = [shapely.Polygon(of.ring) for of in last.pieces]
    webs = min(a.distance(b) for i, a in enumerate(cut) for b in cut[:i])
    assert webs == pytest.approx(0.004, abs=5e-5) or webs > 0.004
    density = plan.problem.way(lines[0]).melt.value("density_melt")
    by_hand = long_m * 0.145 * 0.0025 * density
    each = [line.cast.poured.value.likely * counts[line.mould.kind] for line in lines]
    assert sum(each) == pytest.approx(by_hand, rel=1e-3)
    assert each[2] + each[5] == pytest.approx(by_hand / 2, rel=1e-3)
    # a bead of 6 mm runs out to 11.3 mm of 2.5 mm, 13 of them over 145 mm; at 5 cm a second
    piped = [line.piped for line in lines[:3] if line.piped]
    assert [of.count for of in piped] == [4, 3, 6]
    assert piped[0].wide_m == pytest.approx(0.145 / 13)
    takes = sum(line.piped.each_s * counts[line.mould.kind] for line in lines if line.piped)
    assert takes == pytest.approx(13 * long_m / 0.05, rel=0.03)
    done = studio.led()
    kinds = [act.what.kind for act in done]
    pours = [act.what for act in done if act.what.kind == "pour"]
    # each colour once over all of the sheet, dragged once, each cutter and each kind of piece on its own
    assert [pour.casts for pour in pours] == [plan.casts[0] + plan.casts[3]] * 3
    counted = [kinds.count(kind) for kind in ("comb", "cut", "unmould", "move")]
    assert counted == [1, 2, 2, 1]
    last = max(i for i, kind in enumerate(kinds) if kind == "pour")
    # the foam is pulled out from under all of it once it has been drawn through, before it is firm enough to be cut
    assert last < kinds.index("comb") < kinds.index("move") < kinds.index("cut") < kinds.index("unmould")
    assert next(act.what.slid_out for act in done if act.what.kind == "move")
    state = studio.runs.look("led")[2].state
    assert all(len(r.outcomes) == r.casts for r in state.rounds if lines[r.line].last)


def test_a_sheet_of_two_cutters_is_dragged_through_once(studio: Studio) -> None:
    studio.order(lines=_lines(crescent=20, spark=6))
    studio.start("order-table")
    while not all(r.poured_s is not None for r in studio.runs.look("led")[2].state.rounds):
        studio.step()
    drags = [act for act in bench.view(studio.runs, "led", WREN).acts if isinstance(act.what, Comb)]
    assert len(drags) == 1
    studio.do(drags[0])
    state = studio.runs.look("led")[2].state
    assert all("drag" in r.worked for r in state.rounds if studio.plan().problem.lines[r.line].last)


def test_a_film_over_a_sheet_of_two_cutters_is_one_as_large_as_the_sheet(studio: Studio) -> None:
    film = Print("Star film", True, "transfer", "food", 1, "flat")
    for key in ("piece-crescent", "piece-spark"):
        stored = studio.workshop.get("piece", key)
        assert isinstance(stored.doc, Piece)
        [part] = stored.doc.parts
        made = part.model_copy(update={"passes": [*part.passes, film]})
        studio.workshop.save("piece", key, stored.version, stored.doc.model_copy(update={"parts": [made]}))
    studio.order(lines=_lines(crescent=20, spark=6))
    plan = studio.plan()
    [need] = needs_of(plan).films
    assert (need.count, need.film.long_m, need.film.wide_m) == (1, 0.3, 0.145)
    # all of it takes hands once, however many pieces: 12 s
    laid = sum(t.end_s - t.start_s for t in plan.tasks if t.kind == "film")
    lines = plan.problem.lines
    figures = sheet_figures(SheetRequest(mould=sheet_of(studio), wanted=None))
    share = (plan.casts[2] + plan.casts[5]) / sum(figures.counts)
    assert laid == pytest.approx(12 * share, abs=2) and lines[2].mould.shares
    kinds = [act.what.kind for act in studio.led()]
    assert (kinds.count("film"), kinds.count("comb"), kinds.count("cut")) == (1, 1, 2)


def test_each_round_takes_as_much_of_a_sheet_as_its_pieces_lie_on(studio: Studio) -> None:
    plain(studio)
    studio.order(lines=_lines(crescent=20))
    plan = studio.plan().problem
    [line] = plan.lines
    cutting = line.mould.cutting
    assert cutting is not None
    whole, halves = (
        cut_to_size(plan, [rounds]).lines[0].cast.poured.value.likely * 28 for rounds in ([28], [14, 14])
    )
    density = plan.way(line).melt.value("density_melt")
    for kg, counts in ((whole, [28]), (halves, [14, 14])):
        by_hand = sum(_reaches_m(cutting, n) for n in counts) * 0.145 * 0.0025 * density
        assert kg == pytest.approx(by_hand, rel=1e-3)
    assert halves != pytest.approx(whole, rel=1e-3)


def _reaches_m(cutting: CuttingPlan, count: int) -> float:
    """How far so many pieces and the margin reach along a sheet of their own."""
    last = shortest_plan(cutting, (count,))
    assert len(last.cuts) == count or count == len(cutting.cuts)
    return max(cut_out(last.rims[0], cut).bounds[2] for cut in last.cuts) + cutting.sheet.margin_m


def test_what_is_left_out_of_a_sheet_is_not_poured_with_it(studio: Studio) -> None:
    plain(studio)
    studio.order(lines=_lines(crescent=20, spark=6))
    studio.start("order-table")
    sparks = next(r for r in studio.runs.look("led")[2].state.rounds if r.line == 1)
    crescents = next(r for r in studio.runs.look("led")[2].state.rounds if r.line == 0)
    studio.tell("left_out", rounds=[sparks.number])
    studio.tell("burst", cook=0, seconds=30.0, power_frac=1.0)
    studio.wait(60)
    studio.tell("rested", cook=0, degc=38.0)
    pour = next(act for act in bench.view(studio.runs, "led", WREN).acts if isinstance(act.what, Pour))
    assert (pour.what.casts, pour.subject.number) == (crescents.casts, crescents.number)  # type: ignore[union-attr]
    studio.tell("poured", round=crescents.number)
    state = studio.runs.look("led")[2].state
    assert state.rounds[crescents.number].poured_s is not None
    assert state.rounds[sparks.number].poured_s is None


def test_what_takes_another_number_of_sheets_is_cut_out_of_its_own(studio: Studio) -> None:
    plain(studio)
    studio.order(lines=_lines(crescent=20, spark=150))
    crescents, sparks = studio.plan().problem.lines
    assert not crescents.mould.shares and not sparks.mould.shares
    assert sparks.mould.cavities > sheet_figures(SheetRequest(mould=sheet_of(studio), wanted=None)).counts[1]


def test_isomalt_is_not_cut_out_of_sheets(studio: Studio) -> None:
    plain(studio)
    studio.colour("piece-crescent", "#1f2a44")
    stored = studio.workshop.get("piece", "piece-crescent")
    text = stored.doc.model_dump_json().replace('"coating"', '"isomalt"')
    doc = type(stored.doc).model_validate_json(text)
    studio.workshop.save("piece", "piece-crescent", stored.version, doc)
    studio.order(lines=_lines(crescent=4))
    with pytest.raises(CoreError, match="from soft to glass"):
        studio.plan()


def test_a_mould_is_no_sheet_and_a_cutter_fits_its_sheet(studio: Studio) -> None:
    disc = studio.workshop.get("mould", "mould-disc").doc
    assert isinstance(disc, Mould)
    with pytest.raises(CoreError, match="not a sheet"):
        sheet_figures(SheetRequest(mould=disc, wanted=None))
    sheet = sheet_of(studio)
    small = sheet.model_copy(update={"sheet": sheet.sheet.model_copy(update={"width_m": 0.04})})  # type: ignore[union-attr]
    with pytest.raises(CoreError, match="larger than the sheet"):
        sheet_figures(SheetRequest(mould=small, wanted=None))


def _rings(svg: str) -> list[list[tuple[float, float]]]:
    root = xml.fromstring(svg)
    paths = [el.attrib["d"] for el in root.iter() if el.tag.endswith("path")]
    return [[(float(x), float(y)) for x, y in re.findall(r"([-\d.]+) ([-\d.]+)", d)] for d in paths]


def test_it_is_drawn_to_scale_and_mirrored_for_what_is_seen_from_below(studio: Studio) -> None:
    above, below = (cutting_svg(studio.workshop, SHEET, mirrored) for mirrored in (False, True))
    root = xml.fromstring(above)
    assert (root.attrib["width"], root.attrib["height"], root.attrib["viewBox"]) == (
        "300mm",
        "145mm",
        "0 0 300 145",
    )
    figures = sheet_figures(SheetRequest(mould=sheet_of(studio), wanted=None))
    rings = _rings(above)
    assert len(rings) == len(figures.pieces)
    for ring, piece in zip(rings, figures.pieces, strict=True):
        # up is down on paper
        want = [(x * 1000, 145 - y * 1000) for x, y in piece.ring]
        assert ring == [pytest.approx(point, abs=0.01) for point in want]
    mirrored = [[(300 - x, y) for x, y in ring] for ring in rings]
    assert _rings(below) == [[pytest.approx(point, abs=0.002) for point in ring] for ring in mirrored]


def test_on_paper_it_goes_over_as_many_pages_as_it_takes(studio: Studio, tmp_path: Path) -> None:
    file = tmp_path / "cutting.pdf"
    file.write_bytes(cutting_pdf(studio.workshop, SHEET, mirrored=False))
    pages = PdfReader(file).pages
    # 300 by 145 mm lying on A4 upright: 186 by 261 mm of each page, so two pages
    assert len(pages) == 2
    assert "measure this line" in pages[0].extract_text()
