"""Sheets that are cut: their cutting plan as figures, and to scale on paper."""

from dataclasses import dataclass
from typing import Annotated

from pydantic import Field

from umber_pebble.core.errors import Missing
from umber_pebble.core.moulds.cutting import CuttingPlan, cut_out
from umber_pebble.core.plan.sheets import sheets_for
from umber_pebble.formats.to_scale import Drawn, write_pages, write_svg
from umber_pebble.services.doc_base import Doc
from umber_pebble.services.documents import Mould
from umber_pebble.services.shapes import cavity_fit, cutting_of
from umber_pebble.services.workshop import Workshop


class SheetRequest(Doc):
    """A mould as it stands in the editor, which is a sheet; how many of each of its cutters are wanted, None: as many as one gives."""

    mould: Mould
    wanted: list[Annotated[int, Field(ge=0, le=5000)]] | None = Field(max_length=12)


@dataclass(frozen=True, slots=True)
class CutPiece:
    """One piece on a sheet: which of its cutters, its outline from the corner of the sheet [m], and whether it is in the last sheet of those
    that are wanted."""

    kind: int
    ring: list[list[float]]
    in_last: bool


@dataclass(frozen=True, slots=True)
class SheetsWanted:
    """How many sheets as many as are wanted take [count], how long the last of them is [m], and which share of all that is poured is in
    pieces [frac]."""

    count: int
    last_m: float
    used_frac: float


@dataclass(frozen=True, slots=True)
class SheetFigures:
    """What is cut out of a sheet: how many by cutter, every piece, and which share of the sheet that is [frac]."""

    counts: list[int]
    pieces: list[CutPiece]
    used_frac: float
    wanted: SheetsWanted | None


def sheet_figures(asked: SheetRequest) -> SheetFigures:
    """A sheet's cutting plan.

    Raises: Missing: it is no sheet. OutOfRange: a cutter larger than it.
    """
    plan = _cutting(asked.mould)
    rings = _rings(asked.mould, plan)
    counts = [plan.count(k) for k in range(len(asked.mould.cavities))]
    wanted = {kind: n for kind, n in enumerate(asked.wanted or ()) if n and kind < len(counts) and counts[kind]}
    sheets = sheets_for(plan, wanted) if wanted else None
    last = set(plan.cuts if sheets is None else sheets.last_cuts)
    pieces = [
        CutPiece(cut.kind, [[round(x, 5), round(y, 5)] for x, y in ring], cut in last)
        for cut, ring in zip(plan.cuts, rings, strict=True)
    ]
    told = None if sheets is None else SheetsWanted(sheets.count, sheets.last_m, sheets.in_pieces / sheets.poured)
    return SheetFigures(counts, pieces, plan.used_frac, told)


def cutting_svg(workshop: Workshop, mould_id: str, mirrored: bool) -> str:
    """A sheet's cutting plan to scale, as SVG. Raises: NotFound, and as its figures."""
    mould = _mould(workshop, mould_id)
    return write_svg(mould.name, _drawn(mould, mirrored))


def cutting_pdf(workshop: Workshop, mould_id: str, mirrored: bool) -> bytes:
    """The same as PDF. Raises: as its SVG."""
    mould = _mould(workshop, mould_id)
    return write_pages(mould.name, _drawn(mould, mirrored))


def _mould(workshop: Workshop, mould_id: str) -> Mould:
    doc = workshop.get("mould", mould_id).doc
    assert isinstance(doc, Mould)
    return doc


def _cutting(mould: Mould) -> CuttingPlan:
    plan = cutting_of(mould)
    if plan is None:
        raise Missing("this is a mould with cavities of its own, not a sheet that is cut", path="mould.sheet")
    return plan


def _rings(mould: Mould, plan: CuttingPlan) -> list[list[tuple[float, float]]]:
    rims = [cavity_fit(of).cavity.shape.rim() for of in mould.cavities]
    return [[(x, y) for x, y in cut_out(rims[cut.kind], cut).exterior.coords] for cut in plan.cuts]


def _drawn(mould: Mould, mirrored: bool) -> Drawn:
    plan = _cutting(mould)
    of = Drawn(plan.sheet.length_m, plan.sheet.width_m, _rings(mould, plan))
    return of.mirrored() if mirrored else of
