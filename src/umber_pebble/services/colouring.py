"""Colours at hand, recipes for a wanted colour, how a batch will look, and a colour's strength from a swatch."""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from functools import lru_cache
from typing import Literal

import numpy as np
from pydantic import Field
from sqlalchemy.orm import Session

from umber_pebble.core.colour.look import THINNEST_M, Medium, spectrum
from umber_pebble.core.colour.recipe import FAR_OFF, MOST_AT_HAND, HeldBy, strong_recipe
from umber_pebble.core.colour.spaces import LIGHTS, Array, hex_of_lab, lab_of_hex, lab_of_spectrum
from umber_pebble.core.errors import OutOfRange, require_range
from umber_pebble.core.families.family import Rows
from umber_pebble.core.families.known import family_of
from umber_pebble.core.materials.load import Material, material, materials, table
from umber_pebble.core.plan.compile import Plan
from umber_pebble.core.plan.pastes import PasteNeed, pastes_of
from umber_pebble.core.spread import Spread
from umber_pebble.services.doc_base import Doc, Id
from umber_pebble.services.documents import Colour
from umber_pebble.services.errors import NotFound
from umber_pebble.services.workshop import Workshop, colours, own_materials

MELTS_OF: dict[str, list[str]] = {base: row["melts"] for base, row in table("bases").items()}
"""Of which melts a base is; the first says its density."""
LEAST_MG_KG, PATCHES = 5.0, 14
NEARER = 2.0
"""Another base is worth naming when it comes so much nearer [CIEDE2000]."""
STREAKS = "an oil-based colour streaks in sugar paste: take a gel or powder that is water-based"
PARTS = "an oil-based colour parts from sugar: take a water-based one, after the bubbles have gone down"
SEIZES = "a water-based colour seizes fat: take an oil-based one or a powder"


class Already(Doc):
    """Of a colour, what is in the batch already."""

    colour_id: Id
    grams: float = Field(ge=0, le=1000)


class RecipeRequest(Doc):
    """A batch to be coloured: its base and weight, the wanted colour, the thicknesses it is cast to (the first decides), and
    the colours to choose from."""

    base: Id
    batch_kg: float
    wanted: str = Field(max_length=20)
    thicknesses_m: list[float] = Field(min_length=1, max_length=3)
    on_white: bool
    colour_ids: list[Id] = Field(max_length=12)
    already: list[Already] = Field(max_length=12)


class PatchesRequest(Doc):
    """Patches of a colour to hold a swatch against."""

    base: Id
    colour_id: Id
    thickness_m: float


@dataclass(frozen=True, slots=True)
class Dose:
    """Of a colour: its dye in the batch [mg/kg], what is still to be added [kg], None while its strength is unknown; drops of
    40 mg when it is water-based."""

    colour_id: str
    name: str
    mg_kg: float
    add_kg: float | None
    drops: float | None


@dataclass(frozen=True, slots=True)
class Swatch:
    """How a thickness looks, as #rrggbb by light."""

    thickness_m: float
    looks: dict[str, str]


@dataclass(frozen=True, slots=True)
class Coloured:
    """A recipe: doses, how far off it is [CIEDE2000], what holds it back, swatches of what was wanted and what is reached, all
    dyes together [mg/kg] and the most that is usual; what is stirred in by weight [frac], what oil-based colour then does to the
    fat ("", "thins", "softens"), whether it is a strong colour that costs much of it, and
    another base of the same melt that comes nearer, None where this one is right."""

    clear: bool
    doses: list[Dose]
    delta_e: float
    held_by: HeldBy
    lighter: float
    redder: float
    yellower: float
    swatches: list[Swatch]
    plain: str
    total_mg_kg: float
    most_mg_kg: float
    added_frac: float
    oil: Literal["", "thins", "softens"]
    strong: bool
    better_base: str | None


@dataclass(frozen=True, slots=True)
class MeltDose:
    """What colours a melt of a plan, for all of it that is weighed out: the colour wanted as hex, doses, how far off it is [CIEDE2000], what holds it back,
    and how it will look; why: what keeps it from being coloured at all; base: what it is started from."""

    melt: str
    wanted: str
    wording: Rows
    doses: list[Dose]
    delta_e: float
    held_by: HeldBy
    look: str
    why: Literal["", "no_colours", "no_base"]
    base: str


@dataclass(frozen=True, slots=True)
class Patch:
    mg_kg: float
    look: str


def _usual() -> Material:
    return material("kitchen", "usual", "colouring")


def _most() -> Spread:
    """The most of all colours together: as is usual, and for a strong red or black [mg/kg]."""
    usual = _usual()
    return Spread(0.0, usual.value("most"), usual.value("most_strong"))


def _medium(base: Material, thickness_m: float, on_white: bool) -> Medium:
    first = MELTS_OF[base.key][0]
    if first in materials("pastes"):
        return Medium(base, material("pastes", first).value("density"), thickness_m, on_white)
    return Medium(base, material("melts", first).value("density_melt"), thickness_m, on_white)


def _takes(base: Material) -> Literal["water", "oil"]:
    """Which kind of colour goes into a base."""
    return "water" if base.flags.get("water_based", False) else "oil"


def _colours(workshop: Workshop, ids: list[str], base: Material) -> list[tuple[str, Colour]]:
    known = {stored.id: stored.doc for stored in workshop.all("colour")}
    out = []
    for i, colour_id in enumerate(dict.fromkeys(ids)):
        doc = known.get(colour_id)
        if not isinstance(doc, Colour):
            raise NotFound(f"there is no colour {colour_id}", path=f"colour_ids.{i}", got=colour_id)
        if doc.kind != _takes(base):
            wrong = SEIZES if doc.kind == "water" else PARTS if base.flags.get("clear", False) else STREAKS
            raise OutOfRange(
                f"{doc.name}: {wrong}",
                path=f"colour_ids.{i}",
                got=doc.kind,
                params={"seizes": doc.kind == "water"},
            )
        out.append((colour_id, doc))
    return out


def colour_batch(workshop: Workshop, asked: RecipeRequest) -> Coloured:
    """The recipe for a wanted colour, only adding to what is in the batch.

    Raises: NotFound: a colour is gone. OutOfRange: a colour of the wrong kind, a weight, dose or thickness that cannot be.
    """
    require_range("batch_kg", asked.batch_kg, 0.005, 50.0)
    base = material("bases", asked.base)
    chosen = _colours(workshop, asked.colour_ids, base)
    inside: dict[str, float] = {}
    for i, row in enumerate(asked.already):
        [(_, doc)] = _colours(workshop, [row.colour_id], base)
        if row.grams and doc.mg_per_g is None:
            raise OutOfRange(
                f"{doc.name}: its strength is not known, so what is in it is not: lay a swatch first",
                path=f"already.{i}.grams",
                got=row.grams,
            )
        inside[doc.dye] = inside.get(doc.dye, 0.0) + row.grams * (doc.mg_per_g or 0.0) / asked.batch_kg
    return _recipe(asked, chosen, inside)


def _recipe(asked: RecipeRequest, chosen: list[tuple[str, Colour]], inside: dict[str, float]) -> Coloured:
    media = [_medium(material("bases", asked.base), t, asked.on_white) for t in asked.thicknesses_m]
    dyes = dict(_dye_of(chosen))
    wanted, most = lab_of_hex(asked.wanted), _most()
    found = strong_recipe(media[0], wanted, list(dyes.values()), most, inside)
    keys = tuple(found.doses_mg_kg) or (next(iter(dyes.values())),)
    doses = np.array([found.doses_mg_kg.get(key, 0.0) for key in keys])
    lab = np.array(found.lab)
    rows = _doses(chosen, found.doses_mg_kg, inside, asked.batch_kg)
    added, limits = sum(row.add_kg or 0.0 for row in rows) / asked.batch_kg, _usual().spread("thins")
    total = float(sum(found.doses_mg_kg.values()))
    return Coloured(
        clear=media[0].clear,
        doses=rows,
        delta_e=found.delta_e,
        held_by=found.held_by,
        lighter=float(wanted[0] - lab[0]),
        redder=float(wanted[1] - lab[1]),
        yellower=float(wanted[2] - lab[2]),
        swatches=[Swatch(m.thickness_m, _looks(m, doses, keys)) for m in media],
        plain=_looks(media[0], np.zeros_like(doses), keys)["daylight"],
        total_mg_kg=total,
        most_mg_kg=most.likely,
        added_frac=added,
        oil=""
        if _takes(media[0].base) == "water" or added < limits.likely
        else "softens"
        if added > limits.high
        else "thins",
        strong=total >= _usual().value("strong"),
        better_base=_better_base(asked, list(dyes.values()), found.delta_e),
    )


def _better_base(asked: RecipeRequest, dyes: list[str], off: float) -> str | None:
    """Where this base stays far off: one of the same melt that does not, as black from dark."""
    others = [base for base in BASES_OF[MELTS_OF[asked.base][0]] if base != asked.base]
    if off <= FAR_OFF or not others:
        return None
    wanted = lab_of_hex(asked.wanted)
    media = [(base, _medium(material("bases", base), asked.thicknesses_m[0], asked.on_white)) for base in others]
    nearest = min((strong_recipe(m, wanted, dyes, _most()).delta_e, base) for base, m in media)
    return material("bases", nearest[1]).name if nearest[0] < off - NEARER else None


def _dye_of(chosen: list[tuple[str, Colour]]) -> list[tuple[str, str]]:
    """One colour for each dye: the first that has it."""
    seen: dict[str, str] = {}
    for colour_id, doc in chosen:
        seen.setdefault(doc.dye, colour_id)
    return [(colour_id, dye) for dye, colour_id in seen.items()]


def _doses(
    chosen: list[tuple[str, Colour]], found: dict[str, float], inside: dict[str, float], batch_kg: float
) -> list[Dose]:
    out = []
    docs = dict(chosen)
    for colour_id, dye in _dye_of(chosen):
        dose, doc = found.get(dye, 0.0), docs[colour_id]
        if dose <= 0:
            continue
        more_mg = max(dose - inside.get(dye, 0.0), 0.0) * batch_kg
        add = None if doc.mg_per_g is None else more_mg / doc.mg_per_g / 1000
        drops = add / _usual().value("drop") if add is not None and doc.kind == "water" else None
        out.append(Dose(colour_id, doc.name, dose, add, drops))
    return out


def _looks(medium: Medium, doses: Array, keys: tuple[str, ...]) -> dict[str, str]:
    light = spectrum(medium, doses, keys)
    return {name: hex_of_lab(lab_of_spectrum(light, name), name) for name in LIGHTS}


def patches(workshop: Workshop, asked: PatchesRequest) -> list[Patch]:
    """Patches of a colour from pale to strong: the one nearest to a swatch says how strong the colour is.

    Raises: as colour_batch.
    """
    base = material("bases", asked.base)
    medium = _medium(base, asked.thickness_m, False)
    [(_, doc)] = _colours(workshop, [asked.colour_id], base)
    doses = np.geomspace(LEAST_MG_KG, _usual().value("most"), PATCHES)
    labs = lab_of_spectrum(spectrum(medium, doses[:, None], (doc.dye,)))
    return [Patch(round(float(dose), 1), hex_of_lab(lab)) for dose, lab in zip(doses, labs, strict=True)]


BASES_OF = {
    melt: [base for base, of in MELTS_OF.items() if melt in of] for melts in MELTS_OF.values() for melt in melts
}
"""What a melt may be started from, the usual one first."""


def plan_doses(session: Session, plan: Plan, melts: Sequence[str] | None = None) -> list[MeltDose]:
    """The doses of a plan's coloured melts, or of some of them, by the colours at hand of its kind."""
    relatives = {key: doc.like for key, doc in own_materials(session).items()}
    docs = colours(session)
    asked = list(plan.problem.ways) if melts is None else melts
    return [_dose(plan, key, relatives, docs) for key in asked if plan.problem.ways[key].colour is not None]


def _dose(plan: Plan, key: str, relatives: dict[str, str], docs: list[tuple[str, Colour]]) -> MeltDose:
    way = plan.problem.ways[key]
    assert way.colour is not None
    bases = BASES_OF.get(relatives.get(way.melt.key, way.melt.key), [])
    family = family_of(way.melt)
    hand = tuple(row for row in docs if row[1].kind == family.dissolves)[:MOST_AT_HAND]
    if not bases or not hand:
        why: Literal["no_colours", "no_base"] = "no_colours" if bases else "no_base"
        return MeltDose(key, way.colour, family.rows, [], 0.0, "", way.colour, why, "")
    thick = next(line.cast.thickness.likely for line in plan.problem.lines if line.melt == key)
    docs_of = tuple((i, doc.model_dump_json()) for i, doc in hand)
    tried = [(base, _per_kg(base, way.colour, round(thick, 4), docs_of)) for base in bases]
    # what comes off one pot is of its base, whatever would be nearer
    base, per_kg = (
        tried[0] if way.out_of or tried[0][1].delta_e <= FAR_OFF else min(tried, key=lambda row: row[1].delta_e)
    )
    doses = _for_kg(per_kg.doses, plan.made_kg(key))
    look, name = per_kg.swatches[0].looks["daylight"], material("bases", base).name
    return MeltDose(key, way.colour, family.rows, doses, per_kg.delta_e, per_kg.held_by, look, "", name)


def _for_kg(per_kg: list[Dose], kg: float) -> list[Dose]:
    """Doses of a kilogram for so much [kg]."""
    return [
        replace(
            dose,
            add_kg=None if dose.add_kg is None else dose.add_kg * kg,
            drops=None if dose.drops is None else dose.drops * kg,
        )
        for dose in per_kg
    ]


@dataclass(frozen=True, slots=True)
class PasteDose:
    """What colours a paste, kneaded into what is taken anew of it: doses, how far off it is [CIEDE2000], what holds it back, how it will look; why:
    what keeps it from being coloured at all."""

    paste: str
    wanted: str
    doses: list[Dose]
    delta_e: float
    held_by: HeldBy
    look: str
    why: Literal["", "no_colours"]


def paste_doses(session: Session, plan: Plan) -> list[PasteDose]:
    """The doses of a plan's coloured pastes, by the colours at hand of their kind."""
    docs = colours(session)
    return [_paste_dose(need, need.colour, docs) for need in pastes_of(plan.problem) if need.colour is not None]


def _paste_dose(need: PasteNeed, wanted: str, docs: list[tuple[str, Colour]]) -> PasteDose:
    bases = BASES_OF[need.key]
    hand = [row for row in docs if row[1].kind == _takes(material("bases", bases[0]))][:MOST_AT_HAND]
    if not hand:
        return PasteDose(need.key, wanted, [], 0.0, "", wanted, "no_colours")
    docs_of = tuple((i, doc.model_dump_json()) for i, doc in hand)
    per_kg = min((_per_kg(base, wanted, THINNEST_M, docs_of) for base in bases), key=lambda of: of.delta_e)
    doses = _for_kg(per_kg.doses, need.fresh_kg)
    look = per_kg.swatches[0].looks["daylight"]
    return PasteDose(need.key, wanted, doses, per_kg.delta_e, per_kg.held_by, look, "")


@lru_cache(maxsize=128)
def _per_kg(base: str, wanted: str, thick_m: float, hand: tuple[tuple[str, str], ...]) -> Coloured:
    """A recipe for a kilogram."""
    chosen = [(i, Colour.model_validate_json(doc)) for i, doc in hand]
    asked = RecipeRequest(
        base=base,
        batch_kg=1.0,
        wanted=wanted,
        thicknesses_m=[max(thick_m, THINNEST_M)],
        on_white=False,
        colour_ids=[i for i, _ in chosen],
        already=[],
    )
    return _recipe(asked, chosen, {})
