"""The acts to the end of a run, one after the other as if each were done when it may be: what a bench goes by that cannot ask."""

import math
from collections.abc import Callable, Iterator
from dataclasses import dataclass, replace

from umber_pebble.core.bench.act_kinds import Again, End, Outcomes, Pour, Read, StirOn, Temper
from umber_pebble.core.bench.events import Body, Outcome, Rested, Smeared, Tested
from umber_pebble.core.bench.passes import Act
from umber_pebble.core.bench.reduce import apply
from umber_pebble.core.bench.state import Event, RunState
from umber_pebble.core.bench.subject import Subject
from umber_pebble.core.errors import CoreError
from umber_pebble.core.materials.load import material

LAST = (End, Again)


@dataclass(frozen=True, slots=True)
class Link:
    """An act to come; after which other of the chain its window is reckoned (its place, None: it stands by itself), when it is done
    in this forecast [s since the run started], and the event that tells so (None: it is the last)."""

    act: Act
    after: int | None
    at_s: float
    told: Body | None


def chain(
    state: RunState, now: float, actor: str, acts_of: Callable[[RunState, float], list[Act]]
) -> Iterator[Link]:
    """The acts that follow to the end, first the one to do now; each done as early as it may be, and everything comes out well.

    The rules are the bench's own: its acts are asked for, the first is told, and they are asked for again.
    Args:
        state: of the run, which stays as it is
        now: seconds since the run started
        actor: who does them
        acts_of: the acts of a state at a moment, the first to be done first
    Source: definition
    """
    links = list[Link]()
    newest = dict[Subject, int]()
    kept = set[Subject]()
    while True:
        act = next((a for a in acts_of(state, now) if _leads(a) and a.subject not in kept), None)
        if act is None or math.isinf(act.opens_s):
            return
        at = max(now, act.opens_s)
        follows = newest.get(act.subject, newest.get(_pot_of(state, act.subject)))
        again = follows is not None and _same(links[follows].act, act)
        told = list(_told(act, at, again))
        links.append(Link(act, follows, at, None if isinstance(act.what, LAST) else told[-1][1]))
        yield links[-1]
        if isinstance(act.what, LAST):
            return
        state = replace(state, done=[], aside=[]).apart()
        try:
            for when, body in told:
                apply(state, Event(f"ahead-{len(links)}", when, actor, body))
                now = max(now, when)
        except CoreError:
            # what only a hand knows is missing: the chain ends where it would have to be made up
            return
        match act.what:
            case Pour(pour_s=takes_s):
                now += takes_s
            case Temper(step="cool", there_s=there_s) if math.isfinite(there_s):
                now = max(now, there_s)
        newest[act.subject] = len(links) - 1
        if act.subject.of == "batch":
            kept.add(act.subject)


def _leads(act: Act) -> bool:
    """A reading is wished for, a forecast is none of its own."""
    return not act.forecast and not isinstance(act.what, Read)


def _pot_of(state: RunState, subject: Subject) -> Subject:
    return Subject("pot", state.rounds[subject.number].cook) if subject.of == "round" else subject


def _same(before: Act, act: Act) -> bool:
    a, b = before.what, act.what
    return isinstance(a, Temper) and isinstance(b, Temper) and a.step == b.step


def _told(act: Act, at: float, again: bool) -> Iterator[tuple[float, Body]]:
    """The events by which a hand tells an act, and when [s]; the last one ends it. A bowl that is asked for the same step again is in
    temper after it."""
    number = act.subject.number
    match act.what:
        case Outcomes(casts=casts):
            yield at, Outcome(number, list(range(casts)), usable=True)
        case StirOn():
            yield at, Rested(number)
        case Temper(step=step) if act.tells is None or again:
            if step != "look":
                yield at, Smeared(number, True)
                at += material("kitchen", "usual", "smear").spread("sets").low
            yield at, Tested(number, "well")
        case what:
            assert act.tells is not None, what
            yield at, act.tells
