"""A day's timetable as a plan has it: its cooks with their rounds, its heats, and everything that is done."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace

from umber_pebble.core.heat.windows import PieceWindows
from umber_pebble.core.plan.cooks import PotCook, Round, make_cooks, ready_for_next
from umber_pebble.core.plan.day.compile import OrderDay
from umber_pebble.core.plan.day.problem import Heat, Placed, Timetable, placed
from umber_pebble.core.plan.tasks import POURS, PlannedHeat, Task, TaskKind


@dataclass(frozen=True, slots=True)
class Scheduled:
    """A timetable as a plan has it; times from now, ends_s: when all is ready [s]; windows per round [s from its pour]."""

    cooks: tuple[PotCook, ...]
    windows: dict[int, PieceWindows]
    heats: tuple[PlannedHeat, ...]
    tasks: tuple[Task, ...]
    ends_s: float


def scheduled(of: OrderDay, table: Timetable, start_s: float) -> Scheduled:
    """A timetable of an order's day, begun at a time.

    Args:
        of, table: the day, and a timetable that keeps it
        start_s: when [s from now]
    Raises: OutOfRange, MouldTooWeak: as its cooks.
    Source: definition
    """
    reading = _Reading(of, table)
    tasks = sorted(reading.tasks(), key=lambda t: (t.start_s, t.end_s))
    return Scheduled(
        tuple(reading.cooks),
        {number: of.windows[filling] for filling, number in reading.number.items()},
        tuple(heat.moved(start_s) for heat in reading.heats()),
        tuple(task.moved(start_s) for task in tasks),
        start_s + of.ready_s(table),
    )


def round_numbers(of: OrderDay, table: Timetable) -> dict[int, int]:
    """The round of each filling: rounds are numbered in the order in which they are poured. Source: definition"""
    begins = {n.filling: table.start_s[i] for i, n in enumerate(of.names) if n.kind in POURS}
    by_pour = sorted(range(len(of.fillings)), key=lambda filling: (begins[filling], filling))
    return {filling: number for number, filling in enumerate(by_pour)}


class _Reading:
    """What the things of a day are in the order it was made from."""

    def __init__(self, of: OrderDay, table: Timetable) -> None:
        self.of, self.plan, self.table = of, of.plan, table
        self.things = {(n.kind, n.filling): i for i, n in enumerate(of.names) if n.filling is not None}
        self.number = round_numbers(of, table)
        self.stay = {f: n for n, together in enumerate(of.together) for f in together}
        self.placed = placed(of.day, table.heats)
        self.batches = list(_batches(table.heats))
        self.cook_of = {n: cook for cook, heats in enumerate(self.batches) for n in heats}
        self.divided = dict(self._divided())
        self.cooks = make_cooks(
            self.plan,
            [[self._round(f, c) for n in heats for f in self._filled(n)] for c, heats in enumerate(self.batches)],
        )
        self.cook_of_filling = {f: self.cook_of[n] for n in self.cook_of for f in self._filled(n)}

    def _divided(self) -> Iterator[tuple[int, int]]:
        """What is divided off, with the cook that it is from then on."""
        comes_in = {self.table.heats[heats[0]].melt: cook for cook, heats in reversed([*enumerate(self.batches)])}
        for m, melt in enumerate(self.of.day.melts):
            if melt.portion is not None and (filling := self.of.names[melt.portion.task].filling) is not None:
                yield filling, comes_in[m]

    def _pour(self, filling: int) -> int:
        return next(self.things[kind, filling] for kind in POURS if (kind, filling) in self.things)

    def _filled(self, heat: int) -> list[int]:
        """The fillings that are poured out of a heat, in order."""
        tasks = [self.of.day.draws[d].task for d in self.table.heats[heat].draws]
        fillings = [self.of.names[i].filling for i in sorted(tasks, key=lambda i: self.table.start_s[i])]
        return [f for f in fillings if f is not None]

    def _round(self, filling: int, cook: int) -> Round:
        f = self.of.fillings[filling]
        on = None if f.on is None else self.number[f.on]
        return Round(
            self.number[filling], f.line, cook, f.casts, on, self.stay[filling], self.divided.get(filling)
        )

    def heats(self) -> Iterator[PlannedHeat]:
        for n, one in enumerate(self.placed):
            filled = self._filled(n)
            until = max((self._end(self._pour(f)) for f in filled), default=one.ready_s)
            rounds = tuple(self.number[f] for f in filled)
            if self._comes_in(n):
                # it is there once it is in its vessel
                made = self._made_s(n)
                yield PlannedHeat(self.cook_of[n], True, made, made, made, max(until, made), rounds)
                continue
            yield PlannedHeat(
                self.cook_of[n], one.heat.new, one.on_s, one.off_s, one.ready_s, max(until, one.ready_s), rounds
            )

    def _comes_in(self, heat: int) -> bool:
        """Whether it is no heat: the melt comes out of another's vessel."""
        of = self.table.heats[heat]
        first = next(h for h in self.table.heats if h.melt == of.melt)
        return self.of.day.melts[of.melt].portion is not None and of is first

    def _made_s(self, heat: int) -> int:
        portion = self.of.day.melts[self.table.heats[heat].melt].portion
        assert portion is not None
        return self._end(portion.task)

    def tasks(self) -> Iterator[Task]:
        for n, one in enumerate(self.placed):
            if self._comes_in(n):
                continue
            yield from self._at_the_heat(self.cook_of[n], one, self._filled(n))
        for i, name in enumerate(self.of.names):
            if name.by_hand is not None:
                yield Task(
                    name.kind,
                    "by_hand",
                    name.by_hand,
                    None,
                    self.table.start_s[i],
                    self._end(i),
                    self.table.who[i],
                    i,
                )
            elif name.filling is not None and name.kind != "firm":
                done = self._of_round(
                    name.kind, name.filling, self.table.start_s[i], self._end(i), self.table.who[i]
                )
                yield replace(done, thing=i)
        for filling in range(len(self.of.fillings)):
            yield from self._by_itself(filling)

    def _at_the_heat(self, cook: int, one: Placed, filled: Sequence[int]) -> Iterator[Task]:
        """A heat, with the hands that are at it, and how its melt then waits until it may be poured."""
        yield Task("cook" if one.heat.new else "warm", "cook", cook, None, one.on_s, one.off_s)
        if one.ready_s > one.off_s:
            yield Task("temper", "cook", cook, None, one.off_s, one.ready_s)
        for (start, end), who in zip(one.hands, one.heat.who, strict=True):
            before: TaskKind = "wash" if end <= one.heat.start_s and one.wash_s else "weigh"
            kind = before if end <= one.on_s else "tend"
            if end > start:
                yield Task(kind, "cook", cook, None, start, end, who)
        first = min((self.table.start_s[self._pour(f)] for f in filled), default=one.ready_s)
        draws = [self.of.day.draws[d] for d in one.heat.draws]
        opens = min((draw.opens_s for draw in draws), default=0)
        if opens:
            yield Task("rest", "cook", cook, None, one.ready_s, min(one.ready_s + opens, first))

    def _by_itself(self, filling: int) -> Iterator[Task]:
        """How a round sets or firms, and how its mould dries."""
        line, pour = self.plan.lines[self.of.fillings[filling].line], self._pour(filling)
        poured = self._end(pour)
        if line.cast_on and not line.last:
            sets = ready_for_next(self.plan.way(line).melt, self.of.windows[filling]).high
            yield self._of_round("set", filling, poured, poured + sets)
        elif (off := self.things.get(("unmould", filling))) is not None:
            yield self._of_round("set", filling, poured, self.table.start_s[off])
        elif (firm := self.things.get(("firm", filling))) is not None and line.works:
            worked = self._end(self.things[line.works[-1].kind, filling])
            yield self._of_round("firm", filling, worked, max(self.table.start_s[firm], worked))
        if (clean := self.things.get(("clean", filling))) is not None:
            cleaned = self._end(clean)
            yield self._of_round("dry", filling, cleaned, cleaned + self.plan.paces.dry_s)

    def _of_round(self, kind: TaskKind, filling: int, start: float, end: float, who: int | None = None) -> Task:
        cook = self.cook_of_filling[filling]
        return Task(kind, "cook", cook, self.number[filling], start, end, who)

    def _end(self, thing: int) -> int:
        return self.table.start_s[thing] + self.of.day.tasks[thing].lasts_s


def _batches(heats: Sequence[Heat]) -> Iterator[list[int]]:
    """The heats of each batch, batches in the order in which they are made."""
    batches: list[list[int]] = []
    running: dict[int, list[int]] = {}
    for n, heat in enumerate(heats):
        if heat.new:
            running[heat.melt] = []
            batches.append(running[heat.melt])
        running[heat.melt].append(n)
    yield from batches
