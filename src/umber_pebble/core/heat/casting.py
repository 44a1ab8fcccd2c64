"""What is cast, in what, on what, and the way it goes."""

import math
from dataclasses import dataclass, replace
from typing import Literal

from umber_pebble.core.errors import OutOfRange, require_range
from umber_pebble.core.heat.body import Revolved
from umber_pebble.core.heat.conduction import SHAPES
from umber_pebble.core.materials.load import Material
from umber_pebble.core.spread import Spread, exact

HORIZON_S = {"sugar": 6 * 3600.0, "fat": 3 * 3600.0}
USUAL_M = 0.02
"""Thickness up to which the usual time is enough."""
STILL_M_S = exact(0.0)


@dataclass(frozen=True, slots=True)
class Place:
    """Where a mould lies: a surface of a thickness at a temperature, in air of a temperature and speed [m/s].

    air_unsure_k is how far that air may be from what its owner says; shelter: what a wrapping leaves of the air's
    cooling [1]; touch_w_m2k: in a hand or the like, a coefficient that takes the air's place; thin_air: what the altitude leaves of
    convection [1].
    """

    surface: Material
    thickness_m: float
    surface_degc: float
    air_degc: float
    air_m_s: Spread = STILL_M_S
    air_unsure_k: float = 0.0
    shelter: float = 1.0
    touch_w_m2k: float | None = None
    thin_air: float = 1.0

    @property
    def open(self) -> bool:
        """Whether there is nothing but air under the mould."""
        return self.surface.flags.get("open", False) or self.touch_w_m2k is not None

    @property
    def slid_out(self) -> bool:
        """Whether it is pulled out from under what is to set."""
        return self.surface.flags.get("slid_out", False)


@dataclass(frozen=True, slots=True)
class PlaceStay:
    """From this moment after the pour the mould lies in this place [s]."""

    from_s: float
    place: Place


@dataclass(frozen=True, slots=True)
class LayerUnder:
    """What the melt is poured on, between it and the mould: an earlier pass, a filling, a film."""

    material: Material
    thickness_m: float
    degc: float

    def __post_init__(self) -> None:
        require_range("under.thickness_m", self.thickness_m, 2e-5, 0.1)


@dataclass(frozen=True, slots=True)
class Casting:
    """A cast of melt in a mould wall, poured at a temperature and laid in a row of places.

    slab is the plate that cools like it, or the radius of a rod or ball (from inner_m outwards, all round in its
    mould); plate_m the length of its open surface (area over edge) [m]; tg: the glass transition of a sugar glass; None
    for a fat; under: what it is poured on; thin_m, thick_m: the plates its thin and thick places cool like, where they
    are not the whole's [m]; beside: casts side by side in one mould, over which the air moves as over one plate;
    body: its shape as a body of revolution, where it fills a cavity.
    """

    melt: Material
    mould: Material
    slab: Spread
    plate_m: float
    wall_m: float
    pour: Spread
    tg: Spread | None
    path: tuple[PlaceStay, ...]
    under: tuple[LayerUnder, ...] = ()
    shape: str = "plate"
    inner_m: float = 0.0
    thin_m: float | None = None
    thick_m: float | None = None
    beside: int = 1
    body: Revolved | None = None

    def __post_init__(self) -> None:
        require_range("slab_m", self.slab.low, 5e-5, 0.1)
        require_range("slab_m", self.slab.high, 5e-5, 0.1)
        require_range("wall_m", self.wall_m, 5e-5, 0.05)
        if (self.thin_m is None) != (self.thick_m is None):
            raise OutOfRange("thin and thick places are given together", path="thin_m", got=self.thin_m)
        if self.shape not in SHAPES:
            raise OutOfRange("no such shape", path="shape", got=self.shape, limits={"one_of": list(SHAPES)})
        starts = [stay.from_s for stay in self.path]
        if not starts or starts[0] != 0 or starts != sorted(set(starts)):
            raise OutOfRange(
                "a path begins with the pour and each place comes later than the one before",
                path="path",
                got=str(starts),
            )
        if starts[-1] >= self.horizon_s:
            hours = self.horizon_s / 3600
            raise OutOfRange(f"a path is followed for {hours:g} hours", path="path", got=starts[-1])

    @property
    def air_m(self) -> float:
        """Length of the surface that the air moves over: the whole mould's, area over edge [m]."""
        return self.plate_m * math.sqrt(self.beside)

    @property
    def kind(self) -> Literal["sugar", "fat"]:
        return "sugar" if self.tg else "fat"

    @property
    def in_the_round(self) -> bool:
        """Whether it is reckoned in two dimensions: poured into a bare cavity."""
        return self.body is not None and not self.under and self.shape == "plate"

    @property
    def through_m(self) -> float:
        """How thick it is where it is drawn: on its axis, or the slab that stands for it [m]."""
        return self.body.depth_m if self.body and self.in_the_round else self.slab.likely

    @property
    def horizon_s(self) -> float:
        """For how long it is followed: longer where it is so thick that its middle takes longer."""
        thick = max(self.slab.likely, self.thick_m or 0.0) / USUAL_M
        return HORIZON_S[self.kind] * max(1.0, thick**2)


def as_ball(casting: Casting, wall: Spread, radius_m: float) -> Casting:
    """The same melt as the wall of a hollow ball, all round in its mould [SI fields].

    Args:
        casting: as it would be in an open cavity
        wall: of the ball [m]
        radius_m: of its outside [m]
    Source: geometry
    """
    inner = max(radius_m - wall.likely, 1e-4)
    return replace(
        casting, slab=wall, shape="ball", inner_m=inner, under=(), thin_m=None, thick_m=None, beside=1, body=None
    )
