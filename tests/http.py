"""A few lines of HTTP for tests against a real server."""

import json
import os
import socket
import subprocess
import sys
import time
import urllib.error
import urllib.request
from contextlib import suppress
from itertools import cycle
from pathlib import Path
from typing import Any

WORKER = int(os.environ.get("PYTEST_XDIST_WORKER", "gw0")[2:])
# each worker has a thousand of its own, below those the system gives away, so that nobody takes one before its server does
PORTS = cycle(range(20_000 + 1_000 * WORKER, 21_000 + 1_000 * WORKER))


def free_port() -> int:
    for port in PORTS:
        with socket.socket() as probe, suppress(OSError):
            probe.bind(("127.0.0.1", port))
            return port
    raise AssertionError("ports never end")


def started(data: Path, port: int, *more: str) -> "subprocess.Popen[bytes]":
    """The app as a program of its own, once it answers."""
    command = [sys.executable, "-m", "umber_pebble.cli", "--data", str(data), "serve", "--port", str(port), *more]
    process = subprocess.Popen(command, stdout=subprocess.DEVNULL, stderr=subprocess.DEVNULL)
    wait_for(port)
    return process


def wait_for(port: int, seconds: float = 60.0) -> None:
    end = time.monotonic() + seconds
    while time.monotonic() < end:
        try:
            if call(f"http://127.0.0.1:{port}", "GET", "/api/clock")[0] == 200:
                return
        except OSError:
            time.sleep(0.05)
    raise TimeoutError(f"no server on port {port}")


def call(
    base: str, method: str, path: str, body: Any = None, headers: dict[str, str] | None = None
) -> tuple[int, Any]:
    data = body if isinstance(body, bytes) else None if body is None else json.dumps(body).encode()
    request = urllib.request.Request(
        base + path, data, {"Content-Type": "application/json", **(headers or {})}, method=method
    )
    try:
        with urllib.request.urlopen(request, timeout=20) as answer:
            return answer.status, json.loads(answer.read())
    except urllib.error.HTTPError as error:
        return error.code, json.loads(error.read())
