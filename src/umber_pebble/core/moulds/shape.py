"""What every cavity can be asked, whatever its shape."""

from typing import Protocol

from umber_pebble.core.errors import require_range
from umber_pebble.core.moulds.outline import Array, Points

SHALLOWEST_M, DEEPEST_M = 0.0005, 0.1


class Shape(Protocol):
    """A hollow open at the top, its floor a height over every point of its outline [m]."""

    def __hash__(self) -> int: ...

    @property
    def depth_m(self) -> float: ...

    def rim(self) -> Points:
        """The opening as a polygon."""
        ...

    def area_m2(self, level_m: float) -> float:
        """Open surface at a level."""
        ...

    def filled_m3(self, level_m: float) -> float:
        """Volume from the floor to a level."""
        ...

    def wetted_m2(self, level_m: float) -> float:
        """Floor and wall covered up to a level."""
        ...

    def floor_m(self, x: Array, y: Array) -> Array:
        """Height of the floor or wall over points of the plane; not a number outside the rim."""
        ...


def checked_level(shape: Shape, level_m: float) -> float:
    """A level that lies in the shape [m].

    Raises: OutOfRange: below the floor or above the rim.
    Source: definition
    """
    return require_range("fill_m", level_m, 0.0, shape.depth_m)
