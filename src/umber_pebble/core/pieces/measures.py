"""Spoons and cups beside grams, for whoever measures so."""

from dataclasses import dataclass
from typing import Literal

from umber_pebble.core.errors import require_range
from umber_pebble.core.materials.load import material, table

SpoonOf = Literal["tsp", "tbsp", "cup"]
SPOONS_M3: dict[SpoonOf, float] = {"tsp": 4.92892e-6, "tbsp": 14.7868e-6, "cup": 236.588e-6}
"""Teaspoon, tablespoon and cup, level [m3]. Source: nist-handbook-44"""
UPTO_TBSP: dict[SpoonOf, float] = {"tsp": 0.75, "tbsp": 4.0}
"""Up to so many tablespoons is measured by each [count]."""
QUARTERS = 4


@dataclass(frozen=True, slots=True)
class Measured:
    """So many level spoons or cups, to a quarter [count]."""

    count: float
    of: SpoonOf


def measured(name: str, kg: float) -> Measured | None:
    """Something by the spoon or cup as people measure it; None of what nobody measures so, or of less than a quarter of a teaspoon.

    Args:
        name: as the tables call it
        kg: zero or above
    Source: nist-handbook-44, from-memory
    """
    density = _loose_kg_m3(name)
    return None if density is None else measured_m3(require_range("kg", kg, 0.0, 100.0) / density)


def measured_m3(volume_m3: float) -> Measured | None:
    """A volume in level spoons or cups [m3]; None of less than a quarter of a teaspoon. Source: nist-handbook-44"""
    tbsp = volume_m3 / SPOONS_M3["tbsp"]
    of: SpoonOf = next((spoon for spoon, most in UPTO_TBSP.items() if tbsp < most), "cup")
    count = round(volume_m3 / SPOONS_M3[of] * QUARTERS) / QUARTERS
    return Measured(count, of) if count else None


def spoon_kg(name: str, of: SpoonOf) -> float | None:
    """What a level spoon or cup of something weighs [kg]; None of what nobody measures so. Source: nist-handbook-44, from-memory"""
    density = _loose_kg_m3(name)
    return None if density is None else density * SPOONS_M3[of]


def _loose_kg_m3(name: str) -> float | None:
    key = name.lower().replace(" ", "_").replace(",", "")
    rows = table("kitchen")["loose"]
    return material("kitchen", key, "loose").value("density") if key in rows else None
