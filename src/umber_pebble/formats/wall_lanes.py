"""A timetable for the wall as PDF: its lanes drawn, then what the hands do one after the other."""

import io
import itertools
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from typing import Literal

from reportlab.graphics.shapes import Drawing, Line, Rect, String
from reportlab.lib.colors import Color, HexColor
from reportlab.lib.pagesizes import A4, landscape
from reportlab.lib.units import mm
from reportlab.platypus import PageBreak, SimpleDocTemplate, Spacer, Table, TableStyle

from umber_pebble.formats.wall import BOLD, CELL, INK, LINE, NAMES, NOTE, PLAIN, QUIET, TITLE, Written

PaperRole = Literal["busy", "pressed", "away", "heats", "waits", "open", "holds"]
MARGIN, NAME_MM, ROW_MM, HEAD_MM, BAR_MM = 12 * mm, 44.0, 9.0, 7.0, 5.4
ROWS_ON_A_PAGE = 15
LEAST_LETTERS_MM = 1.7
STEPS_S = (900.0, 1800.0, 3600.0, 7200.0, 14400.0)
MOST_MARKS = 14
NIGHT_S = 900.0
"""A night is drawn as if it were so long [s]."""
KEY = "Black: hands. Grey: on the heat. Thin: waits, sets. Pale: may be poured, may be turned out; dashed: not sure any more."
DARK, GREY, PALE = HexColor("#2b1b14"), HexColor("#8d847b"), HexColor("#e4dfd8")


@dataclass(frozen=True, slots=True)
class PaperSpan:
    """From then until then, at the earliest and at the latest [s]; what it is, and a word for it."""

    start_s: float
    low_s: float
    high_s: float
    role: PaperRole
    word: str


@dataclass(frozen=True, slots=True)
class PaperLane:
    """A row: its name and a note under it."""

    name: str
    note: str
    spans: Sequence[PaperSpan]


def write_lanes(
    title: str,
    note: str,
    lanes: Sequence[PaperLane],
    tasks: Sequence[tuple[str, str, str]],
    clock: Callable[[float], str],
) -> bytes:
    """An A4 timetable, lying: grey and black only, so that any printer does; busy and waiting told apart by height, nights drawn short."""
    out, written = io.BytesIO(), Written()
    document = SimpleDocTemplate(
        out,
        pagesize=landscape(A4),
        leftMargin=MARGIN,
        rightMargin=MARGIN,
        topMargin=MARGIN,
        bottomMargin=MARGIN,
        title=title,
    )
    away = {(span.start_s, span.high_s) for span in lanes[0].spans if span.role == "away"}
    marks = [
        min(span.start_s for lane in lanes for span in lane.spans),
        *itertools.chain(*sorted(away)),
        max(span.high_s for lane in lanes for span in lane.spans),
    ]
    stretches = list(zip(marks[::2], marks[1::2], strict=True))
    story: list[object] = [written(title, TITLE), written(note, NOTE), written(KEY, NAMES), Spacer(1, 3 * mm)]
    for start in range(0, len(lanes), ROWS_ON_A_PAGE):
        if start:
            story.append(PageBreak())
        story.append(_drawn(lanes[start : start + ROWS_ON_A_PAGE], document.width, stretches, clock))
    story += [PageBreak(), _list(tasks, document.width, written)]
    document.build(story)
    return out.getvalue()


def _drawn(
    lanes: Sequence[PaperLane],
    width: float,
    stretches: Sequence[tuple[float, float]],
    clock: Callable[[float], str],
) -> Drawing:
    """Stretches: from when to when somebody is there [s]; what lies between is drawn short."""
    left, high = NAME_MM * mm, (HEAD_MM + ROW_MM * len(lanes)) * mm
    drawing = Drawing(width, high)
    nights = [(end, start) for (_, end), (start, _) in itertools.pairwise(stretches)]

    def drawn(at_s: float) -> float:
        left_out = (max(1 - NIGHT_S / (b - a), 0.0) * max(min(at_s, b) - a, 0.0) for a, b in nights)
        return at_s - stretches[0][0] - sum(left_out)

    lasts = drawn(stretches[-1][1])

    def x(at_s: float) -> float:
        return float(left + drawn(at_s) / lasts * (width - left))

    every = next((s for s in STEPS_S if lasts / s <= MOST_MARKS), STEPS_S[-1])
    for at in (start + n * every for start, end in stretches for n in range(int((end - start) / every) + 1)):
        drawing.add(Line(x(at), 0, x(at), high - 5 * mm, strokeColor=LINE, strokeWidth=0.4))
        drawing.add(String(x(at) + 2, high - 4 * mm, clock(at), fontName=PLAIN, fontSize=9, fillColor=QUIET))
    for row, lane in enumerate(lanes):
        floor = high - (HEAD_MM + ROW_MM * (row + 1)) * mm
        drawing.add(Line(0, floor, width, floor, strokeColor=LINE, strokeWidth=0.4))
        drawing.add(String(0, floor + 4.6 * mm, _cut(lane.name, 24), fontName=BOLD, fontSize=9.5, fillColor=INK))
        drawing.add(
            String(0, floor + 1.4 * mm, _cut(lane.note, 34), fontName=PLAIN, fontSize=7.5, fillColor=QUIET)
        )
        for span in lane.spans:
            _bar(drawing, span, x, floor)
    return drawing


def _bar(drawing: Drawing, span: PaperSpan, x: Callable[[float], float], floor: float) -> None:
    tall = BAR_MM * mm if span.role not in ("waits", "away") else 1.4 * mm
    bottom = floor + (ROW_MM * mm - tall) / 2
    fills: dict[PaperRole, Color | None] = {
        "busy": DARK,
        "pressed": DARK,
        "away": PALE,
        "heats": GREY,
        "waits": GREY,
        "open": PALE,
        "holds": PALE,
    }
    start, sure, end = x(span.start_s), x(span.low_s), x(span.high_s)
    drawing.add(
        Rect(
            start,
            bottom,
            max(sure - start, 0.6),
            tall,
            fillColor=fills[span.role],
            strokeColor=DARK if span.role == "pressed" else None,
            strokeWidth=1.2,
        )
    )
    if end > sure:
        # from here on it may be over
        drawing.add(
            Rect(
                sure,
                bottom,
                end - sure,
                tall,
                fillColor=None,
                strokeColor=GREY,
                strokeWidth=0.5,
                strokeDashArray=[2, 2],
            )
        )
    if span.word and span.role != "waits" and end - start > len(span.word) * LEAST_LETTERS_MM * mm + 4:
        pale = span.role in ("busy", "pressed")
        drawing.add(
            String(
                start + 2,
                bottom + tall / 2 - 2.6,
                span.word,
                fontName=BOLD if span.role == "pressed" else PLAIN,
                fontSize=8,
                fillColor=HexColor("#ffffff") if pale else INK,
            )
        )


def _cut(text: str, letters: int) -> str:
    return text if len(text) <= letters else f"{text[: letters - 1].rstrip()}…"


def _list(tasks: Sequence[tuple[str, str, str]], width: float, written: Written) -> Table:
    """What the hands do, in two columns, to be ticked off."""
    half = (len(tasks) + 1) // 2
    rows = [[written(name, NAMES) for name in ("when", "what", "of what") * 2]]
    for i in range(half):
        both = [*tasks[i], *(tasks[half + i] if half + i < len(tasks) else ("", "", ""))]
        rows.append([written(cell, CELL) for cell in both])
    parts = (0.07, 0.13, 0.3) * 2
    table = Table(rows, colWidths=[width * part for part in parts], repeatRows=1, hAlign="LEFT")
    table.setStyle(
        TableStyle(
            [
                ("LINEBELOW", (0, 0), (-1, -1), 0.4, LINE),
                ("VALIGN", (0, 0), (-1, -1), "MIDDLE"),
                ("LEFTPADDING", (0, 0), (-1, -1), 0),
                ("TOPPADDING", (0, 0), (-1, -1), 1),
                ("BOTTOMPADDING", (0, 0), (-1, -1), 1),
            ]
        )
    )
    return table
