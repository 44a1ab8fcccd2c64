"""An order as a day to be scheduled: its pours and what hands do around them, with every wait and window of the engine."""

import itertools
import math
from collections import defaultdict
from collections.abc import Sequence
from dataclasses import dataclass, field, replace

from umber_pebble.core.errors import OutOfRange
from umber_pebble.core.heat.windows import PieceWindows
from umber_pebble.core.heat.works import WORKS
from umber_pebble.core.plan.charge import bags_kg, bath_left_kg, holds_kg
from umber_pebble.core.plan.colour_order import swallows
from umber_pebble.core.plan.cooks import (
    charge_of,
    lies_in,
    piece_windows,
    pour_of,
    ready_for_next,
    runs_together_s,
)
from umber_pebble.core.plan.day.blocks import blocks_of
from umber_pebble.core.plan.day.heats import melt_of
from umber_pebble.core.plan.day.mould_stays import of_one_pass, stays_of
from umber_pebble.core.plan.day.pots import Filling, Pot, fillings_of, pots_of
from umber_pebble.core.plan.day.problem import Day, Draw, Edge, Lag, Melt, Portion, Stay, Task, Timetable
from umber_pebble.core.plan.divided import portion_stood_s
from umber_pebble.core.plan.problem import HandStep, MeltWay, Mould, PlanInput, PlanLine
from umber_pebble.core.plan.rounds import begun_between_s
from umber_pebble.core.plan.tasks import POURS, TaskKind
from umber_pebble.core.plan.turns import turns_of
from umber_pebble.core.plan.wishes import SKILL_OF, Skill

MG = 1e6


@dataclass(frozen=True, slots=True)
class Named:
    """What a thing of the day is: its kind, the filling or what is made by hand it belongs to; neither: it waits for the rest."""

    kind: TaskKind
    filling: int | None
    by_hand: int | None = None


@dataclass(frozen=True)
class OrderDay:
    """An order's day, with what each of its things is, its fillings, their windows [s from the pour], and which fillings stand in
    one mould together."""

    plan: PlanInput
    day: Day
    names: tuple[Named, ...]
    fillings: tuple[Filling, ...]
    windows: tuple[PieceWindows, ...]
    together: tuple[tuple[int, ...], ...]

    def line_of(self, task: int) -> PlanLine:
        """The line of the order that a pour is of. Source: definition"""
        filling = self.names[task].filling
        assert filling is not None
        return self.plan.lines[self.fillings[filling].line]

    def ready_s(self, table: Timetable) -> int:
        """When all is ready in a timetable [s]; what then waits for the rest is not done any longer for that. Source: definition"""
        return max(self._ready_s(table, i) for i in self.day.done)

    def _ready_s(self, table: Timetable, done: int) -> int:
        name, start = self.names[done], table.start_s[done]
        waits = name.filling is None and name.by_hand is None
        return start if waits else start + self.day.tasks[done].lasts_s


def able_to(plan: PlanInput, skill: Skill) -> frozenset[int]:
    """Who does something, by number; nothing where everybody does.

    Raises: OutOfRange: everybody leaves it to others.
    Source: definition
    """
    everybody = range(len(plan.people))
    able = frozenset(p for p in everybody if not plan.leaves or skill not in plan.leaves[p])
    if not able:
        raise OutOfRange(
            "everybody who is at this order leaves that to others: let one more person take part",
            path="people",
            got=skill,
        )
    return able if len(able) < len(plan.people) else frozenset()


def day_of(plan: PlanInput, casts: Sequence[int], sizes: Sequence[int], shared: bool) -> OrderDay:
    """An order's day.

    Args:
        plan: the order
        casts, sizes: per line, castings in all and of one pour at most [count]
        shared: whether kinds of cavities of one mould are filled in one stay of it
    Raises: OutOfRange, MouldTooWeak: as a melt and its pour.
    Source: definition
    """
    of = _Compiler(plan, fillings_of(plan, casts, sizes), shared).order_day()
    _vessels_enough(of)
    return of


def _vessels_enough(of: OrderDay) -> None:
    """Melts that are poured one right after the other are molten at the same time."""
    drawn = {draw.task: draw.melt for draw in of.day.draws}
    for block in blocks_of(of.day):
        inside: dict[str, int] = {}
        for task in (i for i in block.tasks if i in drawn):
            vessel = of.day.melts[drawn[task]].vessel
            other = inside.setdefault(vessel, task)
            if drawn[other] != drawn[task]:
                first, then = (of.line_of(i).name for i in sorted((other, task)))
                raise OutOfRange(
                    f"{first}; {then}: one is poured right after the other, each out of a melt of its own, and there is "
                    "one vessel for both: add a vessel to the kitchen, or choose another for one of them",
                    path="vessels",
                    got=vessel,
                )


@dataclass
class _Compiler:
    plan: PlanInput
    fillings: tuple[Filling, ...]
    shared: bool
    tasks: list[Task] = field(default_factory=list)
    names: list[Named] = field(default_factory=list)
    lags: list[Lag] = field(default_factory=list)
    stays: list[Stay] = field(default_factory=list)
    draws: list[Draw] = field(default_factory=list)
    done: list[int] = field(default_factory=list)
    pours: dict[int, int] = field(default_factory=dict)
    begins: dict[int, int] = field(default_factory=dict)
    off: dict[int, int] = field(default_factory=dict)
    worked: dict[int, list[int]] = field(default_factory=lambda: defaultdict(list))

    def order_day(self) -> OrderDay:
        plan = self.plan
        windows: list[PieceWindows] = []
        pots = pots_of(plan, self.fillings)
        melts = self._melts(pots)
        for number, filling in enumerate(self.fillings):
            melt = next(i for i, pot in enumerate(pots) if number in pot.fillings)
            windows.append(self._filling(number, filling, melt, pots[melt].charge_kg))
        for number, filling in enumerate(self.fillings):
            self._after(number, filling, windows)
        self._portions(melts, pots)
        self.made = [
            self._task(step.what, None, step.count * step.each_s, index) for index, step in enumerate(plan.by_hand)
        ]
        self._moulds(windows)
        self._by_hand()
        capacity = dict(plan.shelves) | {line.mould.mould_id: line.mould.owned for line in plan.lines}
        day = Day(
            tuple(self.tasks),
            tuple(self.lags),
            tuple(self.stays),
            tuple(self.draws),
            tuple(melts),
            capacity,
            tuple(self.done),
            len(plan.people),
        )
        together = tuple(
            tuple(f for part in parts for f in part) for parts in stays_of(plan, self.fillings, self.shared)
        )
        return OrderDay(plan, day, tuple(self.names), self.fillings, tuple(windows), together)

    def _melts(self, pots: Sequence[Pot]) -> list[Melt]:
        """What each is poured out of, and what may follow it in its vessel without a wash."""
        ways = [self._way(pot) for pot in pots]
        return [
            replace(self._melt(pot), leads_on=frozenset(i for i, other in enumerate(ways) if swallows(other, way)))
            for pot, way in zip(pots, ways, strict=True)
        ]

    def _portions(self, melts: list[Melt], pots: Sequence[Pot]) -> None:
        """What comes out of another melt's vessel is there once it was poured out of that."""
        plan = self.plan
        for number, filling in enumerate(self.fillings):
            line = plan.lines[filling.line]
            if line.into is None:
                continue
            made = next(m for m, pot in enumerate(pots) if self._melt_in(pot) == line.into)
            own = [plan.lines[i] for i in dict.fromkeys(self.fillings[n].line for n in pots[made].fillings)]
            off = next(pot for pot in pots if number in pot.fillings)
            _, window, *_ = pour_of(plan, plan.way(line), off.charge_kg, [line])
            stood = portion_stood_s(plan, line, window, own)
            melts[made] = replace(melts[made], portion=Portion(self.pours[number], math.ceil(stood)))
            for draw in self.draws:
                if draw.melt == made:
                    self._follows(self.pours[number], draw.task, 0)

    def _melt_in(self, pot: Pot) -> str:
        return self.plan.lines[self.fillings[pot.fillings[0]].line].melt

    def _way(self, pot: Pot) -> MeltWay:
        return self.plan.ways[self._melt_in(pot)]

    def _melt(self, pot: Pot) -> Melt:
        plan, way = self.plan, self._way(pot)
        lines = [plan.lines[i] for i in dict.fromkeys(self.fillings[n].line for n in pot.fillings)]
        _, residue = charge_of(plan, way, 0.0, lines)
        kept = residue.likely + bath_left_kg(way, lines) + bags_kg(lines)
        room = (holds_kg(way, way.by.wet(way.melt, pot.charge_kg)) - kept) / (1 + plan.reserve_frac)
        # a milligram more, so that what is poured in one batch fits into one
        pours = min(math.floor(max(room, 0.0) * MG), math.ceil(pot.pours_kg * MG) + len(pot.fillings))
        made = melt_of(plan, way, lines, pot.charge_kg, pours)
        return replace(made, able=able_to(plan, "heat"))

    def _filling(self, number: int, filling: Filling, melt: int, charge: float) -> PieceWindows:
        """The pour itself, and what hands do to it while it is soft."""
        plan, line = self.plan, self.plan.lines[filling.line]
        flow, window, *_ = pour_of(plan, plan.way(line), charge, [line])
        windows = piece_windows(plan, line, flow, window, filling.casts)
        lasts = plan.pour_lasts_s(line, filling.casts)
        kind: TaskKind = next((of for of in POURS if of == line.kind), "pour")
        pour = self.pours[number] = self.begins[number] = self._task(kind, number, lasts)
        opens, closes = math.ceil(max(window.opens.likely, 0.0)), math.floor(window.closes.likely)
        closes = max(closes, opens + self.tasks[pour].lasts_s)
        self.draws.append(
            Draw(pour, melt, math.ceil(filling.casts * line.cast.poured.value.likely * MG), opens, closes)
        )
        if line.first:
            put = self.begins[number] = self._task("put_in", number, filling.casts * line.handfuls_s)
            self._follows(put, pour, 0)
        if line.whole_ball:
            self._turns(number, filling, windows, pour)
        self._works(number, filling, line, windows, pour)
        return windows

    def _turns(self, number: int, filling: Filling, windows: PieceWindows, pour: int) -> None:
        turns = turns_of(self.plan.way(self.plan.lines[filling.line]).melt, windows)
        first = self._task("turn", number, turns.by_hand_s)
        self.lags.append(Lag(pour, "end", first, "start", 0, 0))
        for n in range(1, turns.count + 1):
            turn = self._task("turn", number, filling.casts * turns.each_s)
            at, off = round(turns.at_s(n)), round(turns.off_s)
            self.lags.append(Lag(first, "end", turn, "start", at - off, at + off))

    def _works(self, number: int, filling: Filling, line: PlanLine, windows: PieceWindows, pour: int) -> None:
        """Each in its window after the pour, and one after another."""
        before, worked_s = pour, self.tasks[pour].lasts_s
        for of in line.works:
            each_s = self.plan.work_each_s(line, of)
            work = self._task(of.kind, number, filling.casts * each_s)
            mark = WORKS["release" if line.released and of.kind == "bend" else of.kind].opens
            opens = windows.at[mark].likely if mark else 0.0
            lasts_s, window = self.tasks[work].lasts_s, (opens, opens + windows.work_width[of.kind].low)
            begins, ends = begun_between_s(window, filling.casts, self.plan.pour_each_s(line), each_s)
            least = max(math.ceil(begins), worked_s)
            most = max(math.floor(ends), least)
            self.lags.append(Lag(pour, "start", work, "start", least, most))
            if before != pour:
                self._follows(before, work, 0)
            self.worked[number].append(work)
            before, worked_s = work, least + lasts_s
            if line.released and of.kind == "bend":
                self.off[number] = work

    def _after(self, number: int, filling: Filling, windows: Sequence[PieceWindows]) -> None:
        """What it waits for, and when it leaves its mould."""
        line, pour = self.plan.lines[filling.line], self.pours[number]
        if filling.on is not None:
            under = self.plan.lines[self.fillings[filling.on].line]
            if under.with_next:
                self._follows(self.pours[filling.on], pour, 0)
                if not line.with_next and not line.mould.shares:
                    self._one_pass(of_one_pass(self.plan, self.fillings, number), windows)
            else:
                bears = ready_for_next(self.plan.way(under).melt, windows[filling.on]).high
                self._follows(self.pours[filling.on], self.begins[number], bears)
        if not line.last or not line.cast_on:
            return
        if number not in self.off:
            self.off[number] = self._task("unmould", number, filling.casts * self.plan.paces.unmould_each_s)
            self._follows(pour, self.off[number], windows[number].at["unmould"].high)
            self._done(self.off[number], line.item)
            return
        # what was shaped warm is only done when it has set on its form
        firm = self._task("firm", number, 0.0, hands=False)
        self._follows(pour, firm, windows[number].at["brittle"].high)
        self._follows(self.off[number], firm, 0.0)
        self._done(firm, line.item)

    def _one_pass(self, order: Sequence[int], windows: Sequence[PieceWindows]) -> None:
        """Poured one right after the other; stripes while the first of them still runs, or as soon as hands can."""
        wait = 0
        if self.plan.lines[self.fillings[order[0]].line].piped is not None:
            takes = sum(self.tasks[self.pours[of]].lasts_s for of in order)
            wait = max(math.floor(runs_together_s(windows[order[0]])) - takes, 0)
        for before, then in itertools.pairwise(order):
            self.lags.append(Lag(self.pours[before], "end", self.pours[then], "start", 0, wait))

    def _moulds(self, windows: Sequence[PieceWindows]) -> None:
        """Each stay of a mould, from its first pass until it is clean and dry; and where it lies meanwhile."""
        for parts in stays_of(self.plan, self.fillings, self.shared):
            lasts = [part[-1] for part in parts]
            lines = [self.plan.lines[self.fillings[last].line] for last in lasts]
            needs = max(
                math.ceil(self.fillings[last].casts / line.mould.cavities)
                for last, line in zip(lasts, lines, strict=True)
            )
            first = self.begins[parts[0][0]]
            for part in parts[1:]:
                # one stay: nothing is poured before it has begun, nothing taken out before all of it may be
                self.lags.append(Lag(first, "start", self.begins[part[0]], "start", 0))
            for last in lasts:
                for other in lasts:
                    if other != last and not self.plan.lines[self.fillings[other].line].released:
                        self._follows(self.pours[last], self.off[other], windows[last].at["unmould"].high)
            mould = lines[0].mould
            if lines[0].kind == "divide":
                continue
            if mould.shares:
                # all of a sheet is poured at once, melt after melt
                self._one_pass([of for each in zip(*parts, strict=True) for of in each], windows)
                for work in (of for last in lasts for of in self.worked[last]):
                    self._follows(self.pours[lasts[-1]], work, 0)
            if not mould.washed or lines[0].joins:
                self._stay(mould.mould_id, needs, first, self._left(mould, lasts), "end", 0.0)
            else:
                clean = self._task("clean", lasts[0], self.plan.paces.clean_s)
                for last in lasts:
                    self._follows(self.off[last], clean, 0.0)
                self._stay(mould.mould_id, needs, first, clean, "end", self.plan.paces.dry_s)
            for part in parts:
                self._joins(self.plan.lines[self.fillings[part[0]].line], self.begins[part[0]])
        for number, filling in enumerate(self.fillings):
            line = self.plan.lines[filling.line]
            if not line.cast_on or number not in self.off:
                continue
            place, moulds = lies_in(self.plan, line, filling.casts)
            if place in self.plan.shelves:
                self.stays.append(
                    Stay(
                        place,
                        min(moulds, self.plan.shelves[place]),
                        self.pours[number],
                        "end",
                        self.off[number],
                        "start",
                    )
                )

    def _left(self, mould: Mould, lasts: Sequence[int]) -> int:
        """What ends a stay that nothing is cleaned after: the pour where hands hold it, or when all is out."""
        if mould.hands or len(lasts) == 1:
            return self.pours[lasts[0]] if mould.hands else self.off[lasts[0]]
        out = self._task("rest", None, 0.0, hands=False)
        for last in lasts:
            self._follows(self.off[last], out, 0.0)
        return out

    def _joins(self, of: PlanLine | HandStep, then: int) -> None:
        """Nothing is joined before all castings of its parts are out of their moulds, and what hands made has dried."""
        for number, filling in enumerate(self.fillings):
            if filling.line in of.needs and number in self.off:
                self._follows(self.off[number], then, 0.0 if isinstance(of, PlanLine) else of.out_s.high)
        for index in of.after_steps:
            step = self.plan.by_hand[index]
            self._follows(self.made[index], then, step.rests.high + step.dries.likely)

    def _by_hand(self) -> None:
        for index, step in enumerate(self.plan.by_hand):
            made = self.made[index]
            rest = self._task("rest", None, step.rests.high + step.dries.high, index, hands=False)
            self.lags.append(Lag(made, "end", rest, "start", 0, 0))
            self._joins(step, made)
            # what dries for hours by itself is not waited for: it is made so much earlier
            self._done(made if step.by_itself else rest, step.item)

    def _task(
        self, kind: TaskKind, filling: int | None, lasts_s: float, by_hand: int | None = None, hands: bool = True
    ) -> int:
        able = able_to(self.plan, SKILL_OF[kind]) if hands else frozenset()
        self.tasks.append(Task(math.ceil(lasts_s), hands, able))
        self.names.append(Named(kind, filling, by_hand))
        return len(self.tasks) - 1

    def _done(self, task: int, item: int) -> None:
        """Something is ready with this; what is wanted sooner than the rest waits for it."""
        sooner = self.plan.sooner_s[item] if self.plan.sooner_s else 0.0
        if sooner > 0:
            waits = self._task("rest", None, sooner, hands=False)
            self._follows(task, waits, 0.0)
            task = waits
        self.done.append(task)

    def _follows(self, first: int, then: int, least_s: float) -> None:
        self.lags.append(Lag(first, "end", then, "start", math.ceil(least_s)))

    def _stay(self, of: str, amount: int, first: int, then: int, edge: Edge, after_s: float) -> None:
        self.stays.append(Stay(of, amount, first, "start", then, edge, math.ceil(after_s)))
