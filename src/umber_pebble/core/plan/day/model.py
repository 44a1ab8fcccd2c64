"""A day as a model of OR-Tools CP-SAT: one constraint, one small function."""

import itertools
import math
from collections import defaultdict
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace

from ortools.sat.python import cp_model

from umber_pebble.core.plan.day.bounds import after_the_end, least_end_s, longest_s, stay_s
from umber_pebble.core.plan.day.hands import with_people
from umber_pebble.core.plan.day.melt_slots import AtIt, MeltSlots
from umber_pebble.core.plan.day.problem import Day, Edge, Timetable, placed
from umber_pebble.core.plan.day.vessel_turns import VesselTurns

SEED, WORKERS, LATER_S = 7, 2, 300


@dataclass(frozen=True, slots=True)
class Weights:
    """What a second of the end counts, a melt made anew, with what stays in its vessel, and a vessel washed. Source: assumption"""

    end: int = 1
    batch: int = 300
    wash: int = 60

    def of(self, day: Day, table: Timetable) -> int:
        """What a timetable costs by them. Source: definition"""
        washes = sum(one.wash_s > 0 for one in placed(day, table.heats))
        return self.end * table.end_s(day) + self.batch * table.batches + self.wash * washes


class Model:
    """A day to be solved from a timetable that keeps it."""

    def __init__(self, day: Day, known: Timetable, weights: Weights) -> None:
        self.day, self.known, self.weights = day, known, weights
        self.m = cp_model.CpModel()
        self.far = longest_s(day)
        rows = placed(day, known.heats)
        ends = [s + t.lasts_s for s, t in zip(known.start_s, day.tasks, strict=True)]
        latest = max([*ends, *(p.ready_s for p in rows), *(end for *_, end in day.closed)])
        # what is wished to begin late is followed by as much as before at most
        self.top = LATER_S + latest + max((b.not_before_s or 0 for b in day.bounds), default=0)
        self.starts = [self.m.new_int_var(0, self.top, f"s{i}") for i in range(len(day.tasks))]
        self.spans = [
            self.m.new_fixed_size_interval_var(s, t.lasts_s, f"i{i}")
            for i, (s, t) in enumerate(zip(self.starts, day.tasks, strict=True))
        ]
        self.end = self.m.new_int_var(0, self.top, "end")
        self.persons: list[list[cp_model.IntervalVar]] = [[] for _ in range(day.people)]
        self.whose: dict[int, dict[int, cp_model.IntVar]] = {}
        self.whose_heat: list[tuple[int, AtIt, dict[int, cp_model.IntVar]]] = []
        self.melts = [
            MeltSlots(self.m, day, n, self.starts, self.top, sum(p.heat.melt == n for p in rows))
            for n in range(len(day.melts))
        ]
        self.vessels = [VesselTurns(self.m, day, *of) for of in self._shared()]
        self.washes = [one for vessel in self.vessels for one in vessel.at_it()]
        for add in (
            self._windows,
            self._stays,
            self._melts_in_order,
            self._one_at_a_time,
            self._hands,
            self._end,
            self._least,
            self._begin_from_known,
        ):
            add()

    def _shared(self) -> Iterator[tuple[str, list[MeltSlots]]]:
        """Vessels that may have to be washed before something else goes into them."""
        by: dict[str, list[MeltSlots]] = defaultdict(list)
        for melt in self.melts:
            by[melt.melt.vessel].append(melt)
        inside = self.day.inside()
        for vessel, melts in by.items():
            before = {melt.number for melt in melts} | ({inside[vessel]} if vessel in inside else set())
            if any(self.day.cleaned_of(was, melt.number) for was in before for melt in melts):
                yield vessel, melts

    def _at(self, task: int, edge: Edge) -> cp_model.LinearExpr | cp_model.IntVar:
        return self.starts[task] + (self.day.tasks[task].lasts_s if edge == "end" else 0)

    def _windows(self) -> None:
        for lag in self.day.lags:
            first, then = self._at(lag.first, lag.first_edge), self._at(lag.then, lag.then_edge)
            self.m.add(then >= first + lag.least_s)
            if lag.most_s is not None:
                self.m.add(then <= first + lag.most_s)
        for bound in self.day.bounds:
            if bound.not_before_s is not None:
                self.m.add(self._at(bound.task, "start") >= bound.not_before_s)
            if bound.over_by_s is not None:
                self.m.add(self._at(bound.task, "end") <= bound.over_by_s)

    def _stays(self) -> None:
        by: dict[str, list[tuple[cp_model.IntervalVar, int]]] = defaultdict(list)
        for stay in self.day.stays:
            # without the least that a stay lasts, the solver does not see all that a mould has to do
            lasts = self.m.new_int_var(stay_s(self.day, self.far, stay), self.top + stay.after_s, "lasts")
            begin, end = self._at(stay.first, stay.first_edge), self._at(stay.then, stay.then_edge) + stay.after_s
            by[stay.of].append((self.m.new_interval_var(begin, lasts, end, "stay"), stay.amount))
        for of, spans in by.items():
            self._at_most(of, spans)

    def _at_most(self, of: str, spans: Sequence[tuple[cp_model.IntervalVar, int]]) -> None:
        holds = self.day.capacity.get(of, 1)
        if holds == 1:
            self.m.add_no_overlap([span for span, _ in spans])
        else:
            self.m.add_cumulative([span for span, _ in spans], [n for _, n in spans], holds)

    def _melts_in_order(self) -> None:
        draws = self.day.draws
        for melt in self.melts:
            melt.in_order(
                [
                    (d, e)
                    for d in melt.draws
                    for e in melt.draws
                    if d != e and (draws[d].task, draws[e].task) in self.far
                ]
            )

    def _one_at_a_time(self) -> None:
        """One on a heater, one in a vessel; a vessel is not poured from by two, nor while it is on the heat."""
        by: dict[str, list[tuple[cp_model.IntervalVar, int]]] = defaultdict(list)
        for of, until in self.day.on_until_s.items():
            by[of] = [(self.m.new_fixed_size_interval_var(0, until, "on now"), 1)]
        for soiled in self.day.soiled:
            since = max(soiled.since_s, 0)
            by[soiled.vessel] = [(self.m.new_fixed_size_interval_var(0, since, "in it now"), 1)]
        for melt in self.melts:
            self.m.add_no_overlap([*melt.made(), *(self.spans[self.day.draws[d].task] for d in melt.draws)])
            by[melt.melt.heater] += [(span, 1) for span in melt.on_heater()]
            by[melt.melt.vessel] += [(span, 1) for span in melt.in_vessel()]
        for of, spans in by.items():
            self._at_most(of, spans)

    def _hands(self) -> None:
        """As many at once as there are; who can what, and who is away when, where that differs."""
        day = self.day
        own = [i for i, t in enumerate(day.tasks) if t.hands and t.lasts_s]
        at_it = [*((melt, one) for melt in self.melts for one in melt.at_it()), *self.washes]
        away = [self.m.new_fixed_size_interval_var(s, e - s, "away") for _, s, e in day.closed]
        at_heats = [
            self.m.new_optional_fixed_size_interval_var(one.start, one.lasts_s, one.is_so, "at it")
            for _, one in at_it
        ]
        spans = [*(self.spans[i] for i in own), *at_heats, *away]
        self.m.add_cumulative(spans, [1] * len(spans), day.people)
        if not day.differ:
            return
        for (person, *_), span in zip(day.closed, away, strict=True):
            self.persons[person].append(span)
        for i in own:
            self.whose[i] = self._somebody(self.starts[i], day.tasks[i].lasts_s, day.able(i), 1)
        for melt, one in at_it:
            able = self._somebody(one.start, one.lasts_s, day.able_at_heat(melt.number), one.is_so)
            self.whose_heat.append((melt.number, one, able))
        for rows in self.persons:
            self.m.add_no_overlap(rows)

    def _somebody(
        self, start: cp_model.LinearExprT, lasts: int, able: frozenset[int], is_so: cp_model.LinearExprT
    ) -> dict[int, cp_model.IntVar]:
        chosen = {person: self.m.new_bool_var("whose") for person in sorted(able)}
        for person, hers in chosen.items():
            span = self.m.new_optional_fixed_size_interval_var(start, lasts, hers, "whose")
            self.persons[person].append(span)
        self.m.add(sum(chosen.values()) == is_so)
        return chosen

    def _end(self) -> None:
        for i in self.day.done:
            self.m.add(self.end >= self._at(i, "end"))
        batches = sum(slot.new for melt in self.melts for slot in melt.slots)
        washes = sum(one.is_so for _, one in self.washes)
        self.m.minimize(self.weights.end * self.end + self.weights.batch * batches + self.weights.wash * washes)

    def _least(self) -> None:
        """What arithmetic says of the end already: it is no wish, and it is what makes a proof possible."""
        self.m.add(self.end >= least_end_s(self.day))
        if not self.day.closed:
            own = sum(
                t.lasts_s for i, t in enumerate(self.day.tasks) if t.hands and i not in after_the_end(self.day)
            )
            at_heats = [melt.hands_s() for melt in self.melts]
            washes = [one.lasts_s * one.is_so for _, one in self.washes]
            self.m.add(self.day.people * self.end >= own + sum([*at_heats, *washes]))

    def _begin_from_known(self) -> None:
        for start, value in zip(self.starts, self.known.start_s, strict=True):
            self.m.add_hint(start, value)
        self.m.add_hint(self.end, self.known.end_s(self.day))
        rows = placed(self.day, self.known.heats)
        ends = {
            d: self.known.start_s[of.task] + self.day.tasks[of.task].lasts_s for d, of in enumerate(self.day.draws)
        }
        nth: dict[int, Iterator[int]] = {}
        for melt in self.melts:
            mine = [p for p in rows if p.heat.melt == melt.number]
            nth[melt.number] = itertools.count(melt.hint(mine, ends))
        order = [(p.heat.melt, next(nth[p.heat.melt])) for p in rows]
        for vessel in self.vessels:
            vessel.hint([of for of in order if self.day.melts[of[0]].vessel == vessel.vessel])

    def solved(self, lasts: float, around: bool) -> tuple[Timetable | None, int, bool]:
        """The best that is found, the least the end can be [s], and whether nothing better is left, of what has no more than one heat of
        each melt more than what is known.

        Args:
            lasts: how long to search, by the solver's own clock
            around: only near what is known, which finds more and proves nothing
        Source: or-tools
        """
        solver = _solver(lasts)
        solver.parameters.use_lns_only = around
        status = solver.solve(self.m)
        if status not in (cp_model.OPTIMAL, cp_model.FEASIBLE):
            return None, 0, False
        table = self._read(solver)
        proven = status == cp_model.OPTIMAL and not around
        # another timetable may end sooner with more melts and washes: all that are offered count
        offered = sum(len(melt.slots) for melt in self.melts)
        most = self.weights.batch * offered + self.weights.wash * len(self.washes)
        least = math.ceil((solver.best_objective_bound - most) / self.weights.end)
        return table, max(least, 0) if proven else 0, proven

    def impossible(self, lasts: float) -> bool:
        """Whether it is proven that nothing keeps it, within so long by the solver's own clock. Source: or-tools"""
        # nothing is to be the best: what keeps it is enough
        self.m.minimize(0)
        return bool(_solver(lasts).solve(self.m) == cp_model.INFEASIBLE)

    def _read(self, solver: cp_model.CpSolver) -> Timetable:
        starts = tuple(solver.value(s) for s in self.starts)
        rows = [(melt.number, n, heat) for melt in self.melts for n, heat in melt.read(solver, starts)]
        rows.sort(key=lambda row: row[2].start_s)
        if not self.day.differ:
            return with_people(self.day, starts, [heat for *_, heat in rows])

        def who(chosen: dict[int, cp_model.IntVar]) -> int:
            return next(person for person, hers in chosen.items() if solver.value(hers))

        at: dict[tuple[int, int], dict[int, int]] = defaultdict(dict)
        for number, one, chosen in self.whose_heat:
            if solver.value(one.is_so):
                at[number, one.slot][one.nth] = who(chosen)
        heats = (
            heat if heat.who else replace(heat, who=tuple(p for _, p in sorted(at[m, n].items())))
            for m, n, heat in rows
        )
        whose = (
            who(self.whose[i]) if i in self.whose else (min(self.day.able(i)) if t.hands else None)
            for i, t in enumerate(self.day.tasks)
        )
        return Timetable(starts, tuple(whose), tuple(heats))


def _solver(lasts: float) -> cp_model.CpSolver:
    solver = cp_model.CpSolver()
    solver.parameters.num_workers = WORKERS
    # several workers that answer the same each time
    solver.parameters.interleave_search = True
    solver.parameters.random_seed = SEED
    solver.parameters.max_deterministic_time = lasts
    return solver
