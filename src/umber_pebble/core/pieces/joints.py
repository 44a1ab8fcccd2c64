"""Parts joined: the melt in a bead or in dots, and how long a join is held and then left alone."""

import math
from dataclasses import dataclass, replace

from umber_pebble.core.errors import OutOfRange, require_range
from umber_pebble.core.families.known import family_of
from umber_pebble.core.heat.casting import Casting, LayerUnder, Place, PlaceStay
from umber_pebble.core.heat.windows import windows_s
from umber_pebble.core.materials.load import Material, material
from umber_pebble.core.pieces.films import bead_kg, dab
from umber_pebble.core.pieces.layers import UNEVEN, Extent, LaidPass, melted
from umber_pebble.core.spread import Spread


def mat_m() -> float:
    """How thick the mat is that a join or a dipped piece lies on [m]. Source: from-memory"""
    return material("kitchen", "usual", "mat").value("thick")


@dataclass(frozen=True, slots=True)
class Joint:
    """One join of two parts: its seam, or so many dots [m, count]; how wide bead or dots are, the gap under a bead and its depth
    [m]; what the parts are of, and how thick [m]."""

    seam_m: float
    dots: int
    bead_m: float
    gap_m: float
    deep_m: float
    of: Material
    thick_m: float

    def __post_init__(self) -> None:
        require_range("seam_m", self.seam_m, 0.0, 2.0)
        require_range("bead_m", self.bead_m, 0.0005, 0.03)
        if self.seam_m == 0 and self.dots == 0:
            raise OutOfRange("a join has a seam or dots: give one of them", path="seam_m", got=0.0)

    @property
    def meets_m2(self) -> float:
        """How much of both faces meets."""
        return self.seam_m * self.bead_m if self.dots == 0 else self.dots * math.pi * self.bead_m**2 / 4


@dataclass(frozen=True, slots=True)
class Holding:
    """How long a join is held, and until it bears being moved [s from when it was made]; softens: how long its dab of melt rests on
    the face before the part is pressed on, with so many small twists [s, count]; and how long it is held under cold spray [s], None
    where that is nothing for it."""

    holds: Spread
    sets: Spread
    softens_s: float = 0.0
    twists: int = 0
    sprayed: Spread | None = None


def joined(joint: Joint, melt: Material, count: int) -> LaidPass:
    """The melt of so many joins [kg], as a pass of a plan takes it.

    Args:
        joint: one of them
        melt: what joins it
        count: how many
    Raises: OutOfRange: a size outside.
    Source: geometry, assumption
    """
    density = melt.value("density_melt")
    if joint.dots:
        kg = joint.dots * dab(melt, joint.bead_m, tapped=False).volume.likely * density
    else:
        kg = bead_kg(joint.seam_m, joint.bead_m, joint.gap_m, joint.deep_m, density)
    volume = count * kg / density
    thick = volume / (count * joint.meets_m2)
    return melted(
        0,
        melt,
        Extent(volume, thick, count * joint.meets_m2, 0.0, thick),
        "beads or dots, and the gaps under them",
    )


def bead_casting(
    joint: Joint, melt: Material, thick_m: float, pour: Spread, tg: Spread | None, place: Place
) -> Casting:
    """A join as the heat engine takes it: a thin layer between the air and what it joins.

    Args:
        joint, melt: of the join
        thick_m: of the layer that has to set [m]
        pour: how warm it is laid [degC]
        tg: of a sugar melt [degC], None for a fat
        place: where it is joined
    Raises: OutOfRange.
    Source: definition
    """
    slab = Spread(*(thick_m * f for f in UNEVEN))
    mat = material("moulds", "silicone")
    under = (LayerUnder(joint.of, max(joint.thick_m, 1e-4), place.surface_degc),)
    return Casting(
        melt, mat, slab, max(joint.bead_m / 2, 1e-3), mat_m(), pour, tg, (PlaceStay(0.0, place),), under
    )


def holding(casting: Casting, dots: bool) -> Holding:
    """How long a join of melt, or of warmed faces, is held and left [s].

    A dab of fat grips as soon as it is no longer fluid at the face, whatever the engine says of all of it setting: hands hold it as
    long as practice does, or as the engine where that is shorter.
    Args:
        casting: from bead_casting
        dots: by dabs, not a bead
    Source: common-practice, definition
    """
    windows = windows_s(casting)
    held_until = family_of(casting.melt).ends.held_until
    still = windows.at[held_until]
    if casting.tg is not None:
        return Holding(still, windows.at["unmould"])
    sprayed = windows_s(_sprayed(casting)).at[held_until]
    if not dots:
        return Holding(still, windows.at["unmould"], sprayed=sprayed)
    dab_ = material("kitchen", "dab", "join")
    grips, holds = dab_.spread("holds"), windows.at["unmould"]
    held = Spread(*(min(getattr(grips, e), getattr(still, e)) for e in ("low", "likely", "high")))
    return Holding(held, holds, dab_.value("softens"), int(dab_.value("twists")), sprayed)


def _sprayed(casting: Casting) -> Casting:
    """The same under cold spray for some seconds. Never on hot sugar: it cracks."""
    spray, [stay] = material("kitchen", "cold_spray", "join"), casting.path
    cold = replace(stay.place, air_degc=spray.value("degc"), touch_w_m2k=spray.value("blows"))
    after = replace(stay, from_s=spray.value("lasts"))
    return replace(casting, path=(replace(stay, place=cold), after))


def glued(joint: Joint) -> tuple[Holding, float]:
    """How long a join by edible glue is held and left [s], and the glue it takes [kg]. Source: common-practice, assumption"""
    glue = material("kitchen", "glue", "join")
    return Holding(glue.spread("holds"), glue.spread("sets")), glue.value("spread") * joint.meets_m2


def softened_m() -> float:
    """How deep faces are soft when they are warmed to be joined [m]. Source: assumption"""
    return material("kitchen", "soften", "join").value("deep")


def hand_s(each_s: float, holds: Spread, count: int, props: bool) -> float:
    """How long hands take for the joins of one piece: each put together, and held where nothing else holds it [s].

    Args:
        each_s: to put one together [s]
        holds: how long it must be held [s]
        count: joins of one piece
        props: something else holds them
    Source: definition
    """
    return count * (each_s + (0.0 if props else holds.high))
