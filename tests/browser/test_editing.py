"""Editing: every input of the plan redraws it, outcomes are taps, equipment is changed in place, calls sound."""

import re
from collections.abc import Callable, Iterator

import pytest
from playwright.sync_api import Page, expect

from tests.browser.conftest import Server, act, see, seen_by, space

pytestmark = pytest.mark.browser
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


CHANGES: list[tuple[str, Callable[[Page], None]]] = [
    ("Castings", lambda p: p.get_by_label("How many").fill("40")),
    ("Castings", lambda p: p.get_by_label("Confidence").fill("99")),
    ("To weigh out", lambda p: p.get_by_role("textbox", name="Reserve").fill("20")),
    ("Pour window closes", lambda p: p.get_by_role("textbox", name="Cook to").fill("166")),
    ("Time on the heat", lambda p: p.get_by_role("radio", name="ready-cooked nibs").click()),
    ("Water left in the melt", lambda p: p.get_by_role("radio", name="with water").click()),
    ("Pour window closes", lambda p: pick(p, "Pot", "Thin pot")),
    ("Time on the heat", lambda p: pick(p, "On or in", "Right ring")),
    ("Pour window closes", lambda p: pick(p, "Pot rests on", "Cold slab")),
    ("May be unmoulded", lambda p: pick(p, "Moulds lie on", "Cold slab")),
    ("Bend window closes", lambda p: pick(p, "Piece", "Comet lens, bent")),
    ("Start at the latest", lambda p: p.get_by_label(re.compile("^Due")).fill("2030-01-02T15:30")),
]


@pytest.mark.parametrize(("number", "change"), CHANGES, ids=[f"{i} {name}" for i, (name, _) in enumerate(CHANGES)])
def test_every_input_of_the_plan_redraws_it(
    shared: Server, open_page: OpenPage, number: str, change: Callable[[Page], None]
) -> None:
    page = open_page(shared.base + "/plan/order-first-light", 1280, 9000)
    before = figure(page, number)
    change(page)
    expect(page.get_by_role("button", name=re.compile(f"^{number}: .*Explain")).first).not_to_have_text(before)
    expect(page.get_by_role("status")).to_have_text("saved")


def test_every_number_of_the_plan_opens_to_its_explanation(shared: Server, open_page: OpenPage) -> None:
    page = open_page(shared.base + "/plan/order-comet", 1280, 2400)
    for part in ("What to melt", "Windows"):
        see(page, part)
    numbers = page.get_by_role("button", name=re.compile("Explain$"))
    assert numbers.count() >= 30
    for i in range(numbers.count()):
        numbers.nth(i).click()
        name = (numbers.nth(i).get_attribute("aria-label") or "").split(":")[0]
        panel = page.locator("[id^=headlessui-popover-panel]")
        expect(panel).to_contain_text(name)
        assert len(panel.inner_text()) > len(name) + 20
        page.keyboard.press("Escape")
        expect(panel).to_have_count(0)


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
    page.goto(demo.base + "/plan/order-first-light")
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
    page = open_page(demo.base + "/plan/order-comet")
    for path in ("/plan", "/pieces", "/moulds", "/log", "/kitchen"):
        page.goto(demo.base + path)
        expect(page.get_by_title("The live bench")).to_contain_text("Read the caution")
    page.get_by_title("The live bench").click()
    act(page, "Hot sugar")
    second = open_page(demo.base + "/plan/order-comet")
    second.get_by_role("button", name="Start the run").click()
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
