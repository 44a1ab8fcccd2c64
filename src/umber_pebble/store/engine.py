"""The database: SQLite in WAL mode with full sync, migrated at start after a backup copy."""

import shutil
import sqlite3
from contextlib import closing
from datetime import datetime
from pathlib import Path

from alembic import command
from alembic.config import Config as AlembicConfig
from alembic.runtime.migration import MigrationContext
from alembic.script import ScriptDirectory
from sqlalchemy import Connection, Engine, create_engine, event
from sqlalchemy.engine.interfaces import DBAPIConnection
from sqlalchemy.pool import ConnectionPoolEntry

MIGRATIONS = Path(__file__).parent.parent / "migrations"


class DatabaseUnreadable(ValueError):
    """The file is not a sound database of this product."""


def open_engine(database: Path) -> Engine:
    """An engine on the file, every connection set up the same way."""
    database.parent.mkdir(parents=True, exist_ok=True)
    engine = create_engine(f"sqlite:///{database}", connect_args={"timeout": 15.0, "check_same_thread": False})

    @event.listens_for(engine, "connect")
    def _set_up(connection: DBAPIConnection, _: ConnectionPoolEntry) -> None:
        # SQLAlchemy, not the driver, begins transactions (see _begin)
        connection.isolation_level = None  # type: ignore[attr-defined]
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


def backup(database: Path, target: Path) -> Path:
    """Copy a live database to a new file."""
    target.parent.mkdir(parents=True, exist_ok=True)
    if target.exists():
        raise FileExistsError(f"{target} exists already: choose another name")
    with closing(sqlite3.connect(database)) as source, closing(sqlite3.connect(target)) as copy:
        source.backup(copy)
    return target


def check_file(file: Path) -> None:
    """Refuse a file that is not a sound database with our tables."""
    try:
        with closing(sqlite3.connect(f"file:{file}?mode=ro", uri=True)) as connection:
            sound = connection.execute("PRAGMA integrity_check").fetchone()[0] == "ok"
            tables = {row[0] for row in connection.execute("SELECT name FROM sqlite_master WHERE type='table'")}
    except sqlite3.DatabaseError as error:
        raise DatabaseUnreadable(f"{file} is not a database: {error}") from error
    if not sound or not {"thing", "event", "alembic_version"} <= tables:
        raise DatabaseUnreadable(f"{file} is damaged or is no backup of this program")


def restore(file: Path, database: Path, backups: Path, stamp: str) -> Path | None:
    """Put a backup in place of the database; what was there is kept as a backup, whose path is returned."""
    check_file(file)
    kept = backup(database, backups / f"before-restore-{stamp}.db") if database.exists() else None
    for tail in ("-wal", "-shm"):
        Path(f"{database}{tail}").unlink(missing_ok=True)
    database.parent.mkdir(parents=True, exist_ok=True)
    shutil.copyfile(file, database)
    return kept


def migrate(engine: Engine, database: Path, backups: Path, now: datetime) -> None:
    """Bring the schema to the newest revision; an older one is copied to backups first."""
    config = AlembicConfig()
    config.set_main_option("script_location", str(MIGRATIONS))
    head = ScriptDirectory.from_config(config).get_current_head()
    with engine.connect() as connection:
        current = MigrationContext.configure(connection).get_current_revision()
    if current == head:
        return
    if current is not None:
        backup(database, backups / f"before-migration-{now:%Y%m%dT%H%M%S}.db")
    with engine.begin() as connection:
        config.attributes["connection"] = connection
        command.upgrade(config, "head")
