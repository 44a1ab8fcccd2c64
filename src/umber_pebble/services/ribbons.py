"""The ribbons of a run: each vessel, round and held batch with its track."""

import math
from collections.abc import Sequence
from dataclasses import dataclass, field, replace
from typing import Literal

from umber_pebble.core.bench.events import ReadOfBatch, ReadOfPot, ReadOfRound
from umber_pebble.core.bench.marks import Marks
from umber_pebble.core.bench.state import Event, Sight
from umber_pebble.core.bench.subject import Subject
from umber_pebble.core.bench.track import Curve, Dot, Track, temperature_at_degc
from umber_pebble.core.bench.values import Method
from umber_pebble.core.constants import HOT_TO_HOLD_DEGC
from umber_pebble.core.families.family import Rows
from umber_pebble.core.families.known import family_of
from umber_pebble.core.heat.bands import Band
from umber_pebble.core.materials.load import Material
from umber_pebble.core.plan.problem import Named
from umber_pebble.core.spread import Spread
from umber_pebble.services.interpreted import FrozenPlan, Interpreted
from umber_pebble.services.noted import Noted

MOST_DOTS = 120
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
    marks: Marks
    outcomes: dict[int, bool]
    named: Named | None
    method: Method | None


@dataclass(frozen=True, slots=True)
class _Of:
    """What a ribbon is of, beside its track: what it is called, its material and its melt's key, how far it is and where; left_kg: in
    it [kg]; line, casts: of a round."""

    subject: Subject
    name: str
    of: Material
    melt: str
    phase: Phase
    place: str
    colour: str | None
    overheated: bool
    done: bool = False
    line: int | None = None
    casts: int = 0
    left_kg: float | None = None
    outcomes: dict[int, bool] = field(default_factory=dict)
    sights: list[Sight] = field(default_factory=list)


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


def ribbons(frozen: FrozenPlan, seen: Interpreted, events: list[Noted], elapsed: float) -> list[Ribbon]:
    """Pots then rounds, those that have something to show; the finished are marked done."""
    methods, lines = _methods(events), frozen.plan.lines
    rows = [*_pots(frozen, seen, elapsed), *_rounds(frozen, seen, elapsed), *_held(seen, elapsed)]
    return [
        replace(
            ribbon,
            method=methods.get(ribbon.subject),
            named=None if ribbon.line is None else lines[ribbon.line].named,
        )
        for ribbon in rows
    ]


def _pots(frozen: FrozenPlan, seen: Interpreted, elapsed: float) -> list[Ribbon]:
    kitchen = frozen.snapshot.kitchen
    names = {row.id: row.name for rows in (kitchen.places, kitchen.warmers, kitchen.vessels) for row in rows}
    heats = {row.id: row.name for rows in (kitchen.rings, kitchen.microwaves, kitchen.baths) for row in rows}
    newest = {frozen.cooks[number].way.vessel_id: number for number in seen.pots}
    out = []
    for number, track in seen.pots.items():
        cook, state = seen.cooks[number], seen.state.cooks[number]
        left = cook.charge_kg - sum(frozen.finished_kg[n] for n in state.poured if n not in (state.lost or ()))
        vessel, heat = cook.way.vessel_id, heats.get(cook.way.by.heater_id, "")
        of = _Of(
            Subject("pot", number),
            names[vessel],
            cook.way.melt,
            cook.way.melt.key,
            state.phase,
            heat if state.phase == "heating" else names[cook.way.stand_id],
            cook.way.colour,
            track.overheated,
            number != newest[vessel],
            casts=cook.casts,
            left_kg=max(left - state.taken_kg, 0.0),
            sights=state.sights,
        )
        out.append(_ribbon(of, track, elapsed))
    return out


def _rounds(frozen: FrozenPlan, seen: Interpreted, elapsed: float) -> list[Ribbon]:
    places = {place.id: place.name for place in frozen.snapshot.kitchen.places}
    out = []
    for number, track in seen.rounds.items():
        round_ = seen.state.rounds[number]
        line = frozen.plan.lines[round_.line]
        if round_.covered_s is not None:
            continue
        phase: Phase = "worked" if round_.worked and not line.works_left(round_.worked) else "poured"
        if round_.unmoulded_s is not None:
            phase = "set"
        outcomes = {c: usable or c in round_.mended for c, (usable, _) in round_.outcomes.items()}
        of = _Of(
            Subject("round", number),
            line.name,
            frozen.plan.way(line).melt,
            line.melt,
            phase,
            places[round_.places[-1][1]],
            seen.cooks[round_.cook].way.colour,
            seen.rests[(round_.cook, round_.rest)].overheated,
            len(outcomes) == round_.casts,
            round_.line,
            round_.casts,
            outcomes=outcomes,
            sights=round_.sights,
        )
        out.append(_ribbon(of, track, elapsed))
    return out


def _held(seen: Interpreted, elapsed: float) -> list[Ribbon]:
    """Batches that are held, the one that thickens first leading."""
    out = []
    for number, track in seen.batches.items():
        b = seen.state.batches[number]
        flows, tip = track.windows["flows"][0], track.windows["tip"][0].low
        melt, place = seen.cooks[b.cook].way.melt, b.spots[-1][1]
        of = _Of(
            Subject("batch", number),
            b.name,
            melt,
            melt.key,
            "held",
            place,
            b.colour,
            track.overheated,
            left_kg=b.left_kg,
        )
        until = flows if math.isfinite(flows.high) else None
        ribbon = _ribbon(of, track, elapsed)
        out.append(replace(ribbon, flows_until_s=until, tip_until_s=tip if math.isfinite(tip) else None))
    return sorted(out, key=lambda r: r.flows_until_s.low if r.flows_until_s else math.inf)


def _shown(dots: Sequence[Dot]) -> list[Dot]:
    """As many readings as can be told apart on a ribbon, the newest always."""
    if len(dots) <= MOST_DOTS:
        return list(dots)
    every = math.ceil(len(dots) / MOST_DOTS)
    return list(dots[::-1][::every][::-1])


def _ribbon(of: _Of, track: Track, elapsed: float) -> Ribbon:
    until = track.hot_until_s if math.isfinite(track.hot_until_s) else None
    now = temperature_at_degc(track, elapsed)
    return Ribbon(
        subject=of.subject,
        name=of.name,
        melt=of.melt,
        wording=family_of(of.of).rows,
        phase=of.phase,
        line=of.line,
        casts=of.casts,
        melt_kg=of.left_kg,
        place=of.place,
        done=of.done,
        now_degc=now,
        hot=now.high >= HOT_TO_HOLD_DEGC if until is None else elapsed < until,
        hot_until_s=until,
        bands=list(track.bands),
        curve=track.curve,
        predicted=track.predicted,
        dots=_shown(track.dots),
        sights=of.sights,
        overheated=of.overheated,
        colour=of.colour,
        flows_until_s=None,
        tip_until_s=None,
        marks=track.marks,
        outcomes=of.outcomes,
        named=None,
        method=None,
    )
