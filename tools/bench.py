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

import numpy as np
from playwright.sync_api import Browser, Page, sync_playwright
from scipy.integrate import solve_ivp
from scipy.sparse import diags

sys.path.insert(0, str(Path(__file__).parent.parent))
from tests.browser.conftest import ARGS, CHROMIUM, Server
from tests.conftest import make_lollipops, make_plan

from umber_pebble.core.colour.look import Medium
from umber_pebble.core.colour.recipe import recipe
from umber_pebble.core.colour.spaces import lab_of_hex
from umber_pebble.core.heat.conduction import Face, Layer, conduct, growing_times_s
from umber_pebble.core.heat.convection import h_convection_w_m2k, h_radiation_w_m2k
from umber_pebble.core.heat.vessel import base_case
from umber_pebble.core.heat.windows import windows_s
from umber_pebble.core.materials.load import material
from umber_pebble.core.melts.bursts import Belief, Bowl, Burst, Look, School, next_burst
from umber_pebble.core.melts.hold import Held, Stood, Story, keeps, spot_of
from umber_pebble.core.melts.oven import Microwave
from umber_pebble.core.plan.compile import compile_plan
from umber_pebble.core.plan.cooks import casting_of, make_cooks, path_of
from umber_pebble.core.spread import exact
from umber_pebble.core.temper.guide import after_seed
from umber_pebble.core.temper.schools import Tempering
from umber_pebble.core.temper.seed import Bowl as SeedBowl
from umber_pebble.core.temper.seed import plan_seed
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
        [cook] = make_cooks(plan, [[(0, 8)]])
        [line], [way], [key] = plan.lines, plan.ways.values(), plan.ways
        compile_plan(plan)
        hot = cook.window.open_degc.likely

        def part(i: int, plan=plan, line=line, cook=cook, hot=hot) -> object:  # type: ignore[no-untyped-def]
            # a new pour temperature each time, so that nothing is remembered
            path = path_of(plan, line, 8)
            return windows_s(casting_of(plan, line, exact(hot - i / 2), cook.flow, path))

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

        def many(i: int, plan=plan, line=line, cook=cook, hot=hot) -> None:  # type: ignore[no-untyped-def]
            one = casting_of(plan, line, exact(hot), cook.flow, path_of(plan, line, 8))
            for k in range(200):
                windows_s(replace(one, wall_m=0.002 + k * 1e-5 + i * 1e-7))

        row(f"200 parts with spread, {name}", timed(many, 3), "2000 ms")


def colours() -> None:
    """A recipe from six colours at hand, on ivory and in clear isomalt."""
    six = ("e102", "e110", "e129", "e122", "e133", "e151")
    for name, medium in (
        ("ivory", Medium(material("bases", "white_chocolate"), 1235.0)),
        ("clear", Medium(material("bases", "clear_isomalt"), 1430.0)),
    ):
        recipe(medium, lab_of_hex("#808080"), six, 500.0)
        row(
            f"colour recipe from six, {name}",
            timed(lambda i, medium=medium: recipe(medium, lab_of_hex(f"#{40 + i:02x}8{i % 10}5{i % 10}"), six, 500.0), 30), "100 ms",
        )  # fmt: skip


def against_a_library() -> None:
    """Isomalt in a mould on wood, 60 nodes, air on both faces: the engine and scipy's BDF with a banded Jacobian, at the
    same error against a fine run of the latter."""
    n, k = np.array([30, 15, 15]), np.array([0.34, 0.25, 0.14])
    thick, rho, cp = np.array([0.004, 0.003, 0.02]), np.array([1430.0, 1150, 600]), np.array([1950.0, 1400, 1700])
    contact, end, air = np.array([np.inf, np.inf, 200.0]), 1800.0, 22.0
    layers = [
        Layer(f"l{i}", thick[i], int(n[i]), k[i], rho[i], cp[i], cp[i], 0.0, 135.0 if i == 0 else air, contact[i])
        for i in range(3)
    ]
    top, bottom = Face(air, 1, 0.015, 0.9), Face(air, 2, 0.06, 0.9)
    times = growing_times_s(end)
    dx, kk, c = np.repeat(thick / n, n), np.repeat(k, n), np.repeat(rho * cp * thick / n, n)
    join = np.zeros(60)
    join[np.cumsum(n)[:-1]] = 1 / contact[1:]
    g = 1 / (0.5 * dx[:-1] / kk[:-1] + join[1:] + 0.5 * dx[1:] / kk[1:])
    start = np.repeat([layer.start_degc for layer in layers], n)

    def face(t: float, half: float, length: float, facing: int) -> float:
        """Heat out of a face whose surface is where both sides agree."""
        surface = t
        for _ in range(4):
            h = h_convection_w_m2k(surface, air, length, facing) + h_radiation_w_m2k(surface, air, 0.9)
            surface = (half * t + h * air) / (half + h)
        return half * (t - surface)

    def rate(_: float, t: np.ndarray) -> np.ndarray:  # type: ignore[type-arg]
        flow = g * (t[:-1] - t[1:])
        out = np.zeros(60)
        out[:-1] -= flow
        out[1:] += flow
        out[0] -= face(t[0], 2 * kk[0] / dx[0], 0.015, 1)
        out[-1] -= face(t[-1], 2 * kk[-1] / dx[-1], 0.06, 2)
        return out / c

    banded = diags([1.0, 1.0, 1.0], [-1, 0, 1], shape=(60, 60))
    looked = np.array([60.0, 300.0, 900.0, 1800.0])

    def bdf(rtol: float) -> np.ndarray:  # type: ignore[type-arg]
        return solve_ivp(rate, (0, end), start, "BDF", looked, rtol=rtol, atol=rtol, jac_sparsity=banded).y

    def ours(_: int = 0) -> np.ndarray:  # type: ignore[type-arg]
        return conduct(layers, top, bottom, times).temps_degc

    fine, found = bdf(1e-9), ours()
    at = np.array([[np.interp(s, times, node) for s in looked] for node in found.T])
    error = float(np.abs(at - fine).max())
    rtol = next(r for r in np.logspace(-2, -8, 40) if np.abs(bdf(r) - fine).max() <= error)
    ours_ms, theirs_ms = statistics.median(timed(ours, 60)), statistics.median(timed(lambda _: bdf(rtol), 8))
    print(
        f"60 nodes, both {error:.2f} K off: engine {ours_ms:.2f} ms, BDF {theirs_ms:.1f} ms   "
        f"ratio {theirs_ms / ours_ms:.0f}   asked: 30", flush=True,
    )  # fmt: skip


def bowls() -> None:
    """What is told at the bowl: bursts after a look, seed after a reading, six bags held."""
    coating = material("melts", "coating")
    pot = make_lollipops().ways["coating"].pot

    def bowl(i: int) -> Bowl:
        case = base_case(pot, coating, 0.2 + i / 1000)
        return Bowl(case, Microwave(900.0, 15.0), 20.0, 43.0, coating.spread("wafer"), School())

    bursts = [Burst(0.0, 30.0, 1.0)]
    row(
        "next burst after a look",
        timed(lambda i: next_burst(Belief(bowl(i), bursts, [Look(45.0, "half")]), bursts, 45.0), 40),
        "30 ms",
    )
    held = [Held(coating, 0.04 + i / 100, exact(38.0), "bag", 21.0, tip_m=0.004) for i in range(6)]
    story = Story((Stood(0.0, spot_of("towel", 21.0)),))
    row(
        "six held bags, how long each flows",
        timed(lambda i: [keeps(h, story, float(i)) for h in held], 30),
        "live",
    )
    dark = material("melts", "dark")
    seeding = Tempering(dark, "seed", 0.5, 45.0, 20.0, SeedBowl(0.35, 840.0)).seeding
    row(
        "seed and the act after a reading",
        timed(lambda i: (plan_seed(seeding), after_seed(seeding, 0.2, 31.0 + i / 100)), 40),
        "30 ms",
    )


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
        page = browser.new_context().new_page()
        page.goto(server.base + "/heat")
        page.get_by_role("img", name="Way 2, ").wait_for()
        row("explorer change to the pixel, two ways", [explorer_change(page, i) for i in range(40)], "100 ms")
        page.context.close()
        edit = browser.new_context(viewport={"width": 1280, "height": 800}).new_page()
        edit.goto(server.base + "/pieces/piece-pop")
        edit.get_by_role("list", name="Passes").get_by_role("button", name="Shell").click()
        edit.get_by_label("Thickness, slider").wait_for()
        row("a build edited, to the pixel", [build_change(edit, i) for i in range(30)], "100 ms")
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


def orders(server: Server) -> None:
    """An order of twelve kinds: compiled whole, and with one quantity changed."""
    doc = server.call("GET", "/api/orders/order-table")["doc"]
    kinds = [p["id"] for p in server.call("GET", "/api/pieces")["items"]]
    for i, like in enumerate(("piece-pop", "piece-filled")):
        piece = server.call("GET", f"/api/pieces/{like}")["doc"]
        server.call("POST", "/api/pieces", {"id": f"more{i}", "doc": {**piece, "name": f"{piece['name']} {i}"}})
        kinds.append(f"more{i}")
    doc["lines"] = [{"piece_id": kind, "quantity": 8} for kind in kinds[:12]]

    def plan(quantity: int) -> None:
        doc["lines"][0]["quantity"] = quantity
        server.call("POST", "/api/figures/plan", doc)

    row("an order of twelve kinds, whole", timed(lambda _: plan(8), 1), "1500 ms")
    row("the same, one quantity changed", timed(lambda i: plan(9 + i), 12), "150 ms")


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
    colours()
    bowls()
    against_a_library()
    app()
    machine()


if __name__ == "__main__":
    main()
