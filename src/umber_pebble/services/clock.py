"""The server's clock: it never steps, and tests and the demo may drive one."""

import time
from datetime import UTC, datetime, timedelta
from typing import Protocol

from umber_pebble.services.errors import ClockNotDriven


class Clock(Protocol):
    """What the services ask for the time."""

    rate: float

    def now(self) -> datetime: ...

    def drive(self, advance_s: float, rate: float | None) -> None: ...


class SteadyClock:
    """UTC at the start, then the monotonic clock: a stepped system clock moves nothing."""

    rate = 1.0

    def __init__(self, not_before: datetime | None = None) -> None:
        start = datetime.now(UTC)
        self._base = max(start, not_before) if not_before else start
        self._mono = time.monotonic()

    def now(self) -> datetime:
        return self._base + timedelta(seconds=time.monotonic() - self._mono)

    def drive(self, advance_s: float, rate: float | None) -> None:
        raise ClockNotDriven(
            "the clock of this server is not driven: start it with --clock driven", path="advance_s"
        )


class DrivenClock:
    """A clock that stands, runs or runs fast, as told."""

    def __init__(self, start: datetime, rate: float = 0.0) -> None:
        self._base, self._mono, self.rate = start, time.monotonic(), rate

    def now(self) -> datetime:
        return self._base + timedelta(seconds=self.rate * (time.monotonic() - self._mono))

    def drive(self, advance_s: float, rate: float | None) -> None:
        self._base, self._mono = self.now() + timedelta(seconds=advance_s), time.monotonic()
        self.rate = self.rate if rate is None else rate
