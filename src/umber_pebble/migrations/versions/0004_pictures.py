"""Pictures noted in runs."""

import sqlalchemy as sa
from alembic import op

revision = "0004"
down_revision = "0003"


def upgrade() -> None:
    op.create_table(
        "picture",
        sa.Column("id", sa.String(40), primary_key=True),
        sa.Column("run_id", sa.String(40), sa.ForeignKey("run.id"), nullable=False, index=True),
        sa.Column("made_at", sa.DateTime, nullable=False),
        sa.Column("jpeg", sa.LargeBinary, nullable=False),
    )
