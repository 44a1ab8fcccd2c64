"""Questions of a cast or a bowl as it cools: when it may be turned out, whether it may still be used, what the cold does to it."""

import math

from umber_pebble.core.errors import OutOfRange
from umber_pebble.core.families.known import family_of
from umber_pebble.core.glass.viscosity import temperature_at_log_viscosity_degc
from umber_pebble.core.glass.water import pressure_pa
from umber_pebble.core.heat.pour import FatFlow, Flow, SugarFlow, pour_window_s
from umber_pebble.core.heat.sweat import sweat
from umber_pebble.core.heat.times import falls_below_s
from umber_pebble.core.heat.vessel import base_case
from umber_pebble.core.heat.windows import windows_s
from umber_pebble.core.humidity.stickiness import sticky_from_frac
from umber_pebble.core.materials.load import Material
from umber_pebble.core.spread import exact
from umber_pebble.services import asks
from umber_pebble.services.ask_usual import USUAL, cold_place, filled, kitchen_of, usual_pot
from umber_pebble.services.documents import Kitchen
from umber_pebble.services.explorer import HeatRequest, castings, explore, melt_of
from umber_pebble.services.piece_docs import StayDoc
from umber_pebble.services.places import air_degc
from umber_pebble.services.ready import READY, WALL_M
from umber_pebble.services.ways import usual_ways
from umber_pebble.services.workshop import Workshop

NOTHING = exact(0.0)
BENT_M = 0.003
"""Of a piece to be bent, where nobody said; common practice, no source [m]."""


def unmould(workshop: Workshop, told: asks.AskUnmould) -> asks.UnmouldAnswer:
    """When it may be turned out: in the place asked for, and in the others. Raises: OutOfRange."""
    kitchen = kitchen_of(workshop)
    melt = melt_of(workshop, told.material or "coating")
    usual = {
        "material": melt.key,
        "thickness_m": USUAL["thickness_m"],
        "mould": USUAL["mould"],
        "place_id": (kitchen.places[0] if family_of(melt).hot else cold_place(kitchen)).id,
    }
    asked, assumed = filled(told, usual)
    bench = kitchen.places[0].id
    # hot sugar draws the fridge's damp: the cold is not offered for it
    cold = not family_of(melt).hot
    others = [
        p.id for p in kitchen.places if p.id != asked.place_id and (cold if p.kind != "room" else p.id == bench)
    ]
    # one of each kind beside the one that was asked for
    places = [asked.place_id or bench, *_one_each(kitchen, others, asked.place_id)][:3]
    thick, mould = asked.thickness_m or USUAL["thickness_m"], asked.mould or USUAL["mould"]
    # a mould is poured full before it is carried away
    poured_s = kitchen.paces.pour_each_s * READY["disc"].cavities
    found = explore(workshop, _cast(melt, thick, mould, [_stays(bench, place, poured_s) for place in places]))
    rows = tuple(
        asks.Lies(
            place,
            None if "unmould" in of.never else of.windows["unmould"],
            None if "over_chilled" in of.never else of.windows.get("over_chilled"),
        )
        for place, of in zip(places, found, strict=True)
    )
    first = found[0]
    ends = [s.high for name, s in first.windows.items() if name not in first.never]
    return asks.UnmouldAnswer(
        asked,
        assumed,
        rows,
        first.bands,
        1.2 * max([*ends, poured_s]),
        first.pour_degc,
        WALL_M,
        0.0 if places[0] == bench else poured_s,
    )


def _one_each(kitchen: Kitchen, ids: list[str], chosen: str | None) -> list[str]:
    kinds = {p.id: p.kind for p in kitchen.places}
    seen = {kinds.get(chosen or "")}
    out = []
    for place in sorted(ids, key=lambda place: kinds[place] != "freezer"):
        if kinds[place] not in seen:
            seen.add(kinds[place])
            out.append(place)
    return out


def _stays(bench: str, place: str, poured_s: float) -> list[StayDoc]:
    first = StayDoc(from_s=0.0, place_id=bench, care="none")
    return [first] if place == bench else [first, StayDoc(from_s=poured_s, place_id=place, care="none")]


def still(workshop: Workshop, told: asks.AskStill) -> asks.StillAnswer:
    """Whether a melt that is so warm may still be used so. Raises: OutOfRange."""
    melt = melt_of(workshop, told.material or ("isomalt" if told.doing == "bend" else "coating"))
    family = family_of(melt)
    poured, tg = family.poured_at(melt)
    if told.doing == "bend":
        if tg is None or not family.bends:
            raise OutOfRange(f"{melt.name} is not bent: pour, pipe or dip it", path="doing", got=told.doing)
        return _still_bends(workshop, told, melt, tg.likely)
    kitchen = kitchen_of(workshop)
    usual = {"material": melt.key, "doing": "pour", "degc": round(poured.likely), "kg": USUAL["kg"]}
    asked, assumed = filled(told, usual)
    degc, dips = asked.degc or 0.0, asked.doing == "dip"
    way = usual_ways(kitchen)[family.key]
    case = base_case(usual_pot(kitchen, way), melt, asked.kg or USUAL["kg"])
    # it has come down to what was read from as warm as it was made, so some of a fat may have set already
    made = exact(max(degc, poured.high))
    if tg is None:
        fat = FatFlow(melt, made, math.inf, dips)
        flow: Flow = fat
        high = fat.at_most_degc
    else:
        # and has stood long enough for its bubbles
        flow = SugarFlow(melt, made, tg, math.inf, math.inf, dips=True)
        high = melt.value("spoils_at")
    window = pour_window_s(case, flow)
    read_s = falls_below_s(window.times_s, window.likely_degc, degc)
    low = window.close_degc.likely
    spoils_degc = melt.spread("spoils_at").high
    if degc > spoils_degc:
        return asks.StillAnswer(asked, assumed, "spoilt", NOTHING, NOTHING, low, spoils_degc, family.rows)
    if degc > high:
        waits = window.opens.map(lambda s: max(s - read_s, 0.0))
        return asks.StillAnswer(asked, assumed, "wait", window.width, waits, low, high, family.rows)
    lasts = window.closes.map(lambda s: max(s - read_s, 0.0))
    verdict: asks.Verdict = "yes" if lasts.likely > 0 and degc > low else "no"
    return asks.StillAnswer(asked, assumed, verdict, lasts, NOTHING, low, high, family.rows)


def _still_bends(workshop: Workshop, told: asks.AskStill, melt: Material, tg_degc: float) -> asks.StillAnswer:
    """A piece on the bench, not a bowl: so thick, and as warm as it was read."""
    low, high = (
        temperature_at_log_viscosity_degc(melt.value(log), tg_degc) for log in ("log_bend_close", "log_bend_open")
    )
    usual = {"material": melt.key, "degc": round((low + high) / 2), "thickness_m": BENT_M}
    asked, assumed = filled(told, usual)
    degc, rows = asked.degc or 0.0, family_of(melt).rows
    if degc <= low:
        return asks.StillAnswer(asked, assumed, "no", NOTHING, NOTHING, low, high, rows)
    bench = kitchen_of(workshop).places[0].id
    [casting] = castings(
        workshop, _cast(melt, asked.thickness_m or BENT_M, USUAL["mould"], [_stays(bench, bench, 0.0)])
    )
    w = windows_s(casting)
    opens, closes = w.at["bend_opens"], w.at["bend_closes"]
    read_s = falls_below_s(w.likely_run.times_s, w.likely_run.mean_degc, degc)
    if degc > high:
        waits = opens.map(lambda s: max(s - read_s, 0.0))
        return asks.StillAnswer(asked, assumed, "wait", w.work_width["bend"], waits, low, high, rows)
    lasts = closes.map(lambda s: max(s - read_s, 0.0))
    return asks.StillAnswer(asked, assumed, "yes", lasts, NOTHING, low, high, rows)


def _cast(melt: Material, thickness_m: float, mould: str, ways: list[list[StayDoc]]) -> HeatRequest:
    """A plain cast on each of these ways."""
    return HeatRequest(
        material=melt.key,
        temper="tempered",
        water_frac=None,
        piece_id=None,
        shape="plate",
        thickness_m=thickness_m,
        mould=mould,
        wall_m=WALL_M,
        pour_degc=None,
        first=None,
        ways=ways,
        bend=None,
    )


def keeps(workshop: Workshop, told: asks.AskKeeps) -> asks.KeepsAnswer:
    """What it does out of the cold, and in this room. Raises: OutOfRange."""
    kitchen = kitchen_of(workshop)
    melt = melt_of(workshop, told.material or "coating")
    usual = {"material": melt.key, "thickness_m": USUAL["thickness_m"], "place_id": cold_place(kitchen).id}
    asked, assumed = filled(told, usual)
    place = next((p for p in kitchen.places if p.id == asked.place_id), cold_place(kitchen))
    family = family_of(melt)
    density, cp = ("density_melt", "cp_glass") if family.hot else ("density_set", "cp_set")
    out = sweat(
        asked.thickness_m or USUAL["thickness_m"],
        melt.value(density),
        melt.value(cp),
        air_degc(place, kitchen),
        kitchen.room_degc,
        kitchen.humidity_frac,
        pressure_pa(kitchen.altitude_m),
    )
    sticky = sticky_from_frac(melt, kitchen.room_degc) if family.hygroscopic else None
    return asks.KeepsAnswer(asked, assumed, out, kitchen.room_degc, kitchen.humidity_frac, sticky)
