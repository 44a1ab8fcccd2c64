"""Tables. A thing's every revision is kept; events are only ever added."""

from datetime import UTC, datetime
from typing import Any

from sqlalchemy import JSON, DateTime, ForeignKey, Index, LargeBinary, String, UniqueConstraint
from sqlalchemy.engine import Dialect
from sqlalchemy.orm import DeclarativeBase, Mapped, mapped_column
from sqlalchemy.types import TypeDecorator


class UtcDateTime(TypeDecorator[datetime]):
    """UTC in, UTC out: SQLite itself forgets the zone."""

    impl = DateTime
    cache_ok = True

    def process_bind_param(self, value: datetime | None, dialect: Dialect) -> datetime | None:
        if value is None:
            return None
        if value.tzinfo is None:
            raise ValueError("a date-time without a zone must not be stored")
        return value.astimezone(UTC).replace(tzinfo=None)

    def process_result_value(self, value: datetime | None, dialect: Dialect) -> datetime | None:
        return None if value is None else value.replace(tzinfo=UTC)


class Base(DeclarativeBase):
    """All tables."""


class Thing(Base):
    """Something that can be edited: kitchen, units, mould, piece, order."""

    __tablename__ = "thing"
    id: Mapped[str] = mapped_column(String(40), primary_key=True)
    kind: Mapped[str] = mapped_column(String(16), index=True)
    version: Mapped[int]
    gone: Mapped[bool] = mapped_column(default=False)


class Revision(Base):
    """One version of a thing, as it was saved."""

    __tablename__ = "revision"
    thing_id: Mapped[str] = mapped_column(ForeignKey("thing.id"), primary_key=True)
    version: Mapped[int] = mapped_column(primary_key=True)
    doc: Mapped[dict[str, Any]] = mapped_column(JSON)
    made_at: Mapped[datetime] = mapped_column(UtcDateTime)


class Run(Base):
    """A plan being carried out, with everything it uses as it was when it started; shown: what it showed when it ended."""

    __tablename__ = "run"
    id: Mapped[str] = mapped_column(String(40), primary_key=True)
    order_id: Mapped[str] = mapped_column(ForeignKey("thing.id"), index=True)
    started_at: Mapped[datetime] = mapped_column(UtcDateTime)
    ended_at: Mapped[datetime | None] = mapped_column(UtcDateTime)
    frozen: Mapped[dict[str, Any]] = mapped_column(JSON)
    shown: Mapped[dict[str, Any] | None] = mapped_column(JSON)


class EventRow(Base):
    """One event of a run. The id is the client's, the seq the server's."""

    __tablename__ = "event"
    __table_args__ = (UniqueConstraint("run_id", "seq"), Index("ix_event_run", "run_id", "seq"))
    id: Mapped[str] = mapped_column(String(40), primary_key=True)
    run_id: Mapped[str] = mapped_column(ForeignKey("run.id"))
    seq: Mapped[int]
    kind: Mapped[str] = mapped_column(String(16))
    actor: Mapped[str] = mapped_column(String(60))
    device: Mapped[str] = mapped_column(String(60))
    happened_at: Mapped[datetime] = mapped_column(UtcDateTime)
    received_at: Mapped[datetime] = mapped_column(UtcDateTime)
    schema_version: Mapped[int]
    payload: Mapped[dict[str, Any]] = mapped_column(JSON)


class Picture(Base):
    """A picture noted in a run, as JPEG without metadata."""

    __tablename__ = "picture"
    id: Mapped[str] = mapped_column(String(40), primary_key=True)
    run_id: Mapped[str] = mapped_column(ForeignKey("run.id"), index=True)
    made_at: Mapped[datetime] = mapped_column(UtcDateTime)
    jpeg: Mapped[bytes] = mapped_column(LargeBinary)


class Calibration(Base):
    """One run's word on a pot or mould."""

    __tablename__ = "calibration"
    __table_args__ = (UniqueConstraint("run_id", "kind", "subject"),)
    id: Mapped[int] = mapped_column(primary_key=True)
    run_id: Mapped[str] = mapped_column(ForeignKey("run.id"))
    kind: Mapped[str] = mapped_column(String(16))
    subject: Mapped[str] = mapped_column(String(80), index=True)
    evidence: Mapped[dict[str, Any]] = mapped_column(JSON)


class Device(Base):
    """A device that was paired; its token is kept only as a hash."""

    __tablename__ = "device"
    id: Mapped[str] = mapped_column(String(40), primary_key=True)
    name: Mapped[str] = mapped_column(String(60))
    token_hash: Mapped[str] = mapped_column(String(64), unique=True)
    paired_at: Mapped[datetime] = mapped_column(UtcDateTime)
    seen_at: Mapped[datetime] = mapped_column(UtcDateTime)
