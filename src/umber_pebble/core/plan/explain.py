"""The plan's numbers put into words: each with its formula, inputs, sources and what limits it."""

from dataclasses import dataclass

from umber_pebble.core.explained import Explained, explained, given
from umber_pebble.core.families.family import Made, Rows
from umber_pebble.core.families.known import family_of
from umber_pebble.core.heat.bands import Band, Use, cast_bands
from umber_pebble.core.heat.windows import PieceWindows
from umber_pebble.core.materials.load import material
from umber_pebble.core.melts.bursts import Bowl, Next, plan_bursts
from umber_pebble.core.pieces.cast import CastAmounts
from umber_pebble.core.plan.charge import bath_left_kg
from umber_pebble.core.plan.cooks import PotCook, Round, casts_in_window, path_of
from umber_pebble.core.plan.problem import Handful, Line, Named, PlanInput, PouredAs, RoundLimit, Work
from umber_pebble.core.plan.spares import chance_enough_frac
from umber_pebble.core.spread import Spread, combine


@dataclass(frozen=True, slots=True)
class LinePlan:
    """One pour: castings to make and one casting's grams; item: the line of the order it is part of; last: a casting leaves its
    mould after it; first: what is put in before it; at_once: castings of a round at most, limited_by what."""

    named: Named
    item: int
    last: bool
    kind: PouredAs
    melt: str
    quantity: int
    casts: Explained
    amount: CastAmounts
    first: tuple[Handful, ...]
    rounds: int
    at_once: int
    limited_by: RoundLimit


@dataclass(frozen=True, slots=True)
class RoundPlan:
    """One round's windows by name, from its pour [s]; never: those it does not reach within the horizon; bears_next: at which it takes the
    next pass, None where it is the last."""

    round: Round
    melt: str
    wording: Rows
    work: Work | None
    windows: dict[str, Explained]
    never: tuple[str, ...]
    bears_next: str | None
    bands: tuple[Band, ...]


@dataclass(frozen=True, slots=True)
class CookPlan:
    """One cook's numbers, with the engine's own objects behind them."""

    cook: PotCook
    melt_key: str
    poured: Explained
    reserve: Explained
    residue: Explained
    bags: Explained
    charge: Explained
    fresh: Explained
    water: Explained
    water_left: Explained | None
    hob: Explained
    bursts: tuple[Next, ...] | None
    nib_bursts: int | None
    opens: Explained
    closes: Explained
    capacity: Explained


@dataclass(frozen=True, slots=True)
class MeltPlan:
    """One melt's grams over all its cooks; its material, by which kind of way it is made, and its colour as hex."""

    melt: str
    material: str
    made: Made
    colour: str | None
    name: str
    cooks: int
    poured: Explained
    scraped: Explained
    left: Explained
    finished: Explained
    fresh: Explained


def line_plan(
    line: Line, confidence: float, casts: int, rounds: int, at_once: int, limited_by: RoundLimit
) -> LinePlan:
    """A line's castings, explained [count]. Source: beta-binomial"""
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
    return LinePlan(
        line.named, line.item, line.cast_off, line.kind, line.melt, line.quantity, number, line.cast, line.first, rounds,
        at_once, limited_by,
    )  # fmt: skip


WHAT = {
    "bend_opens": "from the pour until its hottest place is stiff enough to hold a bend",
    "bend_closes": "from the pour until its coldest place is too stiff to bend",
    "brittle": "from the pour until it snaps when bent",
    "holds": "from the pour until it keeps its shape by itself",
    "stick_closes": "from the pour until its first layer is too stiff to take a stick",
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


def _by_itself(rows: Rows, name: str, w: PieceWindows) -> bool:
    """Whether the material decides a window, not what the heat does."""
    mostly = _mostly(w.by_material[name], w.at[name])
    return {"sugar": mostly, "fat": w.limited_by[name] == "setting"}[rows]


def round_plan(plan: PlanInput, r: Round, w: PieceWindows) -> RoundPlan:
    """A round's windows, explained [s from the pour]. Source: definition"""
    line = plan.lines[r.line]
    place, family = path_of(plan, line, r.casts)[-1].place, family_of(plan.way(line).melt)
    rows = family.rows
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
        w.cool_to_hold, "s", WHAT["cool_to_hold"], *shared, sources=("iso-13732-1", "patankar-1980"),
        limited_by="heat to mould and air",
    )  # fmt: skip
    told = [name for name in (*WHAT, "unmould") if name in w.at]
    windows = {name: window(name) for name in told} | {"cool_to_hold": cool}
    never = tuple(name for name in told if w.never(name))
    use = Use(line.work, line.last, line.released, bool(line.needs))
    bands = cast_bands(w.at, frozenset(name for name in w.at if w.never(name)), family.ends.held_until, use)
    bears_next = None if line.last else family.ends.bears_next
    return RoundPlan(r, line.melt, rows, line.work, windows, never, bears_next, bands)


def _mostly(part: Spread, whole: Spread) -> bool:
    return 2 * (part.high - part.low) > whole.high - whole.low


def cook_plan(plan: PlanInput, c: PotCook, carried_kg: float) -> CookPlan:
    """A cook's numbers, explained [kg, s, frac]. Source: definition"""
    w, pot, by = c.window, c.way.pot, c.way.by
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
        plan.lines[c.rounds[0].line].melt,
        poured=explained(
            c.poured_kg, "kg", "castings of this cook x poured a casting", given("castings", c.casts, "count"),
            sources=("geometry", "from-memory"),
        ),
        reserve=explained(
            c.reserve_kg, "kg", "a share of what is poured, beyond spares and what the pot keeps; more where so little cannot be melted, or the last is not covered",
            given("poured", c.poured_kg, "kg"), given("share", plan.reserve_frac, "frac"),
            given("to cover what is dipped, the bowl tilted", bath_left_kg(c.way, [plan.lines[r.line] for r in c.rounds]), "kg"),
            sources=("common-practice", "geometry"),
        ),
        residue=explained(
            c.residue_kg, "kg", "film left on wall and floor after draining x what this pot was seen to keep of it",
            given("pot diameter", pot.diameter_m, "m"), given("depth", w.depth_m, "m"),
            given("drained for", c.way.melt.spread("drain"), "s"),
            given("kept against the film", c.way.residue_factor, "frac"), sources=("jeffreys-1930", "assumption"),
        ),
        bags=explained(
            c.bags_kg, "kg", "what stays in a bag that was squeezed out x bags", given("a bag", material("kitchen", "usual", "bag").spread("keeps"), "kg"),
            sources=("from-memory",),
        ),
        charge=explained(
            combine(c.charge_kg, [[c.charge_kg - c.residue_kg.likely + r for r in (c.residue_kg.low, c.residue_kg.high)]]),
            "kg", "poured + reserve + what stays in the pot and in bags",
            given("poured", c.poured_kg, "kg"), given("reserve", c.reserve_kg, "kg"), given("stays in bags", c.bags_kg, "kg"),
            given("stays in the pot", c.residue_kg, "kg"), sources=("jeffreys-1930", "common-practice"),
        ),
        fresh=explained(
            c.fresh_kg, "kg", "charge less what the cook before left in the pot",
            given("charge", c.charge_kg, "kg"), given("from the cook before", carried_kg, "kg"),
        ),
        water=by.water_told(c),
        water_left=by.water_left_told(plan, c),
        hob=by.hob_told(c),
        bursts=plan_bursts(c.heating).steps if isinstance(c.heating, Bowl) else None,
        nib_bursts=by.nib_bursts(c, plan.paces.stir_s),
        opens=by.opens_told(c, pot_inputs),
        closes=by.closes_told(c, pot_inputs),
        capacity=explained(
            casts_in_window(w, plan.paces.pour_each_s), "count", "width of the pour window / seconds a cavity",
            given("window", w.width, "s"), given("a cavity", plan.paces.pour_each_s, "s"),
            sources=("definition",), limited_by=w.limited_by,
        ),
    )  # fmt: skip


def melt_plan(key: str, cooks: list[PotCook]) -> MeltPlan:
    """The four weights of one material, and what to weigh out [kg].

    Args:
        key: of the material
        cooks: its own, in order
    Source: geometry, jeffreys-1930, common-practice
    """
    melt, last = cooks[0].way.melt, cooks[-1]
    density = melt.spread("density_melt")
    ratio = Spread(density.low / density.likely, 1.0, density.high / density.likely)
    poured, finished = sum(c.poured_kg for c in cooks), sum(c.finished_kg for c in cooks)
    left, residue, count = last.left_kg, last.residue_kg, sum(c.casts for c in cooks)
    return MeltPlan(
        key, melt.key, family_of(melt).made, cooks[0].way.colour, melt.name, len(cooks),
        poured=explained(
            ratio.times(poured), "kg", "castings x poured a casting, spares with them",
            given("castings", count, "count"), sources=("geometry", "from-memory"),
        ),
        scraped=explained(
            poured - finished, "kg", "poured - finished: goes back into the vessel",
            given("poured", poured, "kg"), given("finished", finished, "kg"), sources=("assumption",),
        ),
        left=explained(
            combine(left, [[max(left + r - residue.likely, 0.0) for r in (residue.low, residue.high)]]),
            "kg", "in the vessel and on tools after the last pour: film on the vessel, reserve, what was scraped off",
            given("film on the vessel", residue, "kg"), given("reserve", last.reserve_kg, "kg"),
            given("scraped", last.scraped_kg, "kg"), sources=("jeffreys-1930", "assumption"),
        ),
        finished=explained(
            ratio.times(finished), "kg", "castings x finished a casting",
            given("castings", count, "count"), sources=("geometry", "from-memory"),
        ),
        fresh=explained(
            sum(c.fresh_kg for c in cooks), "kg", "to weigh out over all cooks; each goes on with what the one before left",
            given("cooks", len(cooks), "count"), given("finished", finished, "kg"), given("left at the end", left, "kg"),
            sources=("jeffreys-1930", "common-practice"),
        ),
    )  # fmt: skip
