"""What a filling is mixed of, by weight."""

from dataclasses import dataclass

from umber_pebble.core.errors import OutOfRange, require_range
from umber_pebble.core.materials.load import table
from umber_pebble.core.pieces.measures import Measured, SpoonOf, measured, spoon_kg


@dataclass(frozen=True, slots=True)
class Ingredient:
    """One part of a mixture, its weight [kg], and that by the spoon or cup, where people measure it so."""

    name: str
    kg: float
    measured: Measured | None


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
    return tuple(_part(name, part) for name, part in ((first, kg * share), (second, kg * (1 - share))))


def _part(name: str, kg: float) -> Ingredient:
    return Ingredient(name, kg, measured(name, kg))


@dataclass(frozen=True, slots=True)
class Spoonful:
    """So much more of a part, by a level spoon [kg]; after how many of them it is no longer as is usual [count]."""

    name: str
    of: SpoonOf
    kg: float
    most: int


@dataclass(frozen=True, slots=True)
class Feel:
    """What is added by feel: where it is too dry and crumbles, where it is too soft and sticks; None where nobody measures that so."""

    dry: Spoonful | None
    soft: Spoonful | None


def feel_of(key: str, kg: float, first_frac: float | None = None) -> Feel:
    """What a spoon more does for a mixture: of the part that softens it, or of the other, which stiffens it; nothing where neither does.

    Args:
        key, kg, first_frac: as what it is mixed of
    Raises: OutOfRange: as for that.
    Source: common-practice
    """
    row = _row(key)
    if "softens" not in row:
        return Feel(None, None)
    first, second = (part.kg for part in mixed_of(key, kg, first_frac))
    low, high = row["first"]["low"], row["first"]["high"]
    # so much of it may be added until the first's share is no longer usual
    room = second / (1 - high) - first - second, first / low - first - second
    of_first, of_second = (
        _spoonful(name, there, until) for name, there, until in zip(row["of"], (first, second), room, strict=True)
    )
    return Feel(of_first, of_second) if row["softens"] == 0 else Feel(of_second, of_first)


def _spoonful(name: str, there_kg: float, until_kg: float) -> Spoonful | None:
    """By the larger spoon that is no more than a third of what is there of it."""
    for of in ("tbsp", "tsp"):
        kg = spoon_kg(name, of)
        if kg is not None and (of == "tsp" or kg <= there_kg / 3):
            return Spoonful(name, of, kg, max(int(until_kg / kg), 0))
    return None


def _row(key: str) -> dict:  # type: ignore[type-arg]
    rows = table("kitchen")["ratio"]
    if key not in rows:
        raise OutOfRange("no such mixture", path="mixture", got=key, limits={"one_of": list(rows)})
    return dict(rows[key])


@dataclass(frozen=True, slots=True)
class Mixing:
    """A mixture as it is made: its name, of what, and what is added by feel."""

    name: str
    of: Mixed
    feel: Feel


def mixing_of(key: str, kg: float) -> Mixing | None:
    """A mixture as it is made [kg]; None of what is none. Source: common-practice"""
    names = mixtures()
    return Mixing(names[key], mixed_of(key, kg), feel_of(key, kg)) if key in names else None
