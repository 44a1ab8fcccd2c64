"""A server that is killed loses nothing that it acknowledged, counts nothing twice and leaves nothing torn."""

import contextlib
import json
import os
import random
import shutil
import socket
import sqlite3
import time
from pathlib import Path
from typing import Any

from tests.forks import Forked, forked
from tests.http import call, free_port
from tests.store.test_safe import as_of
from umber_pebble.config import Config
from umber_pebble.demo.fill import fill

WREN = "Wren"
KILLS = int(os.environ.get("KILLS", "5"))
LONGEST_S = {"save": 0.02, "import": 0.4, "migration": 0.25}


class Power:
    """A server whose power goes, at a moment that changes from time to time."""

    def __init__(self, folder: Path) -> None:
        self.folder, self.chance = folder, random.Random(7)
        self.on()

    def on(self) -> None:
        self.port = free_port()
        self.base = f"http://127.0.0.1:{self.port}"
        self.server: Forked = forked(self.folder, self.port)

    def goes(self, within_s: float) -> None:
        time.sleep(self.chance.uniform(0.0, within_s))
        self.server.kill()
        with sqlite3.connect(Config(self.folder).database) as whole:
            assert whole.execute("PRAGMA integrity_check").fetchone() == ("ok",)
        self.on()

    def ask(self, method: str, path: str, body: Any = None) -> Any:
        status, answer = call(self.base, method, path, body)
        assert status < 300, answer
        return answer


def test_no_acknowledged_event_is_lost_when_the_server_is_killed(tmp_path: Path) -> None:
    fill(Config(tmp_path))
    power = Power(tmp_path)
    body = {"id": "killed", "order_id": "order-first-light", "actor": WREN, "device": "test"}
    power.ask("POST", "/api/runs", body)
    acknowledged: list[str] = []
    unsure: list[str] = []
    for round_ in range(KILLS):
        for i in range(3):
            event = note(f"k{round_}-{i}")
            power.ask("POST", "/api/runs/killed/events", event)
            acknowledged.append(event["id"])
        # one more is on its way when the server dies
        last = note(f"k{round_}-last")
        unsure.append(last["id"])
        send_and_forget(power.port, "POST", "/api/runs/killed/events", last)
        power.goes(0.02)
        power.ask("POST", "/api/runs/killed/events", last)
    items = power.ask("GET", "/api/runs/killed/events")["items"]
    power.server.kill()
    ids = [item["id"] for item in items]
    assert len(ids) == len(set(ids)) == 1 + len(acknowledged) + len(unsure)
    assert set(ids) >= {*acknowledged, *unsure}
    assert [item["seq"] for item in items] == list(range(1, len(items) + 1))


def test_a_save_is_whole_or_not_at_all(tmp_path: Path) -> None:
    fill(Config(tmp_path))
    power = Power(tmp_path)
    for i in range(KILLS):
        stored = power.ask("GET", "/api/pieces/piece-lens")
        news = {**stored["doc"], "name": f"Lens {i}"}
        send_and_forget(power.port, "PUT", "/api/pieces/piece-lens", {"version": stored["version"], "doc": news})
        power.goes(LONGEST_S["save"])
        now = power.ask("GET", "/api/pieces/piece-lens")
        assert (now["version"], now["doc"]) in [
            (stored["version"], stored["doc"]),
            (stored["version"] + 1, news),
        ]
    power.server.kill()


def test_an_import_is_whole_or_not_at_all(tmp_path: Path) -> None:
    fill(Config(tmp_path / "of"))
    power = Power(tmp_path / "of")
    exported = power.ask("GET", "/api/workshop")
    power.server.kill()
    seen = set[int]()
    for i in range(KILLS):
        power = Power(tmp_path / str(i))
        send_and_forget(power.port, "POST", "/api/workshop", exported)
        power.goes(LONGEST_S["import"])
        seen.add(sum(len(power.ask("GET", f"/api/{kind}")["items"]) for kind in ("moulds", "pieces", "orders")))
        power.server.kill()
        shutil.rmtree(tmp_path / str(i))
    assert len(seen) <= 2 and min(seen) in (0, max(seen))


def test_a_migration_that_is_killed_is_done_at_the_next_start(tmp_path: Path) -> None:
    made = Config(tmp_path / "made")
    fill(made)
    as_of(made, "0001")
    for i in range(KILLS):
        shutil.copytree(made.data_dir, tmp_path / str(i))
        server = forked(tmp_path / str(i), free_port(), waits=False)
        time.sleep(random.Random(i).uniform(0.0, LONGEST_S["migration"]))
        server.kill()
        power = Power(tmp_path / str(i))
        assert power.ask("GET", "/api/pieces/piece-lens")["doc"]["name"]
        power.goes(0.0)
        power.server.kill()


def note(event_id: str) -> dict[str, Any]:
    return {
        "id": event_id,
        "kind": "note",
        "payload": {"text": event_id},
        "actor": WREN,
        "device": "test",
        "happened_at": None,
        "schema_version": 1,
    }


def send_and_forget(port: int, method: str, path: str, asked: Any) -> None:
    body = json.dumps(asked).encode()
    head = f"{method} {path} HTTP/1.1\r\nHost: 127.0.0.1:{port}\r\nContent-Type: application/json\r\nContent-Length: {len(body)}\r\n\r\n"
    with socket.create_connection(("127.0.0.1", port)) as connection:
        connection.sendall(head.encode() + body)
        # heard out for a moment, since who hangs up takes its request back
        connection.settimeout(0.005)
        with contextlib.suppress(TimeoutError):
            connection.recv(1)
