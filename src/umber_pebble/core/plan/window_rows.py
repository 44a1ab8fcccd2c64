"""When to pour, work and unmould, in rows for the eye: each vessel from off the heat, each cast from its pour."""

from collections.abc import Callable, Hashable, Iterable
from dataclasses import dataclass, replace
from typing import Literal, TypeVar, get_args

from umber_pebble.core.explained import Explained, explained, given
from umber_pebble.core.families.family import Rows
from umber_pebble.core.families.known import family_of
from umber_pebble.core.heat.bands import Band, Use, cast_bands, pot_bands
from umber_pebble.core.heat.windows import PieceWindows
from umber_pebble.core.plan.compile import Plan
from umber_pebble.core.plan.cooks import PotCook, Round, casts_in_window, path_of
from umber_pebble.core.plan.problem import Named
from umber_pebble.core.plan.remarks import EasilyLost
from umber_pebble.core.plan.tasks import Work
from umber_pebble.core.spread import Spread


@dataclass(frozen=True, slots=True)
class Marks:
    """The temperatures of a vessel's window: off the heat, pour from and to, and its glass transition, of fat None [degC]."""

    end_degc: float
    opens_degc: float
    closes_degc: float
    glass_degc: float | None


@dataclass(frozen=True, slots=True)
class PotRow:
    """A vessel's pour window [s from off the heat], how many castings one person fills in it, each in so many seconds; of which
    melt, its key, name and colour, and its temperatures; named: for which of its pours, where others may be poured longer or less
    long."""

    cook: int
    named: tuple[Named, ...]
    melt: str
    name: str
    colour: str | None
    marks: Marks
    wording: Rows
    opens: Explained
    closes: Explained
    capacity: Explained
    each_s: float
    bands: tuple[Band, ...]


CastMark = Literal[
    "bend_opens",
    "bend_closes",
    "brittle",
    "holds",
    "stick_closes",
    "groove_opens",
    "groove_closes",
    "comb_opens",
    "comb_closes",
    "cutter_closes",
    "still",
    "touch",
    "unmould",
    "over_chilled",
]
"""What is told of a cast, where it has a mark for it."""


@dataclass(frozen=True, slots=True)
class CastWindows:
    """When what may be done with a cast [s from its pour]; what it has no mark for is None. holds, cool_to_hold: it keeps its shape by
    itself, it is no longer hot to hold."""

    bend_opens: Explained | None
    bend_closes: Explained | None
    brittle: Explained | None
    holds: Explained | None
    stick_closes: Explained | None
    groove_opens: Explained | None
    groove_closes: Explained | None
    comb_opens: Explained | None
    comb_closes: Explained | None
    cutter_closes: Explained | None
    still: Explained | None
    touch: Explained | None
    unmould: Explained | None
    over_chilled: Explained | None
    cool_to_hold: Explained


@dataclass(frozen=True, slots=True)
class CastRow:
    """A round of castings: what, how many, of which melt, where it sets; whether it joins, and until when it is then held; what
    hands do with it while it is soft; its windows; never: those it does not reach within the horizon; next_pass: from when it takes
    the one after it, None where it is the last."""

    round: int
    named: Named
    casts: int
    wording: Rows
    sets_in_id: str
    held: Explained | None
    works: tuple[Work, ...]
    windows: CastWindows
    never: tuple[CastMark, ...]
    next_pass: Explained | None
    bands: tuple[Band, ...]


@dataclass(frozen=True, slots=True)
class WindowRows:
    """All that differ, once each: vessels, and casts; lost: what comes too late to a piece on more than one day in a hundred."""

    pots: tuple[PotRow, ...]
    casts: tuple[CastRow, ...]
    lost: tuple[EasilyLost, ...]


T = TypeVar("T")

WHAT = {
    "bend_opens": "from the pour until its hottest place is stiff enough to hold a bend",
    "bend_closes": "from the pour until its coldest place is too stiff to bend",
    "brittle": "from the pour until it snaps when bent",
    "holds": "from the pour until it keeps its shape by itself",
    "stick_closes": "from the pour until its first layer is too stiff to take a stick",
    "groove_opens": "from the pour until its back is leathery and takes a groove",
    "groove_closes": "from the pour until its back crumbles when it is grooved",
    "comb_opens": "from the pour until it no longer runs together behind a comb or cutter",
    "comb_closes": "from the pour until it crumbles under a comb",
    "cutter_closes": "from the pour until it is too firm for a cutter",
    "still": "from the pour until nothing in it moves any more",
    "touch": "from the pour until it may be touched",
    "over_chilled": "from the pour until its coldest place is so cold that it may crack",
    "cool_to_hold": "from the pour until no place is hot to hold",
}
UNMOULD: dict[Rows, str] = {
    "sugar": "from the pour until its hottest place is glass",
    "fat": "from the pour until all of it has set and is cold enough to let go of the mould",
}
SCIENCE: dict[Rows, str] = {"sugar": "williams-landel-ferry-1955", "fat": "avrami-1939"}
REACHED_AT: dict[Rows, str] = {"sugar": "degC", "fat": "frac"}
OF_ITSELF: dict[Rows, str] = {"sugar": "the water this cook leaves", "fat": "how fast the fat sets"}
SAME_S, SAME_KG = 1, 5
"""What differs by less than a tenth of a second, or a hundredth of a gram, is the same row [digits]."""


def window_rows(plan: Plan) -> WindowRows:
    """A plan's windows, what is the same once. Source: definition"""
    keys = {id(way): key for key, way in plan.problem.ways.items()}
    pots = _once(plan.cooks, lambda c: (keys[id(c.way)], c.casts, round(c.charge_kg, SAME_KG)))
    lying = (r for r in plan.rounds if plan.problem.lines[r.line].cast_on)
    casts = _once(lying, lambda r: (r.line, round(plan.windows[r.number].at["unmould"].likely, SAME_S)))
    return WindowRows(
        tuple(_pot(plan, one, keys[id(one.way)], lines) for c in pots for one, lines in _apart(c)),
        tuple(_cast(plan, r, plan.windows[r.number]) for r in casts),
        plan.fares.lost,
    )


def _once(rows: Iterable[T], key: Callable[[T], Hashable]) -> list[T]:
    known: dict[Hashable, T] = {}
    for row in rows:
        known.setdefault(key(row), row)
    return list(known.values())


def _apart(c: PotCook) -> list[tuple[PotCook, tuple[int, ...]]]:
    """A cook for each window that its lines have, with those lines; the cook itself and none where all have the same."""
    by: dict[tuple[float, float], list[int]] = {}
    for line, (_, window) in c.pours.items():
        opens, closes = round(window.opens.likely, SAME_S), round(window.closes.likely, SAME_S)
        by.setdefault((opens, closes), []).append(line)
    if len(by) == 1:
        return [(c, ())]
    return [(replace(c, pours={line: c.pours[line] for line in lines}), tuple(lines)) for lines in by.values()]


def _pot(plan: Plan, c: PotCook, melt: str, lines: tuple[int, ...]) -> PotRow:
    w, pot, by, each_s = c.window, c.way.rests, c.way.by, plan.problem.paces.pour_each_s
    inputs = (
        given("melt", c.charge_kg, "kg"),
        given("pot", pot.mass_kg, "kg"),
        given("pot diameter", pot.diameter_m, "m"),
        given("depth", w.depth_m, "m"),
        given("room", pot.air_degc, "degC"),
        *([given("kept at", pot.below_degc, "degC")] if c.way.kept else []),
        given("loss against the model", pot.loss_factor, "frac"),
    )
    capacity = explained(
        casts_in_window(w, each_s),
        "count",
        "width of the pour window / seconds a cavity",
        given("window", w.width, "s"),
        given("a cavity", each_s, "s"),
        sources=("definition",),
        limited_by=w.limited_by,
    )
    rows = family_of(c.way.melt).rows
    glass = None if c.flow.tg is None else c.flow.tg.likely
    return PotRow(
        c.number,
        tuple(dict.fromkeys(plan.problem.lines[i].named for i in lines)),
        melt,
        c.way.melt.name,
        c.way.colour,
        Marks(c.way.end_degc, w.open_degc.likely, w.close_degc.likely, glass),
        rows,
        by.opens_told(c, inputs),
        by.closes_told(c, inputs),
        capacity,
        each_s,
        pot_bands(w.opens, w.closes, c.flow.tg is not None),
    )


def _by_itself(rows: Rows, name: str, w: PieceWindows) -> bool:
    """Whether the material decides a window, not what the heat does."""
    return {"sugar": _mostly(w.by_material[name], w.at[name]), "fat": w.limited_by[name] == "setting"}[rows]


def _mostly(part: Spread, whole: Spread) -> bool:
    return 2 * (part.high - part.low) > whole.high - whole.low


def _cast(plan: Plan, r: Round, w: PieceWindows) -> CastRow:
    line = plan.problem.lines[r.line]
    way = plan.problem.way(line)
    place, family = path_of(plan.problem, line, r.casts)[-1].place, family_of(way.melt)
    rows, ends = family.rows, family.ends
    shared = (
        given("depth", line.fill_m, "m"),
        given("mould wall", line.mould.wall_m, "m"),
        given("surface under the mould", place.surface_degc, "degC"),
        given("air", place.air_degc, "degC"),
    )

    def window(name: str) -> Explained:
        what = UNMOULD[rows] if name == "unmould" else WHAT[name]
        limit = "degC" if name == "over_chilled" else REACHED_AT[rows]
        inputs = [given("reached at", w.limits[name], limit)] if name in w.limits else []
        if "unmould_degc" in w.limits and name == "unmould":
            inputs.append(given("and colder than", w.limits["unmould_degc"], "degC"))
        why = OF_ITSELF[rows] if _by_itself(rows, name, w) else "heat to mould and air"
        sources = (SCIENCE[rows], "patankar-1980", "definition")
        return explained(w.at[name], "s", what, *inputs, *shared, sources=sources, limited_by=why)

    cool = explained(
        w.cool_to_hold,
        "s",
        WHAT["cool_to_hold"],
        *shared,
        sources=("iso-13732-1", "patankar-1980"),
        limited_by="heat to mould and air",
    )
    told: tuple[CastMark, ...] = get_args(CastMark)
    never = frozenset(name for name in w.at if w.never(name))
    return CastRow(
        r.number,
        line.named,
        r.casts,
        rows,
        way.sets_in_id,
        window(ends.held_until) if line.joins else None,
        tuple(of.kind for of in line.works),
        CastWindows(**{name: window(name) if name in w.at else None for name in told}, cool_to_hold=cool),
        tuple(name for name in told if name in never),
        None if line.last else window(ends.bears_next),
        cast_bands(
            w.at,
            never,
            ends.held_until,
            Use(tuple(of.kind for of in line.works), line.last, line.released, line.joins),
        ),
    )
