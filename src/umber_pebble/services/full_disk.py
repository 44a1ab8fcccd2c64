"""A full disk, in words, wherever it is met."""

import errno
import sqlite3
from collections.abc import Iterator
from contextlib import contextmanager

from sqlalchemy.exc import OperationalError

from umber_pebble.services.errors import DiskFull


@contextmanager
def words_for_a_full_disk() -> Iterator[None]:
    """Raises: DiskFull: in place of what a full disk, a quota or a size limit makes the database say."""
    try:
        yield
    except (OperationalError, sqlite3.OperationalError, OSError) as error:
        said = error.orig if isinstance(error, OperationalError) else error
        full = isinstance(said, OSError) and said.errno in (errno.ENOSPC, errno.EDQUOT, errno.EFBIG)
        # a limit on the size of files is met in the middle of a write
        named = getattr(said, "sqlite_errorname", "")
        if not full and named not in ("SQLITE_FULL", "SQLITE_IOERR_WRITE"):
            raise
        raise DiskFull(
            "the disk is full, or a limit on files is reached: nothing was changed; make room, then again"
        ) from error
