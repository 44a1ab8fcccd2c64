"""Who may ask: this machine itself, and devices of the kitchen's network that were paired."""

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


def install(app: Flask, access: Access) -> None:
    """Check host, origin and pairing before every request."""

    @app.before_request
    def known_host() -> None:
        host = urlsplit(f"//{request.host}").hostname
        if host not in (LOCAL_NAMES if is_local() else access.names):
            raise invalid("foreign_host", "Host", request.host, "this service is not known by that name")
        origin = request.headers.get("Origin")
        if origin is not None and urlsplit(origin).netloc != request.host:
            raise invalid("foreign_origin", "Origin", origin, "another site may not use this service")
        if not is_local() and request.path.startswith("/api/") and request.path not in OPEN_PATHS:
            access.admit(request.cookies.get(DEVICE_COOKIE))
