"""Whose hands do what, once it is known when it is done."""

from collections import defaultdict
from collections.abc import Sequence
from dataclasses import replace

from umber_pebble.core.plan.day.lines import Line
from umber_pebble.core.plan.day.problem import Day, Heat, Timetable, placed


def with_people(day: Day, starts: Sequence[int], heats: Sequence[Heat]) -> Timetable:
    """A timetable with whose hands do what: whoever can least else, and is free, goes on.

    Args:
        day: what is asked
        starts, heats: when it is done; no more hands are needed at once than there are
    Source: definition
    """
    people = [Line(1) for _ in range(day.people)]
    for person, start, end in day.closed:
        people[person].take(start, end)
    who: list[int | None] = [None] * len(day.tasks)
    of_heat: dict[int, list[int]] = defaultdict(list)
    rows: list[tuple[int, int, int | None, int]] = [
        (starts[i], starts[i] + t.lasts_s, i, -1) for i, t in enumerate(day.tasks) if t.hands
    ]
    for n, heat in enumerate(placed(day, tuple(heats))):
        there = day.there(heat.heat.melt)
        if there is not None and there.ready_s == heat.ready_s:
            # hands have been at what is there already
            of_heat[n] = [0] * len(heat.hands)
            continue
        rows += [(a, b, None, n) for a, b in heat.hands]
    for start, end, task, n in sorted(rows, key=lambda row: (row[0], row[1])):
        able = day.able(task) if task is not None else day.able_at_heat(heats[n].melt)
        free = [person for person in sorted(able) if people[person].free(start, end)] or [min(able)]
        # whoever put it on stays with it where that goes
        person = next((p for p in of_heat[n] if p in free), free[0]) if task is None else free[0]
        people[person].take(start, end)
        if task is None:
            of_heat[n].append(person)
        else:
            who[task] = person
    whose = tuple(replace(heat, who=tuple(of_heat[n])) for n, heat in enumerate(heats))
    return Timetable(tuple(starts), tuple(who), whose)
