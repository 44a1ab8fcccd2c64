"""Reading an event's payload: whole numbers, finite ones, and refusals in words."""

from typing import Any

from umber_pebble.core.bench.state import Event
from umber_pebble.core.errors import NotInSequence, OutOfRange, require_range


def number(event: Event, name: str, limit: int) -> int:
    """A whole number of the payload, below a limit [1].

    Raises: OutOfRange: it is none.
    Source: definition
    """
    return whole(event.payload.get(name), name, f"payload.{name}", limit)


def whole(value: Any, name: str, path: str, limit: int) -> int:
    """A whole number from 0, below a limit [1].

    Raises: OutOfRange: it is none.
    Source: definition
    """
    if not isinstance(value, int) or isinstance(value, bool) or not 0 <= value < limit:
        raise OutOfRange(f"there is no {name} {value}", path=path, got=value, limits={"low": 0, "high": limit - 1})
    return value


def finite(value: Any, path: str, low: float, high: float) -> float:
    """A number within bounds, in its own unit [SI].

    Raises: OutOfRange: it is none.
    Source: definition
    """
    if not isinstance(value, int | float) or isinstance(value, bool):
        raise OutOfRange("this is no number", path=path, got=str(value), limits={"low": low, "high": high})
    return require_range(path, float(value), low, high)


def optional(event: Event, name: str, low: float, high: float) -> float | None:
    """The same of the payload, or None where it is not there [SI].

    Raises: OutOfRange: it is no number.
    Source: definition
    """
    value = event.payload.get(name)
    return None if value is None else finite(value, f"payload.{name}", low, high)


def refuse(message: str, code: str, **params: Any) -> NotInSequence:
    """What does not fit what came before, by a code that the screens word [1].

    Source: definition
    """
    return NotInSequence(message, path="kind", params={"why": code, **params})
