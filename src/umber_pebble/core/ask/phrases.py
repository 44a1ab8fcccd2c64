"""A question as somebody types or says it: which one it is, what its words give, and which of them nobody knows here."""

import re
import tomllib
from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from functools import cache
from importlib.resources import files
from typing import Any, Literal, get_args

Question = Literal["unmould", "how_much", "still", "heat", "seed", "colour", "keeps", "stands"]
"""When may I turn it out; how much do I melt; can I still pour, dip, bend; how is it heated; how much seed; which colour; will it
hold; does it stand."""
Slot = Literal["material", "shape", "mould", "place", "doing", "wanted"]
Given = str | float | int

STRONG, WEAK, SLOT_SPEAKS = 4, 1, 2
THICKEST_M = 0.012
"""A length up to this is a thickness, unless a word says otherwise; a longer one is across [m]."""
LEAST_DEGC, MOST_DEGC = 15, 200
"""A bare number within these may be a reading, where a bowl is asked about [degC]."""

NUMBER = r"(\d+(?:[.,]\d+)?)"
UNITS: list[tuple[str, str, float]] = [
    ("mm", "length", 1e-3),
    ("cm", "length", 1e-2),
    (r"in(?:ch(?:es)?)?\b(?!\s+the|\s+a\b)", "length", 0.0254),
    ("kg|kilos?", "kg", 1.0),
    (r"g(?:ram(?:me)?s?)?", "kg", 1e-3),
    ("oz|ounces?", "kg", 0.028349523125),
    ("lbs?|pounds?", "kg", 0.45359237),
    (r"°\s*f|degrees?\s+f(?:ahrenheit)?|f", "fahrenheit", 1.0),
    (r"°\s*c?|degrees?(?:\s+c(?:elsius)?)?|c", "degc", 1.0),
]
SPEAK_FOR: dict[Slot, Question] = {"place": "unmould", "doing": "still", "wanted": "colour"}
BY_ITSELF: list[tuple[str, Question]] = [
    ("degc", "still"),
    ("wanted", "colour"),
    ("quantity", "how_much"),
    ("thickness_m", "unmould"),
    ("shape", "unmould"),
    ("place", "unmould"),
    ("mould", "unmould"),
    ("kg", "heat"),
    ("material", "heat"),
]
"""Where no cue says which question it is: the first of these that is given does."""


@dataclass(frozen=True, slots=True)
class Taken:
    """Words, and what they were taken for."""

    words: str
    slot: str


@dataclass(frozen=True, slots=True)
class ReadPhrase:
    """A phrase read: its question, None where none is asked; what it gives, by name (SI); which words that was taken from; which
    words are not known here."""

    question: Question | None
    given: Mapping[str, Given]
    taken: tuple[Taken, ...]
    unknown: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class _Meaning:
    slots: tuple[tuple[Slot, str], ...]
    cues: tuple[tuple[Question, int], ...]


@cache
def _lexicon() -> dict[str, _Meaning]:
    """Every phrase with what it means. Source: common-practice"""
    rows: dict[str, Any] = tomllib.loads(
        files("umber_pebble.core.ask").joinpath("phrases.toml").read_text("utf-8")
    )
    slots: dict[str, list[tuple[Slot, str]]] = {}
    cues: dict[str, list[tuple[Question, int]]] = {}
    for question in get_args(Question):
        for strength, weight in (("strong", STRONG), ("weak", WEAK)):
            for said in rows["cue"][question][strength]:
                cues.setdefault(said, []).append((question, weight))
    for slot in get_args(Slot):
        for value, said_for in rows[slot].items():
            for said in said_for:
                slots.setdefault(said, []).append((slot, value))
    known = set(slots) | set(cues) | set(rows["filler"]["words"])
    return {said: _Meaning(tuple(slots.get(said, ())), tuple(cues.get(said, ()))) for said in known}


@cache
def _longest() -> int:
    return max(said.count(" ") + 1 for said in _lexicon())


def read_phrase(said: str) -> ReadPhrase:
    """A phrase read as a question.

    Args:
        said: as typed, at most some 200 letters
    Source: common-practice
    """
    text = _decimal(" ".join(said.lower().replace("’", "'").split()))
    given: dict[str, Given] = {}
    taken, score = list[Taken](), dict.fromkeys(get_args(Question), 0)
    text, lengths = _measured(text, given, taken)
    words = re.findall(r"[a-z0-9#'.-]+", text)
    unknown, numbers = list[str](), list[int]()
    for phrase, meaning in _matched(words):
        if meaning is None:
            if re.fullmatch(r"\d+", phrase):
                numbers.append(int(phrase))
            elif not re.fullmatch(r"[\W\d]+", phrase):
                unknown.append(phrase)
            continue
        for slot, value in meaning.slots:
            if slot not in given:
                given[slot] = value
                taken.append(Taken(phrase, slot))
                if slot in SPEAK_FOR:
                    score[SPEAK_FOR[slot]] += SLOT_SPEAKS
        for cue, weight in meaning.cues:
            score[cue] += weight
    _sized(lengths, given, taken)
    best = max(score, key=lambda of: score[of])
    question = best if score[best] else _by_itself(given, numbers)
    for number in numbers:
        reading = question == "still" and "degc" not in given and LEAST_DEGC <= number <= MOST_DEGC
        name = "degc" if reading else "quantity"
        given.setdefault(name, float(number) if reading else number)
        taken.append(Taken(str(number), name))
    return ReadPhrase(question, given, tuple(taken), tuple(unknown))


def _decimal(text: str) -> str:
    """A quarter of an inch, however it is typed, as a decimal."""
    for sign, words in (("¼", "1/4"), ("½", "1/2"), ("¾", "3/4")):
        text = text.replace(sign, f" {words}" if text[:1] != sign else words)
    return re.sub(r"(?:(\d+)[ -])?\b(\d)/([2-9])\b", lambda f: f"{int(f[1] or 0) + int(f[2]) / int(f[3]):g}", text)


def _by_itself(given: Mapping[str, Given], numbers: list[int]) -> Question | None:
    have = set(given) | ({"quantity"} if numbers else set())
    if have == {"quantity"}:
        return None
    return next((question for name, question in BY_ITSELF if name in have), None)


def _measured(text: str, given: dict[str, Given], taken: list[Taken]) -> tuple[str, list[tuple[float, str, str]]]:
    """The text without its measures; of those the weights and temperatures given, the lengths for later, each with its own words and
    the word after it."""
    lengths: list[tuple[float, str, str]] = []
    for unit, kind, factor in UNITS:
        pattern = re.compile(rf"{NUMBER}\s*(?:{unit})(?![a-z])(?=(?:\s+(\w+))?)")
        for found in pattern.finditer(text):
            value = float(found[1].replace(",", "."))
            words = found[0].strip()
            if kind == "length":
                lengths.append((value * factor, words, found[2] or ""))
            elif kind == "fahrenheit":
                given["degc"] = (value - 32) / 1.8
                taken.append(Taken(words, "degc"))
            else:
                given[kind] = value * factor
                taken.append(Taken(words, kind))
        text = pattern.sub(" ", text)
    return text, lengths


def _sized(lengths: list[tuple[float, str, str]], given: dict[str, Given], taken: list[Taken]) -> None:
    """Which length is a thickness, and which is across."""
    round_one = given.get("shape") == "half_ball"
    for metres, words, after in sorted(lengths):
        thick = after in ("thick", "deep", "high") or (
            metres <= THICKEST_M and not round_one and after not in ("wide", "across")
        )
        slot = "thickness_m" if thick and "thickness_m" not in given else "across_m"
        if slot not in given:
            given[slot] = metres
            taken.append(Taken(words, slot))


def _matched(words: list[str]) -> Iterator[tuple[str, _Meaning | None]]:
    """Words as the longest phrases that are known, and the unknown ones each by itself."""
    lexicon, at = _lexicon(), 0
    while at < len(words):
        for count in range(min(_longest(), len(words) - at), 0, -1):
            phrase = " ".join(words[at : at + count]).strip("'.-")
            if phrase in lexicon:
                yield phrase, lexicon[phrase]
                at += count
                break
        else:
            yield words[at].strip("'.-"), None
            at += 1
