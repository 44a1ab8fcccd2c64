"""Where what is left of a melt may go: into a darker melt of the same material that is weighed later, or into backs that are poured later."""

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Literal

from umber_pebble.core.plan.colour_order import is_same_material, swallows
from umber_pebble.core.plan.compile import Plan
from umber_pebble.core.plan.problem import Named
from umber_pebble.core.plan.tasks import POURS


@dataclass(frozen=True, slots=True)
class IntoMelt:
    """A darker melt of the same material: what is weighed out of it [kg], and when [s on the timetable]."""

    melt: str
    kg: float
    at_s: float
    into: Literal["melt"] = "melt"


@dataclass(frozen=True, slots=True)
class IntoBacks:
    """Backs of the same material: of what, how many, all of them together [kg], and when they are poured [s on the timetable]."""

    named: Named
    casts: int
    kg: float
    at_s: float
    into: Literal["backs"] = "backs"


Taker = IntoMelt | IntoBacks


def takers(plan: Plan, key: str) -> list[Taker]:
    """What may take what is left of a melt once the last of it is poured, first in time.

    Args:
        plan: of the order
        key: of the melt that is left
    Source: common-practice
    """
    numbers = {c.number for c in plan.cooks_of(key)}
    over_s = max(task.end_s for task in plan.tasks if task.kind in POURS and task.number in numbers)
    found: list[Taker] = [*_melts(plan, key, over_s), *_backs(plan, key, over_s)]
    return sorted(found, key=lambda of: of.at_s)


def _melts(plan: Plan, key: str, over_s: float) -> Iterator[IntoMelt]:
    weighed = {t.number: t.start_s for t in plan.tasks if t.kind == "weigh" and t.of == "cook"}
    known = set[str]()
    for cook in plan.cooks:
        other, at = plan.problem.lines[cook.rounds[0].line].melt, weighed.get(cook.number)
        if other not in known and at is not None and at >= over_s and _swallows(plan, key, other):
            known.add(other)
            yield IntoMelt(other, cook.fresh_kg, at)


def _backs(plan: Plan, key: str, over_s: float) -> Iterator[IntoBacks]:
    """Those that what is left is enough for, but the film on its vessel."""
    poured = {t.round: t.start_s for t in plan.tasks if t.kind == "pour"}
    last = plan.cooks_of(key)[-1]
    left = last.left_kg - last.residue_kg.likely
    for r in plan.rounds:
        line, at = plan.problem.lines[r.line], poured.get(r.number, -1.0)
        kg = line.cast.poured.value.likely * r.casts
        if line.kind == "close" and at >= over_s and kg <= left and _is_other(plan, key, line.melt):
            left -= kg
            yield IntoBacks(line.named, r.casts, kg, at)


def _is_other(plan: Plan, key: str, other: str) -> bool:
    """Whether it is the same material in another colour."""
    return other != key and is_same_material(plan.problem.ways[other], plan.problem.ways[key])


def _swallows(plan: Plan, key: str, other: str) -> bool:
    return other != key and swallows(plan.problem.ways[other], plan.problem.ways[key])
