"""Low, likely, high: the one type for a value with spread, from engine to screen."""

import math
from collections.abc import Callable, Iterable, Mapping, Sequence
from dataclasses import dataclass

from umber_pebble.core.errors import OutOfRange

Z_95 = 1.6448536269514722
"""Standard deviations from the middle of a normal to its 95 %."""


@dataclass(frozen=True, slots=True)
class Spread:
    """5 / 50 / 95 % of a value, in the unit its name says; low <= likely <= high."""

    low: float
    likely: float
    high: float

    def __post_init__(self) -> None:
        if not self.low <= self.likely <= self.high:
            raise OutOfRange(f"a spread must rise: {self.low:g}, {self.likely:g}, {self.high:g}", path="spread")

    def map(self, fn: Callable[[float], float]) -> "Spread":
        """The spread of a monotone function of the value."""
        a, b = fn(self.low), fn(self.high)
        return Spread(min(a, b), fn(self.likely), max(a, b))

    def plus(self, shift: float) -> "Spread":
        return Spread(self.low + shift, self.likely + shift, self.high + shift)

    def times(self, factor: float) -> "Spread":
        return self.map(lambda value: value * factor)


def exact(value: float) -> Spread:
    """A value without spread [its own unit]. Source: definition"""
    return Spread(value, value, value)


def combine(likely: float, others: Iterable[Sequence[float]]) -> Spread:
    """Spread from one base run and, per uncertain input, the results at its low and its high end.

    Independent inputs are moved one at a time and their deviations added in quadrature,
    downward and upward apart; exact for a linear model with independent inputs [unit of likely].
    Args:
        likely: result of the base run
        others: one sequence of results per input
    Source: jcgm-100-2008, section 5.1.2
    """
    down = up = 0.0
    for results in others:
        down += min(0.0, *(r - likely for r in results)) ** 2
        up += max(0.0, *(r - likely for r in results)) ** 2
    return Spread(likely - math.sqrt(down), likely, likely + math.sqrt(up))


def shares_of(likely: float, others: Mapping[str, Sequence[float]]) -> dict[str, float]:
    """Which share of a spread comes from which input, largest first; nothing where there is no spread [frac].

    Args:
        likely, others: as in combine, the results by the input's name
    Source: jcgm-100-2008, section 5.1.2
    """
    squares = {name: max((r - likely) ** 2 for r in results) for name, results in others.items() if results}
    whole = sum(squares.values())
    if not 0.0 < whole < math.inf:
        return {}
    return dict(sorted(((name, s / whole) for name, s in squares.items()), key=lambda row: -row[1]))
