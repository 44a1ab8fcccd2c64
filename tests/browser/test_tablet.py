"""The tablet: paired by a code over HTTPS, a bench that survives the network, two people at once."""

import json
import re
import socket
from collections.abc import Callable, Iterator
from pathlib import Path
from typing import Any

import pytest
from playwright.sync_api import Browser, Page, Route, expect

from tests.browser.conftest import Server, act, at_a_hands_pace, space, until
from tests.http import free_port

OpenPage = Callable[..., Page]
NAME = f"{socket.gethostname()}.local".lower()


@pytest.fixture
def networked(tmp_path: Path) -> Iterator[tuple[Server, str]]:
    port = free_port()
    server = Server(tmp_path, demo=True, more=("--lan", "--lan-port", str(port)))
    yield server, f"https://{NAME}:{port}"
    server.kill()


def test_a_tablet_is_paired_named_and_dropped(
    networked: tuple[Server, str], open_page: OpenPage, launch: Callable[..., Browser]
) -> None:
    server, address = networked
    main = open_page(server.base + "/kitchen/devices")
    # a browser that finds this machine by its name in the network
    browser = launch(f"--host-resolver-rules=MAP {NAME} 127.0.0.1")
    try:
        tablet = browser.new_context(ignore_https_errors=True, viewport={"width": 1024, "height": 768}).new_page()
        tablet.goto(address + "/bench")
        expect(tablet.get_by_role("heading", name="Pair this device")).to_be_visible()
        tablet.get_by_label("Code").fill("000000")
        tablet.get_by_role("button", name="Pair").click()
        expect(tablet.get_by_text("not the code that is shown", exact=False)).to_be_visible()
        main.get_by_role("button", name="Show a code").click()
        tablet.get_by_label("Code").fill(main.get_by_test_id("code").inner_text())
        tablet.get_by_label("What this device is called").fill("Stove tablet")
        tablet.get_by_role("button", name="Pair").click()
        expect(tablet.get_by_role("heading", name="Nothing is live")).to_be_visible()
        main.reload()
        devices = main.get_by_role("region", name="Tablets and phones")
        expect(devices.get_by_label("Name")).to_have_value("Stove tablet")
        # what is done on the main machine is seen on the tablet
        server.call(
            "POST", "/api/runs", {"id": "t", "order_id": "order-first-light", "actor": "Wren", "device": "t"}
        )
        act(tablet, "Hot sugar")
        devices.get_by_role("button", name="Drop Stove tablet").click()
        expect(devices.get_by_label("Name")).to_have_count(0)
        tablet.reload()
        expect(tablet.get_by_role("heading", name="Pair this device")).to_be_visible()
    finally:
        browser.close()


def test_a_reading_counts_though_the_page_is_gone_before_it_is_kept(demo: Server, open_page: OpenPage) -> None:
    demo.call("POST", "/api/runs", {"id": "gone", "order_id": "order-first-light", "actor": "Wren", "device": "t"})
    page = open_page(demo.base + "/bench")
    for words in ("Hot sugar", "Weigh"):
        act(page, words)
        space(page)
    act(page, "Take it off")
    page.evaluate("() => { IDBObjectStore.prototype.add = () => new Promise(() => {}); }")
    page.keyboard.type("151")
    expect(page.get_by_text("151 °C, Enter")).to_have_count(1)
    page.keyboard.press("Enter")
    page.reload()
    act(page, "Take it off")

    def readings() -> list[float]:
        events = demo.call("GET", "/api/runs/gone/events")["items"]
        return [e["payload"]["degc"] for e in events if e["kind"] == "reading"]

    until(page, lambda: readings() == [151.0], "the reading counts, once")


def test_the_network_is_cut_for_ten_minutes_and_nothing_is_lost_or_doubled(
    demo: Server, open_page: OpenPage
) -> None:
    demo.call("POST", "/api/runs", {"id": "cut", "order_id": "order-first-light", "actor": "Wren", "device": "t"})
    demo.call("POST", "/api/clock", {"advance_s": 0, "rate": 1})
    page = open_page(demo.base + "/bench", 1024, 768)
    act(page, "Hot sugar")
    space(page)
    act(page, "Weigh")
    space(page)
    act(page, "Take it off")
    page.context.set_offline(True)
    for count, degc in enumerate(("88", "90", "92"), 1):
        page.keyboard.type(degc)
        page.keyboard.press("Enter")
        expect(page.get_by_text(f"{count} not sent yet", exact=False)).to_be_visible()
    expect(page.get_by_text("The app does not answer.")).to_be_visible()
    # meanwhile the server is killed and comes back, and ten minutes pass
    demo.kill()
    demo.start()
    demo.advance(600)
    page.context.set_offline(False)
    expect(page.get_by_text("not sent yet", exact=False)).to_have_count(0, timeout=15_000)
    events = demo.call("GET", "/api/runs/cut/events")["items"]
    typed = [e for e in events if e["kind"] == "reading"]
    assert [e["payload"]["degc"] for e in typed] == [88, 90, 92]
    # placed by when they were done, not by when they came
    assert [e["happened_at"] for e in typed] == sorted(e["happened_at"] for e in typed)
    for e in typed:
        assert e["happened_at"] < e["received_at"]
    page.reload()
    act(page, "Take it off")


def test_two_people_pressing_the_same_act_count_once(demo: Server, open_page: OpenPage) -> None:
    demo.call("POST", "/api/runs", {"id": "two", "order_id": "order-planets", "actor": "Wren", "device": "t"})
    wren, sol = open_page(demo.base + "/bench"), open_page(demo.base + "/bench", 1024, 768)
    act(wren, "Weigh")
    act(sol, "Weigh")
    sol.get_by_role("button", name="Wren", exact=True).click()
    expect(sol.get_by_role("button", name="Sol", exact=True)).to_be_visible()
    at_a_hands_pace(wren)
    wren.keyboard.press("Space")
    sol.keyboard.press("Space")
    act(wren, "10 s more")
    act(sol, "10 s more")
    events = demo.call("GET", "/api/runs/two/events")["items"]
    assert [e["kind"] for e in events].count("burst") == 1
    demo.advance(46)
    wren.get_by_role("button", name="smooth", exact=True).click()
    act(sol, "Take the bowl out")
    space(sol)
    act(wren, "Stir the bowl|Pour 8")
    last = demo.call("GET", "/api/runs/two/events")["items"][-1]
    assert (last["kind"], last["actor"]) == ("rested", "Sol")


def test_it_can_be_installed_and_opens_without_the_network(demo: Server, open_page: OpenPage) -> None:
    page = open_page(demo.base + "/bench")
    manifest = page.evaluate("async () => (await fetch(document.querySelector('link[rel=manifest]').href)).json()")
    assert manifest["display"] == "standalone"
    for icon in manifest["icons"]:
        assert page.request.get(demo.base + icon["src"]).ok
    page.evaluate("() => navigator.serviceWorker.ready")
    page.reload()
    expect(page.get_by_role("heading", name="Nothing is live")).to_be_visible()
    page.wait_for_function("() => caches.open('umber-pebble-pages').then((of) => of.match('/')).then(Boolean)")
    page.context.set_offline(True)
    page.reload()
    expect(page.get_by_role("link", name="Bench")).to_be_visible()
    page.context.set_offline(False)


# whether the live run and what follows in it lie in this browser
REMEMBERED = """() => new Promise((done) => {
    const opening = indexedDB.open("umber-pebble-answers");
    opening.onsuccess = () => {
        const asked = opening.result.transaction("answers").objectStore("answers").getAll();
        asked.onsuccess = () => {
            opening.result.close();
            const [run, ahead] = ["bench", "ahead"].map((name) =>
                JSON.stringify(asked.result.filter((kept) => kept.key[0] === name)));
            done(run.includes('"heat"') && ahead.includes('"heat"'));
        };
    };
})"""


@pytest.mark.parametrize(("width", "height"), [(1280, 800), (1024, 768), (390, 844)])
def test_with_ten_things_live_the_next_act_and_its_button_stay_on_the_first_screen(
    demo: Server, open_page: OpenPage, width: int, height: int
) -> None:
    demo.call("POST", "/api/runs", {"id": "ten", "order_id": "order-planets", "actor": "Wren", "device": "t"})
    into = [
        {"name": f"Bag {i}", "colour": f"#a0{i}02c", "kg": 0.004, "holder": "bag", "spot": "towel", "tip_m": 0.004}
        for i in range(8)
    ]
    told: list[tuple[str, float, dict[str, Any]]] = [
        ("burst", 120, {"cook": 0, "seconds": 30.0, "power_frac": 1.0}),
        ("burst", 46, {"cook": 0, "seconds": 10.0, "power_frac": 1.0}),
        ("rested", 26, {"cook": 0}),
        ("poured", 60, {"round": 0}),
        ("decanted", 20, {"cook": 0, "into": into}),
    ]
    for i, (kind, after_s, payload) in enumerate(told):
        demo.advance(after_s)
        body = {"id": f"t{i}", "kind": kind, "payload": payload, "actor": "Wren", "device": "t"}
        demo.call("POST", "/api/runs/ten/events", {**body, "happened_at": None, "schema_version": 1})
    live = [r for r in demo.call("GET", "/api/bench?actor=Wren")["view"]["ribbons"] if not r["done"]]
    assert len(live) == 10
    page = open_page(demo.base + "/bench", width, height)
    act(page, "Put in 8 sticks")
    expect(page.get_by_test_id("act")).to_be_in_viewport(ratio=1)
    expect(page.get_by_role("button", name=re.compile("^Sticks are in"))).to_be_in_viewport(ratio=1)
    page.get_by_role("button", name=re.compile(r"\d more, not wanted yet")).click()
    expect(page.get_by_role("button", name=re.compile("^Sticks are in"))).to_be_in_viewport(ratio=1)


def test_the_acts_move_on_without_the_network_over_a_reload_and_an_undo(demo: Server, open_page: OpenPage) -> None:
    demo.call("POST", "/api/runs", {"id": "off", "order_id": "order-first-light", "actor": "Wren", "device": "t"})
    page = open_page(demo.base + "/bench", 1024, 768)
    act(page, "Hot sugar")
    space(page)
    act(page, "Weigh")
    # opened once and never again until the network is gone
    page.evaluate("() => navigator.serviceWorker.ready")
    page.wait_for_function(REMEMBERED)
    other = page.context.new_page()
    other.goto(demo.base + "/orders")
    expect(other.get_by_role("link", name="Bench", exact=True)).to_be_visible()
    page.context.set_offline(True)
    space(page)
    act(page, "Take it off")
    # the same box on every screen of this browser, and the rail moves on too
    for shown in (page, other):
        expect(shown.get_by_text("not", exact=False).filter(has_text="sent").first).to_be_visible()
        expect(shown.get_by_text("The app does not answer.")).to_be_visible()
    expect(other.get_by_title("The live bench")).to_contain_text("Off the heat")
    page.reload()
    act(page, "Take it off")
    expect(page.get_by_text("1 not sent yet", exact=False)).to_be_visible()
    # noted too soon, taken back, noted again
    space(page)
    act(page, "Pour 14")
    page.get_by_title("Undo off the heat").click(delay=800)
    act(page, "Take it off")
    space(page)
    act(page, "Pour 14")
    expect(page.get_by_text("4 not sent yet", exact=False)).to_be_visible()
    page.context.set_offline(False)
    expect(page.get_by_text("not sent yet", exact=False)).to_have_count(0, timeout=15_000)
    events = demo.call("GET", "/api/runs/off/events")["items"]
    assert [e["kind"] for e in events] == ["started", "acknowledged", "heated", "rested", "cancels", "rested"]
    # and the server, asked again, wants it swirled first
    act(page, "Swirl the pot")


def test_a_page_that_never_heard_the_app_says_what_to_do_and_goes_on(demo: Server, browser: Browser) -> None:
    page = browser.new_page()
    page.route("**/api/**", lambda route: route.abort())
    page.goto(demo.base + "/kitchen/words")
    expect(page.get_by_role("heading", name="Umber Pebble does not answer")).to_be_visible()
    page.unroute("**/api/**")
    expect(page.get_by_role("link", name="Bench", exact=True)).to_be_visible()


def test_what_is_refused_for_good_stays_until_it_is_read(demo: Server, open_page: OpenPage) -> None:
    demo.call("POST", "/api/runs", {"id": "no", "order_id": "order-first-light", "actor": "Wren", "device": "t"})
    page = open_page(demo.base + "/bench", 1024, 768)
    act(page, "Hot sugar")
    lost, ended = [401, 429, 503], False
    refusal = {
        "status": 409,
        "code": "not_in_sequence",
        "title": "the run has ended",
        "path": "",
        "got": None,
        "limits": {},
        "params": {"why": "ended"},
    }

    def answer(route: Route) -> None:
        if lost:
            route.fulfill(status=lost.pop(0), content_type="application/json", body='{"code": "x", "title": "x"}')
        elif ended:
            route.fulfill(status=409, content_type="application/problem+json", body=json.dumps(refusal))
        else:
            route.continue_()

    page.route("**/api/runs/no/events", answer)
    space(page)
    act(page, "Weigh")
    expect(page.get_by_text("not sent yet", exact=False)).to_have_count(0, timeout=15_000)
    assert lost == []
    ended = True
    space(page)
    expect(page.get_by_text("run has ended", exact=False)).to_be_visible()
    page.goto(demo.base + "/orders")
    expect(page.get_by_text("Not taken:", exact=False)).to_be_visible()
    page.reload()
    expect(page.get_by_text("Not taken:", exact=False)).to_be_visible()
    page.get_by_role("button", name="Read", exact=True).click()
    expect(page.get_by_text("Not taken:", exact=False)).to_have_count(0)
