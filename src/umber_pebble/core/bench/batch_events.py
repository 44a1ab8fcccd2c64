"""What may be told of batches that are held."""

from dataclasses import dataclass
from typing import Annotated, ClassVar

from annotated_types import Len

from umber_pebble.core.bench.values import (
    Dye,
    HeldKg,
    Index,
    RescueS,
    Spot,
    TipM,
)
from umber_pebble.core.texts import Hex, OneLine


@dataclass(frozen=True, slots=True)
class SetDown:
    """A held batch to another spot."""

    KIND: ClassVar[str] = "moved"
    batch: Index
    spot: Spot


@dataclass(frozen=True, slots=True)
class Thrown:
    """A held batch is thrown away."""

    KIND: ClassVar[str] = "discarded"
    batch: Index


@dataclass(frozen=True, slots=True)
class Into:
    """A vessel of its own for a part of a melt: what it is called, what it is, how much [kg], how wide its tip is [m]."""

    name: OneLine
    holder: str
    spot: Spot
    kg: HeldKg
    tip_m: TipM | None = None
    colour: Hex | None = None


@dataclass(frozen=True, slots=True)
class Decanted:
    """Parts of a resting cook into vessels of their own."""

    KIND: ClassVar[str] = "decanted"
    cook: Index
    into: Annotated[list[Into], Len(1, 12)]


@dataclass(frozen=True, slots=True)
class Rewarmed:
    """A held batch for some seconds into the microwave."""

    KIND: ClassVar[str] = "heated"
    batch: Index
    seconds: RescueS


@dataclass(frozen=True, slots=True)
class Merged:
    """All of a held batch back into its cook, or into another batch of the same melt."""

    KIND: ClassVar[str] = "merged"
    batch: Index
    into: Index | None = None


@dataclass(frozen=True, slots=True)
class Coloured:
    """A colour stirred into a held batch."""

    KIND: ClassVar[str] = "coloured"
    batch: Index
    colour: Hex | None = None
    kind: Dye | None = None


@dataclass(frozen=True, slots=True)
class Parted:
    """Parts of a held batch into vessels of their own."""

    KIND: ClassVar[str] = "decanted"
    batch: Index
    into: Annotated[list[Into], Len(1, 12)]
