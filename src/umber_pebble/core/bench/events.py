"""What may be told of a run: one class a thing, with its limits. Whoever reads what was sent or stored, and the published types,
go by these."""

from dataclasses import dataclass, field
from typing import Annotated, ClassVar, Literal, get_args

from annotated_types import Ge, Interval, Len

from umber_pebble.core.bench.batch_events import Coloured, Decanted, Merged, Parted, Rewarmed, SetDown, Thrown
from umber_pebble.core.bench.side_events import (
    Counted,
    LeftOut,
    Mended,
    Pictured,
    Rearranged,
    TimerOver,
    TimerSet,
    WentAway,
)
from umber_pebble.core.bench.values import (
    BowlSight,
    BurstS,
    Degc,
    Flaw,
    Id,
    Index,
    LeftKg,
    Method,
    PowerFrac,
    SeedKg,
    Sight,
    Smear,
    TemperStep,
    Text,
)


@dataclass(frozen=True, slots=True)
class Started:
    """The run begins."""

    KIND: ClassVar[str] = "started"


@dataclass(frozen=True, slots=True)
class Acknowledged:
    """Somebody has read the caution."""

    KIND: ClassVar[str] = "acknowledged"


@dataclass(frozen=True, slots=True)
class Heated:
    """A vessel onto the heat, as warm as it was [degC], if somebody looked."""

    KIND: ClassVar[str] = "heated"
    cook: Index
    degc: Degc | None = None


@dataclass(frozen=True, slots=True)
class Burst:
    """A burst of the microwave [s], at a share of its power [frac]. The first puts the bowl in."""

    KIND: ClassVar[str] = "burst"
    cook: Index
    seconds: BurstS
    power_frac: PowerFrac = 1.0
    degc: Degc | None = None


@dataclass(frozen=True, slots=True)
class Rested:
    """A vessel off the heat, and how warm it is [degC], if somebody looked."""

    KIND: ClassVar[str] = "rested"
    cook: Index
    degc: Degc | None = None


@dataclass(frozen=True, slots=True)
class ReadOfPot:
    """A temperature of a vessel [degC], and how it was taken."""

    KIND: ClassVar[str] = "reading"
    cook: Index
    degc: Degc
    method: Method


@dataclass(frozen=True, slots=True)
class ReadOfRound:
    """A temperature of a poured round [degC], and how it was taken."""

    KIND: ClassVar[str] = "reading"
    round: Index
    degc: Degc
    method: Method


@dataclass(frozen=True, slots=True)
class ReadOfBatch:
    """A temperature of a held batch [degC], and how it was taken."""

    KIND: ClassVar[str] = "reading"
    batch: Index
    degc: Degc
    method: Method


@dataclass(frozen=True, slots=True)
class SeenInBowl:
    """What somebody saw in a bowl between bursts."""

    KIND: ClassVar[str] = "seen"
    cook: Index
    what: BowlSight


@dataclass(frozen=True, slots=True)
class SeenOfRound:
    """What somebody saw of a round in its mould."""

    KIND: ClassVar[str] = "seen"
    round: Index
    what: Sight


@dataclass(frozen=True, slots=True)
class Poured:
    """A round is poured."""

    KIND: ClassVar[str] = "poured"
    round: Index


@dataclass(frozen=True, slots=True)
class Used:
    """Poured or piped out of a held batch [kg]; None: all that is left."""

    KIND: ClassVar[str] = "poured"
    batch: Index
    kg: Annotated[float, Ge(0.0)] | None = None


@dataclass(frozen=True, slots=True)
class Moved:
    """A round's mould to another place."""

    KIND: ClassVar[str] = "moved"
    round: Index
    place: str


@dataclass(frozen=True, slots=True)
class Inserted:
    """Sticks, sprinkles or films into or onto a poured round: which; None: those that are next. first: what goes into its cavities by hand
    before the pour."""

    KIND: ClassVar[str] = "inserted"
    round: Index
    first: bool = False
    what: Literal["stick", "sprinkle", "film"] | None = None


@dataclass(frozen=True, slots=True)
class CutOut:
    """Pieces cut out of a sheet while it is soft, and left in it."""

    KIND: ClassVar[str] = "cut_out"
    round: Index


@dataclass(frozen=True, slots=True)
class Combed:
    """A comb or skewer was drawn through a round: through its colours, or for lines that stay; None: that which is next."""

    KIND: ClassVar[str] = "combed"
    round: Index
    how: Literal["drag", "comb"] | None = None


@dataclass(frozen=True, slots=True)
class Grooved:
    """Grooves are drawn into a round's backs."""

    KIND: ClassVar[str] = "grooved"
    round: Index


@dataclass(frozen=True, slots=True)
class Bent:
    """A round's pieces are bent."""

    KIND: ClassVar[str] = "bent"
    round: Index


@dataclass(frozen=True, slots=True)
class Flipped:
    """A ball laid on another side."""

    KIND: ClassVar[str] = "flipped"
    round: Index


@dataclass(frozen=True, slots=True)
class Unmoulded:
    """A round out of its mould."""

    KIND: ClassVar[str] = "unmoulded"
    round: Index


@dataclass(frozen=True, slots=True)
class Made:
    """A step that is made by hand, of no melt."""

    KIND: ClassVar[str] = "made"
    step: Index


@dataclass(frozen=True, slots=True)
class Judged:
    """A reading is taken in, or left out, whatever the fit says of it."""

    KIND: ClassVar[str] = "judged"
    reading: str
    use: bool


@dataclass(frozen=True, slots=True)
class Outcome:
    """What came of some cavities of a round."""

    KIND: ClassVar[str] = "outcome"
    round: Index
    cavities: Annotated[list[Index], Len(1, 2000)]
    usable: bool
    kinds: Annotated[list[Flaw], Len(0, 40)] = field(default_factory=list)


@dataclass(frozen=True, slots=True)
class Note:
    """Something written down."""

    KIND: ClassVar[str] = "note"
    text: Text


@dataclass(frozen=True, slots=True)
class Discarded:
    """What is in a vessel is thrown away: it is made anew for what it still owes."""

    KIND: ClassVar[str] = "discarded"
    cook: Index


@dataclass(frozen=True, slots=True)
class RanShort:
    """A pour ran short: so many cavities are full, the rest wait for a fresh melt."""

    KIND: ClassVar[str] = "short"
    round: Index
    filled: Index


@dataclass(frozen=True, slots=True)
class Seeded:
    """Seed stirred in [kg]."""

    KIND: ClassVar[str] = "tempered"
    cook: Index
    added_kg: SeedKg


@dataclass(frozen=True, slots=True)
class Stepped:
    """Another step of tempering done."""

    KIND: ClassVar[str] = "tempered"
    cook: Index
    step: TemperStep


@dataclass(frozen=True, slots=True)
class Smeared:
    """A smear laid on a knife or paper."""

    KIND: ClassVar[str] = "tempered"
    cook: Index
    smear: Literal[True]


@dataclass(frozen=True, slots=True)
class Tested:
    """What a smear said."""

    KIND: ClassVar[str] = "tempered"
    cook: Index
    test: Smear


@dataclass(frozen=True, slots=True)
class Replanned:
    """Another cook within the run: rounds as line and castings."""

    KIND: ClassVar[str] = "replanned"
    rounds: Annotated[list[tuple[Index, Annotated[int, Interval(ge=1, le=2000)]]], Len(1, 12)]


@dataclass(frozen=True, slots=True)
class Paused:
    """Stopped for a while."""

    KIND: ClassVar[str] = "paused"


@dataclass(frozen=True, slots=True)
class Resumed:
    """On again after a pause."""

    KIND: ClassVar[str] = "resumed"


@dataclass(frozen=True, slots=True)
class Ended:
    """The end, and what is left in each vessel [kg]."""

    KIND: ClassVar[str] = "ended"
    left_kg: dict[str, LeftKg] = field(default_factory=dict)


@dataclass(frozen=True, slots=True)
class Cancels:
    """Takes an earlier event back."""

    KIND: ClassVar[str] = "cancels"
    id: Id


Body = (
    Started
    | Acknowledged
    | Heated
    | Burst
    | Rested
    | ReadOfPot
    | ReadOfRound
    | ReadOfBatch
    | SeenInBowl
    | SeenOfRound
    | Poured
    | Used
    | Moved
    | SetDown
    | Inserted
    | CutOut
    | Combed
    | Grooved
    | Bent
    | Flipped
    | Unmoulded
    | Made
    | Judged
    | Outcome
    | Note
    | Discarded
    | Thrown
    | RanShort
    | Decanted
    | Parted
    | Seeded
    | Stepped
    | Smeared
    | Tested
    | Replanned
    | Paused
    | Resumed
    | Ended
    | Rewarmed
    | Merged
    | Coloured
    | Pictured
    | TimerSet
    | TimerOver
    | Mended
    | Counted
    | Rearranged
    | LeftOut
    | WentAway
    | Cancels
)
BODIES: tuple[type[Body], ...] = get_args(Body)
