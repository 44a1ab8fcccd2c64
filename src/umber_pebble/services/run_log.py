"""What a run shows when it is looked back on: predicted against measured, outcomes, what the next plan does with them."""

from dataclasses import dataclass

import numpy as np
from sqlalchemy.orm import Session

from umber_pebble.core.bench.again import missing
from umber_pebble.core.bench.marks import PotMarks, TemperMarks
from umber_pebble.core.bench.track import Curve, Dot
from umber_pebble.core.explained import Explained, explained, given
from umber_pebble.core.log.learn import Factor, learned
from umber_pebble.core.plan.problem import MeltWay
from umber_pebble.core.plan.spares import BreakRate, casts_needed
from umber_pebble.core.spread import Spread
from umber_pebble.services.gathering import breaks
from umber_pebble.services.interpreted import FrozenPlan, Interpreted
from umber_pebble.services.noted import Noted, taken_back
from umber_pebble.services.shares import OfOrder, orders_of
from umber_pebble.services.snapshot import Counts, break_key_of, prior_coupling, prior_loss, prior_residue
from umber_pebble.store import queries
from umber_pebble.store.models import Run


@dataclass(frozen=True, slots=True)
class LineResult:
    """One line of a run: cast, unusable, flaws seen, and the castings for the same quantity next time."""

    name: str
    last: bool
    quantity: int
    cast: int
    recorded: int
    unusable: int
    flaws: dict[str, int]
    planned: int
    next_casts: Explained


@dataclass(frozen=True, slots=True)
class Cooling:
    """A pot's rest: what was predicted before any reading, what was fitted, and the readings [s from off the heat]."""

    cook: int
    vessel: str
    off_at_s: float
    predicted: Curve
    fitted: Curve
    dots: list[Dot]
    marks_degc: PotMarks
    worst_k: float | None


@dataclass(frozen=True, slots=True)
class RunSummary:
    """A run in the list; recomputed: it ended before what it showed was kept, and is reckoned anew by this version."""

    id: str
    name: str
    started_at: str
    ended_at: str | None
    cast: int
    unusable: int
    readings: int
    recomputed: bool


@dataclass(frozen=True, slots=True)
class RoundRecord:
    """A round to record outcomes on; of a couverture, in which temper it was poured; whether its melt had been too hot."""

    number: int
    line: int
    casts: int
    poured: bool
    outcomes: dict[int, bool]
    flaws: dict[int, list[str]]
    temper: str | None
    overheated: bool


@dataclass(frozen=True, slots=True)
class VesselLesson:
    """What a run taught of a vessel: its heat loss and the melt it keeps, now and as the run was planned."""

    name: str
    melt: str
    loss: Explained
    loss_before: Spread
    residue: Explained
    residue_before: Spread


@dataclass(frozen=True, slots=True)
class OvenLesson:
    """What runs taught of a microwave: what it couples against the usual share, now and as the run was planned."""

    name: str
    couples: Explained
    couples_before: Spread


@dataclass(frozen=True, slots=True)
class AsideShown:
    """An event that an older version took and that does not fit: kept, and left out of what is shown."""

    id: str
    kind: str
    why: str


@dataclass(frozen=True, slots=True)
class RunLog:
    """A run looked back on; orders: what of it was for whom, nothing where it was one order."""

    summary: RunSummary
    engine: str
    confidence_frac: float
    lines: list[LineResult]
    rounds: list[RoundRecord]
    coolings: list[Cooling]
    vessels: list[VesselLesson]
    ovens: list[OvenLesson]
    left: int
    ending_id: str | None
    events: int
    aside: list[AsideShown]
    orders: tuple[OfOrder, ...] = ()


def summary(run: Run, frozen: FrozenPlan, seen: Interpreted) -> RunSummary:
    """A run in the list, as its events tell it."""
    bad = sum(r.failed for r in seen.state.rounds)
    cast = sum(r.casts for r in seen.state.rounds if r.poured_s is not None)
    readings = sum(len(t.dots) for t in seen.rests.values())
    ended = None if run.ended_at is None else run.ended_at.isoformat()
    return RunSummary(
        run.id, frozen.snapshot.order.name, run.started_at.isoformat(), ended, cast, bad, readings, False
    )


def run_log(session: Session, run: Run, frozen: FrozenPlan, seen: Interpreted, events: list[Noted]) -> RunLog:
    """A run with its curves, outcomes and lessons, as this version reckons them."""
    order = frozen.snapshot.order
    names = {v.id: v.name for v in frozen.snapshot.kitchen.vessels}
    keys = {break_key_of(line) for line in frozen.plan.lines}
    counts = {key: breaks(session, key) for key in keys}
    return RunLog(
        summary=summary(run, frozen, seen),
        engine=run.frozen["engine"],
        confidence_frac=order.confidence_frac,
        lines=[_line(frozen, seen, i, counts) for i in range(len(frozen.plan.lines))],
        rounds=_rounds(frozen, seen),
        coolings=_coolings(frozen, seen, names),
        vessels=[_lesson(session, way, names[way.vessel_id]) for way in frozen.plan.ways.values()],
        ovens=_ovens(session, frozen),
        left=sum(missing(frozen.plan, seen.state).values()),
        ending_id=_ending(events),
        events=len(events),
        aside=[AsideShown(a.id, a.kind, a.why.message) for a in seen.state.aside],
        orders=orders_of(frozen.snapshot),
    )


def _ending(events: list[Noted]) -> str | None:
    """The event that ended the run, unless it was taken back."""
    gone = taken_back(events)
    return next((e.id for e in events if e.kind == "ended" and e.id not in gone), None)


def _lesson(session: Session, way: MeltWay, name: str) -> VesselLesson:
    def evidence(kind: str) -> list[Factor]:
        rows = queries.calibrations(session, kind, way.vessel_id)
        return [Factor(c.evidence["value"], c.evidence["sd"]) for c in rows]

    return VesselLesson(
        name,
        way.melt.key,
        _factor(evidence("loss"), prior_loss(), "heat loss of this vessel against the model", "gelman-2013"),
        way.pot.loss_factor,
        _factor(
            evidence("residue"), prior_residue(), "melt this vessel keeps against the film model", "jeffreys-1930"
        ),
        way.residue_factor,
    )


def _ovens(session: Session, frozen: FrozenPlan) -> list[OvenLesson]:
    out = []
    for oven in frozen.snapshot.kitchen.microwaves:
        rows = queries.calibrations(session, "coupling", oven.id)
        if rows:
            evidence = [Factor(c.evidence["value"], c.evidence["sd"]) for c in rows]
            what = "what this oven couples against the usual share"
            before = frozen.snapshot.ovens.get(oven.id)
            out.append(
                OvenLesson(
                    oven.name,
                    _factor(evidence, prior_coupling(), what, "gelman-2013"),
                    before.spread() if before else prior_coupling(),
                )
            )
    return out


def _factor(evidence: list[Factor], prior: Spread, what: str, source: str) -> Explained:
    return explained(
        learned(prior, evidence),
        "frac",
        f"{what}: prior and runs weighted by how sure each is",
        given("prior", prior, "frac"),
        *(given(f"run {i + 1}", f.value, "frac") for i, f in enumerate(evidence)),
        sources=("calibration", source) if evidence else ("assumption",),
        limited_by="" if evidence else "nothing measured yet",
    )


def _line(frozen: FrozenPlan, seen: Interpreted, index: int, counts: dict[str, Counts]) -> LineResult:
    line, order = frozen.plan.lines[index], frozen.snapshot.order
    rounds = [r for c in frozen.cooks for r in c.rounds if r.line == index]
    states = [seen.state.rounds[r.number] for r in rounds]
    outcomes = [o for s in states for o in s.outcomes.values()]
    flaws: dict[str, int] = {}
    for _, kinds in outcomes:
        for kind in kinds:
            flaws[kind] = flaws.get(kind, 0) + 1
    known = counts[break_key_of(line)]
    rate = BreakRate(known.broken, known.good)
    return LineResult(
        line.name,
        line.last,
        line.quantity,
        sum(s.casts for s in states if s.poured_s is not None),
        len(outcomes),
        sum(s.failed for s in states),
        flaws,
        sum(r.casts for r in rounds),
        explained(
            casts_needed(line.quantity, order.confidence_frac, rate),
            "count",
            "castings for the same quantity at the same confidence, with all outcomes of this mould so far",
            given("quantity", line.quantity, "count"),
            given("confidence", order.confidence_frac, "frac"),
            given("seen: usable", known.good, "count"),
            given("seen: unusable", known.broken, "count"),
            given("break rate before", line.break_rate.mean_frac, "frac"),
            given("break rate now", rate.mean_frac, "frac"),
            sources=("beta-binomial", "calibration"),
        ),
    )


def _rounds(frozen: FrozenPlan, seen: Interpreted) -> list[RoundRecord]:
    out = []
    for r in (r for c in frozen.cooks for r in c.rounds):
        s = seen.state.rounds[r.number]
        if not frozen.plan.lines[r.line].last:
            continue
        usable = {c: ok or c in s.mended for c, (ok, _) in s.outcomes.items()}
        flaws = {c: [*kinds, *(["mended"] if c in s.mended else [])] for c, (_, kinds) in s.outcomes.items()}
        poured, temper, hot = s.poured_s is not None, None, False
        if poured:
            hot = seen.rests[(s.cook, s.rest)].overheated
            if frozen.cooks[s.cook].tempering is not None:
                temper = seen.rests[(s.cook, s.rest)].temper
        out.append(RoundRecord(r.number, r.line, r.casts, poured, usable, flaws, temper, hot))
    return out


def _coolings(frozen: FrozenPlan, seen: Interpreted, names: dict[str, str]) -> list[Cooling]:
    out = []
    for (cook, i), track in seen.rests.items():
        off = seen.state.cooks[cook].rests[i].off_s
        used = [d for d in track.dots if not d.odd]
        before = track.predicted
        pot = track.marks.pot if isinstance(track.marks, TemperMarks) else track.marks
        assert isinstance(pot, PotMarks)
        worst = max((abs(d.taken_degc - _at(before, d.at_s)) for d in used), default=None)
        out.append(
            Cooling(
                cook,
                names[frozen.cooks[cook].way.vessel_id],
                off,
                _shift(before, off),
                _shift(track.curve, off),
                [_dot(d, off) for d in track.dots],
                pot,
                worst,
            )
        )
    return out


def _at(curve: Curve, at_s: float) -> float:
    return float(np.interp(at_s, curve.times_s, curve.likely_degc))


def _shift(curve: Curve, off_s: float) -> Curve:
    return Curve(tuple(t - off_s for t in curve.times_s), curve.low_degc, curve.likely_degc, curve.high_degc)


def _dot(dot: Dot, off_s: float) -> Dot:
    return Dot(dot.id, dot.at_s - off_s, dot.degc, dot.taken_degc, dot.method, dot.odd)
