"""Who may ask from another machine: devices paired by a short code shown on this one."""

import hashlib
import hmac
import secrets
import threading
import time
from collections import OrderedDict, deque
from dataclasses import dataclass
from datetime import datetime, timedelta

from umber_pebble.core.errors import CoreError
from umber_pebble.services.errors import NotFound
from umber_pebble.services.workshop import Workshop
from umber_pebble.store import queries
from umber_pebble.store.models import Device

CODE_DIGITS = 6
CODE_LASTS_S = 300.0
TRIES, TRIES_IN_S = 5, 60.0
MOST_SENDERS = 1000
SEEN_EVERY = timedelta(minutes=1)


class WrongCode(CoreError):
    """The code is not the one shown, or it is shown no more."""

    code = "wrong_code"


class TooManyTries(CoreError):
    """Too many codes in too short a time."""

    code = "too_many_tries"


class NotPaired(CoreError):
    """This device was never paired, or was dropped."""

    code = "not_paired"


@dataclass(frozen=True, slots=True)
class DeviceView:
    """A paired device."""

    id: str
    name: str
    paired_at: datetime
    seen_at: datetime


@dataclass(frozen=True, slots=True)
class Code:
    """A pairing code and how long it still counts [s]."""

    code: str
    lasts_s: float


def _hash(token: str) -> str:
    return hashlib.sha256(token.encode()).hexdigest()


class Access:
    """Pairing codes in memory, devices in the database."""

    def __init__(self, workshop: Workshop, names: tuple[str, ...] = (), port: int = 0) -> None:
        self.workshop, self.names, self.port = workshop, names, port
        self._lock = threading.Lock()
        self._code, self._until = "", 0.0
        self._tries: OrderedDict[str, deque[float]] = OrderedDict()

    def addresses(self) -> list[str]:
        """Where other devices find the app; none when it is not on the network."""
        return [f"https://{name}:{self.port}" for name in self.names]

    def show_code(self) -> Code:
        """A new code, which replaces the one before and counts once."""
        with self._lock:
            self._code = "".join(secrets.choice("0123456789") for _ in range(CODE_DIGITS))
            self._until = time.monotonic() + CODE_LASTS_S
            return Code(self._code, CODE_LASTS_S)

    def pair(self, code: str, name: str, sender: str = "") -> str:
        """Pair a device; returns its token, which is kept only as a hash. Wrong codes slow their sender, nobody else.

        Raises: TooManyTries: wait. WrongCode: not the code that is shown.
        """
        now = time.monotonic()
        with self._lock:
            tries = self._tries.setdefault(sender, deque(maxlen=TRIES))
            self._tries.move_to_end(sender)
            while len(self._tries) > MOST_SENDERS:
                self._tries.popitem(last=False)
            if len(tries) == TRIES and now - tries[0] < TRIES_IN_S:
                raise TooManyTries(
                    "too many codes in a minute: wait, then type the one that is shown",
                    path="code",
                    limits={"high": TRIES},
                )
            tries.append(now)
            if not self._code or now > self._until or not hmac.compare_digest(code.encode(), self._code.encode()):
                raise WrongCode(
                    "this is not the code that is shown: show a new one on the main machine", path="code"
                )
            self._code = ""
            tries.clear()
        token, moment = secrets.token_urlsafe(32), self.workshop.clock.now()
        device_id = secrets.token_hex(8)
        with self.workshop.writing() as session:
            session.add(Device(id=device_id, name=name, token_hash=_hash(token), paired_at=moment, seen_at=moment))
        self.workshop.broker.publish(topic="devices")
        return token

    def admit(self, token: str | None) -> None:
        """Let a paired device in.

        Raises: NotPaired.
        """
        with self.workshop.session() as session:
            device = queries.device_by_token(session, _hash(token)) if token else None
            if device is None:
                raise NotPaired("this device is not paired: type the code shown on the main machine")
            device_id, seen = device.id, device.seen_at
        now = self.workshop.clock.now()
        if now - seen > SEEN_EVERY:
            with self.workshop.writing() as session:
                found = session.get(Device, device_id)
                if found is not None:
                    found.seen_at = now

    def devices(self) -> list[DeviceView]:
        """All paired devices, the newest first."""
        with self.workshop.session() as session:
            return [DeviceView(d.id, d.name, d.paired_at, d.seen_at) for d in queries.devices(session)]

    def rename(self, device_id: str, name: str) -> None:
        """Raises: NotFound."""
        with self.workshop.writing() as session:
            device = session.get(Device, device_id)
            if device is None:
                raise NotFound("there is no such device", path="id", got=device_id)
            device.name = name

    def drop(self, device_id: str) -> None:
        """From now on the device is refused. Raises: NotFound."""
        with self.workshop.writing() as session:
            device = session.get(Device, device_id)
            if device is None:
                raise NotFound("there is no such device", path="id", got=device_id)
            session.delete(device)
        self.workshop.broker.publish(topic="devices")
