"""What was sent or stored of an event, read as what it tells; and back."""

from dataclasses import MISSING, asdict, fields
from typing import Any

from pydantic import BaseModel, TypeAdapter, ValidationError
from pydantic_core import to_json

from umber_pebble.core.bench.events import BODIES, Body
from umber_pebble.core.bench.payload import bounded
from umber_pebble.core.errors import Missing, OutOfRange
from umber_pebble.core.texts import words_for

KINDS = tuple(dict.fromkeys(body.KIND for body in BODIES))
# what pydantic calls a bound, and what a refusal calls it
_BOUNDS = {"ge": "low", "gt": "low", "min_length": "low", "le": "high", "lt": "high", "max_length": "high"}


_ADAPTERS: dict[type[Body], TypeAdapter[Body]] = {body: TypeAdapter(body) for body in BODIES}
_NEEDS = {
    body: {f.name for f in fields(body) if f.default is MISSING and f.default_factory is MISSING}
    for body in BODIES
}
_SAYS = {body: {f.name for f in fields(body)} for body in BODIES}


class EventBody(BaseModel):
    """What an event tells, as it is sent: its kind, and what it says."""

    kind: str
    payload: dict[str, Any]

    @classmethod
    def __get_pydantic_json_schema__(cls, _: Any, __: Any) -> dict[str, Any]:
        return {
            "title": cls.__name__,
            "oneOf": [
                {
                    "title": f"Tells{body.__name__}",
                    "type": "object",
                    "required": ["kind", "payload"],
                    "properties": {"kind": {"type": "string", "const": body.KIND}, "payload": _published(body)},
                }
                for body in BODIES
            ],
        }


def _published(body: type[Body]) -> dict[str, Any]:
    """What a payload is made of, whole in one place."""
    schema = _ADAPTERS[body].json_schema()
    parts = schema.pop("$defs", {})

    def whole(node: Any) -> Any:
        if isinstance(node, list):
            return [whole(of) for of in node]
        if not isinstance(node, dict):
            return node
        if "$ref" in node:
            return whole(parts[node["$ref"].rpartition("/")[2]])
        if "prefixItems" in node:
            # a pair of whole numbers: generators of types disagree about its shape
            node = {key: of for key, of in node.items() if key != "prefixItems"} | {"items": {"type": "integer"}}
        return {key: whole(of) for key, of in node.items()}

    return dict(whole(schema))


def body_of(told: Body) -> EventBody:
    """The same as it is sent."""
    return EventBody(kind=told.KIND, payload=payload_of(told))


def read(kind: str, payload: dict[str, Any]) -> Body:
    """What an event tells, by its kind and what it says of what: a held batch before a pot before a round.

    Raises: OutOfRange: no such kind, or a value that none has. Missing: something that it must say.
    """
    if kind not in KINDS:
        raise OutOfRange("no such kind of event", path="kind", got=kind[:40], limits={"one_of": list(KINDS)})
    bounded(payload)
    alike = [body for body in BODIES if kind == body.KIND]
    fitting = max(
        alike,
        key=lambda body: (
            _has_all(body, payload),
            "batch" in payload and "batch" in _NEEDS[body],
            len(_SAYS[body] & payload.keys()),
        ),
    )
    try:
        return _ADAPTERS[fitting].validate_json(to_json(payload), strict=True)
    except ValidationError as error:
        raise _in_words(error) from error


def payload_of(body: Body) -> dict[str, Any]:
    """The same as it is sent and stored: what is left open is not said."""
    return {key: value for key, value in asdict(body).items() if value is not None}


def _has_all(body: type[Body], payload: dict[str, Any]) -> bool:
    return _NEEDS[body] <= payload.keys()


def _in_words(error: ValidationError) -> OutOfRange | Missing:
    first = error.errors(include_url=False)[0]
    path = ".".join(["payload", *(str(part) for part in first["loc"])])
    if first["type"] == "missing":
        return Missing(f"{path}: an event of this kind says this too", path=path)
    context = first.get("ctx", {})
    limits = {side: context[name] for name, side in _BOUNDS.items() if name in context}
    got = first["input"] if isinstance(first["input"], int | float | str | None) else None
    words = words_for(first["msg"]) or f"{path}: {first['msg'][0].lower()}{first['msg'][1:]}"
    return OutOfRange(words, path=path, got=got[:40] if isinstance(got, str) else got, limits=limits)
