"""Printed films and textures: how they are cut for what they are pressed on."""

from dataclasses import dataclass

from umber_pebble.core.errors import require_range
from umber_pebble.core.materials.load import material


@dataclass(frozen=True, slots=True)
class FilmCut:
    """A piece of film: how long and wide [m], over so many castings [count]."""

    long_m: float
    wide_m: float
    over: int


def film_cut(long_m: float, wide_m: float, in_row: int) -> FilmCut:
    """A strip over so many in a row, or a piece for one by itself; it stands over all round, so that it can be peeled.

    Args:
        long_m, wide_m: of a casting where it is pressed on, above zero
        in_row: castings under one strip, 1 to 12
    Raises: OutOfRange: a size that is none.
    Source: common-practice
    """
    require_range("print.long_m", long_m, 0.001, 1.0)
    require_range("print.wide_m", wide_m, 0.001, 1.0)
    over = material("kitchen", "usual", "print").value("over")
    return FilmCut(in_row * long_m + (in_row + 1) * over, wide_m + 2 * over, in_row)
