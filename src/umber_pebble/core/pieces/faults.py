"""What cannot be in a build."""

from dataclasses import dataclass
from typing import Literal

FaultCode = Literal[
    "above_rim",
    "after_finish",
    "by_hand",
    "closed",
    "melts_shell",
    "mould_too_weak",
    "no_leather",
    "one_colour",
    "no_room",
    "no_shell",
    "not_empty",
    "nothing_there",
    "nothing_to_close",
    "nothing_wet",
    "outside",
    "too_deep",
    "too_short",
    "too_large",
    "too_much",
    "too_thick",
    "too_thin",
    "too_wide",
    "unset_filling",
    "wants_body",
    "wants_film",
    "wants_hand",
    "wants_lines",
    "wants_mould",
    "wants_walls",
    "wrong_colour",
]
LimitUnit = Literal["m", "kg", "m3", "degC", "frac"]


@dataclass(frozen=True, slots=True)
class BuildFault:
    """Why a pass cannot be as it is: which pass, a code, what is wrong in words, what it is and how far it may go, in which unit."""

    index: int
    code: FaultCode
    words: str
    got: float | None = None
    limit: float | None = None
    unit: LimitUnit = "m"


class ImpossiblePass(Exception):
    """A pass that cannot be, before it is known which one it is."""

    def __init__(
        self,
        code: FaultCode,
        words: str,
        got: float | None = None,
        limit: float | None = None,
        unit: LimitUnit = "m",
    ) -> None:
        super().__init__(words)
        self.code, self.words, self.got, self.limit, self.unit = code, words, got, limit, unit

    def at(self, index: int) -> BuildFault:
        return BuildFault(index, self.code, self.words, self.got, self.limit, self.unit)
