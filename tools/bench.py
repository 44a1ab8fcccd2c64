"""Speed, shown: engine, plan, event to a second browser, first view. Prints what was found against what is asked."""

import statistics
import subprocess
import sys
import tempfile
import time
from collections.abc import Callable
from contextlib import ExitStack
from dataclasses import replace
from datetime import UTC, datetime
from pathlib import Path

from playwright.sync_api import Browser, Page, sync_playwright

sys.path.insert(0, str(Path(__file__).parent.parent))
from tests.browser.conftest import ARGS, CHROMIUM, Server
from tests.conftest import make_lollipops, make_plan

from umber_pebble.core.heat.windows import windows_s
from umber_pebble.core.plan.compile import compile_plan
from umber_pebble.core.plan.cooks import casting_of, line_amounts, make_cooks, path_of
from umber_pebble.core.spread import exact
from umber_pebble.services.planning import warm_up


def row(what: str, found: list[float], asked: str, unit: str = "ms") -> None:
    found.sort()
    p95 = found[min(len(found) - 1, int(0.95 * len(found)))]
    print(
        f"{what:46} {statistics.median(found):7.1f} {unit}   95 %: {p95:7.1f} {unit}   asked: {asked}", flush=True
    )


def timed(work: Callable[[int], object], times: int) -> list[float]:
    out = []
    for i in range(times):
        start = time.perf_counter()
        work(i)
        out.append((time.perf_counter() - start) * 1e3)
    return out


def engine() -> None:
    warm_up()
    for name, plan in (("isomalt", make_plan()), ("coating", make_lollipops())):
        amounts = line_amounts(plan)
        [cook] = make_cooks(plan, [[(0, 8)]], amounts)
        [line], [way], [key] = plan.lines, plan.ways.values(), plan.ways
        compile_plan(plan)
        hot = cook.window.open_degc.likely

        def part(i: int, plan=plan, line=line, amounts=amounts, cook=cook, hot=hot) -> object:  # type: ignore[no-untyped-def]
            # a new pour temperature each time, so that nothing is remembered
            path = path_of(plan, line, 8)
            return windows_s(casting_of(plan, line, amounts[0], exact(hot - i / 2), cook.flow, path))

        def warmer(i: int, plan=plan, way=way, key=key) -> object:  # type: ignore[no-untyped-def]
            air = 20 + i / 16
            warm = replace(
                way,
                pot=replace(way.pot, air_degc=air),
                poured_on=replace(way.poured_on, air_degc=air),
                sets_in=replace(way.sets_in, air_degc=way.sets_in.air_degc + i / 16),
            )
            return compile_plan(replace(plan, room_degc=air, ways={key: warm}))

        row(f"one part with spread, {name}", timed(part, 40), "30 ms")
        row(f"this plan recomputed, {name}", timed(warmer, 40), "80 ms")


def machine() -> None:
    """How fast this machine is just now: what else is shown is to be read beside it."""
    row("a million additions in plain Python", timed(lambda _: sum(i for i in range(1_000_000)), 9), "about 40 ms")


def app() -> None:
    with tempfile.TemporaryDirectory() as folder, sync_playwright() as p, ExitStack() as stack:
        server = Server(Path(folder), demo=True)
        stack.callback(server.kill)
        browser = p.chromium.launch(executable_path=CHROMIUM, args=ARGS)
        order = server.call("GET", "/api/orders/order-first-light")["doc"]
        kitchen = server.call("GET", "/api/kitchen")
        server.call("POST", "/api/figures/plan", order)

        def served(i: int) -> object:
            return server.call(
                "POST", "/api/figures/plan", {**order, "isomalt": {**order["isomalt"], "cook_degc": 158 + i / 16}}
            )

        row("this plan over HTTP, changed each time", timed(served, 40), "80 ms")
        assert kitchen["version"] >= 1

        row(
            "first view with its figures, nothing cached",
            [first_view(server, browser) for _ in range(12)],
            "1000 ms",
        )
        server.call(
            "POST", "/api/runs", {"id": "b", "order_id": "order-first-light", "actor": "Wren", "device": "b"}
        )
        seen = browser.new_context().new_page()
        seen.goto(server.base + "/bench")
        seen.get_by_test_id("act").wait_for()
        row("event to a second browser's screen", [event_seen(server, seen, "b", i) for i in range(20)], "200 ms")
        forty(server, seen)
        browser.close()


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
    page.goto(server.base + "/plan/order-first-light", wait_until="commit")
    took = float(page.evaluate("() => window.shown"))
    page.context.close()
    return took


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
        doc = {**piece, "name": f"Disc {i}", "mould_id": f"m{i}", "fill_m": 0.002 + i * 5e-5}
        server.call("POST", "/api/pieces", {"id": f"p{i}", "doc": doc})
    lines = [{"piece_id": f"p{i}", "quantity": 1} for i in range(40)]
    vessel = {**order["isomalt"], "vessel_id": "pot-heavy"}
    server.call("POST", "/api/orders", {"id": "forty", "doc": {**order, "lines": lines, "isomalt": vessel}})
    server.call("POST", "/api/runs", {"id": "f", "order_id": "forty", "actor": "Wren", "device": "b"})
    view = server.call("GET", "/api/runs/f/bench?actor=Wren")["view"]
    assert view["rounds_total"] == 40
    page.reload()
    count = 0
    for cook, rounds in by_cook(server).items():
        for kind, payload in [("acknowledged", {}), ("heated", {"cook": cook}), ("rested", {"cook": cook}), *(("poured", {"round": r}) for r in rounds)]:  # fmt: skip
            count += 1
            server.call("POST", "/api/clock", {"advance_s": 5 if kind == "poured" else 100, "rate": None})
            server.call(
                "POST", "/api/runs/f/events", {**event, "id": f"f{count}", "kind": kind, "payload": payload}
            )
    row("event to screen, 40 rounds poured", [note_seen(server, page, i) for i in range(20)], "300 ms")


def by_cook(server: Server) -> dict[int, list[int]]:
    plan = server.call("POST", "/api/figures/plan", server.call("GET", "/api/orders/forty")["doc"])
    return {c["number"]: c["rounds"] for c in plan["cooks"]}


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


def main() -> None:
    cores = subprocess.run(["nproc"], capture_output=True, text=True, check=True).stdout.strip()
    print(f"{datetime.now(UTC):%Y-%m-%d}, {cores} cores, Python {sys.version.split()[0]}")
    machine()
    engine()
    app()
    machine()


if __name__ == "__main__":
    main()
