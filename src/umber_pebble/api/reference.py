"""Replies with what there is to choose from, and what numbers rest on."""

from umber_pebble.api.schemas import Reply
from umber_pebble.core.materials.words import Word


class Source(Reply):
    key: str
    title: str
    memory: bool


class SourceList(Reply):
    items: list[Source]


class Choice(Reply):
    """A material somebody can choose, with its properties for the explanation."""

    key: str
    name: str
    bears_degc: float | None
    wall_m: float | None


class Choices(Reply):
    moulds: list[Choice]
    surfaces: list[Choice]
    rings: list[Choice]
    pots: list[Choice]
    methods: list[Choice]
    zones: list[str]


class Glossary(Reply):
    items: list[Word]
