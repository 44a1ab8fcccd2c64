"""What is wrong with a data folder, and the way out, in words."""

import os
import shutil
import sqlite3
from contextlib import closing, suppress
from dataclasses import dataclass
from datetime import datetime
from pathlib import Path

from umber_pebble.store.backups import OLDEST, newest_backup
from umber_pebble.store.lock import FolderInUse, hold
from umber_pebble.store.schema import DatabaseUnreadable, check_file

LEAST_FREE_BYTES = 200_000_000


@dataclass(frozen=True, slots=True)
class Finding:
    """One thing looked at: fine or not, and what to do where it is not."""

    what: str
    fine: bool
    words: str


def examine(database: Path, backups: Path, now: datetime) -> list[Finding]:
    """Everything about a data folder that can be known without changing it."""
    folder = database.parent
    if not folder.is_dir():
        return [Finding("folder", True, f"{folder} is not there yet: the first start makes it")]
    found = [_writable(folder, database), _free(folder), _in_use(folder)]
    if database.exists():
        found += [_sound(database), _log(database), _backed_up(backups, now)]
    else:
        way = " The newest backup can be put in place: umber-pebble restore FILE" if newest_backup(backups) else ""
        found.append(Finding("database", not way, f"there is none yet: the first start makes it.{way}"))
    return found


def _writable(folder: Path, database: Path) -> Finding:
    for path in (folder, database):
        if path.exists() and not os.access(path, os.W_OK):
            return Finding(
                "folder", False, f"{path} cannot be written: make it yours (chown) and writable (chmod u+w)"
            )
    open_to_all = folder.stat().st_mode & 0o077
    more = "" if not open_to_all else ", and others can look into it: the next start closes it"
    return Finding("folder", True, f"{folder} can be written{more}")


def _free(folder: Path) -> Finding:
    free = shutil.disk_usage(folder).free
    fine = free >= LEAST_FREE_BYTES
    words = f"{free / 1e6:,.0f} MB free" + ("" if fine else ": make room, or nothing can be saved soon")
    return Finding("disk", fine, words)


def _in_use(folder: Path) -> Finding:
    try:
        hold(folder).release()
    except FolderInUse:
        return Finding("in use", True, "the app is running on it: restore only after it is stopped")
    except OSError:
        return Finding("in use", False, "its lock cannot be taken: make the folder writable")
    return Finding("in use", True, "nothing is running on it")


def _sound(database: Path) -> Finding:
    try:
        check_file(database)
    except (DatabaseUnreadable, OSError) as error:
        return Finding("database", False, str(error))
    return Finding("database", True, f"sound, {database.stat().st_size / 1e6:.1f} MB")


def _log(database: Path) -> Finding:
    log = Path(f"{database}-wal")
    if log.exists() and log.stat().st_size:
        words = "its log holds what is newest: copy both files together, or use umber-pebble backup"
        return Finding("log", True, words)
    with (
        suppress(sqlite3.DatabaseError),
        closing(sqlite3.connect(f"file:{database}?mode=ro", uri=True)) as connection,
    ):
        pages, size = (connection.execute(f"PRAGMA {name}").fetchone()[0] for name in ("page_count", "page_size"))
        if pages * size > database.stat().st_size:
            words = (
                "the file is shorter than it says: its log was lost or it was cut off; restore the newest backup"
            )
            return Finding("log", False, words)
    return Finding("log", True, "nothing waits in it: the file alone is the data")


def _backed_up(backups: Path, now: datetime) -> Finding:
    newest = newest_backup(backups)
    if newest is None:
        return Finding(
            "backups", False, "there is none yet: umber-pebble backup makes one, and so does a day of running"
        )
    age = now - newest
    words = f"the newest is {age.days} days and {age.seconds // 3600} hours old"
    return Finding(
        "backups",
        age <= OLDEST,
        words + ("" if age <= OLDEST else ": make one (umber-pebble backup)"),
    )
