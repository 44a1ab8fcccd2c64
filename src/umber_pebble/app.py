"""The Flask app: operations, live stream, the built front end, and who may ask."""

import json
import threading
from collections.abc import Iterator
from pathlib import Path
from urllib.parse import urlsplit

from flask import Flask, Response, request, send_from_directory

from umber_pebble.api import errors
from umber_pebble.api.http import Api
from umber_pebble.api.routes import build
from umber_pebble.services.planning import warm_up
from umber_pebble.services.probes import Probes
from umber_pebble.services.runs import RunService
from umber_pebble.services.workshop import Workshop

LARGEST_OF_ALL = 60_000_000
LOCAL_NAMES = {"127.0.0.1", "localhost", "::1"}
WEB = Path(__file__).parent.parent.parent / "web" / "dist"
POLICY = "; ".join(
    (
        "default-src 'self'",
        "img-src 'self' data:",
        "object-src 'none'",
        "base-uri 'none'",
        "frame-ancestors 'none'",
        "form-action 'self'",
    )
)


def create_app(workshop: Workshop, bridge: tuple[str, int] | None = None) -> Flask:
    """The app on a workshop. The engine is compiled in the background, so that the first figure is quick."""
    app = Flask(__name__, static_folder=None)
    app.config["MAX_CONTENT_LENGTH"] = LARGEST_OF_ALL
    errors.install(app)
    _guard(app)
    runs = RunService(workshop)
    probes = Probes(runs, bridge)
    probes.start()
    api = build(workshop, runs, probes)
    api.mount(app)
    _document(app, api)
    _stream(app, workshop)
    _front_end(app)
    threading.Thread(target=warm_up, daemon=True).start()
    return app


def _guard(app: Flask) -> None:
    @app.before_request
    def only_local() -> None:
        host = urlsplit(f"//{request.host}")
        if host.hostname not in LOCAL_NAMES:
            raise errors.invalid("foreign_host", "Host", request.host, "this service answers on this machine only")
        origin = request.headers.get("Origin")
        if origin is not None and urlsplit(origin).netloc != request.host:
            raise errors.invalid("foreign_origin", "Origin", origin, "another site may not use this service")

    @app.after_request
    def headers(response: Response) -> Response:
        response.headers["Content-Security-Policy"] = POLICY
        response.headers["X-Content-Type-Options"] = "nosniff"
        response.headers["Referrer-Policy"] = "no-referrer"
        if request.path.startswith("/api/"):
            response.headers["Cache-Control"] = "no-store"
        return response


def _document(app: Flask, api: Api) -> None:
    @app.get("/api/openapi.json")
    def openapi() -> Response:
        return Response(json.dumps(api.document()), content_type="application/json")


def _stream(app: Flask, workshop: Workshop) -> None:
    @app.get("/api/stream")
    def stream() -> Response:
        messages = workshop.broker.listen()

        def lines() -> Iterator[str]:
            yield "retry: 1000\n\n"
            for message in messages:
                yield ": still here\n\n" if message is None else f"data: {message}\n\n"

        return Response(lines(), content_type="text/event-stream", headers={"X-Accel-Buffering": "no"})


def _front_end(app: Flask) -> None:
    @app.get("/", defaults={"path": ""})
    @app.get("/<path:path>")
    def front_end(path: str) -> Response:
        if path.startswith("api/"):
            raise errors.invalid("not_found", "", path, "there is no such operation")
        if path and (WEB / path).is_file():
            response = send_from_directory(WEB, path)
            if path.startswith("assets/"):
                response.headers["Cache-Control"] = "public, max-age=31536000, immutable"
            return response
        if not (WEB / "index.html").is_file():
            return Response("The front end is not built yet: run make demo.", 503, content_type="text/plain")
        response = send_from_directory(WEB, "index.html")
        response.headers["Cache-Control"] = "no-cache"
        return response
