"""A stand-in for a thermometer with several channels: a process of its own that follows a run's physics, with lag and noise.

It speaks the line protocol on loopback and looks at the app's bench to see where what it follows is. Its pot is not the one
the app believes in: it cools a little slower, which the readings then teach.
"""

import json
import math
import random
import socket
import threading
import time
import urllib.request
from dataclasses import dataclass, field
from typing import Any

import numpy as np

from umber_pebble.devices.protocol import Channel, Follow, Greeting, Lost, NotUnderstood, Temp, read, write

SLOWER = 0.93
LAG_S = {"immersed": 4.0, "infrared": 0.5}
NOISE_K = {"immersed": 0.3, "infrared": 0.8}
SURFACE_COLD_SHARE = 0.06
AIR_DEGC = 21.0
SAMPLE_DEGC, SAMPLE_CUP_DEGC, SAMPLE_COOLS_S, SAMPLE_SETS_S, SAMPLE_HEAT_K = 32.0, 8.0, 180.0, 190.0, 14.0


@dataclass
class Simulated:
    """One channel: what it follows, what it shows, and a fault it may be told to have."""

    channel: Channel
    follows: Follow
    since_s: float = 0.0
    shown_degc: float = AIR_DEGC
    said_degc: float = AIR_DEGC
    fault: str = ""
    rng: random.Random = field(default_factory=lambda: random.Random(7))

    def next_degc(self, true_degc: float, air_degc: float, seconds: float) -> float:
        """What it shows after some seconds in something of a temperature."""
        kind = self.channel.kind
        seen = true_degc - (SURFACE_COLD_SHARE * (true_degc - air_degc) if kind == "infrared" else 0.0)
        self.shown_degc += (seen - self.shown_degc) * (1 - math.exp(-seconds / LAG_S[kind]))
        if self.fault == "jumping":
            return self.shown_degc + self.rng.choice((-40.0, 40.0))
        if self.fault != "stuck":
            self.said_degc = self.shown_degc + self.rng.gauss(0.0, NOISE_K[kind])
        return self.said_degc


def true_degc(view: dict[str, Any] | None, follows: Follow) -> float | None:
    """How warm a cook or round of the bench really is in the stand-in's world; None when it is not there."""
    if view is None or follows.subject is None:
        return None
    subject = {"of": "pot" if follows.subject == "cook" else "round", "number": follows.number}
    ribbon = next((r for r in view["ribbons"] if r["subject"] == subject), None)
    if ribbon is None:
        return None
    curve, since = ribbon["predicted"], ribbon["predicted"]["times_s"][0]
    own = since + (view["elapsed_s"] - since) * SLOWER
    return float(np.interp(own, curve["times_s"], curve["likely_degc"]))


def sample_degc(seconds: float) -> float:
    """A tempered sample in its cold cup, so long after it was filled: it cools, sets in its own heat, and cools on."""
    degc, step = SAMPLE_DEGC, 1.0
    for i in range(int(seconds / step)):
        t = i * step / SAMPLE_SETS_S
        warms = SAMPLE_HEAT_K * 3 * t**2 / SAMPLE_SETS_S * math.exp(-(t**3))
        degc += step * (warms - (degc - SAMPLE_CUP_DEGC) / SAMPLE_COOLS_S)
    return degc


class Simulator:
    """Serves one bridge on a port; every client hears every channel."""

    def __init__(self, app: str, port: int, every_s: float, channels: list[Channel]) -> None:
        self.app, self.every_s = app, every_s
        self.channels = {c.id: Simulated(c, Follow(c.id, None, 0)) for c in channels}
        self.server = socket.create_server(("127.0.0.1", port))
        self.port = self.server.getsockname()[1]
        self.seen: dict[str, Any] | None = None

    def run(self) -> None:
        """Serve until stopped."""
        while True:
            client, _ = self.server.accept()
            threading.Thread(target=self._talk, args=(client,), daemon=True).start()

    def _talk(self, client: socket.socket) -> None:
        with client:
            threading.Thread(target=self._listen, args=(client,), daemon=True).start()
            try:
                self._say(client, write(Greeting("Simulated thermometer")))
                for one in self.channels.values():
                    self._say(client, write(one.channel))
                self._stream(client)
            except OSError:
                return

    def _stream(self, client: socket.socket) -> None:
        before: float | None = None
        while True:
            view = self._look()
            elapsed = view["elapsed_s"] if view else time.monotonic()
            air = view["room_degc"] if view else AIR_DEGC
            seconds = self.every_s if before is None else max(elapsed - before, 0.0)
            before = elapsed
            for one in self.channels.values():
                if one.fault == "lost":
                    self._say(client, write(Lost(one.channel.id)))
                    continue
                if one.follows.subject == "sample":
                    one.since_s += seconds
                    true: float | None = sample_degc(one.since_s)
                else:
                    true = true_degc(view, one.follows)
                degc = one.next_degc(air if true is None else true, air, seconds)
                self._say(client, write(Temp(one.channel.id, 500.0 if one.fault == "out_of_range" else degc)))
            time.sleep(self.every_s)

    def _listen(self, client: socket.socket) -> None:
        try:
            for line in client.makefile("r", encoding="utf-8", errors="replace"):
                words = line.split()
                if len(words) == 3 and words[0] == "fault" and words[1] in self.channels:
                    self.channels[words[1]].fault = "" if words[2] == "none" else words[2]
                    continue
                try:
                    message = read(line)
                except NotUnderstood:
                    continue
                if isinstance(message, Follow) and message.id in self.channels:
                    self.channels[message.id].follows, self.channels[message.id].since_s = message, 0.0
        except OSError:
            return

    def _say(self, client: socket.socket, line: str) -> None:
        client.sendall(f"{line}\n".encode())

    def _look(self) -> dict[str, Any] | None:
        try:
            with urllib.request.urlopen(f"{self.app}/api/bench?actor=probe", timeout=2) as answer:
                self.seen = json.load(answer)["view"]
        except (OSError, ValueError):
            # a pot is no colder because the app is slow to answer
            pass
        return self.seen
