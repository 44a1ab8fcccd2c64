"""In which order the passes of a build are usually laid."""

from collections.abc import Sequence

from umber_pebble.core.pieces.passes import (
    Centre,
    Close,
    Cluster,
    Detail,
    Dip,
    Dollop,
    Drizzle,
    Dust,
    Fill,
    Filling,
    Pass,
    Paste,
    Rod,
    Shell,
    Turned,
)

# dust on the bare mould, details, shell, stick, what is put in, what is poured in, the close, and what goes on top
RANK: dict[type[Pass], float] = {
    Dust: 0, Detail: 1, Shell: 2, Turned: 2, Rod: 3, Centre: 4, Filling: 5, Paste: 5, Fill: 6, Close: 7, Cluster: 7, Dip: 7, Drizzle: 8.5,
    Dollop: 8.5,
}  # fmt: skip
ON_WET, INTO_FILL = 8.0, 6.5
"""What is strewn on a wet melt comes after it; a stick goes into a solid fill while that is soft."""


def usual_order(passes: Sequence[Pass]) -> list[int]:
    """The places of the passes as they are usually laid, details from the smallest [1].

    Args:
        passes: of one part, as they stand
    Source: common-practice
    """
    filled = any(isinstance(one, Fill) for one in passes)

    def rank(i: int) -> tuple[float, float]:
        match passes[i]:
            case Dust(on_wet=True):
                return ON_WET, 0.0
            case Rod() if filled:
                return INTO_FILL, 0.0
            case Detail(share_frac=share):
                return RANK[Detail], share
            case one:
                return RANK[type(one)], 0.0

    return sorted(range(len(passes)), key=rank)
