"""What a plan is made from."""

import math
from dataclasses import dataclass

from umber_pebble.core.heat.melting import Bath
from umber_pebble.core.heat.piece import Place, Stay
from umber_pebble.core.heat.vessel import Pot
from umber_pebble.core.materials.load import Material
from umber_pebble.core.melts.bursts import THROUGH, School
from umber_pebble.core.melts.oven import Microwave, coupled_w
from umber_pebble.core.moulds.cavity import Cavity
from umber_pebble.core.plan.spares import BreakRate
from umber_pebble.core.spread import Spread


@dataclass(frozen=True, slots=True)
class Paces:
    """How long this kitchen's hands take [s]."""

    weigh_s: float
    pour_each_s: float
    bend_each_s: float
    stick_each_s: float
    stir_s: float
    unmould_each_s: float
    clean_s: float
    call_before_s: float


@dataclass(frozen=True, slots=True)
class Mould:
    """One kind of cavity of a mould, and what is under it. mould_id ties lines that share the mould, kind is which of
    its cavities; bears is as its owner gave it."""

    mould_id: str
    kind: int
    material: Material
    wall_m: float
    cavity: Cavity
    cavities: int
    owned: int
    bears_degc: float


@dataclass(frozen=True, slots=True)
class Stick:
    """A stick put into each cast while it is soft: its diameter and how much of it is in the melt [m]."""

    diameter_m: float
    inside_m: float

    @property
    def inside_m3(self) -> float:
        return math.pi * self.diameter_m**2 / 4 * self.inside_m


@dataclass(frozen=True, slots=True)
class Line:
    """A line of the order: how many of a piece, of which melt, filled to a level in its mould.

    work: what hands do while it is soft ("bend", "stick"), or None; lies: the way it goes from its pour, each stay with
    its place's id; empty: as its material's way has it.
    """

    name: str
    quantity: int
    melt: str
    mould: Mould
    fill_m: float
    work: str | None
    stick: Stick | None
    break_rate: BreakRate
    lies: tuple[tuple[Stay, str], ...] = ()


@dataclass(frozen=True, slots=True)
class Ring:
    """A hob ring: rated power [W], share that arrives [frac]; or a microwave that heats in bursts with a look after each."""

    power_w: float
    efficiency: Spread
    bursts: bool = False

    def given_w(self, load_kg: float) -> float:
        """What it gives a load, before the share that arrives [W]. Source: common-practice"""
        return coupled_w(self.power_w, load_kg, 1.0) if self.bursts else self.power_w


@dataclass(frozen=True, slots=True)
class SugarCook:
    """How isomalt is cooked: form as bought, water (None = by the size of the cook), temperature, ring."""

    crystalline: bool
    water: bool | None
    cook_degc: float
    ring: Ring


@dataclass(frozen=True, slots=True)
class Temper:
    """How a couverture is tempered: by which school, and how warm seed, slab or cold water is [degC]."""

    school: str
    cold_degc: float


@dataclass(frozen=True, slots=True)
class FatMelt:
    """How a fat is melted: to which temperature, by what, in a microwave by which school; and how it is tempered, None where
    it needs none. heater_id: of the microwave or bath."""

    melt_to_degc: float
    by: Microwave | Bath
    heater_id: str
    school: School = THROUGH
    temper: Temper | None = None


@dataclass(frozen=True, slots=True)
class Way:
    """How one material is melted in this order, and where its moulds lie: poured on one place, set in another.

    The same place means that the moulds are not carried.
    """

    melt: Material
    pot: Pot
    vessel_id: str
    by: SugarCook | FatMelt
    poured_on: Place
    poured_on_id: str
    sets_in: Place
    sets_in_id: str
    residue_factor: Spread

    @property
    def carried(self) -> bool:
        return self.poured_on_id != self.sets_in_id

    @property
    def end_degc(self) -> float:
        return self.by.cook_degc if isinstance(self.by, SugarCook) else self.by.melt_to_degc


@dataclass(frozen=True, slots=True)
class PlanInput:
    """Everything a plan rests on; ways by the key of their melt. due_s is from now [s]."""

    lines: tuple[Line, ...]
    ways: dict[str, Way]
    due_s: float
    paces: Paces
    room_degc: float
    humidity_frac: float
    altitude_m: float
    confidence_frac: float
    reserve_frac: float

    def way(self, line: Line) -> Way:
        return self.ways[line.melt]

    def work_each_s(self, line: Line) -> float:
        """How long hands work on one cast while it is soft [s]."""
        return {"bend": self.paces.bend_each_s, "stick": self.paces.stick_each_s, None: 0.0}[line.work]
