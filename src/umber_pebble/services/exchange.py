"""Files that go out and come in for one order or run: calendar, lists for the wall, readings."""

import hashlib
from collections import Counter
from collections.abc import Sequence
from datetime import datetime, timedelta
from zoneinfo import ZoneInfo

from umber_pebble.core.bench.events import ReadOfBatch, ReadOfPot, ReadOfRound
from umber_pebble.core.bench.state import Event
from umber_pebble.core.errors import CoreError, OutOfRange
from umber_pebble.core.families.known import family_of
from umber_pebble.core.melts.bursts import Bowl, plan_bursts
from umber_pebble.core.plan.cards import pour_cards
from umber_pebble.core.plan.compile import Plan, compile_plan
from umber_pebble.core.plan.fillings import ByHand, by_hand_amounts
from umber_pebble.core.plan.tasks import TaskKind
from umber_pebble.formats import units as paper
from umber_pebble.formats.apart import apart
from umber_pebble.formats.calendar import Entry, write_calendar
from umber_pebble.formats.readings import ReadingRow, read_readings, write_readings
from umber_pebble.formats.wall import Block, write_list
from umber_pebble.services.documents import Kitchen, Order, Units
from umber_pebble.services.gathering import snapshot_of
from umber_pebble.services.new_event import NewEvent
from umber_pebble.services.noted import Noted, taken_back
from umber_pebble.services.runs import EVENT_SCHEMA, RunService
from umber_pebble.services.snapshot import plan_input
from umber_pebble.services.workshop import KITCHEN_ID, UNITS_ID, Workshop, load

TASKS: dict[TaskKind, str] = {
    "wash": "Clean the vessel",
    "weigh": "Weigh",
    "cook": "Melt",
    "warm": "Warm again",
    "temper": "Temper",
    "tend": "Stir, look",
    "rest": "Rests",
    "pour": "Pour",
    "bend": "Bend",
    "stick": "Sticks",
    "sprinkle": "Put on",
    "film": "Press on",
    "drag": "Drag",
    "comb": "Comb",
    "groove": "Groove",
    "cut": "Cut",
    "shape": "Bend on its film",
    "put_in": "Fill by hand",
    "set": "Sets",
    "unmould": "Unmould",
    "turn": "Turn the balls",
    "firm": "Firms on its form",
    "clean": "Clean the mould",
    "dry": "The mould dries",
    "swirl": "Swirl in",
    "divide": "Divide off",
    "press": "Press",
    "model": "Model",
    "fit": "Cut and set out",
    "finish": "Dust, paint, lacquer",
    "join": "Join",
}


def planned(workshop: Workshop, order_id: str) -> tuple[Order, Kitchen, Units, Plan]:
    """An order's plan as of now, and what its lists are worded by.

    Raises: NotFound, and whatever keeps the plan from being made.
    """
    now = workshop.clock.now()
    with workshop.session() as session:
        order = load(session, "order", order_id).doc
        kitchen, units = load(session, "kitchen", KITCHEN_ID).doc, load(session, "units", UNITS_ID).doc
        assert isinstance(order, Order) and isinstance(kitchen, Kitchen) and isinstance(units, Units)
        snapshot = snapshot_of(session, order)
    return snapshot.order, kitchen, units, compile_plan(plan_input(snapshot, now))


def calendar(workshop: Workshop, order_id: str) -> bytes:
    """An order's timetable as iCalendar.

    Raises: NotFound, and whatever keeps the plan from being made.
    """
    order, _, _, plan = planned(workshop, order_id)
    now = workshop.clock.now()
    entries, count = [], Counter[tuple[object, ...]]()
    for task in plan.tasks:
        key = (task.kind, task.of, task.number, task.round)
        count[key] += 1
        if task.of == "by_hand":
            name, of = f" {plan.problem.by_hand[task.number].name}", ""
        elif task.round is not None:
            name, of = f" {plan.problem.lines[plan.rounds[task.round].line].name}", f", round {task.round + 1}"
        else:
            name, of = "", f", cook {task.number + 1}"
        entries.append(
            Entry(
                f"{order_id}-{task.kind}-{task.of}-{task.number}-{task.round}-{count[key]}@umber-pebble",
                f"{order.name}: {TASKS[task.kind].lower()}{name}{of}",
                now + timedelta(seconds=task.start_s),
                now + timedelta(seconds=task.end_s),
                task.hands,
            )
        )
    return write_calendar(order.name, entries, now)


def melt_list(workshop: Workshop, order_id: str) -> bytes:
    """What to weigh out and melt, as PDF.

    Raises: NotFound, and whatever keeps the plan from being made.
    """
    order, kitchen, units, plan = planned(workshop, order_id)
    vessels = {v.id: v.name for v in kitchen.vessels}
    blocks = []
    for key, way in plan.problem.ways.items():
        rows = []
        for c in plan.cooks_of(key):
            water = f"+ {paper.mass(c.water_kg, units)} water" if c.water_kg else "no water"
            steps = plan_bursts(c.heating).steps if isinstance(c.heating, Bowl) else ()
            bursts = [f"{step.seconds:g}" for step in steps if step.act == "burst"]
            how = water if c.flow.tg is not None else f"{' + '.join(bursts)} s" if bursts else "bath"
            heat = f"to {paper.temperature(c.flow.off.likely, units)}, {paper.minutes(c.hob.likely)}"
            if c.portion_degc is not None:
                how, heat = "colour", "off the pot of all colours"
            rows.append(
                (
                    f"{c.number + 1}:  {paper.weighed(c.made_kg, units)}",
                    vessels[c.way.vessel_id],
                    how,
                    heat,
                    f"pour {paper.minutes(c.window.opens.likely)} to {paper.minutes(c.window.closes.likely)}",
                )
            )
        total = f"{paper.mass(plan.made_kg(key), units)} in all"
        blocks.append(
            Block(f"{way.melt.name}, {total}", ("weigh out", "into", "with", "heat", "off the heat"), rows)
        )
    caution = (
        "Hot sugar burns at once: gloves, sleeves, cold water at hand, no children."
        if any(family_of(way.melt).hot for way in plan.problem.ways.values())
        else ""
    )
    return write_list(
        f"Melt: {order.name}", due_words(order, kitchen), [*blocks, *([Block(caution, (), ())] if caution else [])]
    )


def pour_list(workshop: Workshop, order_id: str) -> bytes:
    """What to pour into which mould, round by round, as PDF.

    Raises: NotFound, and whatever keeps the plan from being made.
    """
    order, kitchen, units, plan = planned(workshop, order_id)
    places = {p.id: p.name for p in kitchen.places}
    blocks = []
    for i, card in enumerate(pour_cards(plan.problem, plan.cooks, plan.windows)):
        rows = []
        for row in card.rows:
            for hand in row.first:
                grams = paper.mass(hand.kg, units) if hand.kg else ""
                rows.append((f"{card.casts} x {grams}", hand.name, "by hand", "", ""))
            high = (
                f"{paper.length(row.thick_m, units)} thick"
                if row.kind != "fill"
                else f"to {paper.length(row.fill_m, units)}"
            )
            out = "break out" if card.cut else "unmould"
            until = out if row is card.rows[-1] else "next pass"
            rows.append(
                (
                    f"{card.casts} x {paper.mass(row.each_kg, units)}",
                    str(row.named),
                    f"melt {row.cook + 1}, {high}",
                    ", ".join(places[p] for p in row.place_ids),
                    "the next at once" if row.with_next else f"{until} after {paper.minutes(row.sets.high)}",
                )
            )
        blocks.append(
            Block(
                f"Card {i + 1}: {card.mould}, {card.casts} {'pieces' if card.cut else 'cavities'}",
                ("each piece" if card.cut else "each cavity", "pass", "how", "lies", "sets"),
                rows,
            )
        )
    return write_list(f"Pour: {order.name}", due_words(order, kitchen), blocks)


def hand_list(workshop: Workshop, order_id: str) -> bytes:
    """What goes in or is pressed by hand, and what that is mixed of, as PDF.

    Raises: NotFound, and whatever keeps the plan from being made.
    """
    order, kitchen, units, plan = planned(workshop, order_id)
    rows = by_hand_rows(by_hand_amounts(plan.problem, plan.cooks), units)
    block = Block("In all", ("weigh out", "for", "mixed of"), rows)
    note = Block("Nothing goes in or is pressed by hand.", (), ())
    return write_list(f"By hand: {order.name}", due_words(order, kitchen), [block if rows else note])


def by_hand_rows(amounts: Sequence[ByHand], units: Units) -> list[tuple[str, ...]]:
    """What hands put in or press: all of it, how often, of what it is mixed."""
    return [
        (
            paper.mass(row.kg, units),
            f"{row.count} x {row.name}",
            ", ".join(f"{paper.mass(of.kg, units)} {of.name}" for of in row.of),
        )
        for row in amounts
    ]


def due_words(order: Order, kitchen: Kitchen) -> str:
    due = order.due_at.astimezone(ZoneInfo(kitchen.zone))
    return f"for {due:%A %d %B %Y, %H:%M} ({kitchen.zone.replace('_', ' ')}), {kitchen.name}"


def readings_out(runs: RunService, run_id: str) -> str:
    """All readings of a run as CSV, in the workshop's unit.

    Raises: NotFound.
    """
    _, _, seen, events = runs.look(run_id)
    gone = {a.id for a in seen.state.aside} | taken_back(events)
    unit = runs.workshop.get("units", UNITS_ID).doc
    assert isinstance(unit, Units)
    rows = []
    for e in sorted(events, key=lambda e: e.happened_at):
        read = _read(e)
        if read is not None and e.id not in gone:
            rows.append(ReadingRow(0, e.happened_at, *read))
    return write_readings(rows, unit.temperature)


def readings_in(runs: RunService, run_id: str, text: str, actor: str, device: str) -> int:
    """Add the readings of a CSV file to a run, all or none; one that is there already counts once. Returns how many are new.

    Raises: NotFound. OutOfRange: a line cannot be, with its number. NotInSequence: it does not fit the run.
    """
    run, _, _, events = runs.look(run_id)
    known = {_mark(run_id, e.happened_at, read) for e in events if (read := _read(e)) is not None}
    end = run.ended_at or runs.workshop.clock.now()
    news = []
    for row in apart("csv", read_readings, text):
        if not run.started_at <= row.at <= end:
            raise OutOfRange(
                f"line {row.line}, time: this run went from {run.started_at.isoformat()} to {end.isoformat()}",
                path=f"line {row.line}.time",
                got=row.at.isoformat(),
            )
        payload = {row.subject: row.number, "degc": row.degc, "method": row.method}
        mark = _mark(run_id, row.at, (row.subject, row.number, row.degc, row.method))
        if mark not in known:
            known.add(mark)
            news.append((row.line, NewEvent(mark, "reading", payload, actor, device, row.at, EVENT_SCHEMA)))
    if news:
        _add_all(runs, run_id, news)
    return len(news)


Read = tuple[str, int, float, str]


def _read(event: Noted) -> Read | None:
    """Of what, its number, temperature [degC] and method, where it is a reading."""
    match event.told.body if isinstance(event.told, Event) else None:
        case ReadOfPot(number, degc, method):
            return "cook", number, degc, method
        case ReadOfRound(number, degc, method):
            return "round", number, degc, method
        case ReadOfBatch(number, degc, method):
            return "batch", number, degc, method
    return None


def _mark(run_id: str, at: datetime, read: Read) -> str:
    """The same for a reading and for its line in a file, whichever was first."""
    subject, number, degc, method = read
    same = (run_id, at.isoformat(), subject, number, f"{degc:.2f}", method)
    return f"csv-{hashlib.sha256(repr(same).encode()).hexdigest()[:32]}"


def _add_all(runs: RunService, run_id: str, news: list[tuple[int, NewEvent]]) -> None:
    try:
        runs.add_all(run_id, [event for _, event in news])
    except CoreError:
        # the whole does not fit: say which line is the first that does not fit by itself
        for line, event in news:
            runs.try_event(run_id, event, f"line {line}")
        raise
