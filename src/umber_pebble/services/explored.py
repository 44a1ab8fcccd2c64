"""What the heat explorer answers with."""

from dataclasses import dataclass
from typing import Literal

from umber_pebble.core.bench.marks import GlassMarks, SettingMarks
from umber_pebble.core.families.family import Rows
from umber_pebble.core.glass.bend import BendLimits
from umber_pebble.core.heat.advice import Help, Risk
from umber_pebble.core.heat.bands import Band
from umber_pebble.core.heat.passes import PassOnPass
from umber_pebble.core.heat.stress import CoolingStress
from umber_pebble.core.heat.sweat import Sweat
from umber_pebble.core.spread import Spread


@dataclass(frozen=True, slots=True)
class Take:
    """What the piece takes, and from when until when [s from the pour]; None: from the pour, or without end; what limits
    the time it begins, or ends when it begins with the pour."""

    what: str
    opens: Spread | None
    closes: Spread | None
    limited_by: str


@dataclass(frozen=True, slots=True)
class Share:
    """An input and how much of a spread comes from it [frac]."""

    input: str
    frac: float


@dataclass(frozen=True, slots=True)
class RestsOn:
    """What a time's spread comes from, largest first [frac], and the one reading that would narrow it most."""

    mark: str
    shares: list[Share]
    reading: str
    narrows_frac: float


@dataclass(frozen=True, slots=True)
class Frame:
    """The section at one moment: temperatures [degC] and shares set [frac] of its cells, top to bottom."""

    at_s: float
    stay: int
    temps: list[float]
    set: list[float]


@dataclass(frozen=True, slots=True)
class LayerShown:
    name: str
    thickness_m: float
    cells: int


@dataclass(frozen=True, slots=True)
class Bent:
    """A bend: the last moment it can be done so [s], and its limits in the middle of the bend window."""

    until_s: float | None
    at_degc: float
    limits: BendLimits


@dataclass(frozen=True, slots=True)
class OnFirst:
    """What the melt does to the pass under it; where it would dissolve it, how long a vessel of it must rest first [s]."""

    does: PassOnPass
    rest_s: float | None
    vessel: str
    melt_kg: float


@dataclass(frozen=True, slots=True)
class Reheated:
    """Heating a place again: until it bends, None: never; when its face boils or browns, None: never [s]."""

    means: str
    soft_s: float | None
    spoils_s: float | None


@dataclass(frozen=True, slots=True)
class Uneven:
    """When thin and thick places may be unmoulded [s from the pour]."""

    thin_s: float
    thick_s: float


GlassMark = Literal[
    "pour_closes",
    "thread_closes",
    "bend_opens",
    "holds",
    "softening",
    "pull_closes",
    "bend_closes",
    "brittle",
    "unmould",
    "strain",
]


@dataclass(frozen=True, slots=True)
class GlassAt:
    """A mark of a sugar glass and the temperature it is reached at [degC]."""

    mark: GlassMark
    degc: float


@dataclass(frozen=True, slots=True)
class Explored:
    """A cast reckoned: its windows, what they rest on, what would help, what it risks, its section over time; warm_room: it sets so near to
    where its fat melts that its times are the least sure of all."""

    name: str
    family: Rows
    pour_degc: float
    slab: Spread
    places: list[str]
    moved_s: list[float]
    windows: dict[str, Spread]
    never: list[str]
    bands: tuple[Band, ...]
    uneven: Uneven | None
    marks: GlassMarks | SettingMarks
    glass: list[GlassAt]
    limited_by: dict[str, str]
    takes: list[Take]
    rests_on: list[RestsOn]
    helps: list[Help]
    risks: list[Risk]
    sweat: Sweat | None
    stress: CoolingStress | None
    bend: Bent | None
    on_first: OnFirst | None
    reheats: list[Reheated]
    layers: list[list[LayerShown]]
    frames: list[Frame]
    horizon_s: float
    warm_room: bool
