"""Devices that were paired."""

import sqlalchemy as sa
from alembic import op

revision = "0002"
down_revision = "0001"


def upgrade() -> None:
    op.create_table(
        "device",
        sa.Column("id", sa.String(40), primary_key=True),
        sa.Column("name", sa.String(60), nullable=False),
        sa.Column("token_hash", sa.String(64), nullable=False, unique=True),
        sa.Column("paired_at", sa.DateTime, nullable=False),
        sa.Column("seen_at", sa.DateTime, nullable=False),
    )
