"""What a plan has to say: one class a remark, with its figures (SI), in the order in which it is said once."""

from collections.abc import Iterable
from dataclasses import dataclass, field
from typing import Literal

from umber_pebble.core.pieces.bought import Status
from umber_pebble.core.plan.problem import Named
from umber_pebble.core.plan.tasks import TaskKind, Work


@dataclass(frozen=True, slots=True)
class DueInPast:
    """It was due so long ago [s]."""

    late_s: float
    code: Literal["due_in_past"] = field(default="due_in_past", init=False)


@dataclass(frozen=True, slots=True)
class TooLate:
    """It takes longer than there is [s]."""

    needs_s: float
    has_s: float
    code: Literal["too_late"] = field(default="too_late", init=False)


@dataclass(frozen=True, slots=True)
class WindowNever:
    """A round whose melt is too thick for it before its bubbles have risen out of so much depth [m]."""

    named: Named
    depth_m: float
    code: Literal["window_never"] = field(default="window_never", init=False)


@dataclass(frozen=True, slots=True)
class WindowNarrow:
    """A round for which the pour window may be too short [s]."""

    named: Named
    low_s: float
    code: Literal["window_narrow"] = field(default="window_narrow", init=False)


@dataclass(frozen=True, slots=True)
class EasilyLost:
    """What is done too late on too many days: what is done, on how many days it is in time [frac], how much longer than it takes its
    window is [s]; by_slip: it is in time on nearly all, but not where something before it slips."""

    kind: TaskKind
    named: Named
    kept_frac: float
    room_s: float
    by_slip: bool
    code: Literal["easily_lost"] = field(default="easily_lost", init=False)


@dataclass(frozen=True, slots=True)
class NotKept:
    """A melt that stands and cools, though it was to be kept warm: too warm there for what is poured of it, not warm enough to stay fluid,
    or there is no room; keeper: the id of what keeps it; how warm it would stay, and may be at most [degC]."""

    named: Named
    keeper: str
    why: Literal["warm", "cool", "full"]
    settles_degc: float
    most_degc: float
    code: Literal["not_kept"] = field(default="not_kept", init=False)


@dataclass(frozen=True, slots=True)
class PotTooSmall:
    """More melt than a vessel holds [kg]."""

    charge_kg: float
    holds_kg: float
    code: Literal["pot_too_small"] = field(default="pot_too_small", init=False)


@dataclass(frozen=True, slots=True)
class NeverSets:
    """A round that does not set where it lies."""

    named: Named
    code: Literal["never_sets"] = field(default="never_sets", init=False)


@dataclass(frozen=True, slots=True)
class ChillsFirst:
    """A round whose skin may crack from cold before it lets go."""

    named: Named
    code: Literal["chills_first"] = field(default="chills_first", init=False)


@dataclass(frozen=True, slots=True)
class ThinToLeave:
    """A round thinner than what leaves its mould whole [m]."""

    named: Named
    thick_m: float
    least_m: float
    code: Literal["thin_to_leave"] = field(default="thin_to_leave", init=False)


@dataclass(frozen=True, slots=True)
class OneByOne:
    """A round of which not even one is worked in its window for sure."""

    named: Named
    work: Work
    code: Literal["one_by_one"] = field(default="one_by_one", init=False)


@dataclass(frozen=True, slots=True)
class NotEaten:
    """Castings that a film lay on which is not made for food."""

    named: Named
    film: str
    code: Literal["not_eaten"] = field(default="not_eaten", init=False)


@dataclass(frozen=True, slots=True)
class NotFood:
    """Something that is put in or on what is eaten and is no food itself."""

    named: Named
    thing: str
    status: Status
    code: Literal["not_food"] = field(default="not_food", init=False)


@dataclass(frozen=True, slots=True)
class WeakSpirit:
    """A paint whose carrier has less alcohol by volume than dries before it draws in [frac]."""

    named: Named
    alcohol_frac: float
    least_frac: float
    dries_s: float
    code: Literal["weak_spirit"] = field(default="weak_spirit", init=False)


@dataclass(frozen=True, slots=True)
class StripesApart:
    """Stripes that take longer to pipe than the first of them still run together with the last [s]."""

    named: Named
    takes_s: float
    runs_s: float
    code: Literal["stripes_apart"] = field(default="stripes_apart", init=False)


@dataclass(frozen=True, slots=True)
class FallsApart:
    """A drawing whose lines come off in so many parts [count]."""

    named: Named
    parts: int
    code: Literal["falls_apart"] = field(default="falls_apart", init=False)


@dataclass(frozen=True, slots=True)
class BreaksEasily:
    """A drawing of which so many are taken to break as they are lifted [frac]."""

    named: Named
    breaks_frac: float
    code: Literal["breaks_easily"] = field(default="breaks_easily", init=False)


@dataclass(frozen=True, slots=True)
class BagStiffens:
    """Lines that take longer to pipe than a bag of all their melt flows [s]; out of so many bags, filled one after the other, they are
    [count]."""

    named: Named
    takes_s: float
    flows_s: float
    bags: int
    code: Literal["bag_stiffens"] = field(default="bag_stiffens", init=False)


@dataclass(frozen=True, slots=True)
class ShelfSmall:
    """More moulds at once than a place takes [count]."""

    place: str
    needs: int
    has: int
    code: Literal["shelf_small"] = field(default="shelf_small", init=False)


@dataclass(frozen=True, slots=True)
class StickyRoom:
    """A room so damp that pieces may turn sticky [frac], and from when."""

    humidity_frac: float
    from_frac: float
    code: Literal["sticky_room"] = field(default="sticky_room", init=False)


Remark = (
    DueInPast
    | TooLate
    | WindowNever
    | WindowNarrow
    | EasilyLost
    | NotKept
    | PotTooSmall
    | NeverSets
    | ChillsFirst
    | ThinToLeave
    | OneByOne
    | NotEaten
    | NotFood
    | WeakSpirit
    | StripesApart
    | FallsApart
    | BreaksEasily
    | BagStiffens
    | ShelfSmall
    | StickyRoom
)


def each_once(remarks: Iterable[Remark]) -> list[Remark]:
    """The first of each kind; of works in a window, of each work, of what is not kept, of each melt [1]. Source: definition"""
    seen: dict[tuple[str, str], Remark] = {}
    for of in remarks:
        match of:
            case OneByOne(work=which):
                seen.setdefault((of.code, which), of)
            case NotFood(thing=thing):
                seen.setdefault((of.code, thing), of)
            case NotKept(named=named) | FallsApart(named=named) | BreaksEasily(named=named):
                seen.setdefault((of.code, str(named)), of)
            case _:
                seen.setdefault((of.code, ""), of)
    return list(seen.values())
