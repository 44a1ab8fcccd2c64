"""What of an order is poured when, and out of which pot."""

import math
from collections.abc import Sequence
from dataclasses import dataclass

from umber_pebble.core.plan.charge import holds_kg
from umber_pebble.core.plan.cooks import charge_of, pour_of
from umber_pebble.core.plan.problem import PlanInput


@dataclass(frozen=True, slots=True)
class Filling:
    """One pour into a line's moulds: the line, the castings, the how manieth of its line, and the pour it goes on, None in an empty
    mould."""

    line: int
    casts: int
    nth: int
    on: int | None


@dataclass(frozen=True, slots=True)
class Pot:
    """Lines that are poured out of one melt, and what is likely to be in its vessel [kg]."""

    lines: tuple[int, ...]
    charge_kg: float


def fillings_of(plan: PlanInput, casts: Sequence[int], sizes: Sequence[int]) -> tuple[Filling, ...]:
    """The pours of an order, line by line; the passes of a part are split alike.

    Args:
        plan: the order
        casts, sizes: per line, castings in all and of one pour at most [count]
    Source: definition
    """
    out: list[Filling] = []
    of: dict[tuple[int, int], int] = {}
    for i, line in enumerate(plan.lines):
        for nth, start in enumerate(range(0, casts[i], sizes[i])):
            of[i, nth] = len(out)
            on = None if line.after is None else of[line.after, nth]
            out.append(Filling(i, min(sizes[i], casts[i] - start), nth, on))
    return tuple(out)


def pots_of(plan: PlanInput, fillings: Sequence[Filling]) -> list[Pot]:
    """Out of which pots an order is poured: one for each melt, and one of its own for a line that out of so much is too thick before it
    may be poured, as where bubbles rise through a deep pot.

    Args:
        plan, fillings: of the order
    Raises: OutOfRange, MouldTooWeak: as a melt and its pour.
    Source: definition
    """
    out = []
    for key in dict.fromkeys(line.melt for line in plan.lines):
        lines = tuple(i for i, line in enumerate(plan.lines) if line.melt == key)
        whole = _pot(plan, fillings, lines)
        tight = [i for i in lines if not _pours(plan, fillings, whole, i)] if len(lines) > 1 else []
        common = tuple(i for i in lines if i not in tight)
        out += [_pot(plan, fillings, common)] if common else []
        out += [_pot(plan, fillings, (i,)) for i in tight]
    return out


def _pot(plan: PlanInput, fillings: Sequence[Filling], lines: tuple[int, ...]) -> Pot:
    """All that is poured of it, in batches as few as the vessel allows."""
    of = [plan.lines[i] for i in lines]
    way = plan.way(of[0])
    poured = sum(f.casts * plan.lines[f.line].cast.poured.value.likely for f in fillings if f.line in lines)
    charge, _ = charge_of(plan, way, poured, of)
    most = holds_kg(way, way.by.wet(way.melt, charge))
    return Pot(lines, charge / max(1, math.ceil(charge / most)))


def _pours(plan: PlanInput, fillings: Sequence[Filling], pot: Pot, i: int) -> bool:
    """Whether every filling of a line fits between the opening and the closing of its window."""
    line = plan.lines[i]
    _, window, *_ = pour_of(plan, plan.way(line), pot.charge_kg, [line])
    most = max((f.casts for f in fillings if f.line == i), default=0)
    lasts = plan.paces.stir_s if line.kind == "swirl" else most * plan.pour_each_s(line)
    return window.closes.likely >= max(window.opens.likely, 0.0) + lasts
