"""Events of batches that are held: decanted, moved, warmed, read, used, merged, coloured, thrown away."""

from typing import Any

from umber_pebble.core.bench.payload import finite, number, one_line, optional, refuse
from umber_pebble.core.bench.state import BatchState, CookState, Event, Reading, RunState
from umber_pebble.core.errors import Missing, OutOfRange
from umber_pebble.core.materials.load import materials

SPOTS = ("air", "towel", "bath", "counter", "hand")
MOST_BATCHES, MOST_AT_ONCE = 60, 12
RESCUE_S = 1.0, 60.0
TIP_M = 0.0005, 0.02


def batch(state: RunState, event: Event) -> BatchState:
    """The batch an event is about, which must still be there [index].

    Raises: OutOfRange, NotInSequence.
    Source: definition
    """
    found = state.batches[number(event, "batch", len(state.batches))]
    if found.gone_s is not None:
        raise refuse("this batch is gone", "batch_gone", batch=found.number)
    return found


def decanted(state: RunState, event: Event) -> None:
    """Parts of a resting cook or of a batch into vessels of their own [kg].

    Raises: OutOfRange, Missing, NotInSequence.
    Source: definition
    """
    rows = event.payload.get("into")
    if not isinstance(rows, list) or not 1 <= len(rows) <= MOST_AT_ONCE:
        raise OutOfRange("say into what", path="payload.into", got=None, limits={"low": 1, "high": MOST_AT_ONCE})
    if len(state.batches) + len(rows) > MOST_BATCHES:
        raise OutOfRange(
            "too many batches in one run",
            path="payload.into",
            got=len(state.batches),
            limits={"high": MOST_BATCHES},
        )
    parent = batch(state, event) if "batch" in event.payload else None
    cook = state.cooks[parent.cook if parent else number(event, "cook", len(state.cooks))]
    if parent is None and cook.phase != "resting":
        raise refuse("only what is off the heat is decanted", "not_resting", cook=cook.number)
    made = [_made(state, cook, parent, event, row, i) for i, row in enumerate(rows)]
    taken = sum(b.kg for b in made)
    if parent is not None:
        if taken > parent.left_kg + 1e-9:
            raise OutOfRange("more than is in it", path="payload.into", got=taken, limits={"high": parent.left_kg})
        parent.used.append((event.at_s, taken))
    else:
        cook.rests[-1].taken.append((event.at_s, taken))
    state.batches += made


def _made(
    state: RunState, cook: CookState, parent: BatchState | None, event: Event, row: Any, i: int
) -> BatchState:
    path = f"payload.into.{i}"
    if not isinstance(row, dict):
        raise Missing("say what it is held in, and how much", path=path)
    name, holder, spot = row.get("name"), row.get("holder"), row.get("spot")
    name = one_line(name, f"{path}.name", 40)
    if holder not in (holders := list(materials("kitchen", "holder"))):
        raise OutOfRange("held in what?", path=f"{path}.holder", got=str(holder), limits={"one_of": holders})
    if spot not in SPOTS:
        raise OutOfRange("kept where?", path=f"{path}.spot", got=str(spot), limits={"one_of": list(SPOTS)})
    kg = finite(row.get("kg"), f"{path}.kg", 0.002, 20.0)
    tip = row.get("tip_m")
    return BatchState(
        len(state.batches) + i, cook.number, None if parent is None else parent.number, name, holder, kg, event.at_s,
        None if tip is None else finite(tip, f"{path}.tip_m", *TIP_M), colour_of(row.get("colour"), f"{path}.colour"),
        [(event.at_s, spot)],
    )  # fmt: skip


def colour_of(value: Any, path: str) -> str | None:
    """A colour as "#rrggbb", or None [hex].

    Raises: OutOfRange.
    Source: definition
    """
    if value is None:
        return None
    digits = value[1:] if isinstance(value, str) else ""
    if (
        not isinstance(value, str)
        or value[:1] != "#"
        or len(digits) != 6
        or not set(digits) <= set("0123456789abcdef")
    ):
        raise OutOfRange("a colour is written #rrggbb", path=path, got=str(value)[:20])
    return value


def moved(state: RunState, event: Event) -> None:
    """To another spot. Raises: OutOfRange, NotInSequence. Source: definition"""
    spot = event.payload.get("spot")
    if spot not in SPOTS:
        raise OutOfRange("kept where?", path="payload.spot", got=str(spot), limits={"one_of": list(SPOTS)})
    batch(state, event).spots.append((event.at_s, spot))


def warmed(state: RunState, event: Event) -> None:
    """Seconds in the microwave [s]. Raises: OutOfRange, NotInSequence. Source: definition"""
    batch(state, event).warmed.append(
        (event.at_s, finite(event.payload.get("seconds"), "payload.seconds", *RESCUE_S))
    )


def read(state: RunState, event: Event, reading: Reading) -> None:
    """A reading of a batch. Raises: OutOfRange, NotInSequence. Source: definition"""
    batch(state, event).readings.append(reading)


def used(state: RunState, event: Event) -> None:
    """Poured or piped out of it [kg]; nothing said: all that is left. Raises: OutOfRange. Source: definition"""
    of = batch(state, event)
    kg = optional(event, "kg", 0.0, of.left_kg)
    of.used.append((event.at_s, of.left_kg if kg is None else kg))
    if of.left_kg < 1e-6:
        of.gone_s = event.at_s


def merged(state: RunState, event: Event) -> None:
    """All of a batch back into its cook, or into another of the same melt [kg].

    Raises: OutOfRange, NotInSequence.
    Source: common-practice
    """
    of = batch(state, event)
    kg = of.left_kg
    if "into" in event.payload:
        into = state.batches[number(event, "into", len(state.batches))]
        if into is of or into.gone_s is not None or state.vessel(into.cook) != state.vessel(of.cook):
            raise refuse("only into another batch of the same melt", "other_melt", batch=into.number)
        into.used.append((event.at_s, -kg))
    else:
        state.cooks[of.cook].rests[-1].taken.append((event.at_s, -kg))
    of.used.append((event.at_s, kg))
    of.gone_s = event.at_s


def coloured(state: RunState, event: Event) -> None:
    """A colour stirred into a batch [hex]. Raises: OutOfRange, NotInSequence. Source: common-practice"""
    kind = event.payload.get("kind")
    of = batch(state, event)
    sugar = state.layout.sugars[next(r.line for r in state.rounds if r.cook == of.cook)]
    if kind == "water" and not sugar:
        raise OutOfRange(
            "water-based colour seizes a fat: use an oil-based or powdered one", path="payload.kind", got=kind,
            limits={"one_of": ["oil", "powder"]},
        )  # fmt: skip
    if kind == "oil" and sugar:
        raise OutOfRange(
            "oil-based colour does not mix with sugar: use a water-based one", path="payload.kind", got=kind,
            limits={"one_of": ["water", "powder"]},
        )  # fmt: skip
    of.colour = colour_of(event.payload.get("colour"), "payload.colour")


def thrown(state: RunState, event: Event) -> None:
    """Thrown away. Raises: OutOfRange, NotInSequence. Source: definition"""
    batch(state, event).gone_s = event.at_s
