"""Questions from the bench, read out of their words and answered; what is not told is taken as usual here, and said to be."""

from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

from pydantic import ValidationError

from umber_pebble.core.ask.phrases import ReadPhrase, Taken, read_phrase
from umber_pebble.core.materials.load import material
from umber_pebble.services import ask_cooling, ask_melting, asks
from umber_pebble.services.ask_usual import filled, kitchen_of
from umber_pebble.services.assembly import AssemblyRequest, assembly
from umber_pebble.services.piece_docs import Piece
from umber_pebble.services.workshop import Workshop


@dataclass(frozen=True, slots=True)
class Understood:
    """A phrase read, and the question it asks, filled as far as it goes, None where it asks none; refused: what was read and is
    outside what may be asked."""

    read: ReadPhrase
    asked: asks.Ask | None
    refused: tuple[Taken, ...] = ()


def understand(workshop: Workshop, said: str) -> Understood:
    """A phrase as a question that can be answered."""
    read = read_phrase(said)
    if read.question is None:
        return Understood(read, None)
    sort = _SORTS[read.question]
    told: dict[str, Any] = dict.fromkeys(sort.model_fields)
    told["question"] = read.question
    for name, value in read.given.items():
        if name == "place" and "place_id" in told:
            place = next((p for p in kitchen_of(workshop).places if p.kind == value), None)
            told["place_id"] = None if place is None else place.id
        elif name in told:
            told[name] = value
    try:
        return Understood(read, sort.model_validate(told))
    except ValidationError as error:
        wrong = {str(of["loc"][0]) for of in error.errors()}
    refused = tuple(of for of in read.taken if of.slot in wrong)
    return Understood(read, sort.model_validate(told | dict.fromkeys(wrong)), refused)


def answer(workshop: Workshop, asked: asks.Ask) -> asks.Answer:
    """A question answered from what is told, the rest assumed.

    Raises: NotFound, and whatever the engine refuses.
    """
    return _ANSWERS[asked.question](workshop, asked)


def _stands(workshop: Workshop, told: asks.AskStands) -> asks.StandsAnswer:
    stands = [of for of in workshop.all("piece") if isinstance(of.doc, Piece) and of.doc.stand is not None]
    first = next((of.id for of in stands), None)
    asked, assumed = filled(told, {} if first is None else {"piece_id": first})
    safe = material("kitchen", "usual", "lean").value("safe")
    piece = None if asked.piece_id is None else workshop.get("piece", asked.piece_id).doc
    if not isinstance(piece, Piece) or piece.stand is None:
        return asks.StandsAnswer(asked, assumed, None, safe, 0.0)
    found = assembly(workshop, AssemblyRequest(piece=piece)).stands
    assert found is not None
    return asks.StandsAnswer(asked, assumed, found.standing.tips_rad, safe, found.standing.kg)


_SORTS: dict[str, type[asks.Ask]] = {
    "unmould": asks.AskUnmould,
    "how_much": asks.AskHowMuch,
    "still": asks.AskStill,
    "heat": asks.AskHeat,
    "seed": asks.AskSeed,
    "colour": asks.AskColour,
    "keeps": asks.AskKeeps,
    "stands": asks.AskStands,
}
_ANSWERS: dict[str, Callable[[Workshop, Any], asks.Answer]] = {
    "unmould": ask_cooling.unmould,
    "how_much": ask_melting.how_much,
    "still": ask_cooling.still,
    "heat": ask_melting.heat,
    "seed": ask_melting.seed,
    "colour": ask_melting.colour,
    "keeps": ask_cooling.keeps,
    "stands": _stands,
}
