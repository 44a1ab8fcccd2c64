"""Orders that are made in one day: their lines as those of one order, and what of each line is whose."""

from collections.abc import Sequence
from datetime import datetime

from sqlalchemy.orm import Session

from umber_pebble.core.errors import OutOfRange
from umber_pebble.core.plan.problem import MOST_HANDS
from umber_pebble.services.doc_base import Doc, Name, Utc, Whole
from umber_pebble.services.documents import MOST_LINES, Order, OrderLine
from umber_pebble.services.errors import NotFound
from umber_pebble.services.wish_docs import MOST_WISHES
from umber_pebble.services.workshop import load

NAME_LENGTH = 60


class Share(Doc):
    """How many of a line, by its place, are for one of the orders that are made together, and when that is due."""

    line: Whole
    name: Name
    quantity: Whole
    due_at: Utc


def made_with(session: Session, order: Order) -> list[Order]:
    """The orders that are made in the same day with an order; one that is gone is left out."""
    out = []
    for key in dict.fromkeys(order.together):
        try:
            other = load(session, "order", key).doc
        except NotFound:
            continue
        assert isinstance(other, Order)
        out.append(other)
    return out


def as_one(order: Order, others: Sequence[Order]) -> tuple[Order, list[Share]]:
    """Orders as one: the same piece is one line, as sure as the surest of them, by everybody's hands; and what is whose, nothing where
    there is only one order.

    Raises: OutOfRange: more lines than an order may have.
    """
    if not others:
        return order, []
    lines, shares = list(order.lines), [_share(i, order, row) for i, row in enumerate(order.lines)]
    for other in others:
        for row in other.lines:
            known = next((i for i, of in enumerate(lines) if of.piece_id == row.piece_id), None)
            if known is None:
                lines.append(row)
            else:
                lines[known] = lines[known].model_copy(update={"quantity": lines[known].quantity + row.quantity})
            shares.append(_share(len(lines) - 1 if known is None else known, other, row))
    if len(lines) > MOST_LINES:
        raise OutOfRange(
            "so many kinds of piece are too much for one day: make fewer orders together",
            path="together",
            got=len(lines),
            limits={"high": MOST_LINES},
        )
    every = [order, *others]
    one = order.model_copy(
        update={
            "name": " and ".join(of.name for of in every)[:NAME_LENGTH],
            "due_at": max(of.due_at for of in every),
            "lines": lines,
            "vessels": list({row.melt: row for of in reversed(every) for row in of.vessels}.values()),
            "ways": {key: way for of in reversed(every) for key, way in of.ways.items()},
            "confidence_frac": max(of.confidence_frac for of in every),
            "reserve_frac": max(of.reserve_frac for of in every),
            "wishes": [wish for of in every for wish in of.wishes][:MOST_WISHES],
            "people": list(dict.fromkeys(name for of in every for name in of.people))[:MOST_HANDS],
        }
    )
    return one, shares


def next_due(order: Order, shares: Sequence[Share], now: datetime) -> datetime:
    """When the next of the orders is due, the last where none is to come."""
    return min((of.due_at for of in shares if of.due_at > now), default=order.due_at)


def due_of_line(order: Order, shares: Sequence[Share], line: int) -> datetime:
    """When a line is due: with the first of the orders that want it."""
    return min((of.due_at for of in shares if of.line == line), default=order.due_at)


def _share(line: int, order: Order, row: OrderLine) -> Share:
    return Share(line=line, name=order.name, quantity=row.quantity, due_at=order.due_at)
