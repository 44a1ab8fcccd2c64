"""What is told of a field of a pass or a body: its unit, its range, how it is set. Whatever reads, publishes or edits one goes by
this."""

from collections.abc import Iterator
from dataclasses import dataclass, fields, replace
from functools import cache
from types import NoneType
from typing import Annotated, Any, ClassVar, Literal, TypeVar, cast, get_args, get_origin, get_type_hints

from annotated_types import BaseMetadata, GroupedMetadata, Interval, MaxLen

Unit = Literal["m", "kg", "m3", "rad", "frac", "degC", "s", "count"]


class Shape:
    """Something of a document: all its fields must be told, as they are, and no others."""

    __slots__ = ()
    __pydantic_config__: ClassVar[dict[str, Any]] = {
        "extra": "forbid",
        "strict": True,
        "allow_inf_nan": False,
        "json_schema_extra": lambda schema: schema.update(required=list(schema["properties"])),
    }


@dataclass(frozen=True, slots=True)
class Size:
    """A number that may go with the depth of what it is in: itself, and at most a share of that depth [in its field's unit, frac]."""

    of: float
    depth_frac: float | None = None

    def at(self, depth_m: float) -> float:
        """It, in something so deep. Source: definition"""
        return self.of if self.depth_frac is None else min(self.of, self.depth_frac * depth_m)


@dataclass(frozen=True, slots=True)
class Slide:
    """Between what a slider moves a number."""

    low: float
    high: Size


@dataclass(frozen=True, slots=True)
class Number(GroupedMetadata):
    """A number: its unit, how far it may go, the step of an arrow key in the unit shown; slides: it has a slider;
    large: what is set most; rolled: also told as the ball it makes; bore: also told as
    the number of a round nozzle."""

    unit: Unit
    low: float
    high: float
    step: float
    slides: Slide | None = None
    large: bool = False
    rolled: bool = False
    bore: bool = False

    def __iter__(self) -> Iterator[BaseMetadata]:
        return iter(Interval(ge=self.low, le=self.high))


@dataclass(frozen=True, slots=True)
class Also:
    """Another field, as it is where one is told, and where it is not."""

    field: str
    told: float
    untold: float


@dataclass(frozen=True, slots=True)
class Told:
    """A field that may be left untold (None), and what it is when it is first told: a size (of an outline: a share of what it lies
    across), or what the melt is; also: what that does to others; instead: what is told where this is not; reckoned: where it is
    untold the figures say it."""

    first: Size | None = None
    also: tuple[Also, ...] = ()
    instead: str | None = None
    reckoned: bool = False


@dataclass(frozen=True, slots=True)
class Shares(GroupedMetadata):
    """Melts beside the first: at most so many."""

    most: int

    def __iter__(self) -> Iterator[BaseMetadata]:
        return iter([MaxLen(self.most)])


@dataclass(frozen=True, slots=True)
class Tint:
    """A colour that is put in, as hex; None: as it comes."""


@dataclass(frozen=True, slots=True)
class Only:
    """A field that is set only where another is told, so or more than 0, or, with a no, where it is not."""

    field: str
    so: bool = True


PartNo = Annotated[int, Interval(ge=0, le=11)]
"""One of a piece's parts."""

S = TypeVar("S", bound=Shape)
Sort = Literal["number", "flag", "choice", "name", "melt", "melts", "outline", "part", "colour"]


@dataclass(frozen=True, slots=True)
class FieldShown:
    """A field as an editor shows it: of which sort; a number's unit and range; how it is left untold; where it is set; among what it
    is chosen."""

    name: str
    sort: Sort
    number: Number | None
    told: Told | None
    only: Only | None
    shares: Shares | None
    options: tuple[str, ...]


def fields_of(shape: type[Shape]) -> tuple[FieldShown, ...]:
    """The fields of something of a document that can be set, in their order. Source: definition"""
    return _fields_of(cast("Any", shape))


@cache
def _fields_of(shape: Any) -> tuple[FieldShown, ...]:
    hints = get_type_hints(shape, include_extras=True)
    shown = (_shown(of.name, hints[of.name]) for of in fields(shape))
    return tuple(of for of in shown if of.sort != "choice" or len(of.options) > 1)


def kind_of(shape: type[Shape]) -> str:
    """By what a document tells it from others. Source: definition"""
    return next(str(of.default) for of in fields(cast("Any", shape)) if of.name == "kind")


def _shown(name: str, hint: Any) -> FieldShown:
    plain, *notes = get_args(hint) if get_origin(hint) is Annotated else [hint]
    number = next((note for note in notes if isinstance(note, Number)), None)
    told = next((note for note in notes if isinstance(note, Told)), None)
    only = next((note for note in notes if isinstance(note, Only)), None)
    shares = next((note for note in notes if isinstance(note, Shares)), None)
    if told is not None:
        plain = next(of for of in get_args(plain) if of is not NoneType)
    options = tuple(str(of) for of in get_args(plain)) if get_origin(plain) is Literal else ()
    tinted = any(isinstance(note, Tint) for note in notes)
    sort: Sort = "colour" if tinted else "number" if number else "melts" if shares else _sort(plain)
    return FieldShown(name, sort, number, told, only, shares, options)


def _sort(plain: Any) -> Sort:
    if get_origin(plain) is Literal:
        return "choice"
    if get_origin(plain) is Annotated:
        return _sort(get_args(plain)[0])
    sorts: dict[Any, Sort] = {bool: "flag", str: "name", tuple: "outline", int: "part"}
    return sorts.get(get_origin(plain) or plain, "melt")


def with_told(shape: S, name: str, value: float) -> S:
    """The same with a field told, and what was told instead of it left out. Source: definition"""
    [field] = [of for of in fields_of(type(shape)) if of.name == name]
    instead: dict[str, Any] = (
        {} if field.told is None or field.told.instead is None else {field.told.instead: None}
    )
    changed: S = replace(cast("Any", shape), **{name: value, **instead})
    return changed
