"""How a run may go on from here: as it is going, in another order, without what is only spare, with what stands moved into the cold, with
another pair of hands; when each ends, and what is lost."""

from collections.abc import Callable, Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Literal

from umber_pebble.core.bench.rest_of_day import Rest
from umber_pebble.core.bench.shifted import shifted
from umber_pebble.core.bench.side_events import Hers, PourAt
from umber_pebble.core.errors import OutOfRange
from umber_pebble.core.plan.alternatives import sooner_s
from umber_pebble.core.plan.day.greedy import first_timetable
from umber_pebble.core.plan.day.needs import NoPlace
from umber_pebble.core.plan.day.problem import Day, Timetable
from umber_pebble.core.plan.day.search import at_once, improved
from umber_pebble.core.plan.problem import MOST_HANDS
from umber_pebble.core.plan.tasks import POURS, TaskKind

How = Literal["as_it_goes", "rearranged", "without_spares", "colder", "help"]

LEAST_S = 60.0
"""Less is as soon [s]."""
STARTS = 4
"""Timetables tried a way [count]: hands wait for the answer."""
STRICTLY = 10.0
"""By so much of its rank what goes first may begin later [1]: more than any rank makes up for."""
SLICE, SLICES = 0.1, 200
"""A search in slices so long by the solver's own clock, so many at most."""


@dataclass(frozen=True, slots=True)
class Lost:
    """What is about to be lost: which round, what is done to it, and when its window closes [s]."""

    round: int
    kind: TaskKind
    closes_s: int


@dataclass(frozen=True, slots=True)
class Onward:
    """A way to go on: when all is ready [s since the run started], when each round is poured, whose hands do what, by what is done and to
    what number; what is too late for its window; and whether it is worth offering."""

    how: How
    ends_s: float
    pours: tuple[PourAt, ...]
    whose: tuple[Hers, ...]
    lost: tuple[Lost, ...]
    offered: bool = True


@dataclass(frozen=True, slots=True)
class Others:
    """What is left of the day in other ways: without what is only spare, and with what stands somewhere moved to where it is colder; None:
    there is no such."""

    without_spares: Rest | None = None
    colder: Rest | None = None


def ways_on(
    rest: Rest, others: Others, table: Timetable, pours_s: Mapping[int, float], people: Sequence[str]
) -> Iterator[Onward]:
    """The ways to go on, first as it is going; nothing where no timetable is found for what is left.

    Args:
        rest, others: of the day
        table: as the day was planned
        pours_s: when rounds are to be poured since that was rearranged [s]; empty: it was not
        people: whose hands are at it
    Source: definition
    """

    def kept(of: Rest) -> Timetable | None:
        return _found(of, _as_arranged(of, pours_s), _planned_s(of, table, pours_s))

    # what was rearranged is only told as pours, and laid out anew
    own = None if pours_s else shifted(rest, table)
    found_so = [of for of in (own, kept(rest)) if of is not None]
    if not found_so:
        return
    now = _read(rest, min(found_so, key=rest.of.ready_s), "as_it_goes", people)
    yield now
    rearranged = _found(rest, rest.day)
    if rearranged is not None:
        yield offered(_read(rest, rearranged, "rearranged", people), now.ends_s, len(now.lost))
    if (fewer := others.without_spares) is not None and (found := _found(fewer, fewer.day)) is not None:
        # castings are saved, whenever it ends
        yield _read(fewer, found, "without_spares", people)
    if (cold := others.colder) is not None and (found := kept(cold)) is not None:
        moved = _read(cold, found, "colder", people)
        # what is only sooner off, and ends no sooner, is not worth the way
        yield replace(moved, offered=now.ends_s - moved.ends_s >= sooner_s())
    if len(people) < MOST_HANDS:
        more = replace(rest.day, people=rest.day.people + 1)
        helped = _found(rest, more)
        if helped is not None:
            yield offered(_read(rest, helped, "help", (*people, "")), now.ends_s, len(now.lost))


def offered(way: Onward, ends_s: float, lost: int) -> Onward:
    """A way, offered where it ends sooner than as it is going, or loses less.

    Args:
        way: to go on
        ends_s, lost: when it ends as it is going [s since the run started], and how many things are too late then [count]
    Source: definition
    """
    return replace(way, offered=ends_s - way.ends_s >= LEAST_S or len(way.lost) < lost)


def searched(rest: Rest, people: Sequence[str], goes_on: Callable[[], bool]) -> Onward | None:
    """The best order that a search finds for what is left; None where nothing is found that keeps every window.

    Args:
        rest: of the day
        people: whose hands are at it
        goes_on: asked after each slice of the search; false stops
    Source: or-tools
    """
    try:
        known = at_once(rest.day)
    except OutOfRange:
        return None
    solved = improved(rest.day, known, [SLICE] * SLICES, lambda _: goes_on())
    return _read(rest, solved.table, "rearranged", people)


def _as_arranged(rest: Rest, pours_s: Mapping[int, float]) -> Day:
    """No pour sooner than it was put when that was rearranged: so its order is kept, whatever comes later."""
    names = rest.of.names
    due = {
        i: pours_s[rest.number[name.filling]]
        for i, name in enumerate(names)
        if name.kind in POURS and name.filling is not None and rest.number[name.filling] in pours_s
    }
    bounds = (
        b
        if b.task in rest.done or b.task not in due
        else replace(b, not_before_s=max(b.not_before_s or 0, round(due[b.task])))
        for b in rest.day.bounds
    )
    return replace(rest.day, bounds=tuple(bounds))


def _planned_s(rest: Rest, table: Timetable, pours_s: Mapping[int, float]) -> list[float]:
    """When each thing is planned to begin: what belongs to a pour that was rearranged is moved with it."""
    moved: dict[int | None, float] = {}
    for i, name in enumerate(rest.of.names):
        number = None if name.filling is None else rest.number[name.filling]
        if number is not None and name.kind in POURS and number in pours_s:
            moved[name.filling] = pours_s[number] - table.start_s[i]
    return [at + moved.get(n.filling, 0.0) for at, n in zip(table.start_s, rest.of.names, strict=True)]


def _found(rest: Rest, day: Day, rank: Sequence[float] | None = None) -> Timetable | None:
    """At once, in the order planned or as the best of a few; where something is bound to be late, with it late."""
    bounds = (b if b.task in rest.done else replace(b, over_by_s=None) for b in day.bounds)
    for of in (day, replace(day, bounds=tuple(bounds))):
        try:
            return at_once(of, starts=STARTS) if rank is None else _in_order(of, rank)
        except (NoPlace, OutOfRange):
            continue
    return None


def _in_order(day: Day, rank: Sequence[float]) -> Timetable:
    """In the order given, strictly or as far as hands have nothing else to do, whichever ends sooner."""
    found = list[Timetable]()
    for bias in (0.0, STRICTLY):
        try:
            found.append(first_timetable(day, rank, bias))
        except NoPlace:
            continue
    if not found:
        raise NoPlace
    return min(found, key=lambda table: table.end_s(day))


def _read(rest: Rest, table: Timetable, how: How, people: Sequence[str]) -> Onward:
    of, day = rest.of, rest.day
    pours, whose = dict[int, float](), dict[tuple[str, int], str]()
    for i, name in enumerate(of.names):
        number = name.by_hand if name.filling is None else rest.number[name.filling]
        if number is None or (name.filling is not None and number in rest.left_out):
            continue
        kind = "by_hand" if name.filling is None else "pour" if name.kind in POURS else name.kind
        if kind == "pour":
            pours[number] = float(table.start_s[i])
        who = table.who[i]
        if who is not None and i not in rest.done and people[who]:
            whose.setdefault((kind, number), people[who])
    late = (
        Lost(rest.number[filling], of.names[b.task].kind, b.over_by_s)
        for b in day.bounds
        if b.over_by_s is not None
        and b.task not in rest.done
        and table.start_s[b.task] + day.tasks[b.task].lasts_s > b.over_by_s
        and (filling := of.names[b.task].filling) is not None
    )
    return Onward(
        how,
        float(of.ready_s(table)),
        tuple(PourAt(number, at) for number, at in sorted(pours.items())),
        tuple(Hers(done, number, who) for (done, number), who in sorted(whose.items())),
        tuple(late),
    )
