"""Things with revisions, runs with events, calibrations."""

import sqlalchemy as sa
from alembic import op

revision = "0001"
down_revision = None


def upgrade() -> None:
    op.create_table(
        "thing",
        sa.Column("id", sa.String(40), primary_key=True),
        sa.Column("kind", sa.String(16), nullable=False, index=True),
        sa.Column("version", sa.Integer, nullable=False),
        sa.Column("gone", sa.Boolean, nullable=False),
    )
    op.create_table(
        "revision",
        sa.Column("thing_id", sa.String(40), sa.ForeignKey("thing.id"), primary_key=True),
        sa.Column("version", sa.Integer, primary_key=True),
        sa.Column("doc", sa.JSON, nullable=False),
        sa.Column("made_at", sa.DateTime, nullable=False),
    )
    op.create_table(
        "run",
        sa.Column("id", sa.String(40), primary_key=True),
        sa.Column("order_id", sa.String(40), sa.ForeignKey("thing.id"), nullable=False, index=True),
        sa.Column("started_at", sa.DateTime, nullable=False),
        sa.Column("ended_at", sa.DateTime, nullable=True),
        sa.Column("frozen", sa.JSON, nullable=False),
    )
    op.create_table(
        "event",
        sa.Column("id", sa.String(40), primary_key=True),
        sa.Column("run_id", sa.String(40), sa.ForeignKey("run.id"), nullable=False),
        sa.Column("seq", sa.Integer, nullable=False),
        sa.Column("kind", sa.String(16), nullable=False),
        sa.Column("actor", sa.String(60), nullable=False),
        sa.Column("device", sa.String(60), nullable=False),
        sa.Column("happened_at", sa.DateTime, nullable=False),
        sa.Column("received_at", sa.DateTime, nullable=False),
        sa.Column("schema_version", sa.Integer, nullable=False),
        sa.Column("payload", sa.JSON, nullable=False),
        sa.UniqueConstraint("run_id", "seq"),
    )
    op.create_index("ix_event_run", "event", ["run_id", "seq"])
    op.create_table(
        "calibration",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("run_id", sa.String(40), sa.ForeignKey("run.id"), nullable=False),
        sa.Column("kind", sa.String(16), nullable=False),
        sa.Column("subject", sa.String(80), nullable=False, index=True),
        sa.Column("evidence", sa.JSON, nullable=False),
        sa.UniqueConstraint("run_id", "kind", "subject"),
    )
