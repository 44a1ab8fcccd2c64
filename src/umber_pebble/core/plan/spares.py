"""Break rates learned from outcomes, and the castings that make an order safe."""

import math
from dataclasses import dataclass, replace
from typing import Literal

from umber_pebble.core.errors import require_range

PRIOR_CASTS, USUAL_FRAC = 20.0, 0.05
"""What is taken for known before any was counted: of so many castings [count], so many unusable [frac]."""
MOST_CASTS = 20_000

Spares = Literal["as_sure", "in_rounds", "full_rounds"]
"""How many more than asked are cast: as many as the confidence asks; no round of the mould for them alone; all rounds full."""


@dataclass(frozen=True, slots=True)
class BreakRate:
    """Beta distribution of the share unusable: prior Beta(1, 19), or as much of what is expected of it [frac], and what was counted."""

    broken: int = 0
    good: int = 0
    expected_frac: float = USUAL_FRAC

    @property
    def alpha(self) -> float:
        return PRIOR_CASTS * self.expected_frac + self.broken

    @property
    def beta(self) -> float:
        return PRIOR_CASTS * (1 - self.expected_frac) + self.good

    def counted(self, broken: int, good: int) -> "BreakRate":
        """With so many more counted [count]. Source: beta-binomial"""
        return replace(self, broken=self.broken + broken, good=self.good + good)

    @property
    def mean_frac(self) -> float:
        return self.alpha / (self.alpha + self.beta)


def _log_beta(a: float, b: float) -> float:
    return math.lgamma(a) + math.lgamma(b) - math.lgamma(a + b)


def chance_enough_frac(casts: int, needed: int, rate: BreakRate) -> float:
    """Chance that at least `needed` of `casts` castings are usable, by the beta-binomial [frac].

    Args:
        casts: castings made, at least zero
        needed: usable ones wanted
        rate: what is known of breaking
    Source: beta-binomial
    """
    total = 0.0
    for bad in range(casts - needed + 1):
        choose = math.lgamma(casts + 1) - math.lgamma(bad + 1) - math.lgamma(casts - bad + 1)
        weight = _log_beta(bad + rate.alpha, casts - bad + rate.beta) - _log_beta(rate.alpha, rate.beta)
        total += math.exp(choose + weight)
    return min(total, 1.0)


def casts_needed(needed: int, confidence_frac: float, rate: BreakRate) -> int:
    """Castings to make so that `needed` are usable at the stated confidence [count].

    Args:
        needed: 1 to 5000
        confidence_frac: 0.5 to 0.99
        rate: what is known of breaking
    Raises: OutOfRange: needed or confidence_frac outside, or no number of castings reaches it.
    Source: beta-binomial
    """
    require_range("quantity", needed, 1, 5000)
    require_range("confidence_frac", confidence_frac, 0.5, 0.99)
    low, high = needed - 1, needed
    while chance_enough_frac(high, needed, rate) < confidence_frac:
        low, high = high, needed + 2 * (high - needed + 1)
        require_range("casts", high, 1, MOST_CASTS)
    while high - low > 1:
        mid = (low + high) // 2
        low, high = (low, mid) if chance_enough_frac(mid, needed, rate) >= confidence_frac else (mid, high)
    return high


def casts_made(needed: int, spares: Spares, at_once: int, confidence_frac: float, rate: BreakRate) -> int:
    """Castings made of what is needed, in rounds of a mould [count].

    Args:
        needed: 1 to 5000
        spares: how many more
        at_once: castings a round takes, at least 1
        confidence_frac: 0.5 to 0.99
        rate: what is known of breaking
    Raises: OutOfRange: as casts_needed.
    Source: beta-binomial
    """
    sure = casts_needed(needed, confidence_frac, rate)
    match spares:
        case "as_sure":
            return sure
        case "in_rounds":
            return min(sure, math.ceil(needed / at_once) * at_once)
        case "full_rounds":
            return math.ceil(sure / at_once) * at_once
