"""Lines piped over a drawing, from what falls apart to what is lifted off: in an order's plan, at the bench, and to scale on paper."""

import math
import re
from pathlib import Path
from xml.etree import ElementTree as xml

import pytest
from pypdf import PdfReader

from tests.services.test_divided import Studio
from umber_pebble.core.bench.act_kinds import Pour, Unmould
from umber_pebble.core.errors import CoreError
from umber_pebble.core.materials.load import material
from umber_pebble.core.pieces.melt_ref import MeltRef
from umber_pebble.core.pieces.passes.dust import Dust
from umber_pebble.core.pieces.passes.fill import Fill
from umber_pebble.core.pieces.passes.lines import Lines
from umber_pebble.core.plan.checks import remarks_of
from umber_pebble.core.plan.remarks import BagStiffens, BreaksEasily, FallsApart
from umber_pebble.services.documents import Mould, OrderLine
from umber_pebble.services.filigree import (
    FiligreeRequest,
    drawing_pdf,
    drawing_svg,
    filigree_figures,
    filigree_mends,
)
from umber_pebble.services.piece_docs import Piece
from umber_pebble.services.shape_docs import DrawnLine, LinesShape

BOARD = "mould-constellation"


@pytest.fixture
def studio(tmp_path: Path) -> Studio:
    made = Studio(tmp_path)
    made.order(lines=[OrderLine(piece_id="piece-constellation", quantity=6, spares="as_sure")])
    return made


def drawing(studio: Studio) -> LinesShape:
    doc = studio.workshop.get("mould", BOARD).doc
    assert isinstance(doc, Mould)
    shape = doc.cavities[0].shape
    assert isinstance(shape, LinesShape)
    return shape


def redraw(studio: Studio, lines: list[DrawnLine], **board: object) -> None:
    stored = studio.workshop.get("mould", BOARD)
    assert isinstance(stored.doc, Mould)
    [cavity] = stored.doc.cavities
    shape = drawing(studio).model_copy(update={"lines": lines})
    made = stored.doc.model_copy(update={"cavities": [cavity.model_copy(update={"shape": shape})], **board})
    studio.workshop.save("mould", BOARD, stored.version, made)


def build(studio: Studio, *passes: object) -> None:
    stored = studio.workshop.get("piece", "piece-constellation")
    assert isinstance(stored.doc, Piece)
    [part] = stored.doc.parts
    made = stored.doc.model_copy(update={"parts": [part.model_copy(update={"passes": list(passes)})]})
    studio.workshop.save("piece", "piece-constellation", stored.version, made)


def kinds(studio: Studio) -> list[type]:
    return [type(of) for of in remarks_of(studio.plan())]


def test_a_constellation_is_piped_and_lifted_off(studio: Studio) -> None:
    plan = studio.plan()
    [line] = plan.problem.lines
    shape = drawing(studio)
    long_m = sum(math.dist(a, b) for one in shape.lines for a, b in zip(one.points, one.points[1:], strict=False))
    # as much as comes out of an opening of 2.5 mm over that length
    kg = long_m * math.pi * 0.0025**2 / 4 * material("melts", "dark").value("density_melt")
    assert line.cast.finished.value.likely == pytest.approx(kg) and line.kind == "lines"
    assert line.piped is not None and line.piped.long_m == pytest.approx(long_m)
    # at 5 cm a second, and 1.5 s for each line that is begun
    assert line.piped.each_s == pytest.approx(long_m / 0.05 + 18 * 1.5)
    assert (line.leaves, line.mould.cavities, line.mould.owned) == ("peel", 6, 2)
    assert not {FallsApart, BreaksEasily, BagStiffens} & {*kinds(studio)}
    done = [of.what for of in studio.led()]
    pours = [of for of in done if isinstance(of, Pour)]
    assert {of.laid for of in pours} == {"lines"} and all(of.piped == line.piped for of in pours)
    assert [of.leaves for of in done if isinstance(of, Unmould)] == ["peel"] * len(pours)


def test_a_drawing_that_falls_apart_is_told_before_it_is_piped_and_more_spares_are_cast_of_what_breaks(
    studio: Studio,
) -> None:
    sure = sum(studio.plan().casts)
    lines = drawing(studio).lines
    # without its hoop and what holds it there, and one link short
    redraw(studio, [*lines[1:9], *lines[10:12]])
    figures = filigree_figures(studio.workshop, FiligreeRequest(shape=drawing(studio), material="dark", count=6))
    assert len(figures.parts) == 2 and not figures.holds
    assert FallsApart in kinds(studio)
    # in one, but of a chain of beads as thin as that most break
    redraw(studio, lines[1:12])
    assert BreaksEasily in kinds(studio) and sum(studio.plan().casts) > 1.5 * sure
    # a way to mend it is taken as it is proposed
    for _ in range(4):
        mends = filigree_mends(studio.workshop, FiligreeRequest(shape=drawing(studio), material="dark", count=6))
        if not mends:
            break
        redraw(studio, mends[0].lines)
    assert not {FallsApart, BreaksEasily} & {*kinds(studio)} and sum(studio.plan().casts) <= sure + 1


def test_lines_that_are_marked_are_piped_once_more_when_the_first_have_set(studio: Studio) -> None:
    lines = drawing(studio).lines
    redraw(studio, [one.model_copy(update={"twice": i == 0}) for i, one in enumerate(lines)])
    plan = studio.plan()
    first, again = plan.problem.lines
    hoop_m, all_m = 2 * math.pi * 0.036, first.piped.long_m if first.piped else 0.0
    assert again.piped is not None and again.piped.count == 1
    assert again.piped.long_m == pytest.approx(hoop_m, rel=2e-3)
    assert again.cast.finished.value.likely / first.cast.finished.value.likely == pytest.approx(
        hoop_m / all_m, rel=2e-3
    )
    assert (again.after, first.last, again.last) == (0, False, True)
    done = [of.what for of in studio.led()]
    assert [of.line for of in done if isinstance(of, Pour)][:2] == [0, 1]


def test_a_bag_of_sugar_does_not_last_for_a_board(studio: Studio) -> None:
    redraw(studio, drawing(studio).lines, material="paper", bears_degc=220.0, wall_m=0.0002)
    build(studio, Lines(MeltRef("isomalt", None)))
    remark = next(of for of in remarks_of(studio.plan()) if isinstance(of, BagStiffens))
    assert remark.bags == math.ceil(remark.takes_s / remark.flows_s) > 1
    asked = FiligreeRequest(shape=drawing(studio), material="isomalt", count=6)
    bag = filigree_figures(studio.workshop, asked).bag
    assert bag.flows is not None and bag.bags == math.ceil(bag.board_s / bag.flows.likely) > 1


def test_over_a_drawing_lines_are_piped_and_in_a_mould_they_are_not(studio: Studio) -> None:
    dark = MeltRef("dark", None)
    for passes, code in (
        ((Fill(dark, 0.001, (), None),), "wants_walls"),
        ((Lines(dark), Lines(dark)), "not_empty"),
    ):
        build(studio, *passes)
        with pytest.raises(CoreError) as refused:
            studio.plan()
        assert refused.value.params["build"] == code
    build(studio, Lines(dark), Dust("Salt", 0.0002, True, "food"))
    [line] = studio.plan().problem.lines
    assert [of.kind for of in line.works] == ["sprinkle"]
    stored = studio.workshop.get("piece", "piece-disc")
    assert isinstance(stored.doc, Piece)
    [part] = stored.doc.parts
    made = stored.doc.model_copy(update={"parts": [part.model_copy(update={"passes": [Lines(dark)]})]})
    studio.workshop.save("piece", "piece-disc", stored.version, made)
    studio.order(lines=[OrderLine(piece_id="piece-disc", quantity=2, spares="as_sure")])
    with pytest.raises(CoreError) as refused:
        studio.plan()
    assert refused.value.params["build"] == "wants_lines"


def test_what_cannot_be_a_drawing_is_not_saved(studio: Studio) -> None:
    stored = studio.workshop.get("mould", BOARD)
    assert isinstance(stored.doc, Mould)
    [cavity] = stored.doc.cavities
    sheet = studio.workshop.get("mould", "mould-aurora").doc
    assert isinstance(sheet, Mould)
    dot = drawing(studio).model_copy(update={"lines": [DrawnLine(points=[[0, 0], [0, 0.0001]], twice=False)]})
    for changes, wrong in (
        ({"cavities": [cavity.model_copy(update={"water_kg": 0.01})]}, "holds no water"),
        ({"sheet": sheet.sheet}, "piped, not cut"),
        ({"cavities": [cavity.model_copy(update={"shape": dot})]}, "no longer than its opening"),
    ):
        with pytest.raises(CoreError, match=wrong):
            studio.workshop.save("mould", BOARD, stored.version, stored.doc.model_copy(update=changes))


def test_a_drawing_lies_under_its_film_to_scale(studio: Studio, tmp_path: Path) -> None:
    of = xml.fromstring(drawing_svg(studio.workshop, BOARD, False))
    ns = "{http://www.w3.org/2000/svg}"
    paths = [node.attrib for node in of.iter(f"{ns}path")]
    numbers = [float(n) for node in paths for n in re.findall(r"-?\d+\.\d+", node["d"])]
    # 72 mm of hoop about its middle, in a page that leaves its bead and a margin round it; each line broad and fine
    assert max(numbers[::2]) - min(numbers[::2]) == pytest.approx(72, abs=0.01)
    assert float(of.attrib["width"].removesuffix("mm")) == pytest.approx(72 + 3.54 + 10, abs=0.02)
    assert len(paths) == 2 * 18 and {node["stroke-width"] for node in paths} == {"0.25", f"{2.5 * math.sqrt(2):g}"}
    mirrored = xml.fromstring(drawing_svg(studio.workshop, BOARD, True))
    first, other = (next(page.iter(f"{ns}path")).attrib["d"] for page in (of, mirrored))
    x, y, *_ = map(float, re.findall(r"\d+\.\d+", first))
    mx, my, *_ = map(float, re.findall(r"\d+\.\d+", other))
    assert (mx, my) == pytest.approx((float(of.attrib["width"].removesuffix("mm")) - x, y), abs=0.01)
    # 340 mm wide it is laid over pages
    wide = drawing(studio).model_copy(
        update={"lines": [DrawnLine(points=[[-0.17, -0.1], [0.17, 0.1]], twice=True)]}
    )
    redraw(studio, wide.lines)
    (tmp_path / "wide.pdf").write_bytes(drawing_pdf(studio.workshop, BOARD, False))
    assert len(PdfReader(tmp_path / "wide.pdf").pages) == 2
    with pytest.raises(CoreError, match="nothing here is a drawing"):
        drawing_svg(studio.workshop, "mould-disc", False)
