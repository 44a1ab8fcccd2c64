"""One melt of a plan as it is made: its weights, what its fullest vessel holds, and its cooks one by one."""

from dataclasses import dataclass
from typing import Literal

from umber_pebble.core.explained import Explained, explained, given
from umber_pebble.core.materials.load import material
from umber_pebble.core.melts.bursts import Bowl, Next, plan_bursts
from umber_pebble.core.plan.charge import bath_left_kg
from umber_pebble.core.plan.compile import Plan
from umber_pebble.core.plan.cooks import PotCook
from umber_pebble.core.plan.problem import Named
from umber_pebble.core.spread import Spread, combine
from umber_pebble.core.temper.schools import Step, steps

KeptAs = Literal["residue", "bags", "reserve", "dip_reserve"]
"""What of a melt is not poured: the film on its vessel, what stays in bags, the reserve, and depth to dip into with it."""


@dataclass(frozen=True, slots=True)
class NotPoured:
    """What of a charge is not poured [kg]."""

    what: KeptAs
    of: Explained


@dataclass(frozen=True, slots=True)
class Poured:
    """What of a charge goes into so many castings of a pass, all of them together [kg]."""

    named: Named
    casts: int
    kg: float


@dataclass(frozen=True, slots=True)
class CookRow:
    """One cook: what is in its vessel and weighed out for it [kg]; whether with water, how much, how much of it stays [frac]; how long
    on the heat [s], in which bursts; what is kept back as seed [kg], and how it is tempered; portion_degc: how warm it comes out of
    another melt's vessel, None: it is weighed and heated."""

    number: int
    wet: bool
    charge: Explained
    fresh: Explained
    water: Explained
    water_left: Explained | None
    hob: Explained
    bursts: tuple[Next, ...] | None
    nib_bursts: int | None
    seed_kg: float
    temper: tuple[Step, ...]
    portion_degc: float | None


@dataclass(frozen=True, slots=True)
class Melted:
    """A melt over all its cooks: its weights [kg], of what is poured that which comes off mixed with others; how much its fullest cook has in its vessel [kg], how deep [m], from the floor what stays and then
    what is poured; and each cook."""

    melt: str
    charge_kg: float
    depth_m: float
    kept: tuple[NotPoured, ...]
    passes: tuple[Poured, ...]
    poured: Explained
    scraped: Explained
    mixed: Explained
    left: Explained
    finished: Explained
    cooks: tuple[CookRow, ...]


def melted(plan: Plan, key: str) -> Melted:
    """One melt of a plan.

    Args:
        plan: of the order
        key: of a melt it has a way for
    Source: geometry, jeffreys-1930, common-practice
    """
    cooks = plan.cooks_of(key)
    fullest, last = max(cooks, key=lambda c: c.charge_kg), cooks[-1]
    density = last.way.melt.spread("density_melt")
    ratio = Spread(density.low / density.likely, 1.0, density.high / density.likely)
    poured, finished = sum(c.poured_kg for c in cooks), sum(c.finished_kg for c in cooks)
    mixed = sum(c.mixed_kg for c in cooks)
    count = given("castings", sum(c.casts for c in cooks), "count")
    left, residue = last.left_kg, last.residue_kg
    return Melted(
        key,
        fullest.charge_kg,
        fullest.window.depth_m,
        _kept(plan, fullest),
        _passes(plan, fullest),
        poured=explained(
            ratio.times(poured),
            "kg",
            "castings x poured a casting, spares with them",
            count,
            sources=("geometry", "from-memory"),
        ),
        scraped=explained(
            poured - finished - mixed,
            "kg",
            "poured - finished: goes back into the vessel",
            given("poured", poured, "kg"),
            given("finished", finished, "kg"),
            given("mixed with others", mixed, "kg"),
            sources=("assumption",),
        ),
        mixed=explained(
            mixed,
            "kg",
            "tipped out or broken off with other colours in it: into a darker melt or backs, not back into its vessel",
            given("poured", poured, "kg"),
            given("finished", finished, "kg"),
            sources=("common-practice",),
        ),
        left=explained(
            combine(left, [[max(left + r - residue.likely, 0.0) for r in (residue.low, residue.high)]]),
            "kg",
            "in the vessel and on tools after the last pour: film on the vessel, reserve, what was scraped off",
            given("film on the vessel", residue, "kg"),
            given("reserve", last.reserve_kg, "kg"),
            given("scraped", last.scraped_kg, "kg"),
            sources=("jeffreys-1930", "assumption"),
        ),
        finished=explained(
            ratio.times(finished),
            "kg",
            "castings x finished a casting",
            count,
            sources=("geometry", "from-memory"),
        ),
        cooks=tuple(_cook(plan, c) for c in cooks),
    )


def _kept(plan: Plan, c: PotCook) -> tuple[NotPoured, ...]:
    residue, bags, reserve = _residue(c), _bags(c), _reserve(plan, c)
    dips = any(plan.problem.lines[r.line].dip for r in c.rounds)
    return (
        NotPoured("residue", residue),
        *([NotPoured("bags", bags)] if c.bags_kg > 0 else []),
        NotPoured("dip_reserve" if dips else "reserve", reserve),
    )


def _passes(plan: Plan, c: PotCook) -> tuple[Poured, ...]:
    casts: dict[int, int] = {}
    for r in c.rounds:
        casts[r.line] = casts.get(r.line, 0) + r.casts
    lines = plan.problem.lines
    return tuple(Poured(lines[i].named, n, lines[i].cast.poured.value.likely * n) for i, n in casts.items())


def _residue(c: PotCook) -> Explained:
    return explained(
        c.residue_kg,
        "kg",
        "film left on wall and floor after draining x what this pot was seen to keep of it",
        given("pot diameter", c.way.pot.diameter_m, "m"),
        given("depth", c.window.depth_m, "m"),
        given("drained for", c.way.melt.spread("drain"), "s"),
        given("kept against the film", c.way.residue_factor, "frac"),
        sources=("jeffreys-1930", "assumption"),
    )


def _bags(c: PotCook) -> Explained:
    return explained(
        c.bags_kg,
        "kg",
        "what stays in a bag that was squeezed out x bags",
        given("a bag", material("kitchen", "usual", "bag").spread("keeps"), "kg"),
        sources=("from-memory",),
    )


def _reserve(plan: Plan, c: PotCook) -> Explained:
    lines = [plan.problem.lines[r.line] for r in c.rounds]
    return explained(
        c.reserve_kg,
        "kg",
        "a share of what is poured, beyond spares and what the pot keeps; more where so little cannot be melted, or the last is not covered",
        given("poured", c.poured_kg, "kg"),
        given("share", plan.problem.reserve_frac, "frac"),
        given("to cover what is dipped, the bowl tilted", bath_left_kg(c.way, lines), "kg"),
        sources=("common-practice", "geometry"),
    )


def _cook(plan: Plan, c: PotCook) -> CookRow:
    by, residue = c.way.by, c.residue_kg
    charge = explained(
        combine(c.charge_kg, [[c.charge_kg - residue.likely + r for r in (residue.low, residue.high)]]),
        "kg",
        "poured + reserve + what stays in the pot and in bags",
        given("poured", c.poured_kg, "kg"),
        given("reserve", c.reserve_kg, "kg"),
        given("stays in bags", c.bags_kg, "kg"),
        given("stays in the pot", residue, "kg"),
        sources=("jeffreys-1930", "common-practice"),
    )
    fresh = explained(
        c.fresh_kg,
        "kg",
        "charge less what the cook before left in the pot",
        given("charge", c.charge_kg, "kg"),
        given("from the cook before", c.charge_kg - c.fresh_kg, "kg"),
    )
    return CookRow(
        c.number,
        c.wet,
        charge,
        fresh,
        by.water_told(c),
        by.water_left_told(plan.problem, c),
        by.hob_told(c),
        plan_bursts(c.heating).steps if isinstance(c.heating, Bowl) else None,
        by.nib_bursts(c, plan.problem.paces.stir_s),
        c.seed_kg,
        () if c.tempering is None else tuple(steps(c.tempering)),
        c.portion_degc,
    )
