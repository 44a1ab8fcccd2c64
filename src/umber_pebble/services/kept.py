"""What a finished run showed, kept with it: a number for the format, and a reader for each number."""

import json
from collections.abc import Callable
from dataclasses import replace
from functools import lru_cache
from typing import Any

from pydantic import TypeAdapter, ValidationError

from umber_pebble import ENGINE_VERSION
from umber_pebble.core.materials.load import tables_mark
from umber_pebble.services.run_log import RunLog, RunSummary

FORMAT = 1


@lru_cache(maxsize=1)
def _adapter() -> TypeAdapter[RunLog]:
    return TypeAdapter(RunLog)


def _read_1(kept: dict[str, Any]) -> RunLog:
    return _adapter().validate_python(kept["log"], strict=False)


READERS: dict[int, Callable[[dict[str, Any]], RunLog]] = {1: _read_1}


def kept_log(shown: dict[str, Any] | None) -> RunLog | None:
    """What a run showed, or None where nothing was kept that this version can read."""
    if shown is None or shown.get("format") not in READERS:
        return None
    try:
        return READERS[shown["format"]](shown)
    except (ValidationError, KeyError):
        return None


def kept_summary(form: int | None, text: str | None) -> RunSummary | None:
    """A run's line in the list, as it was kept in a format."""
    if form not in READERS or text is None:
        return None
    try:
        return RunSummary(**json.loads(text))
    except (TypeError, ValueError):
        return None


def keep(log: RunLog, before: dict[str, Any] | None) -> dict[str, Any]:
    """What is kept of a run that has ended. An outcome told later changes what came of it, and nothing that was reckoned by another
    version or from other tables."""
    by = {"engine": ENGINE_VERSION, "tables": tables_mark()}
    known = kept_log(before)
    if before is not None and known is not None and before["by"] != by:
        by = before["by"]
        log = replace(log, coolings=known.coolings, vessels=known.vessels, ovens=known.ovens)
    return {"format": FORMAT, "by": by, "log": _adapter().dump_python(log, mode="json")}
