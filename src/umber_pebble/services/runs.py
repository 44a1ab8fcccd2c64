"""Runs: started from a plan and frozen, told by events, seen by the bench."""

from collections import OrderedDict
from collections.abc import Callable, Sequence
from dataclasses import dataclass, field, replace
from datetime import datetime, timedelta
from functools import partial
from typing import Any

from sqlalchemy.orm import Session

from umber_pebble import ENGINE_VERSION
from umber_pebble.core.bench.again import cooks_now
from umber_pebble.core.bench.predict import heating_track, resting_track, round_track
from umber_pebble.core.bench.reduce import replay
from umber_pebble.core.bench.state import Event, Layout, RunState
from umber_pebble.core.bench.track import Track, temperature_at_degc
from umber_pebble.core.errors import CoreError, MouldTooWeak, OutOfRange
from umber_pebble.core.heat.piece import Place
from umber_pebble.core.heat.windows import PieceWindows
from umber_pebble.core.log.learn import counted, loss_factor, residue_factor
from umber_pebble.core.pieces.cast import CastAmounts
from umber_pebble.core.plan.compile import compile_plan
from umber_pebble.core.plan.cooks import PotCook, line_amounts, make_cooks, round_windows
from umber_pebble.core.plan.problem import PlanInput, SugarCook
from umber_pebble.services.docs import Order
from umber_pebble.services.errors import IdReused, InUse, NotFound
from umber_pebble.services.snapshot import Snapshot, break_key, places, plan_input
from umber_pebble.services.workshop import Workshop, load, snapshot_of
from umber_pebble.store import queries
from umber_pebble.store.models import Calibration, EventRow, Run

EVENT_SCHEMA = 1
KEPT_IN_MEMORY = 32
CHANGES_WHAT_IS_LEARNED = ("outcome", "ended", "cancels", "reading")


@dataclass(frozen=True, slots=True)
class Frozen:
    """What a run was started with, as engine objects: made from its stored documents, never from today's."""

    snapshot: Snapshot
    plan: PlanInput
    amounts: list[CastAmounts]
    cooks: list[PotCook]
    finished_kg: dict[int, float]
    layout: Layout
    windows: dict[int, PieceWindows]
    places: dict[str, Place]
    kept: dict[tuple[str, int, int], tuple[object, Track]] = field(default_factory=dict)

    def track(self, name: tuple[str, int, int], made_from: object, make: Callable[[], Track]) -> Track:
        """A track as it was made before, unless what it is made from has changed."""
        known = self.kept.get(name)
        if known is None or known[0] != made_from:
            known = self.kept[name] = (made_from, make())
        return known[1]


@dataclass(slots=True)
class Seen:
    """A run as its events tell it: its cooks as they are now, and the curves of every pot and round."""

    seq: int
    state: RunState
    cooks: list[PotCook]
    rests: dict[tuple[int, int], Track] = field(default_factory=dict)
    pots: dict[int, Track] = field(default_factory=dict)
    rounds: dict[int, Track] = field(default_factory=dict)


@dataclass(frozen=True, slots=True)
class NewEvent:
    """An event as a client sends it."""

    id: str
    kind: str
    payload: dict[str, Any]
    actor: str
    device: str
    happened_at: datetime | None
    schema: int


class RunService:
    """Starts runs, takes events, answers what a run is now."""

    def __init__(self, workshop: Workshop) -> None:
        self.workshop = workshop
        self._frozen: OrderedDict[str, Frozen] = OrderedDict()
        self._seen: OrderedDict[str, Seen] = OrderedDict()

    def start(self, run_id: str, order_id: str, actor: str, device: str) -> Run:
        """Start a run from an order's plan; the same id again is the same run.

        Raises: NotFound: the order. InUse: another run is live. And whatever keeps the plan from being made.
        """
        with self.workshop.writing() as session:
            known = queries.run(session, run_id)
            if known is not None:
                session.expunge(known)
                return _same_run(known, order_id)
            _alone(session, run_id)
            stored = load(session, "order", order_id)
            assert isinstance(stored.doc, Order)
            snapshot = snapshot_of(session, stored.doc, (order_id, stored.version))
            now = self.workshop.clock.now()
            plan = compile_plan(plan_input(snapshot, now))
            groups = [[[r.line, r.casts] for r in c.cook.rounds] for c in plan.cooks]
            frozen = {
                "engine": ENGINE_VERSION,
                "snapshot": snapshot.model_dump(mode="json"),
                "groups": groups,
                "planned_at": now.isoformat(),
            }
            run = Run(id=run_id, order_id=order_id, started_at=now, ended_at=None, frozen=frozen)
            session.add(run)
            session.flush()
            session.add(
                _row(
                    NewEvent(f"{run_id}-started"[:40], "started", {}, actor, device, None, 1), run_id, 1, now, now
                )
            )
            session.flush()
            session.expunge(run)
        self.workshop.broker.publish(topic="run", id=run_id, seq=1)
        return run

    def add(self, run_id: str, new: NewEvent) -> tuple[EventRow, int]:
        """Append an event; one that came before counts once. Returns it and the run's newest seq.

        Raises: NotFound: the run. IdReused: the id came with another content. NotInSequence, OutOfRange,
        Missing: it does not fit the run; nothing is changed. MouldTooWeak: the pot is hotter than the mould bears.
        """
        with self.workshop.writing() as session:
            _run(session, run_id)
            known = queries.event(session, new.id)
            if known is not None:
                if (known.run_id, known.kind, known.payload) != (run_id, new.kind, new.payload):
                    raise IdReused("this event id was used for something else", path="id", got=new.id)
                session.expunge(known)
                return known, queries.last_seq(session, run_id)
            [row] = self._append(session, run_id, [new])
            session.expunge(row)
        self.workshop.broker.publish(topic="run", id=run_id, seq=row.seq)
        return row, row.seq

    def add_all(self, run_id: str, news: list[NewEvent]) -> None:
        """Append events that are new, all or none.

        Raises: as add.
        """
        with self.workshop.writing() as session:
            rows = self._append(session, run_id, news)
            seq = rows[-1].seq
        self.workshop.broker.publish(topic="run", id=run_id, seq=seq)

    def try_event(self, run_id: str, new: NewEvent, where: str) -> None:
        """Whether an event fits a run by itself; nothing is kept.

        Raises: as add, with the place where it stands.
        """
        try:
            with self.workshop.session() as session:
                run = _run(session, run_id)
                events = queries.events(session, run_id)
                happened = new.happened_at or run.started_at
                row = _row(new, run_id, events[-1].seq + 1, happened, happened)
                _replayed(self.frozen(run), run, [*events, row])
        except CoreError as error:
            error.path, error.message = f"{where}.{error.path}", f"{where}: {error.message}"
            error.args = (error.message,)
            raise

    def _append(self, session: Session, run_id: str, news: list[NewEvent]) -> list[EventRow]:
        run, now = _run(session, run_id), self.workshop.clock.now()
        seq, rows = queries.last_seq(session, run_id), list[EventRow]()
        for new in news:
            if new.schema != EVENT_SCHEMA:
                raise OutOfRange(
                    "unknown event schema", path="schema", got=new.schema, limits={"high": EVENT_SCHEMA}
                )
            happened = min(max(new.happened_at or now, run.started_at), now)
            rows.append(_row(new, run_id, seq + len(rows) + 1, happened, now))
        events = [*queries.events(session, run_id), *rows]
        # replayed before it is thawed: a cook that is added must make sense first
        state = _replayed(self.frozen(run), run, events)
        frozen = self.frozen(run, events)
        for new in news:
            if new.kind == "poured":
                self._bears(frozen, state, new.payload["round"])
        session.add_all(rows)
        if run.ended_at is not None and state.ended_s is None:
            _alone(session, run_id)
        run.ended_at = None if state.ended_s is None else run.started_at + timedelta(seconds=state.ended_s)
        if any(new.kind in CHANGES_WHAT_IS_LEARNED for new in news):
            seen = _looked_at(frozen, state, rows[-1].seq)
            queries.replace_calibrations(session, run_id, _taught(run, frozen, seen))
        session.flush()
        return rows

    def _bears(self, frozen: Frozen, state: RunState, number: int) -> None:
        seen = _looked_at(frozen, state, 0)
        target = state.rounds[number]
        cook = frozen.cooks[target.cook]
        assert target.poured_s is not None
        now = temperature_at_degc(seen.rests[(target.cook, target.rest)], target.poured_s)
        bears = cook.flow.mould_bears_degc
        if now.likely > bears:
            raise MouldTooWeak(
                f"the pot is at {now.likely:.0f} degC and the mould bears {bears:g} degC: "
                "let it rest, or use silicone or metal",
                path="payload.round",
                got=now.likely,
                limits={"high": bears},
            )

    def teach(self, session: Session, run: Run, rows: list[EventRow]) -> datetime | None:
        """Replay a run that was brought in and keep what it taught; returns when it ended.

        Raises: as add.
        """
        state = _replayed(self.frozen(run), run, rows)
        seen = _looked_at(self.frozen(run, rows), state, rows[-1].seq)
        queries.replace_calibrations(session, run.id, _taught(run, self.frozen(run, rows), seen))
        return None if state.ended_s is None else run.started_at + timedelta(seconds=state.ended_s)

    def forget(self) -> None:
        """Drop everything kept in memory: the database was changed under it."""
        self._frozen.clear()
        self._seen.clear()

    def frozen(self, run: Run, events: Sequence[EventRow] = ()) -> Frozen:
        """The engine objects of a run with the cooks its events added, made once and kept."""
        more = _added(events)
        key = f"{run.id} {more}"
        if key not in self._frozen:
            self._frozen[key] = thaw(run, more)
            _trim(self._frozen)
        return self._frozen[key]

    def look(self, run_id: str) -> tuple[Run, Frozen, Seen, list[EventRow]]:
        """A run with its state and curves as of its newest event.

        Raises: NotFound.
        """
        with self.workshop.session() as session:
            run = _run(session, run_id)
            events = queries.events(session, run_id)
            session.expunge_all()
        frozen, seq = self.frozen(run, events), events[-1].seq
        seen = self._seen.get(run_id)
        if seen is None or seen.seq != seq:
            seen = _looked_at(frozen, _replayed(self.frozen(run), run, events), seq)
            self._seen[run_id] = seen
            _trim(self._seen)
        return run, frozen, seen, events

    def all(self) -> list[Run]:
        """All runs, newest first."""
        with self.workshop.session() as session:
            rows = queries.runs(session)
            session.expunge_all()
        return rows


def _trim(kept: "OrderedDict[str, Any]") -> None:
    while len(kept) > KEPT_IN_MEMORY:
        kept.popitem(last=False)


def _run(session: Session, run_id: str) -> Run:
    run = queries.run(session, run_id)
    if run is None:
        raise NotFound(f"there is no run {run_id}", path="id", got=run_id)
    return run


def _alone(session: Session, run_id: str) -> None:
    live = [r for r in queries.runs(session) if r.ended_at is None and r.id != run_id]
    if live:
        raise InUse("a run is live: end it before the next one", path="order_id", params={"run": live[0].id})


def _same_run(run: Run, order_id: str) -> Run:
    if run.order_id != order_id:
        raise IdReused("this run id was used for another order", path="id", got=run.id)
    return run


def _row(new: NewEvent, run_id: str, seq: int, happened: datetime, received: datetime) -> EventRow:
    return EventRow(
        id=new.id,
        run_id=run_id,
        seq=seq,
        kind=new.kind,
        actor=new.actor,
        device=new.device,
        happened_at=happened,
        received_at=received,
        schema_version=new.schema,
        payload=new.payload,
    )


def _added(events: Sequence[EventRow]) -> list[list[list[int]]]:
    """Cooks that were added within the run, as groups of [line, castings]."""
    gone = {e.payload.get("id") for e in events if e.kind == "cancels"}
    rows = [e for e in events if e.kind == "replanned" and e.id not in gone]
    return [e.payload["rounds"] for e in sorted(rows, key=lambda e: e.happened_at)]


def thaw(run: Run, more: list[list[list[int]]]) -> Frozen:
    """Engine objects from a run's frozen documents, and the cooks added since."""
    snapshot = Snapshot.model_validate(run.frozen["snapshot"], strict=False)
    plan = plan_input(snapshot, datetime.fromisoformat(run.frozen["planned_at"]))
    amounts = line_amounts(plan)
    groups = [[(line, casts) for line, casts in group] for group in [*run.frozen["groups"], *more]]
    if any(not group or any(line >= len(plan.lines) or casts < 1 for line, casts in group) for group in groups):
        raise OutOfRange("a round is of a line that is not there", path="frozen.groups", got=str(groups))
    cooks = make_cooks(plan, groups, amounts)
    finished = {r.number: amounts[r.line].finished.value.likely * r.casts for c in cooks for r in c.rounds}
    rounds = tuple(r for c in cooks for r in c.rounds)
    ways = [plan.way(line) for line in plan.lines]
    spots = places(snapshot)
    layout = Layout(
        rounds,
        tuple(way.vessel_id for way in ways),
        tuple(line.work for line in plan.lines),
        tuple(line.lies[0][1] if line.lies else plan.way(line).poured_on_id for line in plan.lines),
        tuple(spots),
        any(isinstance(way.by, SugarCook) for way in ways),
    )
    return Frozen(snapshot, plan, amounts, cooks, finished, layout, round_windows(plan, cooks, amounts), spots)


def _replayed(frozen: Frozen, run: Run, rows: list[EventRow]) -> RunState:
    events = [
        Event(row.id, row.kind, (row.happened_at - run.started_at).total_seconds(), row.actor, row.payload)
        for row in rows
    ]
    return replay(frozen.layout, events)


def _looked_at(frozen: Frozen, state: RunState, seq: int) -> Seen:
    """All tracks of a run: every rest, the pots as they are now, every poured round."""
    seen = Seen(seq, state, cooks_now(frozen.plan, frozen.cooks, frozen.amounts, state))
    for cook, cooked in zip(seen.cooks, state.cooks, strict=True):
        number = cook.number
        for i, rest in enumerate(cooked.rests):
            make = partial(resting_track, cook, rest, frozen.finished_kg)
            seen.rests[(number, i)] = frozen.track(("rest", number, i), (cooked.lost, rest), make)
        if cooked.phase == "heating":
            heated = (cooked.lost, cooked.heated_s, cooked.from_degc, cooked.heatings, cooked.readings)
            make = partial(heating_track, cook, cooked)
            seen.pots[number] = frozen.track(("heating", number, 0), heated, make)
        elif cooked.phase == "resting":
            seen.pots[number] = seen.rests[(number, len(cooked.rests) - 1)]
    for cook in seen.cooks:
        for r in cook.rounds:
            target = state.rounds[r.number]
            if target.poured_s is not None:
                pour = temperature_at_degc(seen.rests[(cook.number, target.rest)], target.poured_s)
                lies = replace(target, outcomes={})
                make = partial(
                    round_track, frozen.plan, cook, r.line, frozen.amounts[r.line], lies, pour, frozen.places
                )
                seen.rounds[r.number] = frozen.track(("round", r.number, 0), (pour, lies), make)
    return seen


def _taught(run: Run, frozen: Frozen, seen: Seen) -> list[Calibration]:
    """Evidence of a run on its vessels and moulds."""
    out = []
    for way in frozen.plan.ways.values():
        cooks = [c for c in frozen.cooks if c.way is way]
        tracks = [t for (number, _), t in seen.rests.items() if frozen.cooks[number].way is way]
        loss = loss_factor(tracks, way.pot.loss_factor.likely)
        last = cooks[-1]
        residue = residue_factor(
            seen.state.left_kg.get(way.vessel_id), last.charge_kg - last.finished_kg, last.residue_kg.likely,
            way.residue_factor.likely,
        )  # fmt: skip
        for kind, factor in (("loss", loss), ("residue", residue)):
            if factor is not None:
                evidence = {"value": factor.value, "sd": factor.sd}
                out.append(Calibration(run_id=run.id, kind=kind, subject=way.vessel_id, evidence=evidence))
    totals: dict[str, list[int]] = {}
    counts = counted(seen.state)
    for r in seen.state.rounds:
        line = frozen.plan.lines[r.line]
        row = totals.setdefault(break_key(line.melt, line.mould.mould_id, line.mould.kind), [0, 0])
        row[0] += counts[r.number][0]
        row[1] += counts[r.number][1]
    for key, (broken, good) in totals.items():
        if broken + good:
            evidence = {"broken": broken, "good": good}
            out.append(Calibration(run_id=run.id, kind="break", subject=key, evidence=evidence))
    return out
