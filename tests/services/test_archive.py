"""The whole workshop out and in: the same workshop, all or nothing, refusals by path."""

import copy
import json
from pathlib import Path
from typing import Any

import jsonschema
import pytest
from pydantic import ValidationError

from tests.services.test_runs import Hands
from umber_pebble.core.errors import CoreError
from umber_pebble.services import archive, logbook
from umber_pebble.services.runs import RunService
from umber_pebble.services.workshop import Workshop

SCHEMA = json.loads((Path(__file__).parents[2] / "docs/workshop.schema.json").read_text())


@pytest.fixture
def lived_in(stocked: Workshop) -> Workshop:
    hands = Hands(stocked)
    hands.pour_first()
    hands.do("unmoulded", 1200, round=0)
    hands.do("outcome", 1, round=0, cavities=[0, 1, 2], usable=True, kinds=[])
    hands.do("ended", 60, left_kg={"pot-heavy": 0.06})
    kitchen = stocked.get("kitchen", "kitchen")
    stocked.save("kitchen", "kitchen", kitchen.version, kitchen.doc.model_copy(update={"room_degc": 24.0}))
    return stocked


def read(text: str) -> archive.WorkshopFile:
    return archive.WorkshopFile.model_validate_json(text, strict=True)


def test_what_goes_out_fits_the_published_schema_and_comes_in_as_the_same(lived_in: Workshop) -> None:
    text = archive.export(lived_in)
    jsonschema.validate(json.loads(text), SCHEMA)
    assert archive.WorkshopFile.model_json_schema() == SCHEMA
    runs = RunService(lived_in)
    before = logbook.read(runs, "run")
    mould = lived_in.get("mould", "mould-disc")
    lived_in.save("mould", "mould-disc", mould.version, mould.doc.model_copy(update={"owned": 3}))
    kept = archive.import_workshop(lived_in, runs, read(text))
    assert kept.is_file()
    again, first = json.loads(archive.export(lived_in)), json.loads(text)
    assert again | {"exported_at": ""} == first | {"exported_at": ""}
    after = logbook.read(runs, "run")
    assert (after.lines, after.vessels) == (before.lines, before.vessels)
    assert next(s.doc for s in lived_in.all("mould") if s.id == "mould-disc") == mould.doc


def thing(doc: Any, kind: str) -> Any:
    return next(t for t in doc["things"] if t["kind"] == kind)


def first_pass(piece: Any) -> Any:
    return piece["revisions"][-1]["doc"]["parts"][0]["passes"][0]


def spoil(doc: Any, how: str) -> None:
    run, piece = doc["runs"][0], next(t for t in doc["things"] if t["id"] == "piece-disc")
    match how:
        case "version":
            doc["version"] = 2
        case "format":
            doc["format"] = "something else"
        case "type":
            first_pass(piece)["level_m"] = "deep"
        case "unknown field":
            doc["extra"] = 1
        case "fill":
            first_pass(piece)["melt"]["material"] = "gravel"
        case "reference":
            piece["revisions"][-1]["doc"]["parts"][0]["mould_id"] = "nowhere"
        case "twice":
            doc["things"].append(copy.deepcopy(piece))
        case "kitchen":
            doc["things"].remove(thing(doc, "kitchen"))
        case "revisions":
            piece["version"] = 5
        case "events":
            run["events"][3]["seq"] = 99
        case "ended":
            run["ended_at"] = None
        case "order":
            run["order_id"] = "nowhere"
        case "frozen":
            run["frozen"]["groups"] = [[[99, 3]]]


@pytest.mark.parametrize(
    ("how", "path"),
    [
        ("version", "version"),
        ("format", "format"),
        ("type", "level_m"),
        ("unknown field", "extra"),
        ("fill", "things.*material"),
        ("reference", "things.*mould_id"),
        ("twice", "things.*id"),
        ("kitchen", "things"),
        ("revisions", "things.*revisions"),
        ("events", "runs.0.events.3"),
        ("ended", "runs.0.ended_at"),
        ("order", "runs.0.order_id"),
        ("frozen", "runs.0"),
    ],
)
def test_what_does_not_hold_together_is_refused_by_path_and_changes_nothing(
    lived_in: Workshop, how: str, path: str
) -> None:
    text = archive.export(lived_in)
    doc = json.loads(text)
    spoil(doc, how)
    with pytest.raises((CoreError, ValidationError)) as refused:
        archive.import_workshop(lived_in, RunService(lived_in), read(json.dumps(doc)))
    if isinstance(refused.value, CoreError):
        assert path.split(".*")[0] in refused.value.path
        assert refused.value.path.endswith(path.split(".*")[-1]) or ".*" not in path
    else:
        assert path in str(refused.value)
    assert json.loads(archive.export(lived_in)) | {"exported_at": ""} == json.loads(text) | {"exported_at": ""}
    logbook.read(RunService(lived_in), "run")
