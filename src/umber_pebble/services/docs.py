"""The shapes of the things people edit, as stored and as sent. SI, names with their unit."""

from datetime import UTC, datetime
from typing import Annotated, Literal
from zoneinfo import ZoneInfo, ZoneInfoNotFoundError

from pydantic import AfterValidator, BaseModel, BeforeValidator, ConfigDict, Field


class Doc(BaseModel):
    """Strict: no unknown field, no number that is not finite, no silent conversion."""

    model_config = ConfigDict(extra="forbid", strict=True, allow_inf_nan=False)


def _zone(name: str) -> str:
    try:
        return str(ZoneInfo(name))
    except (ZoneInfoNotFoundError, ValueError, OSError) as error:
        raise ValueError("not a known time zone") from error


def _utc(value: datetime) -> datetime:
    if value.tzinfo is None:
        raise ValueError("a time needs its zone")
    return value.astimezone(UTC)


def _whole(value: object) -> object:
    return int(value) if isinstance(value, float) and value.is_integer() else value


Whole = Annotated[int, BeforeValidator(_whole)]
Name = Annotated[str, Field(min_length=1, max_length=60, pattern=r"\S")]
Id = Annotated[str, Field(min_length=1, max_length=40, pattern=r"^[A-Za-z0-9_-]+$")]
Zone = Annotated[str, AfterValidator(_zone)]
Utc = Annotated[datetime, Field(strict=False), AfterValidator(_utc)]


class Ring(Doc):
    id: Id
    name: Name
    kind: Literal["electric", "gas", "induction"]
    power_w: float = Field(ge=100, le=20_000)


class Microwave(Doc):
    id: Id
    name: Name
    power_w: float = Field(ge=200, le=3000)


class Bath(Doc):
    id: Id
    name: Name
    water_degc: float = Field(ge=45, le=100)


class Place(Doc):
    id: Id
    name: Name
    kind: Literal["room", "fridge", "freezer"]
    fan: bool
    surface: Literal["wood", "steel", "granite", "marble", "glass", "trivet"]
    thickness_m: float = Field(ge=0.001, le=0.2)
    surface_degc: float | None = Field(ge=-30, le=60, description="None: as warm as its air")
    air_degc: float | None = Field(ge=-30, le=45, description="None: the room's air")


class Vessel(Doc):
    id: Id
    name: Name
    made_of: Literal["steel", "copper", "glass", "plastic"]
    diameter_m: float = Field(ge=0.06, le=0.6)
    height_m: float = Field(ge=0.03, le=0.6)
    mass_kg: float = Field(ge=0.05, le=15)


class Paces(Doc):
    weigh_s: float = Field(ge=1, le=3600)
    pour_each_s: float = Field(ge=1, le=600)
    bend_each_s: float = Field(ge=1, le=600)
    stick_each_s: float = Field(ge=1, le=600)
    stir_s: float = Field(ge=1, le=120)
    unmould_each_s: float = Field(ge=1, le=600)
    clean_s: float = Field(ge=0, le=7200)
    call_before_s: float = Field(ge=0, le=600)


class Kitchen(Doc):
    name: Name
    zone: Zone
    altitude_m: float = Field(ge=-400, le=4500)
    room_degc: float = Field(ge=5, le=45)
    humidity_frac: float = Field(ge=0.05, le=0.95)
    rings: list[Ring] = Field(min_length=1, max_length=20)
    microwaves: list[Microwave] = Field(max_length=10)
    baths: list[Bath] = Field(max_length=10)
    places: list[Place] = Field(min_length=1, max_length=20)
    vessels: list[Vessel] = Field(min_length=1, max_length=40)
    people: list[Name] = Field(min_length=1, max_length=12)
    paces: Paces


class Units(Doc):
    temperature: Literal["C", "F"]
    mass: Literal["g", "oz"]
    length: Literal["mm", "in"]
    volume: Literal["ml", "tbsp", "cup"]


class Mould(Doc):
    name: Name
    material: Literal["silicone", "aluminium", "polycarbonate", "thermoformed"]
    wall_m: float = Field(ge=0.0002, le=0.03)
    bears_degc: float = Field(ge=40, le=400)
    cavities: Whole = Field(ge=1, le=200)
    owned: Whole = Field(ge=1, le=50)
    diameter_m: float | None = Field(ge=0.003, le=0.5)
    depth_m: float | None = Field(ge=0.0005, le=0.1)
    draft_rad: float = Field(ge=0, le=1.0472)
    water_kg: float | None = Field(ge=0.00001, le=20)


class Stick(Doc):
    diameter_m: float = Field(ge=0.001, le=0.02)
    inside_m: float = Field(ge=0.002, le=0.3)


class Piece(Doc):
    name: Name
    material: Literal["isomalt", "coating"]
    mould_id: Id
    fill_m: float = Field(ge=0.0002, le=0.1)
    work: Literal["none", "bend", "stick"]
    stick: Stick | None = Field(description="None: no stick")


class Line(Doc):
    piece_id: Id
    quantity: Whole = Field(ge=1, le=5000)


class IsomaltWay(Doc):
    """How an order's isomalt is cooked, and where its moulds lie."""

    vessel_id: Id
    stand_id: Id
    ring_id: Id
    place_id: Id
    crystalline: bool
    water: Literal["auto", "dry", "wet"]
    cook_degc: float = Field(ge=140, le=180)


class CoatingWay(Doc):
    """How an order's coating is melted (by a microwave or a bath of the kitchen), where it is poured and where it sets."""

    vessel_id: Id
    stand_id: Id
    by_id: Id
    place_id: Id
    melt_to_degc: float = Field(ge=36, le=50)


class Order(Doc):
    name: Name
    due_at: Utc
    lines: list[Line] = Field(min_length=1, max_length=40)
    isomalt: IsomaltWay
    coating: CoatingWay
    confidence_frac: float = Field(ge=0.5, le=0.99)
    reserve_frac: float = Field(ge=0, le=0.5)


KINDS: dict[str, type[Doc]] = {"kitchen": Kitchen, "units": Units, "mould": Mould, "piece": Piece, "order": Order}
