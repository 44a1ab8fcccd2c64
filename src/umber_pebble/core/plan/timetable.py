"""A timetable back from the due time that one person can keep."""

import itertools
from dataclasses import dataclass

from umber_pebble.core.heat.windows import WORKS, PieceWindows
from umber_pebble.core.plan.cooks import PotCook, ready_for_next
from umber_pebble.core.plan.problem import FatMelt, PlanInput


@dataclass(frozen=True, slots=True)
class Task:
    """One entry: kind, cook or round number, start and end on the timetable [s], and if it needs hands."""

    kind: str
    cook: int
    round: int | None
    start_s: float
    end_s: float
    hands: bool


Block = list[tuple[str, int | None, float, float, bool]]


def _cook_block(plan: PlanInput, cook: PotCook, windows: dict[int, PieceWindows]) -> tuple[Block, float]:
    """Rigid chain of a cook as (kind, round, start, end, hands) from its weighing, and when its pour begins."""
    weigh, hob = plan.paces.weigh_s, cook.hob.likely
    block, start = list[tuple[str, int | None, float, float, bool]](), 0.0
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
        end = at + r.casts * plan.paces.pour_each_s
        block.append(("pour", r.number, at, end, True))
        poured, at = at, end
        line = plan.lines[r.line]
        if line.work:
            opens = WORKS[line.work][0]
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
    materials in two vessels interleave where the hands are free.
    Waiting times are the likely ones for heating and resting, and the high end for setting.
    Args:
        plan, cooks: the plan
        windows: per round number
    Source: definition
    """
    tasks: list[Task] = []
    busy: list[tuple[float, float]] = []
    ready: dict[int, float] = {}
    mould_free: dict[str, float] = {}
    pot_free: dict[str, float] = {}
    for cook in cooks:
        block, pour_at = _cook_block(plan, cook, windows)
        free = max(
            (mould_free.get(plan.lines[r.line].mould.mould_id, 0.0) for r in cook.rounds if r.on is None),
            default=0.0,
        )
        # what hands put in, and the pour, wait for the pass under them; a part is not begun before
        on = max(
            (
                ready[r.on] - (0.0 if plan.lines[r.line].first else pour_at)
                for r in cook.rounds
                if r.on is not None
            ),
            default=0.0,
        )
        at = _first_fit(busy, [(s, e) for _, _, s, e, hands in block if hands],
                        max(pot_free.get(cook.way.vessel_id, 0.0), free - pour_at, on, 0.0))  # fmt: skip
        for kind, number, start, end, hands in block:
            tasks.append(Task(kind, cook.number, number, at + start, at + end, hands))
            if hands:
                busy.append((at + start, at + end))
        poured = {t.round: t.end_s for t in tasks if t.kind == "pour" and t.cook == cook.number}
        pot_free[cook.way.vessel_id] = max(poured.values(), default=at)
        for r in cook.rounds:
            if not plan.lines[r.line].last:
                sets = ready_for_next(isinstance(cook.way.by, FatMelt), windows[r.number]).high
                ready[r.number] = poured[r.number] + sets
                tasks.append(Task("set", cook.number, r.number, poured[r.number], ready[r.number], False))
                continue
            tasks += _release(plan, cook, r.number, r.casts, poured[r.number], windows[r.number], busy)
            mould = plan.lines[r.line].mould.mould_id
            mould_free[mould] = max(mould_free.get(mould, 0.0), tasks[-1].end_s)
    return sorted(tasks, key=lambda t: (t.start_s, t.end_s))


def _release(
    plan: PlanInput, cook: PotCook, number: int, casts: int, poured_s: float, windows: PieceWindows,
    busy: list[tuple[float, float]],
) -> list[Task]:  # fmt: skip
    """Setting, unmoulding and cleaning of one round, the hands' part placed where it first fits."""
    lasts = casts * plan.paces.unmould_each_s
    start = _first_fit(busy, [(0.0, lasts)], poured_s + windows.at["unmould"].high)
    busy.append((start, start + lasts))
    clean = _first_fit(busy, [(0.0, plan.paces.clean_s)], start + lasts)
    busy.append((clean, clean + plan.paces.clean_s))
    return [
        Task("set", cook.number, number, poured_s, start, False),
        Task("unmould", cook.number, number, start, start + lasts, True),
        Task("clean", cook.number, number, clean, clean + plan.paces.clean_s, True),
    ]


def back_from(tasks: list[Task], due_s: float) -> list[Task]:
    """The same tasks moved so that the last unmoulding ends at the due time [s from now].

    Source: definition
    """
    ready = max((t.end_s for t in tasks if t.kind == "unmould"), default=0.0)
    shift = due_s - ready
    return [Task(t.kind, t.cook, t.round, t.start_s + shift, t.end_s + shift, t.hands) for t in tasks]


def clashes(tasks: list[Task]) -> list[tuple[Task, Task]]:
    """Pairs of tasks that would need the one person at the same time; empty when the plan can be kept.

    Source: definition
    """
    hands = sorted((t for t in tasks if t.hands), key=lambda t: t.start_s)
    return [(a, b) for a, b in itertools.pairwise(hands) if b.start_s < a.end_s - 1e-6]
