"""The routes of the finder and of questions."""

from typing import Any

from umber_pebble.api.http import Api
from umber_pebble.api.schemas import Reply
from umber_pebble.services import asks, finder
from umber_pebble.services.answering import answer
from umber_pebble.services.doc_base import Doc
from umber_pebble.services.ready import READY, Ready, TakeReady, take_ready
from umber_pebble.services.start import USUAL_KITCHENS, UsualKitchen
from umber_pebble.services.workshop import Workshop


class FindReply(Reply):
    found: finder.Found


class AskRequest(Doc):
    """A question with what is told of it."""

    asked: asks.Ask


class AskReply(Reply):
    answer: asks.Answer


class KitchensReply(Reply):
    items: list[UsualKitchen]


class ReadyReply(Reply):
    items: list[Ready]


class TakenReply(Reply):
    piece_id: str


def add(api: Api, workshop: Workshop) -> None:
    """Put them on the API."""

    def find(body: finder.FindRequest) -> Any:
        return {"found": finder.find(workshop, body.said)}

    def ask(body: AskRequest) -> Any:
        return {"answer": answer(workshop, body.asked)}

    api.add(
        "POST",
        "/api/find",
        find,
        body=finder.FindRequest,
        reply=FindReply,
        summary="Anything by the words of the trade",
    )

    def kitchens() -> Any:
        return {"items": list(USUAL_KITCHENS)}

    api.add("GET", "/api/kitchens", kitchens, reply=KitchensReply, summary="Usual kitchens to start from")

    def ready() -> Any:
        return {"items": list(READY.values())}

    def take(body: TakeReady) -> Any:
        return {"piece_id": take_ready(workshop, body).id}

    api.add("GET", "/api/ready", ready, reply=ReadyReply, summary="Ready pieces with their moulds")
    api.add(
        "POST",
        "/api/ready",
        take,
        body=TakeReady,
        reply=TakenReply,
        status=201,
        summary="Put a ready piece and its mould into the workshop",
    )
    api.add("POST", "/api/ask", ask, body=AskRequest, reply=AskReply, summary="A question answered")
