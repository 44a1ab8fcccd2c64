"""The heats of one melt as a solver sees them: how many there may be, of which kind, and what is poured out of each."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from ortools.sat.python import cp_model

from umber_pebble.core.plan.day.problem import (
    Day,
    Draw,
    Heat,
    Heating,
    InVessel,
    Melt,
    Placed,
    Portion,
    heated_before,
)

Var = cp_model.IntVar
Interval = cp_model.IntervalVar


@dataclass(frozen=True, slots=True)
class Slot:
    """A heat that may be: if it is there, and new, warmed, or melted again; when it starts, is ready, and is poured from last; since
    when its vessel is held for it; when its batch was made; how much and how often that has been used; what is poured out of it."""

    here: Var
    new: Var
    warm: Var
    again: Var
    start: Var
    ready: Var
    last: Var
    held: Var
    born: Var
    used: Var
    count: Var
    takes: dict[int, Var]


@dataclass(frozen=True, slots=True)
class AtIt:
    """Hands at a heat: the how manieth heat, the how manieth time, the wash of its vessel before that -1; from when, how long [s], and
    if it is so."""

    slot: int
    nth: int
    start: cp_model.LinearExprT
    lasts_s: int
    is_so: Var


class MeltSlots:
    """One melt of a day in a model: as many heats as are known, and one more."""

    def __init__(
        self, m: cp_model.CpModel, day: Day, number: int, starts: Sequence[Var], top: int, heats: int
    ) -> None:
        self.m, self.day, self.number, self.starts, self.top = m, day, number, starts, top
        self.melt: Melt = day.melts[number]
        self.draws = [i for i, d in enumerate(day.draws) if d.melt == number]
        self.there = day.there(number)
        self.given = self.there is not None or self.melt.portion is not None
        """Whether its first batch is in its vessel without being heated here."""
        self.slots: list[Slot] = []
        for k in range(heats + 1 + (self.there is not None)):
            slot = self._slot(f"m{number}.{k}")
            if self.there and not self.slots:
                self._goes_on(slot, self.there)
            elif self.melt.portion and not self.slots:
                self._comes_in(slot, self.melt.portion)
            else:
                self._heat(slot)
                self._follows(slot)
            for d, x in slot.takes.items():
                self._drawn(day.draws[d], x, slot)
            self.slots.append(slot)
        for d in self.draws:
            m.add_exactly_one(slot.takes[d] for slot in self.slots)

    def _slot(self, name: str) -> Slot:
        here, new, warm, again = (
            self.m.new_bool_var(f"{name}.{what}") for what in ("here", "new", "warm", "again")
        )
        since = self.there.ready_s - self.melt.made_s if self.there else 0
        since -= self.melt.portion.stood_s if self.melt.portion else 0
        start, ready, last, held, born = (
            self.m.new_int_var(min(since, 0), self.top, f"{name}.{what}")
            for what in ("start", "ready", "last", "held", "born")
        )
        used = self.m.new_int_var(0, self.melt.pours_mg, f"{name}.used")
        count = self.m.new_int_var(0, self.melt.warmings, f"{name}.count")
        takes = {d: self.m.new_bool_var(f"{name}.{d}") for d in self.draws}
        return Slot(here, new, warm, again, start, ready, last, held, born, used, count, takes)

    def _heat(self, slot: Slot) -> None:
        """It is of one kind, and takes as long as that."""
        m, melt = self.m, self.melt
        m.add(slot.new + slot.warm + slot.again == slot.here)
        m.add(slot.start >= self.day.from_s).only_enforce_if(slot.here)
        lasts = self.melt.made_s * slot.new + melt.warm.lasts_s * slot.warm + melt.again.lasts_s * slot.again
        m.add(slot.ready == slot.start + lasts)
        m.add(slot.last >= slot.ready)
        m.add(slot.last <= slot.born + melt.life_s).only_enforce_if(slot.here)
        m.add(slot.held == slot.start).only_enforce_if(slot.new)
        m.add(slot.born == slot.ready).only_enforce_if(slot.new)
        m.add(slot.used == self._takes(slot)).only_enforce_if(slot.new)
        m.add(slot.count == 0).only_enforce_if(slot.new)

    def _goes_on(self, slot: Slot, there: InVessel) -> None:
        """It is in its vessel already."""
        m = self.m
        known = (
            *((slot.here, 1), (slot.new, 1), (slot.warm, 0), (slot.again, 0), (slot.held, 0)),
            *((slot.start, there.ready_s - self.melt.made_s), (slot.ready, there.ready_s)),
            *((slot.born, there.first_s), (slot.count, there.warmings)),
        )
        for variable, value in known:
            m.add(variable == value)
        m.add(slot.used == there.poured_mg + self._takes(slot))
        m.add(slot.last >= max(there.ready_s, there.used_s))
        for d, x in slot.takes.items():
            start, lasts = self.starts[self.day.draws[d].task], self.day.tasks[self.day.draws[d].task].lasts_s
            m.add(start >= there.used_s).only_enforce_if(x)
            m.add(start + lasts <= there.first_s + self.melt.life_s).only_enforce_if(x)

    def _comes_in(self, slot: Slot, portion: Portion) -> None:
        """It comes out of another melt's vessel, as if it had been ready before."""
        m, start, lasts = self.m, self.starts[portion.task], self.day.tasks[portion.task].lasts_s
        for variable, value in ((slot.here, 1), (slot.new, 1), (slot.warm, 0), (slot.again, 0), (slot.count, 0)):
            m.add(variable == value)
        m.add(slot.ready == start + lasts - portion.stood_s)
        m.add(slot.start == slot.ready)
        m.add(slot.held == start)
        m.add(slot.born == start + lasts)
        m.add(slot.used == self._takes(slot))
        m.add(slot.last >= slot.born)
        m.add(slot.last <= slot.born + self.melt.life_s)

    def _takes(self, slot: Slot) -> cp_model.LinearExpr:
        expr: cp_model.LinearExpr = cp_model.LinearExpr.weighted_sum(
            list(slot.takes.values()), [self.day.draws[d].mg for d in slot.takes]
        )
        return expr

    def _follows(self, slot: Slot) -> None:
        """It goes on with what the one before left, or is made new; the first can only be that."""
        m, melt = self.m, self.melt
        if not self.slots:
            m.add(slot.new == slot.here)
            return
        before = self.slots[-1]
        m.add_implication(slot.here, before.here)
        m.add(slot.start >= before.last)
        for kept in (slot.warm, slot.again):
            # what is kept stands in its vessel from its last pour on
            m.add(slot.held == before.last).only_enforce_if(kept)
            m.add(slot.born == before.born).only_enforce_if(kept)
            m.add(slot.used == before.used + self._takes(slot)).only_enforce_if(kept)
            m.add(slot.count == before.count + 1).only_enforce_if(kept)
        m.add(slot.start <= before.ready + melt.fluid_s).only_enforce_if(slot.warm)
        m.add(slot.start > before.ready + melt.fluid_s).only_enforce_if(slot.again)

    def _drawn(self, draw: Draw, x: Var, slot: Slot) -> None:
        start, lasts = self.starts[draw.task], self.day.tasks[draw.task].lasts_s
        self.m.add_implication(x, slot.here)
        self.m.add(start >= slot.ready + draw.opens_s).only_enforce_if(x)
        self.m.add(start + lasts <= slot.ready + draw.closes_s).only_enforce_if(x)
        self.m.add(slot.last >= start + lasts).only_enforce_if(x)

    def on_heater(self) -> Iterator[Interval]:
        """When its heater is taken. Source: definition"""
        for slot in self.slots:
            for is_so, weigh, how in self._kinds(slot):
                yield self.m.new_optional_fixed_size_interval_var(slot.start + weigh, how.on_s, is_so, "on")

    def made(self) -> Iterator[Interval]:
        """When it is being made, and so not poured. Source: definition"""
        for slot in self.slots:
            for is_so, weigh, how in self._kinds(slot):
                yield self.m.new_optional_fixed_size_interval_var(slot.start + weigh, how.lasts_s, is_so, "made")

    def at_it(self) -> Iterator[AtIt]:
        """When hands are at it. Source: definition"""
        for n, slot in enumerate(self.slots):
            for is_so, weigh, how in self._kinds(slot):
                for nth, (a, b) in enumerate([(-weigh, 0), *how.hands] if weigh else how.hands):
                    yield AtIt(n, nth, slot.start + weigh + a, b - a, is_so)

    def in_vessel(self) -> Iterator[Interval]:
        """When its vessel is taken for it. Source: definition"""
        for slot in self.slots:
            lasts = self.m.new_int_var(0, self.top, "in it")
            yield self.m.new_optional_interval_var(slot.held, lasts, slot.last, slot.here, "in vessel")

    def hands_s(self) -> cp_model.LinearExprT:
        """How long hands are at it in all [s]. Source: definition"""
        return sum(
            is_so * (weigh + sum(b - a for a, b in how.hands))
            for slot in self.slots
            for is_so, weigh, how in self._kinds(slot)
        )

    def _kinds(self, slot: Slot) -> tuple[tuple[Var, int, Heating], ...]:
        """How it may be heated; what is there is heated already."""
        melt = self.melt
        if self.given and slot is self.slots[0]:
            return ()
        return (slot.new, melt.weigh_s, melt.first), (slot.warm, 0, melt.warm), (slot.again, 0, melt.again)

    def in_order(self, leads: Sequence[tuple[int, int]]) -> None:
        """What is poured before another is not poured out of a later heat. Source: definition"""
        nth = {d: sum(k * slot.takes[d] for k, slot in enumerate(self.slots)) for d in self.draws}
        for before, after in leads:
            self.m.add(nth[before] <= nth[after])

    def hint(self, known: Sequence[Placed], ends: dict[int, int]) -> int:
        """Begins from heats that are known, and says which slot the first of them is; ends: of each draw [s]. Source: definition"""
        ready = born = used = count = last = 0
        rows: list[Placed | None] = [*known]
        if self.there and not (known and known[0].ready_s == self.there.ready_s):
            rows.insert(0, None)
        for k, slot in enumerate(self.slots):
            heat = rows[k] if k < len(rows) else None
            if self.there and k == 0:
                draws = frozenset(heat.heat.draws if heat else ())
                ready, born, count = self.there.ready_s, self.there.first_s, self.there.warmings
                used = self.there.poured_mg + sum(self.day.draws[d].mg for d in draws)
                last = max([ready, self.there.used_s, *(ends[d] for d in draws)])
                times = (ready - self.melt.made_s, ready, last, 0, born)
                self._hint(slot, (1, 1, 0, 0), times, (used, count), draws)
                continue
            if heat is None:
                self._hint(slot, (0, 0, 0, 0), (last, last, last, last, born), (used, count), frozenset())
                continue
            if self.melt.portion and k == 0:
                ready, born = heat.ready_s, heat.ready_s + self.melt.portion.stood_s
                used, count = sum(self.day.draws[d].mg for d in heat.heat.draws), 0
                last = max([born, *(ends[d] for d in heat.heat.draws)])
                held = born - self.day.tasks[self.melt.portion.task].lasts_s
                times = (ready, ready, last, held, born)
                self._hint(slot, (1, 1, 0, 0), times, (used, count), frozenset(heat.heat.draws))
                continue
            new = heat.heat.new
            warm = not new and heat.heat.start_s - ready <= self.melt.fluid_s
            held = heat.heat.start_s if new else last
            ready = heat.ready_s
            takes = sum(self.day.draws[d].mg for d in heat.heat.draws)
            born, used, count = (ready, takes, 0) if new else (born, used + takes, count + 1)
            last = max([ready, *(ends[d] for d in heat.heat.draws)])
            flags = (1, int(new), int(warm), int(not new and not warm))
            self._hint(
                slot,
                flags,
                (heat.heat.start_s, ready, last, held, born),
                (used, count),
                frozenset(heat.heat.draws),
            )
        return len(rows) - len(known)

    def _hint(
        self,
        slot: Slot,
        flags: tuple[int, ...],
        times: tuple[int, ...],
        counted: tuple[int, ...],
        draws: frozenset[int],
    ) -> None:
        own = (
            (slot.here, slot.new, slot.warm, slot.again),
            (slot.start, slot.ready, slot.last, slot.held, slot.born),
        )
        for variables, values in zip((*own, (slot.used, slot.count)), (flags, times, counted), strict=True):
            for variable, value in zip(variables, values, strict=True):
                self.m.add_hint(variable, value)
        for d, x in slot.takes.items():
            self.m.add_hint(x, int(d in draws))

    def read(self, solver: cp_model.CpSolver, starts: Sequence[int]) -> Iterator[tuple[int, Heat]]:
        """The heats of a solution by their slots; whose hands they take is not said yet. Source: definition"""
        for n, slot in enumerate(self.slots):
            if not solver.value(slot.here):
                continue
            draws = [d for d, x in slot.takes.items() if solver.value(x)]
            draws.sort(key=lambda d: starts[self.day.draws[d].task])
            if n == 0 and self.there:
                after = self.slots[1]
                if draws or solver.value(after.warm) or solver.value(after.again):
                    yield n, heated_before(self.day, self.there, tuple(draws))
                continue
            yield n, Heat(self.number, solver.value(slot.start), bool(solver.value(slot.new)), (), tuple(draws))
