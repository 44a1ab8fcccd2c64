"""A night for two people from two orders, in two browsers: a slip, a broken piece, a mend, nothing to read for ten minutes; ended and
in the log."""

import re
import uuid
from collections.abc import Callable
from typing import Any

from playwright.sync_api import Page, expect

from tests.browser.conftest import Server, at_a_hands_pace, change_the_order, newest_run, seen_by, until
from tests.browser.conftest import act as says
from tests.services.test_pictures import photo

MOST_ACTS = 400
WREN, SOL = "Wren", "Sol"
SLIP_S = 240.0
OUTAGE_S = 600.0


class Night:
    """Two people who do what the bench shows each first; most of it is told without a screen, which shows it all the same."""

    def __init__(self, server: Server, run: str) -> None:
        self.server, self.run = server, run
        self.kinds: list[str] = []
        self.did: set[str] = set()

    def view(self, who: str) -> dict[str, Any]:
        view: dict[str, Any] = self.server.call("GET", f"/api/runs/{self.run}/bench?actor={who}")["view"]
        return view

    def tell(self, who: str, kind: str, payload: dict[str, Any]) -> None:
        told = {"id": uuid.uuid4().hex, "kind": kind, "payload": payload, "actor": who, "device": who}
        self.server.call(
            "POST", f"/api/runs/{self.run}/events", {**told, "schema_version": 1, "happened_at": None}
        )

    def next(self) -> tuple[str, dict[str, Any]]:
        """Whoever may act sooner, with what comes first for her; the clock runs until she may."""
        views = {who: self.view(who) for who in (WREN, SOL)}
        firsts = {who: next(a for a in view["acts"] if a["what"]["kind"] != "read") for who, view in views.items()}
        who = min(firsts, key=lambda of: firsts[of]["opens_s"])
        wait = firsts[who]["opens_s"] - views[who]["elapsed_s"]
        if wait > 0:
            self.server.advance(wait + 1)
        return who, firsts[who]

    def do(self, who: str, act: dict[str, Any]) -> None:
        what, number = act["what"], act["subject"]["number"]
        self.kinds.append(what["kind"])
        self.did.add(who)
        if what["kind"] == "outcomes":
            cavities = list(range(what["casts"]))
            self.tell(who, "outcome", {"round": number, "cavities": cavities, "usable": True, "kinds": []})
        elif what["kind"] == "stir":
            self.tell(who, "rested", {"cook": number, "degc": 38.0})
        else:
            self.tell(who, act["tells"]["kind"], act["tells"]["payload"])

    def until(self, kind: str) -> tuple[str, dict[str, Any]]:
        """Go on until somebody's first act is of a kind."""
        for _ in range(MOST_ACTS):
            who, act = self.next()
            if act["what"]["kind"] == kind:
                return who, act
            self.do(who, act)
        raise AssertionError(f"{kind} never comes: {self.kinds}")


def test_a_night_for_two_from_two_orders(demo: Server, open_page: Callable[..., Page]) -> None:
    page = open_page(demo.base + "/orders/order-pops")
    change_the_order(page)
    page.get_by_label(re.compile("^Comet strawberries")).check()
    for who in (WREN, SOL):
        page.get_by_label(who).check()
    whose = page.get_by_role("list", name="By order")
    expect(whose).to_contain_text("Night-sky pops")
    expect(whose).to_contain_text("24 comet strawberry")
    expect(page.get_by_text("saved", exact=True)).to_be_visible()
    page.get_by_role("button", name="Start at the bench").click()
    expect(page.get_by_role("heading", name="Night-sky pops and Comet strawberries")).to_be_visible()
    night = Night(demo, demo.call("GET", "/api/bench?actor=Wren")["view"]["run_id"])
    hers = open_page(demo.base + "/orders", 1024, 768)
    hers.evaluate("who => localStorage.setItem('umber-pebble-who', who)", SOL)
    hers.goto(demo.base + "/bench")
    pages = {WREN: page, SOL: hers}

    def agree() -> None:
        for who, shown in pages.items():
            on = sum(not ribbon["done"] for ribbon in night.view(who)["ribbons"])
            expect(shown.get_by_role("region", name="Pots and rounds").get_by_role("button")).to_have_count(on)

    # a slip: the pour that is next is begun minutes late, and the night goes on
    night.until("pour")
    demo.advance(SLIP_S)
    # both press the same act while neither can reach the other: one of them did it
    who, act = night.until("unmould")
    says(pages[who], "^Unmould|off the tray$")
    for shown in pages.values():
        shown.context.set_offline(True)
    demo.advance(OUTAGE_S)
    words = pages[who].get_by_test_id("act").inner_text()
    for shown in pages.values():
        if shown.get_by_test_id("act").inner_text() == words:
            at_a_hands_pace(shown)
            shown.keyboard.press("Space")
    for shown in pages.values():
        shown.context.set_offline(False)
    number = act["subject"]["number"]

    def out() -> bool:
        told = demo.call("GET", f"/api/runs/{night.run}/events")["items"]
        return sum(e["kind"] == "unmoulded" and e["payload"]["round"] == number for e in told) == 1

    until(page, out, "it is out of its mould, once")
    agree()
    # one breaks, and is mended
    who, act = night.until("outcomes")
    shown = pages[who]
    with seen_by(shown):
        shown.get_by_role("button", name=re.compile(r"^Cavity 1\b")).click()
    with seen_by(shown):
        shown.get_by_role("button", name="torch").click()
        shown.get_by_role("button", name=re.compile(r"^Cavity 1\b")).click()
    expect(shown.get_by_role("button", name=re.compile(r"^Cavity 1\b"))).to_contain_text("good")
    # and a picture is taken of it
    shown.keyboard.press("n")
    shown.get_by_label("What").fill("a torch closed it")
    shown.get_by_label("A picture").set_input_files({"name": "a.jpg", "mimeType": "image/jpeg", "buffer": photo()})
    shown.get_by_role("button", name="Note it").click()
    expect(shown.get_by_role("dialog")).to_have_count(0)
    at_a_hands_pace(shown)
    shown.keyboard.press("Space")
    who, _ = night.until("end")
    agree()
    assert night.did == {WREN, SOL}
    shown = pages[who]
    # what is whose is told where it is packed
    expect(shown.get_by_role("list", name="By order")).to_contain_text("24 comet strawberry")
    at_a_hands_pace(shown)
    shown.keyboard.press("Space")
    until(shown, lambda: demo.call("GET", "/api/bench?actor=Wren")["view"] is None, "the run is over")
    newest_run(shown)
    happened = shown.get_by_role("region", name="What happened")
    expect(happened).to_contain_text("mended, round")
    expect(shown.get_by_role("list", name="By order")).to_contain_text("12 night-sky pop")
    assert all(who in happened.inner_text() for who in pages)
    noted = happened.get_by_role("img", name="a torch closed it")
    noted.scroll_into_view_if_needed()
    until(shown, lambda: bool(noted.evaluate("img => img.naturalWidth > 0")), "the picture is there")
