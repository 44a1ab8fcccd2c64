"""What is asked of a family of melts, the same of each: whoever casts, plans or words a melt asks its family."""

from abc import ABC, abstractmethod
from dataclasses import dataclass
from typing import Literal

from umber_pebble.core.materials.load import Material
from umber_pebble.core.spread import Spread

Rows = Literal["sugar", "fat"]
"""Which rows of the practice's tables hold for a family, and which words the screens have for it."""
Solvent = Literal["water", "oil"]
Made = Literal["cooked", "melted", "tempered"]
"""By which kind of way an order makes it."""


@dataclass(frozen=True, slots=True)
class Ends:
    """The marks of a cast's windows at which something ends: it bears the next pass; hands may let go of a join; a fresh pour no
    longer runs into one just poured."""

    bears_next: str
    held_until: str
    runs_together: str


class Family(ABC):
    """A family of melts: how it runs, where it is poured, what it bears. Materials name theirs by its key."""

    key: str
    rows: Rows
    made: Made
    dissolves: Solvent
    parts_from: Solvent
    parting: str
    """What the wrong kind of colour does to it, after "it"."""
    nibs: bool
    """Sold as clear nibs too, and white ones among them show."""
    wet: bool
    """Whether water may be added to its cook."""
    staged: bool
    """Boiled as a syrup, through its stages."""
    shaken: bool
    """Melted over a ring turned down and shaken: stirred, it crystallises."""
    skins: bool
    """Whether a skin sets on a mould's wall that stays when the rest is tipped out."""
    sets_in_the_cold: bool
    eased_off: bool
    """Whether a drizzle of it is eased off its bowl once it is rigid."""
    hot: bool
    """So hot while it runs that its caution is read first."""
    bends: bool
    """Whether it is bent while it is warm."""
    hygroscopic: bool
    """Whether it draws water from the air."""
    tempers: bool
    ends: Ends
    goes_to: str
    """Which value of a melt says to what it is usually heated."""
    short_by: str
    """And which of the kitchen says how far short of it that may fall."""

    @abstractmethod
    def coolest_degc(self, melt: Material) -> float:
        """The coolest it may be poured [degC]."""

    @abstractmethod
    def poured_at(self, melt: Material) -> tuple[Spread, Spread | None]:
        """How warm it is poured where no vessel is known yet [degC]; and its glass transition, where it sets to a glass [degC]."""

    @abstractmethod
    def runs_off(self, melt: Material, degc: float | None) -> tuple[Spread, Spread]:
        """Yield value and viscosity while it runs off a wall [Pa, Pa s]; degc: as warm as it is, None: as it is poured."""

    @abstractmethod
    def dipped_at(self, melt: Material, degc: float | None) -> float | None:
        """How warm a bath is of which nobody said [degC]; None: as it is poured."""

    @abstractmethod
    def stands_pa(self, melt: Material) -> Spread | None:
        """The yield value by which a dollop stands [Pa]; None: it lies on its contact angle."""

    @abstractmethod
    def softens_degc(self, melt: Material) -> float | None:
        """What is as warm as this melts a shell of it [degC]; None: nothing that is filled into it does."""
