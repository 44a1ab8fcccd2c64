"""The whole workshop as one document, out and in."""

from collections.abc import Callable
from datetime import datetime
from pathlib import Path
from typing import Annotated, Any, Generic, Literal, TypeVar

from pydantic import Field
from sqlalchemy import delete
from sqlalchemy.orm import Session

from umber_pebble.core.errors import CoreError, OutOfRange
from umber_pebble.services.docs import (
    Colour,
    Doc,
    Id,
    Kitchen,
    Mould,
    Name,
    Order,
    OwnMaterial,
    Palette,
    Piece,
    Probe,
    Units,
    Utc,
    Whole,
)
from umber_pebble.services.runs import RunService
from umber_pebble.services.snapshot import Snapshot
from umber_pebble.services.workshop import KITCHEN_ID, UNITS_ID, Workshop
from umber_pebble.store import queries
from umber_pebble.store.engine import backup
from umber_pebble.store.models import Calibration, EventRow, Revision, Run, Thing

FORMAT: Literal["umber-pebble-workshop"] = "umber-pebble-workshop"
VERSION: Literal[1] = 1

D = TypeVar("D", bound=Doc)
MOST_VERSIONS = 1_000_000


class RevisionFile(Doc, Generic[D]):
    """One version of a thing."""

    version: Whole = Field(ge=1, le=MOST_VERSIONS)
    made_at: Utc
    doc: D


class _ThingFile(Doc, Generic[D]):
    id: Id
    version: Whole = Field(ge=1, le=MOST_VERSIONS)
    gone: bool
    revisions: list[RevisionFile[D]] = Field(min_length=1)


class KitchenFile(_ThingFile[Kitchen]):
    kind: Literal["kitchen"]


class UnitsFile(_ThingFile[Units]):
    kind: Literal["units"]


class MouldFile(_ThingFile[Mould]):
    kind: Literal["mould"]


class PieceFile(_ThingFile[Piece]):
    kind: Literal["piece"]


class OrderFile(_ThingFile[Order]):
    kind: Literal["order"]


class ProbeFile(_ThingFile[Probe]):
    kind: Literal["probe"]


class MaterialFile(_ThingFile[OwnMaterial]):
    kind: Literal["material"]


class ColourFile(_ThingFile[Colour]):
    kind: Literal["colour"]


class PaletteFile(_ThingFile[Palette]):
    kind: Literal["palette"]


ThingFile = Annotated[
    KitchenFile
    | UnitsFile
    | MouldFile
    | PieceFile
    | OrderFile
    | ProbeFile
    | MaterialFile
    | ColourFile
    | PaletteFile,
    Field(discriminator="kind"),
]
MODELS: dict[str, Callable[..., Any]] = {
    "kitchen": KitchenFile, "units": UnitsFile, "mould": MouldFile, "piece": PieceFile, "order": OrderFile,
    "probe": ProbeFile, "material": MaterialFile, "colour": ColourFile, "palette": PaletteFile,
}  # fmt: skip


class EventFile(Doc):
    """One event of a run."""

    id: Id
    seq: Whole = Field(ge=1, le=MOST_VERSIONS)
    kind: str = Field(max_length=16)
    actor: Name
    device: Name
    happened_at: Utc
    received_at: Utc
    schema_version: Whole
    payload: dict[str, Any]


class DoseFile(Doc):
    """Of a colour, what goes into a kilogram of a melt."""

    name: str
    kg: float | None
    drops: float | None


class FrozenFile(Doc):
    """What a run was started with; doses by coloured melt."""

    engine: str
    snapshot: Snapshot
    groups: list[list[list[Whole]]]
    planned_at: Utc
    doses: dict[str, list[DoseFile]] = Field(default_factory=dict)


class RunFile(Doc):
    """A run with its whole log."""

    id: Id
    order_id: Id
    started_at: Utc
    ended_at: Utc | None
    frozen: FrozenFile
    events: list[EventFile] = Field(min_length=1)


class WorkshopFile(Doc):
    """A whole workshop. SI throughout, times in UTC; docs/files.md describes it."""

    format: Literal["umber-pebble-workshop"]
    version: Literal[1]
    exported_at: Utc
    things: list[ThingFile]
    runs: list[RunFile]


def export(workshop: Workshop) -> str:
    """The workshop as the text of one JSON document."""
    with workshop.session() as session:
        things = [_thing_file(session, thing) for thing in queries.all_things(session)]
        runs = [_run_file(session, run) for run in queries.runs(session)]
    file = WorkshopFile(format=FORMAT, version=VERSION, exported_at=workshop.clock.now(), things=things, runs=runs)
    return file.model_dump_json(indent=1)


def _thing_file(session: Session, thing: Thing) -> Any:
    revisions = [
        {"version": r.version, "made_at": r.made_at, "doc": r.doc} for r in queries.revisions(session, thing.id)
    ]
    row = {
        "id": thing.id,
        "kind": thing.kind,
        "version": thing.version,
        "gone": thing.gone,
        "revisions": revisions,
    }
    return MODELS[thing.kind].model_validate(row, strict=False)  # type: ignore[attr-defined]


def _run_file(session: Session, run: Run) -> RunFile:
    names = ("id", "seq", "kind", "actor", "device", "happened_at", "received_at", "schema_version", "payload")
    events = [{name: getattr(e, name) for name in names} for e in queries.events(session, run.id)]
    row = {
        "id": run.id, "order_id": run.order_id, "started_at": run.started_at, "ended_at": run.ended_at,
        "frozen": run.frozen, "events": events,
    }  # fmt: skip
    return RunFile.model_validate(row, strict=False)


def bring_in(workshop: Workshop, runs: RunService, file: WorkshopFile, stamp: str) -> Path:
    """Put a document in place of everything there is, after a backup; all of it or nothing. Returns the backup.

    Raises: OutOfRange: it does not hold together, with the path of the place. And what a thing's own rules refuse.
    """
    _holds_together(file)
    database = Path(str(workshop.engine.url.database))
    kept = backup(database, database.parent / "backups" / f"before-import-{stamp}.db")
    runs.forget()
    with workshop.writing() as session:
        for table in (Calibration, EventRow, Run, Revision, Thing):
            session.execute(delete(table))
        for thing in file.things:
            _put_thing(session, thing)
        session.flush()
        for i, thing in enumerate(file.things):
            _within(
                f"things.{i}",
                lambda thing=thing: workshop.check_current(session, thing.kind, thing.id, thing.gone),
            )
        for i, run in enumerate(file.runs):
            _within(f"runs.{i}", lambda run=run: _put_run(session, runs, run))
    runs.forget()
    workshop.broker.publish(topic="all")
    return kept


def _within(path: str, check: Callable[[], object]) -> None:
    try:
        check()
    except CoreError as error:
        error.path = f"{path}.{error.path}"
        raise


def _wrong(path: str, why: str, got: Any) -> OutOfRange:
    return OutOfRange(why, path=path, got=got)


def _holds_together(file: WorkshopFile) -> None:
    seen: set[str] = set()
    for i, thing in enumerate(file.things):
        if thing.id in seen:
            raise _wrong(f"things.{i}.id", "two things have the same id", thing.id)
        seen.add(thing.id)
        versions = [r.version for r in thing.revisions]
        if versions != list(range(1, thing.version + 1)):
            raise _wrong(
                f"things.{i}.revisions", "its revisions must be all from 1 to its version", str(versions[:20])
            )
    for wanted, kind in ((KITCHEN_ID, "kitchen"), (UNITS_ID, "units")):
        if [t.id for t in file.things if t.kind == kind and not t.gone] != [wanted]:
            raise _wrong("things", f"there must be one {kind}, with the id {wanted}", None)
    events: set[str] = set()
    for i, run in enumerate(file.runs):
        if run.id in seen:
            raise _wrong(f"runs.{i}.id", "this id is used twice", run.id)
        seen.add(run.id)
        for j, event in enumerate(run.events):
            if event.id in events or event.seq != j + 1:
                raise _wrong(f"runs.{i}.events.{j}", "events have ids of their own, and seq from 1 on", event.id)
            events.add(event.id)
    if sum(run.ended_at is None for run in file.runs) > 1:
        raise _wrong("runs", "only one run may be live", None)


def _put_thing(session: Session, thing: Any) -> None:
    session.add(Thing(id=thing.id, kind=thing.kind, version=thing.version, gone=thing.gone))
    session.flush()
    session.add_all(
        Revision(thing_id=thing.id, version=r.version, doc=r.doc.model_dump(mode="json"), made_at=r.made_at)
        for r in thing.revisions
    )


def _put_run(session: Session, runs: RunService, file: RunFile) -> None:
    if session.get(Thing, file.order_id) is None:
        raise _wrong("order_id", "there is no such order", file.order_id)
    run = Run(
        id=file.id, order_id=file.order_id, started_at=file.started_at, ended_at=file.ended_at,
        frozen=file.frozen.model_dump(mode="json"),
    )  # fmt: skip
    session.add(run)
    session.flush()
    rows = [EventRow(run_id=file.id, **event.model_dump()) for event in file.events]
    session.add_all(rows)
    ended = runs.teach(session, run, rows)
    if (ended is None) != (file.ended_at is None):
        raise _wrong("ended_at", "this does not agree with its events", _text(file.ended_at))


def _text(at: datetime | None) -> str | None:
    return None if at is None else at.isoformat()
