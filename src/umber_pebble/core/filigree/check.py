"""Whether a filigree holds: what falls apart, what hangs on one join, what reaches too far, how many break."""

import math
from dataclasses import dataclass

import numpy as np

from umber_pebble.core.filigree.bending import Lifted, held_both_pa, held_once_pa, span_held_m, tip_held_m
from umber_pebble.core.filigree.hanging import Hanging, held
from umber_pebble.core.filigree.joined import Joined, Span, joined
from umber_pebble.core.moulds.traced import Traced


@dataclass(frozen=True, slots=True)
class FarSpan:
    """A span that reaches too far between its joins: how far, how far it may [m], the share of them that breaks [frac]."""

    span: Span
    reach_m: float
    holds_m: float
    breaks_frac: float


@dataclass(frozen=True, slots=True)
class Hangs:
    """What hangs on one join: its weight [kg], how far a loose end of its bead may reach [m], the share of them that breaks [frac], and
    whether that is more than is safe."""

    hanging: Hanging
    kg: float
    holds_m: float
    breaks_frac: float
    far: bool


@dataclass(frozen=True, slots=True)
class Checked:
    """A drawing as a filigree of a melt: its graph, what reaches too far, what hangs on one join, loose ends too; the share of all such
    pieces that breaks as they are lifted [frac]."""

    joined: Joined
    far: tuple[FarSpan, ...]
    hangs: tuple[Hangs, ...]
    breaks_frac: float

    @property
    def apart(self) -> int:
        """In how many parts it comes off its paper."""
        return len(self.joined.parts)

    @property
    def holds(self) -> bool:
        """Whether it comes off in one, and nothing reaches too far."""
        return self.apart == 1 and not self.far and not any(of.far for of in self.hangs)


def checked(drawing: Traced, melt: Lifted) -> Checked:
    """A drawing checked before any melt is piped over it.

    Args:
        drawing: the lines, and their opening
        melt: set, as it is lifted
    Source: gere-goodno-2012, weibull-1951, assumption
    """
    of = joined(drawing)
    holds = held(of)
    reaches = _reaches_m(of)
    both = [_spans(of.spans[i], melt, reaches[i]) for i in sorted(holds.both)]
    hangs = tuple(_hangs(one, melt) for one in holds.hanging)
    shares = [one.breaks_frac for one in both] + [one.breaks_frac for one in hangs]
    whole = math.prod(1 - share for share in shares)
    return Checked(of, tuple(one for one in both if one.reach_m > one.holds_m), hangs, 1 - whole)


def _reaches_m(of: Joined) -> list[float]:
    """How long a straight span would be that reaches as far from its ends: of a straight one its length [m]."""
    from_ends = [np.hypot(*np.moveaxis(of.places - of.places[:, end, None], 2, 0)) for end in (0, -1)]
    reaches: list[float] = (2 * np.minimum(*from_ends).max(axis=1)).tolist()
    return reaches


def _spans(span: Span, melt: Lifted, reach_m: float) -> FarSpan:
    breaks = melt.breaks_frac(held_both_pa(span.bead, melt, reach_m))
    return FarSpan(span, reach_m, span_held_m(span.bead, melt), breaks)


def _hangs(of: Hanging, melt: Lifted) -> Hangs:
    kg = of.volume_m3 * melt.density_kg_m3
    breaks = melt.breaks_frac(held_once_pa(of.bead, melt, kg, of.middle_m, of.reach_m))
    return Hangs(of, kg, tip_held_m(of.bead, melt), breaks, breaks > melt.safe_frac)
