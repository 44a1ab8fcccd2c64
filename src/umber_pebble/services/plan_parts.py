"""The plan of an order as it stands in the editor, in parts: at a glance first, the rest each when its view asks."""

from collections import deque
from dataclasses import dataclass, field
from datetime import datetime

from pydantic import Field

from umber_pebble.core.errors import OutOfRange
from umber_pebble.core.plan.cards import Card, pour_cards
from umber_pebble.core.plan.compile import Plan, compile_plan
from umber_pebble.core.plan.melted import Melted, melted
from umber_pebble.core.plan.problem import Named
from umber_pebble.core.plan.summary import Summary, summary_of
from umber_pebble.core.plan.timetable import Task
from umber_pebble.core.plan.window_rows import WindowRows, window_rows
from umber_pebble.services.colouring import MeltDose, plan_doses
from umber_pebble.services.doc_base import Doc, Name, Utc
from umber_pebble.services.documents import Order
from umber_pebble.services.gathering import snapshot_of
from umber_pebble.services.snapshot import Snapshot, plan_input
from umber_pebble.services.workshop import Workshop

KEPT_PLANS = 4


class PlanRequest(Doc):
    """An order, and when its plan was made at a glance: its parts are of that same plan."""

    order: Order
    planned_at: Utc


class MeltRequest(PlanRequest):
    """And one of its melts, by its key."""

    melt: Name = Field(max_length=80)


@dataclass(frozen=True, slots=True)
class Glance:
    """A plan at a glance; its times count from planned_at."""

    planned_at: datetime
    summary: Summary


@dataclass(frozen=True, slots=True)
class MeltPart:
    """A melt as it is made, and what colours it."""

    melted: Melted
    dose: MeltDose | None


@dataclass(frozen=True, slots=True)
class TimetablePart:
    """What is done when, from planned_at [s]; how many cooks there are, and what hands make of no melt."""

    planned_at: datetime
    tasks: tuple[Task, ...]
    cooks: int
    steps: tuple[Named, ...]


@dataclass(frozen=True, slots=True)
class _Compiled:
    """A plan, and what it was compiled from."""

    snapshot: Snapshot
    at: datetime
    plan: Plan


@dataclass(frozen=True, slots=True)
class PlanParts:
    """Answers for the plan's screen. The last plans are kept, so that their parts cost no second compiling; a piece or a
    calibration that has changed since makes it another plan."""

    workshop: Workshop
    _kept: deque[_Compiled] = field(default_factory=lambda: deque(maxlen=KEPT_PLANS), init=False)

    def compiled(self, order: Order, at: datetime) -> Plan:
        """An order's plan as of a time. Raises: NotFound, and whatever the engine refuses."""
        with self.workshop.session() as session:
            snapshot = snapshot_of(session, order)
        for known in tuple(self._kept):
            if known.at == at and known.snapshot == snapshot:
                return known.plan
        plan = compile_plan(plan_input(snapshot, at))
        self._kept.append(_Compiled(snapshot, at, plan))
        return plan

    def glance(self, order: Order) -> Glance:
        """An order compiled, at a glance.

        Raises: NotFound, and whatever the engine refuses.
        """
        now = self.workshop.clock.now()
        return Glance(now, summary_of(self.compiled(order, now)))

    def melt(self, asked: MeltRequest) -> MeltPart:
        """One of its melts.

        Raises: OutOfRange: it has no such melt. And as glance.
        """
        plan = self.compiled(asked.order, asked.planned_at)
        if asked.melt not in plan.problem.ways:
            raise OutOfRange("this plan has no such melt", path="melt", got=asked.melt)
        with self.workshop.session() as session:
            doses = plan_doses(session, plan, [asked.melt])
        return MeltPart(melted(plan, asked.melt), next(iter(doses), None))

    def windows(self, asked: PlanRequest) -> WindowRows:
        """Its windows. Raises: as glance."""
        return window_rows(self.compiled(asked.order, asked.planned_at))

    def cards(self, asked: PlanRequest) -> list[Card]:
        """Its pour cards. Raises: as glance."""
        plan = self.compiled(asked.order, asked.planned_at)
        return pour_cards(plan.problem, plan.cooks, plan.windows)

    def timetable(self, asked: PlanRequest) -> TimetablePart:
        """What is done when. Raises: as glance."""
        plan = self.compiled(asked.order, asked.planned_at)
        steps = tuple(step.named for step in plan.problem.by_hand)
        return TimetablePart(asked.planned_at, plan.tasks, len(plan.cooks), steps)
