"""Who may ask: this machine itself, and devices of the kitchen's network that were paired."""

from dataclasses import dataclass
from urllib.parse import urlsplit

from flask import Flask, request

from umber_pebble.api.errors import invalid
from umber_pebble.services.access import Access

LOCAL_NAMES = {"127.0.0.1", "localhost", "::1"}
LAN_DOOR = "umber_pebble.lan"
DEVICE_COOKIE = "umber-pebble-device"
PAIR_PATH = "/api/devices/pair"
# what a device may see before it is paired: the front end, how to trust this machine, and the pairing itself
OPEN_PATHS = {PAIR_PATH, "/api/authority"}


def is_local() -> bool:
    """Whether the request came in on this machine's own door, and not on that to the kitchen's network."""
    return LAN_DOOR not in request.environ


@dataclass(frozen=True, slots=True)
class IncomingRequest:
    """What a request says of itself: by which name it came, from which page, for which path, by which device; local: at this machine's
    own door."""

    host: str
    origin: str | None
    path: str
    token: str | None
    local: bool


def check(asked: IncomingRequest, access: Access) -> None:
    """Lets a request in.

    Raises: Refused: a name or a page that is not ours. NotPaired.
    """
    names = LOCAL_NAMES if asked.local else {name.lower() for name in access.names}
    if urlsplit(f"//{asked.host}").hostname not in names:
        raise invalid("foreign_host", "Host", asked.host, "this service is not known by that name")
    if asked.origin is not None and urlsplit(asked.origin).netloc.lower() != asked.host.lower():
        raise invalid("foreign_origin", "Origin", asked.origin, "another site may not use this service")
    if not asked.local and asked.path.startswith("/api/") and asked.path not in OPEN_PATHS:
        access.admit(asked.token)


def install(app: Flask, access: Access) -> None:
    """Check host, origin and pairing before every request."""

    @app.before_request
    def known() -> None:
        token = request.cookies.get(DEVICE_COOKIE)
        check(
            IncomingRequest(request.host, request.headers.get("Origin"), request.path, token, is_local()), access
        )
