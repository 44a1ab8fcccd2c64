"""The app started many times over: one process reads the program once, and every server is a fork of it, so each is there at once."""

import atexit
import json
import os
import signal
import subprocess
import sys
import time
from functools import cache
from pathlib import Path

from tests.http import wait_for

STEM = """
import json, os, signal, sys
import umber_pebble.app, umber_pebble.server
from umber_pebble import cli
from umber_pebble.services.planning import warm_up
warm_up()
# nobody waits for them here
signal.signal(signal.SIGCHLD, signal.SIG_IGN)
for line in sys.stdin:
    pid = os.fork()
    if pid == 0:
        signal.signal(signal.SIGCHLD, signal.SIG_DFL)
        os.dup2(os.open(os.devnull, os.O_RDWR), 1)
        os._exit(cli.main(json.loads(line)))
    print(pid, flush=True)
"""


class Forked:
    """A server that runs as a process of its own."""

    def __init__(self, pid: int) -> None:
        self.pid = pid

    def kill(self) -> None:
        """At once, as when the power goes, and gone when this returns."""
        os.kill(self.pid, signal.SIGKILL)
        while _there(self.pid):
            time.sleep(0.01)


def _there(pid: int) -> bool:
    try:
        os.kill(pid, 0)
    except ProcessLookupError:
        return False
    return True


@cache
def _stem() -> "subprocess.Popen[str]":
    stem = subprocess.Popen(
        [sys.executable, "-c", STEM],
        stdin=subprocess.PIPE,
        stdout=subprocess.PIPE,
        stderr=subprocess.DEVNULL,
        text=True,
    )
    atexit.register(stem.kill)
    return stem


def forked(data: Path, port: int, *more: str, waits: bool = True) -> Forked:
    """The app, once it answers, or as soon as it begins."""
    stem = _stem()
    assert stem.stdin and stem.stdout
    stem.stdin.write(json.dumps(["--data", str(data), "serve", "--port", str(port), *more]) + "\n")
    stem.stdin.flush()
    server = Forked(int(stem.stdout.readline()))
    if waits:
        wait_for(port)
    return server
