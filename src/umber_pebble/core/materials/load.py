"""The property tables, read once from package data."""

import hashlib
import tomllib
from dataclasses import dataclass
from functools import cache
from importlib.resources import files
from typing import Any

from umber_pebble.core.errors import Missing, OutOfRange
from umber_pebble.core.spread import Spread


@dataclass(frozen=True, slots=True)
class Property:
    """A property with its spread, SI unit and source key."""

    spread: Spread
    unit: str
    source: str

    @property
    def value(self) -> float:
        return self.spread.likely


@dataclass(frozen=True, eq=False)
class Material:
    """A named set of properties; family: of melts it belongs to, "" for what is none; raw: as what it is weighed out, and called: at the stove, "" as its name says. One object per row of the tables, so it is
    compared by identity."""

    key: str
    name: str
    properties: dict[str, Property]
    flags: dict[str, bool]
    family: str = ""
    raw: str = ""
    called: str = ""

    def __getitem__(self, name: str) -> Property:
        if name not in self.properties:
            raise Missing(f"{self.name} has no {name}: a relative with it is needed", path=f"material.{name}")
        return self.properties[name]

    def has(self, name: str) -> bool:
        """Whether its tables tell a value at all."""
        return name in self.properties

    def value(self, name: str) -> float:
        return self[name].value

    def spread(self, name: str) -> Spread:
        return self[name].spread


def _property(row: dict[str, Any]) -> Property:
    return Property(Spread(row["low"], row["value"], row["high"]), row["unit"], row["source"])


def _material(key: str, table: dict[str, Any]) -> Material:
    rows = {k: _property(v) for k, v in table.items() if isinstance(v, dict)}
    flags = {k: v for k, v in table.items() if isinstance(v, bool)}
    return Material(
        key,
        table.get("name", key),
        rows,
        flags,
        table.get("family", ""),
        table.get("raw", ""),
        table.get("called", ""),
    )


@cache
def table(file: str) -> dict[str, Any]:
    """A whole table of package data by its file name without ending [SI units inside]. Source: definition"""
    return tomllib.loads(files("umber_pebble.core.materials").joinpath(f"{file}.toml").read_text("utf-8"))


@cache
def tables_mark() -> str:
    """A short mark of all values of all tables: another mark, other values [1]. Source: definition"""
    folder = files("umber_pebble.core.materials")
    names = sorted(of.name for of in folder.iterdir() if of.name.endswith(".toml"))
    whole = hashlib.sha256(b"".join(folder.joinpath(name).read_bytes() for name in names))
    return whole.hexdigest()[:16]


@cache
def materials(file: str, group: str = "") -> dict[str, Material]:
    """All materials of one table, or of one group in it [SI units inside]. Source: definition"""
    rows = table(file)[group] if group else table(file)
    return {key: _material(key, _whole(rows, row)) for key, row in rows.items()}


def _whole(rows: dict[str, Any], row: dict[str, Any]) -> dict[str, Any]:
    """A row with what it takes from the one it is like."""
    return _whole(rows, rows[row["like"]]) | row if "like" in row else row


@cache
def tempered(melt: Material, temper: str) -> Material:
    """A couverture in another temper than the good one its values are for [SI units inside].

    Raises: OutOfRange: no such temper.
    Source: wille-lutton-1966, assumption
    """
    changes = material("tempers", temper)
    own = dict(changes.properties)
    if not own or not melt.has("work_at"):
        # what has no temperature to be worked at needs no temper
        return melt
    off, at = own.pop("melts_off"), melt["melts_at"]
    melts = Spread(at.spread.low + off.spread.low, at.value + off.value, at.spread.high + off.spread.high)
    own["melts_at"] = Property(melts, at.unit, off.source)
    return Material(
        f"{melt.key}:{temper}", f"{melt.name}, {changes.name}", melt.properties | own, melt.flags, melt.family
    )


@cache
def like(relative: Material, key: str, name: str, sheet: tuple[tuple[str, Spread], ...]) -> Material:
    """A material of its own: what a maker's sheet says, the rest as its relative [SI units inside].

    Raises: OutOfRange: the sheet speaks of something the relative does not have.
    Source: calibration
    """
    unknown = [prop for prop, _ in sheet if prop not in relative.properties]
    if unknown:
        raise OutOfRange(
            f"{relative.name} has no {unknown[0]}",
            path=f"sheet.{unknown[0]}",
            got=unknown[0],
            limits={"one_of": list(relative.properties)},
        )
    own = {prop: Property(value, relative[prop].unit, "maker-sheet") for prop, value in sheet}
    called = relative.called if name == relative.name else ""
    return Material(key, name, relative.properties | own, relative.flags, relative.family, relative.raw, called)


def material(file: str, key: str, group: str = "") -> Material:
    """One material of a table [SI units inside].

    Raises: OutOfRange: the key is not in the table.
    Source: definition
    """
    rows = materials(file, group)
    if key not in rows:
        raise OutOfRange(
            f"{key} is not a known {group or file} material: choose {', '.join(rows)}",
            path="material",
            got=key,
            limits={"one_of": list(rows)},
        )
    return rows[key]


@cache
def model_factors() -> dict[str, Property]:
    """Factors on the models themselves (losses, air side, reserve) with spread [1]. Source: assumption"""
    return {key: _property(row) for key, row in table("kitchen")["model"].items()}
