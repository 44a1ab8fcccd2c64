"""An order's day with a timetable at once: each mould filled for one kind at a time, or for all of its kinds; and when it may begin."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace

from umber_pebble.core.errors import OutOfRange
from umber_pebble.core.plan.day.bounds import hands_s
from umber_pebble.core.plan.day.chances import chances, spare_s, uncertain
from umber_pebble.core.plan.day.check import broken
from umber_pebble.core.plan.day.compile import OrderDay, day_of
from umber_pebble.core.plan.day.model import Weights
from umber_pebble.core.plan.day.paces import OFF_FRAC, off_pace
from umber_pebble.core.plan.day.problem import Timetable, fits
from umber_pebble.core.plan.day.search import USUAL, at_once
from umber_pebble.core.plan.day.slack import with_slack
from umber_pebble.core.plan.day.wished import NOTHING_WISHED, Outcome, wished
from umber_pebble.core.plan.problem import PlanInput

DAY_S = 24 * 3600.0
EVER_S = 30 * DAY_S
"""After its last known opening a kitchen is closed for so long [s]."""
SOON_ENOUGH_S = DAY_S
"""What is made in one go may be made so much sooner than it has to be, or later than it could be [s]."""
LARGE = 300
"""A day of so many things and more is laid out one way only, all kinds of a mould in one stay of it [count]."""
MANY = 80
"""A day of so many things and more is not planned again for slack [count]."""


@dataclass(frozen=True, slots=True)
class Chosen:
    """An order's day and its timetable, and when it may begin: at the earliest, and at the latest [s from now]; what came of wishes, and
    what it would be without them."""

    of: OrderDay
    table: Timetable
    earliest_s: float
    latest_s: float
    outcome: Outcome = NOTHING_WISHED
    unwished: "Chosen | None" = None


def order_day(plan: PlanInput, casts: Sequence[int], sizes: Sequence[int], weights: Weights = USUAL) -> Chosen:
    """An order's day with the best of its timetables at once, or the one that is kept for it: as late as it may be, or as soon; within one
    opening of the kitchen where one is long enough and not days too soon, else over several.

    Args:
        plan: the order
        casts, sizes: per line, castings in all and of one pour at most [count]
        weights: of the end against melts made anew
    Raises: OutOfRange, MouldTooWeak: as a melt and its pour; OutOfRange: no timetable is found.
    Source: definition
    """
    asked = replace(plan, wishes=(), away=(), kept=None) if plan.wishes or plan.away else plan
    together = day_of(plan, casts, sizes, shared=True)
    days = [together]
    if len(together.day.tasks) < LARGE:
        apart = day_of(plan, casts, sizes, shared=False)
        days = [apart] if apart.day == together.day else [apart, together]
    # one that was chosen before holds as long as it keeps its day
    kept = [_Laid(of, table) for of in days if (table := _kept(asked, of)) is not None]
    rows = kept or [_Laid(of, at_once(of.day, weights)) for of in days]
    if asked is not plan:
        return _as_wished(asked, plan, rows, weights)
    return _at_any_time(plan, rows, weights)


@dataclass(frozen=True, slots=True)
class _Laid:
    """A day with a timetable."""

    of: OrderDay
    table: Timetable


def _as_wished(unwished: PlanInput, plan: PlanInput, rows: Sequence[_Laid], weights: Weights) -> Chosen:
    free, days = _at_any_time(unwished, rows, weights), [row.of for row in rows]
    of, table = free.of, free.table
    found = chances(of.day, table, off_pace(uncertain(of.day, table)), OFF_FRAC)
    begun, outcome = wished(days, (of, table), spare_s(found, table.end_s(of.day)), weights)
    if begun is None:
        raise OutOfRange(
            "nobody is there long enough for this: change who is there when",
            path="people",
            got=len(plan.people),
        )
    slack = _slackened(plan, begun.of, begun.table, weights)
    late = begun.begins_s + slack.end_s(begun.of.day) > max(
        plan.due_s, begun.begins_s + begun.table.end_s(begun.of.day)
    )
    return Chosen(begun.of, begun.table if late else slack, begun.begins_s, begun.begins_s, outcome, free)


def _at_any_time(plan: PlanInput, rows: Sequence[_Laid], weights: Weights) -> Chosen:
    best = min(rows, key=lambda row: weights.of(row.of.day, row.table))
    of, table = best.of, _slackened(plan, best.of, best.table, weights)
    latest = plan.due_s - table.end_s(of.day)
    if not plan.open_s:
        return Chosen(of, table, 0.0, 0.0) if plan.soon else Chosen(of, table, min(latest, 0.0), latest)
    within = _within_one(plan, of, table, latest)
    if plan.soon:
        return _sooner(plan, within, _over_several(plan, of, weights))
    if within and within.latest_s >= latest - SOON_ENOUGH_S:
        return within
    several = _over_several(plan, of, weights)
    if several and (within is None or (_in_time(plan, several) and several.latest_s > within.latest_s)):
        return several
    if within:
        return within
    raise _never_open(plan)


def _sooner(plan: PlanInput, within: Chosen | None, several: Chosen | None) -> Chosen:
    """What is ready first; in one go where that is not days later."""
    if within and (several is None or _ends_s(within) <= _ends_s(several) + SOON_ENOUGH_S):
        return within
    if several is None:
        raise _never_open(plan)
    return several


def _ends_s(chosen: Chosen) -> float:
    return chosen.latest_s + chosen.table.end_s(chosen.of.day)


def _never_open(plan: PlanInput) -> OutOfRange:
    return OutOfRange(
        "the kitchen is never open long enough at a stretch for this: open it longer, or order less",
        path="hours",
        got=round(max(closes - opens for opens, closes in plan.open_s)),
    )


def _within_one(plan: PlanInput, of: OrderDay, table: Timetable, latest: float) -> Chosen | None:
    """In the last opening that is long enough, or right at the beginning of the first."""
    for opens, closes in plan.open_s if plan.soon else reversed(plan.open_s):
        first, last = max(opens, 0.0), closes - of.ready_s(table)
        if plan.soon and last >= first:
            return Chosen(of, table, first, first)
        if min(latest, last) >= first:
            return Chosen(of, table, first, min(latest, last))
    return None


def _in_time(plan: PlanInput, chosen: Chosen) -> bool:
    return _ends_s(chosen) <= plan.due_s


def _kept(plan: PlanInput, of: OrderDay) -> Timetable | None:
    """The timetable that was chosen before, where it keeps this day."""
    table = plan.kept
    return table if table is not None and fits(of.day, table) and not broken(of.day, table) else None


def _slackened(plan: PlanInput, of: OrderDay, table: Timetable, weights: Weights) -> Timetable:
    """With slack where a window is easily lost; one that was chosen, and one of many things, as it is."""
    if table == plan.kept or len(of.day.tasks) >= MANY:
        return table
    return with_slack(of.day, table, off_pace, weights)


def _over_several(plan: PlanInput, of: OrderDay, weights: Weights) -> Chosen | None:
    """From the beginning of the last opening from which it is ready in time; from the first where none is, or it is to be soon; None
    where some of it fits into none."""
    found: Chosen | None = None
    for opens, closed in _begun(plan, of):
        try:
            day = replace(of, day=replace(of.day, closed=closed))
            chosen = Chosen(day, _kept(plan, day) or at_once(day.day, weights), opens, opens)
        except OutOfRange:
            continue
        if opens + of.ready_s(chosen.table) > plan.open_s[-1][1]:
            # some of it fits into no opening
            continue
        found = chosen
        if plan.soon or _in_time(plan, chosen):
            break
    if found is None:
        return None
    slack = replace(found, table=_slackened(plan, found.of, found.table, weights))
    return slack if _in_time(plan, slack) or not _in_time(plan, found) else found


def _begun(plan: PlanInput, of: OrderDay) -> Iterator[tuple[float, tuple[tuple[int, int, int], ...]]]:
    """Openings to begin in, from the last to the first, with when everybody's hands are away after that [s from then]."""
    spans = [(max(opens, 0.0), closes) for opens, closes in plan.open_s if closes > 0]
    ever = spans[-1][1] + EVER_S
    needs = hands_s(of.day) / of.day.people
    for n, (start, _) in enumerate(spans) if plan.soon else reversed(list(enumerate(spans))):
        there = sum(max(min(closes, plan.due_s) - opens, 0.0) for opens, closes in spans[n:])
        if there < needs and n > 0 and not plan.soon:
            continue
        away = [
            (round(closes - start), round(opens - start))
            for (_, closes), opens in zip(spans[n:], [*(opens for opens, _ in spans[n + 1 :]), ever], strict=True)
        ]
        yield start, tuple((person, a, b) for person in range(of.day.people) for a, b in away)
