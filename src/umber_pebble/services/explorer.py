"""The heat explorer: one cast on its way through places, reckoned whole."""

from dataclasses import replace
from typing import Annotated, Literal, get_args

import numpy as np
from pydantic import Field

from umber_pebble.core.bench.marks import marks_of
from umber_pebble.core.errors import OutOfRange, require_range
from umber_pebble.core.families.known import family_of, is_melt
from umber_pebble.core.glass.bend import bend_limits, bends_until_log_pa_s
from umber_pebble.core.glass.viscosity import temperature_at_log_viscosity_degc, tg_spread_degc
from umber_pebble.core.glass.water import pressure_pa
from umber_pebble.core.heat.advice import best_reading, helps, risks
from umber_pebble.core.heat.bands import Use, cast_bands
from umber_pebble.core.heat.casting import Casting, LayerUnder, PlaceStay
from umber_pebble.core.heat.passes import pass_on_pass, rest_s
from umber_pebble.core.heat.reheat import reheat
from umber_pebble.core.heat.stress import cooling_stress
from umber_pebble.core.heat.sweat import Sweat, leaves_cold_s, sweat
from umber_pebble.core.heat.times import falls_below_s
from umber_pebble.core.heat.vessel import base_case, cooling_curve_degc, curve_times_s
from umber_pebble.core.heat.windows import TAKES, PieceWindows, windows_s
from umber_pebble.core.humidity.dew import dew_point_degc
from umber_pebble.core.materials.load import Material, material, materials, tempered
from umber_pebble.core.spread import Spread, exact
from umber_pebble.services import documents
from umber_pebble.services.doc_base import Doc, Id
from umber_pebble.services.documents import Kitchen
from umber_pebble.services.explored import (
    Bent,
    Explored,
    Frame,
    GlassAt,
    GlassMark,
    LayerShown,
    OnFirst,
    Reheated,
    RestsOn,
    Share,
    Take,
    Uneven,
)
from umber_pebble.services.materials_own import own_material
from umber_pebble.services.piece_docs import Piece, StayDoc
from umber_pebble.services.places import pick, way_of
from umber_pebble.services.snapshot import pot_case, prior_loss
from umber_pebble.services.workshop import KITCHEN_ID, Workshop

FRAMES = 72
PLATE_M = 0.015
RESTED_KG = 0.2
REHEATED = ("lamp", "torch", "microwave")
NEAR_MELTING_K = 8.0
"""Nearer to its melting point than this how fast a fat sets is extrapolated."""


class FirstPass(Doc):
    """What the melt is poured on: an earlier pass, a filling or a film; how thick and how warm."""

    material: Id
    thickness_m: float
    degc: float = Field(ge=-30, le=160)


class BendRequest(Doc):
    radius_m: float
    over_s: float


class HeatRequest(Doc):
    """A cast to explore: a piece, or a thickness of a material in a mould; poured, laid along each of some ways."""

    material: Id
    temper: Literal["tempered", "under", "unseeded"]
    water_frac: float | None = Field(ge=0.002, le=0.15, description="of a sugar; None: of a usual cook")
    piece_id: Id | None
    shape: Literal["plate", "rod", "ball"]
    thickness_m: float = Field(description="of a plate, or the radius of a rod or ball; a piece has its own")
    mould: Id
    wall_m: float
    pour_degc: float | None = Field(description="None: as it is usually poured")
    first: FirstPass | None
    ways: list[Annotated[list[StayDoc], Field(min_length=1, max_length=6)]] = Field(min_length=1, max_length=3)
    bend: BendRequest | None


def melt_of(workshop: Workshop, key: str, path: str = "material") -> Material:
    """A material of the tables, or one of the workshop's own.

    Raises: OutOfRange: neither.
    """
    if key in materials("melts"):
        return material("melts", key)
    own = {stored.id: stored.doc for stored in workshop.all("material")}
    doc = own.get(key)
    if not isinstance(doc, documents.OwnMaterial):
        known = [*materials("melts"), *own]
        raise OutOfRange("there is no such material: choose another", path=path, got=key, limits={"one_of": known})
    return own_material(key, doc)


def explore(workshop: Workshop, asked: HeatRequest) -> list[Explored]:
    """Reckon a cast on each of its ways.

    Raises: NotFound, OutOfRange: a place, piece or material that is gone, a size or temperature outside the model.
    """
    kitchen = workshop.get("kitchen", KITCHEN_ID).doc
    assert isinstance(kitchen, Kitchen)
    return [
        _explored(kitchen, casting, asked, [pick(kitchen.places, s.place_id, "ways").name for s in stays])
        for stays, casting in zip(asked.ways, castings(workshop, asked), strict=True)
    ]


def castings(workshop: Workshop, asked: HeatRequest) -> list[Casting]:
    """A cast as the engine takes it, on each of its ways.

    Raises: as explore.
    """
    kitchen = workshop.get("kitchen", KITCHEN_ID).doc
    assert isinstance(kitchen, Kitchen)
    melt = tempered(melt_of(workshop, asked.material), asked.temper)
    ways = [tuple(stay for stay, _ in way_of(w, kitchen, f"ways.{i}")) for i, w in enumerate(asked.ways)]
    first = _casting(workshop, melt, asked, ways[0])
    return [replace(first, path=path) for path in ways]


def _explored(kitchen: Kitchen, casting: Casting, asked: HeatRequest, places: list[str]) -> Explored:
    melt, w = casting.melt, windows_s(casting)
    stress = None
    if casting.tg is not None:
        stress = cooling_stress(melt, casting.slab.likely, w.likely_run, w.limits["unmould"])
    mark, never = "unmould", [name for name in w.at if w.never(name)]
    bends = asked.bend is not None and "bend_opens" in w.at
    opens = [name for name in ("bend_opens", "touch") if name in w.at]
    thin_s, thick_s = w.thin[mark], w.thick[mark]
    return Explored(
        name=melt.name,
        family=casting.kind,
        pour_degc=casting.pour.likely,
        slab=casting.slab,
        places=places,
        moved_s=[s.from_s for s in casting.path],
        windows=w.at | {"cool_to_hold": w.cool_to_hold},
        never=never,
        bands=cast_bands(w.at, frozenset(never), family_of(melt).ends.held_until, Use(("bend",) if bends else ())),
        uneven=Uneven(thin_s, thick_s) if thin_s < thick_s else None,
        marks=marks_of(w),
        glass=[] if casting.tg is None else [GlassAt(name, w.limits[name]) for name in get_args(GlassMark)],
        limited_by=w.limited_by,
        takes=_takes(casting.kind, w),
        rests_on=[_rests_on(name, w) for name in (*opens, mark)],
        helps=helps(casting, w),
        risks=risks(casting, w, asked.temper, stress),
        sweat=_sweat(kitchen, casting, w),
        stress=stress,
        bend=_bent(casting, w, asked.bend),
        on_first=_on_first(kitchen, casting),
        reheats=_reheats(kitchen, casting),
        layers=[_layers(casting, w, i) for i in range(len(casting.path))],
        frames=_frames(casting, w),
        horizon_s=casting.horizon_s,
        warm_room=casting.tg is None and casting.path[-1].place.air_degc > melt.value("melts_at") - NEAR_MELTING_K,
    )


def _casting(workshop: Workshop, melt: Material, asked: HeatRequest, path: tuple[PlaceStay, ...]) -> Casting:
    _, tg = family_of(melt).poured_at(melt)
    if tg is not None:
        water = melt.spread("water_dry_melt") if asked.water_frac is None else exact(asked.water_frac)
        tg = tg_spread_degc(melt, water)
        close = temperature_at_log_viscosity_degc(melt.value("log_pour_close"), tg.likely)
        usual = float(round((close + melt.value("cook_to")) / 2))
        low, high = tg.likely + 10.0, melt.value("spoils_at")
    else:
        usual = (
            melt.value("work_at")
            if "work_at" in melt.properties
            else (melt.value("melts_at") + melt.value("pour_below")) / 2
        )
        low, high = melt.value("melts_at") - 6.0, 80.0
    pour = require_range("pour_degc", usual if asked.pour_degc is None else asked.pour_degc, low, high)
    under = () if asked.first is None else (_under(workshop, asked.first),)
    if asked.piece_id is None:
        known = {**materials("moulds"), **materials("fillings")}
        if asked.mould not in known:
            raise OutOfRange(
                "there is no such mould or film: choose another",
                path="mould",
                got=asked.mould,
                limits={"one_of": list(known)},
            )
        mould = known[asked.mould]
        require_range("thickness_m", asked.thickness_m, 2e-4, 0.1)
        return Casting(
            melt,
            mould,
            exact(asked.thickness_m),
            PLATE_M,
            require_range("wall_m", asked.wall_m, 5e-5, 0.05),
            exact(pour),
            tg,
            path,
            under,
            asked.shape,
        )
    piece = workshop.get("piece", asked.piece_id).doc
    assert isinstance(piece, Piece)
    part = piece.parts[0]
    built = workshop.built(part)
    case, row = built.mould, next((row for row in reversed(built.laid) if row.cast), None)
    if row is None or row.cast is None:
        raise OutOfRange("no pass of this piece can be laid", path="piece_id", got=asked.piece_id)
    amount = row.cast
    return Casting(
        melt,
        case.material,
        amount.slab,
        amount.plate_m,
        case.wall_m,
        exact(pour),
        tg,
        path,
        under,
        thin_m=amount.thin_m,
        thick_m=amount.thick_m,
        beside=case.cavities,
        body=row.body,
    )


def _under(workshop: Workshop, first: FirstPass) -> LayerUnder:
    fillings = materials("fillings")
    known = (
        fillings[first.material]
        if first.material in fillings
        else melt_of(workshop, first.material, "first.material")
    )
    return LayerUnder(known, require_range("first.thickness_m", first.thickness_m, 2e-5, 0.1), first.degc)


def _takes(family: str, w: PieceWindows) -> list[Take]:
    def at(name: str | None) -> Spread | None:
        return None if name is None else w.at[name]

    return [
        Take(what, at(opens), at(closes), w.limited_by[opens or closes or "unmould"])
        for what, (opens, closes) in TAKES[family].items()
    ]


def _rests_on(mark: str, w: PieceWindows) -> RestsOn:
    shares = w.shares[mark]
    reading, narrows = best_reading(shares) or ("", 0.0)
    return RestsOn(mark, [Share(*of) for of in list(shares.items())[:4]], reading, narrows)


def _sweat(kitchen: Kitchen, casting: Casting, w: PieceWindows) -> Sweat | None:
    """Of a piece that comes out of the cold colder than the room."""
    dew = dew_point_degc(kitchen.room_degc, kitchen.humidity_frac)
    out_s = leaves_cold_s(casting.path, min(w.at["unmould"].high, w.horizon_s), dew)
    degc = float(np.interp(out_s, w.likely_run.times_s, w.likely_run.mean_degc))
    if degc >= kitchen.room_degc - 1 or w.never("unmould"):
        return None
    melt = casting.melt
    density, cp = ("density_set", "cp_set") if casting.tg is None else ("density_melt", "cp_glass")
    return sweat(
        casting.slab.likely,
        melt.value(density),
        melt.value(cp),
        degc,
        kitchen.room_degc,
        kitchen.humidity_frac,
        pressure_pa(kitchen.altitude_m),
    )


def _bent(casting: Casting, w: PieceWindows, bend: BendRequest | None) -> Bent | None:
    if bend is None or casting.tg is None:
        return None
    melt, thick, tg = casting.melt, casting.slab.likely, casting.tg.likely
    log = bends_until_log_pa_s(melt, thick, bend.radius_m, bend.over_s)
    stiff = temperature_at_log_viscosity_degc(min(max(log, -4.0), 12.0), tg)
    until = falls_below_s(w.likely_run.times_s, w.likely_run.coldest_degc, stiff)
    middle = (w.at["bend_opens"].likely + w.at["bend_closes"].likely) / 2
    at = float(np.interp(middle, w.likely_run.times_s, w.likely_run.coldest_degc))
    limits = bend_limits(melt, tg, at, thick, bend.radius_m, bend.over_s)
    return Bent(until if np.isfinite(until) else None, at, limits)


def _on_first(kitchen: Kitchen, casting: Casting) -> OnFirst | None:
    """Fat on fat or sugar on sugar; a filling or film does not melt into what is poured on it."""
    if not casting.under or casting.shape != "plate":
        return None
    under = casting.under[0].material
    if not is_melt(under) or family_of(under).rows != family_of(casting.melt).rows:
        return None
    does, rests = pass_on_pass(casting), None
    metal = ("steel", "copper")
    fit = [v for v in kitchen.vessels if (v.made_of in metal) == (casting.tg is not None)] or kitchen.vessels
    if does.verdict == "dissolves" and does.pour_below_degc < casting.pour.likely:
        case = base_case(pot_case(fit[0], kitchen.places[0], kitchen, prior_loss()), casting.melt, RESTED_KG)
        wait = rest_s(curve_times_s(), cooling_curve_degc(case, casting.pour.likely), does.pour_below_degc)
        rests = wait if np.isfinite(wait) else None
    return OnFirst(does, rests, fit[0].name, RESTED_KG)


def _reheats(kitchen: Kitchen, casting: Casting) -> list[Reheated]:
    if casting.tg is None or not 3e-4 <= casting.slab.likely <= 0.03:
        return []
    power = kitchen.microwaves[0].power_w if kitchen.microwaves else 0.0
    # a small piece: as wide as the plate it is reckoned as
    mass = casting.melt.value("density_melt") * casting.slab.likely * (4 * casting.plate_m) ** 2
    ways = REHEATED if power else REHEATED[:2]
    rows = [
        reheat(casting.melt, casting.tg, casting.slab.likely, kitchen.room_degc, means, power, max(mass, 1e-3))
        for means in ways
    ]

    def within(seconds: float) -> float | None:
        return seconds if np.isfinite(seconds) else None

    return [Reheated(r.means, within(r.soft.likely), within(r.spoils_s)) for r in rows]


def _layers(casting: Casting, w: PieceWindows, stay: int) -> list[LayerShown]:
    under = [("under", u.thickness_m) for u in casting.under]
    plate = casting.shape == "plate"
    names = [("piece", casting.through_m), *under, ("wall", casting.wall_m)]
    if plate:
        names.append(("place", casting.path[stay].place.thickness_m))
    else:
        names = [("wall", casting.wall_m), ("piece", casting.slab.likely)]
    cells = np.bincount(w.likely_run.fields[stay].layer_of_node)
    return [LayerShown(name, thick, int(n)) for (name, thick), n in zip(names, cells, strict=False)]


def _frames(casting: Casting, w: PieceWindows) -> list[Frame]:
    """The section at moments that lie closer together at the start, until everything that happens has happened."""
    last = (
        max(s.high for name, s in w.at.items() if not w.never(name))
        if any(not w.never(n) for n in w.at)
        else w.horizon_s
    )
    end = min(max(1.15 * last, casting.path[-1].from_s * 1.2, 60.0), w.horizon_s)
    starts = [stay.from_s for stay in casting.path]
    at_s = (end * np.linspace(0, 1, FRAMES) ** 1.6).round(1)
    stays = np.searchsorted(starts, at_s, side="right") - 1
    frames = list[Frame]()
    for stay, (start, field) in enumerate(zip(starts, w.likely_run.fields, strict=True)):
        here = at_s[stays == stay]
        i = np.minimum(np.searchsorted(field.times_s, here - start), len(field.times_s) - 1)
        rows = here.tolist(), field.temps_degc[i].round(2).tolist(), field.set_frac[i].round(3).tolist()
        frames += [Frame(at, stay, temps, shares) for at, temps, shares in zip(*rows, strict=True)]
    return frames
