"""A whole log to the state of a run: what fits is told, what does not is set aside."""

from collections.abc import Iterable, Sequence

from umber_pebble.core.bench.events import Cancels, Started
from umber_pebble.core.bench.reduce import apply
from umber_pebble.core.bench.state import Aside, CookState, Event, Layout, RoundState, RunState
from umber_pebble.core.errors import CoreError, OutOfRange

BROKEN = (ArithmeticError, AttributeError, LookupError, TypeError, ValueError, RecursionError)


def taken_back(events: Sequence[Event]) -> tuple[set[str], list[Aside]]:
    """Ids of what was taken back, and those that take back what cannot be [ids].

    The start stays: a run is ended. What took something back stays as well: the thing is done again.
    Args:
        events: the whole log, in the order it came in
    Source: definition
    """
    told, gone, aside = {e.id: e.body for e in events}, set[str](), list[Aside]()
    for e in events:
        if not isinstance(e.body, Cancels):
            continue
        of = e.body.id
        if of not in told:
            why = "there is no such event to take back"
        elif isinstance(told[of], Cancels):
            why = "what was taken back is done again, not brought back"
        elif isinstance(told[of], Started):
            why = "the start is not taken back: end the run"
        elif of in gone:
            why = "this is taken back already"
        else:
            gone.add(of)
            continue
        aside.append(Aside(e.id, Cancels.KIND, OutOfRange(why, path="payload.id", got=of)))
    return gone, aside


def replay(layout: Layout, events: Iterable[Event]) -> RunState:
    """The state after all events in the order they happened [times in s]. What was taken back is left out; an event that does not
    fit is set aside, and the rest goes on as if it had not been.

    Args:
        layout: the frozen rounds, vessels and places
        events: the whole log, in the order it came in
    Source: definition
    """
    log = list(events)
    gone, aside = taken_back(log)
    left = [e for e in sorted(log, key=lambda e: e.at_s) if not isinstance(e.body, Cancels) and e.id not in gone]
    while True:
        state = RunState(
            layout,
            [CookState(i) for i in range(1 + max((r.cook for r in layout.rounds), default=-1))],
            [RoundState(r.number, r.line, r.casts, r.cook, r.on, r.into) for r in layout.rounds],
        )
        wrong = _first_that_does_not_fit(state, left)
        if wrong is None:
            state.aside = aside
            return state
        # an event may have changed something before it was refused: begin again without it
        aside.append(wrong)
        left = [e for e in left if e.id != wrong.id]


def accept(
    layout: Layout, news: Sequence[Event], before: Sequence[Event] = (), known: RunState | None = None
) -> RunState:
    """The state with new events, none of which may be set aside or push another aside [times in s].

    Args:
        layout: the frozen rounds, vessels and places
        news: events that came in now
        before: the log so far
        known: its state, where that is known; left as it is
    Raises: NotInSequence: an event does not fit what came before. OutOfRange: it speaks of what is not there.
    Source: definition
    """
    if known is None:
        known = replay(layout, before)
    latest_s = max((e.at_s for e in before), default=0.0)
    if all(not isinstance(e.body, Cancels) and e.at_s >= latest_s for e in news):
        # all of it comes after all that was told: the rest need not be told again
        state = known.apart()
        wrong = _first_that_does_not_fit(state, sorted(news, key=lambda e: e.at_s))
        if wrong is not None:
            raise wrong.why
        return state
    aside, own = {a.id for a in known.aside}, {e.id for e in news}
    state = replay(layout, [*before, *news])
    for left_out in sorted(state.aside, key=lambda a: a.id not in own):
        if left_out.id not in aside:
            raise left_out.why
    return state


def _first_that_does_not_fit(state: RunState, events: Sequence[Event]) -> Aside | None:
    for event in events:
        try:
            apply(state, event)
        except CoreError as error:
            return Aside(event.id, event.body.KIND, error)
        except BROKEN:
            why = OutOfRange("no run takes such an event", path="payload", got=None)
            return Aside(event.id, event.body.KIND, why)
    return None
