"""Palettes in and out: the plain-text palette of free drawing programs (name, columns, red green blue name), and CSV."""

import csv
import io
from typing import get_args

from umber_pebble.core.colour.palette import Base, Named
from umber_pebble.core.errors import OutOfRange
from umber_pebble.formats.cells import plain_cell

FIRST_LINE = "GIMP Palette"
MOST = 60


def write_gpl(name: str, colours: list[Named]) -> str:
    """A palette as plain text [red green blue, 0 to 255]. Source: definition"""
    rows = [
        f"{int(c.hex[1:3], 16):3d} {int(c.hex[3:5], 16):3d} {int(c.hex[5:7], 16):3d}\t{c.name}" for c in colours
    ]
    return "\n".join([FIRST_LINE, f"Name: {name}", "Columns: 0", "#", *rows]) + "\n"


def write_csv(colours: list[Named]) -> str:
    """A palette as CSV: name, hex, of [text]. Source: definition"""
    out = io.StringIO()
    rows = csv.writer(out, lineterminator="\n")
    rows.writerow(("name", "hex", "of"))
    rows.writerows((plain_cell(c.name), c.hex, c.of) for c in colours)
    return out.getvalue()


def read(text: str) -> list[Named]:
    """Colours out of either file.

    Raises: OutOfRange: neither, a row that is no colour, none or too many.
    Source: definition
    """
    lines = text.lstrip("\ufeff").splitlines()
    if lines and lines[0].strip() == FIRST_LINE:
        found = [
            _plain(i, line) for i, line in enumerate(lines[1:], 2) if line.strip() and line.strip()[0].isdigit()
        ]
    elif lines and lines[0].strip().lower().replace(" ", "") == "name,hex,of":
        found = [_row(i, row) for i, row in enumerate(csv.reader(lines[1:]), 2) if row]
    else:
        raise OutOfRange(
            f'this is no palette: it begins with "{FIRST_LINE}" or with name,hex,of', path="text", got=None
        )
    if not 1 <= len(found) <= MOST:
        raise OutOfRange(
            "a palette has 1 to 60 colours", path="text", got=len(found), limits={"low": 1, "high": MOST}
        )
    return found


def _plain(line: int, text: str) -> Named:
    parts = text.split(None, 3)
    try:
        rgb = [int(v) for v in parts[:3]]
    except ValueError:
        rgb = []
    if len(rgb) != 3 or any(not 0 <= v <= 255 for v in rgb):
        raise OutOfRange(f"line {line} is no colour: three numbers from 0 to 255", path="text", got=text[:40])
    name = parts[3].strip() if len(parts) > 3 else ""
    hex_ = "#" + "".join(f"{v:02x}" for v in rgb)
    return Named((name or hex_)[:60], hex_, "fat")


def _row(line: int, row: list[str]) -> Named:
    hex_ = row[1].strip().lower() if len(row) == 3 else ""
    of = next((base for base in get_args(Base) if row[-1].strip() == base), None)
    if len(hex_) != 7 or hex_[0] != "#" or not set(hex_[1:]) <= set("0123456789abcdef") or of is None:
        raise OutOfRange(
            f"line {line} is no colour: a name, #rrggbb, and fat or sugar", path="text", got=",".join(row)[:40]
        )
    return Named((row[0].strip().removeprefix("'") or hex_)[:60], hex_, of)
