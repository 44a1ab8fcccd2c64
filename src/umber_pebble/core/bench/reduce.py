"""Events to the state of a run: a pure reducer."""

from typing import Any

from umber_pebble.core.bench import batches, whole_run
from umber_pebble.core.bench.again import as_cooks
from umber_pebble.core.bench.judged import judged
from umber_pebble.core.bench.payload import finite, number, optional, refuse, whole
from umber_pebble.core.bench.state import (
    BOWL_SIGHTS,
    FLAWS,
    METHODS,
    SIGHTS,
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
from umber_pebble.core.bench.tempering import tempered
from umber_pebble.core.errors import Missing, OutOfRange

LOWEST_READING_DEGC, HIGHEST_READING_DEGC = -30.0, 220.0
MOST_MORE_ROUNDS, MOST_CASTS = 12, 2000
BURST_S = 1.0, 300.0


def _round(state: RunState, event: Event) -> RoundState:
    return state.rounds[number(event, "round", len(state.rounds))]


def _caution(state: RunState, event: Event) -> None:
    if state.layout.sugar and event.actor not in state.acknowledged:
        raise refuse("read and acknowledge the hot sugar caution first", "caution", actor=event.actor)


def _started(state: RunState, event: Event) -> None:
    if state.started:
        raise refuse("this run has started already", "started")
    state.started = True


def _acknowledged(state: RunState, event: Event) -> None:
    state.acknowledged.add(event.actor)


def _heated(state: RunState, event: Event) -> None:
    _onto_the_heat(state, event, state.cooks[number(event, "cook", len(state.cooks))])


def _burst(state: RunState, event: Event) -> None:
    """The first puts the bowl into the oven; each takes as long as it takes."""
    cook = state.cooks[number(event, "cook", len(state.cooks))]
    if not state.layout.bursts[_line_of(state, cook)]:
        raise refuse("this vessel is not melted in a microwave", "no_microwave", cook=cook.number)
    seconds = finite(event.payload.get("seconds"), "payload.seconds", *BURST_S)
    power = finite(event.payload.get("power_frac", 1.0), "payload.power_frac", 0.1, 1.0)
    if cook.phase != "heating":
        _onto_the_heat(state, event, cook)
    elif not cook.bursts:
        raise refuse("this bowl was put on as a whole", "on_ring", cook=cook.number)
    elif event.at_s < cook.bursts[-1].at_s + cook.bursts[-1].seconds:
        raise refuse("the burst before is not over yet", "burst_on", cook=cook.number)
    cook.bursts.append(BurstDone(event.at_s, seconds, power))


def _line_of(state: RunState, cook: CookState) -> int:
    return next(r.line for r in state.rounds if r.cook == cook.number)


def _onto_the_heat(state: RunState, event: Event, cook: CookState) -> None:
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
    if len(cook.poured) == sum(r.cook == cook.number for r in state.rounds):
        raise refuse("all rounds of this cook are poured", "all_poured", cook=cook.number)
    cook.from_degc = optional(event, "degc", LOWEST_READING_DEGC, HIGHEST_READING_DEGC)
    cook.heated_s, cook.readings, cook.thrown = event.at_s, [], False
    cook.bursts, cook.sights = [], []
    cook.heatings += 1


def _rested(state: RunState, event: Event) -> None:
    cook = state.cooks[number(event, "cook", len(state.cooks))]
    if cook.phase != "heating":
        raise refuse("this pot is not on the ring", "not_on_ring", cook=cook.number)
    since = tuple(n for n in cook.poured if n not in (cook.lost or ()))
    off_degc = optional(event, "degc", LOWEST_READING_DEGC, HIGHEST_READING_DEGC)
    melted = Melted(tuple(cook.bursts), tuple(cook.readings), tuple(cook.sights)) if cook.bursts else None
    cook.rests.append(Rest(event.at_s, off_degc, since, melted=melted))
    cook.heated_s = None


def _reading(state: RunState, event: Event) -> None:
    degc, method = optional(event, "degc", LOWEST_READING_DEGC, HIGHEST_READING_DEGC), event.payload.get("method")
    if degc is None:
        raise Missing("a reading needs a temperature", path="payload.degc")
    if method not in METHODS:
        raise OutOfRange(
            "say how it was taken", path="payload.method", got=method, limits={"one_of": list(METHODS)}
        )
    reading = Reading(event.id, event.at_s, degc, method)
    if "batch" in event.payload:
        batches.read(state, event, reading)
    elif "cook" in event.payload:
        cook = state.cooks[number(event, "cook", len(state.cooks))]
        if cook.phase == "waiting":
            raise refuse("this pot is not on yet", "not_on_yet", cook=cook.number)
        (cook.readings if cook.phase == "heating" else cook.rests[-1].readings).append(reading)
    else:
        poured = _round(state, event)
        if poured.poured_s is None:
            raise refuse("this round is not poured yet", "not_poured", round=poured.number)
        poured.readings.append(reading)


def _seen(state: RunState, event: Event) -> None:
    what, sights = str(event.payload.get("what")), BOWL_SIGHTS if "cook" in event.payload else SIGHTS
    if what not in sights:
        raise OutOfRange("say what you saw", path="payload.what", got=what, limits={"one_of": list(sights)})
    if "cook" in event.payload:
        cook = state.cooks[number(event, "cook", len(state.cooks))]
        if cook.phase != "heating" or not cook.bursts:
            raise refuse("only a bowl between bursts is watched", "not_on_yet", cook=cook.number)
        cook.sights.append(Sight(event.at_s, what))
        return
    target = _round(state, event)
    if not target.in_mould:
        raise refuse("only a poured round still in its mould is watched", "not_in_mould", round=target.number)
    target.sights.append(Sight(event.at_s, what))


def _poured(state: RunState, event: Event) -> None:
    _caution(state, event)
    target = _round(state, event)
    cook = state.cooks[target.cook]
    if target.poured_s is not None:
        raise refuse("this round is poured already", "poured", round=target.number)
    if cook.phase != "resting":
        raise refuse("take the pot off the ring first", "not_resting", cook=cook.number)
    if target.on is not None and state.rounds[target.on].poured_s is None:
        raise refuse("the pass under it is not poured yet", "not_poured", round=target.on)
    target.poured_s = event.at_s
    if target.on is not None:
        state.rounds[target.on].covered_s = event.at_s
    target.places = [(event.at_s, state.layout.poured_on[target.line])]
    target.rest = len(cook.rests) - 1
    cook.rests[-1].poured.append((event.at_s, target.number))


def _moved(state: RunState, event: Event) -> None:
    target, place = _round(state, event), event.payload.get("place")
    if place not in state.layout.place_ids:
        raise OutOfRange(
            "no such place", path="payload.place", got=place, limits={"one_of": list(state.layout.place_ids)}
        )
    if not target.in_mould:
        raise refuse("only a poured round still in its mould is moved", "not_in_mould", round=target.number)
    target.places.append((event.at_s, place))


def _put_in(state: RunState, event: Event) -> None:
    """What goes into the cavities by hand before a pour."""
    target = _round(state, event)
    if target.poured_s is not None or target.put_in_s is not None:
        raise refuse("it is put in before the pour, once", "poured", round=target.number)
    target.put_in_s = event.at_s


def _worked(state: RunState, event: Event) -> None:
    if event.payload.get("first"):
        _put_in(state, event)
        return
    target = _round(state, event)
    works = {"bent": ("bend", None), "inserted": ("stick", "sprinkle")}[event.kind]
    if state.layout.works[target.line] not in works:
        raise refuse("this round takes other work", "other_work", round=target.number)
    # what was released warm is bent out of its mould
    loose = event.kind == "bent" and target.unmoulded_s is not None
    if not (target.in_mould or loose) or target.worked_s is not None:
        raise refuse("only a poured round is worked, once", "not_workable", round=target.number)
    target.worked_s = event.at_s


def _unmoulded(state: RunState, event: Event) -> None:
    target = _round(state, event)
    if not state.layout.lasts[target.line]:
        raise refuse("another pass goes on it first", "other_work", round=target.number)
    if not target.in_mould:
        raise refuse("only a poured round is unmoulded, once", "not_in_mould", round=target.number)
    target.unmoulded_s = event.at_s


def _flipped(state: RunState, event: Event) -> None:
    """A ball laid on another side."""
    target = _round(state, event)
    if not target.in_mould:
        raise refuse("only what is poured and in its mould is turned", "not_in_mould", round=target.number)
    target.turned_s.append(event.at_s)


def _outcome(state: RunState, event: Event) -> None:
    target = _round(state, event)
    cavities, usable = event.payload.get("cavities"), event.payload.get("usable")
    if not isinstance(cavities, list) or not cavities:
        raise Missing("say which cavities", path="payload.cavities")
    for cavity in cavities:
        whole(cavity, "cavity", "payload.cavities", target.casts)
    kinds = event.payload.get("kinds", [])
    if not isinstance(usable, bool):
        raise Missing("say if it is usable", path="payload.usable")
    if not isinstance(kinds, list) or any(k not in FLAWS for k in kinds):
        raise OutOfRange("no such flaw", path="payload.kinds", got=str(kinds), limits={"one_of": list(FLAWS)})
    if target.poured_s is None:
        raise refuse("this round is not poured yet", "not_poured", round=target.number)
    if not state.layout.lasts[target.line]:
        raise refuse("what came of it is told after its last pass", "other_work", round=target.number)
    target.outcomes |= dict.fromkeys(cavities, (usable, tuple(kinds)))


def _discarded(state: RunState, event: Event) -> None:
    cook = state.cooks[number(event, "cook", len(state.cooks))]
    if cook.phase == "waiting":
        raise refuse("there is nothing in this vessel to throw away", "not_on_yet", cook=cook.number)
    _empty(cook)


def _empty(cook: CookState) -> None:
    """Nothing is in it any more: it is made anew for what it still owes."""
    cook.heated_s, cook.from_degc, cook.heatings, cook.readings = None, None, 0, []
    cook.bursts, cook.sights = [], []
    cook.thrown, cook.lost = True, cook.poured


def _short(state: RunState, event: Event) -> None:
    """A pour ran short: so many cavities are full, the rest wait for a fresh melt."""
    target = _round(state, event)
    cook = state.cooks[target.cook]
    if target.poured_s is not None or cook.phase != "resting":
        raise refuse("this round is not being poured", "not_resting", cook=cook.number)
    filled = whole(event.payload.get("filled"), "number of full cavities", "payload.filled", target.casts)
    if filled < target.filled:
        raise refuse("more of them were full before", "poured", round=target.number)
    target.filled = filled
    _empty(cook)


def _made(state: RunState, event: Event) -> None:
    """A step that is made by hand, of no melt."""
    step = number(event, "step", state.layout.steps)
    if step in state.made:
        raise refuse("this is made already", "made", step=step)
    state.made.add(step)


def _replanned(state: RunState, event: Event) -> None:
    """Another cook within the run: rounds as [line, castings]."""
    rows = event.payload.get("rounds")
    if not isinstance(rows, list) or not 1 <= len(rows) <= MOST_MORE_ROUNDS:
        raise OutOfRange(
            "say which rounds to add",
            path="payload.rounds",
            got=str(rows),
            limits={"low": 1, "high": MOST_MORE_ROUNDS},
        )
    for row in rows:
        if not isinstance(row, list) or len(row) != 2:
            raise OutOfRange("a round is a line and its castings", path="payload.rounds", got=str(row))
        whole(row[0], "line", "payload.rounds", len(state.layout.works))
        whole(_less_one(row[1]), "number of castings", "payload.rounds", MOST_CASTS)
    layout, made = state.layout, dict[int, int]()
    for group in as_cooks(rows, layout.follows, layout.melts):
        cook = CookState(len(state.cooks))
        for line, casts in group:
            on = layout.follows[line]
            made[line] = len(state.rounds)
            state.rounds.append(
                RoundState(made[line], line, casts, cook.number, None if on is None else made.get(on))
            )
        state.cooks.append(cook)


def _less_one(value: Any) -> Any:
    return value - 1 if isinstance(value, int) and not isinstance(value, bool) else value


_KINDS = {
    "started": _started,
    "acknowledged": _acknowledged,
    "heated": _heated,
    "burst": _burst,
    "rested": _rested,
    "reading": _reading,
    "seen": _seen,
    "poured": _poured,
    "moved": _moved,
    "inserted": _worked,
    "bent": _worked,
    "flipped": _flipped,
    "unmoulded": _unmoulded,
    "made": _made,
    "judged": judged,
    "outcome": _outcome,
    "note": whole_run.note,
    "discarded": _discarded,
    "short": _short,
    "decanted": batches.decanted,
    "tempered": tempered,
    "replanned": _replanned,
    "paused": whole_run.paused,
    "resumed": whole_run.resumed,
    "ended": whole_run.ended,
}
# what is done to a held batch
_OF_BATCH = {
    "heated": batches.warmed, "poured": batches.used, "moved": batches.moved, "discarded": batches.thrown,
    "merged": batches.merged, "coloured": batches.coloured,
}  # fmt: skip
AFTER_END = ("outcome", "note", "cancels", "acknowledged", "judged")
KINDS = (*dict.fromkeys((*_KINDS, *_OF_BATCH)), "cancels")


def apply(state: RunState, event: Event) -> None:
    """Takes an event into the state [1].

    Raises: NotInSequence: it does not fit what came before. OutOfRange, Missing: its payload is wrong.
    Source: definition
    """
    if event.kind not in KINDS:
        raise OutOfRange("no such kind of event", path="kind", got=event.kind, limits={"one_of": list(KINDS)})
    # whatever else happened, a run can be ended
    if event.kind not in ("started", "ended") and not state.started:
        raise refuse("the run has not started", "not_started")
    if state.ended_s is not None and event.kind not in AFTER_END:
        raise refuse("the run has ended", "ended")
    of_batch = "batch" in event.payload or event.kind not in _KINDS
    (_OF_BATCH if of_batch and event.kind in _OF_BATCH else _KINDS)[event.kind](state, event)
    state.done.append(event)
