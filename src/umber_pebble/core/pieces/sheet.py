"""Passes of a piece that is cut out of a sheet: what of the sheet each takes, and what cannot be done with it."""

import math
from collections.abc import Iterator, Sequence
from dataclasses import replace

from umber_pebble.core.explained import explained, given
from umber_pebble.core.materials.load import Material, material
from umber_pebble.core.moulds.cutting import CutSheet, CuttingPlan
from umber_pebble.core.pieces.cast import CastAmounts
from umber_pebble.core.pieces.faults import BuildFault
from umber_pebble.core.pieces.layers import LaidPass
from umber_pebble.core.pieces.melt_ref import OwnMelts
from umber_pebble.core.pieces.passes.base import PassKind
from umber_pebble.core.pieces.transfers import LaidBy, laid_s


def poured_for(cast: CastAmounts, used_frac: float) -> CastAmounts:
    """The cast of a piece with its share of the webs and margins, which are broken off [kg].

    Args:
        cast: of the piece alone
        used_frac: of the sheet that is in pieces [frac]
    Source: geometry
    """
    finished, used = cast.finished.value, given("of the sheet in pieces", used_frac, "frac")
    return replace(
        cast,
        poured=explained(
            finished.times(1 / used_frac),
            "kg",
            "finished / share of the sheet in pieces",
            given("finished", finished, "kg"),
            used,
            sources=("geometry",),
        ),
        scraped=explained(
            finished.times(1 / used_frac - 1),
            "kg",
            "webs and margins of the sheet, broken off",
            used,
            sources=("geometry",),
        ),
    )


def on_sheet(row: LaidPass, cutting: CuttingPlan) -> LaidPass:
    """A pass of a piece that is cut out of a sheet: it cools as the whole sheet does. Source: geometry"""
    if row.cast is None:
        return row
    disc_m = math.sqrt(cutting.sheet.area_m2 / math.pi) / 2
    cast = replace(poured_for(row.cast, cutting.used_frac), plate_m=disc_m, thin_m=None, thick_m=None)
    return replace(row, poured=cast.poured, cast=cast, body=None)


def spread_s(sheet: CutSheet) -> float:
    """How long hands take to spread a sheet out even to its edge [s]. Source: from-memory"""
    return sheet.area_m2 / material("kitchen", "usual", "sheet").value("spread")


def laid_each_s(cast: CastAmounts, by: LaidBy, cutting: CuttingPlan | None) -> float:
    """How long hands take to lay on a casting by hand, of a sheet with its share of the webs; or to spread a sheet, its share of that [s].

    Source: from-memory
    """
    if by != "piped":
        return laid_s(by, cast.open_m2 * cast.poured.value.likely / cast.finished.value.likely)
    return 0.0 if cutting is None else spread_s(cutting.sheet) / len(cutting.cuts)


def not_on_film(passes: Sequence[PassKind], on: Material) -> Iterator[BuildFault]:
    """Passes that are bent with a film, where there is none. Source: common-practice"""
    for i, one in enumerate(passes):
        if one.WITH_FILM and not on.flags.get("peels", False):
            yield BuildFault(i, "wants_film", "it is bent with the film it lies on: pour it on a film or paper")


def not_cut(passes: Sequence[PassKind], own: OwnMelts) -> Iterator[BuildFault]:
    """Passes with which a sheet cannot be cut while it is soft. Source: common-practice"""
    for i, one in enumerate(passes):
        if one.refs() and not one.material(own).has("set_cut"):
            words = f"{one.material(own).name} goes from soft to glass: pour it into cutters or moulds instead"
            yield BuildFault(i, "no_leather", words)
