"""A kitchen's whole traffic and its bad neighbours: events to many listeners, silent and slow peers, a drawing that cannot be read."""

import asyncio
import json
import socket
import tempfile
import threading
import time
from contextlib import ExitStack
from pathlib import Path
from typing import Any

from bench_rows import row, timed
from tests.browser.conftest import Server
from tests.http import call

BEHIND, LISTENERS, FETCHING, EVENTS_A_S, FOR_S = 1200, 200, 10, 20, 60
FETCH_EVERY_S = 0.5
SILENT = 300
NOTE = {"kind": "note", "actor": "Wren", "device": "b", "happened_at": None, "schema_version": 1}


def note(name: str) -> dict[str, Any]:
    return {**NOTE, "id": name, "payload": {"text": name}}


def memory_mb(server: Server) -> float:
    text = Path(f"/proc/{server.process.pid}/status").read_text()
    return int(text.split("VmRSS:")[1].split()[0]) / 1024


async def _asked(port: int, method: str, path: str, body: Any = None) -> None:
    reader, writer = await asyncio.open_connection("127.0.0.1", port)
    text = b"" if body is None else json.dumps(body).encode()
    head = f"{method} {path} HTTP/1.1\r\nHost: 127.0.0.1:{port}\r\nContent-Type: application/json\r\nContent-Length: {len(text)}\r\nConnection: close\r\n\r\n"
    writer.write(head.encode() + text)
    answer = await reader.read()
    writer.close()
    assert answer.startswith(b"HTTP/1.1 2"), answer[:200]


class Listener:
    """One page that is open: what it was told and when; some of them fetch the bench then, at most twice a second."""

    def __init__(self, port: int, fetches: bool) -> None:
        self.port, self.fetches, self.heard = port, fetches, dict[int, float]()
        self.stale, self.ready = asyncio.Event(), asyncio.Event()

    async def listen(self) -> None:
        reader, writer = await asyncio.open_connection("127.0.0.1", self.port)
        writer.write(f"GET /api/stream HTTP/1.1\r\nHost: 127.0.0.1:{self.port}\r\n\r\n".encode())
        while line := await reader.readline():
            self.ready.set()
            if line.startswith(b"data: ") and (message := json.loads(line[6:]))["topic"] == "run":
                self.heard[message["seq"]] = time.perf_counter()
                self.stale.set()

    async def fetch(self) -> None:
        while True:
            await self.stale.wait()
            self.stale.clear()
            await _asked(self.port, "GET", "/api/runs/load/bench?actor=Wren")
            await asyncio.sleep(FETCH_EVERY_S)


async def _minute(port: int, first_seq: int) -> tuple[list[float], list[float], int]:
    listeners = [Listener(port, i < FETCHING) for i in range(LISTENERS)]
    at_work = [asyncio.create_task(of.listen()) for of in listeners]
    await asyncio.gather(*(of.ready.wait() for of in listeners))
    at_work += [asyncio.create_task(of.fetch()) for of in listeners if of.fetches]
    posts, sent, count = list[float](), dict[int, float](), EVENTS_A_S * FOR_S

    async def post(i: int) -> None:
        start = sent[first_seq + i] = time.perf_counter()
        await _asked(port, "POST", "/api/runs/load/events", note(f"load-{i}"))
        posts.append((time.perf_counter() - start) * 1e3)

    begun = time.perf_counter()
    for i in range(count):
        await asyncio.sleep(max(begun + i / EVENTS_A_S - time.perf_counter(), 0.0))
        await post(i)
    await asyncio.sleep(1.0)
    for task in at_work:
        task.cancel()
    arrived = [(at - sent[seq]) * 1e3 for of in listeners for seq, at in of.heard.items()]
    missed = sum(count - len(of.heard) for of in listeners)
    return posts, arrived, missed


def load() -> None:
    """Twenty events a second for a minute, told to two hundred, in a run that is long already."""
    with tempfile.TemporaryDirectory() as folder, ExitStack() as stack:
        server = Server(Path(folder), demo=True, forks=False)
        stack.callback(server.kill)
        order = {"id": "load", "order_id": "order-first-light", "actor": "Wren", "device": "b"}
        server.call("POST", "/api/runs", order)
        for i in range(BEHIND):
            server.call("POST", "/api/runs/load/events", note(f"before-{i}"))
        before = memory_mb(server)
        posts, arrived, missed = asyncio.run(_minute(server.port, BEHIND + 2))
        row(f"event posted, {LISTENERS} listen, {FETCHING} fetch, {EVENTS_A_S}/s", posts, "95 % within 200 ms")
        row("its message at each of them", arrived, "95 % within 200 ms")
        print(f"{'messages missed':46} {missed:7d}      asked: 0")
        print(f"{'memory before and after':46} {before:7.0f} MB   {memory_mb(server):.0f} MB   asked: flat")
        neighbours(server)


def neighbours(server: Server) -> None:
    """An event posted alone, then beside each bad neighbour."""
    count = 0

    def post(_: int) -> object:
        nonlocal count
        count += 1
        return server.call("POST", "/api/runs/load/events", note(f"beside-{count}"))

    row("event posted alone", timed(post, 60), "-")
    with ExitStack() as held:
        held.enter_context(_silent(server.port))
        row(f"the same beside {SILENT} silent and slow peers", timed(post, 60), "twice that")
    stop = threading.Event()
    crossing = "M0 0 " + " ".join(f"L{(i * 7919) % 997} {(i * 104729) % 991}" for i in range(3000)) + " Z"

    def draw() -> None:
        while not stop.is_set():
            call(server.base, "POST", "/api/figures/outline", {"svg": crossing, "width_m": 0.05})

    drawing = threading.Thread(target=draw)
    drawing.start()
    row("the same beside a drawing that crosses itself", timed(post, 60), "twice that")
    stop.set()
    drawing.join()


def _silent(port: int) -> ExitStack:
    """Peers that say nothing, and every second one half a request."""
    held = ExitStack()
    for i in range(SILENT):
        peer = held.enter_context(socket.create_connection(("127.0.0.1", port)))
        if i % 2:
            peer.sendall(b"GET /api/clock HTTP/1.1\r\nHost: 127.0.0.1\r\nX-Slow: ")
    return held
