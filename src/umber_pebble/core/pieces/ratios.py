"""What a filling is mixed of, by weight."""

from dataclasses import dataclass

from umber_pebble.core.errors import OutOfRange, require_range
from umber_pebble.core.materials.load import table


@dataclass(frozen=True, slots=True)
class Ingredient:
    """One part of a mixture, and its weight [kg]."""

    name: str
    kg: float


Mixed = tuple[Ingredient, ...]


def usual_first_frac(key: str) -> float:
    """The usual share of a mixture's first part, 0 to 1 [frac].

    Raises: OutOfRange: no such mixture.
    Source: common-practice
    """
    return float(_row(key)["first"]["value"])


def mixtures() -> dict[str, str]:
    """The mixtures known, with their names. Source: definition"""
    return {key: row["name"] for key, row in table("kitchen")["ratio"].items()}


def mixed_of(key: str, kg: float, first_frac: float | None = None) -> Mixed:
    """A mixture's parts and their weights [kg].

    Args:
        key: of the mixture
        kg: all of it, zero or above [kg]
        first_frac: of its first part, None: the usual
    Raises: OutOfRange: no such mixture, a share outside 0 to 1.
    Source: common-practice
    """
    share = require_range("first_frac", usual_first_frac(key) if first_frac is None else first_frac, 0.0, 1.0)
    first, second = _row(key)["of"]
    return Ingredient(first, kg * share), Ingredient(second, kg * (1 - share))


def _row(key: str) -> dict:  # type: ignore[type-arg]
    rows = table("kitchen")["ratio"]
    if key not in rows:
        raise OutOfRange("no such mixture", path="mixture", got=key, limits={"one_of": list(rows)})
    return dict(rows[key])
