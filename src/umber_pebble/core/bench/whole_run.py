"""Events of a run as a whole: started, read the caution, paused, resumed, ended."""

from umber_pebble.core.bench.events import Ended
from umber_pebble.core.bench.payload import refuse
from umber_pebble.core.bench.state import Event, RunState
from umber_pebble.core.errors import OutOfRange


def started(state: RunState) -> None:
    """The beginning. Raises: NotInSequence. Source: definition"""
    if state.started:
        raise refuse("this run has started already", "started")
    state.started = True


def acknowledged(state: RunState, event: Event) -> None:
    """Somebody has read the caution. Source: definition"""
    state.acknowledged.add(event.actor)


def paused(state: RunState, event: Event) -> None:
    """Stopped for a while. Raises: NotInSequence. Source: definition"""
    if state.paused_s is not None:
        raise refuse("this run is paused already", "paused")
    state.paused_s = event.at_s


def resumed(state: RunState) -> None:
    """On again after a pause. Raises: NotInSequence. Source: definition"""
    if state.paused_s is None:
        raise refuse("this run is not paused", "not_paused")
    state.paused_s = None


def ended(state: RunState, event: Event, said: Ended) -> None:
    """The end, and what is left in each vessel [kg]. Raises: OutOfRange, NotInSequence. Source: definition"""
    if state.ended_s is not None:
        raise refuse("this run has ended already", "ended")
    unknown = [vessel for vessel in said.left_kg if vessel not in state.layout.vessels]
    if unknown:
        raise OutOfRange("say which vessel", path="payload.left_kg", got=unknown[0])
    state.left_kg |= said.left_kg
    state.ended_s = event.at_s
