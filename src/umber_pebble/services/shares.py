"""What of a day is whose, where several orders are made in it."""

from dataclasses import dataclass
from datetime import datetime

from umber_pebble.services.snapshot import Snapshot


@dataclass(frozen=True, slots=True)
class Ordered:
    """So many of a piece."""

    piece: str
    quantity: int


@dataclass(frozen=True, slots=True)
class OfOrder:
    """What of a day is for one of its orders, and when that is due."""

    name: str
    due_at: datetime
    lines: tuple[Ordered, ...]


def ordered(snapshot: Snapshot) -> tuple[Ordered, ...]:
    """How many of what are made."""
    return tuple(Ordered(_piece(snapshot, i), line.quantity) for i, line in enumerate(snapshot.order.lines))


def orders_of(snapshot: Snapshot) -> tuple[OfOrder, ...]:
    """Whose that is; nothing where it is one order."""
    by: dict[tuple[str, datetime], list[Ordered]] = {}
    for of in snapshot.shares:
        by.setdefault((of.name, of.due_at), []).append(Ordered(_piece(snapshot, of.line), of.quantity))
    return tuple(OfOrder(name, due, tuple(lines)) for (name, due), lines in by.items())


def _piece(snapshot: Snapshot, line: int) -> str:
    return snapshot.pieces[snapshot.order.lines[line].piece_id].name
