"""The whole path in a real browser: order, weights, cook, pour, unmould, outcome, and the next plan knows more."""

import re
from collections.abc import Callable

from playwright.sync_api import Page, expect

from tests.browser.conftest import Server, act, at_a_hands_pace, newest_run, seen_by, space

OpenPage = Callable[..., Page]


def test_from_an_empty_workshop_to_a_plan(empty: Server, open_page: OpenPage) -> None:
    page = open_page(empty.base)
    steps = page.get_by_role("navigation", name="To the first plan")
    expect(steps).to_contain_text("Four steps to the first plan")
    steps.get_by_role("link", name="Kitchen").click()
    page.get_by_label("Room", exact=True).fill("23.5")
    expect(page.get_by_role("status")).to_have_text("saved")
    expect(steps).to_contain_text("✓ Kitchen")
    steps.get_by_role("link", name="Mould").click()
    expect(steps.get_by_role("listitem").nth(1)).to_contain_text("(here)")
    page.get_by_role("button", name="Add a mould").click()
    page.get_by_label("Opening, diameter").fill("50")
    page.get_by_role("textbox", name="Cavities").fill("14")
    expect(page.get_by_role("button", name=re.compile("^Volume: 11"))).to_be_visible()
    page.get_by_label("Water it holds, one cavity").fill("15")
    expect(page.get_by_text("Sizes and water disagree")).to_be_visible()
    page.get_by_label("Water it holds, one cavity").fill("")
    expect(page.get_by_text("Sizes and water disagree")).to_have_count(0)
    expect(page.get_by_role("status")).to_have_text("saved")
    steps.get_by_role("link", name="Piece").click()
    page.get_by_role("button", name="Add a piece").click()
    page.get_by_role("button", name="Solid cast").click()
    page.get_by_label("Weight, finished").fill("11")
    expect(page.get_by_role("textbox", name="Fill level")).to_have_value(re.compile(r"^4\.0"))
    steps.get_by_role("link", name="Order").click()
    page.get_by_role("button", name="Add an order").click()
    expect(steps).to_have_count(0)
    page.get_by_label("How many").fill("24")
    expect(page.get_by_role("button", name="Castings: 28. Explain")).to_be_visible()
    expect(page.get_by_text(re.compile("in 1 cook, isomalt, clear"))).to_be_visible()
    page.get_by_role("button", name="Close", exact=True).click()
    page.get_by_role("link", name="Cards", exact=True).click()
    page.get_by_role("button", name=re.compile("^Castings of .*: 28. Explain")).click()
    expect(page.get_by_text("Univariate Discrete", exact=False).first).to_be_visible()
    expect(page.get_by_text("prior 1 in 20", exact=False)).to_be_visible()
    expect(page.get_by_role("button", name="Start at the bench")).to_be_enabled()


def carry_out(server: Server, page: Page) -> None:
    """The first-light order at the bench by keys alone, up to the end of the run."""
    act(page, "Hot sugar")
    space(page)
    for _ in range(2):
        act(page, "Weigh .* isomalt, put it on|Warm it again")
        space(page)
        server.advance(200)
        act(page, "Take it off")
        space(page)
        server.advance(30)
        act(page, "Swirl the pot|Pour 14")
        page.keyboard.type("157")
        page.keyboard.press("Enter")
        expect(page.get_by_role("button", name=re.compile("undo .reading"))).to_be_visible()
        server.advance(130)
        act(page, "Pour 14 cavities")
        space(page)
        expect(page.get_by_role("button", name=re.compile("undo .pour"))).to_be_visible()
        server.advance(2400)
        act(page, "Unmould 14")
        space(page)
        act(page, "How did they come out")
        page.get_by_role("button", name="Cavity 3 to see").press("Enter")
        expect(page.get_by_role("button", name=re.compile("Cavity 3 (failed|broken)"))).to_be_visible()
        space(page)
    act(page, "All done")
    page.get_by_label("Left in the clear pot, if weighed").fill("50")
    page.get_by_label("Left in the clear pot, if weighed").blur()
    space(page)
    expect(page.get_by_role("heading", name="Nothing is live")).to_be_visible()


def test_the_run_by_keyboard_alone_and_the_next_plan_knows_more(demo: Server, open_page: OpenPage) -> None:
    page = open_page(demo.base + "/orders/order-first-light")
    before = page.get_by_role("button", name=re.compile(r"^Castings: \d+\. Explain"))
    expect(before).to_have_text("28")
    start = page.get_by_role("button", name="Start at the bench")
    expect(start).to_be_enabled()
    for _ in range(80):
        page.keyboard.press("Tab")
        if start.evaluate("e => e === document.activeElement"):
            break
    page.keyboard.press("Enter")
    carry_out(demo, page)
    newest_run(page)
    text = page.get_by_text(re.compile(r"Star-glass disc: 28 cast, 2 unusable \(2 broken\)"))
    expect(text).to_be_visible()
    expect(text).to_contain_text(re.compile(r"next time 2\d for 24 at 90"))
    expect(page.get_by_role("img", name="Cooling of cook 1").first).to_be_visible()
    page.keyboard.press("Alt+o")
    page.get_by_role("link", name=re.compile("^First-light night")).click()
    expect(page.get_by_role("button", name=re.compile(r"^Castings: \d+\. Explain"))).to_be_visible()


def test_two_browsers_a_reload_and_a_killed_server_see_one_run(demo: Server, open_page: OpenPage) -> None:
    run = {"id": "shared", "order_id": "order-first-light", "actor": "Wren", "device": "t"}
    demo.call("POST", "/api/runs", run)
    first, second = open_page(demo.base + "/bench"), open_page(demo.base + "/bench", 1024, 768)
    act(first, "Hot sugar")
    act(second, "Hot sugar")
    space(first)
    act(first, "Weigh")
    act(second, "Weigh")
    space(second)
    act(first, "Take it off")
    demo.advance(40)
    first.reload()
    act(first, "Take it off")
    demo.kill()
    space(second)
    expect(second.get_by_text("1 not sent yet")).to_be_visible()
    demo.start()
    act(second, "Swirl the pot")
    act(first, "Swirl the pot")
    events = demo.call("GET", "/api/runs/shared/events")["items"]
    assert [e["kind"] for e in events] == ["started", "acknowledged", "heated", "rested"]


def test_undo_readings_and_calls(demo: Server, open_page: OpenPage) -> None:
    demo.call(
        "POST", "/api/runs", {"id": "calls", "order_id": "order-first-light", "actor": "Wren", "device": "t"}
    )
    page = open_page(demo.base + "/bench")
    act(page, "Hot sugar")
    space(page)
    act(page, "Weigh")
    space(page)
    act(page, "Take it off")
    at_a_hands_pace(page)
    page.keyboard.press("ArrowLeft")
    act(page, "Weigh")
    space(page)
    act(page, "Take it off")
    demo.advance(200)
    space(page)
    act(page, "Swirl the pot")
    demo.advance(30)
    space(page)  # the act opens the keypad
    dialog = page.get_by_role("dialog")
    for key in "155":
        dialog.get_by_role("button", name=key, exact=True).click()
    dialog.get_by_role("radio", name="infrared, surface").click()
    expect(dialog.get_by_text("runs cold", exact=False)).to_be_visible()
    dialog.get_by_role("button", name="Enter").click()
    expect(page.get_by_role("button", name=re.compile("infrared, surface"))).to_be_visible()
    page.keyboard.type("9999")
    page.keyboard.press("Enter")
    expect(page.get_by_text("Reading: 9999", exact=False)).to_be_visible()
    view = demo.call("GET", "/api/runs/calls/bench?actor=Wren")["view"]
    [first_call] = [c for c in view["calls"] if c["kind"] == "closes"][:1]
    with seen_by(page):
        demo.advance(first_call["at_s"] - view["elapsed_s"] - 2)
    demo.advance(3)
    expect(page.get_by_text("Pour closes soon")).to_be_visible()


def test_a_weak_mould_is_refused_in_the_plan(demo: Server, open_page: OpenPage) -> None:
    page = open_page(demo.base + "/pieces/moulds/mould-disc")
    page.get_by_role("button", name=re.compile("^Material")).click()
    page.get_by_role("option", name=re.compile("Polycarbonate")).click()
    expect(page.get_by_text("Not for hot sugar", exact=False)).to_be_visible()
    expect(page.get_by_role("status")).to_have_text("saved")
    page.goto(demo.base + "/orders/order-first-light")
    expect(page.get_by_text("Use silicone or metal", exact=False)).to_be_visible()
    expect(page.get_by_role("button", name="Start at the bench")).to_have_count(0)
