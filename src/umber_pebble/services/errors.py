"""Refusals that only exist once there is a store: not found, stale, taken, bad file."""

from typing import Any

from umber_pebble.core.errors import CoreError


class NotFound(CoreError):
    """There is no such thing."""

    code = "not_found"


class Stale(CoreError):
    """Somebody saved in between: both states are in params."""

    code = "stale"

    def __init__(self, thing_id: str, yours: int, theirs: int, doc: dict[str, Any], sent: dict[str, Any]) -> None:
        super().__init__(
            f"this was changed elsewhere: you edited version {yours}, it is now {theirs}",
            path="version",
            got=yours,
            limits={"low": theirs, "high": theirs},
            params={"id": thing_id, "stored": doc, "stored_version": theirs, "sent": sent},
        )


class InUse(CoreError):
    """Something else needs this."""

    code = "in_use"


class IdReused(CoreError):
    """An event id came again with another content."""

    code = "id_reused"


class Unreadable(CoreError):
    """A document that this version cannot read."""

    code = "unreadable"


class DiskFull(CoreError):
    """There is no room left to write."""

    code = "disk_full"


class ClockNotDriven(CoreError):
    """The clock may only be driven when the server was started so."""

    code = "clock_not_driven"
