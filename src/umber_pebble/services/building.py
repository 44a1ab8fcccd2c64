"""What a build is made from: the kinds of passes there are, a first pass of each, a first join, and pieces to start from."""

from dataclasses import dataclass
from typing import Literal

from umber_pebble.core.errors import OutOfRange
from umber_pebble.core.families.known import family_of
from umber_pebble.core.materials.load import material, materials
from umber_pebble.core.moulds.traced import traced_of
from umber_pebble.core.pieces.dipped import Dipped
from umber_pebble.core.pieces.fields import FieldShown, fields_of, kind_of
from umber_pebble.core.pieces.joining.base import Join, JoinBy
from umber_pebble.core.pieces.joining.known import JOIN_KINDS
from umber_pebble.core.pieces.melt_ref import MeltRef
from umber_pebble.core.pieces.passes.base import Edge, First, Ground, LayStyle
from umber_pebble.core.pieces.passes.known import KINDS, Kind
from umber_pebble.core.pieces.starts import STARTS, Start, StartKey
from umber_pebble.core.pieces.usual import usual_order
from umber_pebble.core.spread import Spread
from umber_pebble.services.doc_base import Doc
from umber_pebble.services.documents import Kitchen, Mould
from umber_pebble.services.piece_docs import MOST_PASSES, Part, Piece
from umber_pebble.services.shapes import mould_case, shape_of
from umber_pebble.services.workshop import KITCHEN_ID, Workshop

MELT = MeltRef("coating", None)
ANY = First(MELT, 1.0, 20.0)
"""In which ways a kind is offered goes by none of it."""
HAND_M = 0.01
"""What is modelled by hand goes by no depth [m]."""
HELD_BY_HAND = 2
"""More joins than this are held by props."""


@dataclass(frozen=True, slots=True)
class PassKindShown:
    """A kind of pass as an editor knows it: into or onto what it goes; the ways in which it is offered, None the usual one; its fields;
    which of them a weight or volume is turned into; its edge that is dragged; whether it is drawn grainy; whether it is put on
    once the piece is out of its mould."""

    kind: Kind
    on: tuple[Ground, ...]
    ways: list[LayStyle | None]
    fields: list[FieldShown]
    solved_by: str | None
    edge: Edge | None
    grainy: bool
    after: bool


@dataclass(frozen=True, slots=True)
class JoinKindShown:
    """A way to join, and what of a join it does not take."""

    by: JoinBy
    left_out: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class JoinFields:
    """What may be set of a join, and the ways to join there are."""

    fields: list[FieldShown]
    kinds: list[JoinKindShown]


@dataclass(frozen=True, slots=True)
class Nozzle:
    """A round nozzle by its number, and how wide it is [m]."""

    name: str
    bore_m: Spread


def nozzles() -> list[Nozzle]:
    """The round nozzles that are known by number. Source: from-memory"""
    return [Nozzle(of.name, of.spread("bore")) for of in materials("kitchen", "nozzle").values()]


def body_fields() -> list[FieldShown]:
    """What may be set of a body that is dipped."""
    return list(fields_of(Dipped))


def join_fields() -> JoinFields:
    """What may be set of a join."""
    return JoinFields(list(fields_of(Join)), [JoinKindShown(by, kind.LEFT_OUT) for by, kind in JOIN_KINDS.items()])


def pass_kinds() -> list[PassKindShown]:
    """All kinds of passes, in the order in which they are offered."""
    return [
        PassKindShown(
            kind_of(of),
            of.ON,
            list(of.firsts(ANY)),
            list(fields_of(of)),
            of.SOLVED_BY,
            of.EDGE,
            of.GRAINY,
            of.AFTER,
        )
        for of in KINDS
    ]


class AdditionRequest(Doc):
    """A pass to be added to a part."""

    part: Part
    kind: Kind
    way: LayStyle | None


@dataclass(frozen=True, slots=True)
class AddedPass:
    """A part with the pass, and which it is."""

    part: Part
    index: int


def added(workshop: Workshop, asked: AdditionRequest) -> AddedPass:
    """A part with one more pass as it is usually laid first, where it belongs among the others.

    Raises: OutOfRange: no such way, or one too many. NotFound: the mould.
    """
    part = asked.part
    if len(part.passes) >= MOST_PASSES:
        raise OutOfRange(
            f"a part has {MOST_PASSES} passes at most: make another part of what comes next", path="part.passes"
        )
    [kind] = [of for of in KINDS if kind_of(of) == asked.kind]
    firsts = kind.firsts(First(_last_melt(part), _depth_m(workshop, part), _room_degc(workshop)))
    if asked.way not in firsts:
        raise OutOfRange("this is not laid in such a way", path="way", got=asked.way)
    passes = [*part.passes, firsts[asked.way]]
    order = usual_order(passes)
    more = part.model_copy(update={"passes": [passes[i] for i in order]})
    return AddedPass(more, order.index(len(passes) - 1))


def _last_melt(part: Part) -> MeltRef:
    return next(iter(part.melts[::-1]), MELT)


def _room_degc(workshop: Workshop) -> float:
    kitchen = workshop.get("kitchen", KITCHEN_ID).doc
    assert isinstance(kitchen, Kitchen)
    return kitchen.room_degc


def _depth_m(workshop: Workshop, part: Part) -> float:
    """Of the cavity, or the body, it is in or on [m]."""
    if part.body is not None:
        return part.body.high_m
    if part.by_hand:
        return HAND_M
    mould = workshop.get("mould", part.mould_id or "").doc
    assert isinstance(mould, Mould)
    return mould_case(part.mould_id or "", mould, part.cavity).cavity.depth_m


class JoinRequest(Doc):
    """A piece that gets one more join."""

    piece: Piece


def first_join(piece: Piece) -> Join:
    """Of its first part to the next, or to others like it: of halves along their rim, of panels along their sides; more than two are
    held by props."""
    part = piece.parts[0]
    many = part.count > HELD_BY_HAND
    return Join(
        part=0,
        to=min(len(piece.parts) - 1, 1),
        by="melt",
        melt=_last_melt(part),
        count=part.count if many else 1,
        seam_m=0.1,
        dots=0,
        bead_m=0.004,
        gap_m=0.0,
        deep_m=0.0,
        props=HELD_BY_HAND if many else 0,
    )


@dataclass(frozen=True, slots=True)
class StartShown:
    """A way of casting to start from, and the piece it makes in this workshop, named by its key."""

    key: StartKey
    piece: Piece


def starts(workshop: Workshop) -> list[StartShown]:
    """The ways of making to start from, each in the mould that suits it best; those in a mould only where there is one
    that is no sheet."""
    moulds = {of.id: of.doc for of in workshop.all("mould") if isinstance(of.doc, Mould) and of.doc.sheet is None}
    room_degc, shown = _room_degc(workshop), list[StartShown]()
    for of in STARTS:
        on = of.passes[0].ON
        fit = {key: mould for key, mould in moulds.items() if ground_of(mould, 0) in on}
        if of.body or fit or on == ("hand",):
            shown.append(StartShown(of.key, _piece(of, fit, room_degc)))
    return shown


def ground_of(mould: Mould, kind: int) -> Ground:
    """What one of a mould's cavities is to a pass: something to be filled, or a drawing."""
    return "mould" if traced_of(shape_of(mould.cavities[kind])) is None else "drawing"


def _piece(start: Start, moulds: dict[str, Mould], room_degc: float) -> Piece:
    body = _body(start.body, room_degc) if start.body else None
    mould_id = _mould_for(start, moulds) if moulds and not body else None
    depth_m = body.high_m if body else HAND_M if mould_id is None else _deep(mould_id, moulds[mould_id])
    first = First(MeltRef(start.melt, None), depth_m, room_degc)
    part = Part(
        name=start.key,
        count=start.count,
        mould_id=mould_id,
        body=body,
        seen="mould",
        cavity=0,
        passes=[of.firsts(first)[None] for of in start.passes],
        bent=start.bent,
        released=start.bent,
        stays=[],
    )
    piece = Piece(name=start.key, parts=[part], joins=[], stand=None)
    return piece.model_copy(update={"joins": [first_join(piece)]}) if start.joined else piece


def _body(of: Literal["fruit", "balloon"], room_degc: float) -> Dipped:
    if of == "fruit":
        return Dipped(
            name="Strawberry", made_of=of, shape="cone", diameter_m=0.034, high_m=0.042, degc=room_degc, tray=20
        )
    return Dipped(name="Balloon", made_of=of, shape="ball", diameter_m=0.08, high_m=0.09, degc=room_degc, tray=8)


def _mould_for(start: Start, moulds: dict[str, Mould]) -> str:
    """The first, or the shallowest, with a cavity of such a shape first; any where there is none; as far as there is one that bears its melt."""
    bears = [key for key, of in moulds.items() if _bears(of, start.melt)] or list(moulds)
    fit = [key for key in bears if not start.shapes or moulds[key].cavities[0].shape.kind in start.shapes]
    choose = fit or bears
    return min(choose, key=lambda key: _deep(key, moulds[key])) if start.shallow else choose[0]


def _bears(mould: Mould, key: str) -> bool:
    melt = material("melts", key)
    return family_of(melt).coolest_degc(melt) <= mould.bears_degc


def _deep(key: str, mould: Mould) -> float:
    return mould_case(key, mould, 0).cavity.depth_m
