"""Whole workshops of older versions, as those exported them, with a finished run in each: they open, and what they showed of pieces
and runs before melts became families and passes became modules is what they show; of orders, how many are cast."""

import json
from pathlib import Path
from typing import Any

import pytest
from flask.testing import FlaskClient

from tests.answers.test_answers import same, short
from tests.conftest import START
from umber_pebble.app import create_app
from umber_pebble.config import Config
from umber_pebble.core.plan.compile import compile_plan
from umber_pebble.services.clock import DrivenClock
from umber_pebble.services.documents import Order
from umber_pebble.services.gathering import snapshot_of
from umber_pebble.services.snapshot import plan_input
from umber_pebble.services.start import open_workshop
from umber_pebble.services.workshop import Workshop

OLDER = Path(__file__).parent / "older"
# by 0.7 in the state right before that change
KEPT = json.loads((OLDER / "figures.json").read_text("utf-8"))


def figures(client: FlaskClient, workshop: Workshop) -> dict[str, Any]:
    def all_of(path: str) -> list[Any]:
        return list(client.get(path).get_json()["items"])

    orders, pieces, runs = dict[str, Any](), dict[str, Any](), dict[str, Any]()
    for item in all_of("/api/orders"):
        with workshop.session() as session:
            order = Order.model_validate(item["doc"], strict=False)
            plan = compile_plan(plan_input(snapshot_of(session, order), START))
        casts = sum(r.casts for r in plan.rounds if plan.problem.lines[r.line].cast_off)
        orders[item["id"]] = {"casts": casts}
    for item in all_of("/api/pieces"):
        asked = [{"part": part, "cut_frac": 0.0} for part in item["doc"]["parts"]]
        laid = [client.post("/api/figures/part", json=body).get_json()["figures"] for body in asked]
        pieces[item["id"]] = [of["finished"]["value"]["likely"] for of in laid]
    for item in all_of("/api/log"):
        readings = client.get(f"/api/runs/{item['id']}/readings.csv").get_data(as_text=True)
        log = client.get(f"/api/log/{item['id']}").get_json()
        # nothing was made together then
        assert log["log"].pop("orders") == []
        runs[item["id"]] = [item, log, readings.splitlines()]
    return {"orders": orders, "pieces": pieces, "runs": runs}


@pytest.mark.parametrize("version", ["0.4", "0.5", "0.6", "0.7"])
def test_a_workshop_of_an_older_version_opens_with_its_figures(tmp_path: Path, version: str) -> None:
    workshop = open_workshop(Config(tmp_path, driven_clock=True))
    assert isinstance(workshop.clock, DrivenClock)
    workshop.clock.drive((START - workshop.clock.now()).total_seconds(), 0.0)
    client = create_app(workshop).test_client()
    text = (OLDER / f"{version}.json").read_text("utf-8")
    answer = client.post("/api/workshop", data=text, content_type="application/json")
    assert answer.status_code == 200, answer.get_json()
    now = json.loads(json.dumps(short(figures(client, workshop))))
    assert list(same(KEPT[version], now)) == []
    assert now["runs"] and now["orders"] and now["pieces"]
