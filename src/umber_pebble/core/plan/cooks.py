"""Rounds and cooks: what goes into the pot, and when it may be poured."""

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace

from umber_pebble.core.errors import MouldTooWeak, require_range
from umber_pebble.core.families.known import family_of
from umber_pebble.core.heat.casting import Casting, LayerUnder, PlaceStay, as_ball
from umber_pebble.core.heat.fills import fills_until_log_pa_s
from umber_pebble.core.heat.hob import Heating
from umber_pebble.core.heat.melting import Melting
from umber_pebble.core.heat.pour import Flow, PourWindow, SugarFlow, pour_window_s
from umber_pebble.core.heat.vessel import base_case
from umber_pebble.core.heat.windows import PieceWindows, windows_s
from umber_pebble.core.heat.works import held_there
from umber_pebble.core.materials.load import Material, material
from umber_pebble.core.melts.bursts import Bowl
from umber_pebble.core.plan.charge import PIPED, bags_kg, bath_left_kg, residue_kg
from umber_pebble.core.plan.making import Charge
from umber_pebble.core.plan.problem import MeltWay, PlanInput, PlanLine
from umber_pebble.core.plan.turns import stays_in
from umber_pebble.core.spread import Spread, combine, exact
from umber_pebble.core.temper.schools import Tempering


@dataclass(frozen=True, slots=True)
class Round:
    """One pour into a line's mould: its number, line, cook, castings; on: the round it is poured on, None in an empty mould; stay: what
    stands in one mould together, from its first pass until all of it is turned out, has the same number; into: the cook that it is
    divided off for, None: it is poured into moulds."""

    number: int
    line: int
    cook: int
    casts: int
    on: int | None = None
    stay: int = 0
    into: int | None = None


@dataclass(frozen=True, slots=True)
class PotCook:
    """One melt of a material in its vessel: what is in it, what is added for it, and its windows.

    rounds in the order in which they are poured, which may be over hours: it is warmed in between. flow and window are of what may
    be poured longest of it, pours has those of each line. hob is the time until it is melted and hot enough, of a couverture until it
    is in temper; water_left is None for fat; seed_kg is the part of the fresh that is kept back unmelted. portion_degc: how warm it is
    when it comes out of another cook's vessel, None: it is weighed and heated.
    """

    number: int
    way: MeltWay
    rounds: tuple[Round, ...]
    charge_kg: float
    fresh_kg: float
    poured_kg: float
    finished_kg: float
    scraped_kg: float
    mixed_kg: float
    reserve_kg: float
    residue_kg: Spread
    wet: bool
    water_kg: float
    water_left: Spread | None
    heating: Heating | Melting | Bowl
    hob: Spread
    pours: dict[int, tuple[Flow, PourWindow]]
    tempering: Tempering | None = None
    seed_kg: float = 0.0

    bags_kg: float = 0.0
    portion_degc: float | None = None

    @property
    def flow(self) -> Flow:
        """Of the line that may be poured longest."""
        return self._longest[0]

    @property
    def window(self) -> PourWindow:
        """Of the line that may be poured longest."""
        return self._longest[1]

    @property
    def _longest(self) -> tuple[Flow, PourWindow]:
        return max(self.pours.values(), key=lambda pour: pour[1].closes.likely)

    @property
    def casts(self) -> int:
        return sum(r.casts for r in self.rounds)

    @property
    def made_kg(self) -> float:
        """What is new in its vessel: weighed out, or divided off another [kg]."""
        return self.fresh_kg if self.portion_degc is None else self.charge_kg

    @property
    def left_kg(self) -> float:
        """What goes on from it: all but what is finished, what is mixed with others, and what stays in its bags."""
        return self.charge_kg - self.finished_kg - self.mixed_kg - self.bags_kg


def ready_for_next(melt: Material, windows: PieceWindows) -> Spread:
    """When a pass of a melt bears the next one [s from its pour]. Source: definition"""
    return windows.at[family_of(melt).ends.bears_next]


def _bears(lines: list[PlanLine]) -> float:
    return min(line.mould.bears for line in lines)


def _charge(plan: PlanInput, way: MeltWay, charge_kg: float, lines: list[PlanLine]) -> Charge:
    return Charge(
        base_case(way.pot, way.melt, charge_kg),
        plan.room_degc,
        plan.altitude_m,
        _bears(lines),
        any(line.dip for line in lines),
        any(line.kind == "divide" for line in lines),
        lambda tg: _fills(plan, way, lines, tg),
    )


def pour_of(
    plan: PlanInput, way: MeltWay, charge_kg: float, lines: list[PlanLine]
) -> tuple[Flow, PourWindow, Charge, Spread | None]:
    """Flow and pour window of a charge that will go into these lines' moulds; the charge; water left [frac].

    Raises: MouldTooWeak: the melt is too thick to pour before the mould bears it.
    Source: definition
    """
    charge = _charge(plan, way, charge_kg, lines)
    flow, water = way.by.flow(charge)
    window = pour_window_s(base_case(way.rests, way.melt, charge_kg), flow)
    if flow.mould_bears_degc < window.close_degc.likely:
        weakest = min(lines, key=lambda line: line.mould.bears)
        raise MouldTooWeak(
            f"{weakest.mould.material.name} bears {flow.mould_bears_degc:g} degC; the melt is too thick to pour "
            f"below {window.close_degc.likely:.0f} degC: use silicone or metal",
            path="mould.bears_degc",
            got=flow.mould_bears_degc,
            limits={"low": window.close_degc.likely},
            params={"material": weakest.mould.material.name, "line": weakest.name},
        )
    return flow, window, charge, water


def _fills(plan: PlanInput, way: MeltWay, lines: list[PlanLine], tg: Spread) -> Spread:
    """The thickest this melt may be poured into the most demanding of these lines' moulds [log10 Pa s], as its vessel's own past
    pours have it."""
    # what is dipped has no edge to reach: it is dipped as long as it is poured
    poured = [line for line in lines if line.cast_on and line.dip is None]
    limits = [_fills_line(plan, way, line, tg) for line in poured]
    if not limits:
        return way.melt.spread("log_pour_close")
    least, off = min(limits, key=lambda s: s.likely), way.fills_off
    return combine(
        least.likely + off.likely,
        [[least.low + off.likely, least.high + off.likely], [least.likely + off.low, least.likely + off.high]],
    )


def _fills_line(plan: PlanInput, way: MeltWay, line: PlanLine, tg: Spread) -> Spread:
    pour = exact(way.melt.value("cook_to"))
    first = path_of(plan, line, 1)[:1]
    casting = casting_of(plan, line, pour, SugarFlow(way.melt, pour, tg, 0.0, 0.0), first)
    half = min(line.mould.cavity.bounds_m()) / 2
    reach = material("kitchen", "usual", "spout").spread("reach").map(lambda led: min(led, half))
    pushed = material("kitchen", "usual", "bag").value("pushes") if line.kind in PIPED else 0.0
    # in a hollow that falls to its middle the melt runs there by itself, so its deepest place is what has to spread
    deepest = exact(line.cast.thickness.high)
    deep = replace(casting, slab=deepest, tg=exact(round(tg.likely, 1)), thin_m=None, thick_m=None)
    return fills_until_log_pa_s(deep, reach, pushed, line.mould.detail_m)


def casts_in_window(window: PourWindow, pour_each_s: float) -> Spread:
    """Cavities one person fills between opening and closing at this pace [count].

    Source: definition
    """
    return window.width.map(lambda width: math.floor(width / pour_each_s))


def piece_windows(plan: PlanInput, line: PlanLine, flow: Flow, window: PourWindow, casts: int) -> PieceWindows:
    """Windows of one line's castings poured from this vessel [s from the pour].

    The pour temperature runs from the opening to the closing, likely in the middle of the pour.
    Args:
        plan, line: whose castings
        flow, window: of the vessel
        casts: poured in one go
    Source: definition
    """
    times, temps, pour_s = window.times_s, window.likely_degc, casts * plan.pour_each_s(line)
    i = int((times <= min(window.opens.likely + pour_s / 2, window.closes.likely)).sum()) - 1
    likely = float(temps[i])
    pour = Spread(min(likely, window.close_degc.likely), likely, max(likely, window.open_degc.likely))
    return windows_of(line, casting_of(plan, line, pour, flow, path_of(plan, line, casts)))


def windows_of(line: PlanLine, casting: Casting) -> PieceWindows:
    """A line's windows: those of its casting, as it leaves its mould [s from the pour]. Source: definition"""
    windows = windows_s(casting).leaving_at(line.leaves)
    return stays_in(casting.melt, windows) if line.whole_ball else windows


def runs_together_s(windows: PieceWindows) -> float:
    """How long after its pour a melt still runs together with what is piped beside it [s]: until it thickens, a glass until nothing sticks to
    it.

    Source: common-practice
    """
    at = windows.at
    return at["comb_opens"].low if "comb_opens" in at else at["sprinkle_closes"].low


def route_of(plan: PlanInput, line: PlanLine, casts: int) -> tuple[tuple[PlaceStay, str], ...]:
    """Where a round of castings lies, with the ids of the places: its piece's own way, or where it is poured and then,
    once all are poured and worked, where it sets. No move comes before hands are free for it, and what is first worked when it is firmer stays,
    but where what it lies on is pulled out from under it.

    Source: definition
    """
    way = plan.way(line)
    out = (line.lies[0][0].place if line.lies else way.poured_on).slid_out
    works = tuple(of for of in line.works if not out or held_there([of.kind], out))
    handled = casts * (plan.pour_each_s(line) / 2 + plan.works_each_s(line, works))
    if line.whole_ball:
        handled += material("kitchen", "usual", "ball").value("by_hand")
    if line.lies:
        first, *rest = line.lies
        return first, *((replace(stay, from_s=max(stay.from_s, handled)), place) for stay, place in rest)
    first = (PlaceStay(0.0, way.poured_on), way.poured_on_id)
    carried = way.carried and (out or not held_there([of.kind for of in line.works], out))
    return (first, (PlaceStay(handled, way.sets_in), way.sets_in_id)) if carried else (first,)


def lies_in(plan: PlanInput, line: PlanLine, casts: int) -> tuple[str, int]:
    """Where a round of castings sets, and how many moulds of it [count]. Source: definition"""
    return route_of(plan, line, casts)[-1][1], math.ceil(casts / line.mould.cavities)


def path_of(plan: PlanInput, line: PlanLine, casts: int) -> tuple[PlaceStay, ...]:
    """The same without the ids, and without a stay that the next one has overtaken. Source: definition"""
    stays = [stay for stay, _ in route_of(plan, line, casts)]
    return tuple(
        s for s, after in zip(stays, [*stays[1:], None], strict=True) if after is None or after.from_s > s.from_s
    )


def casting_of(plan: PlanInput, line: PlanLine, pour: Spread, flow: Flow, path: tuple[PlaceStay, ...]) -> Casting:
    """The casting of a line poured at a temperature and laid along a path [SI fields]. Source: definition"""
    # no window moves with less than half a kelvin, and what is the same is reckoned once
    near = Spread(*(round(v * 2) / 2 for v in (pour.low, pour.likely, pour.high)))
    amount, cold = line.cast, path[0].place.surface_degc
    casting = Casting(
        plan.way(line).melt,
        line.mould.material,
        amount.slab,
        amount.plate_m,
        line.mould.wall_m,
        near,
        flow.tg,
        path,
        tuple(LayerUnder(of, thick, cold if degc is None else degc) for of, thick, degc in line.under),
        thin_m=amount.thin_m,
        thick_m=amount.thick_m,
        beside=line.mould.cavities,
        body=line.body,
    )
    if not line.whole_ball:
        return casting
    return as_ball(casting, amount.thickness, min(line.mould.cavity.bounds_m()) / 2)


def charge_of(plan: PlanInput, way: MeltWay, pour_kg: float, lines: Sequence[PlanLine]) -> tuple[float, Spread]:
    """Charge and residue of what is poured into these lines' moulds [kg]: they depend on each other, so a few rounds of
    substitution.

    Raises: OutOfRange: a charge outside the vessel model, or a vessel too narrow to dip in.
    Source: definition
    """
    # less than this cannot be melted evenly, whatever a detail takes
    least = max(material("kitchen", "least", "charge").value("mass"), pour_kg + bath_left_kg(way, lines))
    bags = bags_kg(lines)
    charge = max(pour_kg * (1 + plan.reserve_frac) + bags, least)
    log_visc = way.by.emptied_log_pa_s(way.melt, charge, plan.altitude_m)
    residue = Spread(0.0, 0.0, 0.0)
    for _ in range(3):
        residue = residue_kg(base_case(way.pot, way.melt, charge), log_visc, way.residue_factor)
        charge = max(pour_kg * (1 + plan.reserve_frac) + residue.likely + bags, least)
    require_range("charge_kg", charge, 0.001, 50.0)
    return charge, residue


def portion_degc(plan: PlanInput, line: PlanLine, window: PourWindow) -> float:
    """How warm a portion is in its vessel, which was as cold as the room: poured in as soon as it may be, by the heat that the vessel takes
    up [degC].

    Args:
        plan, line: the order, and the line that divides it off
        window: of the pot it comes out of
    Source: definition
    """
    assert line.into is not None
    way, kg = plan.ways[line.into], line.cast.poured.value.likely
    case = base_case(way.pot, way.melt, kg)
    share = kg * case.cp_melt_j_kgk / case.capacity_j_k
    return plan.room_degc + share * (window.open_degc.likely - plan.room_degc)


def make_cooks(plan: PlanInput, groups: Sequence[Sequence[Round]]) -> list[PotCook]:
    """The cooks with their charges and windows. What a cook leaves in its vessel goes into the next one of its melt; for what is divided
    off another, nothing is weighed out.

    Args:
        plan: of the order
        groups: the rounds of each cook, in the order in which they are poured
    Raises: OutOfRange: the heat is too weak, or a charge outside the vessel model. MouldTooWeak.
    Source: definition
    """
    cooks: list[PotCook] = []
    left: dict[str, float] = {}
    for number, rounds in enumerate(groups):
        melt = plan.lines[rounds[0].line].melt
        cook = make_cook(plan, number, tuple(rounds), left.get(melt, 0.0))
        left[melt] = cook.left_kg
        cooks.append(cook)
    divided = {r.into: (cook, r.line) for cook in cooks for r in cook.rounds if r.into is not None}
    for number, (base, line) in divided.items():
        cooks[number] = as_portion(cooks[number], portion_degc(plan, plan.lines[line], base.pours[line][1]))
    return cooks


def as_portion(cook: PotCook, degc: float | None) -> PotCook:
    """A cook for which nothing is weighed out: it comes out of another's vessel, so warm [degC]. Source: definition"""
    return replace(cook, fresh_kg=0.0, water_kg=0.0, seed_kg=0.0, portion_degc=degc)


def make_cook(plan: PlanInput, number: int, rounds: tuple[Round, ...], left_kg: float) -> PotCook:
    """One cook for these rounds, of one material [SI].

    Args:
        plan: of the order
        number, rounds: of the cook
        left_kg: melt that is in the vessel already [kg]
    Raises: OutOfRange: the heat is too weak, or a charge outside the vessel model. MouldTooWeak.
    Source: definition
    """
    lines = [plan.lines[i] for i in dict.fromkeys(r.line for r in rounds)]
    way = plan.way(lines[0])
    poured = sum(plan.lines[r.line].cast.poured.value.likely * r.casts for r in rounds)
    finished = sum(plan.lines[r.line].cast.finished.value.likely * r.casts for r in rounds)
    off = ((plan.lines[r.line], r.casts) for r in rounds if plan.lines[r.line].mixed)
    mixed = sum((of.cast.poured.value.likely - of.cast.finished.value.likely) * casts for of, casts in off)
    charge_kg, residue = charge_of(plan, way, poured, lines)
    fresh, bags = max(charge_kg - left_kg, 0.0), bags_kg(lines)
    own = {r.line: pour_of(plan, way, charge_kg, [plan.lines[r.line]]) for r in rounds}
    charge, water = _charge(plan, way, charge_kg, lines), own[rounds[0].line][3]
    wet = way.by.wet(way.melt, charge_kg)
    water_kg = way.melt.value("water_added") * fresh if wet else 0.0
    heating, hob = way.by.heating(charge, water_kg)
    tempering, seed_kg, hob = way.by.tempering(way.pot, charge.case, hob)
    return PotCook(
        number,
        way,
        rounds,
        charge_kg,
        fresh,
        poured,
        finished,
        poured - finished - mixed,
        mixed,
        charge_kg - poured - residue.likely - bags,
        residue,
        wet,
        water_kg,
        water,
        heating,
        hob,
        {line: (flow, window) for line, (flow, window, *_) in own.items()},
        tempering,
        seed_kg,
        bags,
    )


def round_windows(plan: PlanInput, cooks: Sequence[PotCook]) -> dict[int, PieceWindows]:
    """Per round number, the windows of its castings [s from the pour].

    Source: definition
    """
    return {
        r.number: piece_windows(plan, plan.lines[r.line], *c.pours[r.line], r.casts)
        for c in cooks
        for r in c.rounds
    }
