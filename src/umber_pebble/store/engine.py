"""The database: SQLite in WAL mode with full sync, migrated at start after a backup copy."""

from pathlib import Path

from alembic import command
from alembic.config import Config as AlembicConfig
from alembic.runtime.migration import MigrationContext
from sqlalchemy import Connection, Engine, create_engine, event
from sqlalchemy.engine.interfaces import DBAPIConnection
from sqlalchemy.pool import ConnectionPoolEntry

from umber_pebble.store.backups import backup, made_now
from umber_pebble.store.schema import MIGRATIONS, check_file, newest_schema


def open_engine(database: Path) -> Engine:
    """An engine on the file, every connection set up the same way."""
    database.parent.mkdir(parents=True, exist_ok=True)
    engine = create_engine(f"sqlite:///{database}", connect_args={"timeout": 15.0, "check_same_thread": False})

    @event.listens_for(engine, "connect")
    def _set_up(connection: DBAPIConnection, _: ConnectionPoolEntry) -> None:
        # SQLAlchemy, not the driver, begins transactions (see _begin)
        connection.isolation_level = None
        cursor = connection.cursor()
        for pragma in ("journal_mode=WAL", "foreign_keys=ON", "synchronous=FULL", "busy_timeout=15000"):
            cursor.execute(f"PRAGMA {pragma}")
        cursor.close()

    @event.listens_for(engine, "begin")
    def _begin(connection: Connection) -> None:
        # a writer takes its lock first: a check and the write that rests on it are one
        connection.exec_driver_sql(
            "BEGIN IMMEDIATE" if connection.get_execution_options().get("writes") else "BEGIN"
        )

    return engine


def migrate(engine: Engine, database: Path, backups: Path) -> None:
    """Bring the schema to the newest revision; an older one is copied to backups first.

    Raises: DatabaseUnreadable: a newer version made it, or it is damaged.
    """
    with engine.connect() as connection:
        current = MigrationContext.configure(connection).get_current_revision()
    if current == newest_schema():
        return
    if current is not None:
        check_file(database)
        backup(database, made_now(backups, "before-migration-"))
    config = AlembicConfig()
    config.set_main_option("script_location", str(MIGRATIONS))
    with engine.begin() as connection:
        config.attributes["connection"] = connection
        command.upgrade(config, "head")
