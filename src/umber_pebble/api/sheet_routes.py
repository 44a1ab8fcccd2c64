"""Addresses of sheets that are cut: their cutting plan, on the screen and to scale on paper."""

from typing import Any

from umber_pebble.api.http import Api
from umber_pebble.api.schemas import Reply
from umber_pebble.api.to_scale_routes import add_to_scale
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
    add_to_scale(api, workshop, "cutting", "A cutting plan", sheets.cutting_svg, sheets.cutting_pdf)
    what = "The last sheet for so many of each cutter, as 12-4,"
    add_to_scale(api, workshop, "last-of-{wanted}", what, sheets.cutting_svg, sheets.cutting_pdf)
