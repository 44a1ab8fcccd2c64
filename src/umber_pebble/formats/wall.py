"""Lists for the wall as PDF: what to melt, what to pour."""

import io
from collections.abc import Sequence
from dataclasses import dataclass
from pathlib import Path
from xml.sax.saxutils import escape

from reportlab.lib.colors import HexColor
from reportlab.lib.pagesizes import A4
from reportlab.lib.styles import ParagraphStyle
from reportlab.lib.units import mm
from reportlab.pdfbase.pdfmetrics import getFont, registerFont
from reportlab.pdfbase.ttfonts import TTFont
from reportlab.platypus import KeepTogether, PageBreak, Paragraph, SimpleDocTemplate, Spacer, Table, TableStyle

PLAIN, BOLD = "DejaVuSansCondensed", "DejaVuSansCondensed-Bold"
for _name in (PLAIN, BOLD):
    registerFont(TTFont(_name, str(Path(__file__).parent / "fonts" / f"{_name}.ttf")))
INK, QUIET, LINE = HexColor("#2b1b14"), HexColor("#6d635a"), HexColor("#b9b0a6")
TITLE = ParagraphStyle("title", fontName=BOLD, fontSize=26, leading=30, textColor=INK)
NOTE = ParagraphStyle("note", fontName=PLAIN, fontSize=12, leading=16, textColor=QUIET)
HEAD = ParagraphStyle("head", fontName=BOLD, fontSize=17, leading=22, textColor=INK, spaceBefore=6)
CELL = ParagraphStyle("cell", fontName=PLAIN, fontSize=13, leading=17, textColor=INK)
BIG = ParagraphStyle("big", parent=CELL, fontName=BOLD, fontSize=17, leading=21)
NAMES = ParagraphStyle("names", parent=CELL, fontSize=10, leading=13, textColor=QUIET)


@dataclass(frozen=True, slots=True)
class Block:
    """A headed table: column names, rows of cells, the first cell of each large; a line under it; whether it begins a page."""

    title: str
    columns: tuple[str, ...]
    rows: Sequence[tuple[str, ...]]
    note: str = ""
    new_page: bool = False


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
    written = Written()
    story: list[object] = [written(title, TITLE), written(note, NOTE), Spacer(1, 5 * mm)]
    for block in blocks:
        if block.new_page:
            story.append(PageBreak())
        head = written(block.title, HEAD)
        table = [_table(block, document.width, written)] if block.columns else []
        story.append(KeepTogether([head, *table]))
        if block.note:
            story.append(written(block.note, NOTE))
        story.append(Spacer(1, 4 * mm))
    document.build(story)
    return out.getvalue()


class Written:
    """Texts as paragraphs. What the font has no letters for is told by a number in the order of the list, to be seen on the screen."""

    def __init__(self) -> None:
        self.known: dict[str, int] = {}

    def __call__(self, text: str, style: ParagraphStyle) -> Paragraph:
        return Paragraph(escape(text if has_letters(text) else self._elsewhere(text)), style)

    def _elsewhere(self, text: str) -> str:
        number = self.known.setdefault(text, len(self.known) + 1)
        kept = " ".join(word for word in text.split() if has_letters(word))
        return f"see screen, no. {number}" + (f" ({kept})" if kept else "")


def has_letters(text: str) -> bool:
    """Whether the font of the lists can print a text."""
    glyphs = getFont(PLAIN).face.charToGlyph
    return all(ord(letter) in glyphs for letter in text)


def _table(block: Block, width: float, written: Written) -> Table:
    rows = [[written(name, NAMES) for name in block.columns]]
    rows += [[written(cell, BIG if i == 0 else CELL) for i, cell in enumerate(row)] for row in block.rows]
    first = 0.3 if len(block.columns) > 1 else 1.0
    rest = (1 - first) / max(len(block.columns) - 1, 1)
    table = Table(rows, colWidths=[width * first, *[width * rest] * (len(block.columns) - 1)], hAlign="LEFT")
    table.setStyle(
        TableStyle(
            [
                ("LINEBELOW", (0, 0), (-1, -1), 0.6, LINE),
                ("VALIGN", (0, 0), (-1, -1), "MIDDLE"),
                ("LEFTPADDING", (0, 0), (-1, -1), 0),
            ]
        )
    )
    return table
