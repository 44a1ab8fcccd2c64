"""Colours that go together: how far apart they read, what may be melted into what, which base suits a dust."""

from collections.abc import Sequence
from dataclasses import dataclass
from itertools import combinations, permutations
from typing import Literal

from umber_pebble.core.colour.spaces import delta_e_2000, lab_of_hex
from umber_pebble.core.errors import Missing
from umber_pebble.core.materials.load import material

LIGHTER = 3.0
"""A difference in lightness below which two colours are as dark as each other [L*]."""


Base = Literal["sugar", "fat"]
PARTS: dict[Base, str] = {"sugar": "water in the sugar seizes the fat", "fat": "fat parts from sugar"}


@dataclass(frozen=True, slots=True)
class Named:
    """A colour of a palette: its name, as #rrggbb, and what it is in."""

    name: str
    hex: str
    of: Base


@dataclass(frozen=True, slots=True)
class Pair:
    """Two colours side by side: how far apart [CIEDE2000], and whether that reads when they are marbled."""

    one: str
    other: str
    delta_e: float
    reads: bool


@dataclass(frozen=True, slots=True)
class Remelt:
    """Whether one may be melted into another: None, or why not."""

    of: str
    into: str
    why_not: str | None


def pairs(palette: Sequence[Named]) -> list[Pair]:
    """Every two colours of a palette, nearest first [CIEDE2000].

    Args:
        palette: of any length
    Source: sharma-2005, assumption
    """
    least = material("kitchen", "usual", "colouring").value("marbled")
    found = []
    for a, b in combinations(palette, 2):
        apart = float(delta_e_2000(lab_of_hex(a.hex), lab_of_hex(b.hex)))
        found.append(Pair(a.name, b.name, apart, apart >= least))
    return sorted(found, key=lambda pair: pair.delta_e)


def remelts(palette: Sequence[Named]) -> list[Remelt]:
    """What may be melted into what: fat into fat and sugar into sugar, towards the darker; never water into fat [words].

    Args:
        palette: of any length
    Source: common-practice
    """
    return [Remelt(a.name, b.name, _why_not(a, b)) for a, b in permutations(palette, 2)]


def _why_not(of: Named, into: Named) -> str | None:
    if of.of != into.of:
        return PARTS[of.of]
    lighter = float(lab_of_hex(of.hex)[0]) < float(lab_of_hex(into.hex)[0]) - LIGHTER
    return "only towards a darker colour" if lighter else None


def base_for(dust_hex: str, palette: Sequence[Named]) -> Pair:
    """The colour of a palette nearest to a dust that will go over it, so that a thin place does not show [CIEDE2000].

    Args:
        dust_hex: of the dust
        palette: at least one
    Raises: Missing: the palette is empty.
    Source: common-practice, sharma-2005
    """
    if not palette:
        raise Missing("a palette needs a colour first", path="colours")
    dust = lab_of_hex(dust_hex)
    near = min(palette, key=lambda c: float(delta_e_2000(dust, lab_of_hex(c.hex))))
    apart = float(delta_e_2000(dust, lab_of_hex(near.hex)))
    return Pair("dust", near.name, apart, apart >= material("kitchen", "usual", "colouring").value("marbled"))
