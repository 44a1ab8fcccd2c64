"""Published values beside their test: rows of what, source, where, given, expects, within."""

import tomllib
from pathlib import Path
from typing import Any

import pytest


def rows(test_file: str) -> Any:
    """The rows of the TOML file next to a test, as parameters."""
    path = Path(test_file).with_suffix(".toml")
    table = tomllib.loads(path.read_text("utf-8"))["row"]
    return pytest.mark.parametrize("row", table, ids=[f"{r['of']} {r['where']}" for r in table])
