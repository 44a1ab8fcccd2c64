"""Readings as CSV, in and out.

Header `time,of,temperature,unit,method`: time in ISO 8601 with its zone; of is `cook N`, `round N` or `batch N` (held), counted from 1 as on
the screens; unit C or F; method immersed_swirled, immersed_unswirled or infrared.
"""

import csv
import io
import math
import re
from collections.abc import Iterable
from dataclasses import dataclass
from datetime import UTC, datetime

from umber_pebble.core.bench.values import METHODS
from umber_pebble.core.errors import OutOfRange

HEADER = ("time", "of", "temperature", "unit", "method")
SUBJECTS = ("batch", "cook", "round")
LARGEST_CHARACTERS = 10_000_000
MOST_ROWS = 20_000
LONGEST_CELL = 64


@dataclass(frozen=True, slots=True)
class ReadingRow:
    """One reading: when, of which cook, round or held batch (from 0), its temperature [degC] and how it was taken."""

    line: int
    at: datetime
    subject: str
    number: int
    degc: float
    method: str


def write_readings(rows: Iterable[ReadingRow], unit: str) -> str:
    """The CSV text of readings, temperatures in C or F."""
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\r\n")
    writer.writerow(HEADER)
    for row in rows:
        shown = row.degc if unit == "C" else row.degc * 9 / 5 + 32
        of = f"{row.subject} {row.number + 1}"
        writer.writerow((row.at.astimezone(UTC).isoformat(), of, f"{shown:.2f}", unit, row.method))
    return out.getvalue()


def read_table(text: str, header: tuple[str, ...]) -> list[tuple[int, list[str]]]:
    """Lines of a CSV text under its header, with their numbers, cells stripped; empty lines left out.

    Raises: OutOfRange: too large, not UTF-8, another header, a formula or a line of another length.
    """
    if len(text) > LARGEST_CHARACTERS:
        raise OutOfRange("the file is too large", path="csv", got=len(text), limits={"high": LARGEST_CHARACTERS})
    if "\ufffd" in text or "\x00" in text:
        raise OutOfRange("the file is not in UTF-8: save it as CSV UTF-8", path="csv", got=None)
    try:
        table = list(csv.reader(io.StringIO(text.removeprefix("\ufeff")), strict=True))
    except csv.Error as error:
        raise OutOfRange(f"this is not CSV: {error}", path="csv", got=None) from error
    if not table or tuple(cell.strip().lower() for cell in table[0]) != header:
        got = ",".join(table[0]) if table else ""
        raise OutOfRange(f"the first line must be {','.join(header)}", path="line 1", got=got[:LONGEST_CELL])
    rows = [(i, cells) for i, cells in enumerate(table[1:], start=2) if any(cell.strip() for cell in cells)]
    if len(rows) > MOST_ROWS:
        raise OutOfRange("too many readings in one file", path="csv", got=len(rows), limits={"high": MOST_ROWS})
    for line, cells in rows:
        if len(cells) != len(header):
            raise wrong(line, "cells", str(len(cells)), f"it has {len(cells)} cells, not {len(header)}")
        for column, cell in zip(header, cells, strict=True):
            if cell.strip()[:1] in ("=", "@") or len(cell) > LONGEST_CELL:
                raise wrong(line, column, cell, "a formula or a long text is no value")
    return [(line, [cell.strip() for cell in cells]) for line, cells in rows]


def read_readings(text: str) -> list[ReadingRow]:
    """Readings out of a CSV text.

    Raises: OutOfRange: as read_table, or a cell that cannot be; with the line and column.
    """
    return [_row(line, cells) for line, cells in read_table(text, HEADER)]


def wrong(line: int, column: str, got: str, why: str) -> OutOfRange:
    """A refusal of one cell, with its line and column."""
    return OutOfRange(f"line {line}, {column}: {why}", path=f"line {line}.{column}", got=got[:LONGEST_CELL])


def _row(line: int, cells: list[str]) -> ReadingRow:
    time, of, temperature, unit, method = cells
    subject = re.fullmatch(rf"({'|'.join(SUBJECTS)}) ([1-9]\d{{0,3}})", of.lower())
    if subject is None:
        raise wrong(line, "of", of, "say cook, round or batch and its number, as in cook 1")
    if unit.upper() not in ("C", "F"):
        raise wrong(line, "unit", unit, "the unit is C or F")
    if method not in METHODS:
        raise wrong(line, "method", method, f"one of {', '.join(METHODS)}")
    return ReadingRow(
        line,
        _time(line, time),
        subject.group(1),
        int(subject.group(2)) - 1,
        to_degc(line, temperature, unit.upper()),
        method,
    )


def _time(line: int, text: str) -> datetime:
    try:
        at = datetime.fromisoformat(text)
    except ValueError as error:
        raise wrong(line, "time", text, "not a time in ISO 8601, as in 2031-05-02T14:05:00+01:00") from error
    if at.tzinfo is None:
        raise wrong(line, "time", text, "a time needs its zone, as in +01:00 or Z")
    return at.astimezone(UTC)


def to_degc(line: int, text: str, unit: str) -> float:
    """A temperature in C out of a cell.

    Raises: OutOfRange: no number, or none that can be.
    """
    try:
        value = float(text)
    except ValueError as error:
        raise wrong(line, "temperature", text, "this is no number, with a point and no unit") from error
    degc = value if unit == "C" else (value - 32) * 5 / 9
    if not math.isfinite(degc) or not -30.0 <= degc <= 220.0:
        raise wrong(line, "temperature", text, "it must be from -30 to 220 C (-22 to 428 F)")
    return degc
