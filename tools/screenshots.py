"""One current picture of each main view, made from the demo data."""

import subprocess
import sys
import tempfile
import time
from pathlib import Path

from playwright.sync_api import Browser, sync_playwright

ROOT = Path(__file__).parent.parent
sys.path.insert(0, str(ROOT))
from tests.browser.conftest import ARGS, CHROMIUM, Server  # noqa: E402
from tests.http import free_port  # noqa: E402

OUT = ROOT / "docs/screenshots"
SETTLED_MS = 900


def shoot(
    browser: Browser,
    server: Server,
    path: str,
    name: str,
    size: tuple[int, int] = (1280, 800),
    scroll: str = "",
    press: str = "",
) -> None:
    page = browser.new_context(viewport={"width": size[0], "height": size[1]}, locale="en-GB").new_page()
    page.goto(server.base + path)
    page.wait_for_selector("h1, h2")
    page.wait_for_timeout(SETTLED_MS)
    if press:
        page.get_by_text(press).first.click()
        page.wait_for_timeout(SETTLED_MS)
    page.wait_for_function(
        "() => !document.querySelector('[aria-busy=true]') && !document.querySelector('main').innerText.includes('Reckoning the order')"
    )
    page.wait_for_timeout(SETTLED_MS)
    page.wait_for_function("() => !document.querySelector('[aria-busy=true]')")
    if scroll:
        page.evaluate("(name) => document.querySelector(`section[aria-label='${name}']`).scrollIntoView()", scroll)
        page.wait_for_timeout(SETTLED_MS)
    page.screenshot(path=OUT / f"{name}.png")
    page.context.close()


def run_to_two_rounds(server: Server) -> None:
    """A bent lens setting, the pot on its window again: as the bench looks in the middle of an evening."""
    server.call("POST", "/api/runs", {"id": "shown", "order_id": "order-comet", "actor": "Wren", "device": "demo"})
    count = 0

    def tell(kind: str, after_s: float, **payload: object) -> None:
        nonlocal count
        count += 1
        server.advance(after_s)
        event = {"id": f"shown-{count}", "kind": kind, "payload": payload, "actor": "Wren", "device": "demo"}
        server.call("POST", "/api/runs/shown/events", {**event, "happened_at": None, "schema_version": 1})

    tell("acknowledged", 20)
    tell("heated", 120, cook=0)
    tell("rested", 190, cook=0, degc=160.5)
    for after, degc in ((45, 154.6), (40, 150.1)):
        tell("reading", after, cook=0, degc=degc, method="immersed_swirled")
    tell("poured", 70, round=0)
    server.advance(60)


def lollipops_with_a_probe(server: Server) -> subprocess.Popen[bytes]:
    """Lollipops with their sticks in, off to the fridge, and a thermometer in the bowl."""
    event = {"actor": "Wren", "device": "demo", "happened_at": None, "schema_version": 1}
    server.call("POST", "/api/runs/shown/events", {**event, "id": "shown-end", "kind": "ended", "payload": {}})
    start = {"id": "sweet", "order_id": "order-planets", "actor": "Wren", "device": "demo"}
    server.call("POST", "/api/runs", start)
    steps = [
        ("burst", 120, {"cook": 0, "seconds": 30.0, "power_frac": 1.0}),
        ("burst", 46, {"cook": 0, "seconds": 10.0, "power_frac": 1.0}),
        ("rested", 26, {"cook": 0}),
        ("poured", 60, {"round": 0}),
    ]
    for i, (kind, after_s, payload) in enumerate(steps):
        server.advance(after_s)
        server.call(
            "POST", "/api/runs/sweet/events", {**event, "id": f"sweet-{i}", "kind": kind, "payload": payload}
        )
    port = server.probe.partition(":")[2]
    command = [
        sys.executable,
        "-m",
        "umber_pebble.cli",
        "probe",
        "--port",
        port,
        "--app",
        server.base,
        "--every",
        "0.2",
    ]
    thermometer = subprocess.Popen(command, stdout=subprocess.DEVNULL)
    for _ in range(100):
        if server.call("GET", "/api/probes")["items"]:
            break
        time.sleep(0.2)
    server.call("POST", "/api/probes/a/subject", {"subject": {"of": "pot", "number": 0}})
    server.call("POST", "/api/clock", {"advance_s": 0, "rate": 10})
    time.sleep(6)
    server.call("POST", "/api/clock", {"advance_s": 0, "rate": 0})
    return thermometer


BAGS = {
    "Moon": "#f1ead9",
    "Ochre": "#c98a2b",
    "Mars": "#a8402c",
    "Dusk": "#5b4a78",
    "Night": "#1f2a44",
    "Ice": "#bfe3ea",
}


def drawing_apart(server: Server) -> None:
    """The constellation without its hoop, one link short: it falls apart."""
    board = server.call("GET", "/api/moulds/mould-constellation")["doc"]
    [cavity] = board["cavities"]
    lines = cavity["shape"]["lines"]
    cavity["shape"]["lines"] = [*lines[1:9], *lines[10:12]]
    server.call("POST", "/api/moulds", {"id": "mould-kite", "doc": {**board, "name": "Kite, first drawing"}})


def bags(server: Server) -> None:
    """What is left of the bowl, parted into six bags."""
    into = [
        {"name": name, "colour": colour, "kg": 0.004, "holder": "bag", "spot": "towel", "tip_m": 0.004}
        for name, colour in BAGS.items()
    ]
    event = {"actor": "Wren", "device": "demo", "happened_at": None, "schema_version": 1}
    server.call(
        "POST",
        "/api/runs/sweet/events",
        {**event, "id": "bags", "kind": "decanted", "payload": {"cook": 0, "into": into}},
    )
    server.advance(90)


def main() -> None:
    OUT.mkdir(parents=True, exist_ok=True)
    with tempfile.TemporaryDirectory() as folder, sync_playwright() as p:
        server = Server(Path(folder), demo=True, probe=f"127.0.0.1:{free_port()}")
        browser = p.chromium.launch(executable_path=CHROMIUM, args=ARGS)
        shoot(browser, server, "/work-out?ask=unmould&thickness_m=0.004", "work-out")
        shoot(browser, server, "/orders/order-sky", "plan")
        shoot(browser, server, "/orders/order-first-light/windows", "plan-windows")
        shoot(browser, server, "/orders/order-sky/timetable", "plan-timetable")
        shoot(browser, server, "/pieces/piece-pop", "piece")
        shoot(browser, server, "/pieces/piece-dome", "together", press="put together", scroll="Does it stand?")
        shoot(browser, server, "/orders/order-pops/cards", "pour-cards")
        drawing_apart(server)
        shoot(browser, server, "/pieces/moulds/mould-kite", "drawing")
        shoot(browser, server, "/pieces/moulds/mould-aurora", "sheet")
        shoot(browser, server, "/work-out/heat", "heat")
        shoot(browser, server, "/work-out/melt", "melt")
        shoot(browser, server, "/work-out/temper", "temper")
        shoot(browser, server, "/work-out/colour", "colour")
        shoot(browser, server, "/heat/materials/coating", "materials")
        shoot(browser, server, "/kitchen", "kitchen")
        shoot(browser, server, "/log/run-rehearsal", "log")
        run_to_two_rounds(server)
        shoot(browser, server, "/bench", "bench")
        shoot(browser, server, "/bench", "bench-phone", (390, 844))
        thermometer = lollipops_with_a_probe(server)
        bags(server)
        shoot(browser, server, "/bench", "bench-held")
        thermometer.kill()
        browser.close()
        server.kill()
    print("\n".join(sorted(str(f.relative_to(ROOT)) for f in OUT.glob("*.png"))))


if __name__ == "__main__":
    main()
