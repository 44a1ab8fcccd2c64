"""What a block needs before it can be put, and where it then fits."""

from dataclasses import dataclass
from typing import Literal

from umber_pebble.core.plan.day.blocks import Block
from umber_pebble.core.plan.day.lines import Span

How = Literal["ready", "warm", "kept", "again", "new"]
"""What is done about a melt before it is poured; kept: warmed meanwhile too, so that it need not be melted again."""


LOOK_S, LOOKS = 60, 12
"""So far apart are the moments looked at for a warming meanwhile [s], and so many of them."""


class NoPlace(Exception):
    """Nothing fits any more: the order in which things were put leads nowhere."""


@dataclass(frozen=True, slots=True)
class Take:
    """So much of something, from then until then [s from the block's start]."""

    of: str
    span: Span
    amount: int


@dataclass(frozen=True, slots=True)
class Wish:
    """What a block needs, counted from its start: for each thing the spans of somebody's hands, and whose; other things; the heats
    before it: melt, start, whether new; what is warmed meanwhile, so as to keep it: melt, when [s of the day], by whom."""

    hands: tuple[tuple[tuple[Span, ...], frozenset[int]], ...]
    takes: tuple[Take, ...]
    heats: tuple[tuple[int, int, bool], ...] = ()
    meanwhile: tuple[tuple[int, int, int], ...] = ()

    def with_more(self, more: "Wish") -> "Wish":
        """Both. Source: definition"""
        return Wish(
            self.hands + more.hands,
            self.takes + more.takes,
            self.heats + more.heats,
            self.meanwhile + more.meanwhile,
        )


@dataclass(frozen=True, slots=True)
class Found:
    """Where a block fits; of several the one with the lowest key comes first."""

    key: tuple[float, float, int]
    at: int
    block: Block
    wish: Wish
