"""Events to the state of a run: a pure reducer."""

from typing import assert_never

from umber_pebble.core.bench import (
    batch_events,
    batches,
    events,
    side,
    side_events,
    soft_works,
    tempering,
    whole_run,
)
from umber_pebble.core.bench.again import as_cooks
from umber_pebble.core.bench.judged import judged
from umber_pebble.core.bench.left_out import left_out, needless_portions
from umber_pebble.core.bench.payload import one_of, refuse, within
from umber_pebble.core.bench.state import (
    BurstDone,
    CookState,
    Event,
    Melted,
    Reading,
    Rest,
    RoundState,
    RunState,
    Sight,
)
from umber_pebble.core.errors import OutOfRange


def _round(state: RunState, number: int) -> RoundState:
    return one_of(state.rounds, number, "round")


def _cook(state: RunState, number: int) -> CookState:
    return one_of(state.cooks, number, "cook")


def _caution(state: RunState, event: Event) -> None:
    if state.layout.hot and event.actor not in state.acknowledged:
        raise refuse("read and acknowledge the hot sugar caution first", "caution", actor=event.actor)


def _heated(state: RunState, event: Event, said: events.Heated) -> None:
    _onto_the_heat(state, event, _cook(state, said.cook), said.degc)


def _burst(state: RunState, event: Event, said: events.Burst) -> None:
    """The first puts the bowl into the oven; each takes as long as it takes."""
    cook = _cook(state, said.cook)
    if not state.layout.bursts[_line_of(state, cook)]:
        raise refuse("this vessel is not melted in a microwave", "no_microwave", cook=cook.number)
    if cook.phase != "heating":
        _onto_the_heat(state, event, cook, said.degc)
    elif not cook.bursts:
        raise refuse("this bowl was put on as a whole", "on_ring", cook=cook.number)
    elif event.at_s < cook.bursts[-1].at_s + cook.bursts[-1].seconds:
        raise refuse("the burst before is not over yet", "burst_on", cook=cook.number)
    cook.bursts.append(BurstDone(event.at_s, said.seconds, said.power_frac))


def _line_of(state: RunState, cook: CookState) -> int:
    return next(r.line for r in state.rounds if r.cook == cook.number)


def _onto_the_heat(state: RunState, event: Event, cook: CookState, degc: float | None) -> None:
    _caution(state, event)
    if cook.phase == "heating":
        raise refuse("this pot is on the ring already", "on_ring", cook=cook.number)
    vessel = state.vessel(cook.number)
    others = [
        c
        for c in state.cooks
        if c.number != cook.number and c.phase == "heating" and state.vessel(c.number) == vessel
    ]
    if others:
        raise refuse("the pot is taken by another cook", "pot_taken", cook=others[0].number)
    if len(cook.poured) == sum(r.cook == cook.number and not r.left_out for r in state.rounds):
        raise refuse("all rounds of this cook are poured", "all_poured", cook=cook.number)
    cook.anew = cook.thrown or not cook.rests
    cook.from_degc, cook.heated_s, cook.readings, cook.thrown = degc, event.at_s, [], False
    cook.bursts, cook.sights = [], []
    cook.heatings += 1
    needless_portions(state)


def _rested(state: RunState, event: Event, said: events.Rested) -> None:
    cook = _cook(state, said.cook)
    if cook.phase != "heating":
        raise refuse("this pot is not on the ring", "not_on_ring", cook=cook.number)
    since = tuple(n for n in cook.poured if n not in (cook.lost or ()))
    melted = Melted(tuple(cook.bursts), tuple(cook.readings), tuple(cook.sights)) if cook.bursts else None
    on_s = event.at_s if cook.heated_s is None else cook.heated_s
    cook.rests.append(Rest(event.at_s, said.degc, since, on_s, cook.anew, cook.from_degc, melted=melted))
    cook.heated_s = None


def _read_of_pot(state: RunState, event: Event, said: events.ReadOfPot) -> None:
    cook = _cook(state, said.cook)
    if cook.phase == "waiting":
        raise refuse("this pot is not on yet", "not_on_yet", cook=cook.number)
    readings = cook.readings if cook.phase == "heating" else cook.rests[-1].readings
    readings.append(Reading(event.id, event.at_s, said.degc, said.method))


def _read_of_round(state: RunState, event: Event, said: events.ReadOfRound) -> None:
    poured = _round(state, said.round)
    if poured.poured_s is None:
        raise refuse("this round is not poured yet", "not_poured", round=poured.number)
    poured.readings.append(Reading(event.id, event.at_s, said.degc, said.method))


def _seen_in_bowl(state: RunState, event: Event, said: events.SeenInBowl) -> None:
    cook = _cook(state, said.cook)
    if cook.phase != "heating" or not cook.bursts:
        raise refuse("only a bowl between bursts is watched", "not_on_yet", cook=cook.number)
    cook.sights.append(Sight(event.at_s, said.what))


def _seen_of_round(state: RunState, event: Event, said: events.SeenOfRound) -> None:
    target = _round(state, said.round)
    if not target.in_mould:
        raise refuse("only a poured round still in its mould is watched", "not_in_mould", round=target.number)
    target.sights.append(Sight(event.at_s, said.what))


def _poured(state: RunState, event: Event, said: events.Poured) -> None:
    _caution(state, event)
    target = _round(state, said.round)
    cook = state.cooks[target.cook]
    if target.poured_s is not None:
        raise refuse("this round is poured already", "poured", round=target.number)
    if target.left_out:
        raise refuse("this round is left out: take that back first", "left_out", round=target.number)
    if cook.phase != "resting":
        raise refuse("take the pot off the ring first", "not_resting", cook=cook.number)
    if target.on is not None and state.rounds[target.on].poured_s is None:
        raise refuse("the pass under it is not poured yet", "not_poured", round=target.on)
    for with_it in (state.rounds[number] for number in state.layout.with_it(target.number)):
        if with_it.waits:
            _lies(state, event, cook, with_it)
    if target.into is not None:
        # it lies in no mould: it is a melt of its own from now on
        target.covered_s = event.at_s
        state.cooks[target.into].rests.append(Rest(event.at_s, None, (), event.at_s, True, portion=True))


def _lies(state: RunState, event: Event, cook: CookState, target: RoundState) -> None:
    target.poured_s = event.at_s
    if target.on is not None:
        state.rounds[target.on].covered_s = event.at_s
    target.places = [(event.at_s, state.layout.poured_on[target.line])]
    target.rest = len(cook.rests) - 1
    cook.rests[-1].poured.append((event.at_s, target.number))


def _moved(state: RunState, event: Event, said: events.Moved) -> None:
    target, known = _round(state, said.round), state.layout.place_ids
    if said.place not in known:
        raise OutOfRange("no such place", path="payload.place", got=said.place, limits={"one_of": list(known)})
    if not target.in_mould:
        raise refuse("only a poured round still in its mould is moved", "not_in_mould", round=target.number)
    target.places.append((event.at_s, said.place))
    for other in (state.rounds[number] for number in state.layout.with_it(target.number)):
        if other is not target and other.in_mould and other.places[-1][1] != said.place:
            other.places.append((event.at_s, said.place))


def _unmoulded(state: RunState, event: Event, said: events.Unmoulded) -> None:
    target = _round(state, said.round)
    if not state.layout.lasts[target.line]:
        raise refuse("another pass goes on it first", "other_work", round=target.number)
    if not target.in_mould:
        raise refuse("only a poured round is unmoulded, once", "not_in_mould", round=target.number)
    target.unmoulded_s = event.at_s


def _flipped(state: RunState, event: Event, said: events.Flipped) -> None:
    """A ball laid on another side."""
    target = _round(state, said.round)
    if not target.in_mould:
        raise refuse("only what is poured and in its mould is turned", "not_in_mould", round=target.number)
    target.turned_s.append(event.at_s)


def _outcome(state: RunState, said: events.Outcome) -> None:
    target = _round(state, said.round)
    within(max(said.cavities), target.casts, "cavity", "payload.cavities")
    if target.poured_s is None:
        raise refuse("this round is not poured yet", "not_poured", round=target.number)
    if not state.layout.lasts[target.line]:
        raise refuse("what came of it is told after its last pass", "other_work", round=target.number)
    for cavity in said.cavities:
        target.mended.pop(cavity, None)
    target.outcomes |= dict.fromkeys(said.cavities, (said.usable, tuple(said.kinds)))


def _discarded(state: RunState, said: events.Discarded) -> None:
    cook = _cook(state, said.cook)
    if cook.phase == "waiting":
        raise refuse("there is nothing in this vessel to throw away", "not_on_yet", cook=cook.number)
    _empty(cook)


def _empty(cook: CookState) -> None:
    """Nothing is in it any more: it is made anew for what it still owes."""
    cook.heated_s, cook.from_degc, cook.heatings, cook.readings = None, None, 0, []
    cook.bursts, cook.sights = [], []
    cook.thrown, cook.lost = True, cook.poured


def _short(state: RunState, said: events.RanShort) -> None:
    """A pour ran short: so many cavities are full, the rest wait for a fresh melt."""
    target = _round(state, said.round)
    cook = state.cooks[target.cook]
    if target.poured_s is not None or cook.phase != "resting":
        raise refuse("this round is not being poured", "not_resting", cook=cook.number)
    within(said.filled, target.casts, "number of full cavities", "payload.filled")
    if said.filled < target.filled:
        raise refuse("more of them were full before", "poured", round=target.number)
    target.filled = said.filled
    _empty(cook)


def _made(state: RunState, event: Event, said: events.Made) -> None:
    """A step that is made by hand, of no melt."""
    within(said.step, state.layout.steps, "step")
    if said.step in state.made:
        raise refuse("this is made already", "made", step=said.step)
    state.made[said.step] = event.at_s


def _replanned(state: RunState, said: events.Replanned) -> None:
    """Another cook within the run."""
    layout, made = state.layout, dict[int, int]()
    for line, _ in said.rounds:
        within(line, len(layout.works), "line", "payload.rounds")
    for group in as_cooks(said.rounds, layout.follows, layout.melts):
        cook = CookState(len(state.cooks))
        for line, casts in group:
            on = layout.follows[line]
            made[line] = len(state.rounds)
            state.rounds.append(
                RoundState(made[line], line, casts, cook.number, None if on is None else made.get(on))
            )
        state.cooks.append(cook)


AFTER_END = (
    events.Outcome,
    side_events.Mended,
    side_events.Counted,
    events.Note,
    side_events.Pictured,
    events.Cancels,
    events.Acknowledged,
    events.Judged,
)


def apply(state: RunState, event: Event) -> None:
    """Takes an event into the state [1].

    Raises: NotInSequence: it does not fit what came before. OutOfRange: it speaks of what is not there.
    Source: definition
    """
    # whatever else happened, a run can be ended
    if not isinstance(event.body, events.Started | events.Ended) and not state.started:
        raise refuse("the run has not started", "not_started")
    if state.ended_s is not None and not isinstance(event.body, AFTER_END):
        raise refuse("the run has ended", "ended")
    _tell(state, event)
    state.done.append(event)


def _tell(state: RunState, event: Event) -> None:
    match event.body:
        case events.Started():
            whole_run.started(state)
        case events.Acknowledged():
            whole_run.acknowledged(state, event)
        case events.Heated() as said:
            _heated(state, event, said)
        case events.Burst() as said:
            _burst(state, event, said)
        case events.Rested() as said:
            _rested(state, event, said)
        case events.ReadOfPot() as said:
            _read_of_pot(state, event, said)
        case events.ReadOfRound() as said:
            _read_of_round(state, event, said)
        case events.ReadOfBatch() as said:
            batches.read(state, event, said)
        case events.SeenInBowl() as said:
            _seen_in_bowl(state, event, said)
        case events.SeenOfRound() as said:
            _seen_of_round(state, event, said)
        case events.Poured() as said:
            _poured(state, event, said)
        case events.Used() as said:
            batches.used(state, event, said)
        case events.Moved() as said:
            _moved(state, event, said)
        case batch_events.SetDown() as said:
            batches.set_down(state, event, said)
        case events.Inserted() as said:
            soft_works.inserted(state, event, said)
        case events.CutOut() as said:
            soft_works.cut_out(state, event, said)
        case events.Combed() as said:
            soft_works.combed(state, event, said)
        case events.Grooved() as said:
            soft_works.grooved(state, event, said)
        case events.Bent() as said:
            soft_works.bent(state, event, said)
        case events.Flipped() as said:
            _flipped(state, event, said)
        case events.Unmoulded() as said:
            _unmoulded(state, event, said)
        case events.Made() as said:
            _made(state, event, said)
        case events.Judged() as said:
            judged(state, said)
        case events.Outcome() as said:
            _outcome(state, said)
        case events.Discarded() as said:
            _discarded(state, said)
        case batch_events.Thrown() as said:
            batches.thrown(state, event, said)
        case events.RanShort() as said:
            _short(state, said)
        case batch_events.Decanted() as said:
            batches.decanted(state, event, said)
        case batch_events.Parted() as said:
            batches.parted(state, event, said)
        case events.Seeded() as said:
            tempering.seeded(state, event, said)
        case events.Stepped() as said:
            tempering.stepped(state, event, said)
        case events.Smeared() as said:
            tempering.smeared(state, event, said)
        case events.Tested() as said:
            tempering.tested(state, event, said)
        case events.Replanned() as said:
            _replanned(state, said)
        case events.Paused():
            whole_run.paused(state, event)
        case events.Resumed():
            whole_run.resumed(state)
        case events.Ended() as said:
            whole_run.ended(state, event, said)
        case batch_events.Rewarmed() as said:
            batches.warmed(state, event, said)
        case batch_events.Merged() as said:
            batches.merged(state, event, said)
        case batch_events.Coloured() as said:
            batches.coloured(state, said)
        case side_events.TimerSet() as said:
            side.timer_set(state, event, said)
        case side_events.TimerOver() as said:
            side.timer_over(state, said)
        case side_events.Mended() as said:
            side.mended(state, said)
        case side_events.Counted() as said:
            side.counted(state, said)
        case side_events.Rearranged() as said:
            side.rearranged(state, said)
        case side_events.LeftOut() as said:
            left_out(state, said)
        case side_events.WentAway() as said:
            side.went(state, said)
        case events.Note() | side_events.Pictured() | events.Cancels():
            # a note changes nothing, and what takes back is read over the whole log
            pass
        case _:
            assert_never(event.body)
