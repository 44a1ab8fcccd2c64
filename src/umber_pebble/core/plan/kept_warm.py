"""Which melts of an order are kept warm between their pours: those that it suits, as far as there is room."""

from collections import defaultdict
from collections.abc import Iterator
from dataclasses import dataclass, replace
from typing import Literal

from umber_pebble.core.plan.charge import holds_kg
from umber_pebble.core.plan.cooks import charge_of, pour_of
from umber_pebble.core.plan.problem import MeltWay, Named, PlanInput, PlanLine
from umber_pebble.core.plan.remarks import NotKept

SOON_ENOUGH_S = 60.0
"""So much later at most may be poured what is kept warm, than what stands and cools [s]. Source: assumption"""


def kept_warm(plan: PlanInput) -> PlanInput:
    """The same order, with the vessels that are kept warm where they are kept.

    Args:
        plan: an order whose ways say what would be kept, and where
    Raises: OutOfRange, MouldTooWeak: as a melt and its pour.
    Source: definition
    """
    taken, ways = defaultdict[str, set[str]](set), dict(plan.ways)
    for melt in sorted(plan.ways, key=lambda m: -_poured_kg(plan, m)):
        way = plan.ways[melt]
        if way.keeper is None:
            continue
        here = taken[way.keeper.id] | {way.vessel_id}
        if len(here) <= way.keeper.takes and _looked_at(plan, melt).why is None:
            taken[way.keeper.id] = here
            ways[melt] = _kept(way)
    return replace(plan, ways=ways)


def not_kept(plan: PlanInput) -> Iterator[NotKept]:
    """What was to be kept warm and is not, and why. Source: definition"""
    for melt, way in plan.ways.items():
        if way.keeper is not None and not way.kept:
            of = _looked_at(plan, melt)
            yield NotKept(of.named, way.keeper.id, of.why or "full", of.settles_degc, of.most_degc)


@dataclass(frozen=True, slots=True)
class _Kept:
    """How a melt would be kept: what is poured of it, or the first that does not go; how warm it settles and may be at most [degC]; why
    it is not kept, None: it suits."""

    named: Named
    settles_degc: float
    most_degc: float
    why: Literal["warm", "cool"] | None = None


def _lines(plan: PlanInput, melt: str) -> list[PlanLine]:
    return [line for line in plan.lines if line.melt == melt]


def _poured_kg(plan: PlanInput, melt: str) -> float:
    return sum(line.cast.poured.value.likely * line.quantity for line in _lines(plan, melt))


def _kept(way: MeltWay) -> MeltWay:
    assert way.keeper is not None
    return replace(way, stand_id=way.keeper.id)


def _looked_at(plan: PlanInput, melt: str) -> _Kept:
    """Whether all of it may be poured out of there as soon as otherwise, and longer, and it gets no warmer than it may."""
    way, lines = plan.ways[melt], _lines(plan, melt)
    charge, _ = charge_of(plan, way, _poured_kg(plan, melt), lines)
    charge = min(charge, holds_kg(way, way.by.wet(way.melt, charge)))
    rows = [_of_line(plan, way, line, charge) for line in lines]
    return next((row for row in rows if row.why), rows[0])


def _of_line(plan: PlanInput, way: MeltWay, line: PlanLine, charge_kg: float) -> _Kept:
    _, stands, *_ = pour_of(plan, way, charge_kg, [line])
    _, window, *_ = pour_of(plan, _kept(way), charge_kg, [line])
    settles, most = float(window.likely_degc[-1]), way.by.kept_to_degc(way.melt)
    if window.opens.likely > stands.opens.likely + SOON_ENOUGH_S:
        return _Kept(line.named, settles, stands.open_degc.likely, "warm")
    if settles > most:
        return _Kept(line.named, settles, most, "warm")
    sooner = window.closes.likely <= stands.closes.likely
    return _Kept(line.named, settles, most, "cool" if sooner else None)
