"""Dust on a surface: how much of it is covered, the colour of that by Kubelka-Munk, and the shine of its flakes as it is tilted."""

import math
from dataclasses import dataclass
from typing import Literal

import numpy as np

from umber_pebble.core.colour.layers import DEEPEST, CoatOfColour, over, smooth_reflectance
from umber_pebble.core.colour.look import inside, outside
from umber_pebble.core.colour.spaces import Array, lab_of_spectrum
from umber_pebble.core.errors import require_range
from umber_pebble.core.materials.load import material

DustSort = Literal["petal", "lustre", "pearl", "highlighter", "sparkle"]
TILTS_RAD = (0.0, math.radians(20.0), math.radians(50.0))
"""Towards the light, a little aside, and far from it."""


@dataclass(frozen=True, slots=True)
class Dusted:
    """A dust on a surface: which sort, its colour as hex, how much of it there is [kg/m2]."""

    sort: DustSort
    colour: str
    kg_m2: float

    def __post_init__(self) -> None:
        require_range("kg_m2", self.kg_m2, 0.0, 0.1)


def covers_frac(sort: DustSort, kg_m2: float) -> float:
    """Which share of a surface is under flakes or grains that fall where they do [frac]: 1 - exp(-m / m1).

    Args:
        sort: of the dust
        kg_m2: of it, zero or above
    Source: poisson-coverage
    """
    return 1 - math.exp(-kg_m2 / material("kitchen", sort, "dust").value("once"))


def looks(dust: Dusted, base: Array, tilt_rad: float) -> Array:
    """Lab in daylight of a surface under dust.

    The share that it covers is a layer of its own colour over the base (Kubelka-Munk), and its flakes give back light of that colour as a mirror
    does, the less the farther it is tilted: D = exp(-(tilt / spread)^2).
    Args:
        dust: what lies on it
        base: what the surface gives back by itself [frac by wavelength]
        tilt_rad: of the surface, from where it mirrors the light, 0 to pi / 2
    Source: kubelka-munk-1931, assumption
    """
    row, usual = material("kitchen", dust.sort, "dust"), material("kitchen", "usual", "dust")
    share = covers_frac(dust.sort, dust.kg_m2)
    if share <= 0:
        return lab_of_spectrum(base)
    own = smooth_reflectance(dust.colour)
    hiding = own if row.flags.get("absorbs", True) else tuple(max(v, usual.value("clear")) for v in own)
    deep_m = dust.kg_m2 / share / row.value("density")
    coat = CoatOfColour(hiding, row.value("scatter"), max(deep_m, 1e-7))
    body = outside(over(coat, inside(base)))
    seen = (1 - share) * base + share * body
    lobe = math.exp(-((tilt_rad / row.value("spread")) ** 2)) if row.value("mirrors") else 0.0
    mirror = share * row.value("mirrors") * lobe * np.asarray(own)
    return lab_of_spectrum(np.clip(seen * (1 - usual.value("hides") * mirror) + mirror * (1 - seen), DEEPEST, 1.0))
