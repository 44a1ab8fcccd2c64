"""The plan's numbers put into words: each with its formula, inputs, sources and what limits it."""

from dataclasses import dataclass
from typing import Any

from umber_pebble.core.explained import Explained, explained, given
from umber_pebble.core.heat.melting import Melting, conductance
from umber_pebble.core.heat.pour import SugarFlow
from umber_pebble.core.heat.windows import PieceWindows
from umber_pebble.core.materials.load import material
from umber_pebble.core.melts.bursts import Belief, Bowl, Next, plan_bursts
from umber_pebble.core.melts.oven import nib_bursts, nib_duty_frac
from umber_pebble.core.pieces.cast import CastAmounts
from umber_pebble.core.plan.charge import bath_left_kg
from umber_pebble.core.plan.cooks import PotCook, Round, casts_in_window, path_of
from umber_pebble.core.plan.problem import Handful, Line, PlanInput, SugarCook
from umber_pebble.core.plan.spares import chance_enough_frac
from umber_pebble.core.spread import Spread, combine


@dataclass(frozen=True, slots=True)
class LinePlan:
    """One pour: castings to make and one casting's grams; item: the line of the order it is part of; last: a casting leaves its
    mould after it; first: what is put in before it; at_once: castings of a round at most, limited_by what."""

    name: str
    item: int
    last: bool
    kind: str
    melt: str
    quantity: int
    casts: Explained
    amount: CastAmounts
    first: tuple[Handful, ...]
    rounds: int
    at_once: int
    limited_by: str


@dataclass(frozen=True, slots=True)
class RoundPlan:
    """One round's windows by name, from its pour [s]; never: those it does not reach within the horizon."""

    round: Round
    melt: str
    work: str | None
    windows: dict[str, Explained]
    never: tuple[str, ...]


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
    """One material's grams over all its cooks."""

    melt: str
    name: str
    cooks: int
    poured: Explained
    scraped: Explained
    left: Explained
    finished: Explained
    fresh: Explained


def line_plan(line: Line, confidence: float, casts: int, rounds: int, at_once: int, limited_by: str) -> LinePlan:
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
        line.name, line.item, line.cast_off, line.kind, line.melt, line.quantity, number, line.cast, line.first, rounds,
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
UNMOULD = {
    True: "from the pour until its hottest place is glass",
    False: "from the pour until all of it has set and is cold enough to let go of the mould",
}


def round_plan(plan: PlanInput, r: Round, w: PieceWindows) -> RoundPlan:
    """A round's windows, explained [s from the pour]. Source: definition"""
    line = plan.lines[r.line]
    place, sugar = path_of(plan, line, r.casts)[-1].place, isinstance(plan.way(line).by, SugarCook)
    shared = (
        given("depth", line.fill_m, "m"),
        given("mould wall", line.mould.wall_m, "m"),
        given("surface under the mould", place.surface_degc, "degC"),
        given("air", place.air_degc, "degC"),
    )

    def window(name: str) -> Explained:
        value, what = w.at[name], UNMOULD[sugar] if name == "unmould" else WHAT[name]
        limit = "degC" if sugar or name == "over_chilled" else "frac"
        inputs = [given("reached at", w.limits[name], limit)] if name in w.limits else []
        if "unmould_degc" in w.limits and name == "unmould":
            inputs.append(given("and colder than", w.limits["unmould_degc"], "degC"))
        why = "the water this cook leaves" if _mostly(w.by_material[name], value) else "heat to mould and air"
        if not sugar:
            why = {"heat": "heat to mould and air", "setting": "how fast the fat sets"}[w.limited_by[name]]
        science = "williams-landel-ferry-1955" if sugar else "avrami-1939"
        return explained(
            value, "s", what, *inputs, *shared, sources=(science, "patankar-1980", "definition"), limited_by=why
        )

    cool = explained(
        w.cool_to_hold, "s", WHAT["cool_to_hold"], *shared, sources=("iso-13732-1", "patankar-1980"),
        limited_by="heat to mould and air",
    )  # fmt: skip
    told = [name for name in (*WHAT, "unmould") if name in w.at]
    windows = {name: window(name) for name in told} | {"cool_to_hold": cool}
    return RoundPlan(r, line.melt, line.work, windows, tuple(name for name in told if w.never(name)))


def _mostly(part: Spread, whole: Spread) -> bool:
    return 2 * (part.high - part.low) > whole.high - whole.low


def cook_plan(plan: PlanInput, c: PotCook, carried_kg: float) -> CookPlan:
    """A cook's numbers, explained [kg, s, frac]. Source: definition"""
    w, pot = c.window, c.way.pot
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
        water=_water(c),
        water_left=_water_left(plan, c),
        hob=_hob(c),
        bursts=plan_bursts(c.heating).steps if isinstance(c.heating, Bowl) else None,
        nib_bursts=_nib_bursts(plan, c),
        **_opens_and_closes(c, pot_inputs),
        capacity=explained(
            casts_in_window(w, plan.paces.pour_each_s), "count", "width of the pour window / seconds a cavity",
            given("window", w.width, "s"), given("a cavity", plan.paces.pour_each_s, "s"),
            sources=("definition",), limited_by=w.limited_by,
        ),
    )  # fmt: skip


def _water(c: PotCook) -> Explained:
    if not isinstance(c.way.by, SugarCook):
        return explained(0.0, "kg", "none: a drop of water seizes it", sources=("common-practice",))
    return explained(
        c.water_kg, "kg",
        "a tenth of the isomalt added, since the cook is large" if c.wet else "none: a small cook is melted dry",
        given("isomalt added", c.fresh_kg, "kg"), given("share", c.way.melt.value("water_added"), "frac"),
        given("large from", c.way.melt.value("large_cook"), "kg"), sources=("common-practice",),
    )  # fmt: skip


def _water_left(plan: PlanInput, c: PotCook) -> Explained | None:
    if c.water_left is None or not isinstance(c.flow, SugarFlow):
        return None
    return explained(
        c.water_left, "frac",
        "boiling table at the cook temperature and altitude" if c.wet else "a dry melt's own value, widely spread",
        given("cooked to", c.way.end_degc, "degC"), given("altitude", plan.altitude_m, "m"),
        given("glass transition", c.flow.tg, "degC"),
        sources=("sugar-boiling-table", "gordon-taylor-1952") if c.wet else ("assumption", "gordon-taylor-1952"),
    )  # fmt: skip


def _nib_bursts(plan: PlanInput, c: PotCook) -> int | None:
    by = c.way.by
    if not isinstance(by, SugarCook) or not by.ring.bursts:
        return None
    return nib_bursts(c.hob.likely * nib_duty_frac(plan.paces.stir_s))


def _hob(c: PotCook) -> Explained:
    pot, by = c.way.pot, c.way.by
    if isinstance(by, SugarCook):
        return explained(
            c.hob, "s", "heat for sugar, melting, water, what boils off and the pot, over the ring's power less the loss",
            given("ring", by.ring.power_w, "W"), given("share that arrives", by.ring.efficiency, "frac"),
            given("melt", c.charge_kg, "kg"), given("water", c.water_kg, "kg"), given("pot", pot.mass_kg, "kg"),
            sources=("incropera-2007", "cammenga-zielasko-1996", "from-memory"), limited_by="the ring's power",
        )  # fmt: skip
    shared = (
        given("melt", c.charge_kg, "kg"),
        given("bowl", pot.mass_kg, "kg"),
        given("melted to", by.melt_to_degc, "degC"),
    )
    if isinstance(c.heating, Melting):
        return explained(
            c.hob, "s", "heat for fat, melting and bowl, over what the hot water gives through the bowl",
            given("water", c.heating.by.water_degc, "degC"), given("conductance", conductance(), "W/m2K"), *shared,
            sources=("beckett-2009", "assumption"), limited_by="the bath",
        )  # fmt: skip
    assert isinstance(c.heating, Bowl)
    oven, school, share = c.heating.oven, c.heating.school, Belief(c.heating).oven_frac
    return explained(
        c.hob, "s", "bursts until it stops as its school has it, each with its stir",
        given("microwave", oven.power_w, "W"), given("share that couples", share, "frac"),
        given("of full power", school.power_frac, "frac"), given("wafers", c.heating.wafer_m, "m"),
        given("a stir", oven.stir_s, "s"), *shared,
        sources=("beckett-2009", "common-practice"), limited_by="the microwave's power",
    )  # fmt: skip


def _opens_and_closes(c: PotCook, pot_inputs: tuple[Any, ...]) -> dict[str, Explained]:
    w, melt = c.window, c.way.melt
    if isinstance(c.flow, SugarFlow):
        assert c.water_left is not None
        return {
            "opens": explained(
                w.opens, "s", "off the heat until it no longer boils, the bubbles have risen and the mould bears it",
                given("at", w.open_degc, "degC"), *pot_inputs, given("bubble radius", melt.value("bubble_radius"), "m"),
                sources=("stokes-1851", "hadamard-rybczynski-1911", "incropera-2007"), limited_by=w.limited_by,
            ),
            "closes": explained(
                w.closes, "s", "off the heat until it is too thick to spread to the edge and into the finest detail before it cools there",
                given("at", w.close_degc, "degC"), given("thickness then", c.flow.closes, "log10 Pa s"),
                given("seen to pour against reckoned", c.way.fills_off, "log10 Pa s"),
                given("water left", c.water_left, "frac"), *pot_inputs,
                sources=("huppert-1982", "bird-2002", "williams-landel-ferry-1955", "gordon-taylor-1952", "assumption"),
                limited_by="what is poured, its mould, and the water this cook leaves",
            ),
        }  # fmt: skip
    return {
        "opens": explained(
            w.opens, "s", "off the heat until it is cool enough to pour and the mould bears it",
            given("at", w.open_degc, "degC"), given("dipped below" if c.flow.dips else "poured below", c.flow.at_most_degc, "degC"), *pot_inputs,
            sources=("common-practice", "incropera-2007"), limited_by=w.limited_by,
        ),
        "closes": explained(
            w.closes, "s", "off the heat until so much of it has set that it thickens; warmed again it pours on",
            given("at", w.close_degc, "degC"), given("share set", melt.spread("set_thickens"), "frac"), *pot_inputs,
            sources=("avrami-1939", "incropera-2007", "assumption"), limited_by="how fast the fat sets",
        ),
    }  # fmt: skip


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
        key, melt.name, len(cooks),
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
