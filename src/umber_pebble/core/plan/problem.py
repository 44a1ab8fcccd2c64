"""What a plan is made from."""

from dataclasses import dataclass

from umber_pebble.core.heat.piece import Place
from umber_pebble.core.heat.vessel import Pot
from umber_pebble.core.materials.load import Material
from umber_pebble.core.moulds.disc import Disc
from umber_pebble.core.plan.spares import BreakRate
from umber_pebble.core.spread import Spread


@dataclass(frozen=True, slots=True)
class Paces:
    """How long this kitchen's hands take [s]."""

    weigh_s: float
    pour_each_s: float
    bend_each_s: float
    unmould_each_s: float
    clean_s: float
    call_before_s: float


@dataclass(frozen=True, slots=True)
class Mould:
    """A mould with one kind of cavity. mould_id ties lines that share it; bears is as its owner gave it."""

    mould_id: str
    material: Material
    wall_m: float
    disc: Disc
    cavities: int
    owned: int
    bears_degc: float


@dataclass(frozen=True, slots=True)
class Line:
    """A line of the order: how many of a piece, filled to a level in its mould, bent while warm or left."""

    name: str
    quantity: int
    mould: Mould
    fill_m: float
    bend: bool
    break_rate: BreakRate


@dataclass(frozen=True, slots=True)
class CookChoice:
    """How the isomalt is cooked: form as bought, water (None = by the size of the cook), temperature."""

    crystalline: bool
    water: bool | None
    cook_degc: float


@dataclass(frozen=True, slots=True)
class Ring:
    """A hob ring: rated power [W], share that arrives [frac]."""

    power_w: float
    efficiency: Spread


@dataclass(frozen=True, slots=True)
class PlanInput:
    """Everything a plan rests on. due_s is from now [s]."""

    lines: tuple[Line, ...]
    due_s: float
    melt: Material
    cook: CookChoice
    pot: Pot
    ring: Ring
    place: Place
    paces: Paces
    room_degc: float
    humidity_frac: float
    altitude_m: float
    confidence_frac: float
    reserve_frac: float
    residue_factor: Spread
