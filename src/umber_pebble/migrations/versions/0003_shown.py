"""What a finished run showed."""

import sqlalchemy as sa
from alembic import op

revision = "0003"
down_revision = "0002"


def upgrade() -> None:
    op.add_column("run", sa.Column("shown", sa.JSON))
