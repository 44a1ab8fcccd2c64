"""Replies with what there is to choose from, and what numbers rest on."""

from typing import Generic, TypeVar

from umber_pebble.api.schemas import Reply
from umber_pebble.core.bench.values import Method
from umber_pebble.core.materials.words import Word
from umber_pebble.services import documents

K = TypeVar("K", bound=str)


class Source(Reply):
    key: str
    title: str
    memory: bool


class SourceList(Reply):
    items: list[Source]


class Choice(Reply, Generic[K]):
    """A kind of thing somebody can choose."""

    key: K
    name: str


class MouldChoice(Choice[documents.MouldMaterial]):
    """What a mould is of, what it bears and how thick its wall is."""

    bears_degc: float
    wall_m: float


class Choices(Reply):
    moulds: list[MouldChoice]
    surfaces: list[Choice[documents.SurfaceKey]]
    rings: list[Choice[documents.HobKind]]
    pots: list[Choice[documents.VesselWall]]
    methods: list[Choice[Method]]
    zones: list[str]


class Glossary(Reply):
    items: list[Word]
