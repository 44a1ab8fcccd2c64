"""What kitchens do to computers: a full disk, a stepped clock, summer time, the same act twice."""

import time
from datetime import UTC, datetime, timedelta
from pathlib import Path

import pytest
from sqlalchemy import event

from tests.services.test_runs import Hands, order
from umber_pebble.app import create_app
from umber_pebble.config import Config
from umber_pebble.core.errors import NotInSequence
from umber_pebble.services import bench, clock
from umber_pebble.services.clock import DrivenClock, SteadyClock
from umber_pebble.services.errors import DiskFull
from umber_pebble.services.start import open_workshop
from umber_pebble.services.workshop import Workshop


def test_a_full_disk_refuses_in_words_and_loses_nothing(stocked: Workshop) -> None:
    hands = Hands(stocked)
    hands.pour_first()
    before = bench.view(hands.runs, "run", "Wren").seq
    full = True

    @event.listens_for(stocked.engine, "begin")
    def no_room(connection) -> None:  # type: ignore[no-untyped-def]
        pages = connection.exec_driver_sql("PRAGMA page_count").scalar()
        connection.exec_driver_sql(f"PRAGMA max_page_count = {pages if full else 10**6}")

    with pytest.raises(DiskFull, match="make room"):
        for _ in range(200):
            hands.do("note", 1, text="x" * 500)
    kept = bench.view(hands.runs, "run", "Wren").seq
    answer = (
        create_app(stocked)
        .test_client()
        .post(
            "/api/runs/run/events",
            json={
                "id": "n",
                "kind": "note",
                "payload": {"text": "x" * 500},
                "actor": "Wren",
                "device": "t",
                "happened_at": None,
                "schema_version": 1,
            },
        )
    )
    assert (answer.status_code, answer.get_json()["code"]) == (507, "disk_full")
    client = create_app(stocked).test_client()
    exported = client.get("/api/workshop").get_json()
    piece = next(thing for thing in exported["things"] if thing["kind"] == "piece")
    exported["things"] += [{**piece, "id": f"more-{i}"} for i in range(400)]
    brought = client.post("/api/workshop", json=exported)
    assert (brought.status_code, brought.get_json()["code"]) == (507, "disk_full")
    full = False
    hands.do("note", 1, text="there is room again")
    assert bench.view(hands.runs, "run", "Wren").seq == kept + 1 > before


def test_a_clock_stepped_by_an_hour_moves_nothing(monkeypatch: pytest.MonkeyPatch) -> None:
    steady = SteadyClock()
    first, monotonic = steady.now(), time.monotonic()

    class Stepped(datetime):
        @classmethod
        def now(cls, tz=None) -> datetime:  # type: ignore[no-untyped-def, override]
            return datetime.now(tz) + timedelta(hours=1)

    monkeypatch.setattr(clock, "datetime", Stepped)
    assert steady.now() - first < timedelta(seconds=time.monotonic() - monotonic + 1)


def test_an_hour_back_at_the_start_never_begins_before_the_newest_event(tmp_path: Path) -> None:
    ahead = DrivenClock(datetime.now(UTC) + timedelta(hours=1))
    workshop = open_workshop(Config(tmp_path), ahead)
    kitchen = workshop.get("kitchen", "kitchen")
    assert kitchen.version == 1
    workshop.engine.dispose()
    steady = SteadyClock(ahead.now())
    assert steady.now() >= ahead.now() - timedelta(milliseconds=1)


def test_summer_time_within_a_run_moves_nothing(tmp_path: Path) -> None:
    # the night of 26 October 2031: at 02:00 in London it is 01:00 again
    london = DrivenClock(datetime(2031, 10, 26, 0, 40, tzinfo=UTC))
    workshop = open_workshop(Config(tmp_path), london)
    from umber_pebble.demo.fill import KITCHEN
    from umber_pebble.demo.moulds import MOULDS
    from umber_pebble.demo.pieces import PIECES

    kitchen = workshop.get("kitchen", "kitchen")
    workshop.save("kitchen", "kitchen", kitchen.version, KITCHEN)
    for key, mould in MOULDS.items():
        workshop.create("mould", key, mould)
    for key, piece in PIECES.items():
        workshop.create("piece", key, piece)
    workshop.create("order", "order", order(workshop))
    hands = Hands(workshop)
    hands.pour_first()
    before = bench.view(hands.runs, "run", "Wren")
    london.drive(3600, None)
    after = bench.view(hands.runs, "run", "Wren")
    assert after.elapsed_s - before.elapsed_s == pytest.approx(3600, abs=1)
    unmould = [
        next(a.opens_s for a in v.acts if a.what.kind == "unmould" and not a.forecast) for v in (before, after)
    ]
    assert unmould[0] == unmould[1]
    workshop.engine.dispose()


def test_the_same_act_from_two_devices_counts_once(stocked: Workshop) -> None:
    hands = Hands(stocked)
    hands.pour_first()
    with pytest.raises(NotInSequence, match="poured already"):
        hands.do("poured", 0, round=0)
    kinds = [e.kind for e in hands.runs.look("run")[3]]
    assert kinds.count("poured") == 1
