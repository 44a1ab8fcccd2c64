"""What a run is made of: its events, and the state they add up to. Times are seconds since the run started."""

from copy import copy
from dataclasses import dataclass, field
from typing import Any, Literal, Self

from umber_pebble.core.bench.events import Body
from umber_pebble.core.errors import CoreError
from umber_pebble.core.families.family import Family
from umber_pebble.core.plan.cooks import Round

UNFILLED = "not filled"
InTemper = Literal["tempered", "under", "unseeded"]


class _Grows:
    """What events change, made of such things, lists, and what never changes."""

    __slots__: tuple[str, ...] = ()

    def apart(self) -> Self:
        """The same, sharing nothing that changes [1]. Source: definition"""
        twin = copy(self)
        for name in self.__slots__:
            setattr(twin, name, _apart(getattr(self, name)))
        return twin


def _apart(value: Any) -> Any:
    if isinstance(value, list):
        return [of.apart() for of in value] if value and isinstance(value[0], _Grows) else value.copy()
    if isinstance(value, dict | set):
        return value.copy()
    return value.apart() if isinstance(value, _Grows) else value


@dataclass(frozen=True, slots=True)
class Event:
    """One event of the log; at_s is when it happened, in seconds since the run started."""

    id: str
    at_s: float
    actor: str
    body: Body


@dataclass(frozen=True, slots=True)
class Reading:
    """One temperature of a pot or round, and how it was taken; use: what a hand said of it, taken in or left out, None: as it fits."""

    id: str
    at_s: float
    degc: float
    method: str
    use: bool | None = None


@dataclass(frozen=True, slots=True)
class Sight:
    """What somebody saw: of a round, that it still moves, its rim lets go, it resists, it cracked; of a bowl, how far it has
    melted."""

    at_s: float
    what: str


@dataclass(frozen=True, slots=True)
class BurstDone:
    """One burst of a microwave: when it was started, how long [s], at which share of the oven's power [frac]."""

    at_s: float
    seconds: float
    power_frac: float


@dataclass(frozen=True, slots=True)
class Melted:
    """How a bowl was melted: its bursts, and what was read and seen meanwhile."""

    bursts: tuple[BurstDone, ...]
    readings: tuple[Reading, ...]
    sights: tuple[Sight, ...]


@dataclass(slots=True)
class Rest(_Grows):
    """A pot off the ring: since when, how hot it came off, what was read, poured and decanted [s, kg]; rounds poured before it; since
    when it was on before this, whether then with a new charge, and how warm somebody read it then; portion: it was on no heat, but came out
    of another pot; how it was melted, if by bursts; how it was tempered: seed stirred in [s, kg], other steps, smears laid and what they said."""

    off_s: float
    off_degc: float | None
    before: tuple[int, ...]
    on_s: float = 0.0
    anew: bool = False
    from_degc: float | None = None
    poured: list[tuple[float, int]] = field(default_factory=list)
    readings: list[Reading] = field(default_factory=list)
    melted: Melted | None = None
    taken: list[tuple[float, float]] = field(default_factory=list)
    seeded: list[tuple[float, float]] = field(default_factory=list)
    steps: list[tuple[float, str]] = field(default_factory=list)
    smears: list[float] = field(default_factory=list)
    tests: list[tuple[float, str]] = field(default_factory=list)
    portion: bool = False

    @property
    def temper(self) -> InTemper:
        """In which temper it is: as the last test says; untested it is under, and unseeded if nothing was done."""
        if self.tests:
            return "tempered" if self.tests[-1][1] in ("well", "over") else "under"
        return "under" if self.seeded or self.steps else "unseeded"

    @property
    def tempered_s(self) -> float | None:
        """When it was found to be in temper, if it is [s]."""
        return self.tests[-1][0] if self.tests and self.tests[-1][1] == "well" else None


@dataclass(slots=True)
class BatchState(_Grows):
    """A batch decanted from a cook or from another batch: how much in what, of which colour, since when; where it has stood
    since, what was taken out [kg], when it was warmed [s], read, and when it was gone."""

    number: int
    cook: int
    parent: int | None
    name: str
    holder: str
    kg: float
    at_s: float
    tip_m: float | None
    colour: str | None
    spots: list[tuple[float, str]]
    used: list[tuple[float, float]] = field(default_factory=list)
    warmed: list[tuple[float, float]] = field(default_factory=list)
    readings: list[Reading] = field(default_factory=list)
    gone_s: float | None = None

    @property
    def left_kg(self) -> float:
        return max(self.kg - sum(kg for _, kg in self.used), 0.0)


@dataclass(slots=True)
class CookState(_Grows):
    """A cook: on the heat since heated_s, or resting; it may be warmed again, which ends a rest; anew: put on with a new charge.

    Thrown away, it waits to be cooked anew for the rounds not in lost: those poured before.
    """

    number: int
    thrown: bool = False
    lost: tuple[int, ...] | None = None
    heated_s: float | None = None
    heatings: int = 0
    anew: bool = False
    from_degc: float | None = None
    readings: list[Reading] = field(default_factory=list)
    bursts: list[BurstDone] = field(default_factory=list)
    sights: list[Sight] = field(default_factory=list)
    rests: list[Rest] = field(default_factory=list)

    @property
    def phase(self) -> Literal["waiting", "heating", "resting"]:
        if self.heated_s is not None:
            return "heating"
        return "resting" if self.rests and not self.thrown else "waiting"

    @property
    def taken_kg(self) -> float:
        """Decanted since it was last cooked anew, less what came back."""
        return sum(kg for rest in self.rests for _, kg in rest.taken)

    @property
    def poured(self) -> tuple[int, ...]:
        return tuple(number for rest in self.rests for _, number in rest.poured)


@dataclass(slots=True)
class RoundState(_Grows):
    """A round: on which round it is poured; when what goes in by hand was put in, when poured, unmoulded, covered by the next pass, turned on another side; worked: what hands did with it while it was soft, and when; where it lay since when; what came of each cavity, and with what those that failed were mended; filled: the cavities that were full when its
    melt ran short, before it was poured to the end; left_out: it is not cast at all; into: the cook that it is divided off for."""

    number: int
    line: int
    casts: int
    cook: int
    on: int | None = None
    into: int | None = None
    filled: int = 0
    left_out: bool = False
    poured_s: float | None = None
    put_in_s: float | None = None
    rest: int = 0
    worked: dict[str, float] = field(default_factory=dict)
    unmoulded_s: float | None = None
    turned_s: list[float] = field(default_factory=list)
    covered_s: float | None = None
    places: list[tuple[float, str]] = field(default_factory=list)
    readings: list[Reading] = field(default_factory=list)
    sights: list[Sight] = field(default_factory=list)
    outcomes: dict[int, tuple[bool, tuple[str, ...]]] = field(default_factory=dict)
    mended: dict[int, str] = field(default_factory=dict)

    @property
    def good(self) -> int:
        """Castings recorded as usable, or made good since."""
        return sum(usable or cavity in self.mended for cavity, (usable, _) in self.outcomes.items())

    @property
    def failed(self) -> int:
        """Castings recorded as failed, and not made good."""
        return len(self.outcomes) - self.good

    @property
    def to_pour(self) -> int:
        """Castings that are still to be poured, while it is not poured."""
        return 0 if self.left_out else self.casts - self.filled

    @property
    def waits(self) -> bool:
        """Whether it is still to be poured."""
        return self.poured_s is None and not self.left_out

    @property
    def in_mould(self) -> bool:
        """Poured, and the topmost in a mould."""
        return self.poured_s is not None and self.unmoulded_s is None and self.covered_s is None


@dataclass(frozen=True, slots=True)
class Layout:
    """What a run is laid out on: its rounds as planned; per line the vessel, what the hands' work is, where the mould lies when
    poured, whether it is melted by bursts, the family of its melt, its melt, the line it is poured on, and if it is the last of its part; the
    places of the kitchen; how many steps of it are made by hand; whether it is cut out of a sheet with others, which are poured with it."""

    rounds: tuple[Round, ...]
    vessels: tuple[str, ...]
    works: tuple[tuple[str, ...], ...]
    poured_on: tuple[str, ...]
    place_ids: tuple[str, ...]
    bursts: tuple[bool, ...]
    families: tuple[Family, ...]
    melts: tuple[str, ...]
    follows: tuple[int | None, ...]
    lasts: tuple[bool, ...]
    steps: int = 0
    shares: tuple[bool, ...] = ()

    def with_it(self, number: int) -> list[int]:
        """The rounds that are poured with one, itself among them: what is cut out of the same sheet."""
        of = self.rounds[number] if number < len(self.rounds) else None
        if of is None or not self.shares or not self.shares[of.line]:
            return [number]
        return [r.number for r in self.rounds if self.shares[r.line] and (r.stay, r.cook) == (of.stay, of.cook)]

    @property
    def hot(self) -> bool:
        """Whether there is anything in it whose caution is read first."""
        return any(family.hot for family in self.families)


@dataclass(frozen=True, slots=True)
class Aside:
    """An event that cannot be told with the rest, and why."""

    id: str
    kind: str
    why: CoreError


@dataclass(slots=True)
class TimerState(_Grows):
    """A timer of one's own: its name, when it rings [s], and whether it was heard."""

    number: int
    name: str
    rings_s: float
    over: bool = False


@dataclass(slots=True)
class RunState(_Grows):
    """The whole run as the events tell it; found: per line, how many more usable castings were counted than recorded; planned, whose: when rounds are to be poured [s] and whose hands do what, where that was rearranged; gone: who is not there; aside: those that do not fit, as an older version took them."""

    layout: Layout
    cooks: list[CookState]
    rounds: list[RoundState]
    batches: list[BatchState] = field(default_factory=list)
    acknowledged: set[str] = field(default_factory=set)
    started: bool = False
    paused_s: float | None = None
    ended_s: float | None = None
    left_kg: dict[str, float] = field(default_factory=dict)
    made: dict[int, float] = field(default_factory=dict)
    timers: list[TimerState] = field(default_factory=list)
    found: dict[int, int] = field(default_factory=dict)
    planned: dict[int, float] = field(default_factory=dict)
    whose: dict[tuple[str, int], str] = field(default_factory=dict)
    gone: set[str] = field(default_factory=set)
    done: list[Event] = field(default_factory=list)
    aside: list[Aside] = field(default_factory=list)

    def good(self, line: int) -> int:
        """Usable castings of a line: as recorded, and as counted."""
        return sum(r.good for r in self.rounds if r.line == line) + self.found.get(line, 0)

    def vessel(self, cook: int) -> str:
        """Which vessel a cook is in."""
        return self.layout.vessels[next(r.line for r in self.rounds if r.cook == cook)]
