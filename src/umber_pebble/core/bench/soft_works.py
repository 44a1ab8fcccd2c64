"""What hands do with a round while it is soft, as it is told."""

from umber_pebble.core.bench import events
from umber_pebble.core.bench.payload import one_of, refuse
from umber_pebble.core.bench.state import Event, RoundState, RunState


def inserted(state: RunState, event: Event, said: events.Inserted) -> None:
    """Into what is poured; first, into the cavities before the pour. Raises: NotInSequence: it was put in already. Source: definition"""
    if not said.first:
        _on_sheet(state, event, said.round, (said.what,) if said.what else ("stick", "sprinkle", "film"))
        return
    target = one_of(state.rounds, said.round, "round")
    if target.poured_s is not None or target.put_in_s is not None:
        raise refuse("it is put in before the pour, once", "poured", round=target.number)
    target.put_in_s = event.at_s


def bent(state: RunState, event: Event, said: events.Bent) -> None:
    """By itself, or with the film it lies on. Raises: NotInSequence: it takes other work, or is bent already. Source: definition"""
    target = one_of(state.rounds, said.round, "round")
    if "shape" in state.layout.works[target.line]:
        _on_sheet(state, event, said.round, ("shape",))
        return
    # what hands do nothing else with may be bent though no plan says so
    _worked(event, target, ("bend",), state.layout.works[target.line] or ("bend",))


def combed(state: RunState, event: Event, said: events.Combed) -> None:
    """Raises: NotInSequence: it takes other work, or is combed already. Source: definition"""
    _on_sheet(state, event, said.round, (said.how,) if said.how else ("drag", "comb"))


def grooved(state: RunState, event: Event, said: events.Grooved) -> None:
    """Raises: NotInSequence: it takes other work, or is grooved already. Source: definition"""
    _on_sheet(state, event, said.round, ("groove",))


def cut_out(state: RunState, event: Event, said: events.CutOut) -> None:
    """Raises: NotInSequence: it is no sheet, or cut already. Source: definition"""
    target = one_of(state.rounds, said.round, "round")
    _worked(event, target, ("cut",), state.layout.works[target.line])


def _on_sheet(state: RunState, event: Event, number: int, kinds: tuple[str, ...]) -> None:
    """Done to a round, and at once to all that lies in one sheet with it."""
    works, target = state.layout.works, one_of(state.rounds, number, "round")
    done = _worked(event, target, kinds, works[target.line])
    for other in (state.rounds[n] for n in state.layout.with_it(number)):
        if other.in_mould and done in works[other.line] and done not in other.worked:
            other.worked[done] = event.at_s


def _worked(event: Event, target: RoundState, kinds: tuple[str, ...], works: tuple[str, ...]) -> str:
    """The first of these kinds that it takes and that was not done yet."""
    takes = [of for of in works if of in kinds]
    if not takes:
        raise refuse("this round takes other work", "other_work", round=target.number)
    # what was released warm is bent out of its mould
    loose = "bend" in takes and target.unmoulded_s is not None
    left = [of for of in takes if of not in target.worked]
    if not (target.in_mould or loose) or not left:
        raise refuse("only a poured round is worked, once", "not_workable", round=target.number)
    target.worked[left[0]] = event.at_s
    return left[0]
