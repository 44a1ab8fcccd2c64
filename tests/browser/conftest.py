"""A real server with a driven clock, a real browser."""

import re
import shutil
import tempfile
import time
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from functools import cache
from pathlib import Path
from typing import Any

import pytest
from playwright.sync_api import Browser, BrowserContext, Page, expect, sync_playwright

from tests.forks import forked
from tests.http import call, free_port, started
from umber_pebble.config import Config
from umber_pebble.demo.fill import fill

CHROMIUM = "/usr/bin/chromium"
AXE = Path(__file__).parent.parent.parent / "web/node_modules/axe-core/axe.min.js"
ARGS = [
    "--no-sandbox",
    "--disable-gpu",
    "--disable-quic",
    "--no-first-run",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
]
expect.set_options(timeout=20_000)


@cache
def filled() -> Path:
    """A folder with the demo in it, filled once and copied by every server that shows it."""
    folder = Path(tempfile.mkdtemp(prefix="umber-pebble-demo-"))
    fill(Config(folder))
    return folder


class Server:
    """The app in a process of its own, which can be killed and started again."""

    def __init__(
        self, data: Path, demo: bool, probe: str = "off", more: tuple[str, ...] = (), forks: bool = True
    ) -> None:
        self.port, self.data, self.forks, self.probe = free_port(), data, forks, probe
        self.more = ("--clock", "driven", "--probe", probe, *more)
        self.base = f"http://127.0.0.1:{self.port}"
        if demo:
            shutil.copytree(filled(), data, dirs_exist_ok=True)
        self.start()

    def start(self) -> None:
        self.process = (forked if self.forks else started)(self.data, self.port, *self.more)

    def kill(self) -> None:
        self.process.kill()

    def call(self, method: str, path: str, body: Any = None) -> Any:
        status, answer = call(self.base, method, path, body)
        assert status < 400, answer
        return answer

    def advance(self, seconds: float) -> None:
        self.call("POST", "/api/clock", {"advance_s": seconds, "rate": None})

    def melted_elsewhere(self, cooks: int) -> None:
        """Of the run at the bench, told: each of so many bowls was melted by one burst and stirred."""
        run = self.call("GET", "/api/bench?actor=Wren")["view"]["run_id"]
        told = [
            (after_s, kind, {"cook": cook, **more})
            for cook in range(cooks)
            for after_s, kind, more in (
                (120.0, "burst", {"seconds": 30.0, "power_frac": 1.0}),
                (60.0, "rested", {"degc": 38.0}),
            )
        ]
        for n, (after_s, kind, payload) in enumerate(told):
            self.advance(after_s)
            event = {"id": f"melted-{n}", "kind": kind, "payload": payload, "actor": "Wren", "device": "demo"}
            self.call("POST", f"/api/runs/{run}/events", {**event, "happened_at": None, "schema_version": 1})
        self.advance(120)


PACE_MS = 750
PRESSED = """for (const kind of ["keydown", "pointerup"])
  addEventListener(kind, () => { window.pressed = performance.now(); }, true);"""


def pytest_collection_modifyitems(items: list[pytest.Item]) -> None:
    """A browser on a busy machine gets a second try, with a new page and a new server; the report counts them."""
    for item in items:
        if item.path.parent == Path(__file__).parent:
            item.add_marker(pytest.mark.browser)
            item.add_marker(pytest.mark.flaky(reruns=1))


@pytest.fixture(scope="session")
def launch() -> Iterator[Callable[..., Browser]]:
    """Browsers, with more of Chromium's switches if need be."""
    with sync_playwright() as playwright:
        yield lambda *switches: playwright.chromium.launch(executable_path=CHROMIUM, args=[*ARGS, *switches])


@pytest.fixture(scope="session")
def browser(launch: Callable[..., Browser]) -> Iterator[Browser]:
    made = launch()
    yield made
    made.close()


@pytest.fixture
def demo(tmp_path: Path) -> Iterator[Server]:
    server = Server(tmp_path, demo=True)
    yield server
    server.kill()


@pytest.fixture(scope="module")
def demo_shared(tmp_path_factory: pytest.TempPathFactory) -> Iterator[Server]:
    """One server for all tests of a module that change nothing."""
    server = Server(tmp_path_factory.mktemp("shared"), demo=True)
    yield server
    server.kill()


@pytest.fixture
def empty(tmp_path: Path) -> Iterator[Server]:
    server = Server(tmp_path, demo=False)
    yield server
    server.kill()


@pytest.fixture
def open_page(browser: Browser) -> Iterator[Callable[..., Page]]:
    """Pages, each in a browser of its own (own storage); any error in the console fails the test."""
    contexts: list[BrowserContext] = []
    errors: list[str] = []

    def make(url: str, width: int = 1280, height: int = 800, **options: Any) -> Page:
        context = browser.new_context(viewport={"width": width, "height": height}, locale="en-GB", **options)
        context.add_init_script(PRESSED)
        contexts.append(context)
        page = context.new_page()
        page.on("pageerror", lambda error: errors.append(str(error)))
        page.goto(url)
        return page

    yield make
    for context in contexts:
        context.close()
    assert errors == []


def act(page: Page, words: str) -> None:
    """Wait until the bench's large act says this."""
    expect(page.get_by_test_id("act")).to_have_text(re.compile(words), timeout=30_000)


def at_a_hands_pace(page: Page) -> None:
    """Wait until a touch after the last one is no bounce."""
    page.evaluate(
        "ms => new Promise((on) => setTimeout(on, (window.pressed ?? -1e9) + ms - performance.now()))", PACE_MS
    )


def space(page: Page) -> None:
    """The space bar, as a hand presses it: not faster than the bench takes for a bounce."""
    at_a_hands_pace(page)
    page.keyboard.press("Space")


def until(page: Page, holds: Callable[[], bool], what: str) -> None:
    """Wait until something holds outside the page, which goes on meanwhile."""
    last_s = time.monotonic() + 30
    while not holds():
        assert time.monotonic() < last_s, what
        page.evaluate("() => new Promise(requestAnimationFrame)")


def see(page: Page, view: str) -> None:
    """Open a view of the plan, and wait for what is in it."""
    page.get_by_role("navigation", name="Views of the plan").get_by_role("link", name=view, exact=True).click()

    def there() -> bool:
        # what comes into view is asked for within the next frames
        for _ in range(3):
            page.evaluate("() => new Promise(requestAnimationFrame)")
        return page.locator("[aria-busy=true]").count() == 0

    until(page, there, f"{view} is in view")


def unfold(page: Page, title: str) -> None:
    """Open what is opened on demand."""
    button = page.get_by_role("button", name=re.compile(f"^{title}"))
    if button.get_attribute("aria-expanded") == "false":
        button.click()


def newest_run(page: Page) -> None:
    """Open the newest run of the log."""
    page.keyboard.press("Alt+l")
    page.get_by_role("main").get_by_role("listitem").first.get_by_role("link").click()


def change_the_order(page: Page) -> None:
    """Open an order's own lines and ways."""
    page.get_by_role("button", name="Change the order").click()


@contextmanager
def seen_by(page: Page) -> Iterator[None]:
    """What is done here is done once the page has the bench anew."""
    with page.expect_response(lambda answer: "/bench?" in answer.url) as answered:
        yield
    answered.value.finished()
    page.evaluate("() => new Promise(requestAnimationFrame)")


def serious(page: Page) -> list[str]:
    """What axe finds on a page that keeps somebody from using it."""
    page.evaluate(AXE.read_text("utf-8"))
    result = page.evaluate("() => axe.run()")
    return [
        f"{v['id']}: {v['nodes'][0]['html'][:160]}"
        for v in result["violations"]
        if v["impact"] in ("serious", "critical")
    ]
