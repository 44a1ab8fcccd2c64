"""What hands put in, on or together beside what is poured."""

from dataclasses import dataclass

from umber_pebble.core.pieces.bought import Bought
from umber_pebble.core.pieces.finishes import CoatOf, Finish
from umber_pebble.core.pieces.of_paste import OfPaste
from umber_pebble.core.pieces.passes.base import InHand
from umber_pebble.core.pieces.transfers import FilmCut, ShapedAs
from umber_pebble.core.plan.tasks import Work


@dataclass(frozen=True, slots=True)
class FinishCoat:
    """A coat of a finish on a piece: of what, what it takes, and which of its coats it is, the first 0."""

    of: Finish
    coat: CoatOf
    nth: int


@dataclass(frozen=True, slots=True)
class Inclusion:
    """What hands put into each cavity before a pour: its name, grams each [kg], and how long one takes [s]; key: of a filling in
    the tables; film: how it is cut, where it is one; shaped: how it is bent with its film; bought: as what; finish: which coat of what."""

    what: InHand
    name: str
    kg: float
    each_s: float
    key: str = ""
    film: FilmCut | None = None
    shaped: ShapedAs | None = None
    bought: Bought | None = None
    finish: FinishCoat | None = None


@dataclass(frozen=True, slots=True)
class SoftWork:
    """What hands do with a cast while it is soft, on: with what; on a sheet that is done to all of it at once."""

    kind: Work
    on: tuple[Inclusion, ...] = ()


@dataclass(frozen=True, slots=True)
class PasteShare:
    """How much of a paste is in one of something [kg]."""

    of: OfPaste
    kg: float
