"""What goes into the kitchen on paper before a day: what must be at hand, and what each person does, one after the other."""

from dataclasses import dataclass
from datetime import timedelta
from typing import Any
from zoneinfo import ZoneInfo

from umber_pebble.core.pieces.transfers import FilmCut
from umber_pebble.core.plan.compile import Plan
from umber_pebble.core.plan.lanes import lanes_of
from umber_pebble.core.plan.needs import BoughtNeed, Needs, needs_of
from umber_pebble.formats import units as paper
from umber_pebble.formats.wall import Block, write_list
from umber_pebble.services.colouring import PasteDose, paste_doses, plan_doses
from umber_pebble.services.documents import Bath, Kitchen, Microwave, Ring, Vessel
from umber_pebble.services.exchange import by_hand_rows, due_words, planned
from umber_pebble.services.timetable_list import hand_rows, melt_called, palette_names
from umber_pebble.services.workshop import Workshop


@dataclass(frozen=True, slots=True)
class ColourNeed:
    """So much of a colour at hand [kg], or so many drops of it, where either is known."""

    name: str
    kg: float | None
    drops: float | None


@dataclass(frozen=True, slots=True)
class AtHand:
    """What a day needs, its colours with it."""

    needs: Needs
    colours: tuple[ColourNeed, ...]
    pastes: tuple[PasteDose, ...]


def at_hand(workshop: Workshop, plan: Plan) -> AtHand:
    """What must be at hand for a plan."""
    with workshop.session() as session:
        pastes = paste_doses(session, plan)
        of_each = [of.doses for of in plan_doses(session, plan)] + [of.doses for of in pastes]
    doses = [dose for of in of_each for dose in of]
    colours: dict[str, ColourNeed] = {}
    for dose in doses:
        known = colours.get(dose.name, ColourNeed(dose.name, 0.0, 0.0))
        colours[dose.name] = ColourNeed(dose.name, _plus(known.kg, dose.add_kg), _plus(known.drops, dose.drops))
    return AtHand(needs_of(plan), tuple(colours.values()), tuple(pastes))


def _plus(known: float | None, more: float | None) -> float | None:
    return None if known is None or more is None else known + more


def prep_list(workshop: Workshop, order_id: str) -> bytes:
    """What must be at hand before a day begins, as PDF.

    Raises: NotFound, and whatever keeps the plan from being made.
    """
    order, kitchen, units, plan = planned(workshop, order_id)
    of, palettes = at_hand(workshop, plan), palette_names(workshop)
    needs = of.needs
    melts = [(paper.weighed(m.kg, units), melt_called(m.name, m.colour, palettes)) for m in needs.melts]
    melts += [(paper.weighed(p.fresh_kg, units), melt_called(p.name, p.colour, palettes)) for p in needs.pastes]
    colours = [
        (
            "to taste" if c.kg is None else paper.mass(c.kg, units),
            c.name,
            "" if c.drops is None else f"about {c.drops:.0f} drops",
        )
        for c in of.colours
    ]
    by_hand = by_hand_rows(needs.by_hand, units)
    ready = [(f"{m.count}", m.name, f"filled {m.fillings} times, dry each time") for m in needs.moulds]
    ready += [(f"{s.count}", "sticks", str(s.named)) for s in needs.sticks]
    ready += [(f"{f.count}", f.name, _cut_as(f.film, units)) for f in needs.films]
    ready += [(f"{b.count}", b.name, _bought_as(b, units)) for b in needs.bought]
    ready += [(f"{f.pots}", f.name, "" if f.status == "food" else "not food") for f in needs.finishes]
    ready += [("1", name, "clean and dry") for name in _names(kitchen, needs.vessels)]
    ready += [("1", name, "") for name in _names(kitchen, needs.heaters)]
    blocks = [
        Block("To weigh out in all", ("so much", "of"), melts),
        *([Block("Colours", ("so much", "of", "or"), colours)] if colours else []),
        *([Block("By hand", ("so much", "of", "mixed of"), by_hand)] if by_hand else []),
        Block("Put ready", ("so many", "of", "for"), ready),
    ]
    return write_list(f"At hand: {order.name}", due_words(order, kitchen), blocks)


def day_sheets(workshop: Workshop, order_id: str) -> bytes:
    """What each person does when, a page for each, as PDF.

    Raises: NotFound, and whatever keeps the plan from being made.
    """
    order, kitchen, _, plan = planned(workshop, order_id)
    now, zone, palettes = workshop.clock.now(), ZoneInfo(kitchen.zone), palette_names(workshop)
    blocks: list[Block] = []
    for lane in lanes_of(plan):
        if lane.kind != "hands":
            continue
        days: dict[str, list[tuple[str, ...]]] = {}
        for at_s, done, of in hand_rows(lane, plan, palettes):
            at = (now + timedelta(seconds=at_s)).astimezone(zone)
            days.setdefault(f"{at:%A %d %B}", []).append((f"{at:%H:%M}", done, of))
        for day, rows in days.items():
            blocks.append(
                Block(f"{lane.name}, {day}" if lane.name else day, ("at", "do", "of"), rows, new_page=bool(blocks))
            )
    return write_list(f"Day: {order.name}", due_words(order, kitchen), blocks)


def _bought_as(of: BoughtNeed, units: Any) -> str:
    cut = [f"each {paper.length(of.long_m, units)}"] if of.long_m else []
    return ", ".join([*cut, *([] if of.status == "food" else ["not eaten"])])


def _cut_as(film: FilmCut, units: Any) -> str:
    size = f"{paper.length(film.long_m, units)} by {paper.length(film.wide_m, units)}"
    return size if film.of.over == 1 else f"pieces of {size}, each over {film.of.over}"


def _names(kitchen: Kitchen, ids: tuple[str, ...]) -> list[str]:
    things: list[Vessel | Ring | Microwave | Bath] = [
        *kitchen.vessels,
        *kitchen.rings,
        *kitchen.microwaves,
        *kitchen.baths,
    ]
    return [thing.name for thing in things if thing.id in ids]
