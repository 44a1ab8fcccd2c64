"""Looking back: the list of runs, one run as it showed itself, and an order for what it still owes."""

import math
from dataclasses import replace
from datetime import timedelta

from umber_pebble.core.bench.again import missing
from umber_pebble.services.errors import InUse
from umber_pebble.services.kept import kept_log, kept_summary
from umber_pebble.services.run_log import RunLog, RunSummary, run_log, summary
from umber_pebble.services.runs import UNREADABLE, RunService
from umber_pebble.services.workshop import Stored
from umber_pebble.store import queries

# an order whose due time is nearer than this gets another day for what is left
SOON, LATER = timedelta(hours=1), timedelta(days=1)


def summaries(service: RunService) -> list[RunSummary]:
    """All runs that can be read, newest first: the finished as they were kept."""
    with service.workshop.session() as session:
        rows = queries.run_heads(session)
    out = (
        (kept_summary(form, text) if ended_at is not None else None) or _reckoned(service, run_id)
        for run_id, ended_at, form, text in rows
    )
    return [known for known in out if known is not None]


def _reckoned(service: RunService, run_id: str) -> RunSummary | None:
    try:
        run, frozen, seen, _ = service.look(run_id)
    except UNREADABLE:
        return None
    return replace(summary(run, frozen, seen), recomputed=run.ended_at is not None)


def read(service: RunService, run_id: str) -> RunLog:
    """One run with its curves, outcomes and lessons: a finished one as it showed them then.

    Raises: NotFound. Unreadable.
    """
    with service.workshop.session() as session:
        row = service.row(session, run_id)
        known = kept_log(row.shown) if row.ended_at is not None else None
    if known is not None:
        return known
    run, frozen, seen, events = service.look(run_id)
    with service.workshop.session() as session:
        log = run_log(session, run, frozen, seen, events)
    return replace(log, summary=replace(log.summary, recomputed=run.ended_at is not None))


def plan_what_is_left(service: RunService, run_id: str, order_id: str) -> Stored:
    """A new order for what a run still owes: its lines less the usable castings recorded; the same id is the same order.

    Raises: NotFound. InUse: nothing is left to make.
    """
    _, frozen, seen, _ = service.look(run_id)
    order, now = frozen.snapshot.order, service.workshop.clock.now()
    short = missing(frozen.plan, seen.state)
    if not short:
        raise InUse("nothing is left: all that was ordered is recorded as good", path="id", got=run_id)
    pieces: dict[int, int] = {}
    for i, count in short.items():
        item = frozen.plan.lines[i].item
        each = frozen.plan.lines[i].quantity // order.lines[item].quantity
        pieces[item] = max(pieces.get(item, 0), math.ceil(count / each))
    lines = [order.lines[item].model_copy(update={"quantity": count}) for item, count in pieces.items()]
    due = order.due_at if order.due_at > now + SOON else now + LATER
    name = f"{order.name}, the rest"[:60]
    return service.workshop.create(
        "order", order_id, order.model_copy(update={"name": name, "lines": lines, "due_at": due, "together": []})
    )
