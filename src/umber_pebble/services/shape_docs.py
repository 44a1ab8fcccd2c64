"""The shapes of cavities, of cutters, and of drawings that lines are piped over, as documents have them. SI, names with their unit."""

from typing import Annotated, Literal

from pydantic import Field

from umber_pebble.services.doc_base import Doc, Name, Whole

Size = Annotated[float, Field(ge=0.003, le=0.5)]
Deep = Annotated[float, Field(ge=0.0005, le=0.1)]
Draft = Annotated[float, Field(ge=0, le=1.0472)]
Edge = Annotated[float, Field(ge=0, le=0.1)]
Point = Annotated[list[Annotated[float, Field(ge=-1, le=1)]], Field(min_length=2, max_length=2)]


class RoundShape(Doc):
    """A round cavity; one of diameter and depth may be left to the weight of water."""

    kind: Literal["round"]
    diameter_m: Size | None
    depth_m: Deep | None
    draft_rad: Draft
    edge_m: Edge


class ConeShape(Doc):
    """A cone frustum by its opening and its floor."""

    kind: Literal["cone"]
    diameter_m: Size
    floor_m: Size
    depth_m: Deep


class BarShape(Doc):
    """A rectangle or bar, corners rounded in plan."""

    kind: Literal["bar"]
    length_m: Size
    width_m: Size
    corner_m: float = Field(ge=0, le=0.25)
    depth_m: Deep
    draft_rad: Draft
    edge_m: Edge


class HalfBallShape(Doc):
    kind: Literal["half_ball"]
    diameter_m: Annotated[float, Field(ge=0.003, le=0.2)]


class CapShape(Doc):
    """A spherical cap, no deeper than half its opening."""

    kind: Literal["cap"]
    diameter_m: Size
    depth_m: Deep


class EllipsoidShape(Doc):
    """Half an ellipsoid."""

    kind: Literal["ellipsoid"]
    length_m: Size
    width_m: Size
    depth_m: Deep


class CapsuleShape(Doc):
    """A capsule cut lengthwise, half as deep as wide."""

    kind: Literal["capsule"]
    length_m: Size
    width_m: Annotated[float, Field(ge=0.003, le=0.2)]


class HeartShape(Doc):
    kind: Literal["heart"]
    width_m: Size
    depth_m: Deep
    draft_rad: Draft
    edge_m: Edge


class StarShape(Doc):
    kind: Literal["star"]
    diameter_m: Size
    tips: Whole = Field(ge=3, le=24)
    inner_frac: float = Field(ge=0.2, le=0.95)
    depth_m: Deep
    draft_rad: Draft
    edge_m: Edge


class OutlineShape(Doc):
    """A drawn or imported outline: its corners in order, in metres about its middle."""

    kind: Literal["outline"]
    corners: list[Point] = Field(min_length=3, max_length=4000)
    depth_m: Deep
    draft_rad: Draft
    edge_m: Edge


class DrawnLine(Doc):
    """A line from end to end, in metres; twice: another is piped on it once it has set."""

    points: list[Point] = Field(min_length=2, max_length=4000)
    twice: bool


class LinesShape(Doc):
    """A drawing that lines are piped over, about its middle, and how wide the bag or nozzle is that they are drawn for."""

    kind: Literal["lines"]
    lines: list[DrawnLine] = Field(min_length=1, max_length=1000)
    bore_m: float = Field(ge=0.0008, le=0.012)


Shape = Annotated[
    RoundShape
    | ConeShape
    | BarShape
    | HalfBallShape
    | CapShape
    | EllipsoidShape
    | CapsuleShape
    | HeartShape
    | StarShape
    | OutlineShape
    | LinesShape,
    Field(discriminator="kind"),
]


class Cavity(Doc):
    """One kind of cavity of a mould, and how many of it there are."""

    name: Name
    count: Whole = Field(ge=1, le=200)
    shape: Shape
    water_kg: float | None = Field(ge=0.00001, le=20)
