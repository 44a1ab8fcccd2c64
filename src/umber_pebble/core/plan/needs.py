"""What must be at hand before an order's day begins: to buy, to mix, and to put ready."""

import itertools
import math
from collections.abc import Iterator
from dataclasses import dataclass

from umber_pebble.core.pieces.bought import Bought, Sort, Status
from umber_pebble.core.pieces.finishes import FinishSort, pots
from umber_pebble.core.pieces.measures import Measured, measured
from umber_pebble.core.pieces.transfers import FilmCut
from umber_pebble.core.plan.compile import Plan
from umber_pebble.core.plan.cooks import Round
from umber_pebble.core.plan.fillings import ByHand, by_hand_amounts
from umber_pebble.core.plan.pastes import PasteNeed, pastes_of
from umber_pebble.core.plan.problem import Named


@dataclass(frozen=True, slots=True)
class MeltNeed:
    """So much of a material in a colour, its reserve with it [kg], and that by the cup, where it is measured so; colour: as hex, None as it
    comes."""

    material: str
    name: str
    colour: str | None
    kg: float
    measured: Measured | None


@dataclass(frozen=True, slots=True)
class MouldNeed:
    """So many of a mould at once, filled so often in all [count]."""

    name: str
    count: int
    fillings: int


@dataclass(frozen=True, slots=True)
class StickNeed:
    """So many sticks for a part [count]."""

    named: Named
    count: int


@dataclass(frozen=True, slots=True)
class BoughtNeed:
    """Something bought: how many of it [count], how long each is cut [m], 0: as it comes; whether it may be eaten."""

    name: str
    sort: Sort
    count: int
    long_m: float
    status: Status


@dataclass(frozen=True, slots=True)
class FinishNeed:
    """What a finish takes over an order: dust [kg], carrier or lacquer [m3], out of so many pots or cans [count]; whether it may be eaten."""

    name: str
    sort: FinishSort
    dust_kg: float
    liquid_m3: float
    pots: int
    status: Status


@dataclass(frozen=True, slots=True)
class FilmNeed:
    """So many pieces of a film [count], each so cut, and how often all of them are laid on together [count]."""

    name: str
    film: FilmCut
    count: int
    uses: int


@dataclass(frozen=True, slots=True)
class Needs:
    """All of it; vessels and heaters by their ids."""

    melts: tuple[MeltNeed, ...]
    by_hand: tuple[ByHand, ...]
    pastes: tuple[PasteNeed, ...]
    sticks: tuple[StickNeed, ...]
    bought: tuple[BoughtNeed, ...]
    finishes: tuple[FinishNeed, ...]
    films: tuple[FilmNeed, ...]
    moulds: tuple[MouldNeed, ...]
    vessels: tuple[str, ...]
    heaters: tuple[str, ...]


def needs_of(plan: Plan) -> Needs:
    """What a plan needs at hand. Source: definition"""
    ways = plan.problem.ways
    sticks: dict[Named, int] = {}
    for r in plan.rounds:
        line = plan.problem.lines[r.line]
        if any(on.what == "stick" for of in line.works for on in of.on):
            sticks[line.named] = sticks.get(line.named, 0) + r.casts
    return Needs(
        tuple(
            MeltNeed(way.melt.key, way.melt.name, way.colour, kg, measured(way.melt.raw or way.melt.name, kg))
            for key, way in ways.items()
            if (kg := plan.fresh_kg(key)) > 0
        ),
        tuple(by_hand_amounts(plan.problem, plan.cooks)),
        tuple(pastes_of(plan.problem)),
        tuple(StickNeed(named, count) for named, count in sticks.items()),
        tuple(bought_for(plan)),
        tuple(finishes_for(plan)),
        tuple(_films(plan)),
        tuple(_moulds(plan)),
        tuple(dict.fromkeys(way.vessel_id for way in ways.values())),
        tuple(dict.fromkeys(cook.way.by.heater_id for cook in plan.cooks)),
    )


def bought_for(plan: Plan) -> list[BoughtNeed]:
    """All that is bought for an order, alike things together, spares with them. Source: definition"""
    counts: dict[tuple[str, Bought], int] = {}
    taken = [(on, r.casts) for r in plan.rounds for on in plan.problem.lines[r.line].inclusions]
    taken += [(on, step.count) for step in plan.problem.by_hand for on in step.items]
    for on, times in taken:
        if on.bought is not None:
            key = on.name, on.bought
            counts[key] = counts.get(key, 0) + times * on.bought.count
    return [BoughtNeed(name, of.sort, count, of.long_m, of.status) for (name, of), count in counts.items()]


def finishes_for(plan: Plan) -> list[FinishNeed]:
    """Dust, paint and lacquer for an order, alike ones together, rounded up to what their pots hold. Source: from-memory"""
    totals: dict[tuple[str, FinishSort, Status], tuple[float, float]] = {}
    for step in plan.problem.by_hand:
        for on in step.items:
            if on.finish is not None:
                key = on.name, on.finish.of.sort, on.finish.of.status
                dust, liquid = totals.get(key, (0.0, 0.0))
                each = on.finish.coat
                totals[key] = dust + step.count * each.dust_kg, liquid + step.count * each.liquid_m3
    return [
        FinishNeed(name, sort, dust, liquid, pots(sort, dust, liquid), status)
        for (name, sort, status), (dust, liquid) in totals.items()
    ]


def _films(plan: Plan) -> Iterator[FilmNeed]:
    """As many as are cut, one for all of a sheet; of what is used again as many as lie on castings at once."""
    on: dict[tuple[str, FilmCut], list[Round]] = {}
    sheets = set[tuple[str, int, str]]()
    for r in plan.rounds:
        line = plan.problem.lines[r.line]
        for hand in line.inclusions:
            sheet = line.mould.mould_id, r.stay, hand.name
            if hand.film is not None and not (line.mould.shares and sheet in sheets):
                on.setdefault((hand.name, hand.film), []).append(r)
            sheets.add(sheet)
    for (name, film), rounds in on.items():
        each = {r.number: math.ceil(r.casts / film.of.over) for r in rounds}
        uses = sum(each.values())
        yield FilmNeed(name, film, _most_at_once(plan, each) if film.of.again else uses, uses)


def _most_at_once(plan: Plan, each: dict[int, int]) -> int:
    """From when its casting is poured until it leaves its mould."""
    first = {t.round: t.start_s for t in plan.tasks if t.kind == "pour"}
    off = {t.round: t.end_s for t in plan.tasks if t.kind in ("unmould", "bend")}
    ends = {n: off.get(n, math.inf) for n in each}
    return max(sum(each[m] for m in each if first[m] <= first[n] < ends[m]) for n in each)


def _moulds(plan: Plan) -> list[MouldNeed]:
    names = {line.mould.mould_id: line.mould.name for line in plan.problem.lines if line.mould.name}
    day, out = plan.day.day, []
    for mould, name in names.items():
        stays = [stay for stay in day.stays if stay.of == mould]
        marks: list[tuple[int, int]] = []
        for stay in stays:
            ends = plan.table.edge_s(day, stay.then, stay.then_edge) + stay.after_s
            marks += [(plan.table.edge_s(day, stay.first, stay.first_edge), stay.amount), (ends, -stay.amount)]
        most = max(itertools.accumulate(amount for _, amount in sorted(marks)), default=0)
        out.append(MouldNeed(name, most, len(stays)))
    return out
