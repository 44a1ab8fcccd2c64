"""The Flask app: operations, live stream, the built front end, and who may ask."""

import json
import threading
from dataclasses import dataclass
from pathlib import Path
from typing import Any

from flask import Flask, Response, request, send_from_directory
from flask_compress import Compress
from werkzeug.security import safe_join

from umber_pebble.api import errors, guard
from umber_pebble.api.http import Api
from umber_pebble.api.routes import build
from umber_pebble.door import Door
from umber_pebble.services.access import Access
from umber_pebble.services.planning import warm_up
from umber_pebble.services.probes import Probes
from umber_pebble.services.runs import RunService
from umber_pebble.services.workshop import Workshop

LARGEST_OF_ALL = 60_000_000
# what is made of words; pictures, fonts and PDFs are packed already
PACKED = (
    "text/html",
    "text/css",
    "text/javascript",
    "text/csv",
    "image/svg+xml",
    "application/json",
    "application/problem+json",
    "application/manifest+json",
)


@dataclass(frozen=True, slots=True)
class Lan:
    """The names this machine has in the kitchen's network, the port it answers on, and its authority's certificate."""

    names: tuple[str, ...]
    port: int
    authority: Path | None


NO_LAN = Lan((), 0, None)
WEB = Path(__file__).parent / "web_dist"
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


def create_app(workshop: Workshop, bridge: tuple[str, int] | None = None, lan: Lan = NO_LAN) -> Flask:
    """The app on a workshop. The engine is compiled in the background, so that the first figure is quick."""
    app = Flask(__name__, static_folder=None)
    app.config["MAX_CONTENT_LENGTH"] = LARGEST_OF_ALL
    app.config["COMPRESS_MIMETYPES"] = PACKED
    app.config["COMPRESS_ALGORITHM"] = ("br", "gzip")
    Compress(app)
    errors.install(app)
    access = Access(workshop, lan.names, lan.port)
    app.extensions["access"] = access
    guard.install(app, access)
    _headers(app)
    runs = RunService(workshop)
    probes = Probes(runs, bridge)
    probes.start()
    api = build(workshop, runs, probes, access)
    api.mount(app)
    _document(app, api)
    _authority(app, lan)
    _front_end(app)
    threading.Thread(target=warm_up, daemon=True).start()
    return app


def doors(app: Flask, workshop: Workshop) -> tuple[Door, Door]:
    """This machine's own door to the app, and that to the kitchen's network, where devices must be paired."""

    def from_outside(environ: dict[str, Any], start_response: Any) -> Any:
        environ[guard.LAN_DOOR] = True
        return app(environ, start_response)

    access: Access = app.extensions["access"]
    return Door(app, workshop, access, True), Door(from_outside, workshop, access, False)


def _headers(app: Flask) -> None:
    @app.after_request
    def headers(response: Response) -> Response:
        response.headers["Content-Security-Policy"] = POLICY
        response.headers["X-Content-Type-Options"] = "nosniff"
        response.headers["Referrer-Policy"] = "no-referrer"
        response.headers["Cross-Origin-Opener-Policy"] = "same-origin"
        response.headers["Cross-Origin-Resource-Policy"] = "same-origin"
        response.headers["Cross-Origin-Embedder-Policy"] = "require-corp"
        if request.path.startswith("/api/"):
            response.headers["Cache-Control"] = "no-store"
        return response


def _document(app: Flask, api: Api) -> None:
    @app.get("/api/openapi.json")
    def openapi() -> Response:
        return Response(json.dumps(api.document()), content_type="application/json")


def _authority(app: Flask, lan: Lan) -> None:
    @app.get("/api/authority")
    def authority() -> Response:
        if lan.authority is None:
            raise errors.invalid("not_found", "", None, "this machine is not on the network")
        return Response(
            lan.authority.read_bytes(),
            content_type="application/x-x509-ca-cert",
            headers={"Content-Disposition": "attachment; filename=umber-pebble-authority.crt"},
        )


def _front_end(app: Flask) -> None:
    @app.get("/", defaults={"path": ""})
    @app.get("/<path:path>")
    def front_end(path: str) -> Response:
        if path.startswith("api/"):
            raise errors.invalid("not_found", "", path, "there is no such operation")
        joined = safe_join(str(WEB), path) if path else None
        if joined and Path(joined).is_file():
            response = send_from_directory(WEB, path)
            if path.startswith("assets/"):
                response.headers["Cache-Control"] = "public, max-age=31536000, immutable"
            return response
        if not (WEB / "index.html").is_file():
            return Response("The front end is not built yet: run make demo.", 503, content_type="text/plain")
        response = send_from_directory(WEB, "index.html")
        response.headers["Cache-Control"] = "no-cache"
        return response
