"""What hands do with a round while it is soft, as it is told."""

from umber_pebble.core.bench import events
from umber_pebble.core.bench.payload import one_of, refuse
from umber_pebble.core.bench.state import Event, RoundState, RunState


def inserted(state: RunState, event: Event, said: events.Inserted) -> None:
    """Into what is poured; first, into the cavities before the pour. Raises: NotInSequence: it was put in already. Source: definition"""
    target = one_of(state.rounds, said.round, "round")
    if not said.first:
        _worked(state, event, target, ("stick", "sprinkle", "film"))
        return
    if target.poured_s is not None or target.put_in_s is not None:
        raise refuse("it is put in before the pour, once", "poured", round=target.number)
    target.put_in_s = event.at_s


def bent(state: RunState, event: Event, said: events.Bent) -> None:
    """Raises: NotInSequence: it takes other work, or is bent already. Source: definition"""
    target = one_of(state.rounds, said.round, "round")
    # what hands do nothing else with may be bent though no plan says so
    _worked(state, event, target, ("bend",), state.layout.works[target.line] or ("bend",))


def combed(state: RunState, event: Event, said: events.Combed) -> None:
    """All that lies in one sheet is combed at once. Raises: NotInSequence: it takes other work, or is combed already. Source: definition"""
    target, kinds = one_of(state.rounds, said.round, "round"), ("drag", "comb")
    _worked(state, event, target, kinds)
    for other in (state.rounds[number] for number in state.layout.with_it(target.number)):
        if other.in_mould and set(kinds) & set(state.layout.works[other.line]) - set(other.worked):
            _worked(state, event, other, kinds)


def cut_out(state: RunState, event: Event, said: events.CutOut) -> None:
    """Raises: NotInSequence: it is no sheet, or cut already. Source: definition"""
    _worked(state, event, one_of(state.rounds, said.round, "round"), ("cut",))


def grooved(state: RunState, event: Event, said: events.Grooved) -> None:
    """Raises: NotInSequence: it takes other work, or is grooved already. Source: definition"""
    _worked(state, event, one_of(state.rounds, said.round, "round"), ("groove",))


def _worked(
    state: RunState,
    event: Event,
    target: RoundState,
    kinds: tuple[str, ...],
    works: tuple[str, ...] | None = None,
) -> None:
    """The first of these kinds that it takes and that was not done yet."""
    takes = [of for of in (state.layout.works[target.line] if works is None else works) if of in kinds]
    if not takes:
        raise refuse("this round takes other work", "other_work", round=target.number)
    # what was released warm is bent out of its mould
    loose = "bend" in takes and target.unmoulded_s is not None
    left = [of for of in takes if of not in target.worked]
    if not (target.in_mould or loose) or not left:
        raise refuse("only a poured round is worked, once", "not_workable", round=target.number)
    target.worked[left[0]] = event.at_s
