"""Parts that several pieces of an order have in common: made together, out of the same rounds."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from umber_pebble.core.plan.problem import Named
from umber_pebble.services.documents import Order
from umber_pebble.services.piece_docs import Part, Piece
from umber_pebble.services.together import Share, due_of_line

At = tuple[int, int]
"""Which line of the order, and which part of its piece."""


@dataclass(frozen=True, slots=True)
class MadeAs:
    """As which part of which line it is made: the first of those that are alike; how many of it in all, for which line they are wanted first,
    what that is called."""

    first: At
    quantity: int
    item: int
    named: Named


def made_as(
    order: Order, pieces: Mapping[str, Piece], shares: Sequence[Share], together: bool
) -> dict[At, MadeAs]:
    """Of each part of each line of an order as which it is made. Two parts are alike where they are cast in the same cavity, or on the same
    body, of the same passes, worked and kept alike; those of one line are not put together, and none are where that is not asked."""
    alike: dict[str, dict[At, Part]] = {}
    for item, row in enumerate(order.lines):
        for i, part in enumerate(pieces[row.piece_id].parts):
            key = _key(part) if together else f"{item} {i}"
            if any(other == item for other, _ in alike.get(key, {})):
                key = f"{key} {item} {i}"
            alike.setdefault(key, {})[item, i] = part
    due = [due_of_line(order, shares, item) for item in range(len(order.lines))]
    out = dict[At, MadeAs]()
    for group in alike.values():
        first = next(iter(group))
        piece = pieces[order.lines[first[0]].piece_id]
        own = Named(piece.name, group[first].name.lower() if len(piece.parts) > 1 else "")
        quantity = sum(order.lines[item].quantity * part.count for (item, _), part in group.items())
        soonest = min((item for item, _ in group), key=lambda item: due[item])
        made = MadeAs(first, quantity, soonest, own if len(group) == 1 else Named(group[first].name))
        out |= dict.fromkeys(group, made)
    return out


def _key(part: Part) -> str:
    return part.model_copy(update={"name": "Part", "count": 1, "seen": "mould"}).model_dump_json()
