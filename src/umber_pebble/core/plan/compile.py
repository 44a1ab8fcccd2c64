"""An order compiled: every number of the plan."""

from dataclasses import dataclass

from umber_pebble.core.errors import Missing, OutOfRange, require_range
from umber_pebble.core.explained import Explained, explained, given
from umber_pebble.core.families.known import family_of
from umber_pebble.core.heat.windows import PieceWindows
from umber_pebble.core.humidity.stickiness import sticky_from_frac
from umber_pebble.core.materials.load import Material
from umber_pebble.core.pieces.leaving import least_thickness_m
from umber_pebble.core.plan.cards import Card, pour_cards
from umber_pebble.core.plan.charge import holds_kg
from umber_pebble.core.plan.cooks import (
    PotCook,
    make_cooks,
    round_windows,
)
from umber_pebble.core.plan.explain import (
    CookPlan,
    LinePlan,
    MeltPlan,
    RoundPlan,
    cook_plan,
    line_plan,
    melt_plan,
    round_plan,
)
from umber_pebble.core.plan.fillings import ByHand, by_hand_amounts
from umber_pebble.core.plan.problem import HandStep, Line, PlanInput, Way
from umber_pebble.core.plan.remarks import (
    ChillsFirst,
    DueInPast,
    NeverSets,
    OneByOne,
    PotTooSmall,
    Remark,
    ShelfSmall,
    StickyRoom,
    ThinToLeave,
    TooLate,
    WindowNarrow,
    WindowNever,
    each_once,
)
from umber_pebble.core.plan.rounds import make_rounds, round_sizes, works_in_window
from umber_pebble.core.plan.spares import casts_needed
from umber_pebble.core.plan.timetable import Task, back_from, forward, most_at_once

THICK_ENOUGH_M = 0.02
"""Thicker than this nothing breaks as it leaves its mould."""


@dataclass(frozen=True, slots=True)
class Plan:
    """The compiled order. Times of tasks are from now [s]."""

    lines: tuple[LinePlan, ...]
    melts: tuple[MeltPlan, ...]
    cooks: tuple[CookPlan, ...]
    rounds: tuple[RoundPlan, ...]
    tasks: tuple[Task, ...]
    casts: Explained
    cook_count: Explained
    start: Explained
    warnings: tuple[Remark, ...]
    windows: dict[int, PieceWindows]
    cards: tuple[Card, ...]
    steps: tuple[HandStep, ...]
    by_hand: tuple[ByHand, ...]


def _warnings(
    plan: PlanInput, cooks: list[PotCook], windows: dict[int, PieceWindows], start_s: float
) -> list[Remark]:
    out = list[Remark]()
    if plan.due_s <= 0:
        out.append(DueInPast(-plan.due_s))
    elif start_s < 0:
        out.append(TooLate(plan.due_s - start_s, plan.due_s))
    for c in cooks:
        if c.window.width.likely <= 0:
            out.append(WindowNever(c.number, c.window.depth_m))
        elif sum(r.casts * plan.pour_each_s(plan.lines[r.line]) for r in c.rounds) > c.window.width.low:
            out.append(WindowNarrow(c.number, c.window.width.low))
        holds = holds_kg(c.way, c.wet)
        if c.charge_kg > holds:
            out.append(PotTooSmall(c.charge_kg, holds))
        for r in c.rounds:
            line, w = plan.lines[r.line], windows[r.number]
            if not line.last:
                if w.never(family_of(c.way.melt).ends.bears_next):
                    out.append(NeverSets(r.number))
            elif w.never("unmould"):
                out.append(NeverSets(r.number))
            elif "over_chilled" in w.at and w.at["over_chilled"].low < w.at["unmould"].high:
                out.append(ChillsFirst(r.number))
            thin = too_thin_to_leave(line, c.way.melt) if line.cast_off else None
            if thin is not None:
                out.append(ThinToLeave(r.number, line.cast.thickness.likely, thin))
            each = plan.work_each_s(line)
            if line.work and r.casts > works_in_window(w, line.work, plan.pour_each_s(line), each):
                out.append(OneByOne(r.number, line.work))
    for place, moulds in most_at_once(plan, cooks).items():
        if moulds > plan.shelves.get(place, moulds):
            out.append(ShelfSmall(place, moulds, plan.shelves[place]))
    return each_once(out + _damp(plan))


def too_thin_to_leave(line: Line, melt: Material) -> float | None:
    """The least thickness that leaves the mould whole, of a plain cast that is thinner [m]; None of any other.

    Args:
        line: its last pour
        melt: of it
    Source: timoshenko-woinowsky-1959, assumption
    """
    if line.after is not None or line.kind != "fill" or line.cast.thickness.likely >= THICK_ENOUGH_M:
        return None
    least = least_thickness_m(melt, min(line.mould.cavity.bounds_m()), line.mould.material).likely
    return least if line.cast.thickness.likely < least else None


def _damp(plan: PlanInput) -> list[Remark]:
    out = list[Remark]()
    for melt in (way.melt for way in plan.ways.values() if family_of(way.melt).hygroscopic):
        sticky = sticky_from_frac(melt, plan.room_degc)
        if plan.humidity_frac >= sticky.low:
            out.append(StickyRoom(plan.humidity_frac, sticky.low))
    return out


def compile_plan(plan: PlanInput) -> Plan:
    """The whole plan of an order [SI].

    Args:
        plan: what it rests on
    Raises:
        Missing: no line.
        OutOfRange: a quantity, level, temperature, pace or power outside its limits.
        MouldTooWeak: a mould does not bear the pour.
    Source: definition
    """
    if not plan.lines:
        raise Missing("add a line: a piece and how many", path="lines")
    _check(plan)
    # the passes of a part are as many as its last one needs
    lasts = [plan.lines[chain[-1]] for chain in plan.chains]
    # and of what is joined there is nothing to spare
    casts = [
        line.quantity if line.needs else casts_needed(line.quantity, plan.confidence_frac, line.break_rate)
        for line in lasts
    ]
    sizes = round_sizes(plan)
    cooks = make_cooks(plan, make_rounds(plan, casts, sizes))
    windows = round_windows(plan, cooks)
    tasks = back_from(forward(plan, cooks, windows), plan.due_s)
    start = min(t.start_s for t in tasks)
    rounds = [r for c in cooks for r in c.rounds]
    return Plan(
        lines=tuple(
            line_plan(line, plan.confidence_frac, n, sum(r.line == i for r in rounds), size.casts, size.limited_by)
            for i, (line, n, size) in enumerate(zip(plan.lines, casts, sizes, strict=True))
        ),
        melts=tuple(melt_plan(key, [c for c in cooks if c.way is way]) for key, way in plan.ways.items()),
        cooks=tuple(cook_plan(plan, c, c.charge_kg - c.fresh_kg) for c in cooks),
        rounds=tuple(round_plan(plan, r, windows[r.number]) for r in rounds),
        tasks=tuple(tasks),
        casts=explained(
            sum(r.casts for r in rounds if plan.lines[r.line].cast_off), "count", "castings of all lines, spares with them",
            *(given(line.name, line.quantity, "count") for line in plan.lines if line.cast_off), sources=("beta-binomial",),
        ),
        cook_count=explained(
            len(cooks), "count", "each mould is filled once a cook, no more castings than the likely pour window takes",
            given("rounds", len(rounds), "count"), given("a cavity", plan.paces.pour_each_s, "s"),
            *(given(f"moulds for {line.name}", line.mould.owned, "count") for line in plan.lines),
            sources=("definition",),
        ),
        start=explained(
            start, "s", "due time less the whole timetable: weigh, cook, rest, pour, set (its high end), unmould",
            given("due in", plan.due_s, "s"), given("timetable", plan.due_s - start, "s"), given("cooks", len(cooks), "count"),
            sources=("definition",),
        ),
        warnings=tuple(_warnings(plan, cooks, windows, start)),
        windows=windows,
        cards=tuple(pour_cards(plan, cooks, windows)),
        steps=plan.by_hand,
        by_hand=tuple(by_hand_amounts(plan, cooks)),
    )  # fmt: skip


def _check(plan: PlanInput) -> None:
    require_range("reserve_frac", plan.reserve_frac, 0.0, 0.5)
    require_range("room_degc", plan.room_degc, 5.0, 45.0)
    require_range("humidity_frac", plan.humidity_frac, 0.0, 1.0)
    for key, way in plan.ways.items():
        if not any(line.melt == key for line in plan.lines):
            raise OutOfRange("no line is of this material", path=f"ways.{key}", got=key)
        _check_way(way)
    for name in (
        "weigh_s",
        "pour_each_s",
        "bend_each_s",
        "stick_each_s",
        "fill_each_s",
        "stir_s",
        "unmould_each_s",
    ):
        require_range(f"paces.{name}", getattr(plan.paces, name), 1.0, 3600.0)
    for i, line in enumerate(plan.lines):
        require_range(f"lines.{i}.mould.cavities", line.mould.cavities, 1, 500)
        require_range(f"lines.{i}.mould.owned", line.mould.owned, 1, 50)


def _check_way(way: Way) -> None:
    by, path = way.by, f"ways.{family_of(way.melt).key}"
    by.check(way.melt, path)
    check_vessel(by.in_oven, by.on_ring, way.pot.metal, way.vessel_id, f"{path}.vessel_id", way.end_degc)


def check_vessel(in_oven: bool, on_ring: bool, wall: Material, vessel_id: str, path: str, degc: float) -> None:
    """A vessel that bears its heat: no metal in a microwave, nothing but metal on a ring, nothing hotter than it is made for.

    Args:
        in_oven, on_ring: in a microwave, on a ring, or neither
        wall: what the vessel is of
        vessel_id, path: for the error
        degc: of what is in it at its hottest
    Raises: OutOfRange.
    Source: common-practice, from-memory
    """
    bears = wall.value("bears")
    if not on_ring and degc > bears:
        raise OutOfRange(
            f"{wall.name.lower()} bears {bears:g} degC and this comes to {degc:.0f}: use a silicone cup or heat-proof glass",
            path=path, got=vessel_id, limits={"high": bears},
        )  # fmt: skip
    if in_oven and wall.flags["metal"]:
        said = "no metal in the microwave: use a bowl of silicone or heat-proof glass, or a ring or water bath"
        raise OutOfRange(said, path=path, got=vessel_id)
    if on_ring and not wall.flags["metal"]:
        raise OutOfRange(f"{wall.name} does not go on a ring: use a metal pot", path=path, got=vessel_id)
