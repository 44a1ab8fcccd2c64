"""What somebody wishes of a timetable: what begins when, who does what, who is there when. Times from now [s]."""

from dataclasses import dataclass
from typing import Literal

from umber_pebble.core.plan.tasks import TaskKind

Skill = Literal["heat", "pour", "shape", "unmould", "clean", "join"]
"""What hands can do, as people speak of it."""
SKILL_OF: dict[TaskKind, Skill] = {
    "wash": "heat",
    "weigh": "heat",
    "cook": "heat",
    "warm": "heat",
    "temper": "heat",
    "tend": "heat",
    "pour": "pour",
    "put_in": "pour",
    "turn": "pour",
    "swirl": "pour",
    "divide": "pour",
    "bend": "shape",
    "stick": "shape",
    "sprinkle": "shape",
    "film": "shape",
    "drag": "shape",
    "comb": "shape",
    "groove": "shape",
    "cut": "shape",
    "shape": "shape",
    "unmould": "unmould",
    "clean": "clean",
    "press": "join",
    "model": "join",
    "fit": "join",
    "finish": "join",
    "join": "join",
}


@dataclass(frozen=True, slots=True)
class Thing:
    """What is wished of: a line of the order, one of its pours or things made by hand (those come after its pours), what is done to it, and
    which filling of it; None: all of it."""

    item: int
    step: int | None = None
    what: TaskKind | None = None
    nth: int | None = None


@dataclass(frozen=True, slots=True)
class BeginsAt:
    """It begins then, no sooner and no later."""

    of: Thing
    at_s: float


@dataclass(frozen=True, slots=True)
class NotBefore:
    """Nothing of it begins before."""

    of: Thing
    at_s: float


@dataclass(frozen=True, slots=True)
class OverBy:
    """All of it is over by then; what is cleaned after it may be later."""

    of: Thing
    at_s: float


@dataclass(frozen=True, slots=True)
class OnlyBy:
    """One of the people does it, by their number."""

    of: Thing
    person: int


@dataclass(frozen=True, slots=True)
class NotBy:
    """One of the people does not do it, by their number."""

    of: Thing
    person: int


@dataclass(frozen=True, slots=True)
class ThereFrom:
    """One of the people is there from then until then, and not otherwise."""

    person: int
    from_s: float
    to_s: float


@dataclass(frozen=True, slots=True)
class AwayFrom:
    """One of the people is not there from then until then."""

    person: int
    from_s: float
    to_s: float


Wish = BeginsAt | NotBefore | OverBy | OnlyBy | NotBy | ThereFrom | AwayFrom
