"""Which of an order's pieces are cut out of one sheet, and how much of a sheet is poured."""

import math
from collections import defaultdict
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace

from umber_pebble.core.moulds.cutting import CuttingPlan, shortest_plan
from umber_pebble.core.pieces.sheet import poured_for
from umber_pebble.core.plan.handwork import Inclusion
from umber_pebble.core.plan.problem import Mould, PlanInput, PlanLine


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


@dataclass(frozen=True, slots=True)
class Sheets:
    """So many sheets [count], all but the last of them whole, the last only so long [m], cut like this; how much is poured, and in pieces
    [whole sheets]."""

    count: int
    last_m: float
    last: CuttingPlan
    poured: float
    in_pieces: float


@dataclass(frozen=True, slots=True)
class SheetOf:
    """How large a sheet is that is poured or broken up [m], how many of it [count], and how long the last of them is [m]."""

    length_m: float
    width_m: float
    count: int
    last_m: float


def sheet_of(cut: Sequence[tuple[Mould, int]]) -> SheetOf | None:
    """The sheets of a filling: of each mould that is cut out of them, how many [count]; None where it is no sheet. Source: definition"""
    cutting = cut[0][0].cutting
    if cutting is None:
        return None
    sheets = sheets_for(cutting, {mould.kind if mould.shares else 0: casts for mould, casts in cut})
    return SheetOf(cutting.sheet.length_m, cutting.sheet.width_m, sheets.count, sheets.last_m)


def sheets_for(cutting: CuttingPlan, counts: Mapping[int, int]) -> Sheets:
    """What so many pieces are cut out of.

    Args:
        cutting: of the whole sheet
        counts: of each of its outlines, one at least
    Source: geometry
    """
    each = {kind: cutting.count(kind) for kind in counts}
    sheets = max(math.ceil(count / each[kind]) for kind, count in counts.items())
    rest = {kind: max(count - (sheets - 1) * each[kind], 0) for kind, count in counts.items()}
    last = shortest_plan(cutting, tuple(rest.get(kind, 0) for kind in range(len(cutting.rims))))
    last_m, length_m = last.length_for_m(rest), cutting.sheet.length_m
    in_pieces = sum(cutting.kinds_frac[kind] * count / each[kind] for kind, count in counts.items())
    return Sheets(
        sheets, last_m, replace(last, cuts=tuple(last.first_cuts(rest))), sheets - 1 + last_m / length_m, in_pieces
    )


def cut_to_size(plan: PlanInput, rounds: Sequence[Sequence[int]]) -> PlanInput:
    """An order of whose sheets, round by round, only what their pieces lie on is poured.

    Args:
        plan: the order
        rounds: per line, the castings of each of its rounds
    Source: geometry
    """
    lines = list(plan.lines)
    for i, line in enumerate(plan.lines):
        cutting = line.mould.cutting
        if cutting is None or not rounds[i]:
            continue
        mine = _beside(plan, line, rounds) if line.mould.shares else {0: rounds[i]}
        sheets = [sheets_for(cutting, dict(zip(mine, of, strict=True))) for of in zip(*mine.values(), strict=True)]
        used = sum(of.in_pieces for of in sheets) / sum(of.poured for of in sheets)
        area = line.cast.finished.value.likely / line.cast.poured.value.likely / used
        lines[i] = replace(_with_area(line, area), cast=poured_for(line.cast, used))
    return replace(plan, lines=tuple(lines))


def _beside(plan: PlanInput, line: PlanLine, rounds: Sequence[Sequence[int]]) -> dict[int, Sequence[int]]:
    """Of each outline of a shared sheet its rounds."""
    return {
        other.mould.kind: of
        for other, of in zip(plan.lines, rounds, strict=True)
        if other.mould.shares and other.mould.mould_id == line.mould.mould_id
    }


def _with_area(line: PlanLine, area: float) -> PlanLine:
    """With so much more or less of what is done to a whole sheet [1]."""
    works = tuple(replace(of, on=tuple(replace(on, kg=on.kg * area) for on in of.on)) for of in line.works)
    piped = line.piped and replace(line.piped, each_s=line.piped.each_s * area, long_m=line.piped.long_m * area)
    return replace(line, works=works, piped=piped)


def _laid(line: PlanLine) -> tuple[object, ...]:
    """What of a line is alike in all that is cut out of one sheet."""
    works = tuple((of.kind, *(on.name for on in of.on)) for of in line.works)
    return line.melt, line.fill_m, line.kind, works, line.last, line.piped and line.piped.bore_m


def _shared(line: PlanLine) -> PlanLine:
    """With its share of a sheet that others are cut out of too: of webs, margins, and what hands do to all of it."""
    alone, by_all = line.mould.cutting, line.mould.by_all
    assert alone is not None and by_all is not None
    mould = replace(line.mould, cutting=by_all, cavities=by_all.count(line.mould.kind))
    hands = len(alone.cuts) / len(by_all.cuts)
    works = tuple(replace(of, on=tuple(_of_sheet(on, mould, hands) for on in of.on)) for of in line.works)
    area, cast = alone.used_frac / by_all.used_frac, poured_for(line.cast, by_all.used_frac)
    return replace(_with_area(replace(line, works=works), area), mould=mould, cast=cast)


def _of_sheet(on: Inclusion, mould: Mould, hands: float) -> Inclusion:
    """A film lies over all pieces of the sheet, and a work on it takes hands as long however many there are."""
    film = on.film and replace(on.film, of=replace(on.film.of, over=mould.cavities))
    return replace(on, each_s=on.each_s * hands, film=film)
