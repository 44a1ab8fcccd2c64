"""What every stored or sent shape is built on: strictness, and fields of one kind."""

from datetime import UTC, datetime
from typing import Annotated
from zoneinfo import ZoneInfo, ZoneInfoNotFoundError

from pydantic import (
    AfterValidator,
    BaseModel,
    BeforeValidator,
    ConfigDict,
    Field,
    TypeAdapter,
    ValidationError,
    ValidationInfo,
)

from umber_pebble.core import texts
from umber_pebble.core.errors import OutOfRange


class Doc(BaseModel):
    """Strict: no unknown field, no number that is not finite, no silent conversion."""

    model_config = ConfigDict(extra="forbid", strict=True, allow_inf_nan=False)


def _zone(name: str) -> str:
    try:
        return str(ZoneInfo(name))
    except (ZoneInfoNotFoundError, ValueError, OSError) as error:
        raise ValueError("not a known time zone") from error


FIRST_YEAR, LAST_YEAR = 2000, 2200


def _utc(value: datetime, info: ValidationInfo) -> datetime:
    if value.tzinfo is None:
        raise ValueError("a time needs its zone")
    if not is_stored(info) and not FIRST_YEAR <= value.year < LAST_YEAR:
        raise ValueError(f"a time from {FIRST_YEAR} to {LAST_YEAR}")
    return value.astimezone(UTC)


def _whole(value: object) -> object:
    return int(value) if isinstance(value, float) and value.is_integer() else value


STORED = {"stored": True}
"""Context of what is read back from the store: an older version took names that are no names now."""


def is_stored(info: ValidationInfo) -> bool:
    """Whether what is read comes from the store."""
    return bool(info.context and info.context.get("stored"))


def one_line(value: object, stored: bool) -> object:
    """A name is one line of printable text; what an older version took is made one."""
    if not isinstance(value, str) or value.isprintable() or not stored:
        return value
    return " ".join("".join(c if c.isprintable() else " " for c in value).split())[:60] or "?"


Whole = Annotated[int, BeforeValidator(_whole)]


def _name(value: object, info: ValidationInfo) -> object:
    return one_line(value, is_stored(info))


Name = Annotated[texts.Name, BeforeValidator(_name)]
Id = Annotated[str, Field(min_length=1, max_length=40, pattern=r"^[A-Za-z0-9_-]+$")]
_ID: TypeAdapter[str] = TypeAdapter(Id)


def check_id(value: str) -> None:
    """Raises: OutOfRange: it is no id."""
    try:
        _ID.validate_python(value)
    except ValidationError as error:
        raise OutOfRange(
            "an id is 1 to 40 letters, digits, hyphens and underscores", path="id", got=value[:60]
        ) from error


Zone = Annotated[str, AfterValidator(_zone)]


def _read(value: object) -> object:
    """A moment in words as a moment; what is none is left to be refused."""
    try:
        return datetime.fromisoformat(value) if isinstance(value, str) else value
    except ValueError:
        return value


Utc = Annotated[datetime, BeforeValidator(_read), AfterValidator(_utc)]
