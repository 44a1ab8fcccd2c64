"""A generated attack on the API from its own OpenAPI document: whatever is sent, never a server error."""

import os
import sqlite3
from collections.abc import Iterator
from typing import Any
from urllib.parse import quote

import pytest
import schemathesis
from flask import Flask
from flask.testing import FlaskClient
from hypothesis import HealthCheck, Phase, given, settings
from hypothesis import strategies as st

from umber_pebble.app import create_app
from umber_pebble.config import Config
from umber_pebble.demo.fill import fill
from umber_pebble.services.start import open_workshop

# `make fuzz` asks for more
FEW = 2
CASES = int(os.environ.get("UMBER_PEBBLE_CASES", "600"))


@pytest.fixture(scope="module")
def config(tmp_path_factory: pytest.TempPathFactory) -> Config:
    return Config(tmp_path_factory.mktemp("attack"), driven_clock=True)


@pytest.fixture(scope="module")
def app(config: Config) -> Iterator[Flask]:
    fill(config)
    workshop = open_workshop(config)
    yield create_app(workshop)
    workshop.engine.dispose()


def test_no_generated_request_breaks_the_server(app: Flask, config: Config) -> None:
    watch = sqlite3.connect(config.database)

    def changes() -> int:
        """Counts what others have committed. Source: sqlite.org, PRAGMA data_version"""
        return int(watch.execute("PRAGMA data_version").fetchone()[0])

    schema = schemathesis.openapi.from_wsgi("/api/openapi.json", app)
    operations = [found.ok() for found in schema.get_all_operations()]
    assert len(operations) >= 40
    # those that take nothing are asked once; a whole workshop and a piece of many passes are slow to make up, and have hostile
    # tests of their own
    few = {
        "/api/workshop",
        "/api/pieces",
        "/api/pieces/{id}",
        "/api/figures/part",
        "/api/figures/pass",
        "/api/figures/sets",
        "/api/figures/base",
    }
    asked = [o for o in operations if "{" in o.path or o.method.upper() in ("POST", "PUT", "DELETE")]
    each = -(-CASES // sum(o.path not in few for o in asked))
    sent = 0
    client = app.test_client()
    ids = {
        "id": st.sampled_from(
            ["run-rehearsal", "order-planets", "mould-sky", "piece-disc", "a", "nowhere", "%00", "../x"]
        )
    }

    for operation in operations:

        @settings(
            max_examples=FEW if operation.path in few else each,
            phases=[Phase.generate],
            deadline=None,
            database=None,
            suppress_health_check=list(HealthCheck),
        )
        @given(case=operation.as_strategy(), known=st.fixed_dictionaries(ids), swap=st.booleans())
        def attack(case: Any, known: dict[str, str], swap: bool) -> None:
            nonlocal sent
            if swap and case.path_parameters:
                case.path_parameters = {**case.path_parameters, **known}
            before = changes()
            kwargs = case.as_transport_kwargs(base_url="http://localhost")
            answer = client.open(
                case.formatted_path,
                method=case.method,
                query_string=kwargs.get("params"),
                json=kwargs.get("json"),
                headers={"Content-Type": "application/json"} if kwargs.get("json") is not None else {},
            )
            sent += 1
            assert answer.status_code < 500 or answer.get_json()["code"] == "disk_full", answer.data
            if answer.status_code >= 400:
                assert answer.content_type == "application/problem+json"
                assert changes() == before, "a refusal changed something"

        attack()
    # of some there are not so many different ones
    assert sent >= 0.95 * CASES
    watch.close()
    asked_for = list(every_get(client, [o.path for o in operations if o.method.upper() == "GET"]))
    assert len(asked_for) > 60
    # a mould that is no sheet has no cutting plan, and one without a drawing none to pipe over: that is said in words
    moulds = {quote(of["id"], safe=""): of["doc"] for of in client.get("/api/moulds").get_json()["items"]}
    sheets = {key for key, doc in moulds.items() if doc["sheet"]}
    drawn = {key for key, doc in moulds.items() if any(of["shape"]["kind"] == "lines" for of in doc["cavities"])}
    assert sheets and drawn
    for path in asked_for:
        known = next((of for part, of in (("/cutting", sheets), ("/drawing", drawn)) if part in path), None)
        none = known is not None and path.split("/")[3] not in known
        assert client.get(path).status_code == (422 if none else 200), path


def every_get(client: FlaskClient, paths: list[str]) -> Iterator[str]:
    """Everything there is to be read: each path, for each thing that its list names."""
    for path in paths:
        if path.count("{") > 1:
            # what the demo has none of
            continue
        among, of_one, _ = path.partition("/{id}")
        if not of_one:
            yield f"{path}?actor=Wren"
            continue
        answer = client.get("/api/log" if among == "/api/runs" else among).get_json()
        yield from (f"{path.replace('{id}', quote(item['id'], safe=''))}?actor=Wren" for item in answer["items"])
