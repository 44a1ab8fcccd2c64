"""The plan at a glance: how many castings and cooks, what to weigh out, when to start, and what there is to say."""

from dataclasses import dataclass

from umber_pebble.core.explained import Explained, explained, given
from umber_pebble.core.families.family import Rows
from umber_pebble.core.families.known import family_of
from umber_pebble.core.plan.checks import remarks_of
from umber_pebble.core.plan.compile import Plan
from umber_pebble.core.plan.cooks import PotCook, Round
from umber_pebble.core.plan.fares import fares_of
from umber_pebble.core.plan.fillings import ByHand, by_hand_amounts
from umber_pebble.core.plan.pastes import PasteNeed, pastes_of
from umber_pebble.core.plan.problem import Named, RoundLimit
from umber_pebble.core.plan.remarks import Remark
from umber_pebble.core.plan.spares import chance_enough_frac
from umber_pebble.core.spread import Spread


@dataclass(frozen=True, slots=True)
class Castings:
    """A part that leaves its mould: how many are wanted and cast, in how many rounds of at most how many, limited by what."""

    named: Named
    quantity: int
    casts: Explained
    rounds: int
    at_once: int
    limited_by: RoundLimit


@dataclass(frozen=True, slots=True)
class MeltRow:
    """A melt of a plan: its key and material, which words it has, its colour as hex, its name, in how many cooks, and
    what to weigh out of it over all of them [kg]; vessel_id: in which its fullest one is made; divided_off: what comes out of another
    melt's vessel for it, None: nothing [kg]."""

    melt: str
    material: str
    wording: Rows
    colour: str | None
    name: str
    cooks: int
    vessel_id: str
    fresh: Explained
    divided_off: Explained | None


@dataclass(frozen=True, slots=True)
class Tightest:
    """The pour whose window leaves least over: of which cook, into what, how long it takes, how long the window stays open, at worst
    and likely [s]."""

    cook: int
    named: Named
    takes_s: float
    open_s: Spread


@dataclass(frozen=True, slots=True)
class WishesKept:
    """What came of wishes, by their numbers in the order: of what is not made any more, sets that clash, those for which no timetable
    was found, those that make it late; and what those that are kept cost: so much longer, begun so much sooner, so many melts more
    [s, s, count]."""

    gone: tuple[int, ...]
    clashes: tuple[tuple[int, ...], ...]
    unfound: tuple[int, ...]
    late: tuple[int, ...]
    longer_s: float
    sooner_s: float
    melts: int


@dataclass(frozen=True, slots=True)
class Summary:
    """A compiled order at a glance; start from now, lasts: the whole timetable, hands: for how long they are busy in it [s];
    spare: so much before it is due it ends, and on how many days it is then ready in time [s, frac];
    sure: how sure each of its parts is enough [frac]; wishes: what came of them, None where there are none."""

    quantity: int
    casts: Explained
    cook_count: Explained
    start: Explained
    lasts_s: float
    hands_s: float
    spare_s: float
    in_time_frac: float
    sure_frac: float
    tightest: Tightest | None
    castings: tuple[Castings, ...]
    melts: tuple[MeltRow, ...]
    by_hand: tuple[ByHand, ...]
    pastes: tuple[PasteNeed, ...]
    warnings: tuple[Remark, ...]
    wishes: WishesKept | None


def summary_of(plan: Plan) -> Summary:
    """A plan at a glance. Source: definition"""
    problem, rounds, cooks = plan.problem, plan.rounds, plan.cooks
    off = [line for line in problem.lines if line.cast_off]
    return Summary(
        quantity=sum(line.quantity for line in off)
        + sum(step.count for step in problem.by_hand if step.by_itself),
        casts=explained(
            sum(r.casts for r in rounds if problem.lines[r.line].cast_off),
            "count",
            "castings of all lines, spares with them",
            *(given(line.name, line.quantity, "count") for line in off),
            sources=("beta-binomial",),
        ),
        cook_count=explained(
            len(cooks),
            "count",
            "each melt is made once for all that is poured of it, and warmed again for each pour, as long as its vessel holds it and it keeps",
            given("rounds", len(rounds), "count"),
            given("times on the heat", len(plan.heats), "count"),
            sources=("definition",),
        ),
        start=explained(
            plan.start_s,
            "s",
            "due time less the whole timetable, waits at their high end, and less what hands are behind on all but the slowest days",
            given("due in", problem.due_s, "s"),
            given("timetable", plan.lasts_s, "s"),
            given("to spare", plan.fares.spare_s, "s"),
            given("days on which it is ready in time", plan.fares.in_time_frac, "frac"),
            given("cooks", len(cooks), "count"),
            sources=("definition", "assumption"),
        ),
        lasts_s=plan.lasts_s,
        hands_s=hands_s(plan),
        spare_s=plan.fares.spare_s,
        in_time_frac=plan.fares.in_time_frac,
        sure_frac=sure_frac(plan),
        tightest=_tightest(plan),
        castings=tuple(_castings(plan, i) for i, line in enumerate(problem.lines) if line.cast_off),
        melts=tuple(melt_row(key, plan.cooks_of(key)) for key in problem.ways),
        by_hand=tuple(by_hand_amounts(problem, cooks)),
        pastes=tuple(pastes_of(problem)),
        warnings=tuple(remarks_of(plan)),
        wishes=_wishes(plan),
    )


def _wishes(plan: Plan) -> WishesKept | None:
    outcome, free = plan.chosen.outcome, plan.chosen.unwished
    if free is None or not plan.problem.wishes:
        return None
    return WishesKept(
        outcome.gone,
        outcome.clashes,
        outcome.unfound,
        outcome.late,
        plan.lasts_s - free.of.ready_s(free.table),
        fares_of(free).start_s - plan.start_s,
        plan.table.batches - free.table.batches,
    )


def hands_s(plan: Plan) -> float:
    """How long hands are busy in a plan [s]. Source: definition"""
    return sum(t.end_s - t.start_s for t in plan.tasks if t.hands)


def sure_frac(plan: Plan) -> float:
    """The least chance that a part of the order is enough with what is cast of it; 1 where nothing is [frac]. Source: beta-binomial"""
    chances = (
        chance_enough_frac(casts, line.quantity, line.break_rate)
        for casts, line in zip(plan.casts, plan.problem.lines, strict=True)
        if line.cast_off
    )
    return min(chances, default=1.0)


def _tightest(plan: Plan) -> Tightest | None:
    def takes_s(r: Round) -> float:
        return r.casts * plan.problem.pour_each_s(plan.problem.lines[r.line])

    def open_s(r: Round) -> Spread:
        return plan.cooks[r.cook].pours[r.line][1].width

    r = min(plan.rounds, key=lambda r: open_s(r).low / max(takes_s(r), 1.0), default=None)
    return None if r is None else Tightest(r.cook, plan.problem.lines[r.line].named, takes_s(r), open_s(r))


def _castings(plan: Plan, index: int) -> Castings:
    line, confidence, casts, size = (
        plan.problem.lines[index],
        plan.problem.confidence_frac,
        plan.casts[index],
        plan.sizes[index],
    )
    rate = line.break_rate
    seen = bool(rate.good + rate.broken)
    number = explained(
        casts,
        "count",
        "the fewest castings of which the quantity is usable with the stated confidence (beta-binomial)",
        given("quantity", line.quantity, "count"),
        given("confidence", confidence, "frac"),
        given("break rate", rate.mean_frac, "frac"),
        given("seen: usable", rate.good, "count"),
        given("seen: unusable", rate.broken, "count"),
        given("chance with this many", chance_enough_frac(casts, line.quantity, rate), "frac"),
        sources=("beta-binomial", "calibration" if seen else "assumption"),
        limited_by="" if seen else "no outcomes of this mould yet: prior 1 in 20",
    )
    named = Named(line.named.piece, line.named.part)
    rounds = sum(r.line == index for r in plan.rounds)
    return Castings(named, line.quantity, number, rounds, size.casts, size.limited_by)


def melt_row(key: str, cooks: list[PotCook]) -> MeltRow:
    """A melt, and what to weigh out of it [kg].

    Args:
        key: of the melt
        cooks: its own, in order
    Source: jeffreys-1930, common-practice
    """
    way = max(cooks, key=lambda c: c.charge_kg).way
    fresh = explained(
        sum(c.fresh_kg for c in cooks),
        "kg",
        "to weigh out over all cooks; each goes on with what the one before left",
        given("cooks", len(cooks), "count"),
        given("finished", sum(c.finished_kg for c in cooks), "kg"),
        given("left at the end", cooks[-1].left_kg, "kg"),
        sources=("jeffreys-1930", "common-practice"),
    )
    portions = [c for c in cooks if c.portion_degc is not None]
    divided = explained(
        sum(c.charge_kg for c in portions),
        "kg",
        "what is poured of it, its reserve and what stays in its vessel",
        given("castings", sum(c.casts for c in portions), "count"),
        sources=("common-practice",),
    )
    return MeltRow(
        key,
        way.melt.key,
        family_of(way.melt).rows,
        way.colour,
        way.melt.name,
        len(cooks),
        way.vessel_id,
        fresh,
        divided if portions else None,
    )
