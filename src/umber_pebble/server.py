"""Serves the app: on this machine, and if told in the kitchen's network by HTTPS, until it is stopped."""

import asyncio
import contextlib
import resource
import signal
import socket
import ssl
from dataclasses import dataclass
from pathlib import Path
from typing import Any

from hypercorn.app_wrappers import ASGIWrapper
from hypercorn.asyncio.run import worker_serve
from hypercorn.config import Config, Sockets

from umber_pebble.door import Door
from umber_pebble.plain import tells

IDLE_S, HANDSHAKE_S, STOPS_WITHIN_S = 10.0, 5.0, 2.0
LARGEST_HEADERS = 16 * 1024
GONE_AFTER_MS = 45_000
FILES = 8192


@dataclass(frozen=True, slots=True)
class At:
    """Where a door is: address and port, and by which certificate and key, if by HTTPS, and how it is called then."""

    host: str
    port: int
    certificate: Path | None = None
    key: Path | None = None
    name: str = ""


def run(doors: list[tuple[Door, At]]) -> None:
    """Serves all doors until the program is told to stop; live streams are ended then.

    Raises: OSError: a port is taken.
    """
    _allow_files()
    listening = [_listen(at) for _, at in doors]
    asyncio.run(_serve([(door, at, sock) for (door, at), sock in zip(doors, listening, strict=True)]))


async def _serve(doors: list[tuple[Door, At, socket.socket]]) -> None:
    stop, loop = asyncio.Event(), asyncio.get_running_loop()
    for name in (signal.SIGINT, signal.SIGTERM):
        loop.add_signal_handler(name, stop.set)
    async with asyncio.TaskGroup() as tasks:
        for door, at, sock in doors:
            sockets = Sockets([sock], [], []) if at.certificate else Sockets([], [sock], [])
            app: Any = door
            tasks.create_task(
                worker_serve(ASGIWrapper(app), _config(at), sockets=sockets, shutdown_trigger=stop.wait)
            )


class _Config(Config):
    name = ""

    def create_ssl_context(self) -> ssl.SSLContext | None:
        made = super().create_ssl_context()
        return tells(made, self.name) if made else None


def _config(at: At) -> Config:
    config = _Config()
    config.name = f"https://{at.name}:{at.port}/"
    config.bind = [f"{at.host}:{at.port}"]
    if at.certificate and at.key:
        config.certfile, config.keyfile = str(at.certificate), str(at.key)
    config.alpn_protocols = ["http/1.1"]
    config.h11_max_incomplete_size = LARGEST_HEADERS
    # from the connection, or the answer before, to the end of the next request's headers
    config.keep_alive_timeout = IDLE_S
    config.ssl_handshake_timeout = HANDSHAKE_S
    config.graceful_timeout = config.shutdown_timeout = STOPS_WITHIN_S
    config.include_server_header = False
    config.accesslog, config.loglevel = None, "WARNING"
    return config


def _listen(at: At) -> socket.socket:
    """A listening socket whose connections notice by themselves that the other side is gone."""
    sock = socket.socket(socket.AF_INET, socket.SOCK_STREAM)
    sock.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
    sock.setsockopt(socket.SOL_SOCKET, socket.SO_KEEPALIVE, 1)
    for name, value in (
        ("TCP_KEEPIDLE", 20),
        ("TCP_KEEPINTVL", 10),
        ("TCP_KEEPCNT", 3),
        ("TCP_USER_TIMEOUT", GONE_AFTER_MS),
    ):
        if hasattr(socket, name):
            sock.setsockopt(socket.IPPROTO_TCP, getattr(socket, name), value)
    sock.bind((at.host, at.port))
    sock.setblocking(False)
    return sock


def _allow_files() -> None:
    """As many connections as the system lets us have, and no fewer for idle ones."""
    with contextlib.suppress(ValueError, OSError):
        _, hard = resource.getrlimit(resource.RLIMIT_NOFILE)
        wanted = FILES if hard == resource.RLIM_INFINITY else min(FILES, hard)
        resource.setrlimit(resource.RLIMIT_NOFILE, (wanted, hard))
