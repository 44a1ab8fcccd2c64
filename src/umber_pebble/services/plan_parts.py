"""The plan of an order as it stands in the editor, in parts: at a glance first, the rest each when its view asks."""

from collections import deque
from dataclasses import dataclass, field
from datetime import datetime, timedelta
from functools import cached_property

from pydantic import Field

from umber_pebble.core.errors import OutOfRange
from umber_pebble.core.plan.alternatives import Alternative, alternatives_of
from umber_pebble.core.plan.cards import Card, pour_cards
from umber_pebble.core.plan.compile import Plan, compile_plan
from umber_pebble.core.plan.day.search import improved
from umber_pebble.core.plan.lanes import Lane, lanes_of
from umber_pebble.core.plan.leftovers import Taker, takers
from umber_pebble.core.plan.melted import Melted, melted
from umber_pebble.core.plan.summary import Summary, summary_of
from umber_pebble.core.plan.window_rows import WindowRows, window_rows
from umber_pebble.services.colouring import MeltDose, plan_doses
from umber_pebble.services.day_sheets import AtHand, at_hand
from umber_pebble.services.doc_base import Doc, Name, Utc
from umber_pebble.services.documents import Order
from umber_pebble.services.gathering import snapshot_of
from umber_pebble.services.kept_timetable import KeptTimetable
from umber_pebble.services.shares import OfOrder, Ordered, ordered, orders_of
from umber_pebble.services.snapshot import Snapshot, plan_input
from umber_pebble.services.workshop import Workshop

KEPT_PLANS = 4
AS_GOOD = timedelta(minutes=1)
"""Nothing is planned to the minute."""
SLICES = (0.2,) * 4
"""How long one answer searches, by the solver's own clock: a few seconds here."""


class PlanRequest(Doc):
    """An order, and when its plan was made at a glance: its parts are of that same plan."""

    order: Order
    planned_at: Utc


class MeltRequest(PlanRequest):
    """And one of its melts, by its key."""

    melt: Name = Field(max_length=80)


@dataclass(frozen=True, slots=True)
class Glance:
    """A plan at a glance; its times count from planned_at. lines: how many of what; orders: whose
    that is, nothing where it is one order."""

    planned_at: datetime
    summary: Summary
    lines: tuple[Ordered, ...]
    orders: tuple[OfOrder, ...]


@dataclass(frozen=True, slots=True)
class MeltPart:
    """A melt as it is made, what colours it, and what may take what is left of it."""

    melted: Melted
    dose: MeltDose | None
    takers: list[Taker]


@dataclass(frozen=True, slots=True)
class TimetablePart:
    """What is done when, in lanes; its times count from planned_at; pieces: by their ids, as things name them by their place."""

    planned_at: datetime
    pieces: tuple[str, ...]
    lanes: tuple[Lane, ...]


@dataclass(frozen=True, slots=True)
class Shorter:
    """What a short search found: a better timetable, None where it found none; how much sooner it ends [s]; by how much any other may
    end sooner at most [frac]; best: none is better, of the heats that were looked at."""

    timetable: KeptTimetable | None
    sooner_s: float
    gap_frac: float
    best: bool


@dataclass(frozen=True)
class _Compiled:
    """A plan, and what it was compiled from."""

    snapshot: Snapshot
    at: datetime
    plan: Plan

    @cached_property
    def others(self) -> tuple[Alternative, ...]:
        """What else it could do, as planned first: it takes a while, and is the same each time."""
        return tuple(alternatives_of(self.plan))


@dataclass(frozen=True, slots=True)
class PlanParts:
    """Answers for the plan's screen. The last plans are kept, so that their parts cost no second compiling; a piece or a
    calibration that has changed since makes it another plan."""

    workshop: Workshop
    _kept: deque[_Compiled] = field(default_factory=lambda: deque(maxlen=KEPT_PLANS), init=False)

    def compiled(self, order: Order, at: datetime) -> Plan:
        """An order's plan as of a time. Raises: NotFound, and whatever the engine refuses."""
        return self._compiled(order, at).plan

    def _compiled(self, order: Order, at: datetime, as_good: timedelta = timedelta()) -> _Compiled:
        """As of a time, or of one so little before."""
        with self.workshop.session() as session:
            snapshot = snapshot_of(session, order)
        for known in tuple(self._kept):
            if timedelta() <= at - known.at <= as_good and known.snapshot == snapshot:
                return known
        new = _Compiled(snapshot, at, compile_plan(plan_input(snapshot, at)))
        self._kept.append(new)
        return new

    def glance(self, order: Order) -> Glance:
        """An order compiled, at a glance; one that was compiled a moment ago is as good.

        Raises: NotFound, and whatever the engine refuses.
        """
        of = self._compiled(order, self.workshop.clock.now(), AS_GOOD)
        return Glance(of.at, summary_of(of.plan), ordered(of.snapshot), orders_of(of.snapshot))

    def melt(self, asked: MeltRequest) -> MeltPart:
        """One of its melts.

        Raises: OutOfRange: it has no such melt. And as glance.
        """
        plan = self.compiled(asked.order, asked.planned_at)
        if asked.melt not in plan.problem.ways:
            raise OutOfRange("this plan has no such melt", path="melt", got=asked.melt)
        with self.workshop.session() as session:
            doses = plan_doses(session, plan, [asked.melt])
        return MeltPart(melted(plan, asked.melt), next(iter(doses), None), takers(plan, asked.melt))

    def windows(self, asked: PlanRequest) -> WindowRows:
        """Its windows. Raises: as glance."""
        return window_rows(self.compiled(asked.order, asked.planned_at))

    def cards(self, asked: PlanRequest) -> list[Card]:
        """Its pour cards. Raises: as glance."""
        plan = self.compiled(asked.order, asked.planned_at)
        return pour_cards(plan.problem, plan.cooks, plan.windows)

    def timetable(self, asked: PlanRequest) -> TimetablePart:
        """What is done when. Raises: as glance."""
        of = self._compiled(asked.order, asked.planned_at)
        pieces = tuple(line.piece_id for line in of.snapshot.order.lines)
        return TimetablePart(asked.planned_at, pieces, tuple(lanes_of(of.plan)))

    def at_hand(self, asked: PlanRequest) -> AtHand:
        """What must be at hand for it. Raises: as glance."""
        return at_hand(self.workshop, self.compiled(asked.order, asked.planned_at))

    def shorter(self, asked: PlanRequest) -> Shorter:
        """A timetable that is better than the one that is planned, as far as a short search finds one. Raises: as glance."""
        plan = self.compiled(asked.order, asked.planned_at)
        found = improved(plan.day.day, plan.table, SLICES, lambda _: True)
        ends, was = found.table.end_s(plan.day.day), plan.table.end_s(plan.day.day)
        return Shorter(
            KeptTimetable.of(found.table) if found.table != plan.table else None,
            float(was - ends),
            found.gap_frac(plan.day.day),
            found.best,
        )

    def alternatives(self, asked: PlanRequest) -> list[Alternative]:
        """What else the order could do, as planned first. Raises: as glance."""
        found = self._compiled(asked.order, asked.planned_at).others
        # the spares of another order that is made with it are that order's to change
        own = range(len(asked.order.lines))
        return [
            of
            for of in found
            if all(i in own for change in of.changes if change.code == "spares" for i in change.items)
            and all(change.wish < len(asked.order.wishes) for change in of.changes if change.code == "wish")
        ]
