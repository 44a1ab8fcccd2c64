"""Melts piped side by side in stripes: how wide a bead lies, and how many stripes each melt has."""

import math
from collections.abc import Sequence
from dataclasses import dataclass

from umber_pebble.core.errors import require_range
from umber_pebble.core.materials.load import material


@dataclass(frozen=True, slots=True)
class Stripes:
    """Out of an opening so wide, each stripe so wide as it lies [m]; how many of each melt [count]."""

    bore_m: float
    wide_m: float
    counts: tuple[int, ...]


@dataclass(frozen=True, slots=True)
class Piped:
    """Piped in stripes, or in lines over a drawing: out of which opening, how wide each lies [m], so many of all that lie side by side
    [count], how long all of it in a casting is [m], and how long hands take for that [s]."""

    bore_m: float
    wide_m: float
    count: int
    of_all: int
    long_m: float
    each_s: float


def stripes(bore_m: float, thick_m: float, across_m: float, shares: Sequence[float]) -> Stripes:
    """A bead as round as its opening runs out to a layer: w t = pi d^2 / 4. Each melt has its share of the stripes, one at least.

    Args:
        bore_m: of the bag or nozzle
        thick_m: of the layer, above zero
        across_m: what the stripes lie across
        shares: of the melts [frac]
    Raises: OutOfRange: an opening that is none.
    Source: geometry
    """
    require_range("stripes_m", bore_m, 0.0005, 0.03)
    wide = math.pi * bore_m**2 / 4 / thick_m
    whole = max(round(across_m / wide), len(shares))
    counts = [max(math.floor(share * whole), 1) for share in shares]
    # what is left of the whole goes to those that have least of their share
    while sum(counts) < whole:
        counts[max(range(len(counts)), key=lambda i: shares[i] * whole - counts[i])] += 1
    return Stripes(bore_m, across_m / sum(counts), tuple(counts))


def piping_s(long_m: float, lines: int) -> float:
    """How long hands take to pipe so much bead, set down and lifted for so many lines [s].

    Args:
        long_m: of all of it [m]
        lines: that are begun and ended by themselves [count]
    Source: from-memory
    """
    pace, starts = material("kitchen", "usual", "piping"), material("kitchen", "usual", "traced")
    return long_m / pace.value("pace") + lines * starts.value("starts")


def bead_m(volume_m3: float, bore_m: float) -> float:
    """How long a bead out of such an opening a volume makes [m]. Source: geometry"""
    return volume_m3 / (math.pi * bore_m**2 / 4)
