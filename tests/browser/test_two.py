"""Two browsers at one run, offline and back, closed and opened, in any order: nothing lost, nothing twice, every screen agrees."""

import os
import random
from collections.abc import Callable

import pytest
from playwright.sync_api import Page, expect

from tests.browser.conftest import Server, act
from tests.browser.test_tablet import REMEMBERED

STEPS = int(os.environ.get("BROWSER_STEPS", "25"))


class Browsers:
    """What two hands do, and what must come of it: every reading once."""

    def __init__(self, pages: list[Page], chance: random.Random) -> None:
        self.pages, self.chance = pages, chance
        self.away = [False, False]
        self.typed: list[float] = []

    def step(self) -> None:
        which = self.chance.randrange(2)
        do = self.chance.choice([self.read, self.read, self.read, self.cut, self.reload])
        do(which)

    def read(self, which: int) -> None:
        # each another one, and all of them what a reading may be
        degc = 80 + len(self.typed) / 2
        self.typed.append(degc)
        page = self.pages[which]
        page.keyboard.type(f"{degc:g}")
        typed = page.get_by_text(f"{degc:g} °C, Enter")
        expect(typed).to_have_count(1)
        page.keyboard.press("Enter")
        expect(typed).to_have_count(0)

    def cut(self, which: int) -> None:
        self.away[which] = not self.away[which]
        self.pages[which].context.set_offline(self.away[which])

    def reload(self, which: int) -> None:
        self.pages[which].reload()
        act(self.pages[which], "Take it off")


@pytest.mark.parametrize("seed", [3])
def test_every_reading_of_two_browsers_counts_once(
    demo: Server, open_page: Callable[..., Page], seed: int
) -> None:
    told = {"actor": "Wren", "device": "t", "happened_at": None, "schema_version": 1}
    demo.call("POST", "/api/runs", {"id": "two", "order_id": "order-first-light", "actor": "Wren", "device": "t"})
    for kind, payload in (("acknowledged", {}), ("heated", {"cook": 0})):
        demo.call("POST", "/api/runs/two/events", {**told, "id": kind, "kind": kind, "payload": payload})
    pages = [open_page(demo.base + "/bench", width, 768) for width in (1280, 1024)]
    for page in pages:
        act(page, "Take it off")
        page.evaluate("() => navigator.serviceWorker.ready")
        page.wait_for_function(REMEMBERED.replace('"heat"', '"off"'))
    browsers = Browsers(pages, random.Random(seed))
    for _ in range(STEPS):
        browsers.step()
    for which, page in enumerate(pages):
        if browsers.away[which]:
            browsers.cut(which)
        expect(page.get_by_text("not sent yet", exact=False)).to_have_count(0, timeout=20_000)
    events = demo.call("GET", "/api/runs/two/events")["items"]
    read = [e["payload"]["degc"] for e in events if e["kind"] == "reading"]
    assert sorted(read) == browsers.typed and len(read) > STEPS // 3
    assert [e["seq"] for e in events] == list(range(1, len(events) + 1))
    # both show what the server says, also without being asked
    dots = len(demo.call("GET", "/api/runs/two/bench?actor=Wren")["view"]["ribbons"][0]["dots"])
    for page in pages:
        expect(
            page.get_by_role("region", name="Pots and rounds").locator("svg circle:not(pattern circle)")
        ).to_have_count(dots)
