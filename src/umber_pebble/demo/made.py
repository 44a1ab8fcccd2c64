"""What demo pieces are made with: colours, melts, parts."""

from umber_pebble.core.pieces.melt_ref import MeltRef, MeltShare
from umber_pebble.core.pieces.passes.fill import Fill
from umber_pebble.services.piece_docs import Part, Pass, Piece

MOON, NIGHT_BLUE, OCHRE, DUSK = "#f1ead9", "#1f2a44", "#c98a2b", "#5b4a78"


def melt(of: str, colour: str | None = None) -> MeltRef:
    return MeltRef(material=of, colour=colour)


def fill(of: str, level_m: float) -> Fill:
    return Fill(melt=melt(of), level_m=level_m, others=(), stripes_m=None)


def share(colour: str, frac: float) -> MeltShare:
    return MeltShare(melt("coating", colour), frac)


def built(name: str, mould: str, passes: list[Pass], cavity: int = 0, count: int = 1, bent: bool = False) -> Piece:
    """A piece of one part."""
    return Piece(name=name, parts=[part(name, mould, passes, cavity, count, bent)], joins=[], stand=None)


def part(
    name: str, mould: str | None, passes: list[Pass], cavity: int = 0, count: int = 1, bent: bool = False
) -> Part:
    return Part(
        name=name,
        count=count,
        mould_id=mould,
        body=None,
        seen="mould",
        cavity=cavity,
        passes=passes,
        bent=bent,
        released=bent,
        stays=[],
    )
