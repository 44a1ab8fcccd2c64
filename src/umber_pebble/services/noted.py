"""An event as it lies in the log, and as a run is told it."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime
from typing import Any

from umber_pebble.core.bench.events import Cancels
from umber_pebble.core.bench.state import Aside, Event
from umber_pebble.core.errors import CoreError
from umber_pebble.services.new_event import NewEvent
from umber_pebble.services.told import EventBody, body_of, read
from umber_pebble.store.models import EventRow, Run


@dataclass(frozen=True, slots=True)
class Noted:
    """A row of the log, read once; told: what it tells the run, in seconds since it started, or why it cannot be told."""

    id: str
    run_id: str
    seq: int
    kind: str
    actor: str
    device: str
    happened_at: datetime
    received_at: datetime
    schema_version: int
    payload: dict[str, Any]
    told: Event | Aside

    @property
    def tells(self) -> EventBody | None:
        """What it tells, as it is sent; None where this version cannot read it."""
        return body_of(self.told.body) if isinstance(self.told, Event) else None


def noted(run: Run, row: EventRow) -> Noted:
    """A row as it lies in the database."""
    at_s = (row.happened_at - run.started_at).total_seconds()
    told: Event | Aside
    try:
        told = Event(row.id, at_s, row.actor, read(row.kind, row.payload))
    except CoreError as why:
        told = Aside(row.id, row.kind, why)
    return Noted(
        row.id,
        row.run_id,
        row.seq,
        row.kind,
        row.actor,
        row.device,
        row.happened_at,
        row.received_at,
        row.schema_version,
        row.payload,
        told,
    )


def as_row(new: NewEvent, run_id: str, seq: int, happened: datetime, received: datetime) -> EventRow:
    """A new event as a row."""
    return EventRow(
        id=new.id,
        run_id=run_id,
        seq=seq,
        kind=new.kind,
        actor=new.actor,
        device=new.device,
        happened_at=happened,
        received_at=received,
        schema_version=new.schema,
        payload=new.payload,
    )


def taken_back(events: Sequence[Noted]) -> set[str]:
    """The ids of what was taken back."""
    return {e.told.body.id for e in events if isinstance(e.told, Event) and isinstance(e.told.body, Cancels)}
