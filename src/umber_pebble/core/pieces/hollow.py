"""What is left of a cavity between two passes."""

from dataclasses import dataclass, replace

from umber_pebble.core.materials.load import Material, material
from umber_pebble.core.moulds.cavity import Cavity, level_m, volume_m3
from umber_pebble.core.moulds.inset import inset
from umber_pebble.core.pieces.faults import ImpossiblePass

THINNEST_M, THICKEST_M = 2e-4, 0.03


def room(name: str) -> float:
    """A usual share of the room there is [frac]. Source: assumption"""
    return material("kitchen", "usual", "room").value(name)


def inside(cavity: Cavity, thick_m: float) -> Cavity:
    """The hollow inside an even layer [m]. Source: geometry"""
    return Cavity(inset(cavity.shape, thick_m), cavity.volume_factor)


def band_m3(cavity: Cavity, thick_m: float) -> float:
    """The volume of an even layer on a cavity's wall [m3]. Source: geometry"""
    inner = inside(cavity, thick_m)
    return volume_m3(cavity, cavity.depth_m) - volume_m3(inner, inner.depth_m)


@dataclass(frozen=True, slots=True)
class Hollow:
    """What is left of a cavity: its shape and how high its floor lies [m], what lies in it unseen [m3], the level it is filled to,
    over the cavity's floor [m]; shell: of what its wall is, if it has one; on_top: what a close would lie on (of what, how thick [m],
    how warm [degC])."""

    cavity: Cavity
    lift_m: float = 0.0
    taken_m3: float = 0.0
    level_m: float = 0.0
    shell: Material | None = None
    on_top: tuple[Material, float, float] | None = None
    closed: bool = False

    @property
    def rim_m(self) -> float:
        return self.cavity.depth_m + self.lift_m

    @property
    def bare(self) -> bool:
        """Whether only its wall is covered yet."""
        return self.level_m <= self.lift_m

    def below_m3(self, level_m: float) -> float:
        """Volume of the hollow under a level over the cavity's floor."""
        return volume_m3(self.cavity, min(max(level_m - self.lift_m, 0.0), self.cavity.depth_m))

    def free_m3(self, level_m: float) -> float:
        """What still goes in up to a level."""
        return max(self.below_m3(level_m) - self.below_m3(self.level_m) - self.taken_m3, 0.0)

    def level_of(self, more_m3: float) -> float:
        """The level that so much more comes to."""
        return self.lift_m + level_m(self.cavity, self.below_m3(self.level_m) + self.taken_m3 + more_m3)

    def fits(self, volume_m3: float) -> float:
        """A layer's volume, where what lies on the wall already leaves so much room.

        Raises: Wrong: it does not.
        """
        free = self.free_m3(self.rim_m)
        if volume_m3 > free:
            raise ImpossiblePass(
                "too_large", "what is on the wall already leaves no room for it", volume_m3, free, "m3"
            )
        return volume_m3

    def with_in_it(self, volume_m3: float, what: str) -> "Hollow":
        """The same with something put in.

        Raises: Wrong: it takes more room than there is.
        """
        most = room("put_in") * self.free_m3(self.rim_m)
        if volume_m3 > most:
            raise ImpossiblePass("too_large", f"the {what} takes more room than there is", volume_m3, most, "m3")
        return replace(self, taken_m3=self.taken_m3 + volume_m3)
