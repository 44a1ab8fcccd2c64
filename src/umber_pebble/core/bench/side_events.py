"""What is told beside the acts: a timer of one's own, a piece made good, castings counted again."""

from dataclasses import dataclass
from typing import Annotated, ClassVar, Literal

from annotated_types import Interval, Len

from umber_pebble.core.bench.values import Id, Index, Mending, Text, TimerS


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
