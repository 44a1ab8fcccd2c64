"""One writer: a lock on the data folder, held by whatever serves, restores or migrates it."""

import os
from pathlib import Path

from filelock import FileLock, Timeout


class FolderInUse(ValueError):
    """Another program of ours has the folder."""


def hold(data_dir: Path) -> FileLock:
    """The lock of a data folder, held until it is released or this program ends, however it ends.

    Raises: FolderInUse: it is held already.
    """
    data_dir.mkdir(parents=True, exist_ok=True)
    lock = FileLock(str(data_dir / "in-use.lock"), timeout=0, mode=0o600)
    try:
        lock.acquire()
    except Timeout as error:
        raise FolderInUse(
            f"{data_dir} is in use: the app is running on it (or a restore is). Stop that first, or use another folder with --data"
        ) from error
    return lock


def own_only(data_dir: Path) -> None:
    """Folder, database and backups are its owner's alone; so is what is made in it from now on."""
    os.umask(0o077)
    data_dir.mkdir(parents=True, exist_ok=True)
    for folder in (data_dir, data_dir / "backups"):
        if folder.is_dir():
            folder.chmod(0o700)
            for file in folder.glob("*.db*"):
                file.chmod(0o600)
