"""What an editor is told of passes is enough to build with: every kind is added, every field told, and the figures follow."""

from typing import Any

import pytest
from flask.testing import FlaskClient

from umber_pebble.app import create_app
from umber_pebble.config import Config
from umber_pebble.demo.fill import fill
from umber_pebble.services.start import open_workshop


@pytest.fixture(scope="module")
def client(tmp_path_factory: pytest.TempPathFactory) -> FlaskClient:
    config = Config(tmp_path_factory.mktemp("building"))
    fill(config)
    return create_app(open_workshop(config)).test_client()


def part_of(client: FlaskClient, piece: str) -> dict[str, Any]:
    part, *_ = client.get(f"/api/pieces/{piece}").get_json()["doc"]["parts"]
    return dict(part)


def figures(client: FlaskClient, part: dict[str, Any]) -> dict[str, Any]:
    answer = client.post("/api/figures/part", json={"part": part, "cut_frac": 0.0})
    assert answer.status_code == 200, answer.get_json()
    return dict(answer.get_json()["figures"])


def told(field: dict[str, Any], one: dict[str, Any], depth_m: float) -> dict[str, Any]:
    """A field as an editor first tells it, and what that does to others."""
    of = field["told"]
    if field["sort"] == "outline":
        value: Any = [[-0.002, -0.002], [0.002, -0.002], [0.002, 0.002]]
    elif field["sort"] == "melt":
        value = one["melt"] | {"colour": "#c98a2b"}
    elif of["first"] is None:
        value = 0.001
    else:
        value = min(of["first"]["of"], (of["first"]["depth_frac"] or 1.0) * depth_m)
    also = {row["field"]: row["told"] for row in of["also"]}
    return one | {field["name"]: value} | also | ({of["instead"]: None} if of["instead"] else {})


@pytest.mark.parametrize(
    ("piece", "on"),
    [
        ("piece-pop", "mould"),
        ("piece-berry", "body"),
        ("piece-constellation", "drawing"),
        ("piece-basket", "hand"),
    ],
)
def test_every_kind_is_added_where_it_belongs_and_every_field_of_it_told(
    client: FlaskClient, piece: str, on: str
) -> None:
    part, kinds = part_of(client, piece), client.get("/api/passes").get_json()["kinds"]
    base = {name: part[name] for name in ("mould_id", "cavity", "body")} | {"cut_frac": 0.0}
    depth_m = client.post("/api/figures/base", json=base).get_json()["base"]["section"]["depth_m"]
    offered = [kind for kind in kinds if on in kind["on"]]
    assert offered
    for kind in offered:
        for way in kind["ways"]:
            asked = {"part": part, "kind": kind["kind"], "way": way}
            added = client.post("/api/figures/addition", json=asked).get_json()["added"]
            passes = added["part"]["passes"]
            assert len(passes) == len(part["passes"]) + 1
            one = passes[added["index"]]
            assert one["kind"] == kind["kind"]
            rest = [p for i, p in enumerate(passes) if i != added["index"]]
            assert sorted(map(str, rest)) == sorted(map(str, part["passes"]))
            # where it was put is where it usually comes
            assert figures(client, added["part"])["usual"] == list(range(len(passes)))
            assert {field["name"] for field in kind["fields"]} <= one.keys()
            for field in kind["fields"]:
                if field["number"] and one[field["name"]] is not None:
                    assert field["number"]["low"] <= one[field["name"]] <= field["number"]["high"]
                if field["told"]:
                    changed = told(field, one, depth_m)
                    figures(client, added["part"] | {"passes": [changed if p is one else p for p in passes]})


def test_what_cannot_be_added_is_refused(client: FlaskClient) -> None:
    part = part_of(client, "piece-pop")
    full = {"part": part | {"passes": part["passes"][:1] * 16}, "kind": "detail", "way": None}
    answer = client.post("/api/figures/addition", json=full)
    assert answer.status_code == 422 and "16 passes at most" in answer.get_json()["title"]
    for wrong in ({"kind": "fill", "way": "brushed"}, {"kind": "rainbow", "way": None}):
        answer = client.post("/api/figures/addition", json={"part": part} | wrong)
        assert answer.status_code == 422 and answer.get_json()["path"] in ("way", "kind")


def test_a_melt_that_is_not_there_is_told_at_its_own_field(client: FlaskClient) -> None:
    part = part_of(client, "piece-nebula")
    [fill] = part["passes"]
    [other] = fill["others"]
    bad = fill["melt"] | {"material": "moonshine"}
    for name, told in (("melt", {"melt": bad}), ("others.0.melt", {"others": [other | {"melt": bad}]})):
        wrong = part | {"passes": [fill | told]}
        answer = client.post("/api/figures/part", json={"part": wrong, "cut_frac": 0.0})
        assert (answer.status_code, answer.get_json()["path"]) == (422, f"passes.0.{name}.material")


def test_what_is_first_put_in_is_as_warm_as_the_room(client: FlaskClient) -> None:
    room = client.get("/api/kitchen").get_json()["doc"]["room_degc"]
    asked = {"part": part_of(client, "piece-pop"), "kind": "filling", "way": None}
    added = client.post("/api/figures/addition", json=asked).get_json()["added"]
    assert added["part"]["passes"][added["index"]]["degc"] == room


def test_every_piece_to_start_from_can_be_cast(client: FlaskClient) -> None:
    items = client.get("/api/starts").get_json()["items"]
    assert len(items) >= 12
    for start in items:
        stored = client.post("/api/pieces", json={"id": f"start-{start['key']}", "doc": start["piece"]})
        assert stored.status_code == 201, stored.get_json()
        for part in start["piece"]["parts"]:
            found = figures(client, part)
            assert found["faults"] == [], start["key"]
            assert found["usual"] == list(range(len(part["passes"]))), start["key"]


def test_more_joins_than_two_hands_hold_are_held_by_props(client: FlaskClient) -> None:
    piece = client.get("/api/pieces/piece-dome").get_json()["doc"]
    join = client.post("/api/figures/join", json={"piece": piece}).get_json()["join"]
    assert (join["part"], join["to"], join["count"], join["props"]) == (0, 1, 8, 2)
    two = piece | {"parts": [piece["parts"][0] | {"count": 2}]}
    join = client.post("/api/figures/join", json={"piece": two}).get_json()["join"]
    assert (join["to"], join["count"], join["props"]) == (0, 1, 0)
