"""What is told beside the acts, taken into the state of a run."""

from umber_pebble.core.bench.payload import one_of, refuse, within
from umber_pebble.core.bench.side_events import Counted, Mended, Rearranged, TimerOver, TimerSet, WentAway
from umber_pebble.core.bench.state import Event, RunState, TimerState


def timer_set(state: RunState, event: Event, said: TimerSet) -> None:
    """A timer of one's own. Source: definition"""
    state.timers.append(TimerState(len(state.timers), said.name, event.at_s + said.seconds))


def timer_over(state: RunState, said: TimerOver) -> None:
    """It is heard. Raises: OutOfRange, NotInSequence. Source: definition"""
    timer = one_of(state.timers, said.timer, "timer")
    if timer.over:
        raise refuse("this timer is over already", "timer_over", timer=timer.number)
    timer.over = True


def mended(state: RunState, said: Mended) -> None:
    """What failed is good again; it has failed all the same. Raises: OutOfRange, NotInSequence. Source: definition"""
    target = one_of(state.rounds, said.round, "round")
    within(max(said.cavities), target.casts, "cavity", "payload.cavities")
    if any(target.outcomes.get(cavity, (True, ()))[0] for cavity in said.cavities):
        raise refuse("only what is recorded as failed is mended", "not_failed", round=target.number)
    target.mended |= dict.fromkeys(said.cavities, said.how)


def counted(state: RunState, said: Counted) -> None:
    """Castings in hand, against what was recorded of them [count]. Raises: OutOfRange, NotInSequence. Source: definition"""
    within(said.line, len(state.layout.lasts), "line")
    if not state.layout.lasts[said.line]:
        raise refuse("what is counted has had its last pass", "other_work", line=said.line)
    state.found[said.line] = said.good - sum(r.good for r in state.rounds if r.line == said.line)


def rearranged(state: RunState, said: Rearranged) -> None:
    """When what is left is to be poured, and by whom. Raises: OutOfRange. Source: definition"""
    for pour in said.pours:
        within(pour.round, len(state.rounds), "round", "payload.pours")
    state.planned = {pour.round: pour.at_s for pour in said.pours}
    state.whose = {(of.done, of.number): of.who for of in said.whose}


def went(state: RunState, said: WentAway) -> None:
    """Who is not there. Source: definition"""
    (state.gone.add if said.away else state.gone.discard)(said.person)
