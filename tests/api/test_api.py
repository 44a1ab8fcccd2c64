"""The API at its edge: one error shape, nothing let through, types that are not stale."""

import copy
import functools
import gzip
import json
import subprocess
from collections.abc import Iterator
from pathlib import Path
from typing import Any

import pytest
from flask.testing import FlaskClient

from umber_pebble.app import create_app
from umber_pebble.config import Config
from umber_pebble.demo.fill import fill
from umber_pebble.demo.moulds import MOULDS
from umber_pebble.services.clock import DrivenClock
from umber_pebble.services.passes_page import page
from umber_pebble.services.start import open_workshop

ROOT = Path(__file__).parent.parent.parent
DISC = MOULDS["mould-disc"].model_dump(mode="json")


@pytest.fixture(scope="module")
def client(tmp_path_factory: pytest.TempPathFactory) -> Iterator[FlaskClient]:
    config = Config(tmp_path_factory.mktemp("api"), driven_clock=True)
    fill(config)
    workshop = open_workshop(config)
    assert isinstance(workshop.clock, DrivenClock)
    yield create_app(workshop).test_client()
    workshop.engine.dispose()


def problem(answer: Any, status: int) -> dict[str, Any]:
    assert answer.status_code == status
    assert answer.content_type == "application/problem+json"
    body = answer.get_json(force=True)
    assert set(body) == {"status", "code", "title", "path", "got", "limits", "params"}
    assert "Traceback" not in body["title"]
    return dict(body)


@pytest.mark.parametrize(
    ("field", "value"),
    [
        ("cavities.0.shape.diameter_m", 0),
        ("cavities.0.shape.diameter_m", -0.05),
        ("cavities.0.shape.diameter_m", 1e9),
        ("cavities.0.shape.depth_m", 0),
        ("cavities.0.count", 0),
        ("cavities.0.count", 1.5),
        ("cavities.0.count", False),
        ("cavities", []),
        ("wall_m", "3"),
        ("material", "ice"),
        ("name", ""),
        ("name", " "),
    ],
)
def test_impossible_moulds_say_field_and_limit_and_change_nothing(
    client: FlaskClient, field: str, value: Any
) -> None:
    before = client.get("/api/moulds").get_json()
    doc = copy.deepcopy(DISC)
    *inner, last = [int(part) if part.isdigit() else part for part in field.split(".")]
    functools.reduce(lambda at, part: at[part], inner, doc)[last] = value
    body = problem(client.put("/api/moulds/mould-disc", json={"version": 1, "doc": doc}), 422)
    assert body["path"].removeprefix("doc.") == field
    assert body["code"] == "out_of_range"
    assert client.get("/api/moulds").get_json() == before


@pytest.mark.parametrize("raw", [b"{", b'{"a": NaN}', b"[1, Infinity]", b"\xff\xfe"])
def test_what_is_not_json_is_refused(client: FlaskClient, raw: bytes) -> None:
    answer = client.post("/api/figures/cavity", data=raw, content_type="application/json")
    assert problem(answer, 400)["code"] == "not_json"


def test_an_integer_may_come_as_a_whole_float_and_a_number_not_as_false(client: FlaskClient) -> None:
    body = {"cavity": DISC["cavities"][0], "wall_m": 0.003, "cut_frac": 0}
    assert client.post("/api/figures/cavity", json=body).status_code == 200
    whole = {**body, "cavity": {**body["cavity"], "count": 14.0}}
    assert client.post("/api/figures/cavity", json=whole).status_code == 200
    problem(client.post("/api/figures/cavity", json={**body, "wall_m": False}), 422)


def test_fill_above_the_rim_and_unknown_things(client: FlaskClient) -> None:
    part = client.get("/api/pieces/piece-disc").get_json()["doc"]["parts"][0]
    part["passes"][0]["level_m"] = 0.05
    figures = client.post("/api/figures/part", json={"part": part, "cut_frac": 0.0}).get_json()["figures"]
    [fault] = figures["faults"]
    assert (fault["index"], fault["code"], fault["limit"]) == (0, "above_rim", pytest.approx(0.006))
    body = problem(
        client.post("/api/figures/pass", json={"part": part, "index": 0, "finished_kg": 5.0, "volume_m3": None}),
        422,
    )
    assert body["path"] == "finished_kg"
    assert problem(client.get("/api/moulds/none"), 404)["code"] == "not_found"
    assert problem(client.get("/api/nothing"), 404)["code"] == "not_found"
    assert problem(client.get("/api/bench"), 422)["path"] == "actor"
    answer = client.post("/api/figures/cavity", data=b"a=1", content_type="application/x-www-form-urlencoded")
    assert problem(answer, 415)["code"] == "unsupported_type"


def test_a_refused_way_says_its_field(client: FlaskClient) -> None:
    doc = client.get("/api/orders/order-first-light").get_json()["doc"]
    doc["ways"]["isomalt"]["cook_degc"] = 250.0
    body = problem(client.put("/api/orders/order-first-light", json={"version": 1, "doc": doc}), 422)
    assert body["path"] == "doc.ways.isomalt.cook_degc"
    # also where a kind is called as one of its fields
    [part] = client.get("/api/pieces/piece-pop").get_json()["doc"]["parts"]
    for name in ("degc", "filling"):
        wrong = [p | {name: None} if p["kind"] == "filling" else p for p in part["passes"]]
        asked = {"part": part | {"passes": wrong}, "cut_frac": 0.0}
        assert problem(client.post("/api/figures/part", json=asked), 422)["path"] == f"part.passes.3.{name}"


def test_a_stale_save_answers_409_with_both_states(client: FlaskClient) -> None:
    stored = client.get("/api/pieces/piece-lens").get_json()
    docs = [copy.deepcopy(stored["doc"]) for _ in range(2)]
    for doc, level in zip(docs, (0.0031, 0.0035), strict=True):
        doc["parts"][0]["passes"][0]["level_m"] = level
    first = client.put("/api/pieces/piece-lens", json={"version": 1, "doc": docs[0]})
    assert first.status_code == 200
    body = problem(client.put("/api/pieces/piece-lens", json={"version": 1, "doc": docs[1]}), 409)
    both = [body["params"][side]["parts"][0]["passes"][0]["level_m"] for side in ("stored", "sent")]
    assert both == [0.0031, 0.0035]


def test_a_due_time_in_the_past_is_refused(client: FlaskClient) -> None:
    stored = client.get("/api/orders/order-first-light").get_json()
    doc = {**stored["doc"], "due_at": "2001-01-01T10:00:00Z"}
    body = problem(
        client.put("/api/orders/order-first-light", json={"version": stored["version"], "doc": doc}), 422
    )
    assert body["path"] == "due_at"
    assert client.get("/api/orders/order-first-light").get_json() == stored


def test_only_this_machine_and_this_site_may_ask(client: FlaskClient) -> None:
    assert problem(client.get("/api/clock", headers={"Host": "evil.example"}), 403)["code"] == "foreign_host"
    foreign = client.post(
        "/api/clock", json={"advance_s": 1, "rate": None}, headers={"Origin": "http://evil.example"}
    )
    assert problem(foreign, 403)["code"] == "foreign_origin"
    page = client.get("/")
    assert "default-src 'self'" in page.headers["Content-Security-Policy"]
    assert "unsafe" not in page.headers["Content-Security-Policy"]


@pytest.mark.parametrize("path", ["/api/orders", "/api/openapi.json"])
def test_what_is_made_of_words_goes_out_packed_and_whole(client: FlaskClient, path: str) -> None:
    plain, packed = client.get(path), client.get(path, headers={"Accept-Encoding": "gzip"})
    assert packed.headers["Content-Encoding"] == "gzip"
    assert gzip.decompress(packed.data) == plain.data
    assert 3 * len(packed.data) < len(plain.data)


def test_a_clock_that_is_not_driven_cannot_be(tmp_path: Path) -> None:
    workshop = open_workshop(Config(tmp_path))
    answer = create_app(workshop).test_client().post("/api/clock", json={"advance_s": 5, "rate": None})
    assert problem(answer, 403)["code"] == "clock_not_driven"
    workshop.engine.dispose()


def test_document_and_types_are_not_stale(client: FlaskClient, tmp_path: Path) -> None:
    document = client.get("/api/openapi.json").get_json()
    kept = json.loads((ROOT / "docs/openapi.json").read_text("utf-8"))
    assert document == kept, "run: make types"
    assert page() == (ROOT / "docs/passes.md").read_text("utf-8"), "run: make types"
    fresh = tmp_path / "schema.d.ts"
    tool = ROOT / "web/node_modules/.bin/openapi-typescript"
    command = [str(tool), str(ROOT / "docs/openapi.json"), "-o", str(fresh), "--default-non-nullable=false"]
    subprocess.run(command, check=True, capture_output=True)
    assert fresh.read_text("utf-8") == (ROOT / "web/src/api/schema.d.ts").read_text("utf-8"), "run: make types"
