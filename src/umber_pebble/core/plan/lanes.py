"""A timetable as lanes: what hands do, and what is on each heater, in each vessel and mould, and in each place, and until when."""

import itertools
import math
from collections.abc import Iterable, Iterator
from dataclasses import dataclass, replace
from typing import Literal

from umber_pebble.core.plan.compile import Plan
from umber_pebble.core.plan.cooks import lies_in
from umber_pebble.core.plan.day.held import place_of
from umber_pebble.core.plan.problem import MeltWay, Named, PlanLine
from umber_pebble.core.plan.tasks import PlannedHeat, Task, TaskKind
from umber_pebble.core.plan.wishes import Thing
from umber_pebble.core.spread import Spread, exact

LaneKind = Literal["hands", "heater", "vessel", "mould", "place"]
Role = Literal["busy", "pressed", "away", "heats", "waits", "open", "holds"]
"""What a span is: hands at work; hands at what cannot wait; hands that are not there; something gets hot; something waits by
itself; a window is open; a place is taken."""
CANNOT_WAIT: frozenset[TaskKind] = frozenset(
    {"pour", "turn", "swirl", "bend", "stick", "sprinkle", "film", "drag", "comb", "groove", "cut", "shape"}
)

IN_VESSEL: dict[TaskKind, Role] = {
    "wash": "busy",
    "cook": "heats",
    "warm": "heats",
    "temper": "waits",
    "rest": "waits",
    "pour": "pressed",
    "swirl": "pressed",
    "divide": "pressed",
}


@dataclass(frozen=True, slots=True)
class Span:
    """Something from then until then [s]; what is done, where hands or nature do it; named: what it is done to; cook and round: where
    it belongs; count: castings of it, or moulds in a place; thing: what may be wished of; into: the cook that is divided off there."""

    role: Role
    start_s: float
    end_s: Spread
    what: TaskKind | None = None
    named: Named | None = None
    cook: int | None = None
    round: int | None = None
    count: int = 0
    thing: Thing | None = None
    into: int | None = None


@dataclass(frozen=True, slots=True)
class Lane:
    """A row of a timetable: a pair of hands, a heater, a melt in its vessel, a mould, a place. id: of the heater, vessel, mould or
    place, of hands a number; name: whose hands, of the mould or what is in the vessel, "" where its id says it; colour: of the melt, as hex; kg: of the
    melt, weighed out; takes: moulds at once, None: enough or not counted."""

    kind: LaneKind
    id: str
    name: str
    spans: tuple[Span, ...]
    material: str = ""
    colour: str | None = None
    kg: float = 0.0
    takes: int | None = None


def lanes_of(plan: Plan) -> list[Lane]:
    """A plan's timetable as lanes, in the order in which each is first needed within its kind [s from when it was planned].

    Source: definition
    """
    of = _Spans(plan)
    lanes = [
        *(Lane("hands", str(n), name, tuple(of.hands(n))) for n, name in enumerate(plan.problem.people)),
        *(Lane("heater", heater, "", tuple(of.heater(heater))) for heater in of.heaters()),
        *(of.melt(key, way) for key, way in plan.problem.ways.items()),
        *of.moulds(),
        *of.places(),
    ]
    kinds: tuple[LaneKind, ...] = ("hands", "heater", "vessel", "mould", "place")
    return sorted(
        (lane for lane in lanes if lane.spans),
        key=lambda lane: (kinds.index(lane.kind), min(span.start_s for span in lane.spans)),
    )


class _Spans:
    """The spans of a plan's lanes."""

    def __init__(self, plan: Plan) -> None:
        self.plan, self.rounds = plan, plan.rounds

    def heaters(self) -> list[str]:
        return list(dict.fromkeys(cook.way.by.heater_id for cook in self.plan.cooks))

    def hands(self, person: int) -> Iterator[Span]:
        for task in self.plan.tasks:
            if task.who == person:
                yield self._done(task, _hands_role(task))
        starts = self.plan.fares.start_s
        for who, leaves, comes in self.plan.day.day.closed:
            if who == person and starts + leaves < self.plan.ends_s:
                yield Span("away", starts + leaves, exact(min(starts + comes, self.plan.ends_s)))

    def heater(self, heater_id: str) -> Iterator[Span]:
        for task in self.plan.tasks:
            if task.kind in ("cook", "warm") and self.plan.cooks[task.number].way.by.heater_id == heater_id:
                yield self._done(task, "heats")

    def melt(self, key: str, way: MeltWay) -> Lane:
        """A melt in its vessel: how it is made, until when it may be poured, and each pour of it."""
        cooks = {cook.number: cook for cook in self.plan.cooks_of(key)}
        mine = [task for task in self.plan.tasks if task.of == "cook" and task.number in cooks]
        spans = [self._done(task, IN_VESSEL[task.kind]) for task in mine if task.kind in IN_VESSEL]
        spans += [self._open(heat) for heat in self.plan.heats if heat.cook in cooks]
        return Lane(
            "vessel",
            way.vessel_id,
            way.melt.name,
            tuple(sorted(spans, key=lambda span: (span.start_s, span.role != "open"))),
            material=way.melt.key,
            colour=way.colour,
            kg=self.plan.made_kg(key),
        )

    def _open(self, heat: PlannedHeat) -> Span:
        """When a melt may be poured after a heat, until its vessel is on the heat again."""
        cook = self.plan.cooks[heat.cook]
        window = cook.window
        if heat.rounds:
            # out of one vessel some may be poured longer than others
            here = [self.rounds[n].line for n in heat.rounds]
            window = max((cook.pours[line][1] for line in here), key=lambda w: w.closes.likely)
        again = min(
            (
                h.on_s
                for h in self.plan.heats
                if h.on_s >= heat.ready_s and self.plan.cooks[h.cook].way.vessel_id == cook.way.vessel_id
            ),
            default=math.inf,
        )
        opens = window.opens.likely
        closes = window.closes.map(lambda at: min(heat.ready_s + max(at, opens), again))
        return Span("open", heat.ready_s + opens, closes, cook=heat.cook)

    def moulds(self) -> Iterator[Lane]:
        """What stands in each mould: pass by pass, until it is turned out and the mould is clean."""
        lines = self.plan.problem.lines
        ids = dict.fromkeys(lines[r.line].mould.mould_id for r in self.plan.rounds if r.into is None)
        for mould_id in ids:
            first = next(line for line in lines if line.mould.mould_id == mould_id)
            spans = [
                span
                for task in self.plan.tasks
                if task.round is not None
                and lines[self.rounds[task.round].line].mould.mould_id == mould_id
                and task.kind in ("pour", "set", "unmould", "firm", "clean", "dry")
                for span in self._stands(task)
            ]
            yield Lane("mould", mould_id, first.mould.name, tuple(spans), takes=first.mould.at_once)

    def _stands(self, task: Task) -> Iterator[Span]:
        done = self._done(task, _hands_role(task) if task.hands else "waits")
        if task.kind != "set" or task.round is None or not self._line(task).last:
            yield done
            return
        # until when it sets is not known to the minute; from then on it may be turned out, until hands come to it
        at = self.plan.windows[task.round].at["unmould"]
        yield replace(done, end_s=at.map(lambda s: min(task.start_s + s, task.end_s)))
        yield replace(done, role="open", start_s=min(task.start_s + at.likely, task.end_s), what="unmould")

    def places(self) -> Iterator[Lane]:
        """How many moulds lie in each place that has not room for any number, from when to when."""
        for place, takes in self.plan.problem.shelves.items():
            lies = [(start, end, moulds) for where, start, end, moulds in self._lies() if where == place]
            yield Lane("place", place, "", tuple(_levels(lies)), takes=takes)

    def _lies(self) -> Iterator[tuple[str, float, float, int]]:
        for task in self.plan.tasks:
            if task.kind not in ("set", "firm") or task.round is None:
                continue
            place, moulds = lies_in(self.plan.problem, self._line(task), self.rounds[task.round].casts)
            yield place, task.start_s, task.end_s, moulds

    def _line(self, task: Task) -> PlanLine:
        assert task.round is not None
        return self.plan.problem.lines[self.rounds[task.round].line]

    def _named(self, task: Task) -> Named | None:
        if task.of == "by_hand":
            return self.plan.problem.by_hand[task.number].named
        if task.round is not None:
            return self._line(task).named
        return None

    def _done(self, task: Task, role: Role) -> Span:
        return Span(
            role,
            task.start_s,
            exact(task.end_s),
            task.kind,
            self._named(task),
            task.number if task.of == "cook" else None,
            task.round,
            0 if task.round is None else self.rounds[task.round].casts,
            None if task.thing is None else place_of(self.plan.day, self.plan.day.names[task.thing]),
            None if task.round is None else self.rounds[task.round].into,
        )


def _hands_role(task: Task) -> Role:
    return "pressed" if task.kind in CANNOT_WAIT else "busy"


def _levels(lies: Iterable[tuple[float, float, int]]) -> Iterator[Span]:
    """Stays that overlap as one row of levels."""
    lies = list(lies)
    marks = sorted({at for start, end, _ in lies for at in (start, end)})
    for start, end in itertools.pairwise(marks):
        moulds = sum(n for from_s, to_s, n in lies if from_s <= start and end <= to_s)
        if moulds:
            yield Span("holds", start, exact(end), count=moulds)
