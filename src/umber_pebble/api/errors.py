"""Errors to problem+json. This table alone knows status codes."""

from typing import Any

from flask import Flask, Response
from pydantic import BaseModel
from werkzeug.exceptions import HTTPException

from umber_pebble.core.errors import CoreError

STATUS = {
    "out_of_range": 422,
    "missing": 422,
    "mould_too_weak": 422,
    "not_in_sequence": 409,
    "not_found": 404,
    "stale": 409,
    "in_use": 409,
    "id_reused": 409,
    "clock_not_driven": 403,
    "disk_full": 507,
    "unreadable": 409,
    "not_json": 400,
    "unsupported_type": 415,
    "foreign_host": 403,
    "foreign_origin": 403,
    "too_large": 413,
    "too_slow": 408,
    "not_paired": 401,
    "wrong_code": 403,
    "too_many_tries": 429,
    "local_only": 403,
}


class Problem(BaseModel):
    """One error shape. got and limits are SI; the web words them in the user's units."""

    status: int
    code: str
    title: str
    path: str
    got: Any
    limits: dict[str, Any]
    params: dict[str, Any]


class Refused(Exception):
    """A problem raised at the edge itself."""

    def __init__(self, problem: Problem) -> None:
        super().__init__(problem.title)
        self.problem = problem


def invalid(
    code: str, path: str, got: Any, title: str, limits: dict[str, Any] | None = None, status: int | None = None
) -> Refused:
    """A refusal of what was sent."""
    return Refused(
        Problem(
            status=status or STATUS[code],
            code=code,
            title=title,
            path=path,
            got=got,
            limits=limits or {},
            params={},
        )
    )


def answer(problem: Problem) -> Response:
    """A problem as a response."""
    return Response(problem.model_dump_json(), problem.status, content_type="application/problem+json")


def problem_of(error: Refused | CoreError) -> Problem:
    """A refusal as a problem."""
    if isinstance(error, Refused):
        return error.problem
    return Problem(
        status=STATUS.get(error.code, 422),
        code=error.code,
        title=error.message,
        path=error.path,
        got=error.got,
        limits=error.limits,
        params=error.params,
    )


def install(app: Flask) -> None:
    """Turn every error into one shape."""

    @app.errorhandler(Refused)
    @app.errorhandler(CoreError)
    def _refused(error: Refused | CoreError) -> Response:
        return answer(problem_of(error))

    @app.errorhandler(HTTPException)
    def _http(error: HTTPException) -> Response:
        return answer(
            Problem(
                status=error.code or 500,
                code=f"http_{error.code}",
                title=error.description or error.name,
                path="",
                got=None,
                limits={},
                params={},
            )
        )

    @app.errorhandler(Exception)
    def _unexpected(error: Exception) -> Response:
        app.logger.exception("unexpected error")
        return answer(
            Problem(
                status=500,
                code="internal",
                title="something went wrong here; nothing was changed",
                path="",
                got=None,
                limits={},
                params={},
            )
        )
