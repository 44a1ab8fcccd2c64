"""An order compiled: every number of the plan, each with its explanation."""

import math
from dataclasses import dataclass
from typing import Any

from umber_pebble.core.errors import Missing, OutOfRange, require_range
from umber_pebble.core.explained import Explained, explained, given
from umber_pebble.core.heat.piece import PieceWindows, never
from umber_pebble.core.humidity.stickiness import sticky_from_frac
from umber_pebble.core.pieces.cast import CastAmounts
from umber_pebble.core.plan.cooks import (
    PotCook,
    Round,
    bends_in_window,
    casts_in_window,
    line_amounts,
    make_cooks,
    make_rounds,
    round_windows,
)
from umber_pebble.core.plan.problem import Line, PlanInput
from umber_pebble.core.plan.spares import casts_needed, chance_enough_frac
from umber_pebble.core.plan.timetable import Task, back_from, forward
from umber_pebble.core.spread import Spread, combine


@dataclass(frozen=True, slots=True)
class Remark:
    """Something the plan has to say: code, where, and the figures in it (SI)."""

    code: str
    path: str
    params: dict[str, Any]


@dataclass(frozen=True, slots=True)
class LinePlan:
    """One line: castings to make and one casting's grams."""

    name: str
    quantity: int
    casts: Explained
    amount: CastAmounts
    rounds: int


@dataclass(frozen=True, slots=True)
class RoundPlan:
    """One round's windows from its pour [s]."""

    round: Round
    bend: bool
    bend_opens: Explained
    bend_closes: Explained
    brittle: Explained
    unmould: Explained
    cool_to_hold: Explained


@dataclass(frozen=True, slots=True)
class CookPlan:
    """One cook's numbers, with the engine's own objects behind them."""

    cook: PotCook
    poured: Explained
    reserve: Explained
    residue: Explained
    charge: Explained
    fresh: Explained
    water: Explained
    water_left: Explained
    hob: Explained
    opens: Explained
    closes: Explained
    capacity: Explained


@dataclass(frozen=True, slots=True)
class Plan:
    """The compiled order. Times of tasks are from now [s]."""

    lines: tuple[LinePlan, ...]
    cooks: tuple[CookPlan, ...]
    rounds: tuple[RoundPlan, ...]
    tasks: tuple[Task, ...]
    casts: Explained
    cook_count: Explained
    poured: Explained
    scraped: Explained
    left: Explained
    finished: Explained
    melt: Explained
    start: Explained
    warnings: tuple[Remark, ...]
    windows: dict[int, PieceWindows]


def _line(line: Line, amount: CastAmounts, confidence: float, casts: int, rounds: int) -> LinePlan:
    rate = line.break_rate
    number = explained(
        casts,
        "count",
        "the fewest castings of which the quantity is usable with the stated confidence (beta-binomial)",
        given("quantity", line.quantity, "count"),
        given("confidence", confidence, "frac"),
        given("break rate", rate.mean_frac, "frac"),
        given("seen: usable", rate.good, "count"),
        given("seen: unusable", rate.broken, "count"),
        given("chance with this many", chance_enough_frac(casts, line.quantity, rate), "frac"),
        sources=("beta-binomial", "calibration" if rate.good + rate.broken else "assumption"),
        limited_by="" if rate.good + rate.broken else "no outcomes of this mould yet: prior 1 in 20",
    )
    return LinePlan(line.name, line.quantity, number, amount, rounds)


def _round(plan: PlanInput, r: Round, w: PieceWindows, depth_m: float) -> RoundPlan:
    shared = (
        given("depth", depth_m, "m"),
        given("mould wall", plan.lines[r.line].mould.wall_m, "m"),
        given("surface under the mould", plan.place.surface_degc, "degC"),
        given("room", plan.place.air_degc, "degC"),
    )

    def window(value: Spread, what: str, prop: str) -> Explained:
        return explained(
            value,
            "s",
            what,
            given("reached at", w.limits_degc[prop], "degC"),
            given("log10 viscosity", plan.melt.spread(prop), "log10 Pa s"),
            *shared,
            sources=("williams-landel-ferry-1955", "patankar-1980", "definition"),
            limited_by="the water this cook leaves"
            if _by_glass(value, w.by_glass[prop])
            else "heat to mould and air",
        )

    return RoundPlan(
        r,
        plan.lines[r.line].bend,
        window(
            w.bend_opens,
            "from the pour until its hottest place is stiff enough to hold a bend",
            "log_bend_open",
        ),
        window(w.bend_closes, "from the pour until its coldest place is too stiff to bend", "log_bend_close"),
        window(w.brittle, "from the pour until it snaps when bent", "log_brittle"),
        window(w.unmould, "from the pour until its hottest place is glass", "log_unmould"),
        explained(
            w.cool_to_hold,
            "s",
            "from the pour until no place is hot to hold",
            *shared,
            sources=("iso-13732-1", "patankar-1980"),
            limited_by="heat to mould and air",
        ),
    )


def _by_glass(whole: Spread, glass: Spread) -> bool:
    return 2 * (glass.high - glass.low) > whole.high - whole.low


def _cook(plan: PlanInput, c: PotCook, carried_kg: float) -> CookPlan:
    w, pot = c.window, plan.pot
    pot_inputs = (
        given("melt", c.charge_kg, "kg"),
        given("pot", pot.mass_kg, "kg"),
        given("pot diameter", pot.diameter_m, "m"),
        given("depth", w.depth_m, "m"),
        given("room", pot.air_degc, "degC"),
        given("loss against the model", pot.loss_factor, "frac"),
    )
    return CookPlan(
        c,
        poured=explained(
            c.poured_kg, "kg", "castings of this cook x poured a casting", given("castings", c.casts, "count"),
            sources=("geometry", "from-memory"),
        ),
        reserve=explained(
            c.reserve_kg, "kg", "a share of what is poured, beyond spares and what the pot keeps",
            given("poured", c.poured_kg, "kg"), given("share", plan.reserve_frac, "frac"), sources=("common-practice",),
        ),
        residue=explained(
            c.residue_kg, "kg", "film left on wall and floor after draining x what this pot was seen to keep of it",
            given("pot diameter", pot.diameter_m, "m"), given("depth", w.depth_m, "m"),
            given("drained for", plan.melt.spread("drain"), "s"),
            given("kept against the film", plan.residue_factor, "frac"), sources=("jeffreys-1930", "assumption"),
        ),
        charge=explained(
            combine(c.charge_kg, [[c.charge_kg - c.residue_kg.likely + r for r in (c.residue_kg.low, c.residue_kg.high)]]),
            "kg", "poured + reserve + what stays in the pot",
            given("poured", c.poured_kg, "kg"), given("reserve", c.reserve_kg, "kg"),
            given("stays in the pot", c.residue_kg, "kg"), sources=("jeffreys-1930", "common-practice"),
        ),
        fresh=explained(
            c.fresh_kg, "kg", "charge less what the cook before left in the pot",
            given("charge", c.charge_kg, "kg"), given("from the cook before", carried_kg, "kg"),
        ),
        water=explained(
            c.water_kg, "kg",
            "a tenth of the isomalt added, since the cook is large" if c.wet else "none: a small cook is melted dry",
            given("isomalt added", c.fresh_kg, "kg"), given("share", plan.melt.value("water_added"), "frac"),
            given("large from", plan.melt.value("large_cook"), "kg"), sources=("common-practice",),
        ),
        water_left=explained(
            c.water_left, "frac",
            "boiling table at the cook temperature and altitude" if c.wet else "a dry melt's own value, widely spread",
            given("cooked to", plan.cook.cook_degc, "degC"), given("altitude", plan.altitude_m, "m"),
            given("glass transition", c.cook.tg, "degC"),
            sources=("sugar-boiling-table", "gordon-taylor-1952") if c.wet else ("assumption", "gordon-taylor-1952"),
        ),
        hob=explained(
            c.hob, "s", "heat for sugar, melting, water, what boils off and the pot, over the ring's power less the loss",
            given("ring", plan.ring.power_w, "W"), given("share that arrives", plan.ring.efficiency, "frac"),
            given("melt", c.charge_kg, "kg"), given("water", c.water_kg, "kg"), given("pot", pot.mass_kg, "kg"),
            sources=("incropera-2007", "cammenga-zielasko-1996", "from-memory"), limited_by="the ring's power",
        ),
        opens=explained(
            w.opens, "s", "off the heat until it no longer boils, the bubbles have risen and the mould bears it",
            given("at", w.open_degc, "degC"), *pot_inputs,
            given("bubble radius", plan.melt.value("bubble_radius"), "m"),
            sources=("stokes-1851", "hadamard-rybczynski-1911", "incropera-2007"), limited_by=w.limited_by,
        ),
        closes=explained(
            w.closes, "s", "off the heat until it is too thick to pour",
            given("at", w.close_degc, "degC"), given("water left", c.water_left, "frac"), *pot_inputs,
            sources=("williams-landel-ferry-1955", "gordon-taylor-1952", "incropera-2007"),
            limited_by="the water this cook leaves",
        ),
        capacity=explained(
            casts_in_window(w, plan.paces.pour_each_s), "count", "width of the pour window / seconds a cavity",
            given("window", w.width, "s"), given("a cavity", plan.paces.pour_each_s, "s"),
            sources=("definition",), limited_by=w.limited_by,
        ),
    )  # fmt: skip


def _totals(plan: PlanInput, cooks: list[PotCook]) -> dict[str, Explained]:
    density = plan.melt.spread("density_melt")
    ratio = Spread(density.low / density.likely, 1.0, density.high / density.likely)
    poured, finished = sum(c.poured_kg for c in cooks), sum(c.finished_kg for c in cooks)
    fresh, left = sum(c.fresh_kg for c in cooks), cooks[-1].charge_kg - cooks[-1].finished_kg
    rounds = sum(len(c.rounds) for c in cooks)
    return {
        "casts": explained(
            sum(c.casts for c in cooks), "count", "castings of all lines, spares with them",
            *(given(line.name, line.quantity, "count") for line in plan.lines), sources=("beta-binomial",),
        ),
        "cook_count": explained(
            len(cooks), "count", "each mould is filled once a cook, no more castings than the likely pour window takes",
            given("rounds", rounds, "count"), given("a cavity", plan.paces.pour_each_s, "s"),
            *(given(f"moulds for {line.name}", line.mould.owned, "count") for line in plan.lines),
            sources=("definition",),
        ),
        "poured": explained(
            ratio.times(poured), "kg", "castings x poured a casting, spares with them",
            given("castings", sum(c.casts for c in cooks), "count"), sources=("geometry", "from-memory"),
        ),
        "finished": explained(
            ratio.times(finished), "kg", "castings x finished a casting",
            given("castings", sum(c.casts for c in cooks), "count"), sources=("geometry", "from-memory"),
        ),
        "scraped": explained(
            poured - finished, "kg", "poured - finished: goes back into the pot",
            given("poured", poured, "kg"), given("finished", finished, "kg"), sources=("assumption",),
        ),
        "left": explained(
            combine(left, [[max(left + r - cooks[-1].residue_kg.likely, 0.0)
                            for r in (cooks[-1].residue_kg.low, cooks[-1].residue_kg.high)]]),
            "kg", "in the pot and on tools after the last pour: film on the pot, reserve, what was scraped off",
            given("film on the pot", cooks[-1].residue_kg, "kg"), given("reserve", cooks[-1].reserve_kg, "kg"),
            given("scraped", cooks[-1].scraped_kg, "kg"), sources=("jeffreys-1930", "assumption"),
        ),
        "melt": explained(
            fresh, "kg", "isomalt to weigh out over all cooks; each goes on with what the one before left",
            given("cooks", len(cooks), "count"), given("finished", finished, "kg"), given("left at the end", left, "kg"),
            sources=("jeffreys-1930", "common-practice"),
        ),
    }  # fmt: skip


def _warnings(
    plan: PlanInput, cooks: list[PotCook], windows: dict[int, PieceWindows], start_s: float
) -> list[Remark]:
    out = []
    if plan.due_s <= 0:
        out.append(Remark("due_in_past", "due_at", {"late_s": -plan.due_s}))
    elif start_s < 0:
        out.append(Remark("too_late", "due_at", {"needs_s": plan.due_s - start_s, "has_s": plan.due_s}))
    for c in cooks:
        if c.window.width.likely <= 0:
            out.append(Remark("window_never", "pot", {"cook": c.number, "depth_m": c.window.depth_m}))
        elif c.casts * plan.paces.pour_each_s > c.window.width.low:
            out.append(Remark("window_narrow", "pot", {"cook": c.number, "low_s": c.window.width.low}))
        fullest = plan.pot.height_m / 2
        if c.window.depth_m * (1 + c.water_kg / c.charge_kg) > fullest:
            out.append(Remark("pot_too_small", "pot", {"depth_m": c.window.depth_m, "high_m": fullest}))
        for r in c.rounds:
            line, w = plan.lines[r.line], windows[r.number]
            if never(w.unmould):
                out.append(Remark("never_sets", "cook", {"round": r.number}))
            if line.bend and r.casts > bends_in_window(w, plan.paces.pour_each_s, plan.paces.bend_each_s):
                out.append(Remark("bend_one_by_one", "lines", {"round": r.number}))
    sticky = sticky_from_frac(plan.melt, plan.room_degc)
    if plan.humidity_frac >= sticky.low:
        out.append(
            Remark("sticky_room", "humidity_frac", {"from_frac": sticky.low, "humidity_frac": plan.humidity_frac})
        )
    return _once(out)


def _once(warnings: list[Remark]) -> list[Remark]:
    seen: dict[str, Remark] = {}
    for w in warnings:
        seen.setdefault(w.code, w)
    return list(seen.values())


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
    per_cast = line_amounts(plan)
    casts = [casts_needed(line.quantity, plan.confidence_frac, line.break_rate) for line in plan.lines]
    cooks = make_cooks(plan, make_rounds(plan, casts, per_cast), per_cast)
    windows = round_windows(plan, cooks, per_cast)
    tasks = back_from(forward(plan, cooks, windows), plan.due_s)
    start = min(t.start_s for t in tasks)
    rounds = [r for c in cooks for r in c.rounds]
    carried = [0.0, *(c.charge_kg - c.finished_kg for c in cooks)]
    return Plan(
        lines=tuple(
            _line(line, amount, plan.confidence_frac, n, sum(r.line == i for r in rounds))
            for i, (line, amount, n) in enumerate(zip(plan.lines, per_cast, casts, strict=True))
        ),
        cooks=tuple(_cook(plan, c, kg) for c, kg in zip(cooks, carried, strict=False)),
        rounds=tuple(_round(plan, r, windows[r.number], plan.lines[r.line].fill_m) for r in rounds),
        tasks=tuple(tasks),
        **_totals(plan, cooks),
        start=explained(
            start, "s", "due time less the whole timetable: weigh, cook, rest, pour, set (its high end), unmould",
            given("due in", plan.due_s, "s"), given("timetable", plan.due_s - start, "s"), given("cooks", len(cooks), "count"),
            sources=("definition",),
        ),
        warnings=tuple(_warnings(plan, cooks, windows, start)),
        windows=windows,
    )  # fmt: skip


def _check(plan: PlanInput) -> None:
    require_range("reserve_frac", plan.reserve_frac, 0.0, 0.5)
    require_range("room_degc", plan.room_degc, 5.0, 45.0)
    require_range("humidity_frac", plan.humidity_frac, 0.0, 1.0)
    low, high = plan.melt.spread("cook_to").low - 18.0, plan.melt.value("browns")
    require_range("cook_degc", plan.cook.cook_degc, low, high)
    for name in ("weigh_s", "pour_each_s", "bend_each_s", "unmould_each_s"):
        require_range(f"paces.{name}", getattr(plan.paces, name), 1.0, 3600.0)
    for i, line in enumerate(plan.lines):
        require_range(f"lines.{i}.mould.cavities", line.mould.cavities, 1, 500)
        require_range(f"lines.{i}.mould.owned", line.mould.owned, 1, 50)
        if not math.isfinite(line.fill_m) or line.fill_m > line.mould.disc.depth_m:
            raise OutOfRange(
                "the fill stands above the rim",
                path=f"lines.{i}.fill_m",
                got=line.fill_m,
                limits={"low": 0.0002, "high": line.mould.disc.depth_m},
            )
