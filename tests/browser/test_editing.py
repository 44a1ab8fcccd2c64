"""Editing: every input of the plan redraws it, outcomes are taps, equipment is changed in place, calls sound."""

import re
from collections.abc import Callable, Iterator

import pytest
from playwright.sync_api import Page, expect

from tests.browser.conftest import Server, act, change_the_order, see, seen_by, space, unfold, until

OpenPage = Callable[..., Page]


@pytest.fixture(scope="module")
def shared(tmp_path_factory: pytest.TempPathFactory) -> Iterator[Server]:
    server = Server(tmp_path_factory.mktemp("editing"), demo=True)
    yield server
    server.kill()


def figure(page: Page, name: str) -> str:
    return page.get_by_role("button", name=re.compile(f"^{name}: .*Explain")).first.inner_text()


def pick(page: Page, label: str, option: str) -> None:
    page.get_by_role("button", name=re.compile(f"^{label}: ")).click()
    page.get_by_role("option", name=option).click()


CHANGES: list[tuple[str, str, Callable[[Page], None]]] = [
    ("Melts", "Castings", lambda p: p.get_by_label("How many").fill("20")),
    ("Melts", "Castings", lambda p: p.get_by_label("Confidence").fill("99")),
    ("Melts", "To weigh out", lambda p: p.get_by_role("textbox", name="Reserve").fill("20")),
    ("Windows", "Pour window closes", lambda p: p.get_by_role("textbox", name="Cook to").fill("166")),
    ("Melts", "Time on the heat", lambda p: p.get_by_role("radio", name="ready-cooked nibs").click()),
    ("Melts", "Water left in the melt", lambda p: p.get_by_role("radio", name="with water").click()),
    ("Windows", "Pour window closes", lambda p: pick(p, "Pot", "Thin pot")),
    ("Melts", "Time on the heat", lambda p: pick(p, "On or in", "Right ring")),
    ("Windows", "Pour window closes", lambda p: pick(p, "Pot rests on", "Cold slab")),
    ("Windows", "May be unmoulded", lambda p: pick(p, "Moulds lie on", "Cold slab")),
    ("Windows", "Bend window closes", lambda p: pick(p, "Piece", "Comet lens, bent")),
    ("Melts", "Start at the latest", lambda p: p.get_by_label("Time", exact=True).fill("15:31")),
]


def test_every_input_of_the_plan_redraws_it(shared: Server, open_page: OpenPage) -> None:
    page = open_page(shared.base + "/orders/order-first-light", 1280, 2400)
    change_the_order(page)
    unfold(page, "Cook the")
    for view, number, change in CHANGES:
        see(page, view)
        before = figure(page, number)
        change(page)
        expect(page.get_by_role("button", name=re.compile(f"^{number}: .*Explain")).first).not_to_have_text(before)
        expect(page.get_by_role("status")).to_have_text("saved")


def test_every_number_of_the_plan_opens_to_its_explanation(shared: Server, open_page: OpenPage) -> None:
    page = open_page(shared.base + "/orders/order-comet", 1280, 2400)
    opened = set()
    for view in ("Melts", "Windows", "Cards"):
        see(page, view)
        numbers = page.get_by_role("button", name=re.compile("Explain$"))
        for i in range(numbers.count()):
            name = (numbers.nth(i).get_attribute("aria-label") or "").split(":")[0]
            numbers.nth(i).click()
            panel = page.locator("[id^=headlessui-popover-panel]")
            expect(panel).to_contain_text(name)
            assert len(panel.inner_text()) > len(name) + 20
            page.keyboard.press("Escape")
            expect(panel).to_have_count(0)
            opened.add((view, i, name))
    assert len(opened) >= 24


def test_outcomes_are_taps_in_the_log_and_change_the_next_plan(demo: Server, open_page: OpenPage) -> None:
    page = open_page(demo.base + "/log/run-rehearsal")
    sentence = page.locator("p", has_text=re.compile("24 cast, 2 unusable"))
    expect(sentence).to_contain_text("2 broken, 1 stuck")
    page.get_by_role("button", name="dull", exact=True).first.click()
    for cavity in (5, 6, 7):
        page.get_by_role("button", name=re.compile(f"^Cavity {cavity} good")).first.click()
        expect(page.get_by_role("button", name=re.compile(f"^Cavity {cavity} dull")).first).to_be_visible()
    expect(page.locator("p", has_text=re.compile("24 cast, 5 unusable .*3 dull"))).to_be_visible()
    page.get_by_role("button", name="Cavity 4 broken").first.click()
    expect(page.locator("p", has_text=re.compile("24 cast, 4 unusable"))).to_be_visible()
    page.goto(demo.base + "/orders/order-first-light")
    expect(page.get_by_role("button", name=re.compile("^Castings: (29|3[0-2])"))).to_be_visible()


def test_kitchen_equipment_is_added_changed_and_removed(demo: Server, open_page: OpenPage) -> None:
    page = open_page(demo.base + "/kitchen")
    page.get_by_role("button", name="Add a place").click()
    added = page.get_by_role("group", name="Place", exact=True)
    added.get_by_label("Name").fill("Marble shelf")
    added = page.get_by_role("group", name="Marble shelf")
    added.get_by_role("button", name=re.compile("^Surface")).click()
    page.get_by_role("option", name="Marble slab").click()
    added.get_by_label("Its temperature").fill("9")
    expect(page.get_by_role("status")).to_have_text("saved")
    places = demo.call("GET", "/api/kitchen")["doc"]["places"]
    assert (places[-1]["name"], places[-1]["surface"], places[-1]["surface_degc"]) == ("Marble shelf", "marble", 9)
    page.get_by_role("button", name="Remove Marble shelf").click()
    expect(page.get_by_role("status")).to_have_text("saved")
    assert len(demo.call("GET", "/api/kitchen")["doc"]["places"]) == len(places) - 1
    page.get_by_role("link", name="People", exact=True).click()
    page.get_by_label("People at the bench", exact=False).fill("")
    expect(page.get_by_role("status")).to_have_text("not saved")
    expect(page.get_by_text(re.compile("People"), exact=False).first).to_be_visible()
    assert demo.call("GET", "/api/kitchen")["doc"]["people"] == ["Wren", "Sol"]


def test_the_call_sounds_and_can_be_silenced(demo: Server, open_page: OpenPage) -> None:
    demo.call(
        "POST", "/api/runs", {"id": "heard", "order_id": "order-first-light", "actor": "Wren", "device": "t"}
    )
    page = open_page(demo.base + "/bench")
    page.evaluate("""() => { window.tones = 0; const start = OscillatorNode.prototype.start;
      OscillatorNode.prototype.start = function (...a) { window.tones++; return start.apply(this, a); }; }""")
    act(page, "Hot sugar")
    space(page)
    act(page, "Weigh")
    space(page)
    act(page, "Take it off")

    def advance_past_next_call(kind: str) -> None:
        view = demo.call("GET", "/api/runs/heard/bench?actor=Wren")["view"]
        at = next(c["at_s"] for c in view["calls"] if c["kind"] == kind)
        with seen_by(page):
            demo.advance(at - view["elapsed_s"] - 1)
        demo.advance(2)

    advance_past_next_call("opens")
    expect(page.get_by_text("Off the heat opens soon")).to_be_visible()
    assert page.evaluate("window.tones") == 2
    page.keyboard.press("s")
    expect(page.get_by_role("button", name="sound off")).to_be_visible()
    advance_past_next_call("closes")
    expect(page.get_by_text("Off the heat closes soon")).to_be_visible()
    assert page.evaluate("window.tones") == 2


def test_the_rail_keeps_the_stove_in_sight_on_every_view(demo: Server, open_page: OpenPage) -> None:
    demo.call("POST", "/api/runs", {"id": "rail", "order_id": "order-first-light", "actor": "Wren", "device": "t"})
    page = open_page(demo.base + "/orders/order-comet")
    for path in ("/orders", "/pieces", "/pieces/moulds", "/log", "/kitchen"):
        page.goto(demo.base + path)
        expect(page.get_by_title("The live bench")).to_contain_text("Read the caution")
    page.get_by_title("The live bench").click()
    act(page, "Hot sugar")
    second = open_page(demo.base + "/orders/order-comet")
    second.get_by_role("button", name="Start at the bench").click()
    expect(second.get_by_text("A run is live", exact=False)).to_be_visible()


def test_a_phone_shows_the_act_and_its_button_without_scrolling(demo: Server, open_page: OpenPage) -> None:
    demo.call(
        "POST", "/api/runs", {"id": "phone", "order_id": "order-first-light", "actor": "Wren", "device": "t"}
    )
    page = open_page(demo.base + "/bench", 390, 844)
    act(page, "Hot sugar")
    button = page.get_by_role("button", name=re.compile("Read and understood"))
    expect(button).to_be_in_viewport(ratio=1)
    button.click()
    act(page, "Weigh")
    expect(page.get_by_role("button", name=re.compile("On the ring"))).to_be_in_viewport(ratio=1)
    wide = page.evaluate("() => document.documentElement.scrollWidth")
    assert wide <= 390


def test_an_edit_is_taken_back_and_what_was_removed_put_back(demo: Server, open_page: OpenPage) -> None:
    page = open_page(demo.base + "/pieces/piece-disc")
    level = page.get_by_role("textbox", name="Fill level")
    expect(level).to_have_value("4")
    level.fill("3")
    expect(page.get_by_role("button", name="undo", exact=True)).to_be_visible()
    expect(page.get_by_role("status")).to_have_text("saved")
    # what follows more closely is one change with it
    page.evaluate("() => new Promise((on) => setTimeout(on, 1000))")
    page.get_by_role("radio", name="the open side").click()
    expect(page.get_by_role("radio", name="the open side")).to_be_checked()
    page.keyboard.press("Control+z")
    expect(page.get_by_role("radio", name="the mould side")).to_be_checked()
    page.get_by_role("button", name="undo", exact=True).click()
    expect(level).to_have_value("4")
    expect(page.get_by_role("button", name="undo", exact=True)).to_have_count(0)
    expect(page.get_by_role("status")).to_have_text("saved")
    assert demo.call("GET", "/api/pieces/piece-disc")["doc"]["parts"][0]["passes"][0]["level_m"] == 0.004
    # removed without being asked, and put back as it was
    stored = demo.call("GET", "/api/orders/order-comet")["doc"]
    page.goto(demo.base + "/orders/order-comet")
    change_the_order(page)
    page.get_by_role("button", name="Remove this order").click()
    expect(page.get_by_text("Comet supper is removed.")).to_be_visible()
    page.get_by_role("button", name="Put it back").click()
    page.get_by_role("link", name=re.compile("^Comet supper")).click()
    expect(page.get_by_label("Name of the order")).to_have_value("Comet supper")
    back = page.url.rpartition("/")[2]
    assert demo.call("GET", f"/api/orders/{back}")["doc"] == stored


def test_a_shorter_day_is_looked_for_and_told(demo: Server, open_page: OpenPage) -> None:
    page = open_page(demo.base + "/orders/order-domes")
    page.get_by_role("button", name="Look for a shorter day").click()
    told = page.get_by_text(re.compile(r"(shorter|this time)\. (None can be more than|No other order)"))
    expect(told).to_be_visible(timeout=60_000)
    found = not told.inner_text().startswith("Nothing")
    order = "/api/orders/order-domes"
    until(
        page, lambda: (demo.call("GET", order)["doc"]["timetable"] is not None) == found, "what is found is kept"
    )
