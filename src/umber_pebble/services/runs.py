"""Runs: started from a plan and frozen, told by events, seen by the bench."""

import logging
from collections import OrderedDict
from collections.abc import Sequence
from datetime import datetime, timedelta
from typing import Any

from pydantic_core import to_jsonable_python
from sqlalchemy.orm import Session

from umber_pebble import ENGINE_VERSION
from umber_pebble.core.bench.events import Replanned
from umber_pebble.core.bench.replay import accept, replay
from umber_pebble.core.bench.state import Aside, Event, RunState
from umber_pebble.core.bench.whose import whose_of
from umber_pebble.core.errors import CoreError, OutOfRange
from umber_pebble.core.plan.compile import Plan, compile_plan
from umber_pebble.core.plan.tasks import POURS
from umber_pebble.services.bearing import check_things
from umber_pebble.services.colouring import MeltDose, plan_doses
from umber_pebble.services.documents import Order
from umber_pebble.services.errors import IdReused, InUse, NotFound, Unreadable
from umber_pebble.services.gathering import snapshot_of
from umber_pebble.services.interpreted import (
    FrozenPlan,
    Interpreted,
    KeptDose,
    calibrations_of,
    frozen_plan_of,
    interpret,
)
from umber_pebble.services.kept import keep
from umber_pebble.services.new_event import NewEvent
from umber_pebble.services.noted import Noted, as_row, noted, taken_back
from umber_pebble.services.run_log import run_log
from umber_pebble.services.snapshot import plan_input, rows_of
from umber_pebble.services.workshop import Workshop, load
from umber_pebble.store import queries
from umber_pebble.store.models import EventRow, Run

EVENT_SCHEMA = 1
KEPT_IN_MEMORY = 32
CHANGES_WHAT_IS_LEARNED = ("reading", "judged", "outcome", "cancels", "ended")
# so many readings teach one by one; of more, every so many-th is when all of them are learned from, and the end always is
FEW_READINGS, EACH_OF_MANY = 100, 10
UNREADABLE = (CoreError, ArithmeticError, AttributeError, LookupError, TypeError, ValueError)
"""What a document of another version may raise when it is read."""
CANNOT_READ = "this version cannot read this run: it is kept, goes out with the export, and can be ended"
LOG = logging.getLogger(__name__)


class RunService:
    """Starts runs, takes events, answers what a run is now."""

    def __init__(self, workshop: Workshop) -> None:
        self.workshop = workshop
        self._frozen: OrderedDict[str, FrozenPlan] = OrderedDict()
        self._seen: OrderedDict[str, Interpreted] = OrderedDict()
        self._logs: OrderedDict[str, list[Noted]] = OrderedDict()
        self._states: OrderedDict[str, tuple[int, RunState]] = OrderedDict()
        self._plans: OrderedDict[str, Plan] = OrderedDict()

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
            problem = plan_input(snapshot, now)
            plan, snapshot = compile_plan(problem), snapshot.model_copy(update={"rows": rows_of(problem)})
            groups = [
                [[r.line, r.casts, r.number, _or_no(r.on), r.stay, _or_no(r.into)] for r in c.rounds]
                for c in plan.cooks
            ]
            frozen = {
                "engine": ENGINE_VERSION,
                "snapshot": snapshot.model_dump(mode="json"),
                "groups": groups,
                "whose": [
                    {"kind": kind, "number": number, "who": who}
                    for (kind, number), who in whose_of(plan.tasks, problem.people).items()
                ],
                "pours_s": [
                    task.start_s - plan.start_s
                    for task in sorted(plan.tasks, key=lambda t: t.round or 0)
                    if task.kind in POURS
                ],
                "planned_at": now.isoformat(),
                "doses": to_jsonable_python(_per_kg(plan, plan_doses(session, plan))),
            }
            run = Run(id=run_id, order_id=order_id, started_at=now, ended_at=None, frozen=frozen)
            session.add(run)
            session.flush()
            session.add(
                as_row(
                    NewEvent(f"{run_id}-started"[:40], "started", {}, actor, device, None, 1), run_id, 1, now, now
                )
            )
            session.flush()
            session.expunge(run)
        self._plans[run_id] = plan
        _trim(self._plans)
        self.workshop.broker.publish(topic="run", id=run_id, seq=1)
        return run

    def plan_of(self, run_id: str, frozen: FrozenPlan) -> Plan:
        """The plan a run was started from, made anew where it is not in memory any more.

        Raises: what keeps it from being made today.
        """
        if run_id not in self._plans:
            self._plans[run_id] = compile_plan(frozen.plan)
            _trim(self._plans)
        return self._plans[run_id]

    def add(self, run_id: str, new: NewEvent) -> tuple[Noted, int]:
        """Append an event; one that came before counts once. Returns it and the run's newest seq.

        Raises: NotFound: the run. IdReused: the id came with another content. NotInSequence, OutOfRange,
        Missing: it does not fit the run; nothing is changed. MouldTooWeak: the pot is hotter than the mould bears.
        """
        with self.workshop.writing() as session:
            run = _run(session, run_id)
            known = queries.event(session, new.id)
            if known is not None:
                if (known.run_id, known.kind, known.payload) != (run_id, new.kind, new.payload):
                    raise IdReused("this event id was used for something else", path="id", got=new.id)
                return noted(run, known), queries.last_seq(session, run_id)
            [row], state = self._append(session, run_id, [new])
            ended = run.ended_at is not None
        self._keep_state(run_id, row.seq, state)
        self._told(run_id, [new], row.seq, ended)
        return row, row.seq

    def add_all(self, run_id: str, news: list[NewEvent]) -> None:
        """Append events that are new, all or none.

        Raises: as add.
        """
        with self.workshop.writing() as session:
            rows, state = self._append(session, run_id, news)
            seq, ended = rows[-1].seq, _run(session, run_id).ended_at is not None
        self._keep_state(run_id, seq, state)
        self._told(run_id, news, seq, ended)

    def try_event(self, run_id: str, new: NewEvent, where: str) -> None:
        """Whether an event fits a run by itself; nothing is kept.

        Raises: as add, with the place where it stands.
        """
        try:
            with self.workshop.session() as session:
                run = _run(session, run_id)
                events = self._events(session, run)
                happened = new.happened_at or run.started_at
                row = as_row(new, run_id, events[-1].seq + 1, happened, happened)
                _fits(self.frozen(run), events, [noted(run, row)])
        except CoreError as error:
            error.path, error.message = f"{where}.{error.path}", f"{where}: {error.message}"
            error.args = (error.message,)
            raise

    def _append(self, session: Session, run_id: str, news: list[NewEvent]) -> tuple[list[Noted], RunState | None]:
        run, now = _run(session, run_id), self.workshop.clock.now()
        seq, rows = queries.last_seq(session, run_id), list[EventRow]()
        for new in news:
            if new.schema != EVENT_SCHEMA:
                raise OutOfRange(
                    "unknown event schema", path="schema", got=new.schema, limits={"high": EVENT_SCHEMA}
                )
            happened = min(max(new.happened_at or now, run.started_at), now)
            rows.append(as_row(new, run_id, seq + len(rows) + 1, happened, now))
        before, told = self._events(session, run), [noted(run, row) for row in rows]
        try:
            laid_out = self.frozen(run)
        except UNREADABLE as error:
            _only_ended(session, run, rows, error)
            return told, None
        # replayed before it is thawed: a cook that is added must make sense first
        state = _fits(laid_out, before, told, self._state_at(run_id, before[-1].seq))
        frozen = self.frozen(run, [*before, *told])
        for of in _to_tell(told):
            check_things(frozen, state, of.body)
        session.add_all(rows)
        if run.ended_at is not None and state.ended_s is None:
            _alone(session, run_id)
        run.ended_at = None if state.ended_s is None else run.started_at + timedelta(seconds=state.ended_s)
        session.flush()
        return told, state

    def _keep_state(self, run_id: str, seq: int, state: RunState | None) -> None:
        """What an accepted event has made of a run is not told again for the next look at it."""
        if state is not None:
            self._states[run_id] = (seq, state)
            _trim(self._states)

    def _state_at(self, run_id: str, seq: int) -> RunState | None:
        """What a run was as of an event, where that is known."""
        at, state = self._states.get(run_id, (0, None))
        return state if at == seq else None

    def _events(self, session: Session, run: Run) -> list[Noted]:
        """A run's whole log: it only grows, so what was read once stays."""
        known = self._logs.get(run.id, [])
        news = queries.events(session, run.id, known[-1].seq if known else 0)
        whole = self._logs[run.id] = [*known, *(noted(run, row) for row in news)]
        _trim(self._logs)
        return whole

    def _told(self, run_id: str, news: list[NewEvent], seq: int, ended: bool) -> None:
        """An event is kept: say so, and learn from it what can be learned; whatever comes to a run that has ended changes its log."""
        self.workshop.broker.publish(topic="run", id=run_id, seq=seq)
        if ended or any(_teaches(new.kind, seq) for new in news):
            try:
                self.learn(run_id)
            except Exception:
                LOG.exception("nothing was learned from run %s at event %d", run_id, seq)

    def learn(self, run_id: str) -> None:
        """Keep what a run has taught so far, in place of what it taught before.

        Raises: NotFound.
        """
        run, frozen, seen, events = self.look(run_id)
        with self.workshop.writing() as session:
            if queries.last_seq(session, run_id) != seen.seq:
                # whoever added the newer event looks at it
                return
            queries.replace_calibrations(session, run_id, calibrations_of(run, frozen, seen))
            if run.ended_at is not None:
                session.flush()
                row = _run(session, run_id)
                row.shown = keep(run_log(session, run, frozen, seen, events), row.shown)

    def teach(self, session: Session, run: Run, rows: list[EventRow]) -> datetime | None:
        """Replay a run that was brought in and keep what it taught; returns when it ended.

        Raises: what keeps it from being laid out.
        """
        told = [noted(run, row) for row in rows]
        state = _replayed(self.frozen(run), told)
        frozen = self.frozen(run, told)
        try:
            learned = calibrations_of(run, frozen, interpret(frozen, state, rows[-1].seq))
        except Exception:
            LOG.exception("nothing was learned from run %s, which was brought in", run.id)
        else:
            queries.replace_calibrations(session, run.id, learned)
        return None if state.ended_s is None else run.started_at + timedelta(seconds=state.ended_s)

    def row(self, session: Session, run_id: str) -> Run:
        """Raises: NotFound."""
        return _run(session, run_id)

    def live(self) -> Run | None:
        """The run that has not ended, if any."""
        with self.workshop.session() as session:
            run = queries.live_run(session)
            session.expunge_all()
        return run

    def forget(self) -> None:
        """Drop everything kept in memory: the database was changed under it."""
        for kept in (self._frozen, self._seen, self._logs, self._states, self._plans):
            kept.clear()

    def frozen(self, run: Run, events: Sequence[Noted] = ()) -> FrozenPlan:
        """The engine objects of a run with the cooks its events added, made once and kept."""
        more = _added(events)
        key = f"{run.id} {more}"
        if key not in self._frozen:
            self._frozen[key] = frozen_plan_of(run, more)
            _trim(self._frozen)
        return self._frozen[key]

    def look(self, run_id: str) -> tuple[Run, FrozenPlan, Interpreted, list[Noted]]:
        """A run with its state and curves as of its newest event.

        Raises: NotFound. Unreadable.
        """
        with self.workshop.session() as session:
            run = _run(session, run_id)
            events = self._events(session, run)
            session.expunge_all()
        try:
            frozen, seq = self.frozen(run, events), events[-1].seq
            seen = self._seen.get(run_id)
            if seen is None or seen.seq != seq:
                state = self._state_at(run_id, seq)
                if state is None:
                    state = _replayed(self.frozen(run), events)
                    self._keep_state(run_id, seq, state)
                seen = interpret(frozen, state, seq)
                self._seen[run_id] = seen
                _trim(self._seen)
        except UNREADABLE as error:
            raise Unreadable(CANNOT_READ, path="id", got=run_id) from error
        return run, frozen, seen, events


def _teaches(kind: str, seq: int) -> bool:
    late = kind == "reading" and seq > FEW_READINGS and seq % EACH_OF_MANY
    return kind in CHANGES_WHAT_IS_LEARNED and not late


def _per_kg(plan: Plan, doses: list[MeltDose]) -> dict[str, list[KeptDose]]:
    """What is stirred into a kilogram of each coloured melt, as the plan had it."""

    def each(melt: str, value: float | None) -> float | None:
        return None if value is None else value / plan.made_kg(melt)

    return {
        d.melt: [KeptDose(x.name, each(d.melt, x.add_kg), each(d.melt, x.drops)) for x in d.doses] for d in doses
    }


def _trim(kept: "OrderedDict[str, Any]") -> None:
    while len(kept) > KEPT_IN_MEMORY:
        kept.popitem(last=False)


def _run(session: Session, run_id: str) -> Run:
    run = queries.run(session, run_id)
    if run is None:
        raise NotFound(f"there is no run {run_id}", path="id", got=run_id)
    return run


def _alone(session: Session, run_id: str) -> None:
    live = queries.live_run(session)
    if live is not None and live.id != run_id:
        raise InUse("a run is live: end it before the next one", path="order_id", params={"run": live.id})


def _same_run(run: Run, order_id: str) -> Run:
    if run.order_id != order_id:
        raise IdReused("this run id was used for another order", path="id", got=run.id)
    return run


def _added(events: Sequence[Noted]) -> list[list[tuple[int, int]]]:
    """Cooks that were added within the run, as groups of (line, castings)."""
    gone = taken_back(events)
    told = [e.told for e in events if isinstance(e.told, Event) and e.id not in gone]
    rows = [(e.at_s, e.body.rounds) for e in told if isinstance(e.body, Replanned)]
    return [rounds for _, rounds in sorted(rows, key=lambda row: row[0])]


def _fits(
    frozen: FrozenPlan, before: Sequence[Noted], news: Sequence[Noted], known: RunState | None = None
) -> RunState:
    """Raises: why the new events do not fit."""
    for new in news:
        if isinstance(new.told, Aside):
            raise new.told.why
    return accept(frozen.layout, _to_tell(news), _to_tell(before), known)


def _only_ended(session: Session, run: Run, rows: list[EventRow], why: Exception) -> None:
    """Of a run that this version cannot read, the end is kept, and nothing else.

    Raises: Unreadable.
    """
    if run.ended_at is not None or any(row.kind not in ("ended", "note") for row in rows):
        raise Unreadable(CANNOT_READ, path="id", got=run.id) from why
    session.add_all(rows)
    run.ended_at = next((row.happened_at for row in rows if row.kind == "ended"), None)
    session.flush()


def _replayed(frozen: FrozenPlan, events: Sequence[Noted]) -> RunState:
    state = replay(frozen.layout, _to_tell(events))
    state.aside += [e.told for e in events if isinstance(e.told, Aside)]
    return state


def _to_tell(events: Sequence[Noted]) -> list[Event]:
    return [e.told for e in events if isinstance(e.told, Event)]


def _or_no(number: int | None) -> int:
    return -1 if number is None else number
