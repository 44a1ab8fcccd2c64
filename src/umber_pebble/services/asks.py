"""Questions from the bench, each with what little is told of it; what is None is assumed, and said to be."""

from dataclasses import dataclass
from typing import Annotated, Literal

from pydantic import Field

from umber_pebble.core.explained import Explained
from umber_pebble.core.families.family import Rows
from umber_pebble.core.heat.bands import Band
from umber_pebble.core.heat.sweat import Sweat
from umber_pebble.core.spread import Spread
from umber_pebble.core.texts import Hex
from umber_pebble.services.colouring import Coloured
from umber_pebble.services.doc_base import Doc, Id, Whole
from umber_pebble.services.ready import ShapeKey

Thick = Annotated[float, Field(ge=2e-4, le=0.1)]
Weight = Annotated[float, Field(ge=0.005, le=50)]
Doing = Literal["pour", "dip", "bend", "pipe"]
Verdict = Literal["yes", "wait", "no", "spoilt"]


class AskUnmould(Doc):
    """When may it be turned out: so thick a cast of a material, in a mould, lying in a place."""

    question: Literal["unmould"]
    material: Id | None
    thickness_m: Thick | None
    mould: Id | None
    place_id: Id | None


class AskHowMuch(Doc):
    """How much is melted for so many of a piece, or of a shape so wide and thick."""

    question: Literal["how_much"]
    quantity: Whole | None = Field(ge=1, le=5000)
    piece_id: Id | None
    shape: ShapeKey | None
    across_m: float | None = Field(ge=0.005, le=0.2)
    thickness_m: Thick | None
    material: Id | None


class AskStill(Doc):
    """May so much of a melt that is so warm still be poured, dipped into, piped or bent."""

    question: Literal["still"]
    material: Id | None
    doing: Doing | None
    degc: float | None = Field(ge=0, le=220)
    kg: Weight | None
    thickness_m: Thick | None = Field(description="of what is bent")


class AskHeat(Doc):
    """How so much of a melt is heated: in which bursts, or for how long on the ring."""

    question: Literal["heat"]
    material: Id | None
    kg: Weight | None


class AskSeed(Doc):
    """How much seed tempers so much of a couverture."""

    question: Literal["seed"]
    material: Id | None
    kg: Weight | None


class AskColour(Doc):
    """Which colours at hand make so much of a melt look so, so thick."""

    question: Literal["colour"]
    wanted: Hex | None
    material: Id | None
    kg: Weight | None
    thickness_m: Thick | None


class AskKeeps(Doc):
    """Will it sweat when it comes out of the cold, or turn sticky in this room."""

    question: Literal["keeps"]
    material: Id | None
    thickness_m: Thick | None
    place_id: Id | None


class AskStands(Doc):
    """Does a piece stand."""

    question: Literal["stands"]
    piece_id: Id | None


Ask = Annotated[
    AskUnmould | AskHowMuch | AskStill | AskHeat | AskSeed | AskColour | AskKeeps | AskStands,
    Field(discriminator="question"),
]


@dataclass(frozen=True, slots=True)
class Lies:
    """A place, when it may be turned out there, None: never; and from when it may crack there, None: it does not [s]."""

    place_id: str
    unmould: Spread | None
    cracks: Spread | None


@dataclass(frozen=True, slots=True)
class UnmouldAnswer:
    """When it may be turned out in the place asked for, first, and in the others; its states there, and how far they are drawn [s];
    how warm it is poured [degC], how thick its mould's wall is [m], how long it lies on the bench first [s]."""

    asked: AskUnmould
    assumed: tuple[str, ...]
    lies: tuple[Lies, ...]
    bands: tuple[Band, ...]
    to_s: float
    pour_degc: float
    wall_m: float
    bench_s: float
    question: Literal["unmould"] = "unmould"


@dataclass(frozen=True, slots=True)
class MeltOf:
    """A melt and what is weighed out of it [kg]."""

    material: str
    name: str
    colour: str | None
    kg: float


@dataclass(frozen=True, slots=True)
class HowMuchAnswer:
    """What is weighed out in all and of each melt [kg]; castings with spares, how sure that is [frac], in how many rounds and melts;
    the reserve in it [frac]."""

    asked: AskHowMuch
    assumed: tuple[str, ...]
    fresh_kg: float
    each_kg: float
    melts: tuple[MeltOf, ...]
    casts: Explained
    sure_frac: float
    rounds: int
    cooks: int
    cavities: int
    reserve_frac: float
    question: Literal["how_much"] = "how_much"


@dataclass(frozen=True, slots=True)
class StillAnswer:
    """Yes, for how long still [s]; wait, so long [s]; no: warm it to so much [degC]; or spoilt, since it is hotter than
    it bears. Between which temperatures it may be."""

    asked: AskStill
    assumed: tuple[str, ...]
    verdict: Verdict
    lasts: Spread
    waits: Spread
    from_degc: float
    to_degc: float
    rows: Rows
    question: Literal["still"] = "still"


@dataclass(frozen=True, slots=True)
class HeatAnswer:
    """In bursts [s], or on the ring (None); how long in all, hands with it [s]; to which temperature [degC]; water added [kg]; in which
    vessel, by which heater."""

    asked: AskHeat
    assumed: tuple[str, ...]
    bursts: tuple[float, ...] | None
    lasts: Spread
    to_degc: float
    water_kg: float
    vessel_id: str
    heater_id: str
    question: Literal["heat"] = "heat"


@dataclass(frozen=True, slots=True)
class SeedAnswer:
    """Seed for it [kg]; melted to, seeded at, worked at, spoilt above [degC]."""

    asked: AskSeed
    assumed: tuple[str, ...]
    seed: Explained
    share_frac: float
    melt_to: Spread
    seed_at: Spread
    work_at: Spread
    spoils_degc: float
    question: Literal["seed"] = "seed"


@dataclass(frozen=True, slots=True)
class ColourAnswer:
    """The recipe from the colours at hand; None where none of the kind is at hand."""

    asked: AskColour
    assumed: tuple[str, ...]
    base: str
    coloured: Coloured | None
    question: Literal["colour"] = "colour"


@dataclass(frozen=True, slots=True)
class KeepsAnswer:
    """What it does as it comes out of the cold; the room [degC] and its humidity [frac]; from which humidity it turns sticky, None: it
    does not [frac]."""

    asked: AskKeeps
    assumed: tuple[str, ...]
    sweat: Sweat
    room_degc: float
    humidity_frac: float
    sticky_frac: Spread | None
    question: Literal["keeps"] = "keeps"


@dataclass(frozen=True, slots=True)
class StandsAnswer:
    """At which lean it tips, and how much it should bear [rad]; its weight [kg]; None where no piece says how it stands."""

    asked: AskStands
    assumed: tuple[str, ...]
    tips_rad: float | None
    safe_rad: float
    kg: float
    question: Literal["stands"] = "stands"


Answer = (
    UnmouldAnswer
    | HowMuchAnswer
    | StillAnswer
    | HeatAnswer
    | SeedAnswer
    | ColourAnswer
    | KeepsAnswer
    | StandsAnswer
)
