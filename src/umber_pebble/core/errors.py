"""Named refusals. Each says what is wrong, what was got, and what is allowed, all in SI units."""

import math
from typing import Any


class CoreError(Exception):
    """A refusal in plain words. `path` names the field, `limits` what is allowed, `params` the rest."""

    code = "refused"

    def __init__(
        self,
        message: str,
        *,
        path: str = "",
        got: Any = None,
        limits: dict[str, Any] | None = None,
        params: dict[str, Any] | None = None,
    ) -> None:
        super().__init__(message)
        self.message = message
        self.path = path
        self.got = got
        self.limits = limits or {}
        self.params = params or {}


class OutOfRange(CoreError):
    """A number is outside what is physically possible or what the model holds for."""

    code = "out_of_range"


class Missing(CoreError):
    """Something needed was not given."""

    code = "missing"


class MouldTooWeak(CoreError):
    """The pour is hotter than the mould bears."""

    code = "mould_too_weak"


class NotInSequence(CoreError):
    """The event does not fit the state of the run."""

    code = "not_in_sequence"


def require_range(path: str, value: float, low: float, high: float) -> float:
    """Return value when it is finite and low <= value <= high [same unit as the bounds].

    Raises: OutOfRange: not finite, or outside.
    Source: definition
    """
    if not math.isfinite(value) or not low <= value <= high:
        raise OutOfRange(
            f"{path} is {value:g}: it must be from {low:g} to {high:g}",
            path=path,
            got=value if math.isfinite(value) else str(value),
            limits={"low": low, "high": high},
        )
    return value
