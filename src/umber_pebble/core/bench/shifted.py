"""A day's own timetable in its middle: what is left of it, all later by as much as it has to be."""

from collections.abc import Iterator, Sequence

from umber_pebble.core.bench.rest_of_day import Rest
from umber_pebble.core.plan.day.check import broken
from umber_pebble.core.plan.day.problem import Heat, Timetable

STEPS_S = (0, 60, 180, 420, 900)
"""So much later still is tried [s]."""


def shifted(rest: Rest, table: Timetable, planned_s: Sequence[float]) -> Timetable | None:
    """The timetable as it was planned, from now on, in its order and with its heats; None where something has to be done otherwise.

    Args:
        rest: of the day
        table: as it was planned
        planned_s: when each thing is planned by now [s since the run started]
    Source: definition
    """
    if list(planned_s) != list(table.start_s):
        # arranged anew since, it has no heats of its own
        return None
    day, bounds = rest.day, {b.task: b for b in rest.day.bounds}
    waits = [heat for heat in table.heats if day.there(heat.melt) is None and _draws(rest, heat)]
    late = max(
        [0]
        + [(bounds[i].not_before_s or 0) - s for i, s in enumerate(table.start_s) if i not in rest.done]
        + [day.from_s - heat.start_s for heat in waits]
    )
    for more in STEPS_S:
        by = late + more
        starts = tuple(
            (bounds[i].not_before_s or 0) if i in rest.done else s + by for i, s in enumerate(table.start_s)
        )
        moved = Timetable(starts, table.who, tuple(sorted(_heats(rest, table, by), key=lambda h: h.start_s)))
        if not broken(day, moved):
            return moved
    return None


def _draws(rest: Rest, heat: Heat) -> tuple[int, ...]:
    """What is still to be poured out of a heat, by its number in what is left."""
    left = [d for d, draw in enumerate(rest.of.day.draws) if draw.task not in rest.done]
    return tuple(left.index(d) for d in heat.draws if d in left)


def _heats(rest: Rest, table: Timetable, by: int) -> Iterator[Heat]:
    """The heats that are to come; of what is in its vessel, that it is there, with what is poured of that."""
    day = rest.day
    for m, melt in enumerate(day.melts):
        there, mine = day.there(m), [heat for heat in table.heats if heat.melt == m]
        come = [heat for heat in mine if heat.start_s + by >= day.from_s]
        over = tuple(d for heat in mine if heat not in come for d in _draws(rest, heat))
        kept = [Heat(m, h.start_s + by, h.new, h.who, _draws(rest, h)) for h in come]
        if there is not None and (over or (kept and not kept[0].new)):
            begun_s = there.ready_s - melt.first.lasts_s - melt.weigh_s
            yield Heat(m, begun_s, True, (0,) * (len(melt.first.hands) + (melt.weigh_s > 0)), over)
        yield from kept
