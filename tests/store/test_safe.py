"""One writer, safe copies: what is done to a data folder is done whole or not at all, and what is wrong with it is said."""

import ctypes
import os
import resource
import shutil
import signal
import sqlite3
import stat
import subprocess
import sys
from collections.abc import Callable
from contextlib import closing
from datetime import UTC, datetime, timedelta
from pathlib import Path

import pytest
from alembic import command
from alembic.config import Config as AlembicConfig

from tests.conftest import START
from umber_pebble.cli import main
from umber_pebble.config import Config
from umber_pebble.services.clock import DrivenClock, SteadyClock
from umber_pebble.services.start import open_workshop
from umber_pebble.store import backups
from umber_pebble.store.doctor import examine
from umber_pebble.store.engine import open_engine
from umber_pebble.store.lock import hold, own_only
from umber_pebble.store.schema import MIGRATIONS


def named(config: Config, name: str) -> None:
    """A workshop whose kitchen has a name, that was stopped without folding its log in, as a kill leaves it."""
    code = (
        "import os, sys; from pathlib import Path; from umber_pebble.config import Config\n"
        "from umber_pebble.services.start import open_workshop\n"
        "w = open_workshop(Config(Path(sys.argv[1]))); k = w.get('kitchen', 'kitchen')\n"
        "w.save('kitchen', 'kitchen', k.version, k.doc.model_copy(update={'name': sys.argv[2]})); os._exit(0)\n"
    )
    subprocess.run([sys.executable, "-c", code, str(config.data_dir), name], check=True)


@pytest.fixture(scope="module")
def left(tmp_path_factory: pytest.TempPathFactory) -> Path:
    """A data folder as a kill left it: its newest name only in the log; and beside it a backup of another name."""
    folder = tmp_path_factory.mktemp("left")
    named(Config(folder / "data"), "New")
    backups.backup(folder / "data" / "umber-pebble.db", folder / "copy.db")
    named(Config(folder / "data"), "Old")
    assert (folder / "data" / "umber-pebble.db-wal").stat().st_size > 0
    return folder


@pytest.fixture
def copy(left: Path) -> Path:
    return left / "copy.db"


@pytest.fixture
def config(left: Path, tmp_path: Path) -> Config:
    shutil.copytree(left / "data", tmp_path / "data")
    return Config(tmp_path / "data")


def name_of(config: Config) -> str:
    workshop = open_workshop(config)
    try:
        return str(workshop.get("kitchen", "kitchen").doc.name)  # type: ignore[attr-defined]
    finally:
        workshop.engine.dispose()


class Killed(BaseException):
    """The power went."""


def killed_at(monkeypatch: pytest.MonkeyPatch, step: int) -> None:
    """Whatever touches the disk works so many times, and then nothing does."""
    left = [step]

    def counted(of: Callable[..., object]) -> Callable[..., object]:
        def call(*args: object, **named: object) -> object:
            left[0] -= 1
            if left[0] < 0:
                raise Killed
            return of(*args, **named)

        return call

    monkeypatch.setattr(backups.os, "replace", counted(os.replace))
    monkeypatch.setattr(backups.os, "fsync", counted(os.fsync))
    monkeypatch.setattr(backups.sqlite3, "connect", counted(sqlite3.connect))
    for name in ("unlink", "rename"):
        monkeypatch.setattr(Path, name, counted(getattr(Path, name)))


def test_a_restore_that_is_killed_at_any_moment_leaves_the_old_or_the_new(
    left: Path, copy: Path, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    seen, step, done = list[str](), 0, False
    while not done:
        config = Config(tmp_path / str(step))
        shutil.copytree(left / "data", config.data_dir)
        with monkeypatch.context() as patch:
            killed_at(patch, step)
            try:
                backups.restore(copy, config.database, config.backups)
                done = True
            except Killed:
                pass
        seen.append(name_of(config))
        step += 1
    assert step > 8 and set(seen) == {"Old", "New"} and seen[-1] == "New"
    assert seen == sorted(seen, reverse=True)


def test_the_log_of_a_damaged_database_is_not_laid_over_what_is_restored(config: Config, copy: Path) -> None:
    config.database.write_bytes(b"no database at all" * 500)
    kept = backups.restore(copy, config.database, config.backups)
    assert not Path(f"{config.database}-wal").exists()
    assert name_of(config) == "New" and kept is not None and kept.suffix == ".damaged"


def test_a_log_without_its_database_goes_with_a_restore(config: Config, copy: Path) -> None:
    config.database.unlink()
    assert backups.restore(copy, config.database, config.backups) is None
    assert not Path(f"{config.database}-wal").exists() and name_of(config) == "New"


def test_a_backup_that_is_killed_never_has_its_name(
    config: Config, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    for step in range(40):
        target = tmp_path / f"{step}.db"
        with monkeypatch.context() as patch:
            killed_at(patch, step)
            try:
                backups.backup(config.database, target)
                break
            except Killed:
                pass
        if target.exists():
            backups.check_file(target)
    assert 3 < step < 39
    with pytest.raises(FileExistsError):
        backups.backup(config.database, target)


def test_a_folder_has_one_writer(config: Config, copy: Path, capsys: pytest.CaptureFixture[str]) -> None:
    data = config.data_dir
    lock = hold(data)
    for arguments in (["serve", "--port", "0"], ["restore", str(copy)]):
        assert main(["--data", str(data), *arguments]) == 1
        assert "in use" in capsys.readouterr().err
    lock.release()
    assert main(["--data", str(data), "restore", str(copy)]) == 0


def test_what_is_kept_is_its_owners_alone(config: Config) -> None:
    config.data_dir.chmod(0o755)
    before = os.umask(0o022)
    try:
        own_only(config.data_dir)
        backups.daily(config.database, config.backups, datetime.now(UTC))
        made = [config.data_dir, config.database, *config.backups.iterdir()]
        assert all(stat.S_IMODE(path.stat().st_mode) & 0o077 == 0 for path in made)
    finally:
        os.umask(before)


def test_automatic_backups_are_daily_and_thinned_out(config: Config) -> None:
    day = datetime(2031, 5, 1, 8, tzinfo=UTC)
    for hour in range(0, 24 * 60, 8):
        backups.daily(config.database, config.backups, day + timedelta(hours=hour))
    made = sorted(f.stem.removeprefix(backups.AUTOMATIC) for f in config.backups.glob("auto-*.db"))
    assert made[-7:] == [f"2031{day + timedelta(days=d):%m%d}T080000" for d in range(53, 60)]
    assert len(made) in (10, 11, 12)


def spoilt(config: Config, how: str) -> None:
    database = config.database
    with closing(sqlite3.connect(database)) as connection:
        connection.execute("PRAGMA wal_checkpoint(TRUNCATE)")
    match how:
        case "garbage":
            database.write_bytes(b"no database at all" * 500)
        case "truncated":
            os.truncate(database, database.stat().st_size // 2)
        case "empty":
            database.write_bytes(b"")
        case "newer":
            with sqlite3.connect(database) as connection:
                connection.execute("UPDATE alembic_version SET version_num = '9999'")
        case "foreign":
            with sqlite3.connect(database) as connection:
                connection.execute("DROP TABLE event")


@pytest.mark.parametrize(
    ("how", "says"),
    [
        ("garbage", "restore"),
        ("truncated", "restore"),
        ("empty", "restore"),
        ("newer", "newer version"),
        ("foreign", "restore"),
    ],
)
def test_each_damage_is_said_in_words_and_no_start_breaks(
    config: Config, copy: Path, how: str, says: str, capsys: pytest.CaptureFixture[str]
) -> None:
    assert main(["--data", str(config.data_dir), "doctor"]) == 1 and "no" in capsys.readouterr().out
    spoilt(config, how)
    assert main(["--data", str(config.data_dir), "serve", "--port", "0"]) == 1
    assert says in capsys.readouterr().err
    assert main(["--data", str(config.data_dir), "doctor"]) == 1
    out = capsys.readouterr().out
    assert "TO DO  database" in out and says in out
    # and the way out is one
    assert main(["--data", str(config.data_dir), "restore", str(copy)]) == 0
    assert name_of(config) == "New" and list(config.backups.glob("before-restore-*"))


def test_a_sound_folder_is_said_to_be_so(config: Config, tmp_path: Path) -> None:
    nothing = Config(tmp_path / "nothing")
    assert all(f.fine for f in examine(nothing.database, nothing.backups, datetime.now(UTC)))
    assert any("copy both" in f.words for f in examine(config.database, config.backups, datetime.now(UTC)))
    backups.daily(config.database, config.backups, datetime.now(UTC))
    assert all(f.fine for f in examine(config.database, config.backups, datetime.now(UTC)))
    later = examine(config.database, config.backups, datetime.now(UTC) + timedelta(days=9, hours=5, minutes=1))
    assert [f.what for f in later if not f.fine] == ["backups"]
    [told] = [f.words for f in later if f.what == "backups"]
    assert told.startswith("the newest is 9 days and 5 hours old: make one")
    # the screen says so too, not before
    now = datetime.now(UTC)
    old = [backups.state(config.database, config.backups, now + timedelta(days=days)).old for days in (0, 1, 9)]
    assert old == [False, False, True]


def as_of(config: Config, version: str) -> None:
    """The same things in a database as an earlier version made it."""
    with sqlite3.connect(config.database) as old:
        rows = {t: old.execute(f"SELECT * FROM {t} ORDER BY 1, 2").fetchall() for t in ("thing", "revision")}
    config.database.unlink()
    for tail in ("-wal", "-shm"):
        Path(f"{config.database}{tail}").unlink(missing_ok=True)
    engine, alembic = open_engine(config.database), AlembicConfig()
    alembic.set_main_option("script_location", str(MIGRATIONS))
    with engine.begin() as connection:
        alembic.attributes["connection"] = connection
        command.upgrade(alembic, version)
        for table, lines in rows.items():
            for line in lines:
                connection.exec_driver_sql(f"INSERT INTO {table} VALUES ({', '.join('?' * len(line))})", line)
    engine.dispose()


@pytest.mark.parametrize("version", ["0001", "0002"])
def test_data_of_each_earlier_version_comes_along(config: Config, version: str) -> None:
    as_of(config, version)
    assert name_of(config) == "Old"
    [copy] = config.backups.glob("before-migration-*.db")
    with sqlite3.connect(copy) as kept:
        assert kept.execute("SELECT version_num FROM alembic_version").fetchone() == (version,)


def test_a_start_killed_after_its_backup_is_not_in_the_way_of_the_next(
    config: Config, monkeypatch: pytest.MonkeyPatch
) -> None:
    as_of(config, "0001")
    with monkeypatch.context() as killed:
        killed.setattr("umber_pebble.store.engine.command.upgrade", lambda *_: 1 / 0)
        with pytest.raises(ZeroDivisionError):
            name_of(config)
    assert name_of(config) == "Old"
    assert len(list(config.backups.glob("before-migration-*.db"))) == 2


class Machine:
    """A machine whose clock may be stepped and which may sleep."""

    def __init__(self) -> None:
        self.ticks, self.system = 100.0, START

    def pass_s(self, seconds: float) -> None:
        self.ticks += seconds
        self.system += timedelta(seconds=seconds)

    def clock(self, not_before: datetime | None = None) -> SteadyClock:
        return SteadyClock(not_before, lambda: self.ticks, lambda: self.system)


def test_the_clock_counts_through_sleep_and_says_when_it_parts_from_the_machines() -> None:
    machine = Machine()
    clock = machine.clock()
    machine.pass_s(8 * 3600)
    assert clock.now() == START + timedelta(hours=8) and clock.ahead_s() == pytest.approx(0.0)
    machine.system += timedelta(hours=1)
    assert clock.now() == START + timedelta(hours=8) and clock.ahead_s() == pytest.approx(-3600.0)
    clock.follow()
    assert clock.now() == machine.system and clock.ahead_s() == pytest.approx(0.0)


def test_an_event_far_ahead_is_told_and_can_be_put_right() -> None:
    machine = Machine()
    clock = machine.clock(START + timedelta(days=3000))
    assert clock.ahead_s() == pytest.approx(3000 * 86400.0)
    clock.follow()
    assert clock.now() == START


def test_a_driven_clock_is_not_put_right() -> None:
    assert DrivenClock(START).ahead_s() == 0.0


@pytest.mark.parametrize("does", ["backup", "restore"])
def test_a_limit_on_files_is_said_in_words_and_leaves_all_as_it_was(config: Config, copy: Path, does: str) -> None:
    def limited() -> None:
        signal.signal(signal.SIGXFSZ, signal.SIG_IGN)
        resource.setrlimit(resource.RLIMIT_FSIZE, (50_000, 50_000))

    asked = [sys.executable, "-m", "umber_pebble.cli", "--data", str(config.data_dir), does]
    said = subprocess.run(
        [*asked, *([str(copy)] if does == "restore" else [])],
        preexec_fn=limited,
        capture_output=True,
        text=True,
        check=False,
        timeout=60,
    )
    assert said.returncode == 1 and "make room" in said.stderr and "Traceback" not in said.stderr
    assert list(config.backups.glob("*.db")) == [] and name_of(config) == "Old"


@pytest.mark.skipif(os.geteuid() != 0, reason="only root can give a folder to somebody else")
@pytest.mark.parametrize("does", ["serve", "backup", "restore", "doctor"])
def test_a_folder_that_is_not_ours_to_write_is_said_in_words(config: Config, copy: Path, does: str) -> None:
    with closing(sqlite3.connect(config.database)) as connection:
        connection.execute("PRAGMA wal_checkpoint(TRUNCATE)")
    for path in (config.data_dir, *config.data_dir.rglob("*")):
        path.chmod(0o555 if path.is_dir() else 0o444)
        os.chown(path, 65534, 65534)

    def bound_by_permissions() -> None:
        # source: prctl(2), PR_CAPBSET_DROP of CAP_DAC_OVERRIDE, CAP_DAC_READ_SEARCH, CAP_FOWNER (capabilities(7))
        assert all(ctypes.CDLL(None).prctl(24, capability, 0, 0, 0) == 0 for capability in (1, 2, 3))

    asked = [sys.executable, "-m", "umber_pebble.cli", "--data", str(config.data_dir), does]
    said = subprocess.run(
        [*asked, *{"serve": ["--port", "0"], "restore": [str(copy)]}.get(does, [])],
        preexec_fn=bound_by_permissions,
        capture_output=True,
        text=True,
        check=False,
        timeout=60,
    )
    words = said.stdout if does == "doctor" else said.stderr
    assert said.returncode == 1 and "make it yours" in words and "Traceback" not in said.stderr
    assert does != "doctor" or "database: sound" in words
