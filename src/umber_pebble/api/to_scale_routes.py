"""Addresses of what a mould has to scale on paper: seen from above and from below, as SVG and as PDF."""

from collections.abc import Callable
from typing import Any

from umber_pebble.api.http import Api
from umber_pebble.services.workshop import Workshop

Written = Callable[..., Any]


def add_to_scale(api: Api, workshop: Workshop, name: str, what: str, svg: Written, pdf: Written) -> None:
    """Four addresses of one drawing: name, what it is in words, and what writes it mirrored or not; a part of the name in braces is handed
    on."""
    for suffix, media, written in (("svg", "image/svg+xml", svg), ("pdf", "application/pdf", pdf)):
        for below, mirrored, seen in (("", False, "above"), ("-below", True, "below")):

            def to_scale(id: str, of: Written = written, mirrored: bool = mirrored, **parts: str) -> Any:
                return of(workshop, id, mirrored, *parts.values())

            api.add(
                "GET",
                f"/api/moulds/{{id}}/{name}{below}.{suffix}",
                to_scale,
                reply=media,
                summary=f"{what} to scale, seen from {seen}",
            )
