"""What a hand says of a reading: take it in, or leave it out."""

from collections.abc import Iterator
from dataclasses import replace

from umber_pebble.core.bench.events import Judged
from umber_pebble.core.bench.payload import refuse
from umber_pebble.core.bench.state import Reading, RunState


def judged(state: RunState, said: Judged) -> None:
    """A reading that is used whatever the fit says of it, or left out. Raises: NotInSequence. Source: definition"""
    for readings in _kept(state):
        for i, reading in enumerate(readings):
            if reading.id == said.reading:
                readings[i] = replace(reading, use=said.use)
                return
    raise refuse("there is no such reading to judge", "no_reading")


def _kept(state: RunState) -> Iterator[list[Reading]]:
    for cook in state.cooks:
        yield cook.readings
        yield from (rest.readings for rest in cook.rests)
    yield from (r.readings for r in state.rounds)
    yield from (b.readings for b in state.batches)
