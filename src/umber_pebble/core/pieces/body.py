"""A body that is dipped or coated outside: a fruit, a centre on a stick, a former."""

import math
from dataclasses import dataclass
from functools import lru_cache

import shapely
from shapely.affinity import scale
from shapely.geometry.base import BaseGeometry

from umber_pebble.core.errors import OutOfRange, require_range
from umber_pebble.core.materials.load import Material

SHAPES = ("ball", "cone", "rod")
ROUNDING = 0.2
"""How round the edges of a cone and a rod are, of their half width."""
CORNERS = 48


@dataclass(frozen=True, slots=True)
class Body:
    """A round body, its lowest point at 0: which shape, how wide and high [m]; made of; how thick its skin is where it is hollow
    [m], None: solid; how warm it is dipped [degC]; eaten with its coat, or a former that is taken out."""

    shape: str
    diameter_m: float
    high_m: float
    material: Material
    skin_m: float | None
    degc: float
    eaten: bool

    def __post_init__(self) -> None:
        if self.shape not in SHAPES:
            raise OutOfRange("no such body", path="body.shape", got=self.shape, limits={"one_of": list(SHAPES)})
        require_range("body.diameter_m", self.diameter_m, 0.003, 0.4)
        require_range("body.high_m", self.high_m, 0.003, 0.4)
        require_range("body.degc", self.degc, -30.0, 40.0)

    @property
    def volume_m3(self) -> float:
        return revolved_m3([profile(self.shape, self.diameter_m, self.high_m)])

    @property
    def behind_m(self) -> float:
        """What of it takes heat from a coat: its skin, or a plate as its volume is over its surface."""
        return self.skin_m if self.skin_m is not None else min(self.diameter_m, self.high_m) / 6


@lru_cache(maxsize=64)
def profile(shape: str, diameter_m: float, high_m: float) -> BaseGeometry:
    """The cut through a body's axis, (across, height) [m].

    Args:
        shape: "ball" (also longer or flatter than round), "cone" on its tip, or "rod"
        diameter_m, high_m: its size [m]
    Source: geometry
    """
    half = diameter_m / 2
    if shape == "ball":
        unit = shapely.Point(0.0, 0.5).buffer(0.5, quad_segs=CORNERS)
        return scale(unit, diameter_m, high_m, origin=(0.0, 0.0))
    edge = ROUNDING * min(half, high_m / 2)
    raw = (
        shapely.box(-half, 0.0, half, high_m)
        if shape == "rod"
        else shapely.Polygon([(0.0, 0.0), (half, high_m), (-half, high_m)])
    )
    small = raw.buffer(-edge, join_style="mitre").buffer(edge, quad_segs=CORNERS // 4)
    # rounded, then as large as it was measured
    x0, z0, x1, z1 = small.bounds
    return scale(
        shapely.affinity.translate(small, 0.0, -z0), diameter_m / (x1 - x0), high_m / (z1 - z0), origin=(0.0, 0.0)
    )


def revolved_m3(planes: list[BaseGeometry]) -> float:
    """Volume of what is cut by planes through an axis, evenly turned over half a circle [m3], by Pappus.

    Args:
        planes: the cut in each, (across, height) [m]
    Source: geometry
    """
    total = 0.0
    for cut in planes:
        for side in (shapely.box(0.0, -1.0, 1.0, 2.0), shapely.box(-1.0, -1.0, 0.0, 2.0)):
            area = cut.intersection(side)
            total += area.area * abs(area.centroid.x) if not area.is_empty else 0.0
    return math.pi / len(planes) * total
