"""The server's clock: it never steps and counts through sleep; tests and the demo may drive one."""

import time
from collections.abc import Callable
from datetime import UTC, datetime, timedelta
from typing import Protocol

from umber_pebble.services.errors import ClockNotDriven


class Clock(Protocol):
    """What the services ask for the time; ahead_s: by how much it is ahead of the machine's [s]."""

    rate: float

    def now(self) -> datetime: ...

    def drive(self, advance_s: float, rate: float | None) -> None: ...

    def ahead_s(self) -> float: ...

    def follow(self) -> None: ...


def since_start_s() -> float:
    """Seconds that also pass while the machine sleeps, where its system counts them."""
    boot = getattr(time, "CLOCK_BOOTTIME", None)
    return time.monotonic() if boot is None else time.clock_gettime(boot)


class SteadyClock:
    """UTC at the start, then a clock that only goes on: a stepped system clock moves nothing, sleep counts. It never begins before
    the newest event, however far ahead that is, until somebody says that the machine's time is right."""

    rate = 1.0

    def __init__(
        self,
        not_before: datetime | None = None,
        ticks_s: Callable[[], float] = since_start_s,
        system: Callable[[], datetime] = lambda: datetime.now(UTC),
    ) -> None:
        self._ticks_s, self._system = ticks_s, system
        start = system()
        self._base = max(start, not_before) if not_before else start
        self._from_s = ticks_s()

    def now(self) -> datetime:
        return self._base + timedelta(seconds=self._ticks_s() - self._from_s)

    def ahead_s(self) -> float:
        return (self.now() - self._system()).total_seconds()

    def follow(self) -> None:
        self._base, self._from_s = self._system(), self._ticks_s()

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

    def ahead_s(self) -> float:
        return 0.0

    def follow(self) -> None:
        raise ClockNotDriven("this clock goes as it is driven", path="")

    def drive(self, advance_s: float, rate: float | None) -> None:
        self._base, self._mono = self.now() + timedelta(seconds=advance_s), time.monotonic()
        self.rate = self.rate if rate is None else rate
