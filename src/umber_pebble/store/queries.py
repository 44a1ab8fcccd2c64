"""Rows in and out, nothing decided here."""

from collections.abc import Collection
from datetime import datetime
from typing import Any

from sqlalchemy import delete, func, select
from sqlalchemy.orm import Session

from umber_pebble.store.models import Calibration, Device, EventRow, Picture, Revision, Run, Thing


def thing(session: Session, thing_id: str, kind: str) -> tuple[Thing, Revision] | None:
    """A thing that is not gone, with its newest revision."""
    row = session.execute(
        select(Thing, Revision)
        .join(Revision, (Revision.thing_id == Thing.id) & (Revision.version == Thing.version))
        .where(Thing.id == thing_id, Thing.kind == kind, Thing.gone.is_(False))
    ).first()
    return None if row is None else (row[0], row[1])


def named(session: Session, ids: Collection[str], kind: str) -> dict[str, tuple[Thing, Revision]]:
    """Of these things of a kind those that are not gone, each with its newest revision, by id."""
    rows = session.execute(
        select(Thing, Revision)
        .join(Revision, (Revision.thing_id == Thing.id) & (Revision.version == Thing.version))
        .where(Thing.id.in_(ids), Thing.kind == kind, Thing.gone.is_(False))
    )
    return {row[0].id: (row[0], row[1]) for row in rows}


def things(session: Session, kind: str) -> list[tuple[Thing, Revision]]:
    """All things of a kind that are not gone, oldest first."""
    rows = session.execute(
        select(Thing, Revision)
        .join(Revision, (Revision.thing_id == Thing.id) & (Revision.version == Thing.version))
        .where(Thing.kind == kind, Thing.gone.is_(False))
        .order_by(Thing.id)
    )
    return [(row[0], row[1]) for row in rows]


def names(session: Session) -> list[tuple[str, str, str]]:
    """Kind, id and name of every thing that has one and is not gone; no document is read whole."""
    name = func.json_extract(Revision.doc, "$.name")
    rows = session.execute(
        select(Thing.kind, Thing.id, name)
        .join(Revision, (Revision.thing_id == Thing.id) & (Revision.version == Thing.version))
        .where(Thing.gone.is_(False), name.is_not(None))
    )
    return [(kind, key, str(named)) for kind, key, named in rows]


def run_names(session: Session) -> list[tuple[str, str, datetime]]:
    """Id, its order's name as it is now, and start of every run, newest first; nothing large is read."""
    name = func.json_extract(Revision.doc, "$.name")
    rows = session.execute(
        select(Run.id, name, Run.started_at)
        .join(Thing, Thing.id == Run.order_id)
        .join(Revision, (Revision.thing_id == Thing.id) & (Revision.version == Thing.version))
        .order_by(Run.started_at.desc(), Run.id)
    )
    return [(key, str(named), at) for key, named, at in rows]


def all_things(session: Session) -> list[Thing]:
    """Every thing, gone ones with them."""
    return list(session.scalars(select(Thing).order_by(Thing.kind, Thing.id)))


def revisions(session: Session, thing_id: str) -> list[Revision]:
    """Every version of a thing, oldest first."""
    return list(session.scalars(select(Revision).where(Revision.thing_id == thing_id).order_by(Revision.version)))


def add_revision(session: Session, row: Thing, doc: dict[str, Any], now: datetime) -> None:
    """Store a thing's next version."""
    session.add(row)
    session.flush()
    session.add(Revision(thing_id=row.id, version=row.version, doc=doc, made_at=now))


def run(session: Session, run_id: str) -> Run | None:
    """A run by id."""
    return session.get(Run, run_id)


def runs(session: Session) -> list[Run]:
    """All runs, newest first."""
    return list(session.scalars(select(Run).order_by(Run.started_at.desc(), Run.id)))


def live_run(session: Session) -> Run | None:
    """The run that has not ended."""
    return session.scalar(select(Run).where(Run.ended_at.is_(None)).order_by(Run.started_at.desc()).limit(1))


def run_heads(session: Session) -> list[Any]:
    """Id, end, and of what was kept the format and the summary as text, of every run, newest first; nothing large is read."""
    kept = (func.json_extract(Run.shown, path) for path in ("$.format", "$.log.summary"))
    return list(session.execute(select(Run.id, Run.ended_at, *kept).order_by(Run.started_at.desc(), Run.id)))


def events(session: Session, run_id: str, after: int = 0) -> list[EventRow]:
    """A run's log in the server's order, all of it or what came after a sequence number."""
    wanted = select(EventRow).where(EventRow.run_id == run_id, EventRow.seq > after)
    return list(session.scalars(wanted.order_by(EventRow.seq)))


def event(session: Session, event_id: str) -> EventRow | None:
    """One event by its client's id."""
    return session.get(EventRow, event_id)


def last_seq(session: Session, run_id: str) -> int:
    """The newest sequence number of a run, 0 when it has none."""
    return session.scalar(select(func.max(EventRow.seq)).where(EventRow.run_id == run_id)) or 0


def last_received(session: Session) -> datetime | None:
    """When the newest event of all came in."""
    row = session.scalar(select(EventRow).order_by(EventRow.received_at.desc()).limit(1))
    return None if row is None else row.received_at


def replace_calibrations(session: Session, run_id: str, rows: list[Calibration]) -> None:
    """Put what a run taught in place of what it taught before."""
    session.execute(delete(Calibration).where(Calibration.run_id == run_id))
    session.add_all(rows)


def calibrations(session: Session, kind: str, subject: str, before: datetime | None = None) -> list[Calibration]:
    """Evidence on a subject, oldest first; only of runs begun before a moment, when given."""
    query = select(Calibration).join(Run, Run.id == Calibration.run_id)
    query = query.where(Calibration.kind == kind, Calibration.subject == subject).order_by(Run.started_at)
    if before is not None:
        query = query.where(Run.started_at < before)
    return list(session.scalars(query))


def evidence(session: Session) -> dict[tuple[str, str], list[dict[str, Any]]]:
    """All evidence by kind and subject, oldest first."""
    query = select(Calibration).join(Run, Run.id == Calibration.run_id).order_by(Run.started_at)
    out: dict[tuple[str, str], list[dict[str, Any]]] = {}
    for row in session.scalars(query):
        out.setdefault((row.kind, row.subject), []).append(row.evidence)
    return out


def devices(session: Session) -> list[Device]:
    """All paired devices, the newest first."""
    return list(session.scalars(select(Device).order_by(Device.paired_at.desc(), Device.id)))


def device_by_token(session: Session, token_hash: str) -> Device | None:
    """The device that holds a token."""
    return session.scalar(select(Device).where(Device.token_hash == token_hash))


def picture(session: Session, picture_id: str) -> Picture | None:
    """A picture of a run."""
    return session.get(Picture, picture_id)


def pictures(session: Session, run_id: str) -> list[Picture]:
    """All pictures of a run, the oldest first."""
    return list(
        session.scalars(select(Picture).where(Picture.run_id == run_id).order_by(Picture.made_at, Picture.id))
    )


def picture_count(session: Session, run_id: str) -> int:
    """How many pictures a run has."""
    return session.scalar(select(func.count()).select_from(Picture).where(Picture.run_id == run_id)) or 0
