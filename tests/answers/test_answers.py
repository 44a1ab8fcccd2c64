"""The figures of the demo workshop stay as they are until somebody means to change them: make answers writes them anew, and the
difference is read before it is committed. Whether they are right is shown elsewhere."""

import json
import math
import os
import zlib
from collections.abc import Iterator
from io import BytesIO
from pathlib import Path
from typing import Any

import pytest
from flask.testing import FlaskClient
from pypdf import PdfReader

from tests.answers.asked import questions
from tests.answers.wander import Wanderer
from tests.conftest import START
from tests.services.test_led import Hand
from umber_pebble.app import create_app
from umber_pebble.config import Config
from umber_pebble.demo.fill import WREN, fill
from umber_pebble.services.clock import DrivenClock
from umber_pebble.services.start import open_workshop

KEPT = Path(__file__).parent / "kept"
ANEW = "KEEP_ANSWERS" in os.environ
FEW, DIGITS = 12, 5
LOOKED_AT = 40
WANDERS = 50
# which version reckoned it is no figure
NOT_KEPT, SUM = "engine", "sum"


def short(value: Any) -> Any:
    """An answer as it is kept: figures to five digits, of a long row its ends, number and sum."""
    if isinstance(value, float):
        return float(f"{value:.{DIGITS}g}")
    if isinstance(value, dict):
        return {key: of if key == SUM else short(of) for key, of in value.items() if key != NOT_KEPT}
    if isinstance(value, list):
        if len(value) > FEW and all(isinstance(x, int | float) for x in value):
            return {
                "of": len(value),
                "ends": short([value[0], value[len(value) // 2], value[-1], float(sum(value))]),
            }
        if len(value) > 2 * FEW and not all(isinstance(x, str) for x in value):
            return {
                "of": len(value),
                "ends": [short(of) for of in (*value[:4], value[-1])],
                SUM: summed(value),
            }
        return [short(of) for of in value]
    return value


def total(value: Any) -> float:
    """Everything that is counted, measured or said in an answer, added up: moves when any of it does, the small as the large."""
    if isinstance(value, dict):
        return sum(total(of) for key, of in value.items() if key != NOT_KEPT)
    if isinstance(value, list):
        return sum(total(of) for of in value)
    if isinstance(value, str):
        return zlib.crc32(value.encode()) / 2**32
    return math.copysign(math.log1p(1000 * abs(value)), value) if isinstance(value, int | float) else 0.0


def summed(value: Any) -> float:
    """The same with as many digits as tell one figure in a hundred."""
    return round(total(value), 4)


def same(kept: Any, now: Any, at: str = "") -> Iterator[str]:
    """Where two answers differ by more than their last digit."""
    if isinstance(kept, dict) and isinstance(now, dict):
        for key in sorted(kept.keys() | now.keys()):
            yield from same(kept.get(key, "nothing"), now.get(key, "nothing"), f"{at}.{key}")
    elif isinstance(kept, list) and isinstance(now, list) and len(kept) == len(now):
        for i, (old, new) in enumerate(zip(kept, now, strict=True)):
            yield from same(old, new, f"{at}.{i}")
    elif isinstance(kept, int | float) and isinstance(now, int | float) and not isinstance(kept, bool):
        if now != pytest.approx(kept, rel=1e-6 if at.endswith(f".{SUM}") else 2e-4, abs=1e-9):
            yield f"{at}: {kept} -> {now}"
    elif kept != now:
        yield f"{at}: {str(kept)[:200]} -> {str(now)[:200]}"


def check(name: str, answer: Any) -> None:
    file, now = KEPT / f"{name.split()[0]}.json", short(answer)
    rows = json.loads(file.read_text("utf-8")) if file.exists() else {}
    if ANEW:
        KEPT.mkdir(exist_ok=True)
        file.write_text(
            json.dumps(rows | {name: now}, indent=0, sort_keys=True, ensure_ascii=False) + "\n", "utf-8"
        )
    else:
        assert list(same(rows[name], json.loads(json.dumps(now)))) == []


def read(answer: Any) -> Any:
    if answer.mimetype == "application/pdf":
        return [
            line for page in PdfReader(BytesIO(answer.data)).pages for line in page.extract_text().splitlines()
        ]
    return answer.get_json() if answer.is_json else answer.get_data(as_text=True).splitlines()


def _client(folder: Path) -> FlaskClient:
    config = Config(folder, driven_clock=True)
    fill(config, START)
    workshop = open_workshop(config)
    assert isinstance(workshop.clock, DrivenClock)
    return create_app(workshop).test_client()


@pytest.fixture(scope="module")
def client(tmp_path_factory: pytest.TempPathFactory) -> FlaskClient:
    return _client(tmp_path_factory.mktemp("answers"))


@pytest.fixture(scope="module")
def asked(client: FlaskClient) -> dict[str, tuple[str, Any]]:
    return {name: (address, body) for name, address, body in questions(client.get, client.post)}


NAMES = (
    json.loads((KEPT / "names.json").read_text("utf-8"))
    if (KEPT / "names.json").exists() and not ANEW
    else ["names"]
)


def test_the_same_is_asked(asked: dict[str, tuple[str, Any]]) -> None:
    if ANEW:
        KEPT.mkdir(exist_ok=True)
        (KEPT / "names.json").write_text(json.dumps(list(asked), indent=0) + "\n", "utf-8")
    assert list(asked) == json.loads((KEPT / "names.json").read_text("utf-8"))


@pytest.mark.parametrize("name", NAMES)
def test_what_is_answered(client: FlaskClient, asked: dict[str, tuple[str, Any]], name: str) -> None:
    for key in asked if ANEW else [name]:
        address, body = asked[key]
        check(key, read(client.get(address) if body is None else client.post(address, json=body)))


@pytest.mark.parametrize("order", ["order-first-light", "order-domes", "order-dips"])
def test_a_run_as_the_bench_shows_it(tmp_path: Path, order: str) -> None:
    hand = Hand(tmp_path, order)
    client = create_app(hand.workshop).test_client()
    for step in range(400):
        if step < LOOKED_AT or step % LOOKED_AT == 0:
            shown = read(client.get(f"/api/runs/led/bench?actor={WREN}"))
            whole = step in (0, 4, 8, 16, 32, 64, 128)
            acts = [
                f"{act['what']['kind']} {act['subject']['of']}:{act['subject']['number']}"
                for act in shown["view"]["acts"]
            ]
            check(f"bench {order} {step}", shown if whole else {"acts": acts, SUM: summed(shown)})
        if not hand.step():
            break
    check(f"bench {order} cards", read(client.get("/api/runs/led/cards")))
    check(f"bench {order} log", read(client.get("/api/log/led")))


@pytest.mark.parametrize(
    ("order", "seed"),
    [
        ("order-first-light", 1),
        ("order-comet", 2),
        ("order-meteorites", 3),
        ("order-planets", 4),
        ("order-sampler", 5),
    ],
)
def test_a_run_that_wanders(tmp_path: Path, order: str, seed: int) -> None:
    hand = Wanderer(tmp_path, order, seed)
    client = create_app(hand.workshop).test_client()
    hand.tell("acknowledged")
    for step in range(WANDERS):
        hand.wander()
        shown = read(client.get(f"/api/runs/led/bench?actor={WREN}"))
        acts = [
            f"{act['what']['kind']} {act['subject']['of']}:{act['subject']['number']}"
            for act in shown["view"]["acts"]
        ]
        whole = step % 20 == 0
        check(f"wander {order} {step}", shown["view"] if whole else {"acts": acts, SUM: summed(shown)})
    check(f"wander {order} readings", read(client.get("/api/runs/led/readings.csv")))
    hand.tell("ended", left_kg={})
    check(f"wander {order} log", read(client.get("/api/log/led")))
