"""What of an order is poured when, and out of which pot."""

from collections.abc import Sequence
from dataclasses import dataclass

from umber_pebble.core.plan.charge import holds_kg
from umber_pebble.core.plan.cooks import charge_of, pour_of
from umber_pebble.core.plan.problem import PlanInput
from umber_pebble.core.plan.rounds import rounds_of


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
    """Pours out of one melt, in how many batches; what may be in its vessel, and may be poured of one batch of it [kg]."""

    fillings: tuple[int, ...]
    batches: int
    charge_kg: float
    pours_kg: float


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
        for nth, count in enumerate(rounds_of(casts[i], sizes[i])):
            of[i, nth] = len(out)
            on = None if line.after is None else of[line.after, nth]
            out.append(Filling(i, count, nth, on))
    return tuple(out)


def pots_of(plan: PlanInput, fillings: Sequence[Filling]) -> list[Pot]:
    """Out of which pots an order is poured: one for each melt, and one of its own for a line that out of so much is too
    thick before it may be poured, as where bubbles rise through a deep pot.

    Args:
        plan, fillings: of the order
    Raises: OutOfRange, MouldTooWeak: as a melt and its pour.
    Source: definition
    """
    out = []
    for key in dict.fromkeys(plan.lines[f.line].melt for f in fillings):
        mine = [n for n, f in enumerate(fillings) if plan.lines[f.line].melt == key]
        whole = _pot(plan, fillings, mine)
        tight = _tight(plan, fillings, whole) if len(dict.fromkeys(fillings[n].line for n in mine)) > 1 else []
        groups = [[n for n in mine if fillings[n].line not in tight]]
        groups += [[n for n in mine if fillings[n].line == i] for i in tight]
        out += [_in_batches(plan, fillings, group) for group in groups if group]
    return out


def _tight(plan: PlanInput, fillings: Sequence[Filling], pot: Pot) -> list[int]:
    """Lines of a pot whose fillings do not fit into their window out of it."""
    lines = dict.fromkeys(fillings[n].line for n in pot.fillings)
    return [i for i in lines if not _pours(plan, fillings, pot, i)]


def _in_batches(plan: PlanInput, fillings: Sequence[Filling], of: Sequence[int]) -> Pot:
    """All that is poured of it, in the fewest batches out of which every filling fits into its window; as the vessel allows, where none
    are small enough."""
    first = _pot(plan, fillings, of)
    if not _tight(plan, fillings, first):
        return first
    smaller = (_pot(plan, fillings, of, n) for n in range(first.batches + 1, len(of) + 1))
    return next((pot for pot in smaller if not _tight(plan, fillings, pot)), first)


def _pot(plan: PlanInput, fillings: Sequence[Filling], of: Sequence[int], batches: int = 1) -> Pot:
    """All that is poured of it, in so many batches at least, more where the vessel holds less."""
    rows = [fillings[n] for n in of]
    lines = [plan.lines[i] for i in dict.fromkeys(f.line for f in rows)]
    way = plan.way(lines[0])
    each = [f.casts * plan.lines[f.line].cast.poured.value.likely for f in rows]
    # fillings are not divided: a batch may take one more
    pours = sum(each) if batches == 1 else min(sum(each) / batches + max(each), sum(each))
    charge, _ = charge_of(plan, way, pours, lines)
    most = holds_kg(way, way.by.wet(way.melt, charge))
    if charge > most and batches < len(of):
        return _pot(plan, fillings, of, batches + 1)
    return Pot(tuple(of), batches, min(charge, most), pours)


def _pours(plan: PlanInput, fillings: Sequence[Filling], pot: Pot, i: int) -> bool:
    """Whether every filling of a line fits between the opening and the closing of its window."""
    line = plan.lines[i]
    _, window, *_ = pour_of(plan, plan.way(line), pot.charge_kg, [line])
    most = max((fillings[n].casts for n in pot.fillings if fillings[n].line == i), default=0)
    lasts = plan.pour_lasts_s(line, most)
    return window.closes.likely >= max(window.opens.likely, 0.0) + lasts
