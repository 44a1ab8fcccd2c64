"""The bench's view of a run: ribbons, next acts, calls."""

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace
from datetime import datetime
from typing import Literal

from umber_pebble.core.bench.act_kinds import TakeOff, TakeOut, Weigh, What
from umber_pebble.core.bench.acts import Call, calls, next_acts
from umber_pebble.core.bench.events import ReadOfBatch, ReadOfPot, ReadOfRound
from umber_pebble.core.bench.held_track import hold_acts
from umber_pebble.core.bench.passes import Act
from umber_pebble.core.bench.state import Event, Sight
from umber_pebble.core.bench.subject import Subject
from umber_pebble.core.bench.track import Curve, Dot, Track, temperature_at_degc
from umber_pebble.core.bench.values import Method
from umber_pebble.core.constants import HOT_TO_HOLD_DEGC
from umber_pebble.core.families.family import Rows
from umber_pebble.core.families.known import family_of
from umber_pebble.core.heat.bands import Band
from umber_pebble.core.materials.load import Material
from umber_pebble.core.plan.cooks import PotCook
from umber_pebble.core.plan.problem import Named
from umber_pebble.core.spread import Spread
from umber_pebble.services.errors import Unreadable
from umber_pebble.services.frozen import Frozen, Seen
from umber_pebble.services.noted import Noted, taken_back
from umber_pebble.services.probes import PROBE_DEVICE
from umber_pebble.services.run_log import AsideShown
from umber_pebble.services.runs import RunService
from umber_pebble.services.told import EventBody, body_of
from umber_pebble.store.models import Run

MOST_DOTS = 120


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
class ActView:
    """An act, the event that tells it, and the melt it is about, if any; closes_s is None when it has no end. colours: what is stirred
    into a coloured melt while it is made, None at any other act."""

    what: What
    subject: Subject
    tells: EventBody | None
    opens_s: float
    closes_s: float | None
    sure: bool
    forecast: bool
    melt: MeltShown | None
    colours: list[ColourIn] | None


Phase = Literal["waiting", "heating", "resting", "held", "poured", "worked", "set"]
"""How far a pot, a batch or a round is."""


@dataclass(frozen=True, slots=True)
class Ribbon:
    """A pot, round or held batch with its track; hot_until_s None: hot for as long as it is on the ring; flows_until_s of a held
    held batch, None while it flows as long as it stands there; tip_until_s when its idle tip closes; method: how it was read last."""

    subject: Subject
    name: str
    melt: str
    wording: Rows
    phase: Phase
    line: int | None
    casts: int
    melt_kg: float | None
    place: str
    done: bool
    now_degc: Spread
    hot: bool
    hot_until_s: float | None
    bands: list[Band]
    curve: Curve
    predicted: Curve
    dots: list[Dot]
    sights: list[Sight]
    overheated: bool
    colour: str | None
    flows_until_s: Spread | None
    tip_until_s: float | None
    marks_degc: dict[str, float]
    outcomes: dict[int, bool]
    named: Named | None
    method: Method | None


@dataclass(frozen=True, slots=True)
class Done:
    """The newest event that can be taken back."""

    id: str
    told: EventBody


@dataclass(frozen=True, slots=True)
class BenchView:
    """Everything the bench shows. Times in seconds since the run started, by the server's clock. aside: events that are kept and left
    out; unread: this version cannot read the run, which can only be ended."""

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
        due_at=order.due_at.isoformat(),
        ended=seen.state.ended_s is not None,
        room_degc=frozen.plan.room_degc,
        humidity_frac=frozen.plan.humidity_frac,
        rounds_done=sum(r.unmoulded_s is not None for r in seen.state.rounds),
        rounds_total=sum(frozen.plan.lines[r.line].last for r in seen.state.rounds),
        acknowledged=actor in seen.state.acknowledged or not frozen.layout.hot,
        ribbons=ribbons(frozen, seen, events, elapsed),
        acts=[act_view(a, frozen, seen) for a in acts],
        calls=[] if seen.state.paused_s is not None else calls(acts, frozen.plan.paces.call_before_s),
        paused=seen.state.paused_s is not None,
        last=_last(events),
        places={p.id: p.name for p in frozen.snapshot.kitchen.places},
        lines=[line.named for line in frozen.plan.lines],
        vessels={v.id: v.name for v in frozen.snapshot.kitchen.vessels if v.id in frozen.layout.vessels},
        aside=[AsideShown(a.id, a.kind, a.why.message) for a in seen.state.aside],
    )


def acts_of(frozen: Frozen, seen: Seen, actor: str, now: float) -> list[Act]:
    """What is to be done as a run stands, first what leads."""
    held = hold_acts(seen.cooks, seen.state.batches, seen.batches, frozen.hold, now)
    return next_acts(frozen.plan, seen.cooks, seen.state, seen.pots, seen.rounds, frozen.windows, actor, now, held)


def _bare(run: Run, now: datetime, rate: float) -> BenchView:
    """Of a run that this version cannot read: that it is there, and can be ended."""
    name = str(run.frozen.get("snapshot", {}).get("order", {}).get("name", run.id))[:60]
    started = run.started_at.isoformat()
    return BenchView(
        run_id=run.id, name=name, seq=0, elapsed_s=(now - run.started_at).total_seconds(), rate=rate, started_at=started,
        due_at=started, ended=run.ended_at is not None, room_degc=0.0, humidity_frac=0.0, rounds_done=0, rounds_total=0,
        acknowledged=True, ribbons=[], acts=[], calls=[], paused=False, last=None, places={}, lines=[], vessels={},
        unread=True, aside=[],
    )  # fmt: skip


def act_view(act: Act, frozen: Frozen, seen: Seen) -> ActView:
    """An act as the bench shows it."""
    closes = act.closes_s if math.isfinite(act.closes_s) else None
    cook = _cook_of(act.subject, seen)
    melt = _melt(cook) if cook else None
    colours = _colours(cook, frozen) if cook and isinstance(act.what, Weigh | TakeOff | TakeOut) else None
    tells = body_of(act.tells) if act.tells else None
    return ActView(act.what, act.subject, tells, act.opens_s, closes, act.sure, act.forecast, melt, colours)


def _melt(cook: PotCook) -> MeltShown:
    melt = cook.way.melt
    called = melt.called or melt.name.lower()
    return MeltShown(melt.key, called, melt.raw or called, family_of(melt).rows, cook.way.colour)


def _cook_of(subject: Subject, seen: Seen) -> PotCook | None:
    match subject:
        case Subject("pot", number):
            return seen.cooks[number]
        case Subject("round", number):
            return seen.cooks[seen.state.rounds[number].cook]
        case Subject("batch", number):
            return seen.cooks[seen.state.batches[number].cook]
    return None


def _colours(cook: PotCook, frozen: Frozen) -> list[ColourIn] | None:
    """What is stirred into all that is fresh of a coloured melt."""
    if cook.way.colour is None:
        return None
    doses = frozen.doses.get(frozen.plan.lines[cook.rounds[0].line].melt, [])

    def all_of(value: float | None) -> float | None:
        return None if value is None else value * cook.fresh_kg

    return [ColourIn(dose.name, all_of(dose.kg), all_of(dose.drops)) for dose in doses]


def _last(events: list[Noted]) -> Done | None:
    """The newest thing a hand did: what a probe said is not taken back by a slip."""
    gone = taken_back(events)
    for e in reversed(events):
        typed = not e.device.startswith(PROBE_DEVICE)
        if typed and e.kind not in ("cancels", "started", "acknowledged") and e.id not in gone:
            return Done(e.id, EventBody(kind=e.kind, payload=e.payload))
    return None


def _methods(events: list[Noted]) -> dict[Subject, Method]:
    out = dict[Subject, Method]()
    for told in (e.told for e in events if isinstance(e.told, Event)):
        match told.body:
            case ReadOfPot(cook, _, method):
                out[Subject("pot", cook)] = method
            case ReadOfRound(number, _, method):
                out[Subject("round", number)] = method
            case ReadOfBatch(number, _, method):
                out[Subject("batch", number)] = method
    return out


def ribbons(frozen: Frozen, seen: Seen, events: list[Noted], elapsed: float) -> list[Ribbon]:
    """Pots then rounds, those that have something to show; the finished are marked done."""
    kitchen = frozen.snapshot.kitchen
    names = {row.id: row.name for rows in (kitchen.places, kitchen.vessels) for row in rows}
    heats = {row.id: row.name for rows in (kitchen.rings, kitchen.microwaves, kitchen.baths) for row in rows}
    newest = {frozen.cooks[number].way.vessel_id: number for number in seen.pots}
    out = []
    for number, track in seen.pots.items():
        cook, state = seen.cooks[number], seen.state.cooks[number]
        left = cook.charge_kg - sum(frozen.finished_kg[n] for n in state.poured if n not in (state.lost or ()))
        left = max(left - state.taken_kg, 0.0)
        melt, vessel = cook.way.melt.key, cook.way.vessel_id
        heat = heats.get(cook.way.by.heater_id, "")
        place = heat if state.phase == "heating" else names[cook.way.stand_id]
        out.append(
            _ribbon(
                Subject("pot", number), names[vessel], cook.way.melt, melt, state.phase, None, cook.casts, left, place,
                number != newest[vessel], track, elapsed, {}, state.sights, track.overheated, cook.way.colour,
            )
        )  # fmt: skip
    for number, track in seen.rounds.items():
        round_, place = seen.state.rounds[number], seen.state.rounds[number].places[-1][1]
        line = frozen.plan.lines[round_.line]
        if round_.covered_s is not None:
            continue
        phase: Phase = "poured" if round_.worked_s is None else "worked"
        if round_.unmoulded_s is not None:
            phase = "set"
        outcomes = {cavity: usable for cavity, (usable, _) in round_.outcomes.items()}
        out.append(
            _ribbon(
                Subject("round", number), line.name, frozen.plan.way(line).melt, line.melt, phase, round_.line, round_.casts, None,
                names[place],
                len(outcomes) == round_.casts, track, elapsed, outcomes, round_.sights,
                seen.rests[(round_.cook, round_.rest)].overheated, seen.cooks[round_.cook].way.colour,
            )
        )  # fmt: skip

    methods, lines = _methods(events), frozen.plan.lines
    return [
        replace(
            ribbon,
            method=methods.get(ribbon.subject),
            named=None if ribbon.line is None else lines[ribbon.line].named,
        )
        for ribbon in out + _held(seen, elapsed)
    ]


def _held(seen: Seen, elapsed: float) -> list[Ribbon]:
    """Batches that are held, the one that thickens first leading."""
    out = []
    for number, track in seen.batches.items():
        b = seen.state.batches[number]
        flows, tip = track.windows["flows"][0], track.windows["tip"][0].low
        ribbon = _ribbon(
            Subject("batch", number), b.name, seen.cooks[b.cook].way.melt, seen.cooks[b.cook].way.melt.key, "held", None, 0, b.left_kg, b.spots[-1][1], False, track,
            elapsed, {}, [], track.overheated, b.colour,
        )  # fmt: skip
        until = flows if math.isfinite(flows.high) else None
        out.append(replace(ribbon, flows_until_s=until, tip_until_s=tip if math.isfinite(tip) else None))
    return sorted(out, key=lambda r: r.flows_until_s.low if r.flows_until_s else math.inf)


def _shown(dots: Sequence[Dot]) -> list[Dot]:
    """As many readings as can be told apart on a ribbon, the newest always."""
    if len(dots) <= MOST_DOTS:
        return list(dots)
    every = math.ceil(len(dots) / MOST_DOTS)
    return list(dots[::-1][::every][::-1])


def _ribbon(
    subject: Subject, name: str, of: Material, melt: str, phase: Phase, line: int | None, casts: int, melt_kg: float | None, place: str, done: bool,
    track: Track, elapsed: float, outcomes: dict[int, bool], sights: list[Sight], overheated: bool,
    colour: str | None,
) -> Ribbon:  # fmt: skip
    until = track.hot_until_s if math.isfinite(track.hot_until_s) else None
    now = temperature_at_degc(track, elapsed)
    hot = now.high >= HOT_TO_HOLD_DEGC if until is None else elapsed < until
    return Ribbon(
        subject, name, melt, family_of(of).rows, phase, line, casts, melt_kg, place, done, now, hot, until, list(track.bands), track.curve, track.predicted,
        _shown(track.dots), sights, overheated, colour, None, None, track.marks_degc, outcomes, None, None,
    )  # fmt: skip


def rail(service: RunService, actor: str) -> BenchView | None:
    """The live run, for the rail on every screen; None when nothing is live."""
    live = service.live()
    return view(service, live.id, actor) if live else None
