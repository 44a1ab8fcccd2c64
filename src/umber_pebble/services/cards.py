"""A live run's pour cards, and what to do when a pour runs short."""

from pydantic import Field

from umber_pebble.core.bench.short import Short, running_short
from umber_pebble.core.errors import require_range
from umber_pebble.core.plan.cards import Card, pour_cards
from umber_pebble.services.doc_base import Doc, Whole
from umber_pebble.services.runs import RunService


class ShortRequest(Doc):
    """A round that runs short, and how many of its cavities are full, and what is left will fill."""

    round: Whole = Field(ge=0)
    filled: Whole = Field(ge=0, le=500)
    fills: Whole = Field(ge=0, le=500)


def run_cards(runs: RunService, run_id: str) -> list[Card]:
    """The pour cards of a run.

    Raises: NotFound.
    """
    _, frozen, seen, _ = runs.look(run_id)
    return pour_cards(frozen.plan, seen.cooks, frozen.windows)


def short(runs: RunService, run_id: str, asked: ShortRequest) -> Short:
    """What can still be finished of a round.

    Raises: NotFound. OutOfRange: no such round, or one that is not being poured.
    """
    _, frozen, seen, _ = runs.look(run_id)
    require_range("round", asked.round, 0, len(seen.state.rounds) - 1)
    cook = seen.cooks[seen.state.rounds[asked.round].cook]
    return running_short(
        frozen.plan, cook, asked.round, seen.state, frozen.windows[asked.round], asked.filled, asked.fills
    )
