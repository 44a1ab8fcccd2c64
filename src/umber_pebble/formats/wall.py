"""Lists for the wall as PDF: what to melt, what to pour."""

import io
from collections.abc import Sequence
from dataclasses import dataclass
from xml.sax.saxutils import escape

from reportlab.lib.colors import HexColor
from reportlab.lib.pagesizes import A4
from reportlab.lib.styles import ParagraphStyle
from reportlab.lib.units import mm
from reportlab.platypus import KeepTogether, Paragraph, SimpleDocTemplate, Spacer, Table, TableStyle

INK, QUIET, LINE = HexColor("#2b1b14"), HexColor("#6d635a"), HexColor("#b9b0a6")
TITLE = ParagraphStyle("title", fontName="Helvetica-Bold", fontSize=26, leading=30, textColor=INK)
NOTE = ParagraphStyle("note", fontName="Helvetica", fontSize=12, leading=16, textColor=QUIET)
HEAD = ParagraphStyle("head", fontName="Helvetica-Bold", fontSize=17, leading=22, textColor=INK, spaceBefore=6)
CELL = ParagraphStyle("cell", fontName="Helvetica", fontSize=13, leading=17, textColor=INK)
BIG = ParagraphStyle("big", parent=CELL, fontName="Helvetica-Bold", fontSize=17, leading=21)
NAMES = ParagraphStyle("names", parent=CELL, fontSize=10, leading=13, textColor=QUIET)


@dataclass(frozen=True, slots=True)
class Block:
    """A headed table: column names, rows of cells, the first cell of each large; and a line under it."""

    title: str
    columns: tuple[str, ...]
    rows: Sequence[tuple[str, ...]]
    note: str = ""


def write_list(title: str, note: str, blocks: Sequence[Block]) -> bytes:
    """An A4 list, readable from two metres away."""
    out = io.BytesIO()
    document = SimpleDocTemplate(
        out,
        pagesize=A4,
        leftMargin=16 * mm,
        rightMargin=16 * mm,
        topMargin=16 * mm,
        bottomMargin=16 * mm,
        title=title,
    )
    story: list[object] = [Paragraph(escape(title), TITLE), Paragraph(escape(note), NOTE), Spacer(1, 5 * mm)]
    for block in blocks:
        table = [_table(block, document.width)] if block.columns else []
        story.append(KeepTogether([Paragraph(escape(block.title), HEAD), *table]))
        if block.note:
            story.append(Paragraph(escape(block.note), NOTE))
        story.append(Spacer(1, 4 * mm))
    document.build(story)
    return out.getvalue()


def _table(block: Block, width: float) -> Table:
    rows = [[Paragraph(escape(name), NAMES) for name in block.columns]]
    rows += [
        [Paragraph(escape(cell), BIG if i == 0 else CELL) for i, cell in enumerate(row)] for row in block.rows
    ]
    first = 0.3 if len(block.columns) > 1 else 1.0
    rest = (1 - first) / max(len(block.columns) - 1, 1)
    table = Table(rows, colWidths=[width * first, *[width * rest] * (len(block.columns) - 1)], hAlign="LEFT")
    table.setStyle(
        TableStyle([("LINEBELOW", (0, 0), (-1, -1), 0.6, LINE), ("VALIGN", (0, 0), (-1, -1), "MIDDLE"), ("LEFTPADDING", (0, 0), (-1, -1), 0)])
    )  # fmt: skip
    return table
