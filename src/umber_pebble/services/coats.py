"""What of a pass is poured or piped by itself: each melt of it, side by side or one into the other, and what goes on a second time."""

import math
from collections.abc import Sequence
from dataclasses import dataclass

from umber_pebble.core.moulds.traced import Line, Traced, bead
from umber_pebble.core.pieces.cast import CastAmounts
from umber_pebble.core.pieces.layers import LaidPass
from umber_pebble.core.pieces.passes.base import PassKind
from umber_pebble.core.pieces.stripes import Piped, Stripes, bead_m, piping_s, stripes
from umber_pebble.core.plan.problem import PouredAs
from umber_pebble.services.built import Built, share_of


@dataclass(frozen=True, slots=True)
class Coat:
    """One melt of a pass: its grams of a casting, how it is laid on, what that is called, whether right before the next into or beside it,
    with others; how it is piped, where it is."""

    key: str
    cast: CastAmounts
    kind: PouredAs
    step: str
    with_next: bool
    mixed: bool
    piped: Piped | None


def coats_of(built: Built, row: LaidPass, step: str) -> list[Coat]:
    """A laid pass with a melt, in the order in which it is poured or piped; step: what it is called among others."""
    cast, one, lie = row.cast, built.passes[row.index], stripes_of(built, row)
    assert cast is not None
    if built.drawing is not None:
        return _lines(built.drawing, cast, one, step)
    # the others are swirled into the first one's vessel before that is poured, or piped beside it
    (melt, share), *others = one.melts()
    keys = [ref.key for ref, _ in one.melts()]
    beside: PouredAs = "swirl" if lie is None else one.laid_as

    def coat(key: str, some: float, kind: PouredAs, called: str, with_next: bool) -> Coat:
        piped = None if lie is None else _piped(lie, cast, keys.index(key), some)
        return Coat(
            key, cast if some == 1.0 else share_of(cast, some), kind, called, with_next, bool(others), piped
        )

    first = [coat(other.key, some, beside, _called(step, beside), True) for other, some in others]
    return [*first, coat(melt.key, share, one.laid_as, step, False)]


def _lines(of: Traced, cast: CastAmounts, one: PassKind, step: str) -> list[Coat]:
    """All lines of a drawing, and then those that are piped once more."""
    [(melt, _)] = one.melts()
    again = of.again_frac

    def coat(some: float, called: str, lines: Sequence[Line]) -> Coat:
        long_m = sum(line.length_m for line in lines)
        piped = Piped(
            of.bore_m, bead(of.bore_m).wide_m, len(lines), len(of.lines), long_m, piping_s(long_m, len(lines))
        )
        return Coat(melt.key, share_of(cast, some), one.laid_as, called, False, False, piped)

    coats = [coat(1 - again, step, of.lines)]
    if again:
        coats.append(coat(again, _called(step or one.kind, "again"), [line for line in of.lines if line.twice]))
    return coats


def _called(step: str, more: str) -> str:
    return f"{step}, {more}" if step else more


def stripes_of(built: Built, row: LaidPass) -> Stripes | None:
    """How a pass's melts lie side by side in stripes; None where they do not. On a sheet they run along it."""
    one, cut = built.passes[row.index], built.mould.cutting
    if row.cast is None or one.piped_m is None:
        return None
    across_m = math.sqrt(row.cast.open_m2) if cut is None else cut.sheet.width_m
    return stripes(one.piped_m, row.cast.thickness.likely, across_m, [share for _, share in one.melts()])


def _piped(lie: Stripes, cast: CastAmounts, nth: int, share: float) -> Piped:
    """One of its melts, a casting's share of it: as long as the bead is that it makes."""
    poured_m3 = cast.volume.value.likely * cast.poured.value.likely / cast.finished.value.likely
    long_m = bead_m(share * poured_m3, lie.bore_m)
    return Piped(lie.bore_m, lie.wide_m, lie.counts[nth], sum(lie.counts), long_m, piping_s(long_m, 0))
