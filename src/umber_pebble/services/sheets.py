"""Sheets that are cut: their cutting plan as figures, and to scale on paper."""

import re
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Annotated

from pydantic import Field

from umber_pebble.core.errors import Missing, OutOfRange
from umber_pebble.core.moulds.cutting import CuttingPlan, cut_out
from umber_pebble.core.plan.sheets import Sheets, sheets_for
from umber_pebble.formats.to_scale import Drawn, write_pages, write_svg
from umber_pebble.services.doc_base import Doc
from umber_pebble.services.documents import Mould
from umber_pebble.services.shapes import cutting_of
from umber_pebble.services.workshop import Workshop


class SheetRequest(Doc):
    """A mould as it stands in the editor, which is a sheet; how many of each of its cutters are wanted, None: as many as one gives."""

    mould: Mould
    wanted: list[Annotated[int, Field(ge=0, le=5000)]] | None = Field(max_length=12)


@dataclass(frozen=True, slots=True)
class CutPiece:
    """One piece on a sheet: which of its cutters, and its outline from the corner of the sheet [m]."""

    kind: int
    ring: list[list[float]]


@dataclass(frozen=True, slots=True)
class SheetsWanted:
    """How many sheets as many as are wanted take [count], how long the last of them is [m], what is cut out of that, and which share of all that
    is poured is in pieces [frac]."""

    count: int
    last_m: float
    pieces: list[CutPiece]
    used_frac: float


@dataclass(frozen=True, slots=True)
class SheetFigures:
    """What is cut out of a sheet: how many by cutter, every piece, and which share of the sheet that is [frac]; wanted: the sheets for as many as
    are."""

    counts: list[int]
    pieces: list[CutPiece]
    used_frac: float
    wanted: SheetsWanted | None


def sheet_figures(asked: SheetRequest) -> SheetFigures:
    """A sheet's cutting plan.

    Raises: Missing: it is no sheet. OutOfRange: a cutter larger than it.
    """
    plan = _cutting(asked.mould)
    sheets = _wanted(plan, asked.wanted or [])
    told = None
    if sheets is not None:
        used = sheets.in_pieces / sheets.poured
        told = SheetsWanted(sheets.count, sheets.last_m, _pieces(sheets.last), used)
    return SheetFigures([plan.count(k) for k in range(len(plan.rims))], _pieces(plan), plan.used_frac, told)


def _wanted(plan: CuttingPlan, counts: Sequence[int]) -> Sheets | None:
    """The sheets for so many of each cutter; None where none is wanted that it gives."""
    wanted = {kind: n for kind, n in enumerate(counts[: len(plan.rims)]) if n and plan.count(kind)}
    return sheets_for(plan, wanted) if wanted else None


def cutting_svg(workshop: Workshop, mould_id: str, mirrored: bool, wanted: str = "") -> str:
    """A sheet's cutting plan to scale, as SVG; wanted: of the last sheet for so many of each cutter, as "12-4".

    Raises: NotFound, and as its figures. OutOfRange: no such counts.
    """
    mould = _mould(workshop, mould_id)
    return write_svg(mould.name, _drawn(mould, mirrored, wanted))


def cutting_pdf(workshop: Workshop, mould_id: str, mirrored: bool, wanted: str = "") -> bytes:
    """The same as PDF. Raises: as its SVG."""
    mould = _mould(workshop, mould_id)
    return write_pages(mould.name, _drawn(mould, mirrored, wanted))


def _mould(workshop: Workshop, mould_id: str) -> Mould:
    doc = workshop.get("mould", mould_id).doc
    assert isinstance(doc, Mould)
    return doc


def _cutting(mould: Mould) -> CuttingPlan:
    plan = cutting_of(mould)
    if plan is None:
        raise Missing("this is a mould with cavities of its own, not a sheet that is cut", path="mould.sheet")
    return plan


def _rings(plan: CuttingPlan) -> list[list[tuple[float, float]]]:
    return [[(x, y) for x, y in cut_out(plan.rims[cut.kind], cut).exterior.coords] for cut in plan.cuts]


def _pieces(plan: CuttingPlan) -> list[CutPiece]:
    return [
        CutPiece(cut.kind, [[round(x, 5), round(y, 5)] for x, y in ring])
        for cut, ring in zip(plan.cuts, _rings(plan), strict=True)
    ]


def _drawn(mould: Mould, mirrored: bool, wanted: str) -> Drawn:
    plan = _cutting(mould)
    long_m = plan.sheet.length_m
    if wanted:
        sheets = _wanted(plan, _counts(wanted))
        if sheets is not None:
            plan, long_m = sheets.last, sheets.last_m
    of = Drawn(long_m, plan.sheet.width_m, _rings(plan))
    return of.mirrored() if mirrored else of


def _counts(wanted: str) -> list[int]:
    if not re.fullmatch(r"\d{1,4}(-\d{1,4}){0,11}", wanted):
        raise OutOfRange("write how many of each cutter, as 12-4", path="wanted", got=wanted[:40])
    return [int(n) for n in wanted.split("-")]
