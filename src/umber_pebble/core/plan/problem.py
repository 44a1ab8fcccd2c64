"""What a plan is made from."""

from dataclasses import dataclass, field
from functools import cached_property

from umber_pebble.core.heat.body import Revolved
from umber_pebble.core.heat.melting import Bath
from umber_pebble.core.heat.piece import Place, Stay
from umber_pebble.core.heat.vessel import Pot
from umber_pebble.core.materials.load import Material
from umber_pebble.core.melts.bursts import THROUGH, School
from umber_pebble.core.melts.oven import Microwave, coupled_w
from umber_pebble.core.moulds.cavity import Cavity
from umber_pebble.core.pieces.cast import CastAmounts
from umber_pebble.core.plan.spares import BreakRate
from umber_pebble.core.spread import Spread, exact

NOTHING = exact(0.0)


@dataclass(frozen=True, slots=True)
class Paces:
    """How long this kitchen's hands take [s]."""

    weigh_s: float
    pour_each_s: float
    bend_each_s: float
    stick_each_s: float
    fill_each_s: float
    join_each_s: float
    stir_s: float
    unmould_each_s: float
    clean_s: float
    dry_s: float
    call_before_s: float


@dataclass(frozen=True, slots=True)
class Mould:
    """One kind of cavity of a mould, and what is under it; or a tray on which so many bodies lie, or props for so many joins.
    mould_id ties lines that share it, kind is which of its cavities; bears is as its owner gave it; hands: they hold what is in
    it, so it is free when they are; detail_m: width of its finest detail, None where nobody said [m];
    oiled: with the thinnest film of oil."""

    mould_id: str
    kind: int
    material: Material
    wall_m: float
    cavity: Cavity
    cavities: int
    owned: int
    bears_degc: float
    name: str = ""
    hands: bool = False
    detail_m: float | None = None
    oiled: bool = False

    @property
    def at_once(self) -> int:
        """Castings that one round takes at most [count]."""
        return self.cavities * self.owned

    @property
    def bears(self) -> float:
        """The least of what its owner and its material say [degC]."""
        return min(self.bears_degc, self.material.value("bears"))


@dataclass(frozen=True, slots=True)
class Handful:
    """What hands put into each cavity before a pour: "filling", "dust", "centre", "paste" or "stick"; its name, grams each [kg],
    and how long one takes [s]; key: of a filling in the tables."""

    what: str
    name: str
    kg: float
    each_s: float
    key: str = ""


@dataclass(frozen=True, slots=True)
class Line:
    """One pour of a line of the order: how many castings of which melt, what one takes, in which mould.

    A part of several passes is a line for each of its melts: after is the line that this one is poured on, last whether it is
    unmoulded then; item the line of the order; kind how it is laid on
    ("fill", "detail", "shell", "tipped", "turned", "close", "dip", "drizzle", "dollop", "cluster", "join", or "swirl": into the vessel of the next line, right before that is poured). under: what it lies on
    (material, thickness [m], how warm [degC]); first: what hands put in before it. dip: how deep and wide what is dipped is [m].
    needs: the lines whose castings it joins; hold_s: for how long hands hold each of them [s], softens_s: how long a dab first rests on the face [s]. build: what its part's build is
    known by where break rates are kept, "" for a plain fill. work: what they do while it is soft ("bend", "stick", "sprinkle"), or None; leaves: at which mark of its windows it leaves its mould or film: "unmould" cold, "peel", "rigid" (off a bowl), "release_opens" (warm,
    to be shaped on a form). body: what cools like it where it is poured into a bare cavity. lies: the way it goes from its
    pour, each stay with its place's id; empty: as its material's way has it.
    """

    name: str
    quantity: int
    melt: str
    mould: Mould
    cast: CastAmounts
    work: str | None
    break_rate: BreakRate
    lies: tuple[tuple[Stay, str], ...] = ()
    under: tuple[tuple[Material, float, float | None], ...] = ()
    after: int | None = None
    last: bool = True
    first: tuple[Handful, ...] = ()
    item: int = 0
    kind: str = "fill"
    dip: tuple[float, float] | None = None
    needs: tuple[int, ...] = ()
    hold_s: float = 0.0
    build: str = ""
    leaves: str = "unmould"
    softens_s: float = 0.0
    body: Revolved | None = None

    @property
    def fill_m(self) -> float:
        """How high over the floor it stands."""
        return self.cast.fill_m

    @property
    def cast_off(self) -> bool:
        """Whether a casting leaves its mould after it: the last pour of a part, no join."""
        return self.last and not self.needs

    @property
    def whole_ball(self) -> bool:
        """Whether it is a ball, cast whole in a two-part mould and turned."""
        return self.kind == "turned"

    @property
    def alone(self) -> bool:
        """Whether hands are bound to it after its pour, so that nothing else is poured from its vessel then."""
        return self.work is not None or self.whole_ball

    @property
    def released(self) -> bool:
        """Whether it leaves its mould warm and is bent on a form after that."""
        return self.leaves == "release_opens"

    @property
    def handfuls_s(self) -> float:
        """How long hands take for what is put into one cavity before the pour [s]."""
        return sum(h.each_s for h in self.first)


@dataclass(frozen=True, slots=True)
class HandStep:
    """What hands make of no melt: a part pressed of paste ("press"), or a join by warming or glue ("join"): how many, how long
    each takes hands [s], how long it then rests in its mould, or until it holds [s], and dries on its form after that [s]; needs: the lines whose castings it
    joins; kg: of each."""

    what: str
    name: str
    item: int
    count: int
    kg: float
    each_s: float
    rests: Spread
    needs: tuple[int, ...] = ()
    dries: Spread = NOTHING


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
    """How isomalt is cooked: form as bought, water (None = by the size of the cook), temperature, ring; heater_id:
    of it."""

    crystalline: bool
    water: bool | None
    cook_degc: float
    ring: Ring
    heater_id: str = "ring"


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
    """How one melt is made in this order, and where its moulds lie: poured on one place, set in another; colour: as hex, None
    as it comes; fills_off: how much thicker than reckoned it was seen to be poured from this vessel [log10 Pa s].

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
    colour: str | None = None
    fills_off: Spread = NOTHING

    @property
    def carried(self) -> bool:
        return self.poured_on_id != self.sets_in_id

    @property
    def end_degc(self) -> float:
        return self.by.cook_degc if isinstance(self.by, SugarCook) else self.by.melt_to_degc


@dataclass(frozen=True)
class PlanInput:
    """Everything a plan rests on; ways by the key of their melt; shelves: moulds a place takes at once [count]. due_s is from
    now [s]."""

    lines: tuple[Line, ...]
    ways: dict[str, Way]
    due_s: float
    paces: Paces
    room_degc: float
    humidity_frac: float
    altitude_m: float
    confidence_frac: float
    reserve_frac: float
    by_hand: tuple[HandStep, ...] = ()
    shelves: dict[str, int] = field(default_factory=dict)

    def way(self, line: Line) -> Way:
        return self.ways[line.melt]

    @cached_property
    def chains(self) -> tuple[tuple[int, ...], ...]:
        """Per line, the lines of its part, from the first pass to the last."""
        chains: dict[int, list[int]] = {}
        head: dict[int, int] = {}
        for i, line in enumerate(self.lines):
            head[i] = i if line.after is None else head[line.after]
            chains.setdefault(head[i], []).append(i)
        return tuple(tuple(chains[head[i]]) for i in range(len(self.lines)))

    def built(self, line: int) -> bool:
        """Whether a line has to wait for others: one of several pours of a part, or a join."""
        return len(self.chains[line]) > 1 or bool(self.lines[line].needs)

    def pour_each_s(self, line: Line) -> float:
        """How long hands take to pour one casting, or to join and hold one piece [s]."""
        return self.paces.pour_each_s + line.hold_s

    def work_each_s(self, line: Line) -> float:
        """How long hands work on one cast while it is soft, taken out of its mould first where it is released warm [s]."""
        paces = self.paces
        freed = paces.unmould_each_s if line.released else 0.0
        return (
            freed
            + {"bend": paces.bend_each_s, "stick": paces.stick_each_s, "sprinkle": paces.fill_each_s, None: 0.0}[
                line.work
            ]
        )
