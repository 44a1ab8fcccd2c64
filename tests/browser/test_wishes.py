"""What is wished of a timetable, with the mouse and by keys; and a run that goes on in another order, without somebody."""

import re
from collections.abc import Callable

from playwright.sync_api import Page, expect

from tests.browser.conftest import Server, at_a_hands_pace, change_the_order, see, until
from tests.services.test_led import SOL
from umber_pebble.demo.fill import WREN

OpenPage = Callable[..., Page]
SETTLED_MS = 60_000


def planned(page: Page) -> None:
    """Wait until what was wished is in the timetable."""
    until(page, lambda: page.locator("[aria-busy=true], .opacity-50").count() == 0, "it is planned")


def test_a_pour_is_held_dragged_and_let_go(demo: Server, open_page: OpenPage) -> None:
    page = open_page(demo.base + "/orders/order-pops")
    see(page, "Timetable")
    planned(page)
    page.get_by_role("button", name="What the hands do").click()
    tasks = page.get_by_role("list", name="Tasks of the hands")
    unmould = tasks.get_by_role("button", name=re.compile("^turn out")).last
    unmould.click()
    chosen = page.get_by_role("region", name="Chosen")
    was = chosen.get_by_label("Time").input_value()
    hour, minute = (int(part) for part in was.split(":"))
    later = f"{(hour + (minute + 20) // 60) % 24:02}:{(minute + 20) % 60:02}"
    chosen.get_by_label("Time").fill(later)
    chosen.get_by_role("button", name=f"Hold it at {later}").click()
    asked = page.get_by_role("list", name="Asked for")
    expect(asked).to_contain_text(re.compile(f"turn out.* at {later}"), timeout=SETTLED_MS)
    planned(page)
    expect(page.get_by_role("region", name="Wishes")).to_contain_text(re.compile("What you asked for costs"))

    def kept() -> list[tuple[str, str, str]]:
        wishes = demo.call("GET", "/api/orders/order-pops")["doc"]["wishes"]
        return [(wish["wish"], wish["of"]["what"], wish["of"]["piece_id"]) for wish in wishes]

    until(page, lambda: kept() == [("begins_at", "unmould", "piece-pop")], "it is stored")
    # dragged, it is held at another time
    bar = page.locator("svg g[style*=grab]").last
    bar.scroll_into_view_if_needed()
    box = bar.bounding_box()
    assert box is not None
    page.mouse.move(box["x"] + box["width"] / 2, box["y"] + box["height"] / 2)
    page.mouse.down()
    page.mouse.move(box["x"] + box["width"] / 2 - 60, box["y"] + box["height"] / 2, steps=4)
    page.mouse.up()
    expect(asked.get_by_role("listitem")).to_have_count(2)
    planned(page)
    for left in (1, 0):
        asked.get_by_role("button", name=re.compile("^Lift")).first.click()
        expect(asked.get_by_role("listitem")).to_have_count(left)
    until(page, lambda: kept() == [], "all are lifted")


def test_wishes_that_clash_are_named_and_lifted(demo: Server, open_page: OpenPage) -> None:
    page = open_page(demo.base + "/orders/order-pops")
    change_the_order(page)
    for who in (WREN, SOL):
        page.get_by_label(who).check()
    see(page, "Timetable")
    planned(page)
    page.get_by_role("button", name="Ask for more").click()
    time = page.get_by_label("Time", exact=True).last
    begins = time.input_value()
    # what is no time is said, stays to be mended, and asks for nothing
    time.fill("25:99")
    time.blur()
    expect(page.get_by_text("as 16:30")).to_be_visible()
    expect(page.get_by_role("button", name="Ask for it")).to_be_disabled()
    # ready before it has begun, by one who is not there
    page.get_by_role("button", name=re.compile("^How:")).click()
    page.get_by_role("option", name="ready by").click()
    time.fill(begins)
    page.get_by_role("button", name="Ask for it").click()
    # asked for before the first is planned: both hold
    page.get_by_role("button", name=re.compile("^What, or who")).click()
    page.get_by_role("option", name=SOL).click()
    page.get_by_role("button", name="Ask for it").click()
    asked = page.get_by_role("list", name="Asked for")
    expect(asked.get_by_role("listitem")).to_have_count(2)
    planned(page)
    expect(asked).to_contain_text(f"{SOL} there from")
    # on the day it is due there is room before: it is begun sooner, and that is what it costs
    expect(page.get_by_role("region", name="Wishes")).to_contain_text(re.compile("begun .* sooner"))
    # not before a time after that: now two of them clash
    page.get_by_role("button", name=re.compile("^What, or who")).click()
    page.get_by_role("option", name="Night-sky pop").click()
    page.get_by_role("button", name=re.compile("^How:")).click()
    page.get_by_role("option", name="not before").click()
    page.get_by_role("button", name="Ask for it").click()
    said = page.get_by_role("alert").filter(has_text="cannot both be kept")
    expect(said).to_contain_text("ready by", timeout=SETTLED_MS)
    expect(said).to_contain_text("not before")
    expect(said).not_to_contain_text("there from")
    asked.get_by_role("button", name=re.compile("^Lift: .*ready by")).click()
    expect(said).to_have_count(0, timeout=SETTLED_MS)


def test_a_run_goes_on_in_another_order_and_without_somebody(demo: Server, open_page: OpenPage) -> None:
    stored = demo.call("GET", "/api/orders/order-table")
    doc = stored["doc"] | {"people": [WREN, SOL]}
    demo.call("PUT", "/api/orders/order-table", {"version": stored["version"], "doc": doc})
    page = open_page(demo.base + "/orders/order-table")
    page.get_by_role("button", name="Start at the bench").click()
    page.wait_for_url("**/bench")
    page.get_by_test_id("act").wait_for()
    at_a_hands_pace(page)
    page.keyboard.press("Space")
    page.keyboard.press("g")
    ways = page.get_by_role("list", name="Ways to go on")
    expect(ways).to_contain_text("As it is going", timeout=SETTLED_MS)
    # one of what is only spare is cast all the same
    spares = ways.get_by_role("checkbox")
    few = spares.count()
    spares.first.uncheck()
    page.get_by_role("button", name="Leave them out").click()
    run = demo.call("GET", f"/api/bench?actor={WREN}")["view"]["run_id"]

    def told() -> list[str]:
        return [event["kind"] for event in demo.call("GET", f"/api/runs/{run}/events")["items"]]

    until(page, lambda: "left_out" in told(), "they are left out")
    assert "rearranged" not in told()
    page.keyboard.press("g")
    expect(spares).to_have_count(1, timeout=SETTLED_MS)
    assert few > 1
    page.get_by_role("button", name="Leave them out").click()
    until(page, lambda: "rearranged" in told(), "it goes by the order without them")
    page.keyboard.press("g")
    page.get_by_role("dialog").get_by_label(SOL).click()
    until(page, lambda: demo.call("GET", f"/api/bench?actor={WREN}")["view"]["gone"] == [SOL], "she has left")
    page.get_by_role("button", name="Close").click()
    expect(page.get_by_role("region", name="Then").get_by_text(f"{SOL}:")).to_have_count(0)
