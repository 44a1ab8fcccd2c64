"""Which castings go together into one round of a mould."""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from itertools import accumulate

from umber_pebble.core.errors import OutOfRange
from umber_pebble.core.heat.pour import Flow, PourWindow
from umber_pebble.core.heat.windows import PieceWindows
from umber_pebble.core.heat.works import WORKS
from umber_pebble.core.plan.charge import bags_kg, bath_left_kg, holds_kg
from umber_pebble.core.plan.cooks import casts_in_window, charge_of, piece_windows, pour_of
from umber_pebble.core.plan.problem import PlanInput, PlanLine, RoundLimit
from umber_pebble.core.plan.tasks import Work
from umber_pebble.core.spread import Spread

MOST_ROUNDS = 400
MOST_BATCHES = 8
"""In so many batches at most is a melt looked at, before one filling alone [count]."""


@dataclass(frozen=True, slots=True)
class Size:
    """Castings of a line that go into one round, and what keeps it from more [count]."""

    casts: int
    limited_by: RoundLimit


def round_sizes(plan: PlanInput) -> list[Size]:
    """For each line, how many castings go into one round: what the moulds hold, what vessel and pour window take, and where hands
    have to work, what they can [count]. The passes of a part go by the least of them.

    Source: definition
    """
    own = [_own_size(plan, i) for i in range(len(plan.lines))]
    return [min((own[j] for j in chain), key=lambda size: size.casts) for chain in plan.chains]


def check_rounds(casts: Sequence[int], sizes: Sequence[Size]) -> None:
    """No more rounds than one plan takes.

    Args:
        casts, sizes: per line, castings in all and of one round at most [count]
    Raises: OutOfRange.
    Source: assumption
    """
    count = sum(math.ceil(n / size.casts) for n, size in zip(casts, sizes, strict=True))
    if count > MOST_ROUNDS:
        raise OutOfRange(
            f"{count} rounds: at most {MOST_ROUNDS} in one plan; split the order or use more moulds",
            path="lines",
            got=count,
            limits={"high": MOST_ROUNDS},
        )


def rounds_of(casts: int, most: int) -> list[int]:
    """So many castings in rounds of at most so many, the last with the rest [count]. Source: definition"""
    return [min(most, casts - start) for start in range(0, casts, most)]


def _own_size(plan: PlanInput, i: int) -> Size:
    line, way = plan.lines[i], plan.way(plan.lines[i])
    size = Size(line.mould.at_once, "mould")
    each = line.cast.poured.value.likely
    charge, residue = charge_of(plan, way, each * size.casts, [line])
    takes = _vessel_takes(plan, line, charge, residue)
    size = _less(size, takes, "vessel")
    # in the vessel is what is poured of it all day, as much as it holds: the more, the longer it stays warm; but out of so deep a pot that
    # its window is too short for a mould it is made in several batches
    whole = sum(of.quantity * of.cast.poured.value.likely for of in plan.lines if of.melt == line.melt)
    flow, window, casts = _widest(plan, line, min(whole, each * takes), size.casts)
    size = _less(size, casts, "window")
    if not line.works:
        return size
    windows = piece_windows(plan, line, flow, window, size.casts)
    return _less(size, works_in_windows(plan, line, windows)[0], "hands")


def _widest(plan: PlanInput, line: PlanLine, whole_kg: float, casts: int) -> tuple[Flow, PourWindow, int]:
    """How a line flows out of the largest batch whose window is wide enough for so many castings, or of the one that takes most; and
    how many those are."""
    way, each = plan.way(line), line.cast.poured.value.likely
    batches = [whole_kg / n for n in range(1, MOST_BATCHES + 1) if n == 1 or whole_kg / n > each * casts]
    best: tuple[Flow, PourWindow, int] | None = None
    for kg in (*batches, min(whole_kg, each * casts)):
        charge, _ = charge_of(plan, way, kg, [line])
        flow, window, *_ = pour_of(plan, way, charge, [line])
        takes = int(casts_in_window(window, plan.pour_each_s(line)).likely)
        if best is None or takes > best[2]:
            best = flow, window, takes
        if takes >= casts:
            break
    assert best is not None
    return best


def _less(size: Size, casts: int, limited_by: RoundLimit) -> Size:
    return Size(max(1, casts), limited_by) if casts < size.casts else size


def _vessel_takes(plan: PlanInput, line: PlanLine, charge: float, residue: Spread) -> int:
    """How many castings of a line one vessel holds [count]."""
    way = plan.way(line)
    kept = residue.likely + bath_left_kg(way, [line]) + bags_kg([line])
    free = holds_kg(way, way.by.wet(way.melt, charge)) - kept
    return math.floor(free / (1 + plan.reserve_frac) / line.cast.poured.value.likely)


def works_in_windows(plan: PlanInput, line: PlanLine, windows: PieceWindows) -> tuple[int, Work]:
    """Castings of a round to which everything that is done while they are soft can be done in time, one work on all of them and then the
    next, and which work keeps it from more [count].

    Args:
        plan, line, windows: of a line with works
    Source: definition
    """
    each = accumulate(plan.work_each_s(line, of) for of in line.works)
    pour_s = plan.pour_each_s(line)
    return min(
        (
            (works_in_window(windows, of.kind, pour_s, until), of.kind)
            for of, until in zip(line.works, each, strict=True)
        ),
        key=lambda row: row[0],
    )


def works_in_window(windows: PieceWindows, work: str, pour_each_s: float, work_each_s: float) -> int:
    """Castings of a round that one person can pour and then work before any turns too stiff [count].

    All are poured, then worked in the same order: the last is worked latest, where pouring is quicker than working; else the first waits
    longest. At least one.
    Args:
        windows: of the casting; its lowest width counts from the likely opening
        work: one of those of WORKS
        pour_each_s, work_each_s: paces, of what is done before it too [s]
    Source: definition
    """
    opens = WORKS[work].opens
    from_s, wide_s = windows.at[opens].likely if opens else 0.0, windows.work_width[work].low
    closes, apart_s = from_s + wide_s, abs(pour_each_s - work_each_s)
    slowly = (closes - pour_each_s) / work_each_s if pour_each_s <= work_each_s else closes / pour_each_s
    # when the first and the last take it hands begin, and then neither may be too firm before its turn
    all_at_once = wide_s / apart_s + 1 if apart_s else math.inf
    return max(1, math.floor(min(slowly, all_at_once)))


def begun_between_s(
    window_s: tuple[float, float], casts: int, pour_each_s: float, work_each_s: float
) -> tuple[float, float]:
    """From when until when hands begin to work on castings in the order in which they were poured, each in its own window [s from the
    first pour].

    Args:
        window_s: of one casting, from its own pour
        casts: how many, at least one
        pour_each_s, work_each_s: paces [s]
    Source: definition
    """
    later = (casts - 1) * (pour_each_s - work_each_s)
    return window_s[0] + max(later, 0.0), window_s[1] + min(later, 0.0)
