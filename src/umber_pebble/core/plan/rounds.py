"""Which castings go together: into one round of a mould, and into one cook."""

import math
from collections import Counter
from dataclasses import dataclass

from umber_pebble.core.errors import OutOfRange
from umber_pebble.core.heat.windows import PieceWindows
from umber_pebble.core.heat.works import WORKS
from umber_pebble.core.plan.charge import bags_kg, bath_left_kg, holds_kg
from umber_pebble.core.plan.cooks import casts_in_window, charge_of, piece_windows, pour_of
from umber_pebble.core.plan.problem import PlanInput, RoundLimit
from umber_pebble.core.spread import Spread

MOST_ROUNDS = 400
Waiting = list[tuple[int, int, int]]
"""Rounds that are not in a cook yet: line, castings, and the how manieth of its line."""


@dataclass(frozen=True, slots=True)
class Size:
    """Castings of a line that go into one round, and what keeps it from more [count]."""

    casts: int
    limited_by: RoundLimit


def round_sizes(plan: PlanInput) -> list[Size]:
    """For each line, how many castings go into one round: what the moulds hold; where it has to wait for others, what vessel
    and pour window take; where hands have to work, what they can [count]. The passes of a part go by the least of them.

    Source: definition
    """
    own = [_own_size(plan, i) for i in range(len(plan.lines))]
    return [min((own[j] for j in chain), key=lambda size: size.casts) for chain in plan.chains]


def _own_size(plan: PlanInput, i: int) -> Size:
    line, way = plan.lines[i], plan.way(plan.lines[i])
    size = Size(line.mould.at_once, "mould")
    if not (line.work or plan.built(i)):
        return size
    charge, residue = charge_of(plan, way, line.cast.poured.value.likely * size.casts, [line])
    if (takes := _vessel_takes(plan, [(i, size.casts)], charge, residue)) < size.casts:
        size = _less(size, takes, "vessel")
        charge, _ = charge_of(plan, way, line.cast.poured.value.likely * size.casts, [line])
    flow, window, *_ = pour_of(plan, way, charge, [line])
    if plan.built(i):
        size = _less(size, int(casts_in_window(window, plan.pour_each_s(line)).likely), "window")
    if not line.work:
        return size
    windows = piece_windows(plan, line, flow, window, size.casts)
    takes = works_in_window(windows, line.work, plan.pour_each_s(line), plan.work_each_s(line))
    return _less(size, takes, "hands")


def _less(size: Size, casts: int, limited_by: RoundLimit) -> Size:
    return Size(max(1, casts), limited_by) if casts < size.casts else size


def make_rounds(plan: PlanInput, casts: list[int], sizes: list[Size]) -> list[list[tuple[int, int]]]:
    """Cooks as lists of (line, castings): moulds filled once a cook, no more than its window takes [count].

    One material after the other, in the order of the lines; but a pass only after the one it is poured on, a mould's next
    filling only after all passes of the one before, and a join only after all that it joins.
    Source: definition
    """
    waiting: dict[str, Waiting] = {line.melt: [] for line in plan.lines}
    for i, line in enumerate(plan.lines):
        waiting[line.melt] += [(i, n, k) for k, n in enumerate(_split(casts[i], sizes[i].casts))]
    for rounds in waiting.values():
        rounds.sort(key=lambda r: (plan.chains[r[0]][0], r[2] if plan.built(r[0]) else 0))
    count = sum(len(rounds) for rounds in waiting.values())
    to_pour = Counter(i for rounds in waiting.values() for i, *_ in rounds)
    if count > MOST_ROUNDS:
        raise OutOfRange(
            f"{count} rounds: at most {MOST_ROUNDS} in one plan; split the order or use more moulds",
            path="lines",
            got=count,
            limits={"high": MOST_ROUNDS},
        )
    cooks: list[list[tuple[int, int]]] = []
    poured = [0] * len(plan.lines)
    while any(waiting.values()):
        for rounds in waiting.values():
            while cook := _next_cook(plan, rounds, poured, to_pour):
                cooks.append(cook)
                for index, _ in cook:
                    poured[index] += 1
                # what is swirled waits in its vessel: the melt it goes into comes first
                if any(plan.lines[index].kind == "swirl" for index, _ in cook):
                    break
    return cooks


def _mould_is_free(plan: PlanInput, poured: list[int], chosen: list[tuple[int, int]], line: int) -> bool:
    """Whether no other part stands half made in the same mould, or would with it: it is one stay for all its cavities."""
    mould = plan.lines[line].mould
    if mould.hands or plan.lines[line].after is not None:
        return True
    others = {
        c[0]: c[-1] for c in plan.chains if plan.lines[c[0]].mould.mould_id == mould.mould_id and line not in c
    }
    beside = [i for i, _ in chosen if i in others and (others[i] != i or len(plan.chains[line]) > 1)]
    return not beside and all(poured[first] == poured[last] for first, last in others.items())


def _may_be_next(
    plan: PlanInput, poured: list[int], to_pour: Counter[int], chosen: list[tuple[int, int]], line: int, nth: int
) -> bool:
    if not _mould_is_free(plan, poured, chosen, line):
        return False
    if not plan.built(line):
        return True
    if any(poured[part] < to_pour[part] for part in plan.lines[line].needs):
        return False
    after = plan.lines[line].after
    return poured[plan.chains[line][-1]] >= nth if after is None else poured[after] > nth


def _next_cook(
    plan: PlanInput, waiting: Waiting, poured: list[int], to_pour: Counter[int]
) -> list[tuple[int, int]]:
    """Take from the front what one vessel pours: each mould once, castings within the window.

    Of parts of several passes, what is not ready yet or does not fit is passed over.
    """
    chosen: list[tuple[int, int]] = []
    used: set[tuple[str, int]] = set()
    i = 0
    while i < len(waiting):
        index, casts, nth = waiting[i]
        line, built = plan.lines[index], plan.built(index)
        mould = (line.mould.mould_id, line.mould.kind)
        fits = (
            mould not in used
            and not (chosen and line.alone)
            and _may_be_next(plan, poured, to_pour, chosen, index, nth)
        )
        room = _room(plan, [*chosen, (index, casts)]) if fits else 0
        if not fits or (room < casts and chosen):
            if not built:
                break
            i += 1
            continue
        take = casts if built else max(1, min(casts, room))
        if take < casts:
            # a smaller charge cools faster
            take = max(1, min(take, _room(plan, [*chosen, (index, take)])))
        chosen.append((index, take))
        used.add(mould)
        waiting[i : i + 1] = [(index, casts - take, nth)] if take < casts else []
        if take < casts or line.alone:
            break
    return chosen


def _room(plan: PlanInput, rounds: list[tuple[int, int]]) -> int:
    """How many castings of the last round still fit into the vessel and into its likely window, after those before it."""
    lines = [plan.lines[i] for i, _ in rounds]
    way = plan.way(lines[0])
    pour_kg = sum(plan.lines[i].cast.poured.value.likely * n for i, n in rounds)
    charge, residue = charge_of(plan, way, pour_kg, lines)
    _, window, *_ = pour_of(plan, way, charge, lines)
    before_s = sum(n * plan.pour_each_s(plan.lines[i]) for i, n in rounds[:-1])
    in_window = int((window.width.likely - before_s) / plan.pour_each_s(lines[-1]))
    return min(in_window, _vessel_takes(plan, rounds, charge, residue))


def _vessel_takes(plan: PlanInput, rounds: list[tuple[int, int]], charge: float, residue: Spread) -> int:
    """How many castings of the last round a vessel holds beside those before it [count]."""
    lines = [plan.lines[i] for i, _ in rounds]
    way, each = plan.way(lines[0]), lines[-1].cast.poured.value.likely
    rest = sum(plan.lines[i].cast.poured.value.likely * n for i, n in rounds[:-1])
    free = holds_kg(way, way.by.wet(way.melt, charge)) - residue.likely - bath_left_kg(way, lines) - bags_kg(lines)
    return math.floor((free / (1 + plan.reserve_frac) - rest) / each)


def works_in_window(windows: PieceWindows, work: str, pour_each_s: float, work_each_s: float) -> int:
    """Castings of a round that one person can pour and then work before the last turns too stiff [count].

    All are poured, then worked in the same order: the last starts latest, so it decides. At least one.
    Args:
        windows: of the casting; its lowest width counts from the likely opening
        work: "bend" or "stick"
        pour_each_s, work_each_s: paces [s]
    Source: definition
    """
    opens = WORKS[work].opens
    closes = (windows.at[opens].likely if opens else 0.0) + windows.work_width[work].low
    return max(1, math.floor((closes - pour_each_s) / work_each_s))


def _split(casts: int, size: int) -> list[int]:
    return [min(size, casts - start) for start in range(0, casts, size)]
