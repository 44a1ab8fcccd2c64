"""What else an order could do, each with its price: how many castings, how sure, how many melts, when it ends."""

import itertools
import math
from collections.abc import Callable, Iterator
from dataclasses import dataclass, field, replace
from typing import Literal

from umber_pebble.core.families.known import family_of
from umber_pebble.core.materials.load import material
from umber_pebble.core.plan.compile import Plan, compile_plan
from umber_pebble.core.plan.divided import divided
from umber_pebble.core.plan.kept_warm import kept_warm
from umber_pebble.core.plan.lanes import IN_VESSEL
from umber_pebble.core.plan.problem import MOST_HANDS, Named, PlanInput, PlanLine
from umber_pebble.core.plan.spares import Spares, casts_made, casts_needed
from umber_pebble.core.plan.summary import hands_s, sure_frac
from umber_pebble.core.plan.tasks import Task
from umber_pebble.core.plan.wishes import Skill, ThereFrom

SOONER_FRAC = 0.03
"""From here an alternative is noticeably shorter: by this share of the plan, where that is longer than what is noticed at all [frac]."""
MOST_VESSELS = 2
"""One more of so many vessels at most is looked at, each for itself [count]."""
MOST_LIFTED = 3
"""So many wishes are tried without at most, each for itself [count]."""
BUSY_FRAC = 0.5
"""From here hands are what a day waits for [frac]."""
EASIER_FRAC = 0.1
"""From here it takes noticeably less of hands, where it takes no longer for that [frac]."""
SURER_FRAC = 0.01
"""And from here noticeably surer [frac]."""


@dataclass(frozen=True, slots=True)
class SparesChange:
    """Other spares of these lines of the order; named: the piece, where it is one of several."""

    items: tuple[int, ...]
    named: Named | None
    spares: Spares
    code: Literal["spares"] = field(default="spares", init=False)


@dataclass(frozen=True, slots=True)
class MouldChange:
    """One more of a mould, so many then [count]."""

    mould_id: str
    mould: str
    owned: int
    code: Literal["mould"] = field(default="mould", init=False)


@dataclass(frozen=True, slots=True)
class VesselChange:
    """One more vessel like one that several melts share, and which of them go into it, by their keys."""

    vessel_id: str
    melts: tuple[str, ...]
    code: Literal["vessel"] = field(default="vessel", init=False)


@dataclass(frozen=True, slots=True)
class DivideChange:
    """The colours of a family divided off one pot, or each melted by itself."""

    family: str
    divided: bool
    code: Literal["divide"] = field(default="divide", init=False)


@dataclass(frozen=True, slots=True)
class PeopleChange:
    """One more pair of hands, so many then [count]."""

    people: int
    code: Literal["people"] = field(default="people", init=False)


@dataclass(frozen=True, slots=True)
class HelpChange:
    """One more pair of hands, so many then [count], for a while only [s from now]."""

    people: int
    from_s: float
    to_s: float
    code: Literal["help"] = field(default="help", init=False)


@dataclass(frozen=True, slots=True)
class WishChange:
    """A wish that is lifted, by its number."""

    wish: int
    code: Literal["wish"] = field(default="wish", init=False)


Change = SparesChange | MouldChange | VesselChange | DivideChange | PeopleChange | HelpChange | WishChange


@dataclass(frozen=True, slots=True)
class Alternative:
    """A way to do an order; changes: from how it is asked for, none where it is that. Castings, rounds of moulds and melts in all
    [count], what is weighed out [kg]; the least chance that a part of it is enough [frac]; how long it takes, and hands in it [s];
    when it begins at the latest, and ends at the earliest [s from now]."""

    changes: tuple[Change, ...]
    casts: int
    rounds: int
    melts: int
    fresh_kg: float
    sure_frac: float
    lasts_s: float
    hands_s: float
    start_s: float
    ends_s: float


def sooner_s() -> float:
    """From here something is noticeably sooner [s]. Source: assumption"""
    return material("kitchen", "usual", "sooner").value("by")


def as_planned(plan: Plan, changes: tuple[Change, ...] = ()) -> Alternative:
    """A plan as an alternative. Source: definition"""
    problem = plan.problem
    return Alternative(
        changes,
        sum(r.casts for r in plan.rounds if problem.lines[r.line].cast_off),
        sum(r.into is None for r in plan.rounds),
        len(plan.cooks),
        sum(c.fresh_kg for c in plan.cooks),
        sure_frac(plan),
        plan.lasts_s,
        hands_s(plan),
        plan.start_s,
        max(plan.ends_s, plan.lasts_s),
    )


def alternatives_of(plan: Plan) -> Iterator[Alternative]:
    """The plan, and what else is worth a look: what takes noticeably less time, or hands, or is noticeably surer.

    Raises: as compile_plan.
    Source: definition
    """
    planned = as_planned(plan)
    yield planned
    for change in changes_of(plan):
        other = _with(plan, change)
        whole = as_planned(other, (change,))
        if isinstance(change, PeopleChange):
            # whoever helps all day may help as much in a part of it
            for_a_while = priced(plan, help_of(other, change))
            yield from _worth_it(planned, for_a_while)
            if whole.lasts_s > for_a_while.lasts_s - sooner_s():
                continue
        yield from _worth_it(planned, whole)


def _worth_it(planned: Alternative, other: Alternative) -> Iterator[Alternative]:
    sooner, surer = planned.lasts_s - other.lasts_s, other.sure_frac - planned.sure_frac
    easier = sooner >= 0 and planned.hands_s - other.hands_s >= EASIER_FRAC * planned.hands_s
    if sooner >= max(sooner_s(), SOONER_FRAC * planned.lasts_s) or surer >= SURER_FRAC or easier:
        yield other


def changes_of(plan: Plan) -> tuple[Change, ...]:
    """What may be worth changing in a plan: spares that cost a round of their own, rounds that are not full, and what is tight: the
    mould that is taken longest, the vessel that several melts wait for, hands where they are busy most of the day; how a material's
    colours are made; and any wish.

    Source: definition
    """
    return (*_spares(plan), *_moulds(plan), *_vessels(plan), *_divides(plan), *_people(plan), *_wishes(plan))


def priced(plan: Plan, change: Change) -> Alternative:
    """A change of a plan with its price: compiled anew.

    Raises: as compile_plan.
    Source: definition
    """
    return as_planned(_with(plan, change), (change,))


def help_of(plan: Plan, change: PeopleChange) -> HelpChange:
    """When the last of the people does most, for as long as help is asked for at once.

    Args:
        plan: with one more pair of hands all day
        change: which these are
    Source: definition
    """
    stays = material("kitchen", "usual", "help").value("stays")
    hers = [(t.start_s, t.end_s) for t in plan.tasks if t.who == change.people - 1]

    def done_s(from_s: float) -> float:
        return sum(max(min(end, from_s + stays) - max(start, from_s), 0.0) for start, end in hers)

    begins = max((start for start, _ in hers), key=lambda start: (done_s(start), -start), default=plan.start_s)
    return HelpChange(change.people, begins, begins + stays)


def _with(plan: Plan, change: Change) -> Plan:
    # other spares are other portions
    return compile_plan(divided(_changed(plan.problem, change)))


def _changed(problem: PlanInput, change: Change) -> PlanInput:
    match change:
        case SparesChange(items, _, spares):
            return _lines(problem, lambda of: replace(of, spares=spares) if of.item in items else of)
        case MouldChange(mould_id, _, owned):
            return _lines(
                problem,
                lambda of: (
                    replace(of, mould=replace(of.mould, owned=owned)) if of.mould.mould_id == mould_id else of
                ),
            )
        case VesselChange(vessel_id, melts):
            ways = {
                key: replace(way, vessel_id=f"{vessel_id}, one more") if key in melts else way
                for key, way in problem.ways.items()
            }
            return replace(problem, ways=ways)
        case DivideChange(family):
            return kept_warm(divided(replace(problem, ways=problem.otherwise[family])))
        case PeopleChange(people):
            return _more_people(problem, people)
        case HelpChange(people, from_s, to_s):
            more = _more_people(problem, people)
            return replace(more, wishes=(*more.wishes, ThereFrom(people - 1, from_s, to_s)))
        case WishChange(wish):
            return replace(problem, wishes=tuple(w for n, w in enumerate(problem.wishes) if n != wish))


def _more_people(problem: PlanInput, people: int) -> PlanInput:
    """Whoever comes does everything."""
    leaves = (*problem.leaves, *[frozenset[Skill]()] * people)[:people] if problem.leaves else ()
    return replace(problem, people=(*problem.people, *[""] * people)[:people], leaves=leaves)


def _lines(problem: PlanInput, of: Callable[[PlanLine], PlanLine]) -> PlanInput:
    return replace(problem, lines=tuple(of(line) for line in problem.lines))


def _spares(plan: Plan) -> Iterator[SparesChange]:
    """Other spares, where that makes other rounds or castings: of all the lines it changes, together."""
    problem = plan.problem
    cast = [
        (line, size.casts, casts)
        for line, size, casts in zip(problem.lines, plan.sizes, plan.casts, strict=True)
        if line.cast_off
    ]

    def rounds(line: PlanLine, at_once: int, spares: Spares) -> int:
        return math.ceil(
            casts_made(line.quantity, spares, at_once, problem.confidence_frac, line.break_rate) / at_once
        )

    def change(items: set[int], spares: Spares) -> SparesChange:
        all_of = {line.item for line, *_ in cast}
        named = next(line.named for line, *_ in cast if line.item in items)
        whose = Named(named.piece) if len(items) == 1 and len(all_of) > 1 else None
        return SparesChange(tuple(sorted(items)), whose, spares)

    # a round of a mould for spares alone: left out, or put back
    alone = {
        line.item
        for line, at_once, _ in cast
        if rounds(line, at_once, "as_sure") > rounds(line, at_once, "in_rounds")
    }
    saved = {line.item for line, *_ in cast if line.item in alone and line.spares == "in_rounds"}
    if alone - saved:
        yield change(alone - saved, "in_rounds")
    if saved:
        yield change(saved, "as_sure")
    # rounds that are poured anyway, filled
    fuller = {
        line.item
        for line, at_once, casts in cast
        if line.spares != "full_rounds"
        and casts < at_once * math.ceil(casts / at_once)
        and casts >= casts_needed(line.quantity, problem.confidence_frac, line.break_rate)
    }
    full = {line.item for line, *_ in cast if line.spares == "full_rounds"}
    if fuller:
        yield change(fuller, "full_rounds")
    if full:
        yield change(full, "as_sure")


def _moulds(plan: Plan) -> Iterator[MouldChange]:
    """One more of the mould that is taken longest, where it is filled more than once."""
    moulds = {
        line.mould.mould_id: line.mould for line in plan.problem.lines if line.mould.name and not line.mould.hands
    }
    stays: dict[str, dict[int, list[Task]]] = {}
    for task in plan.tasks:
        if task.round is not None and task.kind in ("pour", "clean", "firm"):
            r = plan.rounds[task.round]
            stays.setdefault(plan.problem.lines[r.line].mould.mould_id, {}).setdefault(r.stay, []).append(task)
    taken = {
        mould: sum(max(t.end_s for t in here) - min(t.start_s for t in here) for here in by.values())
        / moulds[mould].owned
        for mould, by in stays.items()
        if mould in moulds and len(by) > 1
    }
    if taken:
        longest = moulds[max(taken, key=lambda mould: taken[mould])]
        yield MouldChange(longest.mould_id, longest.name, longest.owned + 1)


def _vessels(plan: Plan) -> Iterator[VesselChange]:
    """One more of the vessels that several melts are in longest; they are shared out between the two."""
    held: dict[str, dict[str, float]] = {}
    for cook in plan.cooks:
        melt = plan.problem.lines[cook.rounds[0].line].melt
        mine = [task for task in plan.tasks if task.of == "cook" and task.number == cook.number]
        lasts = max(t.end_s for t in mine if t.kind in IN_VESSEL) - min(t.start_s for t in mine)
        by = held.setdefault(cook.way.vessel_id, {})
        by[melt] = by.get(melt, 0.0) + lasts
    shared = [(vessel, by) for vessel, by in held.items() if len(by) > 1]
    for vessel, by in sorted(shared, key=lambda row: -sum(row[1].values()))[:MOST_VESSELS]:
        halves: tuple[dict[str, float], dict[str, float]] = ({}, {})
        for melt, lasts in sorted(by.items(), key=lambda row: -row[1]):
            min(halves, key=lambda half: sum(half.values()))[melt] = lasts
        yield VesselChange(vessel, tuple(halves[1]))


def _divides(plan: Plan) -> Iterator[DivideChange]:
    for family, ways in plan.problem.otherwise.items():
        yield DivideChange(family, any(way.out_of and family_of(way.melt).key == family for way in ways.values()))


def _people(plan: Plan) -> Iterator[PeopleChange]:
    people = len(plan.problem.people)
    if people < MOST_HANDS and hands_s(plan) >= BUSY_FRAC * people * plan.lasts_s:
        yield PeopleChange(people + 1)


def _wishes(plan: Plan) -> Iterator[WishChange]:
    """The first few of those that are kept."""
    of = plan.chosen.outcome
    left_out = {*of.gone, *of.unfound, *(n for some in of.clashes for n in some)}
    kept = (n for n in range(len(plan.problem.wishes)) if n not in left_out)
    yield from (WishChange(n) for n in itertools.islice(kept, MOST_LIFTED))
