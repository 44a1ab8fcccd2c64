"""What is done in a plan, and when."""

from dataclasses import dataclass, replace
from typing import Literal

from umber_pebble.core.pieces.passes.base import Soft

Work = Literal["bend", "cut"] | Soft
"""What hands do with a casting while it is soft."""
TaskKind = (
    Literal[
        "wash",
        "weigh",
        "cook",
        "warm",
        "temper",
        "tend",
        "rest",
        "pour",
        "put_in",
        "turn",
        "swirl",
        "divide",
        "set",
        "unmould",
        "firm",
        "clean",
        "dry",
        "press",
        "model",
        "fit",
        "finish",
        "join",
    ]
    | Work
)
"""wash: a vessel, for another melt; cook: on the heat until it is melted; warm: on it again; temper: off it, until it is in temper; tend: hands at one of these."""


POURS: tuple[TaskKind, ...] = ("pour", "swirl", "divide")
"""What empties a vessel: into moulds, into another melt, into a vessel of its own."""


@dataclass(frozen=True, slots=True)
class Task:
    """One entry: kind, number of its cook or of what is made by hand, its round, start and end on the timetable [s], and whose hands
    it takes, None where nobody's; thing: which of its day it is, None where it comes by itself or belongs to a heat."""

    kind: TaskKind
    of: Literal["cook", "by_hand"]
    number: int
    round: int | None
    start_s: float
    end_s: float
    who: int | None = None
    thing: int | None = None

    @property
    def hands(self) -> bool:
        return self.who is not None

    def moved(self, by_s: float) -> "Task":
        """So much later [s]. Source: definition"""
        return replace(self, start_s=self.start_s + by_s, end_s=self.end_s + by_s)


@dataclass(frozen=True, slots=True)
class PlannedHeat:
    """A melt on the heat: the cook, whether it is made anew, when it is put on, off its heater and ready, and until when it is poured
    from after that [s]; the rounds that are poured then, in order."""

    cook: int
    new: bool
    on_s: float
    off_s: float
    ready_s: float
    until_s: float
    rounds: tuple[int, ...]

    def moved(self, by_s: float) -> "PlannedHeat":
        """So much later [s]. Source: definition"""
        on, off, ready, until = (at + by_s for at in (self.on_s, self.off_s, self.ready_s, self.until_s))
        return replace(self, on_s=on, off_s=off, ready_s=ready, until_s=until)
