"""Sugar cooked to a temperature on a ring, or its nibs melted in a microwave: it sets to a glass."""

from dataclasses import dataclass
from typing import TYPE_CHECKING

from umber_pebble.core.errors import OutOfRange, require_range
from umber_pebble.core.explained import Explained, Input, explained, given
from umber_pebble.core.families.known import family_of
from umber_pebble.core.glass.viscosity import log_viscosity_wlf_1955, tg_spread_degc
from umber_pebble.core.glass.water import boils_at_degc, water_of_cook
from umber_pebble.core.heat.hob import Heating, hob_time_s
from umber_pebble.core.heat.pour import SugarFlow
from umber_pebble.core.heat.vessel import Pot, PotCase
from umber_pebble.core.materials.load import Material, material
from umber_pebble.core.melts.oven import coupled_w, nib_bursts, nib_duty_frac
from umber_pebble.core.plan.making import Charge, Making, least_degc, off_heat_degc
from umber_pebble.core.spread import Spread

if TYPE_CHECKING:
    from umber_pebble.core.plan.cooks import PotCook
    from umber_pebble.core.plan.problem import PlanInput


@dataclass(frozen=True, slots=True)
class Ring:
    """A hob ring: rated power [W], share that arrives [frac]; or a microwave that heats in bursts with a look after each."""

    power_w: float
    efficiency: Spread
    bursts: bool = False

    def given_w(self, melt: Material, load_kg: float) -> float:
        """What it gives a load, before the share that arrives, turned down where its family is [W]. Source: common-practice"""
        return coupled_w(self.power_w, load_kg, 1.0) if self.bursts else self.power_w * turned_frac(melt)


def turned_frac(melt: Material) -> float:
    """What of its power a ring gives under a melt [frac]. Source: common-practice"""
    return material("kitchen", "medium_low", "ring_setting").value("gives") if family_of(melt).shaken else 1.0


def check_nibs(melt: Material, path: str) -> None:
    """What melts in a microwave: only what is sold ready-cooked, as nibs.

    Args:
        melt: a sugar
        path: of the heater that was chosen
    Raises: OutOfRange: it is cooked, on a ring.
    Source: common-practice
    """
    if not family_of(melt).nibs:
        raise OutOfRange(f"{melt.name} is cooked on a ring: take one", path=path, got="microwave")


@dataclass(frozen=True, slots=True)
class SugarCook(Making):
    """How a sugar is cooked: form as bought, water (None = by the size of the cook), temperature, ring; heater_id:
    of it."""

    crystalline: bool
    water: bool | None
    cook_degc: float
    ring: Ring
    heater_id: str = "ring"

    @property
    def end_degc(self) -> float:
        """What it is cooked to [degC]."""
        return self.cook_degc

    @property
    def in_oven(self) -> bool:
        """Nibs in a microwave."""
        return self.ring.bursts

    @property
    def by_bursts(self) -> bool:
        """Nibs are melted by the look: their bursts are counted."""
        return False

    @property
    def on_ring(self) -> bool:
        """Everything else."""
        return not self.ring.bursts

    def check(self, melt: Material, path: str) -> None:
        """Hot enough, not browned, water only where it is cooked with some, in a microwave nothing but dry nibs. Raises: OutOfRange.
        Source: common-practice"""
        low = least_degc(melt)
        require_range(f"{path}.cook_degc", self.cook_degc, low, melt.value("spoils_at"))
        if self.water and not family_of(melt).wet:
            raise OutOfRange(f"{melt.name} is melted dry: no water", path=f"{path}.water", got="wet")
        if self.in_oven:
            check_nibs(melt, f"{path}.ring_id")
            if self.water:
                raise OutOfRange("no water in the microwave: nibs are melted dry", path=f"{path}.water", got="wet")

    def wet(self, melt: Material, charge_kg: float) -> bool:
        """As it is told, or by the size of the cook; never in a microwave. Source: common-practice"""
        if self.ring.bursts:
            return False
        return self.water if self.water is not None else charge_kg >= melt.value("large_cook")

    def _water_left(self, melt: Material, charge_kg: float, altitude_m: float) -> Spread:
        return water_of_cook(melt, wet=self.wet(melt, charge_kg), cook_degc=self.cook_degc, altitude_m=altitude_m)

    def flow(self, charge: Charge) -> tuple[SugarFlow, Spread | None]:
        """By the glass transition that its water leaves it. Source: gordon-taylor-1952"""
        melt, off = charge.melt, self.cook_degc
        water = self._water_left(melt, charge.kg, charge.altitude_m)
        # a wet cook comes off at its own boiling point; a drier one is already below its own
        wet = self.wet(melt, charge.kg)
        boils = max(boils_at_degc(water.likely, charge.altitude_m), off if wet else 0.0)
        tg = tg_spread_degc(melt, water)
        spread = off_heat_degc(off)
        fills, dips = charge.fills(tg), charge.dips
        return SugarFlow(melt, spread, tg, boils, charge.bears_degc, fills, dips, charge.divides), water

    def heating(self, charge: Charge, water_kg: float) -> tuple[Heating, Spread]:
        """On its ring, or in so many bursts. Source: incropera-2007"""
        heating = Heating(
            charge.case,
            water_kg,
            self.crystalline,
            charge.room_degc,
            self.cook_degc,
            charge.altitude_m,
            self.ring.given_w(charge.melt, charge.kg),
            self.ring.efficiency,
        )
        return heating, hob_time_s(heating)

    def tempering(self, pot: Pot, case: PotCase, hob: Spread) -> tuple[None, float, Spread]:
        """A glass needs none. Source: definition"""
        return None, 0.0, hob

    def emptied_log_pa_s(self, melt: Material, charge_kg: float, altitude_m: float) -> float:
        """Half way between a fresh cook and the closing, in its logarithm. Source: williams-landel-ferry-1955"""
        tg = tg_spread_degc(melt, self._water_left(melt, charge_kg, altitude_m)).likely
        return (log_viscosity_wlf_1955(self.cook_degc, tg) + melt.value("log_pour_close")) / 2

    def water_told(self, c: "PotCook") -> Explained:
        """Source: common-practice"""
        return explained(
            c.water_kg,
            "kg",
            "its share of what is added, since the cook is large enough" if c.wet else "none: it is melted dry",
            given("added", c.fresh_kg, "kg"),
            given("share", c.way.melt.value("water_added"), "frac"),
            given("large from", c.way.melt.value("large_cook"), "kg"),
            sources=("common-practice",),
        )

    def water_left_told(self, plan: "PlanInput", c: "PotCook") -> Explained | None:
        """Source: gordon-taylor-1952"""
        assert c.water_left is not None and isinstance(c.flow, SugarFlow)
        return explained(
            c.water_left,
            "frac",
            "boiling table at the cook temperature and altitude"
            if c.wet
            else "a dry melt's own value, widely spread",
            given("cooked to", self.cook_degc, "degC"),
            given("altitude", plan.altitude_m, "m"),
            given("glass transition", c.flow.tg, "degC"),
            sources=("sugar-boiling-table", "gordon-taylor-1952")
            if c.wet
            else ("assumption", "gordon-taylor-1952"),
        )

    def nib_bursts(self, c: "PotCook", stir_s: float) -> int | None:
        """How many of them it takes. Source: common-practice"""
        return nib_bursts(c.hob.likely * nib_duty_frac(stir_s)) if self.ring.bursts else None

    def hob_told(self, c: "PotCook") -> Explained:
        """Source: incropera-2007"""
        return explained(
            c.hob,
            "s",
            "heat for sugar, melting, water, what boils off and the pot, over the ring's power less the loss",
            given("ring", self.ring.power_w, "W"),
            given("turned to", turned_frac(c.way.melt), "frac"),
            given("share that arrives", self.ring.efficiency, "frac"),
            given("melt", c.charge_kg, "kg"),
            given("water", c.water_kg, "kg"),
            given("pot", c.way.pot.mass_kg, "kg"),
            sources=("incropera-2007", "cammenga-zielasko-1996", "from-memory"),
            limited_by="the ring's power",
        )

    def opens_told(self, c: "PotCook", pot: tuple[Input, ...]) -> Explained:
        """Source: stokes-1851"""
        return explained(
            c.window.opens,
            "s",
            "off the heat until it no longer boils, the bubbles have risen and the mould bears it",
            given("at", c.window.open_degc, "degC"),
            *pot,
            given("bubble radius", c.way.melt.value("bubble_radius"), "m"),
            sources=("stokes-1851", "hadamard-rybczynski-1911", "incropera-2007"),
            limited_by=c.window.limited_by,
        )

    def closes_told(self, c: "PotCook", pot: tuple[Input, ...]) -> Explained:
        """Source: huppert-1982"""
        assert c.water_left is not None and isinstance(c.flow, SugarFlow)
        return explained(
            c.window.closes,
            "s",
            "off the heat until it is too thick to spread to the edge and into the finest detail before it cools there",
            given("at", c.window.close_degc, "degC"),
            given("thickness then", c.flow.closes, "log10 Pa s"),
            given("seen to pour against reckoned", c.way.fills_off, "log10 Pa s"),
            given("water left", c.water_left, "frac"),
            *pot,
            sources=(
                "huppert-1982",
                "bird-2002",
                "williams-landel-ferry-1955",
                "gordon-taylor-1952",
                "assumption",
            ),
            limited_by="what is poured, its mould, and the water this cook leaves",
        )
