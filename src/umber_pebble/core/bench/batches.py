"""Events of batches that are held: decanted, moved, warmed, read, used, merged, coloured, thrown away."""

from umber_pebble.core.bench.batch_events import (
    Coloured,
    Decanted,
    Into,
    Merged,
    Parted,
    Rewarmed,
    SetDown,
    Thrown,
)
from umber_pebble.core.bench.events import ReadOfBatch, Used
from umber_pebble.core.bench.payload import one_of, refuse
from umber_pebble.core.bench.state import BatchState, CookState, Event, Reading, RunState
from umber_pebble.core.errors import OutOfRange
from umber_pebble.core.materials.load import materials

MOST_BATCHES = 60


def batch(state: RunState, number: int) -> BatchState:
    """A batch by its number, which must still be there.

    Raises: OutOfRange, NotInSequence.
    Source: definition
    """
    found = one_of(state.batches, number, "batch")
    if found.gone_s is not None:
        raise refuse("this batch is gone", "batch_gone", batch=found.number)
    return found


def decanted(state: RunState, event: Event, said: Decanted) -> None:
    """Parts of a resting cook into vessels of their own [kg].

    Raises: OutOfRange, NotInSequence.
    Source: definition
    """
    cook = one_of(state.cooks, said.cook, "cook")
    if cook.phase != "resting":
        raise refuse("only what is off the heat is decanted", "not_resting", cook=cook.number)
    made = _made(state, cook, None, event, said.into)
    cook.rests[-1].taken.append((event.at_s, sum(b.kg for b in made)))
    state.batches += made


def parted(state: RunState, event: Event, said: Parted) -> None:
    """Parts of a held batch into vessels of their own [kg].

    Raises: OutOfRange, NotInSequence.
    Source: definition
    """
    parent = batch(state, said.batch)
    made = _made(state, state.cooks[parent.cook], parent, event, said.into)
    taken = sum(b.kg for b in made)
    if taken > parent.left_kg + 1e-9:
        raise OutOfRange("more than is in it", path="payload.into", got=taken, limits={"high": parent.left_kg})
    parent.used.append((event.at_s, taken))
    state.batches += made


def _made(
    state: RunState, cook: CookState, parent: BatchState | None, event: Event, into: list[Into]
) -> list[BatchState]:
    if len(state.batches) + len(into) > MOST_BATCHES:
        limits = {"high": MOST_BATCHES}
        raise OutOfRange("too many batches in one run", path="payload.into", got=len(state.batches), limits=limits)
    holders = list(materials("kitchen", "holder"))
    for i, row in enumerate(into):
        if row.holder not in holders:
            path = f"payload.into.{i}.holder"
            raise OutOfRange("held in what?", path=path, got=row.holder, limits={"one_of": holders})
    return [
        BatchState(
            len(state.batches) + i,
            cook.number,
            None if parent is None else parent.number,
            row.name,
            row.holder,
            row.kg,
            event.at_s,
            row.tip_m,
            row.colour,
            [(event.at_s, row.spot)],
        )
        for i, row in enumerate(into)
    ]


def set_down(state: RunState, event: Event, said: SetDown) -> None:
    """To another spot. Raises: OutOfRange, NotInSequence. Source: definition"""
    batch(state, said.batch).spots.append((event.at_s, said.spot))


def warmed(state: RunState, event: Event, said: Rewarmed) -> None:
    """Seconds in the microwave [s]. Raises: OutOfRange, NotInSequence. Source: definition"""
    batch(state, said.batch).warmed.append((event.at_s, said.seconds))


def read(state: RunState, event: Event, said: ReadOfBatch) -> None:
    """A reading of a batch. Raises: OutOfRange, NotInSequence. Source: definition"""
    batch(state, said.batch).readings.append(Reading(event.id, event.at_s, said.degc, said.method))


def used(state: RunState, event: Event, said: Used) -> None:
    """Poured or piped out of it [kg]; nothing said: all that is left. Raises: OutOfRange. Source: definition"""
    of = batch(state, said.batch)
    if said.kg is not None and said.kg > of.left_kg:
        limits = {"low": 0.0, "high": of.left_kg}
        raise OutOfRange("more than is in it", path="payload.kg", got=said.kg, limits=limits)
    of.used.append((event.at_s, of.left_kg if said.kg is None else said.kg))
    if of.left_kg < 1e-6:
        of.gone_s = event.at_s


def merged(state: RunState, event: Event, said: Merged) -> None:
    """All of a batch back into its cook, or into another of the same melt [kg].

    Raises: OutOfRange, NotInSequence.
    Source: common-practice
    """
    of = batch(state, said.batch)
    kg = of.left_kg
    if said.into is not None:
        into = one_of(state.batches, said.into, "into")
        if into is of or into.gone_s is not None or state.vessel(into.cook) != state.vessel(of.cook):
            raise refuse("only into another batch of the same melt", "other_melt", batch=into.number)
        into.used.append((event.at_s, -kg))
    else:
        state.cooks[of.cook].rests[-1].taken.append((event.at_s, -kg))
    of.used.append((event.at_s, kg))
    of.gone_s = event.at_s


def coloured(state: RunState, said: Coloured) -> None:
    """A colour stirred into a batch [hex]. Raises: OutOfRange, NotInSequence. Source: common-practice"""
    of = batch(state, said.batch)
    family = state.layout.families[next(r.line for r in state.rounds if r.cook == of.cook)]
    if said.kind == family.parts_from:
        raise OutOfRange(
            f"{said.kind}-based colour {family.parting}: use one based on {family.dissolves}, or a powder",
            path="payload.kind",
            got=said.kind,
            limits={"one_of": [family.dissolves, "powder"]},
        )
    of.colour = said.colour


def thrown(state: RunState, event: Event, said: Thrown) -> None:
    """Thrown away. Raises: OutOfRange, NotInSequence. Source: definition"""
    batch(state, said.batch).gone_s = event.at_s
