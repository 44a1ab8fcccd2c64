"""A centre that is not as warm as the room, against one that is: what its coat does."""

import math
from dataclasses import dataclass
from typing import Literal, get_args

from umber_pebble.core.heat.casting import Casting, LayerUnder, Place, PlaceStay
from umber_pebble.core.heat.sweat import sweat
from umber_pebble.core.heat.windows import windows_s
from umber_pebble.core.materials.load import Material, material
from umber_pebble.core.melts.dip import Dip, meets_degc
from umber_pebble.core.spread import Spread

Level = Literal["low", "some", "high"]
LEVELS: tuple[Level, ...] = get_args(Level)


@dataclass(frozen=True, slots=True)
class ColdCentre:
    """A coat on a cold centre: how warm the melt at it becomes [degC], when it may be touched, and on a centre as warm as the
    room [s]; by how much the centre grows as it warms, beside what a coat bears [frac], and how likely that tears it; the water
    that settles on it [kg/m2] and how likely that shows."""

    meets_degc: float
    touch: Spread
    touch_at_room: Spread
    grows_frac: float
    bears_frac: Spread
    cracks: Level
    water_kg_m2: float
    sweats: Level


def cold_centre(
    melt: Material,
    dip: Dip,
    centre: Material,
    bath_degc: float,
    coat_m: float,
    room_degc: float,
    humidity_frac: float,
) -> ColdCentre:
    """What a centre from the cold does to its coat; both schools exist, so this is for choosing.

    Args:
        melt: of the bath
        dip, centre: what is dipped, and of what
        bath_degc: of the bath
        coat_m: thickness of the coat [m]
        room_degc, humidity_frac: where it sets
    Raises: OutOfRange: a size or temperature the models do not hold for.
    Source: avrami-1939, incropera-2007, magnus-alduchov-1996, assumption
    """
    usual = material("kitchen", "usual", "dip")
    grows = usual.value("expands") * max(room_degc - dip.degc, 0.0)
    bears = melt.spread("tears_at")
    deep, from_degc = dip.width_m / 6, min(dip.degc, room_degc)
    wet = sweat(2 * deep, centre.value("density"), centre.value("cp"), from_degc, room_degc, humidity_frac)
    shows = usual.spread("sweat_shows")
    return ColdCentre(
        meets_degc(dip, melt, bath_degc),
        _touch(melt, centre, deep, dip.degc, bath_degc, coat_m, room_degc),
        _touch(melt, centre, deep, room_degc, bath_degc, coat_m, room_degc),
        grows,
        bears,
        _level(grows, bears),
        wet.water_kg_m2,
        _level(wet.water_kg_m2, shows),
    )


def _level(value: float, bears: Spread) -> Level:
    return LEVELS[(value >= bears.low) + (value >= bears.high)]


def _touch(
    melt: Material, centre: Material, deep_m: float, degc: float, bath_degc: float, coat_m: float, room_degc: float
) -> Spread:
    mat = material("moulds", "silicone")
    rack = Place(material("surfaces", "trivet"), 0.005, room_degc, room_degc)
    thick = Spread(0.8 * coat_m, coat_m, 1.3 * coat_m)
    poured = Spread(bath_degc - 0.5, bath_degc, bath_degc + 0.5)
    casting = Casting(
        melt,
        mat,
        thick,
        math.sqrt(coat_m),
        material("kitchen", "usual", "mat").value("thick"),
        poured,
        None,
        (PlaceStay(0.0, rack),),
        (LayerUnder(centre, deep_m, degc),),
    )
    return windows_s(casting).at["touch"]
