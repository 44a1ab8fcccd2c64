"""Printed films and textures: how they are cut for what they are pressed on; and transfers of one's own, painted before anything is
poured."""

from dataclasses import dataclass
from typing import Literal

from umber_pebble.core.errors import require_range
from umber_pebble.core.materials.load import material

LaidBy = Literal["piped", "brush", "splatter", "finger", "scratch", "mottle", "spray"]
"""By what a thin layer is laid on: a bag, a brush, flicked off one, a finger; brushed and scratched out again, dabbed, sprayed."""


FilmLaid = Literal["flat", "corner", "folded", "base"]
"""How a film lies: all over, on one corner, folded to a V, or over the loose base of a mould under all its cavities."""


@dataclass(frozen=True, slots=True)
class Film:
    """A film: over how many castings in a row a piece of it goes [count]; whether it is used again once it is peeled, whether what it
    lay on may be eaten, and how it lies."""

    over: int
    again: bool
    eaten: bool
    laid: FilmLaid = "flat"


@dataclass(frozen=True, slots=True)
class ShapedAs:
    """How something is bent with its film: over a form or to a V so wide across [m], or as a band round it whose ends lap so far [m]; whether
    magnets hold it there."""

    how: Literal["curve", "v", "band"]
    form_m: float
    overlap_m: float
    magnets: bool


@dataclass(frozen=True, slots=True)
class FilmCut:
    """A piece of a film: how long and wide [m]."""

    of: Film
    long_m: float
    wide_m: float


def film_cut(film: Film, long_m: float, wide_m: float) -> FilmCut:
    """A strip over so many in a row, or a piece for one by itself, on a corner half as long and wide; it stands over all round, so that it can be
    peeled.

    Args:
        film: with 1 to 12 castings under one strip
        long_m, wide_m: of a casting where it is pressed on, above zero
    Raises: OutOfRange: a size that is none.
    Source: common-practice
    """
    require_range("print.long_m", long_m, 0.001, 1.0)
    require_range("print.wide_m", wide_m, 0.001, 1.0)
    over = material("kitchen", "usual", "print").value("over")
    if film.laid == "corner":
        return FilmCut(film, long_m / 2 + over, wide_m / 2 + over)
    return FilmCut(film, film.over * long_m + (film.over + 1) * over, wide_m + 2 * over)


def laid_s(by: LaidBy, area_m2: float) -> float:
    """How long hands take to lay a thin layer on an area, beside taking it up [s].

    Args:
        by: a brush, a finger, a spray; what is piped goes at its own pace, 0
        area_m2: zero or above
    Source: from-memory
    """
    return 0.0 if by == "piped" else area_m2 / material("kitchen", by, "laid").value("pace")
