"""The routes of a piece while it is built."""

from typing import Any

from umber_pebble.api.http import Api
from umber_pebble.api.schemas import Reply
from umber_pebble.services import building, pieces, setting
from umber_pebble.services.piece_docs import Join
from umber_pebble.services.workshop import Workshop


class PartReply(Reply):
    figures: pieces.PartFigures


class Solved(Reply):
    """A pass's thickness, level or gap [m]."""

    value: float


class BaseReply(Reply):
    base: pieces.PartBase


class SetsReply(Reply):
    sets: setting.PartSets


class PassKinds(Reply):
    kinds: list[building.PassKindShown]


class Starts(Reply):
    items: list[building.StartShown]


class AddedReply(Reply):
    added: building.AddedPass


class FirstJoin(Reply):
    join: Join


def add(api: Api, workshop: Workshop) -> None:
    """Put them on the API."""

    def part_figures(body: pieces.PartAsked) -> Any:
        return {"figures": pieces.part_figures(workshop, body)}

    def part_base(body: pieces.BaseAsked) -> Any:
        return {"base": pieces.part_base(workshop, body)}

    def part_sets(body: setting.SettingAsked) -> Any:
        return {"sets": setting.part_sets(workshop, body)}

    def solve_pass(body: pieces.WeightAsked) -> Any:
        return {"value": pieces.solve_pass(workshop, body)}

    def added(body: building.AdditionAsked) -> Any:
        return {"added": building.added(workshop, body)}

    def join(body: building.JoinAsked) -> Any:
        return {"join": building.first_join(body.piece)}

    def kinds() -> Any:
        return {"kinds": building.pass_kinds()}

    def starts() -> Any:
        return {"items": building.starts(workshop)}

    api.add(
        "GET", "/api/passes", kinds, reply=PassKinds, summary="The kinds of passes, and what may be set of each"
    )
    api.add("GET", "/api/starts", starts, reply=Starts, summary="Pieces to start from")
    api.add(
        "POST", "/api/figures/part", part_figures, body=pieces.PartAsked, reply=PartReply, summary="A part's build"
    )
    api.add(
        "POST",
        "/api/figures/pass",
        solve_pass,
        body=pieces.WeightAsked,
        reply=Solved,
        summary="A pass by its weight",
    )
    api.add(
        "POST",
        "/api/figures/addition",
        added,
        body=building.AdditionAsked,
        reply=AddedReply,
        summary="A part with one more pass",
    )
    api.add(
        "POST",
        "/api/figures/join",
        join,
        body=building.JoinAsked,
        reply=FirstJoin,
        summary="One more join of a piece",
    )
    api.add(
        "POST",
        "/api/figures/base",
        part_base,
        body=pieces.BaseAsked,
        reply=BaseReply,
        summary="What a part is cast in, cut open",
    )
    api.add(
        "POST",
        "/api/figures/sets",
        part_sets,
        body=setting.SettingAsked,
        reply=SetsReply,
        summary="How a part's passes set",
    )
