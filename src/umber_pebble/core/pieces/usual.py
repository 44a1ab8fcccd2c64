"""In which order the passes of a build are usually laid, and where one that is added comes."""

from collections.abc import Sequence

from umber_pebble.core.pieces.passes.base import PassKind


def usual_order(passes: Sequence[PassKind]) -> list[int]:
    """The places of the passes as they are usually laid, details from the smallest [1].

    Args:
        passes: of one part, as they stand
    Source: common-practice
    """
    return sorted(range(len(passes)), key=lambda i: passes[i].rank(passes))
