"""The whole workshop as one document, out and in."""

import json
from collections.abc import Callable
from contextlib import suppress
from datetime import datetime
from functools import partial
from pathlib import Path
from typing import Annotated, Any, Generic, Literal, TypeVar

from pydantic import Field, ValidationError
from sqlalchemy import delete
from sqlalchemy.orm import Session

from umber_pebble.core.bench.payload import bounded
from umber_pebble.core.errors import CoreError, OutOfRange
from umber_pebble.services.doc_base import STORED, Doc, Id, Name, Utc, Whole
from umber_pebble.services.documents import Colour, Kitchen, Mould, Order, OwnMaterial, Palette, Probe, Units
from umber_pebble.services.errors import Unreadable
from umber_pebble.services.frozen_file import FrozenFile
from umber_pebble.services.full_disk import words_for_a_full_disk
from umber_pebble.services.pictures import MOST_OF_A_RUN, PictureFile
from umber_pebble.services.pictures import kept as kept_pictures
from umber_pebble.services.pictures import rows as picture_rows
from umber_pebble.services.piece_docs import Piece
from umber_pebble.services.runs import RunService
from umber_pebble.services.workshop import KITCHEN_ID, UNITS_ID, Workshop
from umber_pebble.store import queries
from umber_pebble.store.backups import backup, made_now
from umber_pebble.store.models import Calibration, EventRow, Picture, Revision, Run, Thing

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
    "kitchen": KitchenFile,
    "units": UnitsFile,
    "mould": MouldFile,
    "piece": PieceFile,
    "order": OrderFile,
    "probe": ProbeFile,
    "material": MaterialFile,
    "colour": ColourFile,
    "palette": PaletteFile,
}


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
    payload: dict[str, Any] | str = Field(description="as text where it is deeper than an event says")


class RunFile(Doc):
    """A run with its whole log."""

    id: Id
    order_id: Id
    started_at: Utc
    ended_at: Utc | None
    frozen: FrozenFile
    events: list[EventFile] = Field(min_length=1)
    shown: dict[str, Any] | None = Field(default=None, description="what it showed when it ended")
    pictures: list[PictureFile] = Field(default_factory=list, max_length=MOST_OF_A_RUN)


class RawRevision(Doc):
    """One version of a thing, as it lies in the store."""

    version: Whole = Field(ge=1, le=MOST_VERSIONS)
    made_at: Utc
    doc: dict[str, Any]


RawId = Annotated[str, Field(min_length=1, max_length=200)]


class RawThing(Doc):
    """A thing that the version which wrote the file could not read, as it lay in the store, whatever its id."""

    id: RawId
    kind: str = Field(max_length=16)
    version: Whole = Field(ge=1, le=MOST_VERSIONS)
    gone: bool
    revisions: list[RawRevision]


class RawRun(Doc):
    """A run that it could not read."""

    id: RawId
    order_id: RawId
    started_at: Utc
    ended_at: Utc | None
    frozen: dict[str, Any]
    events: list[EventFile]
    shown: dict[str, Any] | None = None
    pictures: list[PictureFile] = Field(default_factory=list, max_length=MOST_OF_A_RUN)


class WorkshopFile(Doc):
    """A whole workshop. SI throughout, times in UTC; docs/files.md describes it."""

    format: Literal["umber-pebble-workshop"]
    version: Literal[1]
    exported_at: Utc
    things: list[ThingFile]
    runs: list[RunFile]
    unread_things: list[RawThing] = Field(default_factory=list)
    unread_runs: list[RawRun] = Field(default_factory=list)


def export(workshop: Workshop) -> str:
    """The workshop as the text of one JSON document. What cannot be read goes out as it is."""
    with workshop.session() as session:
        things = [
            _read_or_raw(_thing_row(session, of), MODELS[of.kind], RawThing) for of in queries.all_things(session)
        ]
        runs = [_read_or_raw(_run_row(session, run), RunFile, RawRun) for run in queries.runs(session)]
    file = WorkshopFile(
        format=FORMAT,
        version=VERSION,
        exported_at=workshop.clock.now(),
        things=[of for of in things if not isinstance(of, RawThing)],
        runs=[run for run in runs if isinstance(run, RunFile)],
        unread_things=[of for of in things if isinstance(of, RawThing)],
        unread_runs=[run for run in runs if isinstance(run, RawRun)],
    )
    return file.model_dump_json(indent=1)


def _read_or_raw(row: dict[str, Any], model: Any, raw: type[Doc]) -> Any:
    try:
        return model.model_validate(row, strict=False, context=STORED)
    except ValidationError:
        return raw.model_validate(row, strict=False, context=STORED)


def _thing_row(session: Session, thing: Thing) -> dict[str, Any]:
    revisions = [
        {"version": r.version, "made_at": r.made_at, "doc": r.doc} for r in queries.revisions(session, thing.id)
    ]
    return {
        "id": thing.id,
        "kind": thing.kind,
        "version": thing.version,
        "gone": thing.gone,
        "revisions": revisions,
    }


def _run_row(session: Session, run: Run) -> dict[str, Any]:
    names = ("id", "seq", "kind", "actor", "device", "happened_at", "received_at", "schema_version")
    events = [
        {name: getattr(e, name) for name in names} | {"payload": _payload(e.payload)}
        for e in queries.events(session, run.id)
    ]
    return {
        "id": run.id,
        "order_id": run.order_id,
        "started_at": run.started_at,
        "ended_at": run.ended_at,
        "frozen": run.frozen,
        "events": events,
        "shown": run.shown,
        "pictures": picture_rows(session, run.id),
    }


def _payload(payload: dict[str, Any]) -> dict[str, Any] | str:
    try:
        bounded(payload)
    except CoreError:
        return json.dumps(payload)
    return payload


def import_workshop(workshop: Workshop, runs: RunService, file: WorkshopFile) -> Path:
    """Put a document in place of everything there is, after a backup; all of it or nothing. Returns the backup.

    Raises: OutOfRange: it does not hold together, with the path of the place. And what a thing's own rules refuse.
    """
    _holds_together(file)
    database = Path(str(workshop.engine.url.database))
    with words_for_a_full_disk():
        kept = backup(database, made_now(database.parent / "backups", "before-import-"))
    runs.forget()
    with workshop.writing() as session:
        for table in (Calibration, EventRow, Picture, Run, Revision, Thing):
            session.execute(delete(table))
        for thing in [*file.things, *file.unread_things]:
            _put_thing(session, thing)
        session.flush()
        for i, thing in enumerate(file.things):
            # what needs something that cannot be read is let be, as that is
            with suppress(Unreadable):
                check = partial(workshop.check_current, session, thing.kind, thing.id, thing.gone)
                _within(f"things.{i}", check)
        for i, run in enumerate(file.runs):
            _within(f"runs.{i}", partial(_put_run, session, runs, run))
        for unread in file.unread_runs:
            _put_raw_run(session, unread)
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
    for i, thing in enumerate([*file.things, *file.unread_things]):
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
    events, pictures = set[str](), set[str]()
    runs: list[RunFile | RawRun] = [*file.runs, *file.unread_runs]
    for i, run in enumerate(runs):
        if run.id in seen:
            raise _wrong(f"runs.{i}.id", "this id is used twice", run.id)
        seen.add(run.id)
        for j, event in enumerate(run.events):
            if event.id in events or event.seq != j + 1:
                raise _wrong(f"runs.{i}.events.{j}", "events have ids of their own, and seq from 1 on", event.id)
            events.add(event.id)
        for j, picture in enumerate(run.pictures):
            if picture.id in pictures:
                raise _wrong(f"runs.{i}.pictures.{j}.id", "two pictures have the same id", picture.id)
            pictures.add(picture.id)
    if sum(run.ended_at is None for run in runs) > 1:
        raise _wrong("runs", "only one run may be live", None)


def _put_thing(session: Session, thing: Any) -> None:
    session.add(Thing(id=thing.id, kind=thing.kind, version=thing.version, gone=thing.gone))
    session.flush()
    session.add_all(
        Revision(
            thing_id=thing.id,
            version=r.version,
            doc=r.doc if isinstance(r.doc, dict) else r.doc.model_dump(mode="json"),
            made_at=r.made_at,
        )
        for r in thing.revisions
    )


def _events(run_id: str, events: list[EventFile]) -> list[EventRow]:
    return [EventRow(run_id=run_id, **(event.model_dump() | {"payload": _said(event)})) for event in events]


def _said(event: EventFile) -> dict[str, Any]:
    """Raises: OutOfRange: the text of a payload is none."""
    if not isinstance(event.payload, str):
        return event.payload
    try:
        said = json.loads(event.payload)
    except (ValueError, RecursionError) as error:
        raise _wrong("payload", "this is no JSON, or nested too deep", event.payload[:40]) from error
    if not isinstance(said, dict):
        raise _wrong("payload", "an event says something in fields", event.payload[:40])
    return said


def _put_raw_run(session: Session, file: RawRun) -> None:
    session.add(Run(**file.model_dump(exclude={"events", "pictures"})))
    session.flush()
    session.add_all(_events(file.id, file.events))
    session.add_all(kept_pictures(file.id, file.pictures))


def _put_run(session: Session, runs: RunService, file: RunFile) -> None:
    if session.get(Thing, file.order_id) is None:
        raise _wrong("order_id", "there is no such order", file.order_id)
    run = Run(
        id=file.id,
        order_id=file.order_id,
        started_at=file.started_at,
        ended_at=file.ended_at,
        frozen=file.frozen.model_dump(mode="json"),
        shown=file.shown,
    )
    session.add(run)
    session.flush()
    rows = _events(file.id, file.events)
    session.add_all(rows)
    session.add_all(kept_pictures(file.id, file.pictures))
    ended = runs.teach(session, run, rows)
    if (ended is None) != (file.ended_at is None):
        raise _wrong("ended_at", "this does not agree with its events", _text(file.ended_at))


def _text(at: datetime | None) -> str | None:
    return None if at is None else at.isoformat()
