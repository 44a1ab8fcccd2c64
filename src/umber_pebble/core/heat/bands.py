"""What the ribbon of a vessel or a cast shows: in which state it is, from when until when."""

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Literal

from umber_pebble.core.heat.works import WORKS
from umber_pebble.core.spread import Spread, exact

BandState = Literal[
    "heating",
    "ready",
    "browns",
    "overheats",
    "too_hot",
    "too_warm",
    "pour",
    "thickening",
    "stiff",
    "tempering",
    "flows",
    "soft",
    "release",
    "bend",
    "setting",
    "set",
    "hold",
    "holds",
    "firm",
    "fluid",
    "thickens",
    "touch",
    "unmould",
    "over_chilled",
    "stick",
    "next_pass",
    "film",
    "drag",
    "comb",
    "groove",
    "cut",
    "shape",
]
LEAST_S, BEYOND = 60.0, 1.15
"""How long a ribbon is at least, and how far it goes on after the last mark."""


@dataclass(frozen=True, slots=True)
class Band:
    """A stretch of a ribbon in one state; from and to with spread [s]."""

    state: BandState
    start: Spread
    end: Spread


@dataclass(frozen=True, slots=True)
class Use:
    """What is made of a cast: what hands still do with it while it is soft; whether it leaves its mould after it, cold or released warm to be
    bent; whether it joins two."""

    works: tuple[str, ...] = ()
    last: bool = True
    released: bool = False
    join: bool = False


def in_order(starts: list[tuple[BandState, Spread]], end: Spread) -> tuple[Band, ...]:
    """Bands one after another, the last one to the end [s]. Source: definition"""
    ends = [start for _, start in starts[1:]] + [end]
    return tuple(Band(state, start, until) for (state, start), until in zip(starts, ends, strict=True))


def pot_bands(opens: Spread, closes: Spread, glass: bool) -> tuple[Band, ...]:
    """The states of a vessel from off the heat [s]: too hot to pour, to be poured, thickening.

    Args:
        opens, closes: of its pour window
        glass: whether what is in it sets to a glass, and bubbles while it is too hot
    Source: definition
    """
    hot: BandState = "too_hot" if glass else "too_warm"
    return in_order([(hot, exact(0.0)), ("pour", opens), ("thickening", closes)], exact(BEYOND * closes.high))


def cast_bands(
    at: Mapping[str, Spread],
    never: frozenset[str],
    held_until: str,
    use: Use,
    poured_s: float = 0.0,
    end_s: float | None = None,
) -> tuple[Band, ...]:
    """The states of a cast from its pour [s].

    Args:
        at: its marks
        never: those that it does not reach
        held_until: until which mark a join is held
        use: what is made of it
        poured_s: when it was poured
        end_s: of the ribbon, None: beyond its last mark
    Source: definition
    """
    poured = exact(poured_s)
    if end_s is None:
        reached = [spread.high for name, spread in at.items() if name not in never]
        end_s = BEYOND * max([LEAST_S, *reached])
    starts: list[tuple[BandState, Spread]]
    if use.released:
        starts = [
            ("soft", poured),
            ("release", at["release_opens"]),
            ("bend", at["release_closes"]),
            ("stiff", at["bend_closes"]),
        ]
    elif use.join:
        starts = [("hold", poured), ("holds", at[held_until]), ("firm", at["unmould"])]
    elif "touch" in at:
        starts = _worked_bands(at, use, poured)
        starts.append(("unmould", at["unmould"]) if use.last else ("next_pass", at["touch"]))
        if use.last and "over_chilled" not in never:
            starts.append(("over_chilled", at["over_chilled"]))
    elif not use.last:
        starts = [("setting", poured), ("next_pass", at["holds"])]
    elif "bend" in use.works:
        starts = [
            ("soft", poured),
            ("bend", at["bend_opens"]),
            ("stiff", at["bend_closes"]),
            ("unmould", at["unmould"]),
        ]
    elif "stick" in use.works:
        starts = [("stick", poured), ("setting", at["stick_closes"]), ("unmould", at["unmould"])]
    else:
        starts = [("setting", poured), ("unmould", at["unmould"])]
    return in_order(starts, exact(end_s))


def _worked_bands(at: Mapping[str, Spread], use: Use, poured: Spread) -> list[tuple[BandState, Spread]]:
    """A fat from its pour until it has set: what hands do with it, one after another, each from when it takes that."""
    at_once: BandState = next((of for of in AT_ONCE if of in use.works), "fluid")
    later = [of for of in LATER if of in use.works]
    fluid_until = "comb_closes" if at_once == "drag" else "stick_closes"
    starts: list[tuple[BandState, Spread]] = [(at_once, poured)]
    if not later or at[WORKS[later[0]].opens or ""].likely > at[fluid_until].likely:
        starts.append(("thickens", at[fluid_until]))
    for of in later:
        # two that open at once come one after the other
        before = starts[-1][1]
        opens = at[WORKS[of].opens or ""]
        starts.append(
            (of, opens if opens.likely > before.likely else at[WORKS[later[later.index(of) - 1]].closes])
        )
    if later:
        starts.append(("set", at[WORKS[later[-1]].closes]))
    elif use.last:
        starts.append(("touch", at["touch"]))
    return starts


AT_ONCE: tuple[Literal["stick", "drag"], ...] = ("drag", "stick")
LATER: tuple[Literal["film", "comb", "cut", "shape", "groove"], ...] = ("film", "comb", "cut", "shape", "groove")
"""What hands do with a fat from its pour, and what it must be firmer for, in the order of their windows."""
