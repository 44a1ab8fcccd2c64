"""How a coloured cast looks: clear by Beer-Lambert with its thickness, opaque by Kubelka-Munk on its own base tint."""

import math
from dataclasses import dataclass
from functools import cache

import numpy as np

from umber_pebble.core.colour.spaces import Array, wavelengths_nm
from umber_pebble.core.errors import require_range
from umber_pebble.core.materials.load import Material, material

FRESNEL_FRAC = 0.04
"""Light that a smooth face of index 1.5 gives back."""
INSIDE_FRAC = 0.6
"""Light that a smooth face gives back from within an opaque body (Saunderson)."""
THINNEST_M = 2e-4
"""A body is at least so thick."""
LN10 = math.log(10.0)


@dataclass(frozen=True, slots=True)
class Medium:
    """What is coloured: clear of a thickness [m], seen against the light or on white; or an opaque base. Density [kg/m3]."""

    base: Material
    density_kg_m3: float
    thickness_m: float = 0.003
    on_white: bool = False

    def __post_init__(self) -> None:
        require_range("thickness_m", self.thickness_m, THINNEST_M, 0.1)

    @property
    def clear(self) -> bool:
        return self.base.flags.get("clear", False)


@cache
def dye_curve(key: str) -> Array:
    """E(1 %, 1 cm) of a dye over the wavelengths, a bell curve about its peak [1].

    Source: jecfa-monographs, assumption
    """
    dye = material("dyes", key)
    away = (wavelengths_nm() - dye.value("peak")) / dye.value("width")
    curve: Array = dye.value("strength") * np.exp(-0.5 * away**2)
    return curve


def absorbance_per_m(doses_mg_kg: Array, keys: tuple[str, ...], density_kg_m3: float) -> Array:
    """Absorbance of dyes in a body, for each metre of path [1/m], along the wavelengths.

    Args:
        doses_mg_kg: [..., dye], at least zero
        keys: the dyes
        density_kg_m3: of the body
    Source: beer-1852
    """
    g_per_100ml = doses_mg_kg * density_kg_m3 * 1e-7
    return np.asarray(g_per_100ml @ np.array([dye_curve(key) for key in keys]) * 100.0)


@cache
def base_reflectance(base: Material) -> Array:
    """Reflectance of an opaque base over the wavelengths [frac]. Source: assumption"""
    known = {float(name[1:]): base.value(name) for name in base.properties if name.startswith("r")}
    return np.interp(wavelengths_nm(), list(known), list(known.values()))


def km_of_reflectance(reflectance: Array) -> Array:
    """K/S of an opaque body from its inner reflectance, (1-R)^2 / 2R [1]. Source: kubelka-munk-1931"""
    return np.asarray((1 - reflectance) ** 2 / (2 * reflectance))


def reflectance_of_km(k_over_s: Array) -> Array:
    """Inner reflectance of an opaque body, 1 + q - sqrt(q^2 + 2q) [frac]. Source: kubelka-munk-1931"""
    return np.asarray(1 + k_over_s - np.sqrt(k_over_s**2 + 2 * k_over_s))


def outside(inner: Array) -> Array:
    """What is seen of an inner reflectance through the body's face [frac], the mirror image in its gloss looked past.

    Source: saunderson-1942
    """
    return np.asarray((1 - FRESNEL_FRAC) * (1 - INSIDE_FRAC) * inner / (1 - INSIDE_FRAC * inner))


def inside(seen: Array) -> Array:
    """The inner reflectance behind what is seen: outside(), solved [frac]. Source: saunderson-1942"""
    return np.asarray(seen / ((1 - FRESNEL_FRAC) * (1 - INSIDE_FRAC) + INSIDE_FRAC * seen))


def spectrum(medium: Medium, doses_mg_kg: Array, keys: tuple[str, ...]) -> Array:
    """Light a coloured body sends to the eye, by wavelength [frac].

    Clear: through it, both faces giving some back; on white there and back. Opaque: what its dyes take, over how
    strongly it scatters, added to its base's own K/S.
    Args:
        medium: the body
        doses_mg_kg: [..., dye]
        keys: the dyes
    Source: beer-1852, kubelka-munk-1931, saunderson-1942
    """
    per_m = absorbance_per_m(doses_mg_kg, keys, medium.density_kg_m3)
    if medium.clear:
        passes = 2.0 if medium.on_white else 1.0
        t = 10.0 ** (-per_m * medium.thickness_m * passes)
        f = FRESNEL_FRAC
        return np.asarray((1 - f) ** 2 * t / (1 - f**2 * t**2))
    own = km_of_reflectance(inside(base_reflectance(medium.base)))
    dyes = 2 * LN10 * per_m / 100.0 / medium.base.value("scatter")
    return outside(reflectance_of_km(own + dyes))
