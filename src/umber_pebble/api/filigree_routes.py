"""Addresses of drawings that lines are piped over: whether they hold, what mends them, how they are read and put to scale on paper."""

from typing import Any

from umber_pebble.api.http import Api
from umber_pebble.api.schemas import LARGEST_SVG_BODY, OutlineIn, Reply
from umber_pebble.api.to_scale_routes import add_to_scale
from umber_pebble.services import filigree
from umber_pebble.services.workshop import Workshop


class FiligreeReply(Reply):
    figures: filigree.FiligreeFigures


class MendsReply(Reply):
    mends: list[filigree.MendShown]


class LinesReply(Reply):
    lines: list[list[list[float]]]
    wide_m: float
    told: bool
    remarks: list[str]


def add(api: Api, workshop: Workshop) -> None:
    """Addresses of drawings."""

    def figures(body: filigree.FiligreeRequest) -> Any:
        return {"figures": filigree.filigree_figures(workshop, body)}

    def mends(body: filigree.FiligreeRequest) -> Any:
        return {"mends": filigree.filigree_mends(workshop, body)}

    def read(body: OutlineIn) -> Any:
        return filigree.lines_of_svg(body.svg, body.width_m)

    asked = filigree.FiligreeRequest
    api.add("POST", "/api/figures/filigree", figures, body=asked, reply=FiligreeReply, summary="A drawing checked")
    api.add("POST", "/api/figures/filigree/mends", mends, body=asked, reply=MendsReply, summary="What mends it")
    api.add(
        "POST",
        "/api/figures/lines",
        read,
        body=OutlineIn,
        reply=LinesReply,
        summary="The lines of an SVG",
        largest=LARGEST_SVG_BODY,
    )
    add_to_scale(api, workshop, "drawing", "A drawing", filigree.drawing_svg, filigree.drawing_pdf)
