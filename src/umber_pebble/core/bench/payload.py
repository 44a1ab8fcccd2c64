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


MOST_DEPTH, MOST_PARTS, LONGEST_TEXT, LARGEST = 5, 5000, 1000, 1e12
"""How deep, how many, how long and how large what an event says may be."""


def bounded(payload: dict[str, Any]) -> None:
    """Refuses a payload that is nested or blown up beyond anything an event says [1].

    Raises: OutOfRange.
    Source: definition
    """
    waiting: list[tuple[Any, int]] = [(payload, 1)]
    parts = 0
    while waiting:
        value, depth = waiting.pop()
        parts += 1
        if depth > MOST_DEPTH or parts > MOST_PARTS:
            raise OutOfRange(
                "an event says less than that: it is nested too deep or too large", path="payload", got=None,
                limits={"depth": MOST_DEPTH, "parts": MOST_PARTS},
            )  # fmt: skip
        if isinstance(value, dict):
            waiting += [(key, depth) for key in value] + [(inner, depth + 1) for inner in value.values()]
        elif isinstance(value, list):
            waiting += [(inner, depth + 1) for inner in value]
        elif isinstance(value, str):
            if len(value) > LONGEST_TEXT or any(ord(c) < 32 and c != "\n" for c in value):
                raise OutOfRange(
                    f"a text has at most {LONGEST_TEXT} characters that can be printed", path="payload", got=value[:40],
                    limits={"high": LONGEST_TEXT},
                )  # fmt: skip
        elif isinstance(value, int | float) and not abs(value) <= LARGEST:
            raise OutOfRange("no number is so large", path="payload", got=None, limits={"high": LARGEST})


def one_line(value: Any, path: str, longest: int) -> str:
    """A name: one line of printable text [1].

    Raises: OutOfRange: it is none, or too long.
    Source: definition
    """
    if not isinstance(value, str) or not value.strip() or len(value) > longest or not value.isprintable():
        raise OutOfRange(
            f"a name is one line of 1 to {longest} characters that can be printed", path=path, got=str(value)[:40],
            limits={"low": 1, "high": longest},
        )  # fmt: skip
    return value


def refuse(message: str, code: str, **params: Any) -> NotInSequence:
    """What does not fit what came before, by a code that the screens word [1].

    Source: definition
    """
    return NotInSequence(message, path="kind", params={"why": code, **params})
