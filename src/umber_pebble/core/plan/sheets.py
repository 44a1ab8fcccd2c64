"""Which of an order's pieces are cut out of one sheet."""

import math
from collections import defaultdict
from dataclasses import replace

from umber_pebble.core.pieces.sheet import poured_for
from umber_pebble.core.plan.problem import PlanInput, PlanLine


def on_one_sheet(plan: PlanInput) -> PlanInput:
    """An order whose pieces are cut out of one sheet where they can be: poured alike in one pass, worked alike, as many sheets of each.

    Args:
        plan: the order, each piece cut out of sheets of its own
    Source: definition
    """
    together: dict[str, dict[int, list[int]]] = defaultdict(lambda: defaultdict(list))
    for i, line in enumerate(plan.lines):
        if line.mould.by_all is not None:
            together[line.mould.mould_id][line.mould.kind].append(i)
    lines = list(plan.lines)
    for kinds in together.values():
        shared = {i: _shared(plan.lines[i]) for here in kinds.values() for i in here}
        laid = [[shared[i] for i in here] for here in kinds.values()]
        alike = {tuple(_laid(line) for line in one) for one in laid}
        sheets = {math.ceil(one[-1].quantity / max(one[-1].mould.cavities, 1)) for one in laid}
        one_pass = all(line.with_next for one in laid for line in one[:-1])
        some_of_each = all(one[-1].mould.cavities for one in laid)
        if len(kinds) > 1 and len(alike) == len(sheets) == 1 and one_pass and some_of_each:
            for i, line in shared.items():
                lines[i] = line
    return replace(plan, lines=tuple(lines))


def _laid(line: PlanLine) -> tuple[object, ...]:
    """What of a line is alike in all that is cut out of one sheet."""
    works = tuple((of.kind, of.on and of.on.name) for of in line.works)
    return line.melt, line.fill_m, line.kind, works, line.last, line.piped and line.piped.bore_m


def _shared(line: PlanLine) -> PlanLine:
    """With its share of a sheet that others are cut out of too: of webs, margins, and what hands do to all of it."""
    alone, by_all = line.mould.cutting, line.mould.by_all
    assert alone is not None and by_all is not None
    mould = replace(line.mould, cutting=by_all, cavities=by_all.count(line.mould.kind))
    area, hands = alone.used_frac / by_all.used_frac, len(alone.cuts) / len(by_all.cuts)
    works = tuple(
        of if of.on is None else replace(of, on=replace(of.on, kg=of.on.kg * area, each_s=of.on.each_s * hands))
        for of in line.works
    )
    piped = line.piped and replace(line.piped, each_s=line.piped.each_s * area)
    cast = poured_for(line.cast, by_all.used_frac)
    return replace(line, mould=mould, cast=cast, works=works, piped=piped)
