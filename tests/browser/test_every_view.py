"""Every view: nothing serious that axe finds, light and dark; nothing that scrolls sideways, on any screen."""

from collections.abc import Callable

import pytest
from playwright.sync_api import Browser, Page

from tests.browser.conftest import Server, serious

OpenPage = Callable[..., Page]
VIEWS = [
    "/orders",
    *(f"/orders/order-sky/{view}" for view in ("melts", "windows", "cards", "timetable", "by-hand", "lists")),
    "/pieces",
    "/pieces/piece-disc",
    "/pieces/moulds/mould-disc",
    "/work-out",
    "/work-out/heat",
    "/work-out/melt",
    "/work-out/temper",
    "/work-out/colour",
    "/work-out/by-hand",
    "/log/run-rehearsal",
    "/kitchen",
    "/kitchen/materials/coating",
    "/kitchen/colours",
    "/kitchen/people",
    "/kitchen/devices",
    "/kitchen/words",
]
# the last is the first at twice the size
SIZES = [(1280, 800), (1024, 768), (390, 844), (640, 400)]


@pytest.mark.parametrize("path", VIEWS)
def test_axe_finds_nothing_serious(demo_shared: Server, open_page: OpenPage, path: str) -> None:
    page = open_page(demo_shared.base + path, color_scheme="light", bypass_csp=True)
    whole(page)
    assert serious(page) == []
    page.emulate_media(color_scheme="dark")
    page.wait_for_selector("html[data-theme=dark]")
    assert serious(page) == []


def test_nothing_scrolls_sideways_and_no_view_is_longer_than_three_screens(
    demo_shared: Server, launch: Callable[..., Browser]
) -> None:
    # with scroll bars that take their room, as a mouse has them
    browser = launch("--disable-features=OverlayScrollbar")
    page, wrong = browser.new_page(), list[str]()
    for path in (*VIEWS, *(f"/work-out?ask={question}" for question in ("how_much", "still", "keeps"))):
        page.goto(demo_shared.base + path)
        for width, height in SIZES:
            page.set_viewport_size({"width": width, "height": height})
            whole(page)
            over, long = page.evaluate(
                "() => { const m = document.querySelector('main'); return [m.scrollWidth - m.clientWidth, m.scrollHeight]; }"
            )
            if over > 0:
                wrong.append(f"{path} at {width}: {over} px too wide")
            if path.startswith("/orders") and width == 1280 and long > 3 * height:
                wrong.append(f"{path}: {long} px long")
    for width, height in SIZES:
        page.set_viewport_size({"width": width, "height": height})
        doors = page.get_by_role("navigation", name="Doors").get_by_role("link")
        boxes = [door.bounding_box() for door in doors.all()]
        assert len(boxes) == 6
        assert all(box and box["y"] + box["height"] <= height and box["height"] >= 44 for box in boxes)
    browser.close()
    assert wrong == []


def whole(page: Page) -> None:
    """Nothing of a page is still to come."""
    page.wait_for_selector("h1, h2")
    page.wait_for_load_state("networkidle")
    page.wait_for_function("() => document.querySelectorAll('[aria-busy=true]').length === 0")
