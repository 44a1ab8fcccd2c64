"""Printed films and textures: how they are cut for what they are pressed on; and transfers of one's own, painted before anything is
poured."""

from dataclasses import dataclass
from typing import Literal

from umber_pebble.core.errors import require_range
from umber_pebble.core.materials.load import material

LaidBy = Literal["piped", "brush", "splatter", "finger", "scratch", "mottle", "spray"]
"""By what a thin layer is laid on: a bag, a brush, flicked off one, a finger; brushed and scratched out again, dabbed, sprayed."""


@dataclass(frozen=True, slots=True)
class Film:
    """A film: over how many castings in a row a piece of it goes [count]; whether it is used again once it is peeled, and whether what it
    lay on may be eaten."""

    over: int
    again: bool
    eaten: bool


@dataclass(frozen=True, slots=True)
class FilmCut:
    """A piece of a film: how long and wide [m]."""

    of: Film
    long_m: float
    wide_m: float


def film_cut(film: Film, long_m: float, wide_m: float) -> FilmCut:
    """A strip over so many in a row, or a piece for one by itself; it stands over all round, so that it can be peeled.

    Args:
        film: with 1 to 12 castings under one strip
        long_m, wide_m: of a casting where it is pressed on, above zero
    Raises: OutOfRange: a size that is none.
    Source: common-practice
    """
    require_range("print.long_m", long_m, 0.001, 1.0)
    require_range("print.wide_m", wide_m, 0.001, 1.0)
    over = material("kitchen", "usual", "print").value("over")
    return FilmCut(film, film.over * long_m + (film.over + 1) * over, wide_m + 2 * over)


def laid_s(by: LaidBy, area_m2: float) -> float:
    """How long hands take to lay a thin layer on an area, beside taking it up [s].

    Args:
        by: a brush, a finger, a spray; what is piped goes at its own pace, 0
        area_m2: zero or above
    Source: from-memory
    """
    return 0.0 if by == "piped" else area_m2 / material("kitchen", by, "laid").value("pace")
