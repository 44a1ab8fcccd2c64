"""A thin layer over Flask: read, validate, call, answer; and the OpenAPI document collected on the way."""

import json
import re
from collections.abc import Callable
from dataclasses import dataclass, field
from typing import Any, Required, TypedDict, Unpack

from flask import Flask, Response, request
from pydantic import BaseModel, TypeAdapter, ValidationError
from pydantic.json_schema import GenerateJsonSchema, models_json_schema

from umber_pebble.api.errors import Problem, invalid
from umber_pebble.core.texts import words_for

LARGEST_BODY = 1_000_000
COOKIE_LASTS_S = 400 * 24 * 3600
# what pydantic calls a bound, and what a problem calls it
_BOUNDS = {
    "ge": "low",
    "gt": "low",
    "min_length": "low",
    "le": "high",
    "lt": "high",
    "max_length": "high",
    "expected": "one_of",
    "pattern": "pattern",
}


@dataclass(frozen=True, slots=True)
class Endpoint:
    """One operation: what it reads, calls and answers."""

    method: str
    path: str
    call: Callable[..., Any]
    summary: str
    reply: type[BaseModel] | str
    body: type[BaseModel] | None = None
    query: tuple[str, ...] = ()
    status: int = 200
    largest: int = LARGEST_BODY


class EndpointOptions(TypedDict, total=False):
    """What an endpoint is beside its address and its call: what it answers and reads, in words, with which status, how large a body may
    be [bytes]."""

    summary: Required[str]
    reply: Required[type[BaseModel] | str]
    body: type[BaseModel]
    query: tuple[str, ...]
    status: int
    largest: int


@dataclass(slots=True)
class Api:
    """All operations of the service."""

    endpoints: list[Endpoint] = field(default_factory=list)

    def add(self, method: str, path: str, call: Callable[..., Any], **options: Unpack[EndpointOptions]) -> None:
        """Register an operation; call takes the body, then path parts and query values by name.

        reply is a model sent as JSON, or the content type of a file whose text or bytes call gives.
        """
        self.endpoints.append(Endpoint(method, path, call, **options))

    def mount(self, app: Flask) -> None:
        """Put every operation on a Flask app."""
        for i, endpoint in enumerate(self.endpoints):
            rule = re.sub(r"{(\w+)}", r"<\1>", endpoint.path)
            app.add_url_rule(rule, f"api{i}", _view(endpoint), methods=[endpoint.method])

    def document(self) -> dict[str, Any]:
        """The OpenAPI 3.1 document."""
        models = {e.reply: "serialization" for e in self.endpoints if not isinstance(e.reply, str)}
        models |= {e.body: "validation" for e in self.endpoints if e.body}
        keys, definitions = models_json_schema(
            [*((m, mode) for m, mode in models.items()), (Problem, "serialization")],  # type: ignore[list-item]
            ref_template="#/components/schemas/{model}",
            schema_generator=_Schema,
        )
        paths: dict[str, Any] = {}
        for e in self.endpoints:
            paths.setdefault(e.path, {})[e.method.lower()] = _operation(e, keys, models)
        return {
            "openapi": "3.1.0",
            "info": {"title": "Umber Pebble", "version": "1"},
            "paths": paths,
            "components": {"schemas": definitions["$defs"]},
        }


@dataclass(frozen=True, slots=True)
class WithCookie:
    """An answer that also gives the browser a cookie: its name and value, or None to take it away."""

    body: Any
    name: str
    value: str
    secure: bool


class _Schema(GenerateJsonSchema):
    """Replies always carry every field, so defaults count as required there."""

    def field_is_required(self, field: Any, total: bool) -> bool:
        if self.mode == "serialization":
            return True
        return super().field_is_required(field, total)


def _operation(e: Endpoint, keys: Any, models: dict[Any, Any]) -> dict[str, Any]:
    def content(kind: str, schema: Any) -> dict[str, Any]:
        return {"content": {kind: {"schema": schema}}}

    string = {"type": "string"}
    parameters = [
        {"name": n, "in": "path", "required": True, "schema": string} for n in re.findall(r"{(\w+)}", e.path)
    ]
    parameters += [{"name": n, "in": "query", "required": True, "schema": string} for n in e.query]
    operation: dict[str, Any] = {
        "summary": e.summary,
        "parameters": parameters,
        "responses": {
            str(e.status): {
                "description": "Done",
                **(
                    content(e.reply, {"type": "string", "format": "binary"})
                    if isinstance(e.reply, str)
                    else content("application/json", keys[(e.reply, models[e.reply])])
                ),
            },
            "default": {
                "description": "Refused",
                **content("application/problem+json", keys[(Problem, "serialization")]),
            },
        },
    }
    if e.body:
        operation["requestBody"] = {"required": True, **content("application/json", keys[(e.body, "validation")])}
    return operation


def _view(e: Endpoint) -> Callable[..., Response]:
    adapter: TypeAdapter[Any] | None = None if isinstance(e.reply, str) else TypeAdapter(e.reply)

    def view(**parts: str) -> Response:
        values: dict[str, Any] = dict(parts)
        for name in e.query:
            if name not in request.args:
                raise invalid("missing", name, None, f"give {name}")
            values[name] = request.args[name]
        args = [] if e.body is None else [_read(e.body, e.largest)]
        answer = e.call(*args, **values)
        cookie = answer if isinstance(answer, WithCookie) else None
        answer = cookie.body if cookie else answer
        if adapter is None or isinstance(e.reply, str):
            return Response(answer, e.status, content_type=str(e.reply))
        text = adapter.dump_json(e.reply.model_validate(answer, from_attributes=True, strict=False))
        response = Response(text, e.status, content_type="application/json")
        if cookie:
            response.set_cookie(
                cookie.name,
                cookie.value,
                max_age=COOKIE_LASTS_S,
                secure=cookie.secure,
                httponly=True,
                samesite="Strict",
            )
        return response

    return view


def _read(model: type[BaseModel], largest: int) -> BaseModel:
    if (request.content_length or 0) > largest:
        raise invalid(
            "too_large",
            "",
            request.content_length,
            f"this is too large: at most {largest:,} bytes",
            {"high": largest},
            status=413,
        )
    if request.mimetype != "application/json":
        raise invalid("unsupported_type", "", request.mimetype, "send application/json", status=415)
    raw = request.get_data(cache=False)
    try:
        # JSON has no NaN or Infinity: refuse what Python's own reader would let through
        data = json.loads(raw, parse_constant=_no_constant)
        return model.model_validate_json(json.dumps(data), strict=True)
    except ValidationError as error:
        first = error.errors(include_url=False)[0]
        context = first.get("ctx", {})
        limits = {side: context[name] for name, side in _BOUNDS.items() if name in context}
        path = _path(data, first["loc"], missing=first["type"] == "missing")
        got = first["input"] if isinstance(first["input"], int | float | str | None) else None
        code = "missing" if first["type"] == "missing" else "out_of_range"
        words = words_for(first["msg"]) or first["msg"].removeprefix("Value error, ")
        raise invalid(code, path, got, words, limits) from error
    except RecursionError as error:
        raise invalid("not_json", "", None, "this is nested too deep") from error
    except ValueError as error:
        raise invalid("not_json", "", None, f"this is not JSON: {error}") from error


def _path(data: Any, loc: tuple[int | str, ...], *, missing: bool) -> str:
    """Where in what was sent an error is: pydantic also names the kind it took a thing for, which is no field of it."""
    path, node, kind = list[str](), data, None
    for i, part in enumerate(loc):
        if isinstance(node, dict) and node.get("kind") == part and kind is None:
            # a kind may be called as one of its fields is
            kind = part
        elif part in node if isinstance(node, dict) else isinstance(node, list):
            path.append(str(part))
            node, kind = node[part], None
        elif missing and i == len(loc) - 1:
            path.append(str(part))
    return ".".join(path)


def _no_constant(name: str) -> None:
    raise ValueError(f"{name} is no number")
