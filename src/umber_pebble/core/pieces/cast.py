"""A solid cast: what is poured, scraped off and finished, for a fill level."""

import math
from dataclasses import dataclass

from umber_pebble.core.errors import require_range
from umber_pebble.core.explained import Explained, explained, given
from umber_pebble.core.materials.load import Material
from umber_pebble.core.moulds.cavity import (
    Cavity,
    open_m2,
    place_slabs_m,
    slab_m,
    thickness_m,
    volume_m3,
    wetted_m2,
)
from umber_pebble.core.spread import Spread, combine


@dataclass(frozen=True, slots=True)
class CastAmounts:
    """One cavity's cast: level [m], volume [m3], grams as kg, the surfaces that cool it [m2]; its thickness over the open
    surface, the slab that cools like it, those of its thin and thick places where they differ, and area over edge of a disc as
    large as its open surface [m]."""

    fill_m: float
    volume: Explained
    finished: Explained
    scraped: Explained
    poured: Explained
    open_m2: float
    wetted_m2: float
    thickness: Spread
    slab: Spread
    thin_m: float | None
    thick_m: float | None
    plate_m: float


def amounts(cavity: Cavity, fill_m: float, melt: Material, displaced_m3: float = 0.0) -> CastAmounts:
    """Grams of one solid cast to a level.

    Scraped: what stands above the rim when the cavity is filled to it, and goes back to the pot.
    Args:
        cavity: the cavity
        fill_m: level above the floor, above zero, at most the rim [m]
        melt: the material, poured as melt
        displaced_m3: taken by a stick or the like [m3]
    Raises: OutOfRange: the level is below 0.2 mm or above the rim, or nothing is left beside what is put in.
    Source: geometry, assumption
    """
    require_range("fill_m", fill_m, 0.0002, cavity.depth_m)
    filled, density, surface = volume_m3(cavity, fill_m), melt.spread("density_melt"), open_m2(cavity, fill_m)
    volume = filled - require_range("stick.inside_m3", displaced_m3, 0.0, 0.8 * filled)
    finished = combine(volume * density.likely, [[volume * density.low, volume * density.high]])
    heap = melt.spread("overfill")
    full = fill_m > cavity.depth_m - heap.likely
    scraped = (heap if full else heap.times(0.0)).times(surface * density.likely)
    poured = combine(
        finished.likely + scraped.likely,
        [
            [finished.low + scraped.likely, finished.high + scraped.likely],
            [finished.likely + scraped.low, finished.likely + scraped.high],
        ],
    )
    across, along = cavity.bounds_m()
    thin, thick = place_slabs_m(cavity, fill_m) or (None, None)
    return CastAmounts(
        fill_m=fill_m,
        volume=explained(
            volume,
            "m3",
            "its slices from the floor to the fill level, times what the water weight says of the measured sizes, less what is put in",
            given("fill level", fill_m, "m"),
            given("opening across", across, "m"),
            given("opening along", along, "m"),
            given("depth", cavity.depth_m, "m"),
            given("weighed / measured", cavity.volume_factor, "frac"),
            *([given("put in", displaced_m3, "m3")] if displaced_m3 else []),
            sources=("geometry",),
        ),
        finished=explained(
            finished,
            "kg",
            "volume x density of the melt as poured",
            given("volume", volume, "m3"),
            given("density", density, "kg/m3"),
            sources=(melt["density_melt"].source,),
        ),
        scraped=explained(
            scraped,
            "kg",
            "open surface x what stands above the rim x density; nothing when filled below the rim",
            given("open surface", surface, "m2"),
            given("stands above the rim", heap if full else 0.0, "m"),
            sources=(melt["overfill"].source,),
        ),
        poured=explained(
            poured, "kg", "finished + scraped", given("finished", finished, "kg"), given("scraped", scraped, "kg")
        ),
        open_m2=surface,
        wetted_m2=wetted_m2(cavity, fill_m),
        thickness=thickness_m(cavity, fill_m),
        slab=slab_m(cavity, fill_m),
        thin_m=thin,
        thick_m=thick,
        plate_m=math.sqrt(surface / math.pi) / 2,
    )
