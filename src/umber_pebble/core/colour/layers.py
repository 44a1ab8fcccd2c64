"""Thin coloured layers over one another: how they look over what is behind them, by Kubelka-Munk of a finite thickness."""

from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache

import numpy as np

from umber_pebble.core.colour.look import inside, km_of_reflectance, outside
from umber_pebble.core.colour.spaces import (
    Array,
    lab_of_hex,
    lab_of_spectrum,
    observer,
    wavelengths_nm,
    xyz_of_lab,
)
from umber_pebble.core.errors import require_range

NEWTON_ROUNDS, EXACT = 60, 1e-9
PALEST, DEEPEST = 0.98, 0.004
"""Between these lies what a smooth spectrum is asked for: no body gives back all light, or none [frac]."""


@dataclass(frozen=True, slots=True)
class CoatOfColour:
    """A thin layer: what it gives back where it is thick enough to hide all behind it [frac by wavelength], how strongly it scatters
    [1/cm], how thick it is [m]."""

    hiding: tuple[float, ...]
    scatter_per_cm: float
    thick_m: float

    def __post_init__(self) -> None:
        require_range("scatter_per_cm", self.scatter_per_cm, 0.1, 10_000.0)
        require_range("thick_m", self.thick_m, 1e-7, 0.1)


def over(coat: CoatOfColour, behind: Array) -> Array:
    """Inner reflectance of a layer over what is behind it [frac], (1 - Rg (a - b coth bSX)) / (a - Rg + b coth bSX).

    Args:
        coat: the layer
        behind: inner reflectance of what it lies on [frac]
    Source: kubelka-munk-1931
    """
    a = 1 + km_of_reflectance(inside(np.asarray(coat.hiding)))
    b = np.sqrt(a**2 - 1)
    depth = np.maximum(b * coat.scatter_per_cm * 100 * coat.thick_m, 1e-12)
    coth = 1 / np.tanh(depth)
    return np.asarray((1 - behind * (a - b * coth)) / (a - behind + b * coth))


def seen_over(coats: Sequence[CoatOfColour], base: Array) -> Array:
    """Lab under daylight of layers over a base, the one that is nearest to the eye first.

    Args:
        coats: any number
        base: what the base gives back by itself, its face with it [frac]
    Source: kubelka-munk-1931, saunderson-1942
    """
    inner = inside(base)
    for coat in reversed(coats):
        inner = over(coat, inner)
    return lab_of_spectrum(outside(inner))


@lru_cache(maxsize=256)
def smooth_reflectance(colour: str) -> tuple[float, ...]:
    """The smoothest reflectance that looks like a colour in daylight, above 0 and under 1 at each wavelength [frac].

    It is (tanh z + 1) / 2 of the z that slopes least, found by Newton's steps on its Lagrange conditions.
    Args:
        colour: as #rrggbb
    Raises: OutOfRange: not such a text.
    Source: burns-2020
    """
    wanted = xyz_of_lab(lab_of_hex(colour))
    weights = observer("daylight").weights
    n = wavelengths_nm().size
    grey = float(np.clip(wanted[1], DEEPEST, PALEST))
    wanted = np.clip(wanted, DEEPEST * weights.sum(axis=1), PALEST * weights.sum(axis=1))
    slope = np.diag([2.0, *[4.0] * (n - 2), 2.0]) - 2 * (np.eye(n, k=1) + np.eye(n, k=-1))
    z, held = np.full(n, np.arctanh(2 * grey - 1)), np.zeros(3)
    for _ in range(NEWTON_ROUNDS):
        light, steep = (np.tanh(z) + 1) / 2, 1 / np.cosh(z) ** 2 / 2
        bends = -2 * steep * np.tanh(z)
        pull = weights.T @ held
        off = np.concatenate((slope @ z + steep * pull, weights @ light - wanted))
        if float(np.abs(off).max()) < EXACT:
            break
        across = weights * steep
        matrix = np.block([[slope + np.diag(bends * pull), across.T], [across, np.zeros((3, 3))]])
        step = np.linalg.lstsq(matrix, -off, rcond=None)[0]
        z, held = z + np.clip(step[:n], -1.0, 1.0), held + step[n:]
    return tuple(float(v) for v in np.clip((np.tanh(z) + 1) / 2, DEEPEST, PALEST))
