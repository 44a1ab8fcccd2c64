"""How a melt is made ready to be poured, whatever it is: what a plan asks of it."""

from abc import ABC, abstractmethod
from collections.abc import Callable
from dataclasses import dataclass
from typing import TYPE_CHECKING

from umber_pebble.core.explained import Explained, Input
from umber_pebble.core.families.known import family_of
from umber_pebble.core.heat.hob import Heating
from umber_pebble.core.heat.melting import Melting
from umber_pebble.core.heat.pour import Flow
from umber_pebble.core.heat.vessel import Pot, PotCase
from umber_pebble.core.materials.load import Material, material
from umber_pebble.core.melts.bursts import Bowl
from umber_pebble.core.spread import Spread
from umber_pebble.core.temper.schools import Tempering

if TYPE_CHECKING:
    from umber_pebble.core.plan.cooks import PotCook
    from umber_pebble.core.plan.problem import PlanInput


def off_heat_degc(wanted_degc: float) -> Spread:
    """How warm what should come off the heat at a temperature does [degC]. Source: assumption"""
    by = material("kitchen", "usual", "off_heat").spread("by")
    return Spread(wanted_degc + by.low, wanted_degc + by.likely, wanted_degc + by.high)


def least_degc(melt: Material) -> float:
    """The coolest a melt may be taken off the heat [degC]: so far under the lowest of what it usually goes to. Source: assumption"""
    of = family_of(melt)
    return melt.spread(of.goes_to).low - material("kitchen", "usual", "off_heat").value(of.short_by)


@dataclass(frozen=True, slots=True)
class Charge:
    """What is made in one go: its vessel, what its moulds bear [degC], whether it is dipped into, or divided into other vessels, and how thick it may be poured into
    them once its glass transition is known [log10 Pa s]; in which room, how high up [m]."""

    case: PotCase
    room_degc: float
    altitude_m: float
    bears_degc: float
    dips: bool
    divides: bool
    fills: Callable[[Spread], Spread]

    @property
    def melt(self) -> Material:
        return self.case.melt

    @property
    def kg(self) -> float:
        return self.case.melt_kg


class Making(ABC):
    """One way of making a melt: how hot it gets, by what; how it then flows, and how that is told."""

    heater_id: str

    @property
    @abstractmethod
    def end_degc(self) -> float:
        """How hot it gets [degC]."""

    @property
    @abstractmethod
    def in_oven(self) -> bool:
        """In a microwave."""

    @property
    @abstractmethod
    def by_bursts(self) -> bool:
        """In bursts of a microwave that are planned and told one by one."""

    @property
    @abstractmethod
    def on_ring(self) -> bool:
        """On a ring, where only metal stands."""

    @abstractmethod
    def check(self, melt: Material, path: str) -> None:
        """Nothing where it can be made so [path: for the error]. Raises: OutOfRange."""

    @abstractmethod
    def wet(self, melt: Material, charge_kg: float) -> bool:
        """Whether water is added to it."""

    @abstractmethod
    def flow(self, charge: Charge) -> tuple[Flow, Spread | None]:
        """How it flows once it is made, and the water left in it, where that counts [frac]."""

    @abstractmethod
    def heating(self, charge: Charge, water_kg: float) -> tuple[Heating | Melting | Bowl, Spread]:
        """How it is heated, and how long that takes [s]."""

    @abstractmethod
    def tempering(self, pot: Pot, case: PotCase, hob: Spread) -> tuple[Tempering | None, float, Spread]:
        """How it is tempered, if it is; what of it is kept back as seed [kg]; how long all of it takes [s]."""

    @abstractmethod
    def emptied_log_pa_s(self, melt: Material, charge_kg: float, altitude_m: float) -> float:
        """How thick it is when its vessel is emptied [log10 Pa s]."""

    @abstractmethod
    def water_told(self, c: "PotCook") -> Explained:
        """The water that is added [kg]."""

    @abstractmethod
    def water_left_told(self, plan: "PlanInput", c: "PotCook") -> Explained | None:
        """The water left in it [frac], where that counts."""

    @abstractmethod
    def hob_told(self, c: "PotCook") -> Explained:
        """How long it takes [s]."""

    @abstractmethod
    def opens_told(self, c: "PotCook", pot: tuple[Input, ...]) -> Explained:
        """When its pour window opens [s from off the heat]."""

    @abstractmethod
    def closes_told(self, c: "PotCook", pot: tuple[Input, ...]) -> Explained:
        """When its pour window closes [s from off the heat]."""

    def kept_to_degc(self, melt: Material) -> float:
        """The warmest it is kept until it is poured [degC]. Source: common-practice"""
        return self.end_degc

    def nib_bursts(self, c: "PotCook", stir_s: float) -> int | None:
        """Bursts of a microwave that are counted, not planned one by one [count]."""
        return None
