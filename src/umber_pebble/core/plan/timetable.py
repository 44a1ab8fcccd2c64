"""A timetable back from the due time that one person can keep."""

import itertools
import math
from collections.abc import Container, Sequence
from dataclasses import dataclass, replace
from typing import Literal

from umber_pebble.core.heat.windows import PieceWindows
from umber_pebble.core.heat.works import WORKS
from umber_pebble.core.plan.cooks import PotCook, Round, ready_for_next, route_of
from umber_pebble.core.plan.problem import HandStep, PlanInput, Work
from umber_pebble.core.plan.turns import turns_of

TaskKind = (
    Literal[
        "weigh",
        "cook",
        "rest",
        "pour",
        "put_in",
        "turn",
        "swirl",
        "set",
        "unmould",
        "firm",
        "clean",
        "dry",
        "press",
        "join",
    ]
    | Work
)


@dataclass(frozen=True, slots=True)
class Task:
    """One entry: kind, cook or round number, start and end on the timetable [s], and if it needs hands. step: of what is made by
    hand, which then has no cook."""

    kind: TaskKind
    cook: int | None
    round: int | None
    start_s: float
    end_s: float
    hands: bool
    step: int | None = None


Block = list[tuple[TaskKind, int | None, float, float, bool]]


def _cook_block(
    plan: PlanInput, cook: PotCook, windows: dict[int, PieceWindows], swirls: Container[int]
) -> tuple[Block, float]:
    """Rigid chain of a cook as (kind, round, start, end, hands) from its weighing, and when its pour begins; what is swirled into it
    comes right before the pour."""
    weigh, hob = plan.paces.weigh_s, cook.hob.likely
    block, start = Block(), 0.0
    for r in cook.rounds:
        takes = r.casts * plan.lines[r.line].handfuls_s
        if takes:
            block.append(("put_in", r.number, start, start + takes, True))
            start += takes
    pour_at = start + weigh + hob + cook.window.opens.likely
    block += [
        ("weigh", None, start, start + weigh, True),
        ("cook", None, start + weigh, start + weigh + hob, True),
        ("rest", None, start + weigh + hob, pour_at, False),
    ]
    at = pour_at
    for r in cook.rounds:
        if plan.lines[r.line].kind == "swirl":
            continue
        if r.on in swirls:
            block.append(("swirl", r.on, at, at + plan.paces.stir_s, True))
            at += plan.paces.stir_s
        end = at + r.casts * plan.pour_each_s(plan.lines[r.line])
        block.append(("pour", r.number, at, end, True))
        poured, at = at, end
        line = plan.lines[r.line]
        if line.whole_ball:
            turns = turns_of(cook.way.melt, windows[r.number])
            block.append(("turn", r.number, end, end + turns.by_hand_s, True))
            at = end + turns.by_hand_s
            lasts = r.casts * turns.each_s
            block += [
                ("turn", r.number, at + turns.at_s(n), at + turns.at_s(n) + lasts, True)
                for n in range(1, turns.count + 1)
            ]
        if line.work:
            opens = WORKS["release" if line.released else line.work].opens
            start = max(poured + (windows[r.number].at[opens].likely if opens else 0.0), end)
            at = start + r.casts * plan.work_each_s(line)
            block.append((line.work, r.number, start, at, True))
    return block, pour_at


def _first_fit(busy: list[tuple[float, float]], hands: list[tuple[float, float]], earliest: float) -> float:
    """Earliest shift at which none of these spans of work meets one that is taken."""
    at = earliest
    moved = True
    while moved:
        moved = False
        for start, end in hands:
            for b0, b1 in busy:
                if at + start < b1 - 1e-9 and b0 < at + end - 1e-9:
                    at, moved = b1 - start, True
    return at


def forward(plan: PlanInput, cooks: list[PotCook], windows: dict[int, PieceWindows]) -> list[Task]:
    """All tasks from time zero, each as early as one pair of hands, the pot and the moulds allow [s].

    A cook is one chain without gaps, since a pour window does not wait; unmoulding may wait. Cooks of two
    materials in two vessels interleave where the hands are free. A place takes no more moulds than it has room for.
    Waiting times are the likely ones for heating and resting, and the high end for setting.
    Args:
        plan, cooks: the plan
        windows: per round number
    Source: definition
    """
    tasks: list[Task] = []
    busy: list[tuple[float, float]] = []
    shelves = _Shelves(plan)
    ready: dict[int, float] = {}
    done: dict[int, float] = {}
    mould_free: dict[str, float] = {}
    stays = _Stays()
    pot_free: dict[str, float] = {}
    steps = list(enumerate(plan.by_hand))
    swirls = {
        r.number: cook.way.vessel_id for cook in cooks for r in cook.rounds if plan.lines[r.line].kind == "swirl"
    }
    for index, step in steps:
        if step.what == "press":
            tasks += _by_hand(index, step, 0.0, busy)
    for cook in cooks:
        block, pour_at = _cook_block(plan, cook, windows, swirls)
        lines = [plan.lines[r.line] for r in cook.rounds]
        free = [
            mould_free.get(line.mould.mould_id, 0.0) - pour_at
            for line, r in zip(lines, cook.rounds, strict=True)
            if r.on is None
        ]
        # what hands put in, and the pour, wait for the pass under them; a part is not begun before
        on = [
            ready[r.on] - (0.0 if line.first else pour_at)
            for line, r in zip(lines, cook.rounds, strict=True)
            if r.on is not None
        ]
        joins = [done[i] - pour_at for line in lines for i in line.needs]
        earliest = max(pot_free.get(cook.way.vessel_id, 0.0), *free, *on, *joins, 0.0)
        spans = [(s, e) for _, _, s, e, hands in block if hands]
        at = _first_fit(busy, spans, earliest)
        while (later := shelves.free_s(cook, at, block, windows)) > at:
            at = _first_fit(busy, spans, later)
        for kind, number, start, end, hands in block:
            tasks.append(Task(kind, cook.number, number, at + start, at + end, hands))
            if kind == "swirl" and number is not None:
                pot_free[swirls[number]] = max(pot_free[swirls[number]], at + end)
            if hands:
                busy.append((at + start, at + end))
        poured = {t.round: t.end_s for t in tasks if t.kind == "pour" and t.cook == cook.number}
        # it waits in its vessel until the melt it is swirled into is poured
        poured |= {r.number: at + pour_at for r in cook.rounds if r.number in swirls}
        ready |= {r.number: at + pour_at for r in cook.rounds if r.number in swirls}
        pot_free[cook.way.vessel_id] = max(poured.values(), default=at)
        for line, r in zip(lines, cook.rounds, strict=True):
            if r.on is None:
                stays.enter(line.mould.mould_id)
        for r in cook.rounds:
            line = plan.lines[r.line]
            if r.number in swirls:
                continue
            if not line.last:
                sets = ready_for_next(cook.way.melt, windows[r.number]).high
                ready[r.number] = poured[r.number] + sets
                tasks.append(Task("set", cook.number, r.number, poured[r.number], ready[r.number], False))
                shelves.put(cook, r.number, poured[r.number], ready[r.number])
                continue
            worked = (
                [t.end_s for t in tasks if t.round == r.number and t.kind == line.work] if line.released else []
            )
            full = _Full(cook, r, poured[r.number], windows[r.number], worked)
            # what stands in one mould is turned out together, when the last of it may be
            for one, ready_s in stays.leave(line.mould.mould_id, full):
                of = plan.lines[one.round.line]
                tasks += _release(plan, one, ready_s, busy)
                freed, off = (
                    tasks[-1].end_s,
                    next(t.end_s for t in reversed(tasks) if t.kind in ("unmould", "firm")),
                )
                done[one.round.line] = max(done.get(one.round.line, 0.0), off)
                freed = one.poured_s if of.mould.hands else freed
                mould_free[of.mould.mould_id] = max(mould_free.get(of.mould.mould_id, 0.0), freed)
                shelves.put(one.cook, one.round.number, one.poured_s, off)
    for index, step in steps:
        if step.what == "join":
            tasks += _by_hand(index, step, max((done[i] for i in step.needs), default=0.0), busy)
    return sorted(tasks, key=lambda t: (t.start_s, t.end_s))


@dataclass(frozen=True, slots=True)
class _Full:
    """A round after its last pass: poured when, its windows, and until when it was worked, if it was released for that [s]."""

    cook: PotCook
    round: Round
    poured_s: float
    windows: PieceWindows
    worked: list[float]

    @property
    def ready_s(self) -> float:
        return self.poured_s + self.windows.at["unmould"].high


class _Stays:
    """What stands in each mould, from its first pass until it is turned out: one stay for all its cavities."""

    def __init__(self) -> None:
        self.unfinished: dict[str, int] = {}
        self.full: dict[str, list[_Full]] = {}

    def enter(self, mould: str) -> None:
        self.unfinished[mould] = self.unfinished.get(mould, 0) + 1

    def leave(self, mould: str, full: _Full) -> list[tuple[_Full, float]]:
        """What may now be turned out, and when [s]: nothing while anything in the mould waits for a pass."""
        self.unfinished[mould] -= 1
        here = self.full.setdefault(mould, [])
        here.append(full)
        if self.unfinished[mould] > 0:
            return []
        del self.full[mould]
        together = max(one.ready_s for one in here)
        return [(one, one.ready_s if one.worked else together) for one in here]


class _Shelves:
    """Which moulds lie where and when, against what each place takes."""

    def __init__(self, plan: PlanInput) -> None:
        self.plan = plan
        self.lies: dict[str, list[tuple[float, float, int]]] = {}

    def moulds(self, cook: PotCook, number: int) -> tuple[str, int]:
        r = next(r for r in cook.rounds if r.number == number)
        line = self.plan.lines[r.line]
        return route_of(self.plan, line, r.casts)[-1][1], math.ceil(r.casts / line.mould.cavities)

    def put(self, cook: PotCook, number: int, from_s: float, to_s: float) -> None:
        place, moulds = self.moulds(cook, number)
        self.lies.setdefault(place, []).append((from_s, to_s, moulds))

    def free_s(self, cook: PotCook, at: float, block: Block, windows: dict[int, PieceWindows]) -> float:
        """The start itself where all its moulds find room, or when the next room comes free."""
        wanted: dict[str, int] = {}
        pours = [end for kind, _, _, end, _ in block if kind == "pour"]
        if not pours:
            return at
        from_s = at + min(pours)
        to_s = from_s + max(windows[r.number].at["unmould"].high for r in cook.rounds)
        for r in cook.rounds:
            place, moulds = self.moulds(cook, r.number)
            wanted[place] = wanted.get(place, 0) + moulds
        for place, moulds in wanted.items():
            takes = self.plan.shelves.get(place)
            if takes is None or moulds > takes:
                continue
            there = [(s, e, n) for s, e, n in self.lies.get(place, []) if s < to_s and from_s < e]
            if sum(n for _, _, n in there) + moulds > takes:
                return at + min(e for _, e, _ in there) - from_s
        return at


def most_at_once(plan: PlanInput, cooks: Sequence[PotCook]) -> dict[str, int]:
    """Per place, the moulds that one cook alone lays there [count]; more than it takes cannot be kept.

    Source: definition
    """
    shelves, most = _Shelves(plan), dict[str, int]()
    for cook in cooks:
        here: dict[str, int] = {}
        for r in cook.rounds:
            place, moulds = shelves.moulds(cook, r.number)
            here[place] = here.get(place, 0) + moulds
        most = {place: max(most.get(place, 0), here.get(place, 0)) for place in most | here}
    return most


def _by_hand(number: int, step: HandStep, earliest: float, busy: list[tuple[float, float]]) -> list[Task]:
    """What is made by hand, placed where hands are first free, and its rest."""
    lasts = step.count * step.each_s
    start = _first_fit(busy, [(0.0, lasts)], earliest)
    busy.append((start, start + lasts))
    return [
        Task(step.what, None, None, start, start + lasts, True, number),
        Task("rest", None, None, start + lasts, start + lasts + step.rests.high + step.dries.high, False, number),
    ]


def _release(plan: PlanInput, full: _Full, ready_s: float, busy: list[tuple[float, float]]) -> list[Task]:
    """Setting, unmoulding and cleaning of one round, the hands' part placed where it first fits. What was released warm and worked
    until some moment firms on its form instead."""
    cook, number, poured_s = full.cook, full.round.number, full.poured_s
    if full.worked:
        worked = full.worked[-1]
        firm = max(poured_s + full.windows.at["brittle"].high, worked)
        return [Task("firm", cook.number, number, worked, firm, False), *_clean(plan, cook, number, worked, busy)]
    lasts = full.round.casts * plan.paces.unmould_each_s
    start = _first_fit(busy, [(0.0, lasts)], ready_s)
    busy.append((start, start + lasts))
    off = [
        Task("set", cook.number, number, poured_s, start, False),
        Task("unmould", cook.number, number, start, start + lasts, True),
    ]
    if plan.lines[full.round.line].needs:
        return off
    return [*off, *_clean(plan, cook, number, start + lasts, busy)]


def _clean(
    plan: PlanInput, cook: PotCook, number: int, from_s: float, busy: list[tuple[float, float]]
) -> list[Task]:
    clean = _first_fit(busy, [(0.0, plan.paces.clean_s)], from_s)
    cleaned = clean + plan.paces.clean_s
    busy.append((clean, cleaned))
    return [
        Task("clean", cook.number, number, clean, cleaned, True),
        Task("dry", cook.number, number, cleaned, cleaned + plan.paces.dry_s, False),
    ]


def back_from(tasks: list[Task], due_s: float) -> list[Task]:
    """The same tasks moved so that the last unmoulding or join ends at the due time [s from now].

    Source: definition
    """
    ready = max((t.end_s for t in tasks if t.kind in ("unmould", "firm") or t.step is not None), default=0.0)
    shift = due_s - ready
    return [replace(t, start_s=t.start_s + shift, end_s=t.end_s + shift) for t in tasks]


def clashes(tasks: list[Task]) -> list[tuple[Task, Task]]:
    """Pairs of tasks that would need the one person at the same time; empty when the plan can be kept.

    Source: definition
    """
    hands = sorted((t for t in tasks if t.hands), key=lambda t: t.start_s)
    return [(a, b) for a, b in itertools.pairwise(hands) if b.start_s < a.end_s - 1e-6]
