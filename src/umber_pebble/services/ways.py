"""The ways of an order's families as the engine takes them, and the usual one of each in a kitchen."""

from collections.abc import Callable, Mapping

from umber_pebble.core.errors import OutOfRange
from umber_pebble.core.families.family import Family, Made
from umber_pebble.core.families.known import FAMILIES
from umber_pebble.core.heat.melting import Bath
from umber_pebble.core.materials.load import Material, material, materials
from umber_pebble.core.melts.bursts import School
from umber_pebble.core.melts.oven import Microwave
from umber_pebble.core.plan.fat_melt import FatMelt
from umber_pebble.core.plan.making import Making
from umber_pebble.core.plan.sugar_cook import SugarCook
from umber_pebble.core.plan.tempered import Temper
from umber_pebble.services.documents import Bath as BathDoc
from umber_pebble.services.documents import Kitchen
from umber_pebble.services.documents import Microwave as MicrowaveDoc
from umber_pebble.services.ovens import FactorSpread, oven_case, ring_case
from umber_pebble.services.places import pick
from umber_pebble.services.way_docs import SEED_DEGC, CookedWay, MeltedWay, TemperedWay, WayDoc

HALF = 0.5
USUAL_SURE_FRAC, USUAL_RESERVE_FRAC = 0.9, 0.05
"""How sure an order is to be and what is melted beyond it, where nobody said; common practice, no source [frac]."""
WATER = {"auto": None, "dry": False, "wet": True}
Ovens = Mapping[str, FactorSpread]


def _cooked(way: CookedWay, melt: Material, kitchen: Kitchen, ovens: Ovens, path: str) -> Making:
    heater = pick([*kitchen.rings, *kitchen.microwaves], way.ring_id, f"{path}.ring_id")
    heat = ring_case(heater, kitchen, ovens)
    return SugarCook(way.crystalline, WATER[way.water], way.cook_degc, heat, heater.id)


def _heated_by(way: MeltedWay | TemperedWay, kitchen: Kitchen, ovens: Ovens, path: str) -> Microwave | Bath:
    heaters: list[MicrowaveDoc | BathDoc] = [*kitchen.microwaves, *kitchen.baths]
    heater = pick(heaters, way.by_id, f"{path}.by_id")
    return Bath(heater.water_degc) if isinstance(heater, BathDoc) else oven_case(heater, kitchen, ovens)


def _power(way: MeltedWay | TemperedWay) -> float:
    return HALF if way.power == "half" else 1.0


def _melted(way: MeltedWay, melt: Material, kitchen: Kitchen, ovens: Ovens, path: str) -> Making:
    by = _heated_by(way, kitchen, ovens, path)
    return FatMelt(way.melt_to_degc, by, way.by_id, School(_power(way), way.stop))


def _tempered(way: TemperedWay, melt: Material, kitchen: Kitchen, ovens: Ovens, path: str) -> Making:
    by = _heated_by(way, kitchen, ovens, path)
    # old crystals must go, so it is melted through, but where it is to keep its own temper
    warm = melt.spread("work_at").high if way.school == "keep" else melt.value("melt_to")
    temper = Temper(way.school, way.seed_degc)
    return FatMelt(warm, by, way.by_id, School(_power(way), "through"), temper)


MAKES: dict[Made, Callable[..., Making]] = {"cooked": _cooked, "melted": _melted, "tempered": _tempered}


def making_of(way: WayDoc, family: Family, melt: Material, kitchen: Kitchen, ovens: Ovens) -> Making:
    """How a melt of a family is made by an order's way.

    Raises: OutOfRange: it is no way for that family, or a heater is gone.
    """
    path = f"ways.{family.key}"
    if way.kind != family.made:
        raise OutOfRange(f"{melt.name} is {family.made}, not {way.kind}", path=path, got=way.kind)
    return MAKES[family.made](way, melt, kitchen, ovens, path)


def usual_ways(kitchen: Kitchen) -> dict[str, WayDoc]:
    """How each family of melts is usually made in a kitchen: sugar in its first metal pot on its first ring, fat in its first bowl
    of another make, in the microwave or over the bath, and set in the fridge."""
    return {family.key: _usual(family, kitchen) for family in FAMILIES.values()}


def _usual(family: Family, kitchen: Kitchen) -> WayDoc:
    metal = [v for v in kitchen.vessels if material("kitchen", v.made_of, "pot").flags["metal"]]
    other = [v for v in kitchen.vessels if v not in metal]
    pots, bowls = metal or kitchen.vessels, other or kitchen.vessels
    cold = [p for p in kitchen.places if p.kind == "fridge"]
    bench, fridge = kitchen.places[0].id, [*cold, *kitchen.places][0].id
    ovens = [oven.id for oven in kitchen.microwaves]
    heaters, rings = [*ovens, *(bath.id for bath in kitchen.baths)], [*(ring.id for ring in kitchen.rings), *ovens]
    melt = next(m for m in materials("melts").values() if m.family == family.key)
    in_bowl = {
        "vessel_id": bowls[0].id,
        "stand_id": bench,
        "by_id": heaters[0] if heaters else rings[0],
        "place_id": fridge,
    }
    match family.made:
        case "cooked":
            return CookedWay(
                kind="cooked",
                vessel_id=pots[0].id,
                stand_id=bench,
                kept_id=None,
                ring_id=rings[0] if rings else heaters[0],
                place_id=bench,
                divided=False,
                crystalline=True,
                water="auto",
                cook_degc=melt.value("cook_to"),
            )
        case "melted":
            return MeltedWay(
                kind="melted",
                **in_bowl,
                kept_id=None,
                divided=False,
                melt_to_degc=melt.value("melt_to"),
                power="full",
                stop="lumps",
            )
        case "tempered":
            seed = min(SEED_DEGC, kitchen.room_degc)
            return TemperedWay(
                kind="tempered", **in_bowl, kept_id=None, power="full", school="seed", seed_degc=seed
            )
