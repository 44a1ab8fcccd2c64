"""A day's own timetable in its middle: what is left of it, all later by as much as it has to be."""

from collections.abc import Iterator
from dataclasses import replace

from umber_pebble.core.bench.rest_of_day import Rest
from umber_pebble.core.plan.day.check import broken
from umber_pebble.core.plan.day.problem import Day, Heat, Timetable, heated_before, placed

STEPS_S = (0, 60, 180, 420, 900)
"""So much later still is tried [s]."""


def shifted(rest: Rest, table: Timetable) -> Timetable | None:
    """The timetable as it was planned, from now on, in its order and with its heats; None where something has to be done otherwise.

    Args:
        rest: of the day
        table: as it was planned [s since the run started]
    Source: definition
    """
    day, soonest = rest.day, {b.task: b.not_before_s or 0 for b in rest.day.bounds}
    left = [d for d, draw in enumerate(rest.of.day.draws) if draw.task not in rest.done]
    number = {d: n for n, d in enumerate(left)}
    heats = [
        Heat(h.melt, h.start_s, h.new, h.who, tuple(number[d] for d in h.draws if d in number))
        for h in table.heats
    ]
    late = max(
        [0]
        + [soonest[i] - s for i, s in enumerate(table.start_s) if i not in rest.done]
        + [
            day.from_s - h.start_s
            for h in heats
            if h.draws and day.there(h.melt) is None and day.melts[h.melt].portion is None
        ]
    )
    for more in STEPS_S:
        by = late + more
        starts = tuple(soonest[i] if i in rest.done else s + by for i, s in enumerate(table.start_s))
        kept = tuple(sorted(_later(rest, heats, by), key=lambda h: h.start_s))
        moved = Timetable(starts, table.who, tuple(_by_somebody(day, kept)))
        if not broken(day, moved):
            return moved
    return None


def _by_somebody(day: Day, heats: tuple[Heat, ...]) -> Iterator[Heat]:
    """Heats with hands for all that is to be done at them now: a wash more or less, melted again instead of warmed."""
    for heat, row in zip(heats, placed(day, heats), strict=True):
        spans = len(row.hands)
        yield heat if len(heat.who) == spans else replace(heat, who=heat.who[:1] * spans)


def _later(rest: Rest, heats: list[Heat], by: int) -> Iterator[Heat]:
    """The heats that are to come, as long as something is poured of them; of what is in its vessel, that it is there, with what is poured
    of that."""
    day = rest.day
    for m in range(len(day.melts)):
        there, mine = day.there(m), [h for h in heats if h.melt == m]

        def is_over(n: int, heat: Heat, m: int = m) -> bool:
            """Whether it was before now: what comes out of another vessel is over once it is there."""
            if n == 0 and rest.of.day.melts[m].portion:
                return day.melts[m].portion is None
            return heat.start_s + by < day.from_s

        come = [
            Heat(m, h.start_s + by, h.new, h.who, h.draws)
            for n, h in enumerate(mine)
            if not is_over(n, h) and any(later.draws for later in mine[n:])
        ]
        over = tuple(d for n, h in enumerate(mine) if is_over(n, h) for d in h.draws)
        if there is not None and (over or (come and not come[0].new)):
            yield heated_before(day, there, over)
        yield from come
