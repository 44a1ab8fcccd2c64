"""The routes of a piece while it is built."""

from typing import Any

from umber_pebble.api.http import Api
from umber_pebble.api.schemas import Reply
from umber_pebble.core.pieces.fields import FieldShown
from umber_pebble.core.pieces.joining.base import Join
from umber_pebble.services import building, pieces, setting
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
    body: list[FieldShown]
    join: building.JoinFields
    nozzles: list[building.Nozzle]


class Starts(Reply):
    items: list[building.StartShown]


class AddedReply(Reply):
    added: building.AddedPass


class FirstJoin(Reply):
    join: Join


def add(api: Api, workshop: Workshop) -> None:
    """Put them on the API."""

    def part_figures(body: pieces.PartRequest) -> Any:
        return {"figures": pieces.part_figures(workshop, body)}

    def part_base(body: pieces.BaseRequest) -> Any:
        return {"base": pieces.part_base(workshop, body)}

    def part_sets(body: setting.SettingRequest) -> Any:
        return {"sets": setting.part_sets(workshop, body)}

    def solve_pass(body: pieces.WeightRequest) -> Any:
        return {"value": pieces.solve_pass(workshop, body)}

    def added(body: building.AdditionRequest) -> Any:
        return {"added": building.added(workshop, body)}

    def join(body: building.JoinRequest) -> Any:
        return {"join": building.first_join(body.piece)}

    def kinds() -> Any:
        return {
            "kinds": building.pass_kinds(),
            "body": building.body_fields(),
            "join": building.join_fields(),
            "nozzles": building.nozzles(),
        }

    def starts() -> Any:
        return {"items": building.starts(workshop)}

    api.add(
        "GET",
        "/api/passes",
        kinds,
        reply=PassKinds,
        summary="What may be set of each kind of pass, of a body and of a join",
    )
    api.add("GET", "/api/starts", starts, reply=Starts, summary="Pieces to start from")
    api.add(
        "POST",
        "/api/figures/part",
        part_figures,
        body=pieces.PartRequest,
        reply=PartReply,
        summary="A part's build",
    )
    api.add(
        "POST",
        "/api/figures/pass",
        solve_pass,
        body=pieces.WeightRequest,
        reply=Solved,
        summary="A pass by its weight",
    )
    api.add(
        "POST",
        "/api/figures/addition",
        added,
        body=building.AdditionRequest,
        reply=AddedReply,
        summary="A part with one more pass",
    )
    api.add(
        "POST",
        "/api/figures/join",
        join,
        body=building.JoinRequest,
        reply=FirstJoin,
        summary="One more join of a piece",
    )
    api.add(
        "POST",
        "/api/figures/base",
        part_base,
        body=pieces.BaseRequest,
        reply=BaseReply,
        summary="What a part is cast in, cut open",
    )
    api.add(
        "POST",
        "/api/figures/sets",
        part_sets,
        body=setting.SettingRequest,
        reply=SetsReply,
        summary="How a part's passes set",
    )
