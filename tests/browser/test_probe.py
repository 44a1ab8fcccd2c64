"""Lollipops with a thermometer that types for her, at speed: a process of its own, plugged in, lost and found."""

import contextlib
import re
import signal
import socket
import subprocess
import sys
import time
from collections.abc import Callable, Iterator
from pathlib import Path

import pytest
from playwright.sync_api import Page, expect

from tests.browser.conftest import Server, act, space, until
from tests.http import free_port

OpenPage = Callable[..., Page]


class Thermometer:
    """The simulated thermometer as a process."""

    def __init__(self, port: int, app: str) -> None:
        self.port, self.app = port, app
        self.start()

    def start(self) -> None:
        command = [sys.executable, "-m", "umber_pebble.cli", "probe", "--port", str(self.port), "--app", self.app]
        self.process = subprocess.Popen([*command, "--every", "0.2"], stdout=subprocess.DEVNULL)
        for _ in range(100):
            with contextlib.suppress(OSError), socket.create_connection(("127.0.0.1", self.port)):
                return
            time.sleep(0.1)
        raise TimeoutError(f"no bridge on port {self.port}")

    def tell(self, line: str) -> None:
        with socket.create_connection(("127.0.0.1", self.port)) as bridge:
            bridge.sendall(f"{line}\n".encode())

    def kill(self) -> None:
        self.process.send_signal(signal.SIGKILL)
        self.process.wait()


@pytest.fixture
def plugged(tmp_path: Path) -> Iterator[tuple[Server, Thermometer]]:
    port = free_port()
    server = Server(tmp_path, demo=True, probe=f"127.0.0.1:{port}")
    thermometer = Thermometer(port, server.base)
    yield server, thermometer
    thermometer.kill()
    server.kill()


def readings(server: Server) -> list[dict[str, object]]:
    return [e for e in server.call("GET", "/api/runs/hot/events")["items"] if e["kind"] == "reading"]


def test_lollipops_with_the_probe_at_speed(plugged: tuple[Server, Thermometer], open_page: OpenPage) -> None:
    server, thermometer = plugged
    server.call("POST", "/api/runs", {"id": "hot", "order_id": "order-planets", "actor": "Wren", "device": "t"})
    page = open_page(server.base + "/bench")
    act(page, "Weigh .* coating, melt it")
    space(page)
    act(page, "10 s more")
    server.advance(46)
    page.get_by_role("button", name="smooth", exact=True).click()
    act(page, "Take the bowl out")
    space(page)
    strip = page.get_by_role("region", name="Thermometer")
    probe = strip.get_by_role("button", name=re.compile("Long probe"))
    expect(probe).to_contain_text("in nothing", timeout=15_000)
    probe.click()
    expect(probe).to_contain_text("in Blue bowl")
    # at thirty seconds a second a slow machine's probe would be believed before it has shown what it was put into:
    # it shows its bowl while it is still said to settle, and the clock stands
    server.advance(15)
    expect(probe).to_contain_text(re.compile(r"\b3\d"), timeout=15_000)
    # thirty seconds a second: the pot cools, the probe types, the window moves
    server.call("POST", "/api/clock", {"advance_s": 0, "rate": 30})
    act(page, "Pour 8 cavities")
    until(page, lambda: len(readings(server)) >= 4, "the probe types its readings")
    server.call("POST", "/api/clock", {"advance_s": 0, "rate": 0})
    typed = readings(server)
    assert {e["actor"] for e in typed} == {"Long probe"}
    assert {e["payload"]["method"] for e in typed} == {"immersed_unswirled"}  # type: ignore[index]
    degc = [e["payload"]["degc"] for e in typed]  # type: ignore[index]
    assert min(degc) > 25 and max(degc) < 46, degc
    # faults are seen and said, and never taken for truth
    for fault, words in (("out_of_range", "out of range"), ("jumping", "jumping"), ("lost", "unplugged")):
        thermometer.tell(f"fault a {fault}")
        expect(probe).to_contain_text(words)
        count = len(readings(server))
        server.advance(60)
        for _ in range(2):
            page.wait_for_event("response", lambda answer: answer.url.endswith("/api/probes"))
        assert len(readings(server)) == count
    thermometer.tell("fault a none")
    expect(probe).to_contain_text("in Blue bowl", timeout=15_000)
    thermometer.kill()
    expect(probe).to_contain_text("unplugged", timeout=15_000)
    thermometer.start()
    expect(probe).to_contain_text("in Blue bowl", timeout=15_000)
    act(page, "Pour 8 cavities|Warm it again")


def test_a_probe_is_named_once_for_all(plugged: tuple[Server, Thermometer], open_page: OpenPage) -> None:
    server, _ = plugged
    page = open_page(server.base + "/kitchen/devices")
    section = page.get_by_role("region", name="Thermometer")
    section.get_by_label("Immersed").fill("Red probe")
    until(page, lambda: server.call("GET", "/api/probes")["items"][0]["name"] == "Red probe", "the name is kept")
    expect(section.get_by_label("Immersed")).to_have_value("Red probe")
    page.reload()
    expect(section.get_by_label("Immersed")).to_have_value("Red probe")
