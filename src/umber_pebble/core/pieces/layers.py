"""A pass as it lies in a build, and the grams of a layer of melt."""

import math
from dataclasses import dataclass

from umber_pebble.core.errors import require_range
from umber_pebble.core.explained import Explained, explained, given
from umber_pebble.core.heat.body import Revolved
from umber_pebble.core.materials.load import Material
from umber_pebble.core.pieces.cast import CastAmounts
from umber_pebble.core.spread import Spread, combine

UNEVEN = (0.8, 1.0, 1.3)
"""How thin and thick places of a layer laid by hand compare with what is wanted."""


@dataclass(frozen=True, slots=True)
class LaidPass:
    """A pass as it lies: grams and volume of one casting, thickness, what it lies on (material, thickness [m], how warm [degC], None: as what is round it); cast: as the
    plan takes it, None where nothing is melted; beside_kg: what lies in it that is not melt; area_m2: of what is put on at last; body: what cools like it, poured into a bare cavity; thick_m: its mean thickness; from_m, to_m: heights it fills over the floor."""

    index: int
    finished: Explained
    poured: Explained
    volume_m3: float
    thick_m: float
    from_m: float
    to_m: float
    cast: CastAmounts | None
    under: tuple[tuple[Material, float, float | None], ...]
    beside_kg: float = 0.0
    area_m2: float = 0.0
    body: Revolved | None = None


@dataclass(frozen=True, slots=True)
class Extent:
    """A layer: its volume, how thick it is and over how large an area [m3, m, m2], and between which heights over the floor [m]."""

    volume_m3: float
    thick_m: float
    area_m2: float
    from_m: float
    to_m: float


def melted(
    i: int,
    melt: Material,
    of: Extent,
    what: str,
    heap_m2: float = 0.0,
    poured_m3: float | None = None,
) -> LaidPass:
    """A layer of melt: finished by its volume, poured with what is scraped off or tipped out, which goes back to the vessel [kg].

    Args:
        i: of its pass
        melt: the material
        of: how much it is, and where
        what: how its volume was found, in words
        heap_m2: surface on which it stands above the rim, 0 for none
        poured_m3: what is poured in all where it is tipped out again
    Source: geometry, assumption
    """
    density = melt.spread("density_melt")
    volume = explained(
        of.volume_m3,
        "m3",
        what,
        given("surface", of.area_m2, "m2"),
        given("thickness", of.thick_m, "m"),
        sources=("geometry",),
    )
    finished = density.times(of.volume_m3)
    if poured_m3 is not None:
        scraped, why = density.times(poured_m3 - of.volume_m3), "what is tipped out again"
    else:
        scraped, why = melt.spread("overfill").times(heap_m2 * density.likely), "what stands above the rim"
    poured = combine(
        finished.likely + scraped.likely,
        [
            [finished.low + scraped.likely, finished.high + scraped.likely],
            [finished.likely + scraped.low, finished.likely + scraped.high],
        ],
    )
    slab = Spread(*(of.thick_m * f for f in UNEVEN))
    cast = CastAmounts(
        fill_m=of.to_m,
        volume=volume,
        finished=explained(
            finished,
            "kg",
            "volume x density of the melt as poured",
            given("volume", of.volume_m3, "m3"),
            given("density", density, "kg/m3"),
            sources=(melt["density_melt"].source,),
        ),
        scraped=explained(scraped, "kg", why, sources=(melt["overfill"].source,)),
        poured=explained(
            poured, "kg", "finished + scraped", given("finished", finished, "kg"), given("scraped", scraped, "kg")
        ),
        open_m2=of.area_m2,
        wetted_m2=of.area_m2,
        thickness=slab,
        slab=slab,
        thin_m=None,
        thick_m=None,
        plate_m=math.sqrt(of.area_m2 / math.pi) / 2,
    )
    return LaidPass(i, cast.finished, cast.poured, of.volume_m3, of.thick_m, of.from_m, of.to_m, cast, ())


def plain(i: int, kg: float, volume_m3: float, thick_m: float, level_m: float) -> LaidPass:
    """Something that is not melted: what it weighs is told, not reckoned [kg, m3, m].

    Raises: OutOfRange: a weight outside 0 to 5 kg.
    Source: definition
    """
    require_range(f"passes.{i}.kg", kg, 0.0, 5.0)
    weight = explained(kg, "kg", "as given", sources=("definition",))
    return LaidPass(i, weight, weight, volume_m3, thick_m, level_m, level_m, None, ())
