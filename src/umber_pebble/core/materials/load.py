"""The property tables, read once from package data."""

import tomllib
from dataclasses import dataclass
from functools import cache
from importlib.resources import files
from typing import Any

from umber_pebble.core.errors import OutOfRange
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
    """A named set of properties. One object per row of the tables, so it is compared by identity."""

    key: str
    name: str
    properties: dict[str, Property]
    flags: dict[str, bool]

    def __getitem__(self, name: str) -> Property:
        return self.properties[name]

    def value(self, name: str) -> float:
        return self.properties[name].value

    def spread(self, name: str) -> Spread:
        return self.properties[name].spread


def _property(row: dict[str, Any]) -> Property:
    return Property(Spread(row["low"], row["value"], row["high"]), row["unit"], row["source"])


def _material(key: str, table: dict[str, Any]) -> Material:
    rows = {k: _property(v) for k, v in table.items() if isinstance(v, dict)}
    flags = {k: v for k, v in table.items() if isinstance(v, bool)}
    return Material(key, table.get("name", key), rows, flags)


@cache
def table(file: str) -> dict[str, Any]:
    """A whole table of package data by its file name without ending [SI units inside]. Source: definition"""
    return tomllib.loads(files("umber_pebble.core.materials").joinpath(f"{file}.toml").read_text("utf-8"))


@cache
def materials(file: str, group: str = "") -> dict[str, Material]:
    """All materials of one table, or of one group in it [SI units inside]. Source: definition"""
    rows = table(file)[group] if group else table(file)
    return {key: _material(key, row) for key, row in rows.items()}


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
