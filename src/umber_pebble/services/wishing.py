"""An order's wishes, and its people's hours, as the engine takes them."""

from collections.abc import Sequence
from datetime import datetime

from umber_pebble.core.plan.day.held import EVER_S
from umber_pebble.core.plan.wishes import (
    AwayFrom,
    BeginsAt,
    NotBefore,
    NotBy,
    OnlyBy,
    OverBy,
    Skill,
    ThereFrom,
    Thing,
    Wish,
)
from umber_pebble.services.documents import Kitchen, Order
from umber_pebble.services.hours import openings
from umber_pebble.services.wish_docs import (
    AwayFromDoc,
    BeginsAtDoc,
    NotBeforeDoc,
    NotByDoc,
    OnlyByDoc,
    OverByDoc,
    ThereFromDoc,
    ThingDoc,
    WishDoc,
)

NOBODY = -1
"""A person who is not at the order, or a piece that is not in it."""


def wishes_of(order: Order, people: Sequence[str], now: datetime) -> tuple[Wish, ...]:
    """An order's wishes, in their order; of somebody or something that is not in it: of nobody, of nothing.

    Args:
        order: with its wishes
        people: whose hands are at it
        now: the moment from which times count
    """
    return tuple(_wish(doc, order, people, now) for doc in order.wishes)


def _wish(doc: WishDoc, order: Order, people: Sequence[str], now: datetime) -> Wish:
    def at(moment: datetime) -> float:
        return (moment - now).total_seconds()

    def person(name: str) -> int:
        return people.index(name) if name in people else NOBODY

    match doc:
        case BeginsAtDoc():
            return BeginsAt(_thing(doc.of, order), at(doc.at))
        case NotBeforeDoc():
            return NotBefore(_thing(doc.of, order), at(doc.at))
        case OverByDoc():
            return OverBy(_thing(doc.of, order), at(doc.at))
        case OnlyByDoc():
            return OnlyBy(_thing(doc.of, order), person(doc.person))
        case NotByDoc():
            return NotBy(_thing(doc.of, order), person(doc.person))
        case ThereFromDoc():
            return ThereFrom(person(doc.person), at(doc.at), at(doc.until))
        case AwayFromDoc():
            return AwayFrom(person(doc.person), at(doc.at), at(doc.until))


def _thing(doc: ThingDoc, order: Order) -> Thing:
    item = next((i for i, line in enumerate(order.lines) if line.piece_id == doc.piece_id), NOBODY)
    return Thing(item, doc.step, doc.what, doc.nth)


def away_of(
    kitchen: Kitchen, people: Sequence[str], now: datetime, due: datetime
) -> tuple[tuple[int, float, float], ...]:
    """When which of the people are not there, from now until past the due time [s from now]."""
    out = []
    for roster in kitchen.rosters:
        if roster.name not in people or not roster.hours:
            continue
        spans = openings(roster.hours, kitchen.zone, now, due)
        leaves = [0.0, *(closes for _, closes in spans)]
        comes = [*(opens for opens, _ in spans), leaves[-1] + EVER_S]
        out += [(people.index(roster.name), a, b) for a, b in zip(leaves, comes, strict=True) if b > a]
    return tuple(out)


def leaves_of(kitchen: Kitchen, people: Sequence[str]) -> tuple[frozenset[Skill], ...]:
    """What each of the people leaves to others; nothing at all where everybody does everything."""
    by = {roster.name: frozenset(roster.leaves) for roster in kitchen.rosters}
    leaves = tuple(by.get(name, frozenset()) for name in people)
    return leaves if any(leaves) else ()
