"""Demo pieces that are cut out of sheets or lie on films, all names made up."""

from umber_pebble.core.pieces.passes.band import FilmBand
from umber_pebble.core.pieces.passes.comb import Comb
from umber_pebble.core.pieces.passes.curved import Curved
from umber_pebble.core.pieces.passes.detail import Detail
from umber_pebble.core.pieces.passes.fill import Fill
from umber_pebble.core.pieces.passes.smear import Smear
from umber_pebble.core.pieces.transfers import LaidBy
from umber_pebble.demo.made import DUSK, MOON, NIGHT_BLUE, OCHRE, built, fill, melt, part, share
from umber_pebble.services.piece_docs import Pass, Piece, StayDoc

AURORA: list[Pass] = [
    Fill(
        melt=melt("coating", NIGHT_BLUE),
        level_m=0.0025,
        others=(share(DUSK, 0.3), share(MOON, 0.2)),
        stripes_m=0.006,
    ),
    Comb(how="drag", strokes_count=10, deep_m=0.0008),
]
"""Stripes in three colours, a skewer drawn through them."""


def _butter(name: str, colour: str, share_frac: float, by: LaidBy) -> Detail:
    """Coloured cocoa butter, laid on the film first."""
    return Detail(
        name=name, melt=melt("cocoa_butter", colour), outline=None, share_frac=share_frac, thick_m=0.0001, by=by
    )


TILE: list[Pass] = [
    _butter("Night, scratched", NIGHT_BLUE, 0.8, "scratch"),
    _butter("Ochre, mottled", OCHRE, 0.4, "mottle"),
    fill("dark", 0.0025),
]
"""A transfer of one's own: painted on the film, and chocolate over it."""


RING: list[Pass] = [
    Fill(melt=melt("coating", MOON), level_m=0.0015, others=(), stripes_m=None),
    FilmBand(form_m=0.06, overlap_m=0.008, forms_count=4),
]
LEAF: list[Pass] = [
    Smear(melt=melt("coating", OCHRE), length_m=0.06, width_m=0.025, thick_m=0.0015, gap_m=0.002),
    Curved(how="curve", form_m=0.08, held="magnets", forms_count=2),
]


def _on_foam(name: str, cavity: int) -> Piece:
    """Cut out of the aurora sheet, which lies on foam until it has been drawn through."""
    whole = part(name, "mould-aurora", AURORA, cavity)
    stays = [
        StayDoc(from_s=0.0, place_id="foam", care="none"),
        StayDoc(from_s=60.0, place_id="bench", care="none"),
    ]
    return Piece(name=name, parts=[whole.model_copy(update={"stays": stays})], joins=[], stand=None)


SHEET_PIECES = {
    "piece-crescent": _on_foam("Aurora crescent", 0),
    "piece-spark": _on_foam("Aurora star", 1),
    "piece-ring": built("Orbit ring", "mould-strips", RING),
    "piece-plume": built("Comet leaf", "mould-leaves", LEAF),
    "piece-tile": built("Night tile", "mould-tiles", TILE),
}
