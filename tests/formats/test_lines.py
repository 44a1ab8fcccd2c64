"""The lines of drawings from SVG: how long they are, whether their size is known, and files that mean harm."""

import math

import pytest
import shapely

from tests.formats.test_svg import LAUGHS, svg
from umber_pebble.core.errors import OutOfRange
from umber_pebble.formats.svg_lines import ReadLines, read_lines


def lengths_mm(read: ReadLines) -> list[float]:
    return sorted(shapely.LineString(line).length * 1000 for line in read.lines)


def test_lines_are_as_long_as_the_file_says() -> None:
    """By hand from the drawing's own numbers."""
    drawing = svg(
        '<path d="M10 10H50"/><circle cx="30" cy="30" r="10"/><path d="M10 50L40 90M0 0V20" fill="none"/>'
        '<polyline points="0,0 3,4 6,8"/>'
    )
    read = read_lines(drawing, None)
    assert read.told and not read.remarks
    assert lengths_mm(read) == pytest.approx([10, 20, 40, 50, 20 * math.pi], rel=2e-3)
    # all of it 50 mm wide, and 90 mm high: about its middle, upwards
    xs, ys = zip(*(point for line in read.lines for point in line), strict=True)
    assert (min(xs), max(xs), min(ys), max(ys)) == pytest.approx((-0.025, 0.025, -0.045, 0.045), abs=1e-6)
    assert read_lines(drawing, 0.1).wide_m == pytest.approx(0.1)
    assert lengths_mm(read_lines(drawing, 0.1)) == pytest.approx([20, 40, 80, 100, 40 * math.pi], rel=2e-3)


@pytest.mark.parametrize(
    ("size", "told"),
    [
        ('width="100mm" height="100mm" viewBox="0 0 10 10"', True),
        ('width="4in" height="4in" viewBox="0 0 10 10"', True),
        ('width="400" height="400" viewBox="0 0 10 10"', False),
        ('width="400px" height="400px"', False),
        ('viewBox="0 0 10 10"', False),
    ],
)
def test_it_is_asked_how_large_it_is_where_the_file_does_not_say(size: str, told: bool) -> None:
    drawing = svg('<path d="M0 0L5 5"/>', size)
    assert read_lines(drawing, None).told is told
    assert read_lines(drawing, 0.05).told and read_lines(drawing, 0.05).wide_m == pytest.approx(0.05)


def test_what_goes_straight_up_is_as_wide_as_it_is_high() -> None:
    read = read_lines(svg('<path d="M5 0V40"/>', 'viewBox="0 0 50 50"'), 0.06)
    assert (read.wide_m, lengths_mm(read)) == (pytest.approx(0.06), pytest.approx([60]))


def test_what_is_no_line_is_left_out_in_words() -> None:
    read = read_lines(svg('<path d="M0 0H40"/><path d="M0 0H40"/><path d="M5 5L5 5"/><path d="M7 7h0.1"/>'), None)
    assert lengths_mm(read) == pytest.approx([40]) and "3 dots" in read.remarks[0]


@pytest.mark.parametrize(
    ("text", "word"),
    [
        (svg("<script>1</script><path d='M0 0H4'/>"), "script"),
        (svg("<path d='M0 0H4' onclick='x()'/>"), "script"),
        (svg("<path d='M0 0H4'/>", head=LAUGHS), "entities"),
        (svg("<path d='M0 0H4'/>", 'width="50%" height="10mm"'), "percent"),
        (svg("<a href='x'><path d='M0 0H4'/></a>"), "link"),
        (svg("<path d='M" + " ".join(f"{i % 90} {i % 70}" for i in range(120_000)) + "'/>"), "too many points"),
        (svg("<path d='M5 5L5 5'/>"), "no line"),
        (svg("".join(f"<path d='M{i} 0V50'/>" for i in range(1200))), "1,000 lines"),
        ("M0 0 L", "cannot be read"),
        ("<html/>", "not an SVG"),
    ],
)
def test_what_means_harm_or_is_too_much_is_refused(text: str, word: str) -> None:
    with pytest.raises(OutOfRange, match=word):
        read_lines(text, None)
