"""Replies and requests of runs: their events, the bench, cards and logs."""

from datetime import datetime
from typing import Any

from pydantic import Field, GetJsonSchemaHandler

from umber_pebble.api.schemas import Reply
from umber_pebble.core.bench.short import Short
from umber_pebble.core.plan.cards import Card
from umber_pebble.services import bench, foresight, going_on, run_log
from umber_pebble.services.doc_base import Doc, Id, Name, Utc
from umber_pebble.services.told import EventBody


class StartRun(Doc):
    id: Id
    order_id: Id
    actor: Name
    device: Name


class PictureIn(Doc):
    """A picture in base64; the id is the client's."""

    id: Id
    data: str


class PictureOut(Reply):
    id: str


class RunStarted(Reply):
    id: str


class EventIn(Doc):
    """An event as a client sends it; happened_at is the client's reading of the server's clock, or null for now."""

    id: Id
    kind: str = Field(max_length=16)
    payload: dict[str, Any]
    actor: Name
    device: Name
    happened_at: Utc | None
    schema_version: int

    @classmethod
    def __get_pydantic_json_schema__(cls, schema: Any, handler: GetJsonSchemaHandler) -> dict[str, Any]:
        """Its kind and payload as they go together; they are read where the event is told, so that a refusal has words."""
        head = handler.resolve_ref_schema(handler(schema))
        head = {key: value for key, value in head.items() if key != "additionalProperties"}
        head["properties"] = {key: of for key, of in head["properties"].items() if key not in ("kind", "payload")}
        head["required"] = list(head["properties"])
        return {"title": cls.__name__, "allOf": [head, {"$ref": f"#/components/schemas/{EventBody.__name__}"}]}


class EventOut(Reply):
    """An event as the server keeps it; what it tells is None where this version cannot read it."""

    id: str
    run_id: str
    seq: int
    kind: str
    payload: dict[str, Any]
    tells: EventBody | None
    actor: str
    device: str
    happened_at: datetime
    received_at: datetime
    schema_version: int


class EventList(Reply):
    items: list[EventOut]


class Bench(Reply):
    view: bench.BenchView | None


class AheadReply(Reply):
    ahead: foresight.Ahead


class OnwardReply(Reply):
    onward: going_on.GoingOn


class CardList(Reply):
    items: list[Card]


class ShortReply(Reply):
    short: Short


class RestOrder(Doc):
    """The id, made by the client, of the order for what is left."""

    order_id: Id


class LogList(Reply):
    items: list[run_log.RunSummary]


class Log(Reply):
    log: run_log.RunLog
