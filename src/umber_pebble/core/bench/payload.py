"""How much an event may say, what it may speak of, and refusals in words."""

from collections.abc import Sequence
from typing import Any, TypeVar

from umber_pebble.core.errors import NotInSequence, OutOfRange

T = TypeVar("T")


def one_of(things: Sequence[T], number: int, name: str) -> T:
    """What an event speaks of, by its number [1].

    Raises: OutOfRange: there is none of that number.
    Source: definition
    """
    within(number, len(things), name)
    return things[number]


def within(number: int, count: int, name: str, path: str = "") -> None:
    """A number below a count [1].

    Raises: OutOfRange: it is not.
    Source: definition
    """
    if number >= count:
        limits = {"low": 0, "high": count - 1}
        raise OutOfRange(f"there is no {name} {number}", path=path or f"payload.{name}", got=number, limits=limits)


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
                "an event says less than that: it is nested too deep or too large",
                path="payload",
                got=None,
                limits={"depth": MOST_DEPTH, "parts": MOST_PARTS},
            )
        if isinstance(value, dict):
            waiting += [(key, depth) for key in value] + [(inner, depth + 1) for inner in value.values()]
        elif isinstance(value, list):
            waiting += [(inner, depth + 1) for inner in value]
        elif isinstance(value, str):
            if len(value) > LONGEST_TEXT or any(ord(c) < 32 and c != "\n" for c in value):
                raise OutOfRange(
                    f"a text has at most {LONGEST_TEXT} characters that can be printed",
                    path="payload",
                    got=value[:40],
                    limits={"high": LONGEST_TEXT},
                )
        elif isinstance(value, int | float) and not abs(value) <= LARGEST:
            raise OutOfRange("no number is so large", path="payload", got=None, limits={"high": LARGEST})


def refuse(message: str, code: str, **params: Any) -> NotInSequence:
    """What does not fit what came before, by a code that the screens word [1].

    Source: definition
    """
    return NotInSequence(message, path="kind", params={"why": code, **params})
