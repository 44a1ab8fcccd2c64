"""Outlines from SVG: sizes that are known, and files that mean harm."""

import math

import pytest
import shapely

from umber_pebble.core.errors import OutOfRange
from umber_pebble.formats.svg import read_outline


def svg(inside: str, size: str = 'width="100mm" height="100mm" viewBox="0 0 100 100"', head: str = "") -> str:
    return f'{head}<svg xmlns="http://www.w3.org/2000/svg" {size}>{inside}</svg>'


def area_mm2(text: str, width_m: float | None = None) -> float:
    return float(shapely.Polygon(read_outline(text, width_m).corners).area * 1e6)


# Sizes and areas by hand from the drawing's own numbers.
@pytest.mark.parametrize(
    ("text", "mm2"),
    [
        (svg('<path d="M10 10H50V30H10Z"/>'), 800.0),
        (svg('<rect x="5" y="5" width="20" height="10"/>'), 200.0),
        (svg('<circle cx="50" cy="50" r="20"/>'), math.pi * 400),
        (svg('<g transform="scale(2)"><polygon points="0,0 10,0 10,10"/></g>'), 200.0),
        ("M0 0 L40 0 L40 25 L0 25 Z", 1000.0),
        ("M0,0 a10,10 0 0 0 20,0 a10,10 0 0 0 -20,0 z", math.pi * 100),
    ],
)
def test_the_outline_is_as_large_as_it_says(text: str, mm2: float) -> None:
    assert area_mm2(text) == pytest.approx(mm2, rel=0.01)


def test_it_is_scaled_turned_upright_and_put_in_the_middle() -> None:
    out = read_outline(svg('<path d="M0 0H40L20 60Z"/>'), 0.08)
    xs, ys = zip(*out.corners, strict=True)
    assert (min(xs), max(xs)) == pytest.approx((-0.04, 0.04))
    assert (min(ys), max(ys)) == pytest.approx((-0.06, 0.06))
    # its point, lowest in the file, is lowest here
    assert min(out.corners, key=lambda p: p[1])[0] == pytest.approx(0.0, abs=1e-6)


@pytest.mark.parametrize(
    ("text", "word"),
    [
        (svg('<path d="M0 0L40 40H0L40 0Z"/>'), "crossed itself"),
        (svg('<path d="M0 0H40V40"/>'), "closed"),
        (svg('<path d="M0 0H40V40H0Z"/><path d="M50 50h5v5h-5z"/>'), "largest"),
    ],
)
def test_what_is_crooked_is_mended_in_words(text: str, word: str) -> None:
    assert any(word in remark for remark in read_outline(text, None).remarks)


LAUGHS = '<!DOCTYPE s [<!ENTITY a "ha"><!ENTITY b "&a;&a;&a;&a;">]>'


@pytest.mark.parametrize(
    ("text", "word"),
    [
        (svg("<path d='M0 0H9V9Z'/>&b;", head=LAUGHS), "entities"),
        (svg("<path d='M0 0H9V9Z'/>", head='<!DOCTYPE svg SYSTEM "file:///etc/passwd">'), "document type"),
        (svg("<script>alert(1)</script><path d='M0 0H9V9Z'/>"), "a script"),
        (svg("<path onload='x()' d='M0 0H9V9Z'/>"), "a link or a script"),
        (svg("<image href='http://x/y.png'/>"), "a picture"),
        (svg("<a href='http://x'><path d='M0 0H9V9Z'/></a>"), "a link"),
        (svg("<use href='#p'/>"), "a reference"),
        (svg("<path fill='url(http://x)' d='M0 0H9V9Z'/>"), "a link or a script"),
        (svg('<rect width="50%" height="10"/>'), "percent"),
        (svg("<path d='M0 0H9V9Z'/>", size='width="100%" height="100%"'), "percent"),
        (svg("<text>hello</text>"), "no closed outline"),
        ("<svg", "not well-formed"),
        ("<html xmlns='http://www.w3.org/1999/xhtml'/>", "not an SVG"),
        ("M0 0 L javascript:alert(1)", "no path"),
        ("M0 0 L 1e300 5 L 5 5 Z", "out of range"),
        ("", "no closed outline"),
        ("x" * 5_000_001, "too large"),
        (svg("<path d='M0 0" + " L1 1 L2 5" * 25_000 + "Z'/>"), "too many points"),
    ],
)
def test_what_could_do_harm_is_refused_in_words(text: str, word: str) -> None:
    with pytest.raises(OutOfRange, match=word):
        read_outline(text, None)


def test_groups_nested_deep_do_no_harm() -> None:
    deep = svg("<g>" * 3000 + "<path d='M0 0H40V40H0Z'/>" + "</g>" * 3000)
    try:
        assert area_mm2(deep) == pytest.approx(1600, rel=0.01)
    except OutOfRange as refused:
        assert "drawing alone" in refused.message


def _star(points: int) -> str:
    """Lines that all cross each other."""
    ends = [(50 + 40 * math.cos(2.4 * i), 50 + 40 * math.sin(2.4 * i)) for i in range(points)]
    return "M" + " L".join(f"{x:.2f},{y:.2f}" for x, y in ends) + " Z"


@pytest.mark.parametrize(
    ("text", "says"),
    [
        (_star(400), "crosses itself"),
        (_star(20_000), "crosses itself"),
        ("M0,0 " + "L1,2 " * 150_000, "too many points"),
        ("<svg xmlns='http://www.w3.org/2000/svg'>" + "<g>" * 500 + "</g>" * 500 + "</svg>", "too deep"),
        ("<svg xmlns='http://www.w3.org/2000/svg'>" + "<g/>" * 9000 + "</svg>", "too many things"),
    ],
    ids=["star", "large star", "numbers", "deep", "many"],
)
def test_what_would_take_for_ever_is_refused_before_it_is_tried(text: str, says: str) -> None:
    with pytest.raises(OutOfRange, match=says):
        read_outline(text, 0.05)


def test_an_outline_that_crosses_itself_a_little_is_mended() -> None:
    assert any("mended" in remark for remark in read_outline(_star(40), 0.05).remarks)
