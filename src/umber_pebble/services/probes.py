"""Thermometers: a bridge is listened to, its channels named and put into a pot or round, what they say judged and kept."""

import contextlib
import logging
import socket
import threading
import time
from collections import deque
from collections.abc import Iterator
from dataclasses import dataclass, field
from typing import Literal
from uuid import uuid4

from umber_pebble.core.bench.probe import ProbeState, Value, judged
from umber_pebble.core.bench.subject import Of, Subject
from umber_pebble.core.errors import CoreError, OutOfRange
from umber_pebble.core.temper.curve import Bands
from umber_pebble.devices.protocol import (
    LONGEST_LINE,
    Channel,
    Follow,
    Greeting,
    Lost,
    Message,
    NotUnderstood,
    Temp,
    read,
    write,
)
from umber_pebble.services.documents import Kitchen, Probe
from umber_pebble.services.errors import NotFound
from umber_pebble.services.new_event import NewEvent
from umber_pebble.services.runs import EVENT_SCHEMA, RunService
from umber_pebble.services.workshop import KITCHEN_ID

# the device that a probe's readings come from starts with this
PROBE_DEVICE = "probe"
# a cooling curve takes ten minutes
KEPT_VALUES = 900
AGAIN_S = 2.0
# a bridge has a handful of them
MOST_CHANNELS = 16
LOG = logging.getLogger(__name__)
SILENT_S = 15.0
# a reading is kept when the probe has said something new for this long on the run's own clock
KEEP_EVERY_S = 10.0
# what a channel may be put into, as the protocol has it and as screens have it
SHOWN: dict[str, Of] = {"cook": "pot", "round": "round", "sample": "sample"}
"""What the bridge calls what a channel is put into, and what the bench does."""
SAID = {shown: said for said, shown in SHOWN.items()}
METHOD = {"immersed": "immersed_unswirled", "infrared": "infrared"}


@dataclass
class Heard:
    """One channel as it was heard."""

    channel: Channel
    follows: Follow
    values: deque[Value] = field(default_factory=lambda: deque(maxlen=KEPT_VALUES))
    lost: bool = False
    put_in_s: float = 0.0
    kept_at_s: float = -1e9


@dataclass(frozen=True, slots=True)
class ProbeView:
    """A channel for the screens: its name, what it shows, what that is worth, what it follows, and its bands for temper."""

    id: str
    name: str
    kind: str
    degc: float | None
    state: ProbeState | Literal["lost"]
    subject: Subject | None
    over_below_k_min: float | None
    under_above_k_min: float | None


class Probes:
    """Listens to one bridge and turns what may be believed into readings of the live run."""

    def __init__(self, runs: RunService, address: tuple[str, int] | None) -> None:
        self.runs, self.address = runs, address
        self.heard: dict[str, Heard] = {}
        self.bridge = ""
        self._lock = threading.Lock()
        self._socket: socket.socket | None = None

    def start(self) -> None:
        """Listen in the background, and again whenever the bridge comes back."""
        if self.address is not None:
            threading.Thread(target=self._keep_listening, daemon=True).start()

    def views(self) -> list[ProbeView]:
        """All channels as they are now."""
        air = self._air_degc()
        with self._lock:
            return [self._view(one, air) for one in self.heard.values()]

    def assign(self, channel_id: str, subject: Subject | None) -> None:
        """Put a channel into a pot, a round or a sample (a cup for a cooling curve), or into nothing.

        Raises: NotFound: there is no such channel. OutOfRange: a probe is not put into such a thing.
        """
        follows = _follow(channel_id, subject)
        with self._lock:
            if channel_id not in self.heard:
                raise NotFound(f"there is no probe {channel_id}", path="id", got=channel_id)
            one = self.heard[channel_id]
            one.follows, one.put_in_s, one.kept_at_s = follows, self._clock_s(), -1e9
            one.values.clear()
            self._say(follows)
        self.runs.workshop.broker.publish(topic="probe")

    def keep(self, channel_id: str, doc: Probe) -> None:
        """Keep a channel's name and bands.

        Raises: OutOfRange: bands that do not leave room between them.
        """
        if doc.over_below_k_min is not None and doc.under_above_k_min is not None:
            Bands(doc.over_below_k_min, doc.under_above_k_min)
        workshop = self.runs.workshop
        try:
            current = workshop.get("probe", f"probe-{channel_id}")
            workshop.save("probe", current.id, current.version, doc)
        except NotFound:
            workshop.create("probe", f"probe-{channel_id}", doc)

    def known(self, channel: Channel) -> Probe:
        """What is kept of a channel."""
        try:
            doc = self.runs.workshop.get("probe", f"probe-{channel.id}").doc
            assert isinstance(doc, Probe)
        except NotFound:
            return Probe(name=channel.label, over_below_k_min=None, under_above_k_min=None)
        return doc

    def curve(self, channel_id: str) -> tuple[Probe, list[float], list[float]]:
        """A channel's bands, and what it has said since it was put where it is: seconds from there, and temperatures [degC].

        Raises: NotFound: there is no such channel.
        """
        with self._lock:
            if channel_id not in self.heard:
                raise NotFound(f"there is no probe {channel_id}", path="probe_id", got=channel_id)
            one = self.heard[channel_id]
            said = list(one.values)
        return self.known(one.channel), [v.at_s - one.put_in_s for v in said], [v.degc for v in said]

    def _view(self, one: Heard, air: float) -> ProbeView:
        state = "lost" if one.lost else judged(list(one.values), time.monotonic(), one.put_in_s, air)
        degc = one.values[-1].degc if one.values and state != "lost" else None
        f = one.follows
        subject = None if f.subject is None else Subject(SHOWN[f.subject], f.number)
        known = self.known(one.channel)
        return ProbeView(
            one.channel.id,
            known.name,
            one.channel.kind,
            degc,
            state,
            subject,
            known.over_below_k_min,
            known.under_above_k_min,
        )

    def _clock_s(self) -> float:
        return self.runs.workshop.clock.now().timestamp()

    def _air_degc(self) -> float:
        kitchen = self.runs.workshop.get("kitchen", KITCHEN_ID).doc
        assert isinstance(kitchen, Kitchen)
        return kitchen.room_degc

    def _keep_listening(self) -> None:
        while True:
            try:
                assert self.address is not None
                with socket.create_connection(self.address, timeout=SILENT_S) as connection:
                    self._socket = connection
                    for message in _messages(connection):
                        self._take_safely(message)
            except OSError:
                # no bridge, or it is silent: asked again
                pass
            self._socket = None
            with self._lock:
                for one in self.heard.values():
                    one.lost = True
            time.sleep(AGAIN_S)

    def _take_safely(self, message: Message) -> None:
        """Whatever one message runs into, the next is listened to."""
        try:
            self.take(message)
        except Exception:
            LOG.exception("a message of the bridge was not taken: %s", type(message).__name__)

    def take(self, message: Message) -> None:
        """One message of the bridge."""
        with self._lock:
            match message:
                case Greeting(name):
                    self.bridge = name
                case Channel(id) if id not in self.heard and len(self.heard) >= MOST_CHANNELS:
                    return
                case Channel() as channel:
                    known = self.heard.get(channel.id)
                    follows = known.follows if known else Follow(channel.id, None, 0)
                    self.heard[channel.id] = Heard(channel, follows)
                    self._say(follows)
                case Lost(id) if id in self.heard:
                    self.heard[id].lost = True
                case Temp(id, degc) if id in self.heard:
                    self.heard[id].lost = False
                    self.heard[id].values.append(Value(time.monotonic(), self._clock_s(), degc))
                case _:
                    return
        if isinstance(message, Temp):
            self._keep(message.id)

    def _keep(self, channel_id: str) -> None:
        one = self.heard.get(channel_id)
        if one is None or one.follows.subject not in ("cook", "round"):
            return
        if judged(list(one.values), time.monotonic(), one.put_in_s, self._air_degc()) != "ok":
            return
        live = self.runs.live()
        if live is None:
            return
        if self._clock_s() - one.kept_at_s < KEEP_EVERY_S:
            return
        one.kept_at_s = self._clock_s()
        payload = {
            one.follows.subject: one.follows.number,
            "degc": round(one.values[-1].degc, 2),
            "method": METHOD[one.channel.kind],
        }
        event = NewEvent(
            str(uuid4()),
            "reading",
            payload,
            self.known(one.channel).name,
            f"{PROBE_DEVICE} {channel_id}",
            None,
            EVENT_SCHEMA,
        )
        # what it follows may not be on yet, or be done: then it is only shown
        with contextlib.suppress(CoreError):
            self.runs.add(live.id, event)

    def _say(self, message: Message) -> None:
        if self._socket is not None:
            with contextlib.suppress(OSError):
                self._socket.sendall(f"{write(message)}\n".encode())


def _messages(connection: socket.socket) -> Iterator[Message]:
    lines = connection.makefile("r", encoding="utf-8", errors="replace")
    # a line without an end is taken in pieces, none of which is understood
    while line := lines.readline(2 * LONGEST_LINE):
        with contextlib.suppress(NotUnderstood):
            yield read(line)


def _follow(channel_id: str, subject: Subject | None) -> Follow:
    if subject is None:
        return Follow(channel_id, None, 0)
    if subject.of not in SAID:
        raise OutOfRange("a probe is put into a pot, a round or a sample", path="subject.of", got=subject.of)
    return Follow(channel_id, SAID[subject.of], subject.number)
