"""House rules that a tool can check."""

import ast
import gzip
import re
import tomllib
from pathlib import Path

import pytest

from umber_pebble.cli import main

ROOT = Path(__file__).parent.parent.parent
SRC = ROOT / "src/umber_pebble"
CORE = SRC / "core"
SOURCES = tomllib.loads((CORE / "materials/sources.toml").read_text("utf-8"))
LONGEST = 400


def public_functions() -> list[tuple[str, ast.FunctionDef]]:
    out = []
    for path in sorted(CORE.rglob("*.py")):
        for node in ast.parse(path.read_text("utf-8")).body:
            if isinstance(node, ast.FunctionDef) and not node.name.startswith("_"):
                out.append((f"{path.relative_to(CORE)}:{node.name}", node))
    return out


@pytest.mark.parametrize(("name", "node"), public_functions(), ids=[n for n, _ in public_functions()])
def test_public_core_functions_name_unit_and_source(name: str, node: ast.FunctionDef) -> None:
    doc = ast.get_docstring(node) or ""
    named = re.search(r"Source: (.+)$", doc, re.MULTILINE)
    assert named, f"{name} has no Source line"
    keys = re.findall(r"[a-z]+(?:-[a-z0-9]+)*(?:-\d{4})?", named.group(1))
    assert any(key in SOURCES for key in keys), f"{name}: {named.group(1)} is in no line of sources.toml"
    numeric = node.returns is not None and re.search(r"float|Spread|Array|Curve", ast.unparse(node.returns))
    assert not numeric or "[" in doc or "]" in doc, f"{name} names no unit"


def test_every_property_has_a_known_source_and_lies_between_its_ends() -> None:
    def walk(table: dict[str, object]) -> None:
        for key, value in table.items():
            if isinstance(value, dict):
                if "value" in value:
                    assert value["source"] in SOURCES, key
                    assert value["low"] <= value["value"] <= value["high"], key
                    assert value["unit"], key
                else:
                    walk(value)

    for path in sorted((CORE / "materials").glob("*.toml")):
        if path.name not in ("sources.toml", "boiling.toml"):
            walk(tomllib.loads(path.read_text("utf-8")))


def test_published_rows_name_known_sources() -> None:
    for path in (ROOT / "tests").rglob("test_*.toml"):
        for row in tomllib.loads(path.read_text("utf-8"))["row"]:
            assert row["source"] in SOURCES, path


def test_explained_numbers_name_known_sources() -> None:
    for path in SRC.rglob("*.py"):
        for group in re.findall(r"sources=\(([^)]*)\)", path.read_text("utf-8")):
            for key in re.findall(r'(?<!\[)"([a-z0-9-]+)"', group):
                assert key in SOURCES, f"{path.name}: {key}"


def test_no_file_is_longer_than_a_page_turn() -> None:
    files = [*SRC.rglob("*.py"), *(ROOT / "web/src").rglob("*.ts*")]
    long = [f.name for f in files if f.name != "schema.d.ts" and len(f.read_text("utf-8").splitlines()) > LONGEST]
    assert long == []


def test_the_formatter_goes_everywhere() -> None:
    mark = "# fmt: " + "skip"
    folders = (ROOT / name for name in ("src", "tests", "tools"))
    assert [
        path.name for folder in folders for path in folder.rglob("*.py") if mark in path.read_text("utf-8")
    ] == []


def test_only_the_api_room_fetches() -> None:
    for path in (ROOT / "web/src").rglob("*.ts*"):
        # the service worker brings in the app's own files and nothing the server says
        if path.relative_to(ROOT / "web/src").parts[0] not in ("api", "offline.ts"):
            assert not re.search(r"\bfetch\(|new EventSource|XMLHttpRequest", path.read_text("utf-8")), path


def test_no_feature_imports_another_and_drawings_stay_below() -> None:
    web = ROOT / "web/src"
    for path in web.rglob("*.ts*"):
        room = path.relative_to(web).parts
        text = path.read_text("utf-8")
        if room[0] == "features":
            assert not re.search(r'from "\.\./(?!\.\./)', text), f"{path}: reaches into another feature"
        if room[0] in ("drawings", "shared", "api"):
            assert "/features/" not in text and "/app/" not in text, path


def test_readme_settings_and_commands_exist(capsys: pytest.CaptureFixture[str]) -> None:
    readme = (ROOT / "README.md").read_text("utf-8")
    config = (SRC / "config.py").read_text("utf-8") + (SRC / "cli.py").read_text("utf-8")
    named = set(re.findall(r"UMBER_PEBBLE_[A-Z]+", readme))
    assert named == set(re.findall(r"UMBER_PEBBLE_[A-Z]+", config))
    makefile = (ROOT / "Makefile").read_text("utf-8")
    for target in re.findall(r"`make ([a-z]+)`", readme):
        assert re.search(rf"^{target}:", makefile, re.MULTILINE), target
    with pytest.raises(SystemExit):
        main(["--help"])
    help_text = capsys.readouterr().out
    for command in re.findall(r"umber-pebble (?:--data \S+ )?([a-z]+)", readme):
        assert command in help_text, command


def test_every_picture_is_linked_and_shows_a_view() -> None:
    readme = (ROOT / "README.md").read_text("utf-8")
    pictures = sorted(p.name for p in (ROOT / "docs/screenshots").glob("*.png"))
    assert 6 <= len(pictures) < 20
    assert all(f"docs/screenshots/{name}" in readme for name in pictures)


def test_the_first_script_is_small() -> None:
    """Scripts that the first page loads, compressed: at most 250 kB."""
    dist = SRC / "web_dist"
    index = (dist / "index.html").read_text("utf-8")
    first = set(re.findall(r'(?:src|href)="/(assets/[^"]+\.js)"', index))
    assert first
    assert sum(len(gzip.compress((dist / name).read_bytes())) for name in first) <= 250_000


def test_lock_files_name_no_host() -> None:
    for name in ("requirements.lock", "web/package-lock.json"):
        assert (
            "://"
            not in (ROOT / name)
            .read_text("utf-8")
            .replace("https://github.com/sponsors", "")
            .replace("https://opencollective.com", "")
            .replace("https://tidelift.com", "")
            or name == "web/package-lock.json"
        )
        assert not re.search(r'"resolved"|--(extra-)?index-url', (ROOT / name).read_text("utf-8"))


FAMILY_WORDS = "isomalt|coating|caramel|cooked_sugar|couverture|sugar|fat"
A_COMPARISON = (
    rf'(==|!=|===|!==|\bin) *[\(\[{{]?["\']({FAMILY_WORDS})["\']',
    r'flags(\.get\(|\[)"(sugar|fat|tempers)"',
    r"isinstance\([^)]*\b(SugarCook|FatMelt|CookedWay|MeltedWay|TemperedWay)\b",
)


def test_only_the_families_know_which_family_a_melt_is_of() -> None:
    """What differs between families is asked of them, or looked up by what they say of themselves."""
    files = [*SRC.rglob("*.py"), *(ROOT / "web/src").rglob("*.ts*")]
    found = [
        f"{path.name}: {line.strip()}"
        for path in files
        if path.parent != CORE / "families" and path.name != "schema.d.ts"
        for line in path.read_text("utf-8").splitlines()
        if any(re.search(words, line) for words in A_COMPARISON)
    ]
    assert found == []


def test_only_its_own_module_knows_a_kind_of_pass() -> None:
    """Who lays, draws, orders, plans or edits passes asks the kind: no other module names one, but those that start a piece."""
    kinds = CORE / "pieces/passes"
    names = "|".join(path.stem for path in kinds.glob("*.py") if path.stem not in ("base", "known", "__init__"))
    for path in SRC.rglob("*.py"):
        if path.parent != kinds and path.name != "starts.py" and "demo" not in path.parts:
            assert not re.search(rf"pieces\.passes\.({names})\b", path.read_text("utf-8")), path.name
    for path in (ROOT / "web/src/features/pieces").glob("*.ts*"):
        assert not re.search(r'kind [!=]== "', path.read_text("utf-8")), path.name


def test_what_an_act_tells_is_typed() -> None:
    """No figure of the bench or of a plan's remark travels in a bag that any key fits."""
    for path in [*(CORE / "bench").glob("*.py"), CORE / "plan/remarks.py", SRC / "services/bench.py"]:
        if path.name != "payload.py":
            assert not re.search(r"dict\[str, Any\]", path.read_text("utf-8")), path.name
    for path in [ROOT / "web/src/shared", ROOT / "web/src/features/bench"]:
        for file in path.glob("*.ts*"):
            assert not re.search(r"\.params\b.*as |as Record<string, number>", file.read_text("utf-8")), file.name


def test_nothing_is_read_out_of_a_melts_key() -> None:
    """A melt's material and colour travel as fields: no screen takes its key apart."""
    for path in (ROOT / "web/src").rglob("*.ts*"):
        assert not re.search(r'split\("[#:]|split\(", "', path.read_text("utf-8")), path.name


def test_a_figure_that_is_missing_is_not_shown_as_nothing() -> None:
    """A figure that was renamed or is not there is seen where it is read: none falls back to 0, none travels by any key."""
    for path in (ROOT / "web/src").rglob("*.ts*"):
        if path.name != "schema.d.ts":
            assert not re.search(r"\?\? 0(?![.\d])|Record<string, number>", path.read_text("utf-8")), path.name
