"""A server that is killed loses nothing that it acknowledged, and counts nothing twice."""

import json
import socket
from pathlib import Path
from typing import Any

import pytest

from tests.forks import forked
from tests.http import call, free_port

WREN = "Wren"


@pytest.mark.parametrize("kills", [5])
def test_no_acknowledged_event_is_lost_when_the_server_is_killed(tmp_path: Path, kills: int) -> None:
    port = free_port()
    server = forked(tmp_path, port, "--demo")
    base = f"http://127.0.0.1:{port}"
    body = {"id": "killed", "order_id": "order-first-light", "actor": WREN, "device": "test"}
    assert call(base, "POST", "/api/runs", body)[0] == 201
    acknowledged: list[str] = []
    unsure: list[str] = []
    for round_ in range(kills):
        for i in range(3):
            event = note(f"k{round_}-{i}")
            assert call(base, "POST", "/api/runs/killed/events", event)[0] == 201
            acknowledged.append(event["id"])
        # one more is on its way when the server dies
        last = note(f"k{round_}-last")
        unsure.append(last["id"])
        send_and_forget(port, last)
        server.kill()
        server = forked(tmp_path, port, "--demo")
        assert call(base, "POST", "/api/runs/killed/events", last)[0] == 201
    items = call(base, "GET", "/api/runs/killed/events")[1]["items"]
    server.kill()
    ids = [item["id"] for item in items]
    assert len(ids) == len(set(ids)) == 1 + len(acknowledged) + len(unsure)
    assert set(ids) >= {*acknowledged, *unsure}
    assert [item["seq"] for item in items] == list(range(1, len(items) + 1))


def note(event_id: str) -> dict[str, Any]:
    return {
        "id": event_id, "kind": "note", "payload": {"text": event_id}, "actor": WREN, "device": "test",
        "happened_at": None, "schema_version": 1,
    }  # fmt: skip


def send_and_forget(port: int, event: dict[str, Any]) -> None:
    body = json.dumps(event).encode()
    with socket.create_connection(("127.0.0.1", port)) as connection:
        head = f"POST /api/runs/killed/events HTTP/1.1\r\nHost: 127.0.0.1:{port}\r\nContent-Type: application/json\r\nContent-Length: {len(body)}\r\n\r\n"
        connection.sendall(head.encode() + body)
