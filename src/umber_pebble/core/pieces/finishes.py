"""What is put on a piece once it is out of its mould: dust, paint, lacquer; how much of each, how long it takes and dries."""

import math
from dataclasses import dataclass
from typing import Literal

from umber_pebble.core.colour.flakes import DustSort
from umber_pebble.core.errors import require_range
from umber_pebble.core.humidity.evaporate import dries_s, film_of
from umber_pebble.core.materials.load import Material, material
from umber_pebble.core.pieces.bought import Status
from umber_pebble.core.pieces.transfers import laid_s

FinishSort = Literal["dust", "paint", "lacquer"]


@dataclass(frozen=True, slots=True)
class Finish:
    """A finish: which sort; of which dust, in which colour as hex; how many coats on which area [count, m2]; of paint the share of alcohol in
    its carrier and of dust in the mix, by volume [frac]; its status."""

    sort: FinishSort
    coats: int
    area_m2: float
    status: Status
    dust: DustSort | None = None
    colour: str | None = None
    alcohol_frac: float = 0.0
    dust_frac: float = 0.0


@dataclass(frozen=True, slots=True)
class CoatOf:
    """One coat: the dust that is taken for it and of that stays [kg], the carrier or lacquer [m3], how long hands take [s], how long it dries
    [s], inf where it does not, and from how far it is sprayed [m], 0: it is not."""

    dust_kg: float
    stays_kg: float
    liquid_m3: float
    hands_s: float
    dries_s: float
    far_m: float = 0.0


def usual(sort: FinishSort) -> Material:
    """What is usual of a sort of finish. Source: from-memory"""
    return material("kitchen", sort, "finish")


def strong_enough_frac() -> float:
    """The least share of alcohol by volume that dries before it draws in or swells what it lies on [frac]. Source: common-practice"""
    return usual("paint").value("strong")


def coat_of(of: Finish, room_degc: float, humidity_frac: float) -> CoatOf:
    """One coat of a finish on its area, in a room.

    Args:
        of: the finish
        room_degc, humidity_frac: of the room, 0 to 45 [degC] and 0 to 1
    Raises: OutOfRange: a room outside.
    Source: from-memory, raoult-1887
    """
    require_range("area_m2", of.area_m2, 0.0, 10.0)
    row = usual(of.sort)
    if of.sort == "dust":
        stays = of.area_m2 * row.value("stays")
        return CoatOf(stays / (1 - row.value("lost")), stays, 0.0, laid_s("brush", of.area_m2), 0.0)
    wet_m = row.value("wet")
    taken = of.area_m2 * wet_m / (1 - row.value("lost"))
    if of.sort == "lacquer":
        dries = dries_s(film_of(wet_m, row.value("alcohol")), room_degc, humidity_frac)
        return CoatOf(0.0, 0.0, taken, laid_s("spray", of.area_m2), dries, row.value("far"))
    loose = row.value("loose")
    carrier = 1 - of.dust_frac
    dries = dries_s(film_of(wet_m * carrier, of.alcohol_frac), room_degc, humidity_frac)
    dust, stays = taken * of.dust_frac * loose, of.area_m2 * wet_m * of.dust_frac * loose
    return CoatOf(dust, stays, taken * carrier, laid_s("brush", of.area_m2), dries)


def lies_kg_m2(of: Finish) -> float:
    """How much dust lies on each m2 once all coats are on [kg/m2]. Source: from-memory"""
    if of.sort == "lacquer" or of.area_m2 <= 0:
        return 0.0
    row = usual(of.sort)
    each = row.value("stays") if of.sort == "dust" else row.value("wet") * of.dust_frac * row.value("loose")
    return of.coats * each


def pots(sort: FinishSort, kg: float, liquid_m3: float) -> int:
    """Pots of dust, or cans of lacquer, that so much is out of [count]. Source: from-memory"""
    row = usual(sort)
    if sort == "lacquer":
        return math.ceil(liquid_m3 / row.value("can"))
    return math.ceil(kg / row.value("pot"))
