"""A cast as a body of revolution."""

from dataclasses import dataclass

import shapely


@dataclass(frozen=True, slots=True)
class Revolved:
    """Floor and wall as (radius, height) from the axis to the fill level, where the open surface closes it [m]."""

    points: tuple[tuple[float, float], ...]

    @property
    def radius_m(self) -> float:
        return max(r for r, _ in self.points)

    @property
    def depth_m(self) -> float:
        return self.points[-1][1]

    def section(self) -> shapely.Polygon:
        """Half of its section, on one side of the axis [m]."""
        return shapely.Polygon([*self.points, (0.0, self.depth_m), (0.0, 0.0)])

    def with_wall(self, wall_m: float) -> shapely.Geometry:
        """Half of the section with a wall as thick everywhere, up to the fill level [m]."""
        half = self.section()
        other = shapely.Polygon([(-r, z) for r, z in half.exterior.coords])
        grown = shapely.union(half, other).buffer(wall_m, join_style="mitre")
        return shapely.intersection(grown, shapely.box(0.0, -1.0, 1.0, self.depth_m))
