"""What a hand says of a reading: take it in, or leave it out."""

from collections.abc import Iterator
from dataclasses import replace

from umber_pebble.core.bench.payload import refuse
from umber_pebble.core.bench.state import Event, Reading, RunState
from umber_pebble.core.errors import Missing


def judged(state: RunState, event: Event) -> None:
    """A reading that is used whatever the fit says of it, or left out. Raises: Missing, NotInSequence. Source: definition"""
    use, wanted = event.payload.get("use"), event.payload.get("reading")
    if not isinstance(use, bool):
        raise Missing("say whether it is used", path="payload.use")
    for readings in _kept(state):
        for i, reading in enumerate(readings):
            if reading.id == wanted:
                readings[i] = replace(reading, use=use)
                return
    raise refuse("there is no such reading to judge", "no_reading")


def _kept(state: RunState) -> Iterator[list[Reading]]:
    for cook in state.cooks:
        yield cook.readings
        yield from (rest.readings for rest in cook.rests)
    yield from (r.readings for r in state.rounds)
    yield from (b.readings for b in state.batches)
