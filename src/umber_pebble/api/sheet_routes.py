"""Addresses of sheets that are cut: their cutting plan, on the screen and to scale on paper."""

from typing import Any

from umber_pebble.api.http import Api
from umber_pebble.api.schemas import Reply
from umber_pebble.services import sheets
from umber_pebble.services.workshop import Workshop


class SheetReply(Reply):
    figures: sheets.SheetFigures


def add(api: Api, workshop: Workshop) -> None:
    """Addresses of sheets."""

    def figures(body: sheets.SheetRequest) -> Any:
        return {"figures": sheets.sheet_figures(body)}

    api.add(
        "POST", "/api/figures/sheet", figures, body=sheets.SheetRequest, reply=SheetReply, summary="A cutting plan"
    )
    svg, pdf = "image/svg+xml", "application/pdf"
    for name, mirrored, seen in (("cutting", False, "above"), ("cutting-below", True, "below")):
        for suffix, media, written in (("svg", svg, sheets.cutting_svg), ("pdf", pdf, sheets.cutting_pdf)):

            def to_scale(id: str, of: Any = written, mirrored: bool = mirrored) -> Any:
                return of(workshop, id, mirrored)

            api.add(
                "GET",
                f"/api/moulds/{{id}}/{name}.{suffix}",
                to_scale,
                reply=media,
                summary=f"A cutting plan to scale, seen from {seen}",
            )
