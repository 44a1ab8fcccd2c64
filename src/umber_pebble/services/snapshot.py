"""Everything a plan rests on, taken together; frozen as it stands when a run starts."""

from collections import Counter
from collections.abc import Mapping
from datetime import datetime

from pydantic import Field

from umber_pebble.core.families.known import family_of
from umber_pebble.core.glass.water import pressure_pa
from umber_pebble.core.heat.casting import Place as PlaceCase
from umber_pebble.core.heat.convection import thin_air_factor
from umber_pebble.core.heat.vessel import Pot
from umber_pebble.core.materials.load import material, model_factors
from umber_pebble.core.plan.divided import divided
from umber_pebble.core.plan.kept_warm import kept_warm
from umber_pebble.core.plan.problem import HandStep, MeltWay, Named, Paces, PlanInput, PlanLine
from umber_pebble.core.plan.sheets import on_one_sheet
from umber_pebble.core.plan.spares import BreakRate
from umber_pebble.core.spread import Spread
from umber_pebble.services.builds import Wanted, lines_of, pressed
from umber_pebble.services.built import Built, body_key, build_key, build_of
from umber_pebble.services.doc_base import Doc
from umber_pebble.services.documents import Kitchen, Mould, Order, OwnMaterial, Place, SheetRow, Vessel
from umber_pebble.services.finishing import MadeBy, finishes_of
from umber_pebble.services.hours import openings
from umber_pebble.services.joins import Before, joins_of
from umber_pebble.services.materials_own import castable
from umber_pebble.services.ovens import FactorSpread
from umber_pebble.services.piece_docs import Part, Piece
from umber_pebble.services.places import air_degc, pick, place_case, place_degc, way_of
from umber_pebble.services.shared_parts import At, made_as
from umber_pebble.services.together import Share, due_of_line
from umber_pebble.services.warmers import keeper_of
from umber_pebble.services.way_docs import WayDoc
from umber_pebble.services.ways import making_of, usual_ways
from umber_pebble.services.wishing import away_of, leaves_of, wishes_of


class Counts(Doc):
    broken: int
    good: int


class Snapshot(Doc):
    """Order, kitchen, pieces, moulds, the workshop's own materials among them, and calibrations, with the versions they had.

    shares: what of each line is for which of the orders that are made together, nothing of one alone; breaks by material and mould, loss, residue and how thick it still fills by vessel, what couples by oven; of a run, what the
    tables said of each melt when it was started.
    """

    order: Order
    kitchen: Kitchen
    pieces: dict[str, Piece]
    moulds: dict[str, Mould]
    materials: dict[str, OwnMaterial] = Field(default_factory=dict)
    versions: dict[str, int]
    breaks: dict[str, Counts]
    loss: dict[str, FactorSpread]
    residue: dict[str, FactorSpread]
    ovens: dict[str, FactorSpread] = Field(default_factory=dict)
    fills: dict[str, FactorSpread] = Field(default_factory=dict)
    rows: dict[str, dict[str, FactorSpread]] = Field(default_factory=dict)
    shares: list[Share] = Field(default_factory=list)
    parts_together: bool = Field(default=False, description="parts alike of several pieces are made together")


def prior_loss() -> Spread:
    """A pot's loss against the model before any run."""
    return model_factors()["loss_factor"].spread


def prior_coupling() -> Spread:
    """What an oven couples against the usual share before any run: that share's own spread."""
    usual = material("kitchen", "coupling", "microwave").spread("share")
    return usual.times(1 / usual.likely)


def prior_fills() -> Spread:
    """How much thicker than reckoned a melt fills, before any run."""
    return material("kitchen", "usual", "fills").spread("off")


def prior_residue() -> Spread:
    """Melt a pot keeps against the film before any run: the film's own spread, so no factor on it."""
    return Spread(0.7, 1.0, 1.4)


def places(snapshot: Snapshot) -> dict[str, PlaceCase]:
    """The places a mould may lie in."""
    return {p.id: place_case(p, snapshot.kitchen) for p in snapshot.kitchen.places}


def break_key(melt: str, mould_id: str, cavity: int, build: str) -> str:
    """What break rates are kept by: material, mould, kind of cavity, and build where it is more than a fill."""
    return f"{melt.partition('#')[0]}:{mould_id}:{cavity}{f':{build}' if build else ''}"


def break_key_of(line: PlanLine) -> str:
    """The same of a line of a plan."""
    return break_key(line.melt, line.mould.mould_id, line.mould.kind, line.build)


def break_of(part: Part) -> str | None:
    """The same of a part, by the melt it is unmoulded in; None where nothing in it is melted."""
    if not part.melts:
        return None
    mould = part.mould_id or (body_key(part.body) if part.body else "")
    return break_key(part.melts[-1].material, mould, part.cavity, build_key(part))


def pot_case(vessel: Vessel, stand: Place, kitchen: Kitchen, loss: Spread) -> Pot:
    """A vessel on its stand as the engine takes it."""
    return Pot(
        vessel.diameter_m,
        vessel.height_m,
        vessel.mass_kg,
        material("kitchen", vessel.made_of, "pot"),
        material("surfaces", stand.surface),
        place_degc(stand, kitchen),
        air_degc(stand, kitchen),
        loss,
        thin_air_factor(pressure_pa(kitchen.altitude_m)),
    )


def rows_of(plan: PlanInput) -> dict[str, dict[str, FactorSpread]]:
    """What is reckoned with of each melt of a plan."""
    melts = {way.melt.key: way.melt for way in plan.ways.values()}
    return {
        key: {
            name: FactorSpread(low=of.spread.low, likely=of.spread.likely, high=of.spread.high)
            for name, of in melt.properties.items()
        }
        for key, melt in melts.items()
    }


def materials_of(snapshot: Snapshot) -> dict[str, OwnMaterial]:
    """The workshop's own materials, and any whose rows the tables have changed since a run was started: as it was then."""
    out = dict(snapshot.materials)
    for key, rows in snapshot.rows.items():
        today = castable(key, out, "material")
        changed = [
            SheetRow(name=name, **was.model_dump())
            for name, was in rows.items()
            if name in today.properties and today.spread(name) != was.spread()
        ]
        if changed:
            of = out.get(key, OwnMaterial(name=today.name, like=key, sheet=[]))
            names = {row.name for row in changed}
            kept = [row for row in of.sheet if row.name not in names]
            out[key] = of.model_copy(update={"sheet": [*kept, *changed]})
    return out


def _ways(snapshot: Snapshot, lines: list[PlanLine], own: Mapping[str, OwnMaterial]) -> dict[str, MeltWay]:
    """How each melt is made: the largest of a material's colours, or what they are divided off, in the order's own vessel, the others in what
    else there is."""
    weights: dict[str, float] = {}
    for line in lines:
        weights[line.melt] = weights.get(line.melt, 0.0) + line.cast.poured.value.likely * line.quantity
    bases = {melt: base for melt in weights if (base := _divided_off(snapshot, melt, own))}
    for melt, base in bases.items():
        weights[base] = weights.get(base, 0.0) + weights[melt]
    chosen = {row.melt: row.vessel_id for row in snapshot.order.vessels}
    taken: list[str] = list(chosen.values())
    together = _molten_together(lines)
    ways: dict[str, MeltWay] = {}
    for melt in sorted(weights, key=lambda m: (-weights[m], m in bases)):
        if melt in bases:
            vessel_id = chosen.get(melt) or _of_its_own(snapshot, ways[bases[melt]], taken)
            usual = _way(snapshot, melt, vessel_id, own, bases[melt])
        else:
            usual = _way(snapshot, melt, chosen.get(melt), own)
            if melt not in chosen and usual.vessel_id in taken:
                beside = {
                    ways[other].vessel_id for them in together if melt in them for other in them & ways.keys()
                }
                usual = _way(snapshot, melt, _another(snapshot, usual, taken, beside), own)
        taken.append(usual.vessel_id)
        ways[melt] = usual
    return {melt: ways[melt] for melt in weights}


def _molten_together(lines: list[PlanLine]) -> list[set[str]]:
    """Melts that go into one pass, one into or beside the other."""
    out = list[set[str]]()
    for line in lines:
        under = lines[line.after] if line.after is not None else None
        if under is not None and under.with_next:
            out[-1].add(line.melt)
        else:
            out.append({line.melt})
    return out


def _otherwise(
    snapshot: Snapshot, lines: list[PlanLine], own: Mapping[str, OwnMaterial]
) -> dict[str, dict[str, MeltWay]]:
    """By family, all ways if its colours were divided off one pot, or where they are, each melted by itself."""
    materials = Counter(key.partition("#")[0] for key in {line.melt for line in lines})
    families = dict.fromkeys(
        family_of(castable(key, own, "material")).key for key, n in materials.items() if n > 1
    )
    out = {}
    for family in families:
        way = _chosen(snapshot, family)
        other = way.model_copy(update={"divided": not way.divided})
        if other.divided != way.divided:
            order = snapshot.order.model_copy(update={"ways": {**snapshot.order.ways, family: other}})
            out[family] = _ways(snapshot.model_copy(update={"order": order}), lines, own)
    return out


def _chosen(snapshot: Snapshot, family: str) -> WayDoc:
    return snapshot.order.ways.get(family) or usual_ways(snapshot.kitchen)[family]


def _divided_off(snapshot: Snapshot, melt_key: str, own: Mapping[str, OwnMaterial]) -> str | None:
    """What a colour is divided off, if its order says so."""
    key, _, colour = melt_key.partition("#")
    return key if colour and _chosen(snapshot, family_of(castable(key, own, "material")).key).divided else None


def _another(snapshot: Snapshot, usual: MeltWay, taken: list[str], beside: set[str]) -> str:
    """A vessel of the same make that nothing else is in, or the fewest of the others, and none of what is molten beside it; of several
    the usual one first."""
    metal = usual.pot.metal.flags["metal"]
    alike = [
        v.id for v in snapshot.kitchen.vessels if material("kitchen", v.made_of, "pot").flags["metal"] == metal
    ]
    return min(alike, key=lambda v: (v in beside, taken.count(v), v != usual.vessel_id))


def _of_its_own(snapshot: Snapshot, base: MeltWay, taken: list[str]) -> str:
    """A vessel for what is divided off: one that bears it and may go into a microwave, where there is one, or else one like its base's;
    that nothing else is in, the smallest first."""
    walls = {v.id: material("kitchen", v.made_of, "pot") for v in snapshot.kitchen.vessels}
    metal = base.pot.metal.flags["metal"]

    def last(v: Vessel) -> tuple[bool, int, float]:
        warms = bool(snapshot.kitchen.microwaves) and not walls[v.id].flags["metal"]
        fits = warms or walls[v.id].flags["metal"] == metal
        return not fits or walls[v.id].value("bears") < base.end_degc, taken.count(v.id), v.mass_kg

    return min(snapshot.kitchen.vessels, key=last).id


def _way(
    snapshot: Snapshot,
    melt_key: str,
    vessel_id: str | None,
    own: Mapping[str, OwnMaterial],
    out_of: str | None = None,
) -> MeltWay:
    kitchen = snapshot.kitchen
    key, _, colour = melt_key.partition("#")
    melt = castable(key, own, "material")
    family = family_of(melt)
    chosen = _chosen(snapshot, family.key)
    path = f"ways.{family.key}"
    vessel = pick(kitchen.vessels, vessel_id or chosen.vessel_id, f"{path}.vessel_id")
    stand = pick(kitchen.places, chosen.stand_id, f"{path}.stand_id")
    place = pick(kitchen.places, chosen.place_id, f"{path}.place_id")
    warmer = None if chosen.kept_id is None else pick(kitchen.warmers, chosen.kept_id, f"{path}.kept_id")
    metal = material("kitchen", vessel.made_of, "pot").flags["metal"]
    if out_of is not None and kitchen.microwaves and not metal:
        chosen = chosen.for_portions(kitchen.microwaves[0].id)
    by = making_of(chosen, family, melt, kitchen, snapshot.ovens)
    # hot sugar is not carried about: its moulds set where they are poured
    poured_on = place if family.hot else stand
    loss, residue = snapshot.loss[vessel.id].spread(), snapshot.residue[vessel.id].spread()
    return MeltWay(
        melt,
        pot_case(vessel, stand, kitchen, loss),
        vessel.id,
        by,
        place_case(poured_on, kitchen),
        poured_on.id,
        place_case(place, kitchen),
        place.id,
        stand.id,
        residue,
        f"#{colour}" if colour else None,
        snapshot.fills[vessel.id].spread() if vessel.id in snapshot.fills else prior_fills(),
        None if warmer is None else keeper_of(pot_case(vessel, stand, kitchen, loss), warmer, kitchen.room_degc),
        out_of,
    )


def _lies_at_last(snapshot: Snapshot, part: Part, built: Built) -> str:
    """The id of the place a part comes out of: its own, or where its family sets."""
    if part.stays:
        return part.stays[-1].place_id
    melts = [built.passes[row.index].material(built.own) for row in built.laid if row.cast]
    return _chosen(snapshot, family_of(melts[-1]).key).place_id if melts else snapshot.kitchen.places[0].id


def plan_input(snapshot: Snapshot, now: datetime) -> PlanInput:
    """The engine's problem from the documents.

    Raises: OutOfRange: a ring, vessel, oven or place is gone; a size is impossible.
    """
    order, kitchen = snapshot.order, snapshot.kitchen
    lines, steps, own = list[PlanLine](), list[HandStep](), materials_of(snapshot)
    paces = Paces(**kitchen.paces.model_dump())
    alike = made_as(order, snapshot.pieces, snapshot.shares, snapshot.parts_together)
    known: dict[At, tuple[int | None, int | None]] = {}
    for item, row in enumerate(order.lines):
        piece = snapshot.pieces[row.piece_id]
        lasts, made = list[int | None](), list[int | None]()
        for i, part in enumerate(piece.parts):
            one = alike[item, i]
            if one.first in known:
                last, step = known[one.first]
                lasts.append(last)
                made.append(step)
                continue
            counts = snapshot.breaks.get(break_of(part) or "", Counts(broken=0, good=0))
            wanted = Wanted(one.item, one.named, one.quantity, order.lines[one.item].spares)
            built = build_of(part, snapshot.moulds.get(part.mould_id or ""), own)
            more = lines_of(
                part,
                built,
                wanted,
                BreakRate(counts.broken, counts.good),
                way_of(part.stays, kitchen, f"pieces.{row.piece_id}.stays"),
                paces,
                len(lines),
            )
            lines += more
            lasts.append(len(lines) - 1 if more else None)
            made.append(None if more else len(steps))
            if not more:
                steps.append(pressed(part, built, wanted, paces))
            by = MadeBy(lasts[-1], _lies_at_last(snapshot, part, built), made[-1])
            if finishes := list(finishes_of(built, wanted, kitchen, by, len(steps))):
                steps += finishes
                made[-1] = len(steps) - 1
            known[one.first] = lasts[-1], made[-1]
        joins = joins_of(
            piece, Before(lasts, made), lines, Wanted(item, Named(piece.name), row.quantity), own, kitchen
        )
        lines += joins.lines
        steps += joins.steps
    due = [due_of_line(order, snapshot.shares, item) for item in range(len(order.lines))]
    people = tuple(dict.fromkeys(order.people)) or ("",)
    asked = PlanInput(
        lines=tuple(lines),
        ways=_ways(snapshot, lines, own),
        otherwise=_otherwise(snapshot, lines, own),
        due_s=(max(due) - now).total_seconds(),
        open_s=openings(kitchen.hours, kitchen.zone, now, max(due)),
        sooner_s=tuple((max(due) - of).total_seconds() for of in due),
        paces=paces,
        room_degc=kitchen.room_degc,
        humidity_frac=kitchen.humidity_frac,
        altitude_m=kitchen.altitude_m,
        confidence_frac=order.confidence_frac,
        reserve_frac=order.reserve_frac,
        by_hand=tuple(steps),
        shelves={p.id: p.moulds for p in kitchen.places if p.moulds is not None},
        people=people,
        leaves=leaves_of(kitchen, people),
        away=away_of(kitchen, people, now, max(due)),
        wishes=wishes_of(order, people, now),
        kept=order.timetable.table() if order.timetable else None,
        soon=order.begins == "soon",
    )
    return kept_warm(divided(on_one_sheet(asked)))
