"""When a kitchen is open: its week as moments, over summer time too."""

from collections.abc import Iterator, Sequence
from datetime import UTC, date, datetime, time, timedelta
from math import ceil, floor
from zoneinfo import ZoneInfo

from umber_pebble.services.wish_docs import Opening

PAST_DUE = timedelta(days=8)
"""What is late is planned on for so long: a whole week of openings, and a night."""


def openings(hours: Sequence[Opening], zone: str, now: datetime, due: datetime) -> tuple[tuple[float, float], ...]:
    """A kitchen's openings from now until past a due time, those that touch as one [s from now]; nothing where it is always open.

    Args:
        hours: its week
        zone: of its clock
        now, due: moments
    """
    spans = sorted(
        span for span in _spans(hours, ZoneInfo(zone), now - timedelta(days=2), due + PAST_DUE) if span[1] > now
    )
    out: list[tuple[float, float]] = []
    for opens, closes in ((ceil((a - now).total_seconds()), floor((b - now).total_seconds())) for a, b in spans):
        if out and opens <= out[-1][1]:
            out[-1] = (out[-1][0], max(out[-1][1], closes))
        else:
            out.append((opens, closes))
    return tuple(out)


def _spans(
    hours: Sequence[Opening], zone: ZoneInfo, first: datetime, last: datetime
) -> Iterator[tuple[datetime, datetime]]:
    day = first.astimezone(zone).date()
    while day <= last.astimezone(zone).date():
        for of in hours:
            if of.day == day.weekday():
                opens, closes = time.fromisoformat(of.opens), time.fromisoformat(of.closes)
                # one that closes no later than it opens closes on the day after
                until = day if closes > opens else day + timedelta(days=1)
                yield _moment(day, opens, zone), _moment(until, closes, zone)
        day += timedelta(days=1)


def _moment(day: date, at: time, zone: ZoneInfo) -> datetime:
    return datetime.combine(day, at, zone).astimezone(UTC)
