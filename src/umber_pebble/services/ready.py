"""Ready pieces with their moulds: plain shapes in sizes that are usual, to begin with, and to reckon with where nothing is measured yet."""

import json
from dataclasses import dataclass
from typing import Literal

from pydantic import Field

from umber_pebble.services.doc_base import Doc, Id
from umber_pebble.services.documents import Mould
from umber_pebble.services.piece_docs import Piece
from umber_pebble.services.shape_docs import (
    BarShape,
    Cavity,
    HalfBallShape,
    HeartShape,
    RoundShape,
    Shape,
    StarShape,
)
from umber_pebble.services.workshop import Stored, Workshop

ShapeKey = Literal["disc", "heart", "star", "bar", "half_ball"]
ROUNDED_M, DRAFT_RAD = 0.001, 0.0873
WALL_M, BEARS_DEGC = 0.003, 230.0


@dataclass(frozen=True, slots=True)
class Ready:
    """A shape as it is usually sold: its name, how many cavities a mould of it has, how wide and how thick it is cast [m], of what."""

    key: ShapeKey
    name: str
    cavities: int
    across_m: float
    thick_m: float
    material: str


READY: dict[ShapeKey, Ready] = {
    of.key: of
    for of in (
        Ready("disc", "Disc", 12, 0.05, 0.005, "coating"),
        Ready("heart", "Heart", 8, 0.05, 0.008, "coating"),
        Ready("star", "Star", 8, 0.05, 0.006, "coating"),
        Ready("bar", "Bar", 3, 0.12, 0.008, "milk"),
        Ready("half_ball", "Half ball", 6, 0.05, 0.025, "coating"),
    )
}
"""Common practice, no source."""


NARROWEST_M = 0.003
"""No cavity is narrower."""


def _shape(key: ShapeKey, across_m: float, deep_m: float) -> Shape:
    edge = min(ROUNDED_M, deep_m / 4)
    match key:
        case "disc":
            return RoundShape(kind="round", diameter_m=across_m, depth_m=deep_m, draft_rad=DRAFT_RAD, edge_m=edge)
        case "heart":
            return HeartShape(kind="heart", width_m=across_m, depth_m=deep_m, draft_rad=DRAFT_RAD, edge_m=edge)
        case "star":
            return StarShape(
                kind="star",
                diameter_m=across_m,
                tips=5,
                inner_frac=0.5,
                depth_m=deep_m,
                draft_rad=DRAFT_RAD,
                edge_m=edge,
            )
        case "bar":
            return BarShape(
                kind="bar",
                length_m=across_m,
                width_m=max(across_m / 2, NARROWEST_M),
                corner_m=min(0.004, across_m / 10),
                depth_m=deep_m,
                draft_rad=DRAFT_RAD,
                edge_m=edge,
            )
        case "half_ball":
            return HalfBallShape(kind="half_ball", diameter_m=across_m)


def ready_mould(ready: Ready, across_m: float, thick_m: float) -> Mould:
    """A silicone mould of it, deep enough for that thickness."""
    shape = _shape(ready.key, across_m, max(thick_m, 0.002))
    return Mould(
        name=f"{ready.name}s, {round(across_m * 1000)} mm",
        material="silicone",
        wall_m=WALL_M,
        bears_degc=BEARS_DEGC,
        owned=1,
        detail_m=None,
        oiled=False,
        sheet=None,
        base=None,
        cavities=[Cavity(name=ready.name, count=ready.cavities, water_kg=None, shape=shape)],
        mat=None,
    )


def ready_piece(ready: Ready, mould_id: str, thick_m: float, material: str) -> Piece:
    """A plain cast of it."""
    fill = {"kind": "fill", "melt": {"material": material, "colour": None}, "level_m": thick_m}
    part = {
        "name": ready.name,
        "count": 1,
        "mould_id": mould_id,
        "body": None,
        "cavity": 0,
        "passes": [{**fill, "others": [], "stripes_m": None}],
        "bent": False,
        "released": False,
        "seen": "mould",
        "stays": [],
    }
    piece = {"name": ready.name, "parts": [part], "joins": [], "stand": None}
    return Piece.model_validate_json(json.dumps(piece))


class TakeReady(Doc):
    """A ready piece with its mould, to be put into the workshop under these ids; None: as it usually is."""

    mould_id: Id
    piece_id: Id
    shape: ShapeKey
    across_m: float | None = Field(ge=0.005, le=0.2)
    thickness_m: float | None = Field(ge=2e-4, le=0.1)
    material: Id | None


def take_ready(workshop: Workshop, asked: TakeReady) -> Stored:
    """A ready piece put into the workshop with its mould.

    Raises: OutOfRange: a size that cannot be. InUse: an id is taken.
    """
    ready = READY[asked.shape]
    across = asked.across_m or ready.across_m
    thick = asked.thickness_m or usual_thick_m(ready, across)
    mould = ready_mould(ready, across, thick)
    piece = ready_piece(ready, asked.mould_id, thick, asked.material or ready.material)
    _, made = workshop.create_all([("mould", asked.mould_id, mould), ("piece", asked.piece_id, piece)])
    return made


def usual_thick_m(ready: Ready, across_m: float) -> float:
    """How thick it is usually cast, so wide [m]."""
    return across_m / 2 if ready.key == "half_ball" else min(ready.thick_m, across_m / 2)
