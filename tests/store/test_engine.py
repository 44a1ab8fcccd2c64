"""The database: durable settings, migrations after a backup, backup and restore."""

from pathlib import Path

import pytest
from sqlalchemy import text

from umber_pebble.cli import main
from umber_pebble.config import Config
from umber_pebble.services.start import open_workshop
from umber_pebble.services.workshop import Workshop
from umber_pebble.store.models import Base


def test_sqlite_is_set_to_lose_nothing(workshop: Workshop) -> None:
    with workshop.engine.connect() as connection:
        found = {
            p: connection.execute(text(f"PRAGMA {p}")).scalar()
            for p in ("journal_mode", "foreign_keys", "synchronous")
        }
    assert found == {"journal_mode": "wal", "foreign_keys": 1, "synchronous": 2}


def test_migrations_make_what_the_models_say(workshop: Workshop) -> None:
    from alembic.autogenerate import compare_metadata
    from alembic.migration import MigrationContext

    with workshop.engine.connect() as connection:
        assert compare_metadata(MigrationContext.configure(connection), Base.metadata) == []


def test_backup_and_restore_by_command(tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    data, copy = tmp_path / "data", tmp_path / "copy.db"
    workshop = open_workshop(Config(data))
    kitchen = workshop.get("kitchen", "kitchen")
    assert main(["--data", str(data), "backup", str(copy)]) == 0
    workshop.save("kitchen", "kitchen", kitchen.version, kitchen.doc.model_copy(update={"name": "Changed"}))
    workshop.engine.dispose()
    assert main(["--data", str(data), "restore", str(copy)]) == 0
    assert open_workshop(Config(data)).get("kitchen", "kitchen").doc == kitchen.doc
    assert len(list((data / "backups").glob("before-restore-*.db"))) == 1
    broken = tmp_path / "broken.db"
    broken.write_bytes(b"this is no database at all, not even nearly one")
    assert main(["--data", str(data), "restore", str(broken)]) == 1
    assert "not a database" in capsys.readouterr().err
    assert open_workshop(Config(data)).get("kitchen", "kitchen").doc == kitchen.doc
