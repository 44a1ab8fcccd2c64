"""Texts as they are stored and sent, with their limits."""

from typing import Annotated

from annotated_types import Len, Predicate


def _one_line(text: str) -> bool:
    return bool(text.strip()) and text.isprintable()


def _six_digits(text: str) -> bool:
    return len(text) == 7 and text[0] == "#" and set(text[1:]) <= set("0123456789abcdef")


def _plain_id(text: str) -> bool:
    return text.isascii() and all(c.isalnum() or c in "_-" for c in text)


_WORDS = {
    _one_line.__name__: "a name is one line of text that can be printed",
    _six_digits.__name__: "a colour is written #rrggbb",
    _plain_id.__name__: "an id is 1 to 40 letters, digits, hyphens and underscores",
}
OneLine = Annotated[str, Len(1, 40), Predicate(_one_line)]
Name = Annotated[str, Len(1, 60), Predicate(_one_line)]
Hex = Annotated[str, Predicate(_six_digits)]
Id = Annotated[str, Len(1, 40), Predicate(_plain_id)]


def words_for(message: str) -> str | None:
    """What a text must be, in words, where a validator's message names one of these as failed. Source: definition"""
    return next((words for name, words in _WORDS.items() if f"'{name}'" in message), None)
