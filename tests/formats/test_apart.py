"""Files of others are read where reading can be stopped."""

import time

import pytest

from umber_pebble.core.errors import OutOfRange
from umber_pebble.formats import apart as reading
from umber_pebble.formats.apart import apart
from umber_pebble.formats.svg import read_outline


def for_ever(_: str) -> None:
    while True:
        time.sleep(0.01)


def more_than_there_is(_: str) -> int:
    return len(bytearray(2 * reading.MEMORY_BYTES))


def is_at_fault(_: str) -> None:
    raise LookupError("nobody thought of this")


def dies(_: str) -> None:
    raise SystemExit(1)


def test_what_is_read_comes_back_and_so_does_a_refusal() -> None:
    text = "M0 0 H40 V20 H0 Z"
    assert apart("svg", read_outline, text, 0.05) == read_outline(text, 0.05)
    with pytest.raises(OutOfRange) as refused:
        apart("svg", read_outline, "<svg><script/></svg>", None)
    assert (refused.value.path, "a script" in refused.value.message) == ("svg", True)


@pytest.mark.parametrize(
    ("reader", "why"), [(for_ever, "takes longer"), (more_than_there_is, "memory"), (dies, "memory")]
)
def test_a_reader_that_does_not_end_well_is_stopped(
    monkeypatch: pytest.MonkeyPatch, reader: object, why: str
) -> None:
    monkeypatch.setattr(reading, "WITHIN_S", 3.0)
    with pytest.raises(OutOfRange, match=why) as refused:
        apart("csv", reader, "x")  # type: ignore[arg-type]
    assert refused.value.path == "csv"


def test_a_fault_of_a_reader_is_not_taken_for_a_file_that_is_too_large() -> None:
    with pytest.raises(LookupError, match="nobody thought"):
        apart("csv", is_at_fault, "x")
