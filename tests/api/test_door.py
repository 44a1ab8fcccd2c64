"""The door: no peer stops another, whatever it sends or does not send; live streams cost no thread."""

import asyncio
import contextlib
import http.client
import json
import socket
import ssl
import subprocess
import sys
from collections.abc import Iterator
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass
from pathlib import Path
from typing import Any

import pytest

from tests.http import call, free_port, started
from umber_pebble.door import Door
from umber_pebble.lan import own_addresses

LISTENERS, SILENT = 200, 300


@dataclass
class Served:
    base: str
    port: int
    lan_port: int
    process: subprocess.Popen[bytes]

    def answers(self, times: int = 1) -> None:
        """Each within the twenty seconds a call waits: how quickly is shown by the benchmarks."""
        for _ in range(times):
            assert call(self.base, "GET", "/api/clock")[0] == 200


@pytest.fixture(scope="module")
def served(tmp_path_factory: pytest.TempPathFactory) -> Iterator[Served]:
    port, lan_port = free_port(), free_port()
    process = started(
        tmp_path_factory.mktemp("door"), port, "--lan", "--lan-port", str(lan_port), "--probe", "off"
    )
    yield Served(f"http://127.0.0.1:{port}", port, lan_port, process)
    # stopped as a system stops it: streams end, the log is folded in
    process.terminate()
    assert process.wait(15) == 0


def opened(port: int) -> socket.socket:
    return socket.create_connection(("127.0.0.1", port), 5)


def listening(served: Served) -> http.client.HTTPResponse:
    connection = http.client.HTTPConnection("127.0.0.1", served.port, timeout=10)
    connection.request("GET", "/api/stream")
    return connection.getresponse()


def test_silent_and_slow_peers_stop_nobody(served: Served) -> None:
    with contextlib.ExitStack() as held:
        for port in (served.port, served.lan_port):
            for i in range(SILENT // 2):
                peer = held.enter_context(opened(port))
                if i % 2 and port == served.port:
                    peer.sendall(b"GET /api/clock HTTP/1.1\r\nHost: 127.0.0.1\r\nX-Slow: ")
        served.answers(20)
        # none of them is waited for for ever
        peer.settimeout(20)
        assert peer.recv(100) == b""


def test_what_is_too_large_is_cut_short(served: Served) -> None:
    with opened(served.port) as peer:
        peer.sendall(b"GET /api/clock HTTP/1.1\r\nHost: 127.0.0.1\r\nX-Long: ")
        with contextlib.suppress(ConnectionError):
            for _ in range(300):
                peer.sendall(b"a" * 1_000_000)
            pytest.fail("300 MB of headers were taken")
    connection = http.client.HTTPConnection("127.0.0.1", served.port, timeout=20)
    chunks = (b"x" * 1_000_000 for _ in range(40))
    with contextlib.suppress(ConnectionError):
        connection.request(
            "POST", "/api/figures/outline", chunks, {"Content-Type": "application/json"}, encode_chunked=True
        )
    assert connection.getresponse().status == 413
    served.answers()


def test_two_hundred_listeners_hear_at_once_and_leave_requests_alone(served: Served) -> None:
    streams = [listening(served) for _ in range(LISTENERS)]
    served.answers(20)
    units = call(served.base, "GET", "/api/units")[1]
    body = {
        "version": units["version"],
        "doc": units["doc"] | {"mass": "oz" if units["doc"]["mass"] == "g" else "g"},
    }
    assert call(served.base, "PUT", "/api/units", body)[0] == 200
    for stream in streams:
        while True:
            line = stream.readline()
            if line.startswith(b"data"):
                break
        assert json.loads(line[5:]) == {"topic": "thing", "kind": "units", "id": "units"}
        stream.close()
    served.answers(5)


def outside(
    served: Served, method: str, path: str, body: object = None, cookie: str = ""
) -> http.client.HTTPResponse:
    trusting = ssl._create_unverified_context()
    connection = http.client.HTTPSConnection("127.0.0.1", served.lan_port, timeout=10, context=trusting)
    headers = {
        "Host": f"{own_addresses()[-1].upper()}:{served.lan_port}",
        "Content-Type": "application/json",
        "Cookie": cookie,
    }
    connection.request(method, path, None if body is None else json.dumps(body), headers)
    return connection.getresponse()


def test_a_dropped_device_hears_nothing_more_from_that_moment(served: Served) -> None:
    code = call(served.base, "POST", "/api/devices/code", {})[1]["code"]
    assert outside(served, "GET", "/api/stream").status == 401
    paired = outside(served, "POST", "/api/devices/pair", {"code": code, "name": "Tablet"})
    cookie = str(paired.headers["Set-Cookie"]).split(";")[0]
    stream = outside(served, "GET", "/api/stream", cookie=cookie)
    assert stream.status == 200 and stream.readline().startswith(b"retry")
    [device] = call(served.base, "GET", "/api/devices")[1]["items"]
    call(served.base, "DELETE", f"/api/devices/{device['id']}", {})
    # the rest of what was said, and no sign of life after it
    assert any(stream.readline() == b"" for _ in range(4))
    assert outside(served, "GET", "/api/kitchen", cookie=cookie).status == 401


def test_a_stop_leaves_the_file_alone_as_the_data(tmp_path: Path) -> None:
    port = free_port()
    process = started(tmp_path, port, "--probe", "off")
    again = [sys.executable, "-m", "umber_pebble.cli", "--data", str(tmp_path), "serve", "--port", str(port)]
    second = subprocess.run(again, capture_output=True, text=True, check=False)
    assert second.returncode == 1 and "in use" in second.stderr and "Traceback" not in second.stderr
    process.terminate()
    assert process.wait(15) == 0
    log = tmp_path / "umber-pebble.db-wal"
    assert not log.exists() or log.stat().st_size == 0


def test_plain_http_at_the_https_door_is_told_where_to_go(served: Served) -> None:
    with opened(served.lan_port) as peer:
        peer.settimeout(10)
        peer.sendall(b"GET /plan HTTP/1.1\r\nHost: 127.0.0.1\r\n\r\n")
        said = peer.recv(1000).decode()
    assert said.startswith("HTTP/1.1 308 ") and f":{served.lan_port}/" in said.split("Location: https://")[1]


def test_half_a_request_is_none() -> None:
    asked: list[str] = []
    said = [{"type": "http.request", "body": b"{}", "more_body": True}, {"type": "http.disconnect"}]

    async def receive() -> dict[str, Any]:
        return said.pop(0)

    async def send(_: dict[str, Any]) -> None:
        asked.append("answered")

    def wsgi(environ: dict[str, Any], start: Any) -> list[bytes]:
        asked.append(environ["PATH_INFO"])
        start("200 OK", [])
        return [b""]

    door = Door(wsgi, None, None, True)  # type: ignore[arg-type]
    scope = {"type": "http", "method": "POST", "path": "/api/kitchen", "headers": [(b"host", b"localhost")]}
    # in a thread of its own, since a browser's loop may run in this one
    with ThreadPoolExecutor(1) as own:
        own.submit(asyncio.run, door(scope, receive, send)).result()
    assert asked == []
