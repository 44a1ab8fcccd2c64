"""Operations on the app itself: its clock, what it keeps and where, what it cannot read."""

from functools import partial
from typing import Any

from umber_pebble.api import schemas as s
from umber_pebble.api.http import Api
from umber_pebble.services.clock import DrivenClock
from umber_pebble.services.safekeeping import back_up, kept
from umber_pebble.services.workshop import Workshop


def add(api: Api, workshop: Workshop) -> None:
    """All of them, on one workshop."""
    _kept(api, workshop)
    _clock(api, workshop)


def _kept(api: Api, workshop: Workshop) -> None:
    def unread() -> Any:
        return {"items": workshop.unread()}

    def make_backup(body: s.Nothing) -> Any:
        return back_up(workshop)

    api.add("POST", "/api/kept", make_backup, body=s.Nothing, reply=s.Kept, summary="Make a backup now")
    api.add("GET", "/api/kept", partial(kept, workshop), reply=s.Kept, summary="What is kept, and where")
    api.add("GET", "/api/unread", unread, reply=s.UnreadList, summary="Things that this version cannot read")


def _clock(api: Api, workshop: Workshop) -> None:
    def now() -> Any:
        clock = workshop.clock
        return {
            "now": clock.now(),
            "rate": clock.rate,
            "driven": isinstance(clock, DrivenClock),
            "ahead_s": clock.ahead_s(),
        }

    def follow(body: s.Nothing) -> Any:
        workshop.clock.follow()
        workshop.broker.publish(topic="clock")
        return now()

    def drive(body: s.DriveClock) -> Any:
        workshop.clock.drive(body.advance_s, body.rate)
        workshop.broker.publish(topic="clock")
        return now()

    api.add("GET", "/api/clock", now, reply=s.ClockNow, summary="The server's clock")
    api.add(
        "POST", "/api/clock/follow", follow, body=s.Nothing, reply=s.ClockNow, summary="Take the machine's time"
    )
    api.add("POST", "/api/clock", drive, body=s.DriveClock, reply=s.ClockNow, summary="Drive the clock")
