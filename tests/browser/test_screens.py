"""Screens: units at once everywhere, refusals in words, conflicts, dragging, access, size at two metres."""

import re
from collections.abc import Callable
from datetime import datetime, timedelta

import pytest
from playwright.sync_api import Page, expect

from tests.browser.conftest import Server, act, serious, space

OpenPage = Callable[..., Page]


def level_m(demo: Server, piece: str) -> float:
    """To which level the first pass of a piece is filled, as it is stored."""
    return float(demo.call("GET", f"/api/pieces/{piece}")["doc"]["parts"][0]["passes"][0]["level_m"])


def due_of(demo: Server, order: str) -> datetime:
    """When an order has to be ready, as it is stored."""
    return datetime.fromisoformat(demo.call("GET", f"/api/orders/{order}")["doc"]["due_at"])


def test_units_switch_everywhere_at_once(demo: Server, open_page: OpenPage) -> None:
    kitchen, piece = open_page(demo.base + "/kitchen"), open_page(demo.base + "/pieces/piece-disc")
    expect(piece.get_by_role("textbox", name="Fill level")).to_have_value("4")
    kitchen.get_by_role("radio", name="in", exact=True).click()
    kitchen.get_by_role("radio", name="oz", exact=True).click()
    kitchen.get_by_role("radio", name="°F", exact=True).click()
    expect(kitchen.get_by_label("Room", exact=True)).to_have_value("70.7")
    expect(piece.get_by_role("textbox", name="Fill level")).to_have_value("0.16")
    expect(piece.get_by_role("button", name=re.compile(r"^finished: 0\.38.oz"))).to_be_visible()
    piece.get_by_role("textbox", name="Fill level").fill("0.1")
    expect(piece.get_by_role("status")).to_have_text("saved")
    stored = level_m(demo, "piece-disc")
    assert stored == pytest.approx(0.00254)


def test_impossible_input_says_what_the_limit_and_keeps_the_old(demo: Server, open_page: OpenPage) -> None:
    page = open_page(demo.base + "/pieces/moulds/mould-disc")
    diameter = page.get_by_label("Opening, diameter")
    for typed, words in (
        ("0", "0.0.mm cannot be. It must be at least 3.0.mm"),
        ("-5", "It must be at least"),
        ("1e9", "It must be at most"),
        ("NaN", '"NaN" is not a number'),
    ):
        diameter.fill(typed)
        expect(page.get_by_text(re.compile(words)).first).to_be_visible()
    page.reload()
    expect(diameter).to_have_value("1000000000")
    page.get_by_role("button", name="Back to what is saved").click()
    expect(diameter).to_have_value("50")
    page.goto(demo.base + "/pieces/piece-disc")
    page.get_by_role("textbox", name="Fill level").fill("9")
    expect(page.get_by_text(re.compile("the fill stands above the rim .limit: 6.0.mm"))).to_be_visible()
    # it is kept as typed, and a plan says why it cannot be made
    expect(page.get_by_role("status")).to_have_text("saved")
    assert level_m(demo, "piece-disc") == 0.009
    page.goto(demo.base + "/orders/order-first-light")
    expect(page.get_by_text("above the rim", exact=False).first).to_be_visible()
    # a time that is none stays to be mended, says how one is typed, and is not taken
    due = due_of(demo, "order-first-light")
    time = page.get_by_label("Time", exact=True)
    time.fill("25:00")
    time.blur()
    expect(page.get_by_text("as 16:30")).to_be_visible()
    expect(time).to_have_value("25:00")
    time.fill("20:30")
    time.blur()
    expect(page.get_by_text("as 16:30")).to_be_hidden()
    expect(page.get_by_role("status")).to_have_text("saved")
    assert due_of(demo, "order-first-light") == due + timedelta(minutes=30)


def test_a_stale_save_offers_both(demo: Server, open_page: OpenPage) -> None:
    page = open_page(demo.base + "/pieces/piece-lens")
    expect(page.get_by_role("textbox", name="Fill level")).to_have_value("3")
    page.route("**/api/stream", lambda route: route.abort())
    page.route("**/api/pieces", lambda route: route.abort())
    stored = demo.call("GET", "/api/pieces/piece-lens")
    theirs = stored["doc"]
    theirs["parts"][0]["passes"][0]["level_m"] = 0.002
    demo.call("PUT", "/api/pieces/piece-lens", {"version": stored["version"], "doc": theirs})
    page.get_by_role("textbox", name="Fill level").fill("4")
    expect(page.get_by_text("changed elsewhere", exact=False)).to_be_visible()
    assert level_m(demo, "piece-lens") == 0.002
    page.get_by_role("button", name="Keep mine").click()
    expect(page.get_by_role("status")).to_have_text("saved")
    assert level_m(demo, "piece-lens") == pytest.approx(0.004)


def test_dragging_the_fill_line_moves_millilitres_and_grams(demo: Server, open_page: OpenPage) -> None:
    page = open_page(demo.base + "/pieces/piece-disc")
    handle = page.get_by_role("slider", name="Fill level", exact=True)
    expect(page.get_by_label("Weight, finished")).not_to_have_value("")
    before = float(page.get_by_label("Weight, finished").input_value())
    box = handle.bounding_box()
    assert box
    x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
    page.mouse.move(x, y)
    page.mouse.down()
    page.mouse.move(x, y + 12, steps=4)
    page.mouse.up()
    expect(page.get_by_label("Weight, finished")).not_to_have_value(str(before))
    expect(page.get_by_role("status")).to_have_text("saved")
    after = float(page.get_by_label("Weight, finished").input_value())
    assert after < before - 1
    assert float(page.get_by_role("textbox", name="Volume").input_value()) == pytest.approx(after / 1.43, rel=0.01)
    handle.focus()
    page.keyboard.press("ArrowUp")
    expect(page.get_by_label("Weight, finished")).not_to_have_value(str(after))


def test_the_bench_is_accessible_and_large_enough_for_two_metres(demo: Server, open_page: OpenPage) -> None:
    demo.call("POST", "/api/runs", {"id": "seen", "order_id": "order-first-light", "actor": "Wren", "device": "t"})
    page = open_page(demo.base + "/bench", 1024, 768, bypass_csp=True)
    act(page, "Hot sugar")
    assert serious(page) == []
    space(page)
    act(page, "Weigh")
    space(page)
    act(page, "Take it off")
    assert serious(page) == []
    # letters of 12 px are read at half a metre: four times that at two metres for what must be read there
    size = "e => parseFloat(getComputedStyle(e).fontSize)"
    assert page.get_by_test_id("act").evaluate(size) >= 48
    assert (
        page.locator("section[aria-label=Next] .text-5xl, section[aria-label=Next] .text-7xl").first.evaluate(size)
        >= 48
    )
    for button in page.locator("section[aria-label=Next] button").all():
        box = button.bounding_box()
        assert box
        assert box["height"] >= 64
    assert contrast(page) >= 7


def contrast(page: Page) -> float:
    """The lowest contrast among the bench's own tones as text on their grounds."""
    return float(
        page.evaluate("""() => {
          const style = getComputedStyle(document.querySelector(".bench"));
          const lum = (hex) => {
            const c = [1, 3, 5].map((i) => parseInt(hex.slice(i, i + 2), 16) / 255)
              .map((v) => (v <= 0.03928 ? v / 12.92 : ((v + 0.055) / 1.055) ** 2.4));
            return 0.2126 * c[0] + 0.7152 * c[1] + 0.0722 * c[2];
          };
          const tone = (name) => lum(style.getPropertyValue(name).trim());
          const ratio = (a, b) => (Math.max(a, b) + 0.05) / (Math.min(a, b) + 0.05);
          return Math.min(...["--ink", "--quiet", "--glass", "--heat"]
            .flatMap((t) => ["--ground", "--panel"].map((g) => ratio(tone(t), tone(g)))), ratio(tone("--on-glass"), tone("--glass")));
        }""")
    )
