"""Rounds and cooks: what goes into the pot, and when it may be poured."""

import math
from dataclasses import dataclass

from umber_pebble.core.constants import GRAVITY_M_S2
from umber_pebble.core.errors import MouldTooWeak, OutOfRange, require_range
from umber_pebble.core.glass.viscosity import log_viscosity_wlf_1955, tg_spread_degc
from umber_pebble.core.glass.water import boils_at_degc, water_of_cook
from umber_pebble.core.heat.hob import Heating, hob_time_s
from umber_pebble.core.heat.piece import Casting, PieceWindows, Stay, windows_s
from umber_pebble.core.heat.pour import Cook, PourWindow, pour_window_s
from umber_pebble.core.heat.vessel import PotCase, base_case
from umber_pebble.core.pieces.cast import CastAmounts, amounts
from umber_pebble.core.plan.problem import Line, PlanInput
from umber_pebble.core.spread import Spread, combine

OFF_HEAT_SD_K = 2.0
MOST_ROUNDS = 400


@dataclass(frozen=True, slots=True)
class Round:
    """One filling of a line's mould: its number, line, cook, castings."""

    number: int
    line: int
    cook: int
    casts: int


@dataclass(frozen=True, slots=True)
class PotCook:
    """One cook: what is in the pot, what is added for it, and its windows."""

    number: int
    rounds: tuple[Round, ...]
    charge_kg: float
    fresh_kg: float
    poured_kg: float
    finished_kg: float
    scraped_kg: float
    reserve_kg: float
    residue_kg: Spread
    wet: bool
    water_kg: float
    water_left: Spread
    cook: Cook
    heating: Heating
    hob: Spread
    window: PourWindow

    @property
    def casts(self) -> int:
        return sum(r.casts for r in self.rounds)


def residue_kg(case: PotCase, log_visc: float, factor: Spread) -> Spread:
    """Melt that stays on the pot after draining, by the film on a drained wall and floor [kg].

    Mean film 2/3 sqrt(visc L / (rho g t)) on the wetted wall (L its height) and the tipped floor (L its width).
    Args:
        case: the pot and its melt
        log_visc: log10 of the viscosity when it is emptied [log10 Pa s]
        factor: what this pot was seen to keep against this film
    Source: jeffreys-1930, assumption
    """
    density, drain = case.melt.value("density_melt"), case.melt.spread("drain")
    width, height = case.pot.diameter_m, min(case.depth_m, case.pot.height_m)

    def kept(seconds: float, f: float) -> float:
        film = [2 / 3 * math.sqrt(10**log_visc * x / (density * GRAVITY_M_S2 * seconds)) for x in (height, width)]
        film_m3 = film[0] * math.pi * width * height + min(film[1], height) * case.base_m2
        return min(f * density * film_m3, case.melt_kg)

    return combine(
        kept(drain.likely, factor.likely),
        [
            [kept(drain.low, factor.likely), kept(drain.high, factor.likely)],
            [kept(drain.likely, factor.low), kept(drain.likely, factor.high)],
        ],
    )


def line_amounts(plan: PlanInput) -> list[CastAmounts]:
    """Per line, the grams of one casting [kg].

    Raises: OutOfRange: a fill level outside its cavity.
    Source: geometry
    """
    return [amounts(line.mould.disc, line.fill_m, plan.melt) for line in plan.lines]


def _wet(plan: PlanInput, sugar_kg: float) -> bool:
    return plan.cook.water if plan.cook.water is not None else sugar_kg >= plan.melt.value("large_cook")


def _bears(lines: list[Line]) -> float:
    return min(min(line.mould.bears_degc, line.mould.material.value("bears")) for line in lines)


def pour_of(
    plan: PlanInput, charge_kg: float, lines: list[Line]
) -> tuple[Cook, PourWindow, PotCase, Spread, bool]:
    """Cook and pour window for a charge that will go into these lines' moulds [s, degC].

    Raises: MouldTooWeak: the melt is too thick to pour before the mould bears it.
    Source: definition
    """
    wet = _wet(plan, charge_kg)
    cook_degc, altitude = plan.cook.cook_degc, plan.altitude_m
    water = water_of_cook(plan.melt, wet=wet, cook_degc=cook_degc, altitude_m=altitude)
    off = Spread(cook_degc - OFF_HEAT_SD_K, cook_degc, cook_degc + OFF_HEAT_SD_K)
    # a wet cook comes off at its own boiling point; a drier one is already below its own
    boils = max(boils_at_degc(water.likely, altitude), cook_degc if wet else 0.0)
    cook = Cook(off, tg_spread_degc(plan.melt, water), boils, _bears(lines))
    case = base_case(plan.pot, plan.melt, charge_kg)
    window = pour_window_s(case, cook)
    if cook.mould_bears_degc < window.close_degc.likely:
        weakest = min(lines, key=lambda line: min(line.mould.bears_degc, line.mould.material.value("bears")))
        raise MouldTooWeak(
            f"{weakest.mould.material.name} bears {cook.mould_bears_degc:g} degC; the melt is too thick to pour "
            f"below {window.close_degc.likely:.0f} degC: use silicone or metal",
            path="mould.bears_degc",
            got=cook.mould_bears_degc,
            limits={"low": window.close_degc.likely},
            params={"material": weakest.mould.material.name, "line": weakest.name},
        )
    return cook, window, case, water, wet


def casts_in_window(window: PourWindow, pour_each_s: float) -> Spread:
    """Cavities one person fills between opening and closing at this pace [count].

    Source: definition
    """
    return window.width.map(lambda width: math.floor(width / pour_each_s))


def piece_windows(
    plan: PlanInput, line: Line, amount: CastAmounts, window: PourWindow, pour_s: float
) -> PieceWindows:
    """Windows of one line's castings poured from this pot [s from the pour].

    The pour temperature runs from the pot's opening to its closing, likely in the middle of the pour.
    Source: definition
    """
    times, temps = window.times_s, window.likely_degc
    starts = window.opens.likely
    i = int((times <= min(starts + pour_s / 2, window.closes.likely)).sum()) - 1
    likely = float(temps[i])
    pour = Spread(min(likely, window.close_degc.likely), likely, max(likely, window.open_degc.likely))
    return windows_s(casting_of(plan, line, amount, pour, window.tg))


def casting_of(
    plan: PlanInput,
    line: Line,
    amount: CastAmounts,
    pour: Spread,
    tg: Spread,
    path: tuple[Stay, ...] | None = None,
) -> Casting:
    """The casting of a line poured at a temperature [SI fields]. Source: definition"""
    return Casting(
        plan.melt,
        line.mould.material,
        line.fill_m,
        amount.volume_over_area_m,
        line.mould.disc.top_m,
        line.mould.wall_m,
        pour,
        tg,
        path or (Stay(0.0, plan.place),),
    )


def bends_in_window(windows: PieceWindows, pour_each_s: float, bend_each_s: float) -> int:
    """Castings of a round that one person can pour and then bend before the last turns too stiff [count].

    All are poured, then bent in the same order: the last starts latest, so it decides. At least one.
    Args:
        windows: of the casting; its lowest width counts from the likely opening
        pour_each_s, bend_each_s: paces [s]
    Source: definition
    """
    closes = windows.bend_opens.likely + windows.bend_width.low
    return max(1, math.floor((closes - pour_each_s) / bend_each_s))


def _split(casts: int, size: int) -> list[int]:
    return [min(size, casts - start) for start in range(0, casts, size)]


def _charge(plan: PlanInput, pour_kg: float) -> tuple[float, Spread]:
    """Charge and residue: they depend on each other, so a few rounds of substitution."""
    charge = max(pour_kg * (1 + plan.reserve_frac), 0.001)
    residue = Spread(0.0, 0.0, 0.0)
    # viscosity when the pot is emptied: half way between a fresh cook and the closing, in its logarithm
    wet = _wet(plan, charge)
    water = water_of_cook(plan.melt, wet=wet, cook_degc=plan.cook.cook_degc, altitude_m=plan.altitude_m)
    tg = tg_spread_degc(plan.melt, water).likely
    log_visc = (log_viscosity_wlf_1955(plan.cook.cook_degc, tg) + plan.melt.value("log_pour_close")) / 2
    for _ in range(3):
        residue = residue_kg(base_case(plan.pot, plan.melt, charge), log_visc, plan.residue_factor)
        charge = pour_kg * (1 + plan.reserve_frac) + residue.likely
    require_range("charge_kg", charge, 0.001, 50.0)
    return charge, residue


def make_rounds(plan: PlanInput, casts: list[int], per_cast: list[CastAmounts]) -> list[list[tuple[int, int]]]:
    """Cooks as lists of (line, castings): moulds filled once a cook, no more than its window takes [count].

    Source: definition
    """
    sizes = []
    for line, amount in zip(plan.lines, per_cast, strict=True):
        size = line.mould.cavities * line.mould.owned
        if line.bend:
            charge, _ = _charge(plan, amount.poured.value.likely * size)
            _, window, *_ = pour_of(plan, charge, [line])
            windows = piece_windows(plan, line, amount, window, plan.paces.pour_each_s)
            size = min(size, bends_in_window(windows, plan.paces.pour_each_s, plan.paces.bend_each_s))
        sizes.append(size)
    waiting = [(i, n) for i, size in enumerate(sizes) for n in _split(casts[i], size)]
    if len(waiting) > MOST_ROUNDS:
        raise OutOfRange(
            f"{len(waiting)} rounds: at most {MOST_ROUNDS} in one plan; split the order or use more moulds",
            path="lines",
            got=len(waiting),
            limits={"high": MOST_ROUNDS},
        )
    cooks: list[list[tuple[int, int]]] = []
    while waiting:
        cooks.append(_next_cook(plan, waiting, per_cast))
    return cooks


def _next_cook(
    plan: PlanInput, waiting: list[tuple[int, int]], per_cast: list[CastAmounts]
) -> list[tuple[int, int]]:
    """Take from the front what one pot pours: each mould once, castings within the window."""
    chosen: list[tuple[int, int]] = []
    used: set[str] = set()
    while waiting:
        line, casts = waiting[0]
        mould = plan.lines[line].mould.mould_id
        if mould in used or (chosen and plan.lines[line].bend):
            break
        room = _room(plan, [*chosen, (line, casts)], per_cast)
        if room < casts and chosen:
            break
        take = max(1, min(casts, room))
        chosen.append((line, take))
        used.add(mould)
        waiting[0:1] = [(line, casts - take)] if take < casts else []
        if take < casts or plan.lines[line].bend:
            break
    return chosen


def _room(plan: PlanInput, rounds: list[tuple[int, int]], per_cast: list[CastAmounts]) -> int:
    """How many castings of the last round still fit in the likely window of the pot that holds them all."""
    lines = [plan.lines[i] for i, _ in rounds]
    pour_kg = sum(per_cast[i].poured.value.likely * n for i, n in rounds)
    charge, _ = _charge(plan, pour_kg)
    _, window, *_ = pour_of(plan, charge, lines)
    before = sum(n for _, n in rounds[:-1])
    return int(casts_in_window(window, plan.paces.pour_each_s).likely) - before


def make_cooks(plan: PlanInput, groups: list[list[tuple[int, int]]], per_cast: list[CastAmounts]) -> list[PotCook]:
    """The cooks with their charges and windows. What a cook leaves in the pot goes into the next one.

    Raises: OutOfRange: the ring is too weak, or a charge outside the pot model. MouldTooWeak.
    Source: definition
    """
    cooks: list[PotCook] = []
    left, number = 0.0, 0
    for c, group in enumerate(groups):
        rounds = tuple(Round(number + i, line, c, casts) for i, (line, casts) in enumerate(group))
        number += len(rounds)
        lines = [plan.lines[r.line] for r in rounds]
        poured = sum(per_cast[r.line].poured.value.likely * r.casts for r in rounds)
        finished = sum(per_cast[r.line].finished.value.likely * r.casts for r in rounds)
        charge, residue = _charge(plan, poured)
        fresh = max(charge - left, 0.0)
        cook, window, case, water, wet = pour_of(plan, charge, lines)
        water_kg = plan.melt.value("water_added") * fresh if wet else 0.0
        heating = Heating(
            case, water_kg, plan.cook.crystalline, plan.room_degc, plan.cook.cook_degc, plan.altitude_m,
            plan.ring.power_w, plan.ring.efficiency,
        )  # fmt: skip
        cooks.append(
            PotCook(
                c, rounds, charge, fresh, poured, finished, poured - finished, poured * plan.reserve_frac, residue,
                wet, water_kg, water, cook, heating, hob_time_s(heating), window,
            )
        )  # fmt: skip
        left = charge - finished
    return cooks


def round_windows(plan: PlanInput, cooks: list[PotCook], per_cast: list[CastAmounts]) -> dict[int, PieceWindows]:
    """Per round number, the windows of its castings [s from the pour].

    Source: definition
    """
    return {
        r.number: piece_windows(
            plan, plan.lines[r.line], per_cast[r.line], c.window, c.casts * plan.paces.pour_each_s
        )
        for c in cooks
        for r in c.rounds
    }
