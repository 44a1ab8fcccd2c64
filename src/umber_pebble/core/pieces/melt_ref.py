"""A melt as a piece names it."""

from dataclasses import dataclass
from typing import Annotated

from umber_pebble.core.materials.load import Material, material
from umber_pebble.core.pieces.fields import Number, Shape
from umber_pebble.core.texts import Hex, Id

OwnMelts = tuple[tuple[str, Material], ...]
"""Melts of a workshop's own, by their keys."""


@dataclass(frozen=True, slots=True)
class MeltRef(Shape):
    """A melt: a material of the tables or the workshop's own, in one colour; colour None: as it comes."""

    material: Id
    colour: Hex | None

    @property
    def key(self) -> str:
        """What a plan knows it by."""
        return f"{self.material}{self.colour or ''}"

    def of(self, own: OwnMelts) -> Material:
        """Its material.

        Raises: OutOfRange: there is none.
        Source: definition
        """
        return dict(own).get(self.material) or material("melts", self.material)


@dataclass(frozen=True, slots=True)
class MeltShare(Shape):
    """A melt beside the first of a pass, and which share of the pass it is."""

    melt: MeltRef
    share_frac: Annotated[float, Number("frac", 0.01, 0.95, 5.0)]
