"""The bench's view of a run: ribbons, next acts, calls."""

import math
from dataclasses import dataclass
from datetime import datetime
from typing import Literal

from umber_pebble.core.bench.act_kinds import TakeOff, TakeOut, Weigh, What
from umber_pebble.core.bench.acts import Call, calls, next_acts, timer_calls
from umber_pebble.core.bench.held_track import hold_acts
from umber_pebble.core.bench.passes import Act
from umber_pebble.core.bench.subject import Subject
from umber_pebble.core.families.family import Rows
from umber_pebble.core.families.known import family_of
from umber_pebble.core.plan.cooks import PotCook
from umber_pebble.core.plan.problem import Named
from umber_pebble.services.errors import Unreadable
from umber_pebble.services.interpreted import FrozenPlan, Interpreted, run_now
from umber_pebble.services.noted import Noted, taken_back
from umber_pebble.services.probes import PROBE_DEVICE
from umber_pebble.services.ribbons import Ribbon, ribbons
from umber_pebble.services.run_log import AsideShown
from umber_pebble.services.runs import RunService
from umber_pebble.services.shares import OfOrder, orders_of
from umber_pebble.services.together import next_due
from umber_pebble.services.told import EventBody, body_of
from umber_pebble.store.models import Run


@dataclass(frozen=True, slots=True)
class MeltShown:
    """A melt at the bench: its material, as it is called there and as what it is weighed out, which words it has, and its colour as hex,
    None as it comes."""

    key: str
    called: str
    raw: str
    wording: Rows
    colour: str | None


@dataclass(frozen=True, slots=True)
class ColourIn:
    """How much of a colour goes into what is fresh [kg, drops]; None: its strength is not known."""

    name: str
    add_kg: float | None
    drops: float | None


@dataclass(frozen=True, slots=True)
class KeptIn:
    """What keeps a vessel warm off the heat, and how warm it is [degC]."""

    name: str
    kind: Literal["bath", "plate", "oven"]
    degc: float


@dataclass(frozen=True, slots=True)
class DividedOff:
    """Into which vessel a part of a melt is poured, by its id, and what it is there."""

    vessel_id: str
    melt: MeltShown


@dataclass(frozen=True, slots=True)
class ActView:
    """An act, the event that tells it, and the melt it is about, if any; closes_s is None when it has no end; who: whose hands it was
    planned for, "" anybody's. colours: what is stirred into a coloured melt while it is made, None at any other act; into: what it is
    divided off for; kept: where its vessel stands off the heat, None: on the bench."""

    what: What
    subject: Subject
    tells: EventBody | None
    opens_s: float
    closes_s: float | None
    sure: bool
    forecast: bool
    who: str
    melt: MeltShown | None
    colours: list[ColourIn] | None
    into: DividedOff | None
    kept: KeptIn | None


@dataclass(frozen=True, slots=True)
class Done:
    """The newest event that can be taken back."""

    id: str
    told: EventBody


@dataclass(frozen=True, slots=True)
class TimerShown:
    """A timer that runs or rings: its number and name, and when it rings [s]."""

    number: int
    name: str
    rings_s: float


@dataclass(frozen=True, slots=True)
class InHand:
    """A part that has left its mould for good: its line, how many are wanted, and how many are usable so far."""

    line: int
    wanted: int
    good: int


@dataclass(frozen=True, slots=True)
class BenchView:
    """Everything the bench shows. Times in seconds since the run started, by the server's clock. aside: events that are kept and left
    out; gone: who has left; unread: this version cannot read the run, which can only be ended."""

    run_id: str
    name: str
    seq: int
    elapsed_s: float
    rate: float
    started_at: str
    due_at: str
    ended: bool
    paused: bool
    room_degc: float
    humidity_frac: float
    rounds_done: int
    rounds_total: int
    acknowledged: bool
    ribbons: list[Ribbon]
    acts: list[ActView]
    calls: list[Call]
    last: Done | None
    places: dict[str, str]
    lines: list[Named]
    vessels: dict[str, str]
    aside: list[AsideShown]
    timers: list[TimerShown]
    castings: list[InHand]
    orders: tuple[OfOrder, ...] = ()
    gone: tuple[str, ...] = ()
    unread: bool = False


def view(service: RunService, run_id: str, actor: str) -> BenchView:
    """A run as the bench shows it to one person now.

    Raises: NotFound.
    """
    clock = service.workshop.clock
    try:
        run, frozen, seen, events = service.look(run_id)
    except Unreadable:
        with service.workshop.session() as session:
            row = service.row(session, run_id)
            return _bare(row, clock.now(), clock.rate)
    elapsed = (clock.now() - run.started_at).total_seconds()
    acts = acts_of(frozen, seen, actor, elapsed)
    order = frozen.snapshot.order
    return BenchView(
        run_id=run.id,
        name=order.name,
        seq=seen.seq,
        elapsed_s=elapsed,
        rate=clock.rate,
        started_at=run.started_at.isoformat(),
        due_at=next_due(order, frozen.snapshot.shares, clock.now()).isoformat(),
        ended=seen.state.ended_s is not None,
        room_degc=frozen.plan.room_degc,
        humidity_frac=frozen.plan.humidity_frac,
        rounds_done=sum(r.unmoulded_s is not None for r in seen.state.rounds),
        rounds_total=sum(frozen.plan.lines[r.line].last and not r.left_out for r in seen.state.rounds),
        acknowledged=actor in seen.state.acknowledged or not frozen.layout.hot,
        ribbons=ribbons(frozen, seen, events, elapsed),
        # what waits for something nobody knows the end of is not told yet
        acts=[act_view(a, frozen, seen) for a in acts if math.isfinite(a.opens_s)],
        calls=[*_calls(acts, actor, frozen, seen), *timer_calls(seen.state)],
        paused=seen.state.paused_s is not None,
        last=_last(events),
        places={p.id: p.name for p in frozen.snapshot.kitchen.places},
        lines=[line.named for line in frozen.plan.lines],
        vessels={v.id: v.name for v in frozen.snapshot.kitchen.vessels if v.id in frozen.layout.vessels},
        aside=[AsideShown(a.id, a.kind, a.why.message) for a in seen.state.aside],
        timers=[TimerShown(t.number, t.name, t.rings_s) for t in seen.state.timers if not t.over],
        castings=[
            InHand(i, line.quantity, seen.state.good(i)) for i, line in enumerate(frozen.plan.lines) if line.last
        ],
        orders=orders_of(frozen.snapshot),
        gone=tuple(sorted(seen.state.gone)),
    )


def acts_of(frozen: FrozenPlan, seen: Interpreted, actor: str, now: float) -> list[Act]:
    """What is to be done as a run stands, first what leads."""
    held = hold_acts(seen.cooks, seen.state.batches, seen.batches, frozen.hold, now)
    return next_acts(run_now(frozen, seen, now), actor, held)


def _bare(run: Run, now: datetime, rate: float) -> BenchView:
    """Of a run that this version cannot read: that it is there, and can be ended."""
    name = str(run.frozen.get("snapshot", {}).get("order", {}).get("name", run.id))[:60]
    started = run.started_at.isoformat()
    return BenchView(
        run_id=run.id,
        name=name,
        seq=0,
        elapsed_s=(now - run.started_at).total_seconds(),
        rate=rate,
        started_at=started,
        due_at=started,
        ended=run.ended_at is not None,
        room_degc=0.0,
        humidity_frac=0.0,
        rounds_done=0,
        rounds_total=0,
        acknowledged=True,
        ribbons=[],
        acts=[],
        calls=[],
        paused=False,
        last=None,
        places={},
        lines=[],
        vessels={},
        unread=True,
        aside=[],
        timers=[],
        castings=[],
    )


def _calls(acts: list[Act], actor: str, frozen: FrozenPlan, seen: Interpreted) -> list[Call]:
    """What somebody is called for; in a pause nothing but her own timers."""
    if seen.state.paused_s is not None:
        return []
    return calls([act for act in acts if act.who in ("", actor)], frozen.plan.paces.call_before_s)


def act_view(act: Act, frozen: FrozenPlan, seen: Interpreted) -> ActView:
    """An act as the bench shows it."""
    closes = act.closes_s if math.isfinite(act.closes_s) else None
    cook = _cook_of(act.subject, seen)
    melt = _melt(cook) if cook else None
    into = _divided_off(act.subject, seen)
    if into is not None:
        colours = _colours(into, frozen, into.made_kg)
    elif cook is not None and isinstance(act.what, Weigh | TakeOff | TakeOut):
        colours = _colours(cook, frozen, cook.made_kg)
    else:
        colours = None
    tells = body_of(act.tells) if act.tells else None
    ahead = (act.opens_s, closes, act.sure, act.forecast, act.who)
    divided = None if into is None else DividedOff(into.way.vessel_id, _melt(into))
    return ActView(act.what, act.subject, tells, *ahead, melt, colours, divided, _kept_in(cook, frozen))


def _divided_off(subject: Subject, seen: Interpreted) -> PotCook | None:
    """The cook that a round is divided off for."""
    into = seen.state.rounds[subject.number].into if subject.of == "round" else None
    return None if into is None else seen.cooks[into]


def _kept_in(cook: PotCook | None, frozen: FrozenPlan) -> KeptIn | None:
    warmers = frozen.snapshot.kitchen.warmers
    found = (w for w in warmers if cook is not None and cook.way.kept and w.id == cook.way.stand_id)
    return next((KeptIn(w.name, w.kind, w.keeps_degc) for w in found), None)


def _melt(cook: PotCook) -> MeltShown:
    melt = cook.way.melt
    called = melt.called or melt.name.lower()
    return MeltShown(melt.key, called, melt.raw or called, family_of(melt).rows, cook.way.colour)


def _cook_of(subject: Subject, seen: Interpreted) -> PotCook | None:
    match subject:
        case Subject("pot", number):
            return seen.cooks[number]
        case Subject("round", number):
            return seen.cooks[seen.state.rounds[number].cook]
        case Subject("batch", number):
            return seen.cooks[seen.state.batches[number].cook]
    return None


def _colours(cook: PotCook, frozen: FrozenPlan, kg: float) -> list[ColourIn] | None:
    """What is stirred into so much of a coloured melt."""
    if cook.way.colour is None:
        return None
    doses = frozen.doses.get(frozen.plan.lines[cook.rounds[0].line].melt, [])

    def all_of(value: float | None) -> float | None:
        return None if value is None else value * kg

    return [ColourIn(dose.name, all_of(dose.kg), all_of(dose.drops)) for dose in doses]


def _last(events: list[Noted]) -> Done | None:
    """The newest thing a hand did: what a probe said is not taken back by a slip."""
    gone = taken_back(events)
    for e in reversed(events):
        typed = not e.device.startswith(PROBE_DEVICE)
        if typed and e.kind not in ("cancels", "started", "acknowledged") and e.id not in gone:
            return Done(e.id, EventBody(kind=e.kind, payload=e.payload))
    return None


def rail(service: RunService, actor: str) -> BenchView | None:
    """The live run, for the rail on every screen; None when nothing is live."""
    live = service.live()
    return view(service, live.id, actor) if live else None
