"""A timetable as iCalendar (RFC 5545): what needs the hands as busy time, what sets by itself as free time."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import UTC, datetime

from icalendar import Calendar, Event


@dataclass(frozen=True, slots=True)
class Entry:
    """One entry: an id that stays, what it says, from when until when, and if it needs hands."""

    uid: str
    summary: str
    start: datetime
    end: datetime
    hands: bool


def write_calendar(name: str, entries: Sequence[Entry], made_at: datetime) -> bytes:
    """The calendar file of a timetable, times in UTC."""
    calendar = Calendar()
    calendar.add("prodid", "-//Umber Pebble//timetable//EN")
    calendar.add("version", "2.0")
    calendar.add("x-wr-calname", name)
    for entry in entries:
        event = Event()
        event.add("uid", entry.uid)
        event.add("dtstamp", made_at.astimezone(UTC))
        event.add("summary", entry.summary)
        event.add("dtstart", entry.start.astimezone(UTC))
        event.add("dtend", entry.end.astimezone(UTC))
        event.add("transp", "OPAQUE" if entry.hands else "TRANSPARENT")
        calendar.add_component(event)
    return bytes(calendar.to_ical())
