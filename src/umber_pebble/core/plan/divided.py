"""Colours of one material out of one pot: it is melted once as it comes, and divided into vessels in which each is coloured."""

from collections import Counter
from collections.abc import Iterator
from dataclasses import replace

from umber_pebble.core.families.known import family_of
from umber_pebble.core.heat.pour import PourWindow, pour_window_s
from umber_pebble.core.heat.vessel import base_case
from umber_pebble.core.materials.load import material
from umber_pebble.core.moulds.cavity import Cavity
from umber_pebble.core.moulds.outline import Circle
from umber_pebble.core.moulds.walled import Walled
from umber_pebble.core.pieces.layers import Extent, melted
from umber_pebble.core.plan.cooks import portion_degc, pour_of
from umber_pebble.core.plan.day.pots import Pot, fillings_of, pots_of
from umber_pebble.core.plan.problem import MeltWay, Mould, Named, PlanInput, PlanLine
from umber_pebble.core.plan.rounds import round_sizes
from umber_pebble.core.plan.spares import BreakRate, casts_made
from umber_pebble.core.spread import exact

FEWEST = 2
"""What is made once for fewer is not made more quickly [count]."""


def divided(plan: PlanInput) -> PlanInput:
    """An order with a line for each colour that comes out of another melt's vessel: all that is poured of it, its reserve and what stays in
    its vessel are poured into that. A colour that takes several batches, or shares its vessel, is melted by itself.

    Args:
        plan: the order; what was divided before is divided anew
    Raises: OutOfRange, MouldTooWeak: as its rounds and pours.
    Source: common-practice
    """
    lines = tuple(line for line in plan.lines if line.kind != "divide")
    own = {line.melt for line in lines}
    plain = replace(plan, lines=lines, ways={key: way for key, way in plan.ways.items() if key in own})
    bases = {way.out_of for way in plain.ways.values()} & plan.ways.keys()
    if not bases:
        return plan if lines == plan.lines else plain
    portions = dict(_portions(plain, {key: plan.ways[key] for key in bases if key is not None}))
    takers = Counter(plain.ways[key].out_of for key in portions)
    takers.update(own & bases)
    kept = {key: line for key, line in portions.items() if takers[line.melt] >= FEWEST}
    used = {line.melt for line in kept.values()}
    ways = {key: way if key in kept else _by_itself(plan, key, way) for key, way in plain.ways.items()}
    ways |= {key: way for key, way in plan.ways.items() if key in used}
    return replace(plain, lines=(*lines, *kept.values()), ways=ways)


def _by_itself(plan: PlanInput, key: str, way: MeltWay) -> MeltWay:
    """What is not divided off is made as if nothing were."""
    if way.out_of is None:
        return way
    return plan.otherwise.get(family_of(way.melt).key, {}).get(key, way)


def castings(plan: PlanInput, most: list[int]) -> tuple[int, ...]:
    """How many castings of each line are made, spares with them [count]: the passes of a part are as many as its last one needs, and of
    what is joined, or divided, there is nothing to spare.

    Args:
        plan: the order
        most: per line, castings of one round at most
    Source: beta-binomial
    """
    lasts = [plan.lines[chain[-1]] for chain in plan.chains]
    return tuple(
        line.quantity
        if line.joins or line.kind == "divide"
        else casts_made(line.quantity, line.spares, size, plan.confidence_frac, line.break_rate)
        for line, size in zip(lasts, most, strict=True)
    )


def portion_stood_s(plan: PlanInput, line: PlanLine, off: PourWindow, own: list[PlanLine]) -> float:
    """For how long a melt made by itself would have stood until it may be poured as long as its portion may be [s].

    Args:
        plan, line: the order, and the line that divides it off
        off: the window of the pot it comes out of
        own: what is poured of it
    Raises: OutOfRange, MouldTooWeak: as its pours.
    Source: definition
    """
    assert line.into is not None
    way, kg = plan.ways[line.into], line.cast.poured.value.likely
    pours = [pour_of(plan, way, kg, [one]) for one in own]
    flow, window, *_ = max(pours, key=lambda pour: pour[1].closes.likely)
    comes_in = replace(flow, off=exact(portion_degc(plan, line, off)))
    left = pour_window_s(base_case(way.rests, way.melt, kg), comes_in).closes.likely
    return max(window.closes.likely - left, 0.0)


def _portions(plan: PlanInput, bases: dict[str, MeltWay]) -> Iterator[tuple[str, PlanLine]]:
    most = [size.casts for size in round_sizes(plan)]
    pots: dict[str, list[Pot]] = {}
    fillings = fillings_of(plan, castings(plan, most), most)
    for pot in pots_of(plan, fillings):
        pots.setdefault(plan.lines[fillings[pot.fillings[0]].line].melt, []).append(pot)
    vessels = Counter(way.vessel_id for way in (plan.ways | bases).values())
    for key, way in plan.ways.items():
        of = pots[key]
        if way.out_of not in bases or len(of) > 1 or of[0].batches > 1 or vessels[way.vessel_id] > 1:
            continue
        first = plan.lines[fillings[of[0].fillings[0]].line]
        yield key, _portion(key, way, way.out_of, of[0].charge_kg, first.item)


def _portion(key: str, way: MeltWay, base: str, kg: float, item: int) -> PlanLine:
    pot, metal = way.pot, way.pot.metal
    case = base_case(pot, way.melt, kg)
    of = Extent(kg / way.melt.value("density_melt"), case.depth_m, case.base_m2, 0.0, case.depth_m)
    cast = melted(0, way.melt, of, "what is poured of it, its reserve, and what stays in its vessel").cast
    assert cast is not None
    wall = material("moulds", "silicone").value("wall")
    inside = Cavity(Walled(Circle(pot.diameter_m), min(pot.height_m, 0.1)))
    vessel = Mould(f"vessel-{way.vessel_id}", 0, metal, wall, inside, 1, 1, metal.value("bears"))
    return PlanLine(
        Named(way.melt.name, step="portion"),
        1,
        base,
        vessel,
        cast,
        BreakRate(),
        item=item,
        kind="divide",
        last=False,
        hold_s=material("kitchen", "usual", "portion").value("stirs"),
        into=key,
    )
