"""What a compiled plan has to say of itself: what cannot be kept, what may break, what to watch."""

from collections.abc import Iterator

from umber_pebble.core.families.known import family_of
from umber_pebble.core.humidity.stickiness import sticky_from_frac
from umber_pebble.core.materials.load import Material
from umber_pebble.core.pieces.finishes import strong_enough_frac
from umber_pebble.core.pieces.leaving import least_thickness_m
from umber_pebble.core.plan.charge import holds_kg
from umber_pebble.core.plan.compile import Plan
from umber_pebble.core.plan.cooks import lies_in, runs_together_s
from umber_pebble.core.plan.day.chances import IN_TIME_FRAC
from umber_pebble.core.plan.filigree import filigree_remarks
from umber_pebble.core.plan.kept_warm import not_kept
from umber_pebble.core.plan.problem import PlanInput, PlanLine
from umber_pebble.core.plan.remarks import (
    ChillsFirst,
    DueInPast,
    NeverSets,
    NotEaten,
    NotFood,
    OneByOne,
    PotTooSmall,
    Remark,
    ShelfSmall,
    StickyRoom,
    StripesApart,
    ThinToLeave,
    TooLate,
    WeakSpirit,
    WindowNarrow,
    WindowNever,
    each_once,
)
from umber_pebble.core.plan.rounds import works_in_windows

THICK_ENOUGH_M = 0.02
"""Thicker than this nothing breaks as it leaves its mould."""


def remarks_of(compiled: Plan) -> list[Remark]:
    """What the maker should know before she begins, each thing once. Source: definition"""
    plan, cooks, windows, start_s = compiled.problem, compiled.cooks, compiled.windows, compiled.start_s
    out = list[Remark]()
    if plan.due_s <= 0:
        out.append(DueInPast(-plan.due_s))
    elif not compiled.chosen.outcome.late and (start_s < 0 or compiled.fares.spare_s < 0):
        late = min(compiled.fares.spare_s, 0.0)
        out.append(TooLate(compiled.lasts_s, compiled.ends_s + late - max(start_s, 0.0)))
    out += [of for of in compiled.fares.lost if of.kept_frac < IN_TIME_FRAC]
    for c in cooks:
        for r in c.rounds:
            _, window = c.pours[r.line]
            if window.width.likely <= 0:
                out.append(WindowNever(plan.lines[r.line].named, window.depth_m))
            elif r.casts * plan.pour_each_s(plan.lines[r.line]) > window.width.low:
                out.append(WindowNarrow(plan.lines[r.line].named, window.width.low))
        holds = holds_kg(c.way, c.wet)
        if c.charge_kg > holds:
            out.append(PotTooSmall(c.charge_kg, holds))
        for r in c.rounds:
            line, w = plan.lines[r.line], windows[r.number]
            if not line.last:
                if w.never(family_of(c.way.melt).ends.bears_next):
                    out.append(NeverSets(line.named))
            elif w.never("unmould"):
                out.append(NeverSets(line.named))
            elif "over_chilled" in w.at and w.at["over_chilled"].low < w.at["unmould"].high:
                out.append(ChillsFirst(line.named))
            thin = too_thin_to_leave(line, c.way.melt) if line.cast_off else None
            if thin is not None:
                out.append(ThinToLeave(line.named, line.cast.thickness.likely, thin))
            if line.works:
                most, work = works_in_windows(plan, line, w)
                out += [OneByOne(line.named, work)] if r.casts > most else []
            place, moulds = lies_in(plan, line, r.casts)
            if moulds > plan.shelves.get(place, moulds):
                out.append(ShelfSmall(place, moulds, plan.shelves[place]))
    return each_once(
        [
            *out,
            *_stripes_apart(compiled),
            *filigree_remarks(compiled),
            *_not_eaten(plan),
            *_not_food(plan),
            *_weak_spirit(plan),
            *not_kept(plan),
            *_damp(plan),
        ]
    )


def _not_eaten(plan: PlanInput) -> Iterator[NotEaten]:
    for line in plan.lines:
        for hand in line.inclusions:
            if hand.film is not None and not hand.film.of.eaten:
                yield NotEaten(line.named, hand.name)


def _not_food(plan: PlanInput) -> Iterator[NotFood]:
    """What is set in or on a piece and only taken off before it is eaten; what is for contact says itself what it is."""
    taken = [(line.named, hand) for line in plan.lines for hand in line.inclusions]
    taken += [(step.named, hand) for step in plan.by_hand for hand in step.items]
    for named, hand in taken:
        of = hand.bought if hand.finish is None else hand.finish.of
        if of is not None and of.status not in ("food", "contact"):
            yield NotFood(named, hand.name, of.status)


def _weak_spirit(plan: PlanInput) -> Iterator[WeakSpirit]:
    least = strong_enough_frac()
    for step in plan.by_hand:
        for on in step.items:
            if on.finish is not None and on.finish.of.sort == "paint" and on.finish.of.alcohol_frac < least:
                yield WeakSpirit(step.named, on.finish.of.alcohol_frac, least, on.finish.coat.dries_s)


def _stripes_apart(plan: Plan) -> Iterator[StripesApart]:
    """Of each sheet or mould, from the first stripe to the last."""
    pours = {t.round: t for t in plan.tasks if t.kind == "pour"}
    for r in plan.rounds:
        line, first = plan.problem.lines[r.line], r
        if line.kind != "stripes" or line.with_next:
            continue
        while first.on is not None and plan.problem.lines[plan.rounds[first.on].line].with_next:
            first = plan.rounds[first.on]
        takes = pours[r.number].end_s - pours[first.number].start_s
        runs = runs_together_s(plan.windows[first.number])
        if takes > runs:
            yield StripesApart(line.named, takes, runs)


def too_thin_to_leave(line: PlanLine, melt: Material) -> float | None:
    """The least thickness that leaves the mould whole, of a plain cast that is thinner [m]; None of any other.

    Args:
        line: its last pour
        melt: of it
    Source: timoshenko-woinowsky-1959, assumption
    """
    if line.after is not None or line.kind != "fill" or line.cast.thickness.likely >= THICK_ENOUGH_M:
        return None
    least = least_thickness_m(melt, min(line.mould.cavity.bounds_m()), line.mould.material).likely
    return least if line.cast.thickness.likely < least else None


def _damp(plan: PlanInput) -> list[Remark]:
    out = list[Remark]()
    for melt in (way.melt for way in plan.ways.values() if family_of(way.melt).hygroscopic):
        sticky = sticky_from_frac(melt, plan.room_degc)
        if plan.humidity_frac >= sticky.low:
            out.append(StickyRoom(plan.humidity_frac, sticky.low))
    return out
