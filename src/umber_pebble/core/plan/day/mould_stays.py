"""Which fillings stand in a mould together, and which of them are one pass."""

from collections.abc import Sequence

from umber_pebble.core.plan.day.pots import Filling
from umber_pebble.core.plan.problem import PlanInput


def of_one_pass(plan: PlanInput, fillings: Sequence[Filling], number: int) -> list[int]:
    """The fillings that are poured into or beside one another in a pass, up to this one. Source: definition"""
    on = fillings[number].on
    if on is None or not plan.lines[fillings[on].line].with_next:
        return [number]
    return [*of_one_pass(plan, fillings, on), number]


def stays_of(plan: PlanInput, fillings: Sequence[Filling], shared: bool) -> list[list[list[int]]]:
    """Which parts stand in one mould together: fillings from the first pass to the last, of one kind of cavity, or of all of it.

    Args:
        plan, fillings: of the order
        shared: whether kinds of cavities of one mould are filled in one stay of it
    Source: definition
    """
    parts: dict[int, list[int]] = {}
    head: dict[int, int] = {}
    for number, filling in enumerate(fillings):
        head[number] = number if filling.on is None else head[filling.on]
        parts.setdefault(head[number], []).append(number)
    together: dict[tuple[str, int, int], list[list[int]]] = {}
    for part in parts.values():
        filling = fillings[part[0]]
        line = plan.lines[filling.line]
        with_others = shared if line.mould.cutting is None else line.mould.shares
        alone = not with_others or line.mould.hands or line.joins or line.released
        key = (line.mould.mould_id, filling.nth, filling.line if alone else -1)
        together.setdefault(key, []).append(part)
    out: list[list[list[int]]] = []
    for group in together.values():
        kinds: dict[int, list[list[int]]] = {}
        for part in group:
            kinds.setdefault(plan.lines[fillings[part[0]].line].mould.kind, []).append(part)
        # the same kind twice is filled twice
        for n in range(max(len(of) for of in kinds.values())):
            out.append([of[n] for of in kinds.values() if n < len(of)])
    return out
