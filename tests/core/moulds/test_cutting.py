"""Cutting plans: nothing overlaps, webs and margins are kept, and they are as full as known packings are."""

import itertools
import math

import pytest
import shapely
from hypothesis import given, settings
from hypothesis import strategies as st

from umber_pebble.core.errors import OutOfRange
from umber_pebble.core.moulds.cutting import CutSheet, CuttingPlan, cut_out, cutting_plan, cutting_plans
from umber_pebble.core.moulds.outline import Bar, Circle, Drawn, Points, heart, star

TRIANGLE = Drawn(((-0.02, -0.0115), (0.02, -0.0115), (0.0, 0.023))).points()
L_SHAPE = Drawn(((0, 0), (0.03, 0), (0.03, 0.01), (0.01, 0.01), (0.01, 0.03), (0, 0.03))).points()


def kept(plan: CuttingPlan, rims: tuple[Points, ...]) -> None:
    """By shapely alone: every piece inside the margin, no two nearer than the web."""
    sheet = plan.sheet
    pieces = [cut_out(rims[cut.kind], cut) for cut in plan.cuts]
    m = sheet.margin_m
    for piece in pieces:
        x0, y0, x1, y1 = piece.bounds
        assert min(x0, y0) >= m - 1e-9 and x1 <= sheet.length_m - m + 1e-9 and y1 <= sheet.width_m - m + 1e-9
    tree = shapely.STRtree(pieces)
    for i, piece in enumerate(pieces):
        near = tree.query(piece.buffer(sheet.web_m * 1.01))
        assert all(piece.distance(pieces[j]) >= sheet.web_m * (1 - 1e-6) for j in near if j != i)
    used = sum(piece.area for piece in pieces) / sheet.area_m2
    assert plan.used_frac == pytest.approx(used, rel=1e-9)
    # what is cut out, each with half of its web round it, is no more than the sheet with half a web round it
    grown = sum(piece.buffer(sheet.web_m / 2).area for piece in pieces)
    assert grown <= (sheet.length_m + sheet.web_m) * (sheet.width_m + sheet.web_m)


@settings(max_examples=25, deadline=None)
@given(
    length=st.floats(0.08, 0.4),
    width=st.floats(0.08, 0.3),
    web=st.floats(0.0005, 0.01),
    margin=st.floats(0.0, 0.012),
    turned=st.booleans(),
    sizes=st.lists(st.floats(0.02, 0.06), min_size=1, max_size=3),
    shapes=st.lists(st.sampled_from(["star", "heart", "disc", "bar"]), min_size=3, max_size=3),
)
def test_no_two_pieces_are_nearer_than_the_web(
    length: float, width: float, web: float, margin: float, turned: bool, sizes: list[float], shapes: list[str]
) -> None:
    of = {
        "star": lambda d: star(d, 5, 0.45).points(),
        "heart": lambda d: heart(d).points(),
        "disc": lambda d: Circle(d).points(),
        "bar": lambda d: Bar(d, d / 2, d / 10).points(),
    }
    rims = tuple(of[shape](size) for shape, size in zip(shapes, sizes, strict=False))
    sheet = CutSheet(length, width, web, margin, turned)
    plan = cutting_plan(sheet, rims, (200,) * len(rims))
    kept(plan, rims)
    assert plan.count(0) > 0
    assert turned or all(cut.turn_rad in (0.0, math.pi) for cut in plan.cuts)


@pytest.mark.parametrize(
    ("side_m", "web_m", "count"),
    [pytest.param(0.0195, 0.0005, 25, id="5 x 5"), pytest.param(0.031, 0.003, 9, id="3 x 3")],
)
def test_squares_fill_a_square_row_by_row(side_m: float, web_m: float, count: int) -> None:
    rim = Bar(side_m, side_m, 0.0).points()
    assert len(cutting_plan(CutSheet(0.1, 0.1, web_m, 0.0), (rim,), (500,)).cuts) == count


def test_discs_lie_as_close_as_in_rows_that_are_set_off() -> None:
    # 20 mm discs, 2 mm apart, in a strip for 4 rows set off by half: rows are 22 sqrt(3)/2 mm apart (Thue 1910)
    pitch, rows, a_row = 0.022, 4, 11
    width = 0.02 + (rows - 1) * pitch * math.sqrt(3) / 2 + 0.002
    length = 1.01 * (0.02 + (a_row - 1) * pitch + pitch / 2)
    plan = cutting_plan(CutSheet(length, width, 0.002, 0.0), (Circle(0.02).points(),), (500,))
    assert len(plan.cuts) >= rows * a_row
    side_by_side = math.floor((width + 0.002) / pitch) * math.floor((length + 0.002) / pitch)
    assert len(plan.cuts) > side_by_side


@pytest.mark.parametrize("rim", [TRIANGLE, L_SHAPE], ids=["triangles", "angles"])
def test_what_is_turned_fits_closer(rim: Points) -> None:
    sheet = CutSheet(0.2, 0.15, 0.002, 0.004)
    both = cutting_plan(sheet, (rim,), (500,))
    kept(both, (rim,))
    assert len({cut.turn_rad for cut in both.cuts}) > 1
    shape = shapely.Polygon(rim)
    x0, y0, x1, y1 = shape.bounds
    boxes = math.floor((0.192 + 0.002) / (x1 - x0 + 0.002)) * math.floor((0.142 + 0.002) / (y1 - y0 + 0.002))
    assert len(both.cuts) > boxes


def test_small_pieces_go_between_large_ones_and_no_more_than_asked() -> None:
    sheet, rims = CutSheet(0.3, 0.2, 0.004, 0.006), (heart(0.06).points(), Circle(0.012).points())
    alone = cutting_plan(sheet, rims[:1], (500,))
    plan = cutting_plan(sheet, rims, (500, 7))
    kept(plan, rims)
    assert plan.count(0) >= len(alone.cuts) - 1
    assert plan.count(1) == 7


def test_plans_get_fuller_until_they_are_stopped() -> None:
    sheet, rim = CutSheet(0.3, 0.2, 0.003, 0.004), heart(0.04).points()
    shares = [plan.used_frac for plan in cutting_plans(sheet, (rim,), (500,))]
    assert len(shares) > 1 and shares == sorted(shares)
    asked = itertools.count()
    assert len(list(cutting_plans(sheet, (rim,), (500,), lambda: next(asked) < 0))) == 1


def test_a_cutter_larger_than_its_sheet_is_refused_in_words() -> None:
    with pytest.raises(OutOfRange, match="larger than the sheet"):
        cutting_plan(CutSheet(0.06, 0.05, 0.003, 0.006), (star(0.06, 5, 0.5).points(),), (1,))
    with pytest.raises(OutOfRange, match="web_m"):
        CutSheet(0.1, 0.1, 0.0, 0.0)
