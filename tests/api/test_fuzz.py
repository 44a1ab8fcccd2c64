"""Whatever is sent, the answer is a proper one: never a stack trace, never a 500, nothing half done."""

import copy
from collections.abc import Iterator
from typing import Any

import pytest
from flask.testing import FlaskClient
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from umber_pebble.app import create_app
from umber_pebble.config import Config
from umber_pebble.demo.fill import fill
from umber_pebble.services.start import open_workshop

JUNK = st.one_of(
    st.none(),
    st.booleans(),
    st.integers(-(10**12), 10**12),
    st.floats(allow_nan=False, allow_infinity=False),
    st.text(max_size=12),
    st.lists(st.integers(), max_size=2),
    st.dictionaries(st.text(max_size=3), st.integers(), max_size=2),
)


@pytest.fixture(scope="module")
def client(tmp_path_factory: pytest.TempPathFactory) -> Iterator[FlaskClient]:
    config = Config(tmp_path_factory.mktemp("fuzz"), driven_clock=True)
    fill(config)
    workshop = open_workshop(config)
    made = create_app(workshop).test_client()
    made.post("/api/runs", json={"id": "run", "order_id": "order-first-light", "actor": "Wren", "device": "t"})
    yield made
    workshop.engine.dispose()


def bodies(client: FlaskClient) -> dict[tuple[str, str], Any]:
    def doc(path: str) -> Any:
        return client.get(path).get_json()

    mould, piece, order = (
        doc("/api/moulds/mould-disc"),
        doc("/api/pieces/piece-disc"),
        doc("/api/orders/order-comet"),
    )
    kitchen, pop = doc("/api/kitchen"), doc("/api/pieces/piece-pop")
    event = {
        "id": "e",
        "kind": "note",
        "payload": {"text": "x"},
        "actor": "Wren",
        "device": "t",
        "happened_at": None,
    }
    return {
        ("POST", "/api/figures/cavity"): {"cavity": mould["doc"]["cavities"][0], "wall_m": 0.003, "cut_frac": 0.0},
        ("POST", "/api/figures/part"): {"part": pop["doc"]["parts"][0], "cut_frac": 0.1},
        ("POST", "/api/figures/sets"): {"part": pop["doc"]["parts"][0]},
        ("POST", "/api/figures/addition"): {"part": pop["doc"]["parts"][0], "kind": "detail", "way": "brushed"},
        ("POST", "/api/figures/pass"): {
            "part": pop["doc"]["parts"][0],
            "index": 1,
            "finished_kg": 0.005,
            "volume_m3": None,
        },
        ("POST", "/api/figures/plan"): order["doc"],
        ("PUT", "/api/moulds/mould-disc"): {"version": mould["version"], "doc": mould["doc"]},
        ("PUT", "/api/pieces/piece-disc"): {"version": piece["version"], "doc": piece["doc"]},
        ("PUT", "/api/kitchen"): {"version": kitchen["version"], "doc": kitchen["doc"]},
        ("POST", "/api/runs"): {"id": "x", "order_id": "order-comet", "actor": "Wren", "device": "t"},
        ("POST", "/api/runs/run/events"): {**event, "schema_version": 1},
        ("POST", "/api/clock"): {"advance_s": 1.0, "rate": None},
    }


def leaves(value: Any, path: tuple[Any, ...] = ()) -> list[tuple[Any, ...]]:
    items = value.items() if isinstance(value, dict) else enumerate(value) if isinstance(value, list) else []
    return [path, *(leaf for key, inner in items for leaf in leaves(inner, (*path, key)))]


def with_junk(body: Any, path: tuple[Any, ...], junk: Any) -> Any:
    if not path:
        return junk
    made = copy.deepcopy(body)
    spot = made
    for key in path[:-1]:
        spot = spot[key]
    spot[path[-1]] = junk
    return made


@settings(max_examples=150, deadline=None, suppress_health_check=[HealthCheck.function_scoped_fixture])
@given(data=st.data())
def test_no_body_breaks_the_service(client: FlaskClient, data: st.DataObject) -> None:
    known = bodies(client)
    method, path = data.draw(st.sampled_from(sorted(known)))
    body = known[(method, path)]
    for _ in range(data.draw(st.integers(1, 2))):
        spot = data.draw(st.sampled_from(leaves(body)))
        body = with_junk(body, spot, data.draw(JUNK))
        if not isinstance(body, dict):
            break
    answer = client.open(path, method=method, json=body)
    assert answer.status_code < 500, answer.get_data(as_text=True)
    if answer.status_code >= 400:
        problem = answer.get_json(force=True)
        assert problem["code"]
        assert problem["title"]
        assert "Traceback" not in problem["title"]
    assert client.get("/api/moulds").status_code == 200
    assert client.get("/api/runs/run/bench?actor=Wren").status_code == 200
