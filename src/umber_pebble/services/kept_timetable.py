"""A timetable that was chosen for an order, as it is stored and sent."""

from typing import Annotated

from pydantic import Field

from umber_pebble.core.plan.day.problem import Heat, Timetable
from umber_pebble.services.doc_base import Doc, Whole

MOST_THINGS = 6000
Seconds = Annotated[Whole, Field(ge=0, le=10**7)]
Number = Annotated[Whole, Field(ge=0, le=MOST_THINGS)]


class KeptHeat(Doc):
    """A melt on the heat in a kept timetable: which, when [s], whether new, whose hands each time, what is poured of it."""

    melt: Number
    start_s: Seconds
    new: bool
    who: list[Number] = Field(max_length=200)
    draws: list[Number] = Field(max_length=500)


class KeptTimetable(Doc):
    """A timetable that was found for an order's day: when each thing begins [s], whose hands it takes, its heats. It holds as long as it
    keeps that day."""

    start_s: list[Seconds] = Field(max_length=MOST_THINGS)
    who: list[Number | None] = Field(max_length=MOST_THINGS)
    heats: list[KeptHeat] = Field(max_length=2000)

    @classmethod
    def of(cls, table: Timetable) -> "KeptTimetable":
        """One as it is stored."""
        heats = [
            KeptHeat(melt=h.melt, start_s=h.start_s, new=h.new, who=list(h.who), draws=list(h.draws))
            for h in table.heats
        ]
        return cls(start_s=list(table.start_s), who=list(table.who), heats=heats)

    def table(self) -> Timetable:
        """The same in the engine's terms."""
        heats = tuple(Heat(h.melt, h.start_s, h.new, tuple(h.who), tuple(h.draws)) for h in self.heats)
        return Timetable(tuple(self.start_s), tuple(self.who), heats)
