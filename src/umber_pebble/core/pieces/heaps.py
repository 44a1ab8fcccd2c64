"""What stands on a cast, a body or a sheet: lines, dollops, clusters; and what is told by its weight alone."""

import math
from dataclasses import replace

from umber_pebble.core.errors import require_range
from umber_pebble.core.explained import explained
from umber_pebble.core.materials.load import material
from umber_pebble.core.pieces.films import cap_high_m, cap_wide_m, dab, line_kg
from umber_pebble.core.pieces.layers import Laid, melted
from umber_pebble.core.pieces.passes import Cluster, Dollop, Drizzle, Rod


def plain(i: int, kg: float, volume_m3: float, thick_m: float, level_m: float) -> Laid:
    """Something that is not melted: what it weighs is told, not reckoned [kg, m3, m].

    Raises: OutOfRange: a weight outside 0 to 5 kg.
    Source: definition
    """
    require_range(f"passes.{i}.kg", kg, 0.0, 5.0)
    weight = explained(kg, "kg", "as given", sources=("definition",))
    return Laid(i, weight, weight, volume_m3, thick_m, level_m, level_m, None, ())


def rod_m3(rod: Rod) -> float:
    """What a stick or skewer displaces [m3].

    Raises: OutOfRange: a diameter outside 0.5 to 30 mm.
    Source: geometry
    """
    return math.pi * require_range("stick.diameter_m", rod.diameter_m, 0.0005, 0.03) ** 2 / 4 * rod.inside_m


def heaped(i: int, one: Drizzle | Dollop | Cluster, level_m: float) -> tuple[Laid, float]:
    """Lines, dollops or a cluster on what is at a level, and how wide one of them is [m].

    A dollop lies as its yield value lets it, a cluster is a cap on its contact angle, a line is as round as it runs.
    Args:
        i: of the pass
        one: the pass
        level_m: over the floor [m]
    Raises: OutOfRange: a size outside.
    Source: geometry, assumption
    """
    melt, angle = one.melt.material, material("kitchen", "usual", "film").value("contact")
    density = melt.value("density_melt")
    match one:
        case Drizzle():
            kg, wide = line_kg(one.length_m, one.bore_m, density), one.bore_m
            high, area, what = wide, one.length_m * wide, "length x cut of the line"
            mean = math.pi / 4 * high
        case Dollop():
            require_range(f"passes.{i}.count", one.count, 1, 500)
            lies, wide = dab(melt, one.diameter_m, tapped=True), one.diameter_m
            kg, area = one.count * lies.volume.likely * density, one.count * math.pi * wide**2 / 4
            high, mean = lies.high.likely, kg / density / area
            what = "as it spreads on its yield value, tapped, x how many"
        case Cluster():
            require_range(f"passes.{i}.inside_kg", one.inside_kg, 1e-4, 2.0)
            require_range(f"passes.{i}.melt_frac", one.melt_frac, 0.05, 0.95)
            kg = one.inside_kg * one.melt_frac / (1 - one.melt_frac)
            heap = kg / density + one.inside_kg / material("fillings", "nuts").value("density")
            wide = cap_wide_m(heap, angle)
            high, area, what = (
                cap_high_m(wide, angle),
                math.pi * wide**2 / 4,
                "share of the heap that binds what is in it",
            )
            mean = heap / area
    made = melted(i, melt, kg / density, mean, area, level_m, level_m + high, what)
    return replace(made, thick_m=high, beside_kg=one.inside_kg if isinstance(one, Cluster) else 0.0), wide
