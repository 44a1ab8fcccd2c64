"""Alembic's entry: the connection is handed over by store.engine."""

from alembic import context

from umber_pebble.store.models import Base

context.configure(
    connection=context.config.attributes["connection"], target_metadata=Base.metadata, render_as_batch=True
)
with context.begin_transaction():
    context.run_migrations()
