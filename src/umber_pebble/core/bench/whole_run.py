"""Events of a run as a whole: paused, resumed, ended, and notes."""

from umber_pebble.core.bench.payload import finite, refuse
from umber_pebble.core.bench.state import Event, RunState
from umber_pebble.core.errors import OutOfRange


def paused(state: RunState, event: Event) -> None:
    """Stopped for a while. Source: definition"""
    if state.paused_s is not None:
        raise refuse("this run is paused already", "paused")
    state.paused_s = event.at_s


def resumed(state: RunState, event: Event) -> None:
    """On again after a pause. Source: definition"""
    if state.paused_s is None:
        raise refuse("this run is not paused", "not_paused")
    state.paused_s = None


def ended(state: RunState, event: Event) -> None:
    """The end, and what is left in each vessel [kg]. Source: definition"""
    if state.ended_s is not None:
        raise refuse("this run has ended already", "ended")
    left = event.payload.get("left_kg", {})
    if not isinstance(left, dict) or any(v not in state.layout.vessels for v in left):
        raise OutOfRange("say which vessel", path="payload.left_kg", got=str(left))
    for vessel, kg in left.items():
        state.left_kg[vessel] = finite(kg, f"payload.left_kg.{vessel}", 0.0, 50.0)
    state.ended_s = event.at_s


def note(state: RunState, event: Event) -> None:
    """Something written down. Source: definition"""
    text = event.payload.get("text")
    if not isinstance(text, str) or not 0 < len(text) <= 500:
        raise OutOfRange(
            "a note has 1 to 500 characters", path="payload.text", got=None, limits={"low": 1, "high": 500}
        )
