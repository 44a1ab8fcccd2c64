"""Which schema a database file has, and whether it is sound."""

import os
import sqlite3
from contextlib import closing
from pathlib import Path

from alembic.config import Config as AlembicConfig
from alembic.script import ScriptDirectory

MIGRATIONS = Path(__file__).parent.parent / "migrations"


class DatabaseUnreadable(ValueError):
    """The file is not a sound database of this product."""


def _versions() -> ScriptDirectory:
    config = AlembicConfig()
    config.set_main_option("script_location", str(MIGRATIONS))
    return ScriptDirectory.from_config(config)


def newest_schema() -> str:
    """The schema this version makes."""
    return str(_versions().get_current_head())


def check_file(file: Path) -> None:
    """Refuse a file that is not a sound database with our tables, in a schema we know.

    Raises: DatabaseUnreadable: what is wrong with it, and what to do.
    """
    if file.stat().st_size == 0:
        raise DatabaseUnreadable(f"{file} is empty: put a backup in its place (umber-pebble restore FILE)")
    # where nothing can be written, nothing is: not even the mark that somebody reads
    mode = "ro" if os.access(file.parent, os.W_OK) else "ro&immutable=1"
    try:
        with closing(sqlite3.connect(f"file:{file}?mode={mode}", uri=True)) as connection:
            sound = connection.execute("PRAGMA integrity_check").fetchone()[0] == "ok"
            tables = {row[0] for row in connection.execute("SELECT name FROM sqlite_master WHERE type='table'")}
            ours = {"thing", "event", "alembic_version"} <= tables
            version = connection.execute("SELECT version_num FROM alembic_version").fetchone() if ours else None
    except sqlite3.DatabaseError as error:
        raise DatabaseUnreadable(
            f"{file} is not a database, or damaged ({error}): put a backup in its place (umber-pebble restore FILE)"
        ) from error
    if not sound or version is None:
        raise DatabaseUnreadable(f"{file} is damaged or is no database of this program: restore a backup")
    if version[0] not in {script.revision for script in _versions().walk_revisions()}:
        raise DatabaseUnreadable(
            f"{file} was made by a newer version of this program (schema {version[0]}): install that one"
        )
