"""The worked examples of the docs are done as they stand, in a copy: what is added plans, draws and runs, by so many files; and what
has no words does not compile."""

import json
import os
import re
import shutil
import subprocess
import sys
from pathlib import Path

import pytest

ROOT = Path(__file__).parents[2]

MATERIAL = """
piece = stored("piece", "piece-bonbon")
part = piece.doc.parts[0]
ruby = [replace(one, melt=MeltRef("ruby", None)) for one in part.passes]
save("piece", piece, parts=[part.model_copy(update={"passes": ruby})])
order = only("piece-bonbon")
assert plan(order)["melts"][0]["material"] == "ruby"
kinds = lead(order)
assert {"temper", "pour", "unmould"} <= set(kinds), kinds
"""
PASS = """
[kind] = [kind for kind in ask("GET", "/api/passes")["kinds"] if kind["kind"] == "rim"]
assert [(field["name"], field["sort"]) for field in kind["fields"]] == [("melt", "melt"), ("bore_m", "number")]
part = ask("GET", "/api/pieces/piece-star")["doc"]["parts"][0]
added = ask("POST", "/api/figures/addition", {"part": part, "kind": "rim", "way": None})["added"]
assert added["part"]["passes"][added["index"]]["kind"] == "rim"
figures = ask("POST", "/api/figures/part", {"part": added["part"], "cut_frac": 0.0})["figures"]
assert figures["faults"] == [] and [layer["index"] for layer in figures["layers"]] == [0, 1]
piece = stored("piece", "piece-star")
save("piece", piece, parts=[Part.model_validate(added["part"], strict=False)])
order = only("piece-star")
rows = ask("POST", "/api/figures/plan/windows", asked(order))["rows"]
assert [of["named"]["step"] for of in rows["casts"]] == ["fill", "rim"]
assert lead(order).count("pour") >= 2
"""
ACT = """
order = only("piece-disc")
seen = []
assert "end" in lead(order, lambda view: seen.extend(act.what.kind for act in view.acts))
assert "hood" in seen
"""
SETTING = """
import sys
from dataclasses import replace
from pathlib import Path

import tests.services.test_led as led
from umber_pebble.app import create_app
from umber_pebble.core.pieces.melt_ref import MeltRef
from umber_pebble.services import bench
from umber_pebble.services.documents import OrderLine
from umber_pebble.services.piece_docs import Part

hand = led.Hand(Path(sys.argv[1]), "order-first-light")
hand.tell("acknowledged")
workshop, client = hand.workshop, create_app(hand.workshop).test_client()

def ask(method, path, body=None):
    answer = client.open(path, method=method, json=body)
    assert answer.status_code == 200, answer.get_json()
    return answer.get_json()

def stored(kind, id):
    return workshop.get(kind, id)

def save(kind, of, **changes):
    workshop.save(kind, of.id, of.version, of.doc.model_copy(update=changes))

def only(piece):
    "An order of a few of one piece alone, instead of what is led already."
    hand.tell("ended", left_kg={})
    like = stored("order", "order-table").doc
    workshop.create("order", "example", like.model_copy(update={"name": "Example", "lines": [OrderLine(piece_id=piece, quantity=3)]}))
    return "example"

def plan(order):
    return ask("POST", "/api/figures/plan", ask("GET", f"/api/orders/{order}")["doc"])["glance"]["summary"]

def asked(order):
    return {"order": ask("GET", f"/api/orders/{order}")["doc"], "planned_at": "2026-06-01T12:00:00Z"}

def lead(order, look=lambda view: None):
    "One run led to its end: which acts were done."
    hand.runs.start("example", order, led.WREN, "studio")
    hand.tell = lambda kind, **payload: (
        setattr(hand, "count", hand.count + 1),
        hand.runs.add("example", led.NewEvent(f"e-{hand.count}", kind, dict(payload), led.WREN, "studio", None, 1)),
    )
    kinds = []
    for _ in range(400):
        view = bench.view(hand.runs, "example", led.WREN)
        look(view)
        act = led.first(view)
        kinds.append(act.what.kind)
        hand.wait(min(act.opens_s - view.elapsed_s, 4 * 3600) + 1.0)
        if act.what.kind == "end":
            hand.tell("ended", left_kg={})
            return kinds
        hand.do(act)
    raise AssertionError(kinds)
"""


def copied(to: Path) -> Path:
    left = shutil.ignore_patterns("node_modules", "web_dist")
    for name in ("src", "tests", "web", "docs"):
        shutil.copytree(ROOT / name, to / name, ignore=left)
    (to / "web/node_modules").symlink_to(ROOT / "web/node_modules")
    return to


def applied(to: Path, diff: str) -> None:
    subprocess.run(["git", "apply", "-"], input=diff, text=True, cwd=to, check=True)


def python(copy: Path, *args: str) -> str:
    environment = {**os.environ, "PYTHONPATH": f"{copy / 'src'}:{copy}"}
    done = subprocess.run([sys.executable, *args], cwd=copy, env=environment, capture_output=True, text=True)
    assert done.returncode == 0, done.stderr[-2000:]
    return done.stdout


def publish_types(copy: Path) -> None:
    """The front end's types as this copy publishes them."""
    (copy / "docs/openapi.json").write_text(python(copy, "-m", "umber_pebble.cli", "openapi"), "utf-8")
    types = ["../docs/openapi.json", "-o", "src/api/schema.d.ts", "--default-non-nullable=false"]
    made = [str(ROOT / "web/node_modules/.bin/openapi-typescript"), *types]
    subprocess.run(made, cwd=copy / "web", check=True, capture_output=True)


def without_words(copy: Path, among: str = "src") -> list[str]:
    """Places of the front end, or of some of it, that do not compile."""
    config = {"extends": "./tsconfig.json", "include": [among, "src/*.d.ts"]}
    (copy / "web/tsconfig.some.json").write_text(json.dumps(config), "utf-8")
    tsc = [str(ROOT / "web/node_modules/.bin/tsc"), "--noEmit", "--project", "tsconfig.some.json"]
    said = subprocess.run(tsc, cwd=copy / "web", capture_output=True, text=True).stdout
    return sorted({line.partition("(")[0] for line in said.splitlines() if "error TS" in line})


def example(page: str) -> dict[str, str]:
    """What a page adds, by file."""
    text = (ROOT / "docs" / f"{page}.md").read_text("utf-8")
    shown = "".join(re.findall(r"```diff\n(.*?)```", text, re.DOTALL))
    diffs = [diff for diff in re.split(r"(?m)^(?=--- )", shown) if diff]
    return {re.findall(r"(?m)^\+\+\+ b/(\S+)", diff)[0]: diff for diff in diffs}


@pytest.mark.parametrize(
    ("page", "files", "check"),
    [("add-a-material", 1, MATERIAL), ("add-a-pass", 2, PASS), ("add-an-act", 3, ACT)],
)
def test_the_example_of_a_page_works_as_it_stands(tmp_path: Path, page: str, files: int, check: str) -> None:
    added, copy = example(page), copied(tmp_path / "copy")
    assert len(added) == files
    for diff in added.values():
        applied(copy, diff)
    python(copy, "-c", SETTING + check, str(tmp_path / "data"))


def test_what_has_no_words_does_not_compile(tmp_path: Path) -> None:
    added, copy = example("add-a-pass") | example("add-an-act"), copied(tmp_path / "copy")
    words = sorted(file for file in added if file.startswith("web/"))
    for file in added.keys() - words:
        applied(copy, added[file])
    publish_types(copy)
    assert without_words(copy) == [word.removeprefix("web/") for word in words]
    for file in words:
        applied(copy, added[file])
        assert without_words(copy, file.removeprefix("web/")) == []
