"""Events of tests, as they would be read from the log."""

from typing import Any

from umber_pebble.core.bench.passes import Act
from umber_pebble.core.bench.state import Event
from umber_pebble.services.told import payload_of, read


def from_log(id: str, kind: str, at_s: float, actor: str, payload: dict[str, Any]) -> Event:
    return Event(id, at_s, actor, read(kind, payload))


def says(act: Act) -> dict[str, Any]:
    """What is told when an act is done."""
    assert act.tells is not None
    return payload_of(act.tells)
