"""What is kept of a workshop, and where."""

from datetime import UTC, datetime
from pathlib import Path

from umber_pebble.services.full_disk import words_for_a_full_disk
from umber_pebble.services.workshop import Workshop
from umber_pebble.store.backups import Kept, backup, made_now, state


def back_up(workshop: Workshop) -> Kept:
    """Makes a backup now.

    Raises: DiskFull.
    """
    database = Path(str(workshop.engine.url.database))
    with words_for_a_full_disk():
        backup(database, made_now(database.parent / "backups"))
    return kept(workshop)


def kept(workshop: Workshop) -> Kept:
    """Where the workshop's data lies, and how old its newest backup is."""
    database = Path(str(workshop.engine.url.database))
    return state(database, database.parent / "backups", datetime.now(UTC))
