"""Whole workshops of older versions, as those exported them, with a finished run in each: they open, and what they showed before
melts became families and passes became modules is what they show."""

import json
from pathlib import Path
from typing import Any

import pytest
from flask.testing import FlaskClient

from tests.answers.test_answers import same, short
from tests.conftest import START
from umber_pebble.app import create_app
from umber_pebble.config import Config
from umber_pebble.services.clock import DrivenClock
from umber_pebble.services.start import open_workshop

OLDER = Path(__file__).parent / "older"
# by 0.7 in the state right before that change
KEPT = json.loads((OLDER / "figures.json").read_text("utf-8"))
NUMBERS = ("charge", "poured", "fresh", "hob", "opens", "closes", "capacity")


def figures(client: FlaskClient) -> dict[str, Any]:
    def all_of(path: str) -> list[Any]:
        return list(client.get(path).get_json()["items"])

    orders, pieces, runs = dict[str, Any](), dict[str, Any](), dict[str, Any]()
    for item in all_of("/api/orders"):
        plan = client.post("/api/figures/plan", json=item["doc"]).get_json()
        plan = plan.get("plan", plan)
        cooks = [{name: cook[name]["value"]["likely"] for name in NUMBERS} for cook in plan["cooks"]]
        orders[item["id"]] = {"casts": plan["casts"]["value"]["likely"], "cooks": cooks}
    for item in all_of("/api/pieces"):
        asked = [{"part": part, "cut_frac": 0.0} for part in item["doc"]["parts"]]
        laid = [client.post("/api/figures/part", json=body).get_json()["figures"] for body in asked]
        pieces[item["id"]] = [of["finished"]["value"]["likely"] for of in laid]
    for item in all_of("/api/log"):
        readings = client.get(f"/api/runs/{item['id']}/readings.csv").get_data(as_text=True)
        runs[item["id"]] = [item, client.get(f"/api/log/{item['id']}").get_json(), readings.splitlines()]
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
    now = json.loads(json.dumps(short(figures(client))))
    assert list(same(KEPT[version], now)) == []
    assert now["runs"] and now["orders"] and now["pieces"]
