"""What there may be to do with castings while they are soft: one class a kind, with the figures it is said with."""

from dataclasses import dataclass, field
from typing import Literal

from umber_pebble.core.plan.handwork import Inclusion
from umber_pebble.core.plan.sheets import SheetOf


@dataclass(frozen=True, slots=True)
class OfRound:
    """So many castings of a line."""

    line: int
    casts: int


@dataclass(frozen=True, slots=True)
class Bend(OfRound):
    """Bend each while it is soft; released: out of its mould first, onto a form."""

    released: bool
    kind: Literal["bend"] = field(default="bend", init=False)


@dataclass(frozen=True, slots=True)
class OnRound(OfRound):
    """What hands do to it while it is soft, with what."""

    items: tuple[Inclusion, ...]


@dataclass(frozen=True, slots=True)
class Stick(OnRound):
    """A stick or wire into each."""

    kind: Literal["stick"] = field(default="stick", init=False)


@dataclass(frozen=True, slots=True)
class Sprinkle(OnRound):
    """Something on each while it is wet."""

    kind: Literal["sprinkle"] = field(default="sprinkle", init=False)


@dataclass(frozen=True, slots=True)
class CutPieces(OfRound):
    """Cut the pieces of a sheet while it is soft, and leave them in it."""

    kind: Literal["cut"] = field(default="cut", init=False)


@dataclass(frozen=True, slots=True)
class PressFilm(OnRound):
    """A film pressed on each, on a sheet on all of it, while it no longer runs and has not set."""

    sheet: SheetOf | None
    kind: Literal["film"] = field(default="film", init=False)


@dataclass(frozen=True, slots=True)
class Comb(OnRound):
    """Draw through it while it is wet, for lines that stay or through its colours; of a sheet, which."""

    how: Literal["drag", "comb"]
    sheet: SheetOf | None
    kind: Literal["comb"] = field(default="comb", init=False)


@dataclass(frozen=True, slots=True)
class ShapeFilm(OnRound):
    """Bent with the film it lies on: over a form, to a V, or each round its form; of a sheet, which."""

    sheet: SheetOf | None
    kind: Literal["shape"] = field(default="shape", init=False)


@dataclass(frozen=True, slots=True)
class Groove(OnRound):
    """Grooves into the back of each while it is leathery."""

    kind: Literal["groove"] = field(default="groove", init=False)
