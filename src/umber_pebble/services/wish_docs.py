"""What somebody wishes of an order's timetable, and who is there when, as stored and as sent."""

from typing import Annotated, Literal

from pydantic import Field

from umber_pebble.core.plan.tasks import TaskKind
from umber_pebble.core.plan.wishes import Skill
from umber_pebble.services.doc_base import Doc, Id, Name, Utc, Whole

MOST_WISHES = 40


class ThingDoc(Doc):
    """A piece of the order; of it one pour or thing made by hand, what is done to it, and which filling; None: all of it."""

    piece_id: Id
    step: Whole | None = Field(ge=0, le=100)
    what: TaskKind | None
    nth: Whole | None = Field(ge=0, le=1000)


class BeginsAtDoc(Doc):
    """It begins then, no sooner and no later."""

    wish: Literal["begins_at"]
    of: ThingDoc
    at: Utc


class NotBeforeDoc(Doc):
    """Nothing of it begins before."""

    wish: Literal["not_before"]
    of: ThingDoc
    at: Utc


class OverByDoc(Doc):
    """All of it is over by then."""

    wish: Literal["over_by"]
    of: ThingDoc
    at: Utc


class OnlyByDoc(Doc):
    """One of the people does it."""

    wish: Literal["only_by"]
    of: ThingDoc
    person: Name


class NotByDoc(Doc):
    """One of the people does not do it."""

    wish: Literal["not_by"]
    of: ThingDoc
    person: Name


class ThereFromDoc(Doc):
    """One of the people is there from then until then, and not otherwise."""

    wish: Literal["there_from"]
    person: Name
    at: Utc
    until: Utc


class AwayFromDoc(Doc):
    """One of the people is not there from then until then."""

    wish: Literal["away_from"]
    person: Name
    at: Utc
    until: Utc


WishDoc = Annotated[
    BeginsAtDoc | NotBeforeDoc | OverByDoc | OnlyByDoc | NotByDoc | ThereFromDoc | AwayFromDoc,
    Field(discriminator="wish"),
]

TimeOfDay = Annotated[str, Field(pattern=r"^([01]\d|2[0-3]):[0-5]\d$")]


class Opening(Doc):
    """From when to when hands may be in the kitchen on a day of the week, Monday is 0; to a time no later than from: into the night."""

    day: Whole = Field(ge=0, le=6)
    opens: TimeOfDay
    closes: TimeOfDay


class Roster(Doc):
    """When one of the people is there, at any time where no hours are told, and what she leaves to others."""

    name: Name
    hours: list[Opening] = Field(max_length=28)
    leaves: list[Skill] = Field(max_length=6)
