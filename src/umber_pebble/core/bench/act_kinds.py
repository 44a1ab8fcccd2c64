"""What there may be to do in a run: one class a kind, with the figures it is said with. The published types, and the words, go by
these. Masses in kg, temperatures in degC, times in s, lengths in m."""

from dataclasses import dataclass, field
from typing import Literal, get_args

from umber_pebble.core.bench.pour_figures import Dab, DipFrom, Turning
from umber_pebble.core.bench.soft_kinds import (
    Bend,
    Comb,
    CutPieces,
    Groove,
    OfRound,
    PressFilm,
    ShapeFilm,
    Sprinkle,
    Stick,
)
from umber_pebble.core.bench.tempering import TemperAct
from umber_pebble.core.heat.pour import PourLimit
from umber_pebble.core.pieces.ratios import Mixing
from umber_pebble.core.pieces.stripes import Piped
from umber_pebble.core.pieces.transfers import LaidBy
from umber_pebble.core.plan.habits import Habit
from umber_pebble.core.plan.handwork import Inclusion
from umber_pebble.core.plan.problem import HandStep, Leaves, PouredAs
from umber_pebble.core.plan.sheets import SheetOf
from umber_pebble.core.spread import Spread


@dataclass(frozen=True, slots=True)
class Acknowledge:
    """Read the caution."""

    kind: Literal["acknowledge"] = field(default="acknowledge", init=False)


@dataclass(frozen=True, slots=True)
class Resume:
    """Go on after a pause."""

    kind: Literal["resume"] = field(default="resume", init=False)


@dataclass(frozen=True, slots=True)
class End:
    """End the run."""

    kind: Literal["end"] = field(default="end", init=False)


@dataclass(frozen=True, slots=True)
class Again:
    """Cook again for what is missing: so many short, so many castings of which line first."""

    short: int
    casts: int
    line: int
    kind: Literal["again"] = field(default="again", init=False)


@dataclass(frozen=True, slots=True)
class Bursts:
    """Planned bursts of a microwave [s], at a share of its power [frac]."""

    seconds: tuple[float, ...]
    power_frac: float


@dataclass(frozen=True, slots=True)
class Wash:
    """A vessel is not clean yet: what was in it, if that was the same in another colour; how long hot water stands in it first, 0: it is
    wiped out dry; how long hands take [s]."""

    called: str
    other_colour: bool
    soaks_s: float
    lasts_s: float


@dataclass(frozen=True, slots=True)
class Weigh:
    """Weigh what is fresh, with its water, and put it on: for so many castings of which lines, to which temperature, about how long;
    seed_kg of it is kept back. bursts: of a bowl in a microwave, None on a ring or over a bath; shaken: over a ring turned down; wash: the vessel first, None where it is clean enough."""

    fresh_kg: float
    water_kg: float
    seed_kg: float
    cook_degc: float
    hob_s: float
    casts: int
    lines: tuple[int, ...]
    bursts: Bursts | None
    shaken: bool
    wash: Wash | None
    kind: Literal["heat"] = field(default="heat", init=False)


@dataclass(frozen=True, slots=True)
class TakeOff:
    """Off the ring or the bath at a temperature; until then it is stirred, or shaken only."""

    cook_degc: float
    shaken: bool
    kind: Literal["off"] = field(default="off", init=False)


@dataclass(frozen=True, slots=True)
class Remedy:
    """A fault that was seen in a bowl: what it means, and what may be done."""

    fault: str
    means: str
    do: str


@dataclass(frozen=True, slots=True)
class InOven:
    """A bowl between its bursts: until when the last is on [s since the run started], None before the first; whether any of it has
    been too hot; a fault that was seen."""

    on_until_s: float | None
    overheated: bool
    remedy: Remedy | None


@dataclass(frozen=True, slots=True)
class TakeOut:
    """Out of the microwave, to stir: lumps are melted by the heat that is there."""

    bowl: InOven
    lumps: bool
    cook_degc: float
    kind: Literal["out"] = field(default="out", init=False)


@dataclass(frozen=True, slots=True)
class BurstAgain:
    """The next burst [s] at a share of the power, and how it stands after it: temperature, share melted, hottest at most."""

    bowl: InOven
    seconds: float
    power_frac: float
    degc: float
    melted_frac: float
    hottest_degc: float
    kind: Literal["burst"] = field(default="burst", init=False)


@dataclass(frozen=True, slots=True)
class StirOn:
    """No burst now: the heat has to spread first."""

    bowl: InOven
    kind: Literal["stir"] = field(default="stir", init=False)


@dataclass(frozen=True, slots=True)
class WarmAgain:
    """It is too thick to be poured: warm it again, to a temperature; a bowl by a burst of so long, at which share of the oven's power, None:
    otherwise; whether it is in temper and stays so."""

    cook_degc: float
    burst_s: float | None
    power_frac: float | None
    in_temper: bool
    kind: Literal["warm"] = field(default="warm", init=False)


@dataclass(frozen=True, slots=True)
class Read:
    """A reading would narrow the pour window."""

    kind: Literal["read"] = field(default="read", init=False)


@dataclass(frozen=True, slots=True)
class Temper:
    """One step at a bowl that is tempered: with how much, to which temperature, which share of the bowl, how much of its seed has
    melted [frac]; how long a smear takes to set; when it has cooled to it (inf: never); seeded already or not; the share of seed
    that is usual [frac]."""

    step: TemperAct
    kg: float
    to_degc: float
    share_frac: float
    melted_frac: float
    smear_s: Spread
    there_s: float
    seeded: bool
    usual_frac: float
    kind: Literal["temper"] = field(default="temper", init=False)


@dataclass(frozen=True, slots=True)
class Pour(OfRound):
    """A pass poured, or laid on as it is: castings to go, filled already, in the vessel, into each, what stays, how high, how thick,
    how long; what holds its opening back, and the radius of the bubbles that do; readings since off the heat, whether the last one
    was unswirled; how warm it may be on what lies under it; of a ball, a dip, a join, a sheet, of stripes its own."""

    laid: PouredAs
    filled: int
    left_kg: float
    each_kg: float
    stays_kg: float
    fill_m: float
    thick_m: float
    pour_s: float
    habits: tuple[Habit, ...]
    limited_by: PourLimit
    bubble_m: float | None
    readings: int
    unswirled: bool
    rests_to_degc: float | None
    turning: Turning | None
    dip: DipFrom | None
    dab: Dab | None
    sheet: SheetOf | None
    piped: Piped | None
    laid_by: LaidBy
    kind: Literal["pour"] = field(default="pour", init=False)


@dataclass(frozen=True, slots=True)
class PutIn(OfRound):
    """What hands put into each cavity, what of it is mixed for that, and how long it takes."""

    items: tuple[Inclusion, ...]
    mixed: tuple[Mixing, ...]
    takes_s: float
    habits: tuple[Habit, ...]
    kind: Literal["put_in"] = field(default="put_in", init=False)


@dataclass(frozen=True, slots=True)
class Turn(OfRound):
    """A ball on another side: which turn of how many, of which so many are usual."""

    turn: int
    turns: int
    usual: int
    kind: Literal["turn"] = field(default="turn", init=False)


@dataclass(frozen=True, slots=True)
class Move(OfRound):
    """To the place it sets in next; slid_out: what it lies on is pulled out from under it."""

    place: str
    slid_out: bool
    kind: Literal["move"] = field(default="move", init=False)


@dataclass(frozen=True, slots=True)
class Unmould(OfRound):
    """Out of its mould, off its film, tray or props, or broken out of its sheet: how its last pass was laid, at which mark it leaves; warmed:
    by the hand round what it lies in; on_form: it set on a form, with its film."""

    laid: PouredAs
    leaves: Leaves
    sheet: SheetOf | None
    films: tuple[str, ...]
    warmed: bool
    on_form: bool
    kind: Literal["unmould"] = field(default="unmould", init=False)


@dataclass(frozen=True, slots=True)
class Outcomes(OfRound):
    """Say how each came out."""

    kind: Literal["outcomes"] = field(default="outcomes", init=False)


@dataclass(frozen=True, slots=True)
class ByHand:
    """What hands make of no melt; what of it is mixed for that."""

    step: HandStep
    mixed: tuple[Mixing, ...]
    kind: Literal["by_hand"] = field(default="by_hand", init=False)


@dataclass(frozen=True, slots=True)
class Keep:
    """A held batch thickens: so long in the microwave, or over hot water where that is not for it."""

    name: str
    seconds: float | None
    kind: Literal["keep"] = field(default="keep", init=False)


@dataclass(frozen=True, slots=True)
class TooWarm:
    """A held batch gets hotter than it bears where it stands."""

    name: str
    kind: Literal["too_warm"] = field(default="too_warm", init=False)


What = (
    Acknowledge
    | Pour
    | Turn
    | Bend
    | Stick
    | Sprinkle
    | PressFilm
    | Comb
    | Groove
    | CutPieces
    | ShapeFilm
    | PutIn
    | ByHand
    | Move
    | Unmould
    | BurstAgain
    | StirOn
    | Temper
    | TooWarm
    | Keep
    | TakeOff
    | TakeOut
    | Read
    | Outcomes
    | WarmAgain
    | Weigh
    | Again
    | Resume
    | End
)
WHEN_NOTHING_CLOSES: tuple[type[What], ...] = get_args(What)
"""Of acts that can all wait: what frees a mould first, then what takes a moment, then the next cook."""

Called = (
    Pour
    | Turn
    | Bend
    | Stick
    | Sprinkle
    | Groove
    | CutPieces
    | ShapeFilm
    | Unmould
    | TakeOff
    | TakeOut
    | Keep
    | TooWarm
)
"""What has a sound when its window opens and closes."""
CalledKind = Literal[
    "pour",
    "turn",
    "bend",
    "stick",
    "sprinkle",
    "film",
    "comb",
    "groove",
    "cut",
    "shape",
    "unmould",
    "off",
    "out",
    "keep",
    "too_warm",
    "timer",
]
