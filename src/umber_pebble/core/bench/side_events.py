"""What is told beside the acts: a timer of one's own, a piece made good, castings counted again."""

from dataclasses import dataclass
from typing import Annotated, ClassVar, Literal

from annotated_types import Interval, Len

from umber_pebble.core.bench.values import Id, Index, Mending, RunS, Text, TimerS


@dataclass(frozen=True, slots=True)
class TimerSet:
    """A timer with a name, for so long [s]."""

    KIND: ClassVar[str] = "timer"
    name: Text
    seconds: TimerS


@dataclass(frozen=True, slots=True)
class TimerOver:
    """A timer is heard, or not wanted any more."""

    KIND: ClassVar[str] = "timer"
    timer: Index
    over: Literal[True]


@dataclass(frozen=True, slots=True)
class Pictured:
    """A picture taken, with what there is to say to it."""

    KIND: ClassVar[str] = "note"
    picture: Id
    text: Annotated[str, Len(0, 500)] = ""


@dataclass(frozen=True, slots=True)
class Mended:
    """Castings that failed are made good, and with what."""

    KIND: ClassVar[str] = "mended"
    round: Index
    cavities: Annotated[list[Index], Len(1, 2000)]
    how: Mending


@dataclass(frozen=True, slots=True)
class Counted:
    """So many usable castings of a part are in hand, whatever was recorded before."""

    KIND: ClassVar[str] = "counted"
    line: Index
    good: Annotated[int, Interval(ge=0, le=100_000)]


@dataclass(frozen=True, slots=True)
class PourAt:
    """When a round is to be poured [s since the run started]."""

    round: Index
    at_s: RunS


@dataclass(frozen=True, slots=True)
class Hers:
    """Whose hands something is for, by what is done and to what number."""

    done: Text
    number: Index
    who: Text


@dataclass(frozen=True, slots=True)
class Rearranged:
    """What is left is done in another order: when each round is to be poured, and whose hands do what."""

    KIND: ClassVar[str] = "rearranged"
    pours: Annotated[list[PourAt], Len(1, 2000)]
    whose: Annotated[list[Hers], Len(0, 5000)]


@dataclass(frozen=True, slots=True)
class LeftOut:
    """Rounds that are not cast at all."""

    KIND: ClassVar[str] = "left_out"
    rounds: Annotated[list[Index], Len(1, 2000)]


@dataclass(frozen=True, slots=True)
class WentAway:
    """Somebody leaves, or is back: what was planned for her is anybody's while she is away."""

    KIND: ClassVar[str] = "went"
    person: Text
    away: bool
