"""In which order the passes of a build are usually laid, and which of them are not seen."""

from collections.abc import Sequence
from typing import Literal

from umber_pebble.core.pieces.passes.base import PassKind


def usual_order(passes: Sequence[PassKind]) -> list[int]:
    """The places of the passes as they are usually laid, details from the smallest [1].

    Args:
        passes: of one part, as they stand
    Source: common-practice
    """
    return sorted(range(len(passes)), key=lambda i: passes[i].rank(passes))


def hidden(seen: Literal["mould", "open"], passes: Sequence[PassKind]) -> list[int]:
    """The places of passes that lie on the face of a part that is not seen: the first ones in the mould, or those on top.

    Args:
        seen: the face that is
        passes: of one part, in their order
    Source: common-practice
    """
    last = max((i for i, one in enumerate(passes) if one.COVERS), default=len(passes))
    if seen == "open":
        return [i for i, one in enumerate(passes) if one.LIES == "wall" and i < last]
    return [i for i, one in enumerate(passes) if one.LIES == "top" and i > last]
