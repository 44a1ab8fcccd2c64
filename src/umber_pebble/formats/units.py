"""Numbers in the user's units for paper: the same table as on the screens."""

import math
from typing import Any

GRAMS = {"g": (1000.0, "g"), "oz": (1 / 0.028349523125, "oz")}
LENGTHS = {"mm": (1000.0, "mm"), "in": (1 / 0.0254, "in")}


def mass(kg: float, units: Any) -> str:
    """A weight."""
    factor, name = GRAMS[units.mass]
    value = kg * factor
    return f"{value:.{_digits(value, units.mass == 'g')}f} {name}"


def weighed(kg: float, units: Any) -> str:
    """A weight to be weighed out: rounded up to what the scale shows, so that it never falls short."""
    factor, name = GRAMS[units.mass]
    value = kg * factor
    digits = _digits(value, units.mass == "g")
    return f"{math.ceil(value * 10**digits - 1e-6) / 10**digits:.{digits}f} {name}"


def length(metres: float, units: Any) -> str:
    """A length."""
    factor, name = LENGTHS[units.length]
    value = metres * factor
    return f"{value:.2f} {name}" if name == "in" else f"{value:.{1 if abs(value) < 20 else 0}f} {name}"


def temperature(degc: float, units: Any) -> str:
    """A temperature."""
    return f"{degc:.0f} °C" if units.temperature == "C" else f"{degc * 9 / 5 + 32:.0f} °F"


def minutes(seconds: float) -> str:
    """A duration as minutes and seconds."""
    whole = round(seconds)
    return f"{whole // 60}:{whole % 60:02d}"


def _digits(value: float, grams: bool) -> int:
    if grams:
        return 1 if abs(value) < 20 else 0
    return 2 if abs(value) < 10 else 1 if abs(value) < 100 else 0
