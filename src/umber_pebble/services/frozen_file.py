"""What a run was started with, as a workshop's file holds it."""

from typing import Annotated

from pydantic import Field

from umber_pebble.services.doc_base import Doc, Name, Utc, Whole
from umber_pebble.services.snapshot import Snapshot


class DoseFile(Doc):
    """Of a colour, what goes into a kilogram of a melt."""

    name: str
    kg: float | None
    drops: float | None


class WhoseFile(Doc):
    """Whose hands something done to a cook, a round, or what is made by hand was planned for."""

    kind: str = Field(max_length=40)
    number: Whole = Field(ge=0)
    who: Name


class FrozenFile(Doc):
    """What a run was started with; doses by coloured melt."""

    engine: str
    snapshot: Snapshot
    groups: list[list[list[Annotated[int, Field(ge=-1)]]]]
    planned_at: Utc
    whose: list[WhoseFile] = Field(default_factory=list)
    pours_s: list[float] = Field(default_factory=list, description="of each round, from the first of the plan")
    doses: dict[str, list[DoseFile]] = Field(default_factory=dict)
