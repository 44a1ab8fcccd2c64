"""Speed of the app, shown: figures over HTTP, first view, edits to the pixel, events to a second browser."""

import gzip
import json
import re
import sys
import tempfile
import time
from contextlib import ExitStack
from pathlib import Path
from typing import Any

from playwright.sync_api import Browser, Page, sync_playwright

sys.path.insert(0, str(Path(__file__).parent.parent))
from bench_rows import row, timed
from tests.browser.conftest import ARGS, CHROMIUM, Server

from umber_pebble.app import WEB
from umber_pebble.config import Config
from umber_pebble.services.documents import Colour
from umber_pebble.services.start import open_workshop


def app() -> None:
    with tempfile.TemporaryDirectory() as folder, sync_playwright() as p, ExitStack() as stack:
        server = Server(Path(folder), demo=True, forks=False)
        stack.callback(server.kill)
        browser = p.chromium.launch(executable_path=CHROMIUM, args=ARGS)
        order = server.call("GET", "/api/orders/order-first-light")["doc"]
        kitchen = server.call("GET", "/api/kitchen")
        server.call("POST", "/api/figures/plan", order)

        def served(i: int) -> object:
            return server.call("POST", "/api/figures/plan", cooked_to(order, 158 + i / 16))

        row("this plan over HTTP, changed each time", timed(served, 40), "80 ms")
        assert kitchen["version"] >= 1

        row(
            "first view with its figures, nothing cached",
            [first_view(server, browser) for _ in range(12)],
            "800 ms, aim 500",
        )
        page = browser.new_context().new_page()
        page.goto(server.base + "/work-out/heat")
        page.get_by_role("img", name="Way 2, ").wait_for()
        row("explorer change to the pixel, two ways", [explorer_change(page, i) for i in range(40)], "100 ms")
        page.context.close()
        edit = browser.new_context(viewport={"width": 1280, "height": 800}).new_page()
        edit.goto(server.base + "/pieces/piece-pop")
        edit.get_by_role("list", name="Passes").get_by_role("button", name="Shell").click()
        edit.get_by_label("Thickness, slider").wait_for()
        row("a build edited, to the pixel", [build_change(edit, i) for i in range(30)], "80 ms, aim 50")
        edit.goto(server.base + "/pieces/moulds/mould-constellation")
        edit.get_by_role("radio", name="move").click()
        edit.get_by_role("list", name="Whether it holds").wait_for()
        row("a drawn line moved, with its check", [line_moved(edit, i) for i in range(30)], "50 ms")
        edit.context.close()
        orders(server)
        server.call(
            "POST", "/api/runs", {"id": "b", "order_id": "order-first-light", "actor": "Wren", "device": "b"}
        )
        seen = browser.new_context().new_page()
        seen.goto(server.base + "/bench")
        seen.get_by_test_id("act").wait_for()
        row("event to a second browser's screen", [event_seen(server, seen, "b", i) for i in range(20)], "200 ms")
        forty(server, seen)
        browser.close()
    finder()


def finder() -> None:
    """Anything found by the words of the trade, with 2,000 things in the workshop; and what the first page needs to begin with."""
    with tempfile.TemporaryDirectory() as folder:
        workshop = open_workshop(Config(Path(folder)))
        colour = {"dye": "e133", "kind": "oil", "mg_per_g": None}
        rows = [("colour", f"c-{i}", Colour(name=f"Night shade {i}", **colour)) for i in range(2000)]
        workshop.create_all(rows)
        workshop.engine.dispose()
        server = Server(Path(folder), demo=False, forks=False)
        said = [
            "n",
            "night",
            "night shade 17",
            "unmould",
            "when can I turn out 4 mm hearts",
            "how much for 30 of these",
        ]
        server.call("POST", "/api/find", {"said": "warm"})
        row(
            "the finder, among 2,000 things",
            timed(lambda i: server.call("POST", "/api/find", {"said": said[i % len(said)]}), 30),
            "50 ms",
        )
        server.kill()
    scripts = re.findall(r'"/(assets/[^"]+[.]js)"', (WEB / "index.html").read_text("utf-8"))
    kb = [sum(len(gzip.compress((WEB / name).read_bytes())) for name in scripts) / 1e3]
    row("scripts of the first page, gzipped", kb, "120 kB", "kB")


def cooked_to(order: Any, degc: float) -> Any:
    way = {**order["ways"]["isomalt"], "cook_degc": degc}
    return {**order, "ways": {**order["ways"], "isomalt": way}}


def build_change(page: Page, i: int) -> float:
    """From a slider's new thickness of a shell to the frame in which the layers and the grams of the piece have changed."""
    return float(
        page.evaluate(
            """(value) => new Promise((done) => {
                 const slider = document.querySelector('[aria-label="Thickness, slider"]');
                 const grams = () => document.querySelector('[aria-label^="poured:"]')?.textContent;
                 const before = grams(); const start = performance.now();
                 const watch = new MutationObserver(() => {
                   if (grams() === before) return;
                   watch.disconnect();
                   requestAnimationFrame(() => requestAnimationFrame(() => done(performance.now() - start)));
                 });
                 watch.observe(document.body, { subtree: true, childList: true, characterData: true, attributes: true });
                 Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value').set.call(slider, value);
                 slider.dispatchEvent(new Event('input', { bubbles: true }));
               })""",
            str(0.0010 + 0.00005 * i),
        )
    )


def line_moved(page: Page, i: int) -> float:
    """From a pull at the end of a line to the frame in which that line, its length and what is said of it have changed."""
    return float(
        page.evaluate(
            """(by) => new Promise((done) => {
                 const pad = document.querySelector('svg[aria-label^="Drawing of"]');
                 const lines = [...pad.querySelectorAll(':scope > g')].filter((g) => g.classList.contains('cursor-grab'));
                 const [x, y] = lines.at(-1).querySelector('path').getAttribute('d').split('L').at(-1).split(' ').map(Number);
                 const box = pad.getBoundingClientRect();
                 const at = (dx) => ({ bubbles: true, pointerId: 1, buttons: 1,
                   clientX: box.left + (x + dx) * box.width / 540, clientY: box.top + y * box.height / 440 });
                 pad.setPointerCapture = () => {};
                 lines.at(-1).dispatchEvent(new PointerEvent('pointerdown', at(0)));
                 const grams = () => document.querySelector('dl').textContent + document.querySelector('dl').parentElement.className;
                 const before = grams(); const start = performance.now();
                 const watch = new MutationObserver(() => {
                   if (grams() === before || document.querySelector('dl').parentElement.className !== '') return;
                   watch.disconnect();
                   requestAnimationFrame(() => requestAnimationFrame(() => {
                     const took = performance.now() - start;
                     pad.dispatchEvent(new PointerEvent('pointerup', at(by)));
                     setTimeout(() => done(took), 300);
                   }));
                 });
                 watch.observe(document.body, { subtree: true, childList: true, characterData: true, attributes: true });
                 pad.dispatchEvent(new PointerEvent('pointermove', at(by)));
               })""",
            -60.0 if i % 2 else 60.0,
        )
    )


def orders(server: Server) -> None:
    """An order of twelve kinds: compiled whole, and with one quantity changed."""
    doc = server.call("GET", "/api/orders/order-sky")["doc"]

    def plan(quantity: int) -> Any:
        doc["lines"][0]["quantity"] = quantity
        return server.call("POST", "/api/figures/plan", doc)["glance"]

    row("an order of twelve kinds, whole", timed(lambda _: plan(8), 1), "1000 ms, aim 600")
    row("the same, one quantity changed", timed(lambda i: plan(9 + i), 12), "100 ms, aim 60")
    glance = plan(8)
    kb = [len(json.dumps(glance, separators=(",", ":"))) / 1e3]
    row("its first answer", kb, "100 kB", "kB")
    of = {"order": doc, "planned_at": glance["planned_at"]}
    for part in ("windows", "cards", "timetable", "alternatives"):
        row(
            f"its {part}",
            timed(lambda _, part=part: server.call("POST", f"/api/figures/plan/{part}", of), 9),
            "none",
        )
    melts = [{**of, "melt": row["melt"]} for row in glance["summary"]["melts"]]
    row(
        "its melts, all",
        timed(lambda _: [server.call("POST", "/api/figures/plan/melt", m) for m in melts], 5),
        "none",
    )


def first_view(server: Server, browser: Browser) -> float:
    """From the start of the visit to the frame that shows the plan's figures, in a browser that has seen nothing."""
    page = browser.new_context().new_page()
    page.add_init_script(
        """window.shown = new Promise((done) => new MutationObserver((_, watch) => {
             if (!document.querySelector('[aria-label="Castings: 28. Explain"]')) return;
             watch.disconnect();
             requestAnimationFrame(() => requestAnimationFrame(() => done(performance.now())));
           }).observe(document, { subtree: true, childList: true, attributes: true }));"""
    )
    page.goto(server.base + "/orders/order-first-light", wait_until="commit")
    took = float(page.evaluate("() => window.shown"))
    page.context.close()
    return took


def explorer_change(page: Page, i: int) -> float:
    """From a slider's new thickness to the frame in which both ways' ribbons and sections have changed."""
    return float(
        page.evaluate(
            """(value) => new Promise((done) => {
                 const says = () => document.querySelector('[role=status]').textContent +
                   [...document.querySelectorAll('svg[role=img]')].map((s) => s.innerHTML.length + s.textContent).join();
                 const slider = document.querySelector('[aria-label="Thickness, slider"]');
                 const before = says(); const start = performance.now();
                 const watch = new MutationObserver(() => {
                   if (says() === before || document.querySelector('.opacity-60')) return;
                   watch.disconnect();
                   requestAnimationFrame(() => requestAnimationFrame(() => done(performance.now() - start)));
                 });
                 watch.observe(document.body, { subtree: true, childList: true, characterData: true, attributes: true });
                 Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value').set.call(slider, value);
                 slider.dispatchEvent(new Event('input', { bubbles: true }));
               })""",
            str(0.002 + 0.0002 * i),
        )
    )


def forty(server: Server, page: Page) -> None:
    """The same with forty rounds in the run, all poured, and their curves to be drawn."""
    event = {"actor": "Wren", "device": "b", "happened_at": None, "schema_version": 1}
    server.call("POST", "/api/runs/b/events", {**event, "id": "b-end", "kind": "ended", "payload": {}})
    server.call("POST", "/api/clock", {"advance_s": 1, "rate": None})
    order = server.call("GET", "/api/orders/order-first-light")["doc"]
    piece, mould = (
        server.call("GET", "/api/pieces/piece-disc")["doc"],
        server.call("GET", "/api/moulds/mould-disc")["doc"],
    )
    for i in range(40):
        server.call("POST", "/api/moulds", {"id": f"m{i}", "doc": {**mould, "name": f"Mould {i}"}})
        fill = {**piece["parts"][0]["passes"][0], "level_m": 0.002 + i * 5e-5}
        doc = {"name": f"Disc {i}", "parts": [{**piece["parts"][0], "mould_id": f"m{i}", "passes": [fill]}]}
        server.call("POST", "/api/pieces", {"id": f"p{i}", "doc": doc})
    lines = [{"piece_id": f"p{i}", "quantity": 1} for i in range(40)]
    ways = {"isomalt": {**order["ways"]["isomalt"], "vessel_id": "pot-heavy"}}
    server.call("POST", "/api/orders", {"id": "forty", "doc": {**order, "lines": lines, "ways": ways}})
    server.call("POST", "/api/runs", {"id": "f", "order_id": "forty", "actor": "Wren", "device": "b"})
    view = server.call("GET", "/api/runs/f/bench?actor=Wren")["view"]
    assert view["rounds_total"] == 40
    page.reload()
    count = 0
    for cook, rounds in by_cook(server).items():
        for kind, payload in [
            ("acknowledged", {}),
            ("heated", {"cook": cook}),
            ("rested", {"cook": cook}),
            *(("poured", {"round": r}) for r in rounds),
        ]:
            count += 1
            server.call("POST", "/api/clock", {"advance_s": 5 if kind == "poured" else 100, "rate": None})
            server.call(
                "POST", "/api/runs/f/events", {**event, "id": f"f{count}", "kind": kind, "payload": payload}
            )
    row("event to screen, 40 rounds poured", [note_seen(server, page, i) for i in range(20)], "300 ms")


def by_cook(server: Server) -> dict[int, list[int]]:
    doc = server.call("GET", "/api/orders/forty")["doc"]
    glance = server.call("POST", "/api/figures/plan", doc)["glance"]
    asked = {"order": doc, "planned_at": glance["planned_at"]}
    rounds: dict[int, list[int]] = {}
    for task in server.call("POST", "/api/figures/plan/timetable", asked)["timetable"]["tasks"]:
        if task["kind"] == "pour":
            rounds.setdefault(task["number"], []).append(task["round"])
    return {cook: sorted(of) for cook, of in sorted(rounds.items())}


def note_seen(server: Server, page: Page, i: int) -> float:
    """A pause or its end: how long until the other browser's large act says so."""
    kind, word = (("paused", "Paused"), ("resumed", ""))[i % 2]
    page.evaluate(
        """(word) => { window.changed = new Promise((done) => new MutationObserver(() => {
             const says = document.querySelector('[data-testid=act]')?.textContent ?? '';
             if (word ? says === word : says !== 'Paused') done(Date.now());
           }).observe(document.body, { subtree: true, childList: true, characterData: true })); }""",
        word,
    )
    start = time.time() * 1e3
    event = {"actor": "Wren", "device": "b", "happened_at": None, "schema_version": 1, "payload": {}}
    server.call("POST", "/api/runs/f/events", {**event, "id": f"n{i}", "kind": kind})
    return float(page.evaluate("() => window.changed")) - start


def event_seen(server: Server, page: Page, run: str, i: int) -> float:
    """A caution acknowledged, then taken back: how long until the other browser's large act changes."""
    event = {"actor": "Wren", "device": "b", "happened_at": None, "schema_version": 1}
    server.call(
        "POST", f"/api/runs/{run}/events", {**event, "id": f"ack{i}", "kind": "acknowledged", "payload": {}}
    )
    act = page.get_by_test_id("act")
    act.filter(has_text="Weigh").wait_for()
    page.evaluate(
        """() => { window.changed = new Promise((done) => new MutationObserver(() => {
             if (document.querySelector('[data-testid=act]')?.textContent === 'Hot sugar') done(Date.now());
           }).observe(document.body, { subtree: true, childList: true, characterData: true })); }"""
    )
    start = time.time() * 1e3
    server.call(
        "POST",
        f"/api/runs/{run}/events",
        {**event, "id": f"undo{i}", "kind": "cancels", "payload": {"id": f"ack{i}"}},
    )
    return float(page.evaluate("() => window.changed")) - start
