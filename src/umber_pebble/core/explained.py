"""A number that explains itself: value with spread, unit, formula in words, inputs, sources, limit."""

from dataclasses import dataclass

from umber_pebble.core.spread import Spread, exact


@dataclass(frozen=True, slots=True)
class Input:
    """One input of an explained number, in the SI unit named."""

    name: str
    value: Spread
    unit: str


@dataclass(frozen=True, slots=True)
class Explained:
    """A number with its reasons. `unit` is SI (kg, m, m2, m3, s, degC, frac, count, W)."""

    value: Spread
    unit: str
    formula: str
    inputs: tuple[Input, ...] = ()
    sources: tuple[str, ...] = ()
    limited_by: str = ""


def given(name: str, value: float | Spread, unit: str) -> Input:
    """An input from a plain number or a spread [the unit named]. Source: definition"""
    return Input(name, value if isinstance(value, Spread) else exact(value), unit)


def explained(
    value: float | Spread,
    unit: str,
    formula: str,
    *inputs: Input,
    sources: tuple[str, ...] = (),
    limited_by: str = "",
) -> Explained:
    """An explained number from a plain number or a spread [the unit named]. Source: definition"""
    spread = value if isinstance(value, Spread) else exact(value)
    return Explained(spread, unit, formula, inputs, sources, limited_by)
