"""An order's timetable for the kitchen's wall."""

from collections.abc import Iterator, Mapping
from datetime import timedelta
from zoneinfo import ZoneInfo

from umber_pebble.core.plan.compile import Plan
from umber_pebble.core.plan.lanes import Lane, Span, lanes_of
from umber_pebble.formats import units as paper
from umber_pebble.formats.wall_lanes import PaperLane, PaperSpan, write_lanes
from umber_pebble.services.documents import Bath, Kitchen, Microwave, Palette, Place, Ring, Units, Vessel
from umber_pebble.services.exchange import TASKS, due_words, planned
from umber_pebble.services.workshop import Workshop


def timetable_list(workshop: Workshop, order_id: str) -> bytes:
    """An order's timetable as it is drawn, and what the hands do, as PDF.

    Raises: NotFound, and whatever keeps the plan from being made.
    """
    order, kitchen, units, plan = planned(workshop, order_id)
    now, zone, lanes = workshop.clock.now(), ZoneInfo(kitchen.zone), lanes_of(plan)
    colours = palette_names(workshop)

    def clock(at_s: float) -> str:
        return f"{(now + timedelta(seconds=at_s)).astimezone(zone):%H:%M}"

    tasks = [
        (clock(at_s), f"{lane.name} {done}".strip(), of)
        for lane in lanes
        if lane.kind == "hands"
        for at_s, done, of in hand_rows(lane, plan, colours)
    ]
    paper_lanes = [
        PaperLane(
            *_lane_called(lane, kitchen, units, colours),
            [
                PaperSpan(
                    span.start_s,
                    span.end_s.low,
                    span.end_s.high,
                    span.role,
                    TASKS[span.what].lower() if span.what else "",
                )
                for span in lane.spans
            ],
        )
        for lane in lanes
    ]
    return write_lanes(f"Timetable: {order.name}", due_words(order, kitchen), paper_lanes, tasks, clock)


def hand_rows(lane: Lane, plan: Plan, colours: Mapping[str, str]) -> Iterator[tuple[float, str, str]]:
    """What a pair of hands does: when [s], what, to what."""
    for span in lane.spans:
        if span.what is not None:
            yield span.start_s, TASKS[span.what].lower(), _of_what(span, plan, colours)


def _of_what(span: Span, plan: Plan, colours: Mapping[str, str]) -> str:
    if span.named is not None and span.into is None:
        return f"{span.count} x {span.named}" if span.count > 1 else str(span.named)
    cook = span.cook if span.into is None else span.into
    if cook is None:
        return ""
    way = plan.cooks[cook].way
    return melt_called(way.melt.name, way.colour, colours)


def palette_names(workshop: Workshop) -> dict[str, str]:
    """What colours are called in the workshop's palettes, by their hex."""
    return {
        colour.hex: colour.name
        for of in workshop.all("palette")
        if isinstance(of.doc, Palette)
        for colour in of.doc.colours
    }


def melt_called(name: str, colour: str | None, colours: Mapping[str, str]) -> str:
    """A melt by its colour's name, where it has one."""
    return name if colour is None else f"{colours.get(colour, colour)}, {name.lower()}"


def _lane_called(lane: Lane, kitchen: Kitchen, units: Units, colours: Mapping[str, str]) -> tuple[str, str]:
    """A lane's name, and a note under it."""
    things: list[Ring | Microwave | Bath | Vessel | Place] = [
        *kitchen.rings,
        *kitchen.microwaves,
        *kitchen.baths,
        *kitchen.vessels,
        *kitchen.places,
    ]
    own = next((thing.name for thing in things if thing.id == lane.id), "")
    match lane.kind:
        case "hands":
            return lane.name or "Hands", ""
        case "vessel":
            return melt_called(lane.name, lane.colour, colours), f"{paper.mass(lane.kg, units)}, {own.lower()}"
        case "mould":
            return lane.name, "" if lane.takes is None else f"{lane.takes} at once"
        case "place":
            return own, f"takes {lane.takes} moulds"
        case "heater":
            return own, ""
