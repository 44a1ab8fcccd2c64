"""Copies of the database: made whole or not at all, opened before they count, put back whole or not at all."""

import logging
import os
import shutil
import sqlite3
import time
from contextlib import closing, suppress
from dataclasses import dataclass
from datetime import UTC, datetime, timedelta
from pathlib import Path

from umber_pebble.store.schema import DatabaseUnreadable, check_file

AUTOMATIC = "auto-"
EVERY, OLDEST = timedelta(days=1), timedelta(days=3)
KEPT_DAILY, KEPT_WEEKLY = 7, 5
LOOKS_EVERY_S = 3600.0
LOG = logging.getLogger(__name__)
STAMP = "%Y%m%dT%H%M%S"


def made_now(backups: Path, why: str = "") -> Path:
    """The file a backup gets that is made now. Told to the microsecond: a start that was killed a moment ago may have left one."""
    return backups / f"{why}{datetime.now(UTC):{STAMP}%f}.db"


def backup(database: Path, target: Path) -> Path:
    """Copy a live database to a new file. It has its name only once it is whole and has been opened.

    Raises: FileExistsError: the name is taken. DatabaseUnreadable: what was copied is damaged. OSError, sqlite3.Error.
    """
    target.parent.mkdir(parents=True, exist_ok=True)
    if target.exists():
        raise FileExistsError(f"{target} exists already: choose another name")
    part = target.with_name(f"{target.name}.part")
    try:
        part.unlink(missing_ok=True)
        with closing(sqlite3.connect(database)) as source, closing(sqlite3.connect(part)) as copy:
            source.backup(copy)
            copy.execute("PRAGMA journal_mode=DELETE")
        check_file(part)
        _to_disk(part)
        part.rename(target)
        _to_disk(target.parent)
    finally:
        with suppress(OSError):
            part.unlink(missing_ok=True)
    return target


def restore(file: Path, database: Path, backups: Path) -> Path | None:
    """Put a backup in place of the database; what was there is kept as a backup, whose path is returned. Killed at any moment it
    leaves the old database or the new one.

    Raises: DatabaseUnreadable: the file is damaged, none of ours, or of a newer version. OSError, sqlite3.Error.
    """
    check_file(file)
    database.parent.mkdir(parents=True, exist_ok=True)
    new = database.with_name(f"{database.name}.new")
    new.unlink(missing_ok=True)
    with (
        closing(sqlite3.connect(f"file:{file}?mode=ro", uri=True)) as source,
        closing(sqlite3.connect(new)) as copy,
    ):
        source.backup(copy)
        copy.execute("PRAGMA journal_mode=DELETE")
    check_file(new)
    _to_disk(new)
    kept = None
    if database.exists():
        kept = _set_aside(database, made_now(backups, "before-restore-"))
    # what was in the log is in the file now: without it the old database is still whole
    for tail in ("-wal", "-shm"):
        Path(f"{database}{tail}").unlink(missing_ok=True)
    os.replace(new, database)
    _to_disk(database.parent)
    return kept


def _set_aside(database: Path, target: Path) -> Path:
    """A copy of what is there, damaged or not, and its log folded into it."""
    try:
        kept = backup(database, target)
        fold_log(database)
    except (sqlite3.DatabaseError, DatabaseUnreadable):
        target.parent.mkdir(parents=True, exist_ok=True)
        kept = target.with_suffix(".damaged")
        shutil.copyfile(database, kept)
    return kept


def fold_log(database: Path) -> None:
    """Write the log into the file, so that the file alone is the data."""
    with closing(sqlite3.connect(database)) as connection:
        connection.execute("PRAGMA wal_checkpoint(TRUNCATE)")


def newest_backup(backups: Path) -> datetime | None:
    """When the newest whole backup of any kind was made, by its file."""
    times = [of.stat().st_mtime for of in backups.glob("*.db")]
    return datetime.fromtimestamp(max(times)).astimezone() if times else None


@dataclass(frozen=True, slots=True)
class Kept:
    """Where a database lies, its size [bytes], how many backups there are and how old the newest is [s]; old: another is due."""

    folder: str
    database_bytes: int
    backups: int
    newest_backup_s: float | None
    old: bool


def state(database: Path, backups: Path, now: datetime) -> Kept:
    """What is kept of a database, now."""
    newest = newest_backup(backups)
    age = None if newest is None else (now - newest).total_seconds()
    old = age is None or age > OLDEST.total_seconds()
    return Kept(str(database.parent), database.stat().st_size, len(list(backups.glob("*.db"))), age, old)


def daily(database: Path, backups: Path, now: datetime) -> Path | None:
    """The automatic backup, where the last one is a day old; older ones are thinned out: a week daily, five weeks weekly.

    Raises: as backup.
    """
    made = sorted(backups.glob(f"{AUTOMATIC}*.db"))
    if made and now - _made_at(made[-1]) < EVERY:
        return None
    new = backup(database, backups / f"{AUTOMATIC}{now:{STAMP}}.db")
    for old in _surplus([*made, new]):
        old.unlink(missing_ok=True)
    return new


def keep_daily(database: Path, backups: Path) -> None:
    """Makes the automatic backup whenever it is due, for as long as the app runs. One that fails is told and tried again."""
    while True:
        try:
            daily(database, backups, datetime.now(UTC))
        except (OSError, ValueError, sqlite3.Error):
            LOG.exception("the automatic backup was not made")
        time.sleep(LOOKS_EVERY_S)


def _made_at(file: Path) -> datetime:
    return datetime.strptime(file.stem.removeprefix(AUTOMATIC), STAMP).replace(tzinfo=UTC)


def _surplus(files: list[Path]) -> list[Path]:
    keep, weeks = set(files[-KEPT_DAILY:]), dict[tuple[int, int], Path]()
    for file in files:
        weeks.setdefault(_made_at(file).isocalendar()[:2], file)
    keep |= set(list(weeks.values())[-KEPT_WEEKLY:])
    return [file for file in files if file not in keep]


def _to_disk(path: Path) -> None:
    handle = os.open(path, os.O_RDONLY)
    try:
        os.fsync(handle)
    finally:
        os.close(handle)
