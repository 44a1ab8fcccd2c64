"""How the passes of a part set where its material usually does, and how long one round of its mould takes."""

from dataclasses import dataclass, replace
from typing import Literal

from umber_pebble.core.families.known import family_of
from umber_pebble.core.heat.bands import Band, Use, cast_bands
from umber_pebble.core.heat.casting import Casting, LayerUnder, PlaceStay, as_ball
from umber_pebble.core.heat.skin import Skin, skin_of
from umber_pebble.core.heat.windows import PieceWindows, windows_s
from umber_pebble.core.heat.works import WORKS
from umber_pebble.core.materials.load import Material, material
from umber_pebble.core.moulds.cavity import slab_m
from umber_pebble.core.pieces.cast import CastAmounts
from umber_pebble.core.pieces.films import TooThin, shell_against_film
from umber_pebble.core.pieces.layers import LaidPass
from umber_pebble.core.plan.cooks import ready_for_next
from umber_pebble.core.plan.tasks import Work
from umber_pebble.core.plan.turns import stays_in, turns_of
from umber_pebble.core.spread import Spread, combine, exact
from umber_pebble.services.builds import hands_each_s, leaves_at, works_on
from umber_pebble.services.built import Built
from umber_pebble.services.doc_base import Doc
from umber_pebble.services.documents import Kitchen, Place
from umber_pebble.services.piece_docs import Part, StayDoc
from umber_pebble.services.places import place_case, way_of
from umber_pebble.services.workshop import KITCHEN_ID, Workshop


class SettingRequest(Doc):
    """A part as it stands in the editor."""

    part: Part


@dataclass(frozen=True, slots=True)
class PassSets:
    """How a melted pass sets: until the next may go on it, or until it leaves the mould [s from its pour], and where; turned_s: what
    hands take to turn it; keeps: of a shell that is tipped out, what the wall keeps."""

    index: int
    sets: Spread
    place: str
    turned_s: float
    keeps: TooThin | None


@dataclass(frozen=True, slots=True)
class Stretch:
    """A stretch of one round of the mould: the hands at a pass, or that it sets [s]."""

    index: int
    what: Literal["hands", "sets"]
    from_s: float
    to_s: float


@dataclass(frozen=True, slots=True)
class Cools:
    """How the last melt of a part cools where it usually sets [s from its pour]; works: what hands do with it while it is soft, in turn."""

    place: str
    pour: Spread
    windows: dict[str, Spread]
    never: list[str]
    works: tuple[Work, ...]
    bands: tuple[Band, ...]


@dataclass(frozen=True, slots=True)
class PartSets:
    """How a part's passes set; a round of its mould: castings, its stretches, all of it and the hands in it [s]; how its last melt
    cools."""

    rows: list[PassSets]
    casts: int
    stretches: list[Stretch]
    all_s: Spread
    hands_s: float
    cools: Cools | None


def part_sets(workshop: Workshop, asked: SettingRequest) -> PartSets:
    """How the passes of a part set.

    Raises: NotFound: the mould. OutOfRange: a number no pass may have.
    """
    part, built, kitchen = asked.part, workshop.built(asked.part), workshop.get("kitchen", KITCHEN_ID).doc
    assert isinstance(kitchen, Kitchen)
    last = max((row.index for row in built.laid if row.cast), default=-1)
    rows, at, cools = dict[int, PassSets](), dict[int, dict[str, Spread]](), None
    for row in built.laid:
        if row.cast is None:
            continue
        one = built.passes[row.index]
        melt = one.material(built.own)
        w, place, pour = _windows(part, built, row, row.cast, melt, kitchen)
        at[row.index] = w.at
        done = w.leaving_at(leaves_at(part, built)).at["unmould"] if row.index == last else ready_for_next(melt, w)
        turned_s = 0.0
        if one.TWO_HALVES:
            turns = turns_of(melt, w)
            turned_s = turns.by_hand_s / built.mould.at_once + turns.count * turns.each_s
        rows[row.index] = PassSets(row.index, done, place, turned_s, _keeps(built, row, kitchen))
        if row.index == last:
            never = [name for name in w.at if w.never(name)]
            works = tuple(of.kind for of in works_on(part, built, row.index, kitchen.paces))
            bands = cast_bands(w.at, frozenset(never), family_of(melt).ends.held_until, Use(works))
            cools = Cools(place, pour, w.at, never, works, bands)
    # what is put on at last takes no time of its mould
    built = replace(built, laid=[row for row in built.laid if not built.passes[row.index].AFTER])
    casts, takes = built.mould.at_once, [hands_each_s(built, row, kitchen.paces) for row in built.laid]
    stretches, now, spreads = _round_of(built, rows, at, takes)
    hands = sum(takes) + sum(row.turned_s for row in rows.values())
    all_s = combine(now, [[now - s.likely + s.low, now - s.likely + s.high] for s in spreads])
    return PartSets(list(rows.values()), casts, stretches, all_s, hands * casts, cools)


def _round_of(
    built: Built, rows: dict[int, PassSets], at: dict[int, dict[str, Spread]], takes: list[float]
) -> tuple[list[Stretch], float, list[Spread]]:
    """One round of a mould, pass after pass: what is put into or onto a soft melt comes before it has set, and what it must first be
    stiff enough for once it is; its end, and the spreads of what sets."""
    out, now, spreads, setting, waited = list[Stretch](), 0.0, list[Spread](), None, 0.0
    for row, seconds in [*zip(built.laid, takes, strict=True), (None, 0.0)]:
        soft = built.passes[row.index].soft if row else None
        if setting is not None:
            opens = WORKS[soft].opens if soft else None
            until = setting.sets.likely if soft is None else at[setting.index][opens].likely if opens else 0.0
            if until > waited:
                out.append(Stretch(setting.index, "sets", now, now := now + until - waited))
                waited = until
            if soft is None:
                spreads.append(setting.sets)
                setting, waited = None, 0.0
        if row is not None:
            out.append(Stretch(row.index, "hands", now, now := now + seconds * built.mould.at_once))
            setting = rows.get(row.index, setting)
    return out, now, spreads


def _keeps(built: Built, row: LaidPass, kitchen: Kitchen) -> TooThin | None:
    """What a wall keeps of a shell that is tipped out: its film, and the skin that set while the mould stood full."""
    one = built.passes[row.index]
    tipped = one.tipped()
    if tipped is None:
        return None
    melt, (thick_m, dwell_s) = one.material(built.own), tipped
    family = family_of(melt)
    if not family.skins:
        return None
    cavity, drains = built.mould.cavity, material("kitchen", "usual", "film").value("drains")
    half = slab_m(cavity, cavity.depth_m).likely
    pour, _ = family.poured_at(melt)
    cold = [p for p in kitchen.places if p.kind == "fridge"]

    def skin(place: Place) -> Skin:
        path = (PlaceStay(0.0, place_case(place, kitchen)),)
        return skin_of(
            Casting(melt, built.mould.material, exact(half), half, built.mould.wall_m, pour, None, path)
        )

    here = skin(kitchen.places[0])
    return shell_against_film(
        melt, thick_m, cavity.depth_m, drains, dwell_s, here, skin(cold[0]) if cold else here
    )


def _windows(
    part: Part, built: Built, row: LaidPass, cast: CastAmounts, melt: Material, kitchen: Kitchen
) -> tuple[PieceWindows, str, Spread]:
    """How a pass sets where its material usually does, poured anywhere between as hot as it may be and its closing."""
    stays = part.stays or [StayDoc(from_s=0.0, place_id=_sets_in(kitchen, melt).id, care="none")]
    way = way_of(stays, kitchen, "stays")
    pour, tg = family_of(melt).poured_at(melt)
    path: tuple[PlaceStay, ...] = tuple(stay for stay, _ in way)
    cold = path[0].place.surface_degc
    casting = Casting(
        melt,
        built.mould.material,
        cast.slab,
        cast.plate_m,
        built.mould.wall_m,
        pour,
        tg,
        path,
        tuple(LayerUnder(of, thick, cold if degc is None else degc) for of, thick, degc in row.under),
        thin_m=cast.thin_m,
        thick_m=cast.thick_m,
        beside=built.mould.cavities,
        body=row.body,
    )
    names = {place.id: place.name for place in kitchen.places}
    if built.passes[row.index].TWO_HALVES:
        windows = stays_in(
            melt, windows_s(as_ball(casting, cast.thickness, min(built.mould.cavity.bounds_m()) / 2))
        )
    else:
        windows = windows_s(casting)
    return windows, ", then ".join(dict.fromkeys(names[place_id] for _, place_id in way)), pour


def _sets_in(kitchen: Kitchen, melt: Material) -> Place:
    """Where a cast would usually set: in the first fridge, or on the first place."""
    cold = [p for p in kitchen.places if p.kind == "fridge"] if family_of(melt).sets_in_the_cold else []
    return [*cold, *kitchen.places][0]
