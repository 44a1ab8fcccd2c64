"""Words of the trade: what people call things, and what the screens call them."""

from dataclasses import dataclass
from functools import cache

from umber_pebble.core.materials.load import table


@dataclass(frozen=True, slots=True)
class Word:
    """A thing as the screens call it, what people say for it, what it means, and the page it belongs to."""

    called: str
    said: tuple[str, ...]
    means: str
    page: str


@cache
def glossary() -> tuple[Word, ...]:
    """Every word, by what it is called [words]. Source: common-practice"""
    rows = [Word(row["called"], tuple(row["said"]), row["means"], row["page"]) for row in table("words")["word"]]
    return tuple(sorted(rows, key=lambda w: w.called))


def word_for(said: str) -> Word | None:
    """The word for what somebody says, whatever its case; None where nobody said it so yet [words].

    Source: common-practice
    """
    text = " ".join(said.lower().split())
    return next((w for w in glossary() if text == w.called or text in w.said), None)
