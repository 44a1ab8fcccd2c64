"""Anything by the words of the trade: a thing of the workshop, a word, or a question that can be answered."""

import re
from collections.abc import Iterable
from dataclasses import dataclass, replace
from datetime import datetime
from typing import Literal

from pydantic import Field

from umber_pebble.core.ask.phrases import Taken
from umber_pebble.core.materials.load import materials
from umber_pebble.core.materials.words import Word, glossary
from umber_pebble.services import asks
from umber_pebble.services.answering import Understood, understand
from umber_pebble.services.doc_base import Doc
from umber_pebble.services.workshop import Workshop
from umber_pebble.store import queries

FoundKind = Literal["order", "piece", "mould", "run", "colour", "material", "palette"]
KINDS: tuple[FoundKind, ...] = ("order", "piece", "mould", "run", "colour", "material", "palette")
MOST_THINGS, MOST_WORDS = 8, 3


@dataclass(frozen=True, slots=True)
class FoundThing:
    """Something that was found; at: when a run began."""

    kind: FoundKind
    id: str
    name: str
    at: datetime | None = None


@dataclass(frozen=True, slots=True)
class Found:
    """Things, the best first; words of the trade; the phrase as a question."""

    things: tuple[FoundThing, ...]
    words: tuple[Word, ...]
    understood: Understood


def find(workshop: Workshop, said: str) -> Found:
    """What a phrase may mean: things by their names, words, a question with what it gives."""
    known = _things(workshop)
    understood = _with_piece(understand(workshop, said), said, known)
    text = _plain(said)
    ranked = sorted(
        ((rank, thing) for thing in known if (rank := _rank(text, _plain(thing.name))) is not None),
        key=lambda of: (of[0], KINDS.index(of[1].kind), of[1].name),
    )
    words = [word for word in glossary() if any(_rank(text, said) in (0, 1) for said in (word.called, *word.said))]
    return Found(
        tuple(thing for _, thing in ranked[:MOST_THINGS]), tuple(words[:MOST_WORDS]) if text else (), understood
    )


def _things(workshop: Workshop) -> list[FoundThing]:
    with workshop.session() as session:
        rows, runs = queries.names(session), queries.run_names(session)
    named = [FoundThing(kind, key, name) for kind, key, name in rows if kind in KINDS]
    tables = [FoundThing("material", key, of.name) for key, of in materials("melts").items()]
    return [*named, *tables, *(FoundThing("run", key, name, at) for key, name, at in runs)]


def _plain(text: str) -> str:
    return " ".join(re.findall(r"[\w.]+", text.casefold()))


def _rank(text: str, name: str) -> int | None:
    """How well a name fits: it is it, it begins so, each word of the text begins one of its; None: not at all."""
    if not text:
        return None
    if name == text:
        return 0
    if name.startswith(text):
        return 1
    words = name.split()
    if all(any(word.startswith(part) for word in words) for part in text.split()):
        return 2
    return None


def _with_piece(understood: Understood, said: str, known: Iterable[FoundThing]) -> Understood:
    """The question with a piece of the workshop, where all words of its name were said."""
    asked, words = understood.asked, {_stem(word) for word in _plain(said).split()}
    if not isinstance(asked, asks.AskHowMuch | asks.AskStands):
        return understood
    named = [
        thing
        for thing in known
        if thing.kind == "piece" and {_stem(word) for word in _plain(thing.name).split()} <= words
    ]
    if not named:
        return understood
    piece = max(named, key=lambda thing: len(thing.name))
    its = {_stem(word) for word in _plain(piece.name).split()}
    unknown = tuple(word for word in understood.read.unknown if _stem(word) not in its)
    taken = (*understood.read.taken, Taken(piece.name, "piece_id"))
    read = replace(understood.read, taken=taken, unknown=unknown)
    return replace(understood, read=read, asked=asked.model_copy(update={"piece_id": piece.id}))


def _stem(word: str) -> str:
    """A word without the ending of its plural."""
    return word.removesuffix("s") if len(word) > 3 else word


class FindRequest(Doc):
    """What was typed."""

    said: str = Field(max_length=200)
