"""Whether a timetable keeps what a day asks, read off the definitions alone: nothing of how it was found is used here."""

import itertools
from collections import defaultdict
from collections.abc import Iterable, Iterator
from dataclasses import dataclass
from typing import Literal

from umber_pebble.core.plan.day.problem import Day, Edge, Heat, Melt, Timetable

Kind = Literal[
    "before the start",
    "hands",
    "able",
    "closed",
    "bound",
    "lag",
    "stay",
    "heater",
    "vessel",
    "not poured",
    "window",
    "batch",
]

FOR_EVER_S = 10**9
Row = tuple[Heat, int, int, int, list[tuple[int, int]]]
"""A heat, when it is on the heater, ready, and off the heater, and when hands are at it [s]."""


@dataclass(frozen=True, slots=True)
class Broken:
    """What is not kept, and what of: numbers of things, or of the person, or the name of what is taken."""

    kind: Kind
    of: tuple[int | str, ...]


def broken(day: Day, table: Timetable) -> list[Broken]:
    """Everything that a timetable does not keep; nothing where it can be done as it stands.

    Args:
        day: what is asked
        table: one start and person for each thing, heats in order per melt
    Source: definition
    """
    of = _Check(day, table)
    return [*of.starts(), *of.hands(), *of.lags(), *of.stays(), *of.batches()]


class _Check:
    def __init__(self, day: Day, table: Timetable) -> None:
        self.day, self.table = day, table
        self.spans = [(s, s + t.lasts_s) for s, t in zip(table.start_s, day.tasks, strict=True)]
        self.heats = list(self._heats())

    def _heats(self) -> Iterator[Row]:
        ready: dict[int, int] = {}
        for heat in self.table.heats:
            melt = self.day.melts[heat.melt]
            if melt.portion and heat.melt not in ready:
                ready[heat.melt] = heat.start_s
                yield heat, heat.start_s, heat.start_s, heat.start_s, []
                continue
            if heat.new:
                on, how = heat.start_s + melt.weigh_s, melt.first
                hands = [(heat.start_s, on)] if melt.weigh_s else []
                if (washed := self._to_wash(heat)) and washed.wash_s:
                    hands = [(heat.start_s - washed.wash_s, heat.start_s), *hands]
            else:
                stood = heat.start_s - ready.get(heat.melt, 0)
                on, how, hands = heat.start_s, (melt.warm if stood <= melt.fluid_s else melt.again), []
            ready[heat.melt] = on + how.lasts_s
            yield heat, on, ready[heat.melt], on + how.on_s, hands + [(on + a, on + b) for a, b in how.hands]

    def _to_wash(self, heat: Heat) -> Melt | None:
        """What was in a vessel before and has to be out of it: the last that was made there, or what was there at the beginning."""
        vessel = self.day.melts[heat.melt].vessel
        made = [h for h in self.table.heats if h.new and self.day.melts[h.melt].vessel == vessel]
        before = [h for h in made if h.start_s < heat.start_s]
        begun = (of.melt for of in self.day.begun if self.day.melts[of.melt].vessel == vessel)
        left = next((of.melt for of in self.day.soiled if of.vessel == vessel), next(begun, None))
        was = max(before, key=lambda h: h.start_s).melt if before else left
        if was is None or was == heat.melt or heat.melt in self.day.melts[was].leads_on:
            return None
        return self.day.melts[was]

    def starts(self) -> Iterator[Broken]:
        for i, start in enumerate(self.table.start_s):
            if start < 0:
                yield Broken("before the start", (i,))
        for heat, _, ready, _, hands in self.heats:
            first = min([heat.start_s, *(start for start, _ in hands)])
            if first < self.day.from_s and not self._comes_in(heat) and not self._there(heat, ready):
                yield Broken("before the start", (heat.melt,))
        for bound in self.day.bounds:
            start, end = self.spans[bound.task]
            soon = bound.not_before_s is not None and start < bound.not_before_s
            if soon or (bound.over_by_s is not None and end > bound.over_by_s):
                yield Broken("bound", (bound.task,))

    def hands(self) -> Iterator[Broken]:
        busy: dict[int, list[tuple[int, int]]] = defaultdict(list)
        for i, task in enumerate(self.day.tasks):
            who = self.table.who[i]
            if not task.hands:
                continue
            if who is None or who not in self.day.able(i):
                yield Broken("able", (i,))
            else:
                busy[who].append(self.spans[i])
        for heat, _, ready, _, hands in self.heats:
            if self._there(heat, ready):
                continue
            for span, person in zip(hands, heat.who, strict=True):
                if person not in self.day.able_at_heat(heat.melt):
                    yield Broken("able", (heat.melt,))
                busy[person].append(span)
        for person, start, end in self.day.closed:
            if any(s < end and start < e for s, e in busy[person] if s < e):
                yield Broken("closed", (person, start))
        for person, spans in busy.items():
            if _most(((s, e, 1) for s, e in spans)) > 1:
                yield Broken("hands", (person,))

    def lags(self) -> Iterator[Broken]:
        for lag in self.day.lags:
            between = self._at(lag.then, lag.then_edge) - self._at(lag.first, lag.first_edge)
            if between < lag.least_s or (lag.most_s is not None and between > lag.most_s):
                yield Broken("lag", (lag.first, lag.then))

    def stays(self) -> Iterator[Broken]:
        taken: dict[str, list[tuple[int, int, int]]] = defaultdict(list)
        for stay in self.day.stays:
            start = self._at(stay.first, stay.first_edge)
            taken[stay.of].append((start, self._at(stay.then, stay.then_edge) + stay.after_s, stay.amount))
        for of, spans in taken.items():
            if _most(spans) > self.day.capacity.get(of, 1):
                yield Broken("stay", (of,))

    def batches(self) -> Iterator[Broken]:
        heaters: dict[str, list[tuple[int, int, int]]] = defaultdict(list)
        vessels: dict[str, list[tuple[int, int, int]]] = defaultdict(list)
        for soiled in self.day.soiled:
            vessels[soiled.vessel].append((-FOR_EVER_S, soiled.since_s, 1))
        for begun in self.day.begun:
            # what is on one heater in turns is on it until the last of it is off
            name = self.day.melts[begun.melt].heater
            until = max([begun.heater_s, *(end for _, end, _ in heaters[name])])
            heaters[name] = [(0, until, 1)]
        for number, melt in enumerate(self.day.melts):
            mine = [row for row in self.heats if row[0].melt == number]
            yield from self._poured(number)
            heaters[melt.heater] += [(on, off, 1) for h, on, ready, off, _ in mine if not self._there(h, ready)]
            for batch in _by_batch(mine):
                first = batch[0][0]
                if not first.new or not self._after_it_comes_in(batch):
                    yield Broken("batch", (number,))
                    continue
                yield from self._batch(batch)
                ends = [self.spans[self.day.draws[d].task][1] for h, *_ in batch for d in h.draws]
                washed = self._to_wash(first)
                from_s = first.start_s - (washed.wash_s + washed.soaks_s if washed else 0)
                if melt.portion and self._comes_in(first):
                    from_s, made = self.spans[melt.portion.task]
                    ends.append(made)
                vessels[melt.vessel].append((from_s, max([*ends, batch[-1][2]]), 1))
        for kind, of in (("heater", heaters), ("vessel", vessels)):
            for name, spans in of.items():
                if _most(spans) > self.day.capacity.get(name, 1):
                    yield Broken("heater" if kind == "heater" else "vessel", (name,))

    def _there(self, heat: Heat, ready: int) -> bool:
        """Whether a heat is how a batch that is there already is told: when it was ready."""
        return heat.new and any(b.melt == heat.melt and b.ready_s == ready for b in self.day.begun)

    def _comes_in(self, heat: Heat) -> bool:
        """Whether a heat is how a melt is told that comes out of another: its first."""
        mine = (h for h in self.table.heats if h.melt == heat.melt)
        return self.day.melts[heat.melt].portion is not None and heat is next(mine)

    def _after_it_comes_in(self, batch: list[Row]) -> bool:
        """Whether what comes out of another melt does so when it does, and is poured and heated only after that."""
        heat, portion = batch[0][0], self.day.melts[batch[0][0].melt].portion
        if portion is None or not self._comes_in(heat):
            return True
        made = self.spans[portion.task][1]
        poured = (self.spans[self.day.draws[d].task][0] for row in batch for d in row[0].draws)
        return heat.start_s + portion.stood_s == made and all(
            at >= made for at in (*poured, *(row[1] for row in batch[1:]))
        )

    def _poured(self, melt: int) -> Iterator[Broken]:
        wanted = sorted(i for i, draw in enumerate(self.day.draws) if draw.melt == melt)
        got = sorted(d for heat in self.table.heats if heat.melt == melt for d in heat.draws)
        if wanted != got:
            yield Broken("not poured", (melt,))

    def _batch(self, batch: list[Row]) -> Iterator[Broken]:
        melt = self.day.melts[batch[0][0].melt]
        draws = [d for heat, *_ in batch for d in heat.draws]
        used: list[tuple[int, int, int]] = []
        for heat, on, ready, *_ in batch:
            used.append((on, ready, 1))
            for d in heat.draws:
                draw = self.day.draws[d]
                start, end = self.spans[draw.task]
                used.append((start, end, 1))
                if start < ready + draw.opens_s or end > ready + draw.closes_s:
                    yield Broken("window", (draw.task,))
        full = sum(self.day.draws[d].mg for d in draws) > melt.pours_mg
        made = batch[0][2] + (melt.portion.stood_s if melt.portion and self._comes_in(batch[0][0]) else 0)
        old = max((self.spans[self.day.draws[d].task][1] for d in draws), default=0) - made > melt.life_s
        # one vessel is not poured from by two, nor while it is on the heat
        if full or old or len(batch) - 1 > melt.warmings or _most(used) > 1:
            yield Broken("batch", (batch[0][0].melt,))

    def _at(self, task: int, edge: Edge) -> int:
        return self.spans[task][0 if edge == "start" else 1]


def _by_batch(rows: list[Row]) -> Iterator[list[Row]]:
    batch: list[Row] = []
    for row in rows:
        if row[0].new and batch:
            yield batch
            batch = []
        batch.append(row)
    if batch:
        yield batch


def _most(spans: Iterable[tuple[int, int, int]]) -> int:
    """The most that is taken at once."""
    marks = sorted(
        itertools.chain.from_iterable(((end, -n), (start, n)) for start, end, n in spans if end > start)
    )
    return max(itertools.accumulate(n for _, n in marks), default=0)
