"""What a plan is made from."""

from collections.abc import Container
from dataclasses import dataclass, field
from functools import cached_property
from typing import Literal

from umber_pebble.core.heat.body import Revolved
from umber_pebble.core.heat.casting import Place, PlaceStay
from umber_pebble.core.heat.vessel import Pot
from umber_pebble.core.materials.load import Material, material
from umber_pebble.core.moulds.cavity import Cavity
from umber_pebble.core.moulds.cutting import CuttingPlan
from umber_pebble.core.pieces.cast import CastAmounts
from umber_pebble.core.pieces.passes.base import LaidAs
from umber_pebble.core.pieces.sheet import laid_each_s
from umber_pebble.core.pieces.stripes import Piped
from umber_pebble.core.pieces.transfers import LaidBy
from umber_pebble.core.plan.day.problem import Timetable
from umber_pebble.core.plan.handwork import Inclusion, PasteShare, SoftWork
from umber_pebble.core.plan.keeper import Keeper
from umber_pebble.core.plan.making import Making
from umber_pebble.core.plan.spares import BreakRate, Spares
from umber_pebble.core.plan.wishes import Skill, Wish
from umber_pebble.core.spread import Spread, exact

NOTHING = exact(0.0)
MOST_HANDS = 6
"""So many pairs of hands are planned for at most."""

PouredAs = LaidAs | Literal["join", "swirl", "divide"]
"""How a melt is laid on; a swirl goes into the vessel of the next line, what is divided off into a vessel of
its own, in which it is coloured."""
Leaves = Literal["unmould", "peel", "rigid", "release_opens"]
"""At which mark a casting leaves what it was cast in: cold, off a film, off a bowl, or warm, to be shaped on a form."""
RoundLimit = Literal["mould", "vessel", "window", "hands"]
"""What keeps a round from more castings."""


@dataclass(frozen=True, slots=True)
class Named:
    """What is made: a piece, its part where it has several, its pass where the part has several."""

    piece: str
    part: str = ""
    step: str = ""

    def __str__(self) -> str:
        return ", ".join(filter(None, (self.piece, self.part, self.step)))


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
    oiled: with the thinnest film of oil; cutting: what is cut out of it, where it is a sheet, by this cutter alone, or, where it shares
    the sheet, by all; by_all: that plan, None where there is one cutter. forms: for so many castings there are forms to bend them
    over [count]; base_m: how long and wide its loose base is, on which a film is laid [m]."""

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
    cutting: CuttingPlan | None = None
    by_all: CuttingPlan | None = None
    forms: int | None = None
    base_m: tuple[float, float] | None = None

    @property
    def shares(self) -> bool:
        """Whether its sheet is cut by several cutters."""
        return self.cutting is not None and self.cutting == self.by_all

    @property
    def on_sheet(self) -> int:
        """Pieces that come out of a sheet, of whatever kind where it is shared [count]."""
        return self.cavities if self.cutting is None else len(self.cutting.cuts)

    @property
    def washed(self) -> bool:
        """Whether it is cleaned and dried before it is filled again: hands and props are not, and a film or paper is changed."""
        return not self.hands and not self.material.flags.get("peels", False)

    @property
    def at_once(self) -> int:
        """Castings that one round takes at most [count]."""
        every = self.cavities * self.owned
        return every if self.forms is None else min(every, self.forms)

    @property
    def bears(self) -> float:
        """The least of what its owner and its material say [degC]."""
        return min(self.bears_degc, self.material.value("bears"))


@dataclass(frozen=True, slots=True)
class PlanLine:
    """One pour of a line of the order: how many castings of which melt, what one takes, in which mould.

    A part of several passes is a line for each of its melts: after is the line that this one is poured on, last whether it is unmoulded then;
    item the line of the order; kind how it is laid on. under: what it lies on (material, thickness [m], how warm [degC]); first: what hands put
    in before it. dip: how deep and wide what is dipped is [m]. needs, after_steps: the lines whose castings it joins, and what hands made, by
    number; hold_s: for how long hands hold each of them [s], softens_s: how long a dab first rests on the face [s]. build: what its part's build
    is known by where break rates are kept, "" for a plain fill. works: what they do while it is soft, in turn; leaves: at which mark of its
    windows it leaves its mould or film. spares: how many more than asked are cast. into: the melt that it is from then on, where it is divided
    off. with_next: it is poured right before the line above it, into its vessel or beside it. piped: how, where it is piped in stripes, laid_by: with what it is laid on thin; mixed:
    with others of its pass, so that what is scraped, tipped out or broken off does not go back to its vessel. body: what cools like it where it
    is poured into a bare cavity. lies: the way it goes from its pour, each stay with its place's id; empty: as its material's way has it.
    """

    named: Named
    quantity: int
    melt: str
    mould: Mould
    cast: CastAmounts
    break_rate: BreakRate
    lies: tuple[tuple[PlaceStay, str], ...] = ()
    under: tuple[tuple[Material, float, float | None], ...] = ()
    after: int | None = None
    last: bool = True
    first: tuple[Inclusion, ...] = ()
    item: int = 0
    kind: PouredAs = "fill"
    dip: tuple[float, float] | None = None
    needs: tuple[int, ...] = ()
    hold_s: float = 0.0
    build: str = ""
    leaves: Leaves = "unmould"
    softens_s: float = 0.0
    body: Revolved | None = None
    works: tuple[SoftWork, ...] = ()
    spares: Spares = "as_sure"
    into: str | None = None
    with_next: bool = False
    piped: Piped | None = None
    mixed: bool = False
    after_steps: tuple[int, ...] = ()
    laid_by: LaidBy = "piped"

    @property
    def name(self) -> str:
        """What it makes, in one line."""
        return str(self.named)

    @property
    def fill_m(self) -> float:
        """How high over the floor it stands."""
        return self.cast.fill_m

    @property
    def cast_on(self) -> bool:
        """Whether it lies on or in something and sets there: what goes from vessel to vessel does not."""
        return not self.with_next and self.kind != "divide"

    @property
    def cast_off(self) -> bool:
        """Whether a casting leaves its mould after it: the last pour of a part, no join."""
        return self.last and not self.joins

    @property
    def joins(self) -> bool:
        """Whether it joins what was made before."""
        return bool(self.needs or self.after_steps)

    @property
    def whole_ball(self) -> bool:
        """Whether it is a ball, cast whole in a two-part mould and turned."""
        return self.kind == "turned"

    @property
    def alone(self) -> bool:
        """Whether hands are bound to it after its pour, so that nothing else is poured from its vessel then."""
        return bool(self.works) or self.whole_ball

    @property
    def released(self) -> bool:
        """Whether it leaves its mould warm and is bent on a form after that."""
        return self.leaves == "release_opens"

    def works_left(self, done: Container[str]) -> tuple[SoftWork, ...]:
        """What hands still do with it while it is soft: what comes after the last they did. Source: definition"""
        last = max((i for i, of in enumerate(self.works) if of.kind in done), default=-1)
        return self.works[last + 1 :]

    @property
    def cut(self) -> bool:
        """Whether its castings are cut out of a sheet."""
        return any(of.kind == "cut" for of in self.works)

    @property
    def inclusions(self) -> tuple[Inclusion, ...]:
        """All that hands put into or onto it, before its pour and after."""
        return *self.first, *(on for of in self.works for on in of.on)

    @property
    def handfuls_s(self) -> float:
        """How long hands take for what is put into one cavity before the pour [s]."""
        return sum(h.each_s for h in self.first)


@dataclass(frozen=True, slots=True)
class HandStep:
    """What hands make of no melt: a part pressed or modelled of paste, or of bought things that are cut and set out, a coat of a finish on what is out of its mould, or a join by warming or glue: how many, how long each takes hands
    [s], how long it then rests in its mould, or until it holds [s], and dries on its form after that [s]; needs, after_steps: the
    lines whose castings it joins, and what else is made by hand, by number; kg: of each; pastes: of what; skins: how soon a skin forms on it where it lies open [s], None: none does; items: what is bought for each, or put on it; out_s: how long what it
    needs is out of its mould before it [s]."""

    what: Literal["press", "model", "join", "fit", "finish"]
    named: Named
    item: int
    count: int
    kg: float
    each_s: float
    rests: Spread
    needs: tuple[int, ...] = ()
    dries: Spread = NOTHING
    pastes: tuple[PasteShare, ...] = ()
    skins: Spread | None = None
    after_steps: tuple[int, ...] = ()
    items: tuple[Inclusion, ...] = ()
    out_s: Spread = NOTHING

    @property
    def by_itself(self) -> bool:
        """Whether it makes a part, and joins none."""
        return self.what not in ("join", "finish")

    @property
    def name(self) -> str:
        """What it makes, in one line."""
        return str(self.named)


@dataclass(frozen=True, slots=True)
class MeltWay:
    """How one melt is made in this order, and where its moulds lie: poured on one place, set in another; colour: as hex, None
    as it comes; fills_off: how much thicker than reckoned it was seen to be poured from this vessel [log10 Pa s]; keeper: where it is
    kept warm between its pours, where that suits it, None: it stands and cools; out_of: the melt that it is divided off where that can
    be, None: it is made by itself.

    The same place means that the moulds are not carried.
    """

    melt: Material
    pot: Pot
    vessel_id: str
    by: Making
    poured_on: Place
    poured_on_id: str
    sets_in: Place
    sets_in_id: str
    stand_id: str
    residue_factor: Spread
    colour: str | None = None
    fills_off: Spread = NOTHING
    keeper: Keeper | None = None
    out_of: str | None = None

    @property
    def kept(self) -> bool:
        """Whether it is kept warm between its pours."""
        return self.keeper is not None and self.stand_id == self.keeper.id

    @property
    def rests(self) -> Pot:
        """Its vessel off the heat: kept warm, or on its stand."""
        return self.keeper.pot if self.keeper is not None and self.kept else self.pot

    @property
    def carried(self) -> bool:
        return self.poured_on_id != self.sets_in_id

    @property
    def end_degc(self) -> float:
        return self.by.end_degc


@dataclass(frozen=True)
class PlanInput:
    """Everything a plan rests on; ways by the key of their melt; shelves: moulds a place takes at once [count]; people: whose
    hands are at it, "" where nobody is named; kept: a timetable that was found before. due_s is from now, sooner_s by how much
    each line of the order is wanted before that [s]; open_s: when hands may be at it, from and to, in order, past the due time too,
    empty: at any time [s from now]; leaves: per person, what is left to others, nothing where that is empty; away: who
    is not there, by number, from and to [s from now]; wishes: of its timetable; soon: begun as soon as it may, not as late; otherwise: by
    family, all ways if its colours were divided off one pot, or where they are, each melted by itself."""

    lines: tuple[PlanLine, ...]
    ways: dict[str, MeltWay]
    due_s: float
    paces: Paces
    room_degc: float
    humidity_frac: float
    altitude_m: float
    confidence_frac: float
    reserve_frac: float
    by_hand: tuple[HandStep, ...] = ()
    shelves: dict[str, int] = field(default_factory=dict)
    people: tuple[str, ...] = ("",)
    kept: Timetable | None = None
    sooner_s: tuple[float, ...] = ()
    open_s: tuple[tuple[float, float], ...] = ()
    leaves: tuple[frozenset[Skill], ...] = ()
    away: tuple[tuple[int, float, float], ...] = ()
    wishes: tuple[Wish, ...] = ()
    soon: bool = False
    otherwise: dict[str, dict[str, MeltWay]] = field(default_factory=dict)

    def way(self, line: PlanLine) -> MeltWay:
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
        return len(self.chains[line]) > 1 or self.lines[line].joins

    def pour_each_s(self, line: PlanLine) -> float:
        """How long hands take to pour one casting, or to join and hold one piece; of a sheet, its share of pouring and spreading that [s]."""
        if line.piped is not None:
            return line.piped.each_s + line.hold_s
        share = 1 if line.mould.cutting is None else line.mould.on_sheet
        laid = laid_each_s(line.cast, line.laid_by, line.mould.cutting)
        return self.paces.pour_each_s / share + laid + line.hold_s

    def pour_lasts_s(self, line: PlanLine, casts: int) -> float:
        """How long hands take to pour so many; to stir a melt into another once [s]."""
        return self.paces.stir_s if line.kind == "swirl" else casts * self.pour_each_s(line)

    def work_each_s(self, line: PlanLine, work: SoftWork) -> float:
        """How long hands work on one cast while it is soft, taken out of its mould first where it is released warm [s]."""
        if work.on:
            return sum(of.each_s for of in work.on)
        if work.kind == "cut":
            return material("kitchen", "usual", "sheet").value("pressed")
        return self.paces.bend_each_s + (self.paces.unmould_each_s if line.released else 0.0)

    def works_each_s(self, line: PlanLine, works: tuple[SoftWork, ...] | None = None) -> float:
        """All of that, or some of it, one after another [s]."""
        return sum(self.work_each_s(line, work) for work in (line.works if works is None else works))
