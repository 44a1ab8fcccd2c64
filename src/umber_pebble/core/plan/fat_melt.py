"""Fat melted in a microwave or over a bath, and tempered where it must be: it sets by crystals."""

import math
from dataclasses import dataclass
from typing import TYPE_CHECKING

from umber_pebble.core.errors import require_range
from umber_pebble.core.explained import Explained, Input, explained, given
from umber_pebble.core.heat.melting import Bath, Melting, conductance, melting_time_s
from umber_pebble.core.heat.pour import FatFlow
from umber_pebble.core.heat.vessel import Pot, PotCase
from umber_pebble.core.materials.load import Material
from umber_pebble.core.melts.bursts import THROUGH, Belief, Bowl, School, plan_bursts
from umber_pebble.core.melts.oven import Microwave
from umber_pebble.core.plan.making import Charge, Making, least_degc, off_heat_degc
from umber_pebble.core.plan.tempered import Temper, tempered_charge
from umber_pebble.core.spread import Spread
from umber_pebble.core.temper.schools import Tempering

if TYPE_CHECKING:
    from umber_pebble.core.plan.cooks import PotCook
    from umber_pebble.core.plan.problem import PlanInput


@dataclass(frozen=True, slots=True)
class FatMelt(Making):
    """How a fat is melted: to which temperature, by what, in a microwave by which school; and how it is tempered, None where
    it needs none. heater_id: of the microwave or bath."""

    melt_to_degc: float
    by: Microwave | Bath
    heater_id: str
    school: School = THROUGH
    temper: Temper | None = None

    @property
    def end_degc(self) -> float:
        """What it is melted to [degC]."""
        return self.melt_to_degc

    def kept_to_degc(self, melt: Material) -> float:
        """What is in temper no warmer than it works, or it loses that [degC]. Source: common-practice"""
        return melt.spread("work_at").high if self._tempers else self.end_degc

    @property
    def _tempers(self) -> bool:
        return self.temper is not None and self.temper.school != "none"

    @property
    def in_oven(self) -> bool:
        """In a bowl, bursts and stirs in turn."""
        return isinstance(self.by, Microwave)

    @property
    def by_bursts(self) -> bool:
        """Each is planned by how the bowl stands."""
        return self.in_oven

    @property
    def on_ring(self) -> bool:
        """Never: it would scorch."""
        return False

    def check(self, melt: Material, path: str) -> None:
        """Warm enough to melt, not so warm that it spoils. Raises: OutOfRange. Source: common-practice"""
        low = least_degc(melt)
        require_range(f"{path}.melt_to_degc", self.melt_to_degc, low, melt.value("spoils_at"))

    def wet(self, melt: Material, charge_kg: float) -> bool:
        """Never: a drop of water seizes it. Source: common-practice"""
        return False

    def flow(self, charge: Charge) -> tuple[FatFlow, Spread | None]:
        """As warm as it works, or as it comes out of its heat. Source: common-practice"""
        melt, end = charge.melt, self.melt_to_degc
        off = off_heat_degc(end)
        if self._tempers:
            off = melt.spread("work_at")
        elif self.in_oven and self.school.stop == "lumps":
            off = plan_bursts(self._bowl(charge)).end.degc
        return FatFlow(melt, off, charge.bears_degc, charge.dips, charge.divides), None

    def heating(self, charge: Charge, water_kg: float) -> tuple[Melting | Bowl, Spread]:
        """In bursts, or over the bath. Source: incropera-2007"""
        if isinstance(self.by, Bath):
            melting = Melting(charge.case, charge.room_degc, self.melt_to_degc, self.by)
            return melting, melting_time_s(melting)
        bowl = self._bowl(charge)
        return bowl, plan_bursts(bowl).time_s

    def _bowl(self, charge: Charge) -> Bowl:
        assert isinstance(self.by, Microwave)
        return Bowl(
            charge.case, self.by, charge.room_degc, self.melt_to_degc, charge.melt.spread("wafer"), self.school
        )

    def tempering(self, pot: Pot, case: PotCase, hob: Spread) -> tuple[Tempering | None, float, Spread]:
        """By its school, its seed kept back. Source: beckett-2009"""
        return (
            (None, 0.0, hob)
            if self.temper is None
            else tempered_charge(pot, self.temper, case, self.end_degc, hob)
        )

    def emptied_log_pa_s(self, melt: Material, charge_kg: float, altitude_m: float) -> float:
        """Casson's plastic viscosity: a drained film hardly shears, so its yield value counts as that much more. Source: casson-1959"""
        return math.log10(melt.value("casson_viscosity") + melt.value("casson_yield"))

    def water_told(self, c: "PotCook") -> Explained:
        """Source: common-practice"""
        return explained(0.0, "kg", "none: a drop of water seizes it", sources=("common-practice",))

    def water_left_told(self, plan: "PlanInput", c: "PotCook") -> Explained | None:
        """Source: definition"""
        return None

    def hob_told(self, c: "PotCook") -> Explained:
        """Source: incropera-2007"""
        shared = (
            given("melt", c.charge_kg, "kg"),
            given("bowl", c.way.pot.mass_kg, "kg"),
            given("melted to", self.melt_to_degc, "degC"),
        )
        if isinstance(self.by, Bath):
            return explained(
                c.hob,
                "s",
                "heat for fat, melting and bowl, over what the hot water gives through the bowl",
                given("water", self.by.water_degc, "degC"),
                given("conductance", conductance(), "W/m2K"),
                *shared,
                sources=("beckett-2009", "assumption"),
                limited_by="the bath",
            )
        assert isinstance(c.heating, Bowl)
        oven, school, share = c.heating.oven, c.heating.school, Belief(c.heating).oven_frac
        return explained(
            c.hob,
            "s",
            "bursts until it stops as its school has it, each with its stir",
            given("microwave", oven.power_w, "W"),
            given("share that couples", share, "frac"),
            given("of full power", school.power_frac, "frac"),
            given("wafers", c.heating.wafer_m, "m"),
            given("a stir", oven.stir_s, "s"),
            *shared,
            sources=("beckett-2009", "common-practice"),
            limited_by="the microwave's power",
        )

    def opens_told(self, c: "PotCook", pot: tuple[Input, ...]) -> Explained:
        """Source: common-practice"""
        assert isinstance(c.flow, FatFlow)
        return explained(
            c.window.opens,
            "s",
            "off the heat until it is cool enough to pour and the mould bears it",
            given("at", c.window.open_degc, "degC"),
            given("dipped below" if c.flow.dips else "poured below", c.flow.at_most_degc, "degC"),
            *pot,
            sources=("common-practice", "incropera-2007"),
            limited_by=c.window.limited_by,
        )

    def closes_told(self, c: "PotCook", pot: tuple[Input, ...]) -> Explained:
        """Source: avrami-1939"""
        return explained(
            c.window.closes,
            "s",
            "off the heat until so much of it has set that it thickens; warmed again it pours on",
            given("at", c.window.close_degc, "degC"),
            given("share set", c.way.melt.spread("set_thickens"), "frac"),
            *pot,
            sources=("avrami-1939", "incropera-2007", "assumption"),
            limited_by="how fast the fat sets",
        )
