"""Which of an order's pieces are cut out of one sheet."""

import math
from collections import defaultdict
from dataclasses import replace

from umber_pebble.core.pieces.sheet import poured_for
from umber_pebble.core.plan.problem import PlanInput, PlanLine


def on_one_sheet(plan: PlanInput) -> PlanInput:
    """An order whose pieces are cut out of one sheet where they can be: of one melt, as thick, and as many sheets of each.

    Args:
        plan: the order, each piece cut out of sheets of its own
    Source: definition
    """
    together: dict[str, list[int]] = defaultdict(list)
    for i, line in enumerate(plan.lines):
        if line.mould.by_all is not None:
            together[line.mould.mould_id].append(i)
    lines = list(plan.lines)
    for here in together.values():
        shared = [_shared(plan.lines[i]) for i in here]
        kinds = {line.mould.kind for line in shared}
        alike = {(line.melt, line.fill_m, line.kind, line.after, line.last) for line in shared}
        sheets = {math.ceil(line.quantity / line.mould.cavities) for line in shared if line.mould.cavities}
        if (
            len(kinds) == len(here) > 1
            and len(alike) == len(sheets) == 1
            and all(of.mould.cavities for of in shared)
        ):
            for i, line in zip(here, shared, strict=True):
                lines[i] = line
    return replace(plan, lines=tuple(lines))


def _shared(line: PlanLine) -> PlanLine:
    by_all = line.mould.by_all
    assert by_all is not None
    mould = replace(line.mould, cutting=by_all, cavities=by_all.count(line.mould.kind))
    return replace(line, mould=mould, cast=poured_for(line.cast, by_all.used_frac))
