"""The shapes of the things people edit, as stored and as sent. SI, names with their unit."""

from typing import Annotated, Any, Literal

from pydantic import Field, model_validator

from umber_pebble.core.plan.problem import MOST_HANDS
from umber_pebble.core.plan.spares import Spares
from umber_pebble.core.texts import Hex
from umber_pebble.services.doc_base import Doc, Id, Name, Utc, Whole, Zone
from umber_pebble.services.kept_timetable import KeptTimetable
from umber_pebble.services.piece_docs import Piece
from umber_pebble.services.shape_docs import Cavity
from umber_pebble.services.sheet_docs import Sheet
from umber_pebble.services.warmers import Warmer
from umber_pebble.services.way_docs import WayDoc, older_ways
from umber_pebble.services.wish_docs import MOST_WISHES, Opening, Roster, WishDoc

HobKind = Literal["electric", "gas", "induction"]
SurfaceKey = Literal["wood", "steel", "granite", "marble", "glass", "trivet", "foam"]
VesselWall = Literal["steel", "copper", "glass", "plastic", "silicone"]
MouldMaterial = Literal[
    "silicone", "aluminium", "polycarbonate", "thermoformed", "steel", "spoon", "acetate", "paper"
]


class Ring(Doc):
    id: Id
    name: Name
    kind: HobKind
    power_w: float = Field(ge=100, le=20_000)


class Microwave(Doc):
    id: Id
    name: Name
    power_w: float = Field(ge=200, le=2000)


class Bath(Doc):
    id: Id
    name: Name
    water_degc: float = Field(ge=45, le=100)


class Place(Doc):
    id: Id
    name: Name
    kind: Literal["room", "fridge", "freezer"]
    fan: bool
    surface: SurfaceKey
    thickness_m: float = Field(ge=0.001, le=0.2)
    surface_degc: float | None = Field(ge=-30, le=60, description="None: as warm as its air")
    air_degc: float | None = Field(ge=-30, le=45, description="None: the room's air")
    moulds: Whole | None = Field(
        ge=1, le=500, description="how many moulds or trays lie there at once; None: enough"
    )

    @model_validator(mode="before")
    @classmethod
    def _older(cls, doc: object) -> object:
        """A place of an older version had room enough."""
        return {"moulds": None, **doc} if isinstance(doc, dict) else doc


class Vessel(Doc):
    id: Id
    name: Name
    made_of: VesselWall
    diameter_m: float = Field(ge=0.06, le=0.6)
    height_m: float = Field(ge=0.03, le=0.6)
    mass_kg: float = Field(ge=0.05, le=15)


class Paces(Doc):
    weigh_s: float = Field(ge=1, le=3600)
    pour_each_s: float = Field(ge=1, le=600)
    bend_each_s: float = Field(ge=1, le=600)
    stick_each_s: float = Field(ge=1, le=600)
    fill_each_s: float = Field(ge=1, le=600)
    join_each_s: float = Field(ge=1, le=600)
    stir_s: float = Field(ge=1, le=120)
    unmould_each_s: float = Field(ge=1, le=600)
    clean_s: float = Field(ge=0, le=7200)
    dry_s: float = Field(ge=0, le=86_400)
    call_before_s: float = Field(ge=0, le=600)

    @model_validator(mode="before")
    @classmethod
    def _older(cls, doc: object) -> object:
        """An older kitchen had no pace for fillings and joins: as long as a bend takes; and its moulds were dry at once."""
        if not isinstance(doc, dict):
            return doc
        missing = {name for name in ("fill_each_s", "join_each_s") if name not in doc and "bend_each_s" in doc}
        return {"dry_s": 0.0, **doc} | dict.fromkeys(missing, doc["bend_each_s"])


class Kitchen(Doc):
    """A kitchen and what is in it; hours: when hands may be in it, at any time where none are told; rosters: of whoever
    is not always there, or does not do everything."""

    name: Name
    zone: Zone
    altitude_m: float = Field(ge=-400, le=4500)
    room_degc: float = Field(ge=5, le=45)
    humidity_frac: float = Field(ge=0.05, le=0.95)
    rings: list[Ring] = Field(min_length=1, max_length=20)
    microwaves: list[Microwave] = Field(max_length=10)
    baths: list[Bath] = Field(max_length=10)
    warmers: list[Warmer] = Field(max_length=10)
    places: list[Place] = Field(min_length=1, max_length=20)
    vessels: list[Vessel] = Field(min_length=1, max_length=40)
    people: list[Name] = Field(min_length=1, max_length=12)
    paces: Paces
    hours: list[Opening] = Field(max_length=28)
    rosters: list[Roster] = Field(max_length=12)

    @model_validator(mode="before")
    @classmethod
    def _older(cls, doc: object) -> object:
        """One of an older version was always open, with everybody there, and kept nothing warm."""
        return {"hours": [], "rosters": [], "warmers": [], **doc} if isinstance(doc, dict) else doc


class Units(Doc):
    temperature: Literal["C", "F"]
    mass: Literal["g", "oz"]
    length: Literal["mm", "in"]
    volume: Literal["ml", "tbsp", "cup"]


class Mat(Doc):
    """What is under a ring or between bars that have no floor of their own."""

    material: Literal["silicone", "aluminium"]
    thickness_m: float = Field(ge=0.0002, le=0.02)


class LooseBase(Doc):
    """The base of a mould that comes off: a film is laid on it, under all cavities."""

    length_m: float = Field(ge=0.03, le=0.8)
    width_m: float = Field(ge=0.03, le=0.8)


class Mould(Doc):
    """A mould, or rings and bars on a mat: then the mat is the floor; or what a sheet is poured on, and what is cut out of it, each kind of
    piece as often as there is room, and at most as often as it is counted."""

    name: Name
    material: MouldMaterial
    wall_m: float = Field(ge=0.00005, le=0.03)
    bears_degc: float = Field(ge=40, le=400)
    owned: Whole = Field(ge=1, le=50)
    cavities: list[Cavity] = Field(min_length=1, max_length=12)
    mat: Mat | None
    detail_m: float | None = Field(ge=0.0002, le=0.02, description="width of its finest detail")
    oiled: bool = Field(description="with the thinnest film of oil")
    sheet: Sheet | None
    base: LooseBase | None

    @model_validator(mode="before")
    @classmethod
    def _older(cls, doc: Any) -> Any:
        """A mould of an older version had no detail measured, was not oiled, was no sheet, and its base was fixed."""
        none = {"detail_m": None, "oiled": False, "sheet": None, "base": None}
        return {**none, **doc} if isinstance(doc, dict) else doc


MOST_LINES, MOST_TOGETHER = 40, 8


class OrderLine(Doc):
    """A piece and how many; spares: as many as the order's confidence asks, no round for spares alone, or all rounds full."""

    piece_id: Id
    quantity: Whole = Field(ge=1, le=5000)
    spares: Spares

    @model_validator(mode="before")
    @classmethod
    def _older(cls, doc: object) -> object:
        """A line of an older version had as many spares as its order's confidence asks."""
        return {"spares": "as_sure", **doc} if isinstance(doc, dict) else doc


class MeltVessel(Doc):
    """Which vessel a melt of an order is made in: a material, with the hex of its colour behind it if it has one."""

    melt: Annotated[str, Field(min_length=1, max_length=80)]
    vessel_id: Id


class Order(Doc):
    """What is wanted by when; ways: how its melts are made, by their family, as usual where none is told; vessels: where a melt is
    not made where its family usually is; people: who is at it, nobody named: one pair of hands; timetable: one
    that was chosen for it; together: orders that are made in the same day with it, by their ids; wishes: of its timetable; begins: as late
    as it may to be ready in time, or as soon as it may."""

    name: Name
    due_at: Utc
    lines: list[OrderLine] = Field(min_length=1, max_length=MOST_LINES)
    vessels: list[MeltVessel] = Field(max_length=40)
    ways: dict[Annotated[str, Field(max_length=40)], WayDoc] = Field(max_length=20)
    confidence_frac: float = Field(ge=0.5, le=0.99)
    reserve_frac: float = Field(ge=0, le=0.5)
    people: list[Name] = Field(max_length=MOST_HANDS)
    timetable: KeptTimetable | None
    together: list[Id] = Field(max_length=MOST_TOGETHER)
    wishes: list[WishDoc] = Field(max_length=MOST_WISHES)
    begins: Literal["late", "soon"]

    @model_validator(mode="before")
    @classmethod
    def _older(cls, doc: object) -> object:
        """One of an older version: its ways by family, its melts where their family usually is, by one pair of hands, by itself, with no wish, as
        late as it may."""
        none: dict[str, object] = {"vessels": [], "people": [], "timetable": None, "together": [], "wishes": []}
        since = {**none, "begins": "late"}
        return older_ways({**since, **doc}) if isinstance(doc, dict) else doc


class SheetRow(Doc):
    """One value of a maker's sheet, in the property's own unit."""

    name: str = Field(min_length=1, max_length=40)
    low: float
    likely: float
    high: float


class OwnMaterial(Doc):
    """A material of the workshop's own: what its maker's sheet says, the rest as a relative of the tables."""

    name: Name
    like: Id
    sheet: list[SheetRow] = Field(max_length=60)


class Colour(Doc):
    """A colour at hand: which dye it is of, water- or oil-based, and how much of the dye a gram of it holds [mg/g]; None until
    it was told or a swatch was laid."""

    name: Name
    dye: Literal["e102", "e104", "e110", "e122", "e124", "e127", "e129", "e131", "e132", "e133", "e142", "e151"]
    kind: Literal["water", "oil"]
    mg_per_g: float | None = Field(ge=0.01, le=1000)


class PaletteColour(Doc):
    name: Name
    hex: Hex
    of: Literal["fat", "sugar"]


class Palette(Doc):
    """Colours that go together in an order, and the dust that will go over them, if any."""

    name: Name
    colours: list[PaletteColour] = Field(max_length=60)
    dust: Hex | None


Slope = Annotated[float, Field(ge=-3, le=3)]


class Probe(Doc):
    """What a channel of a thermometer is called here, and the slopes between which it shows a sample to be well tempered
    [K/min]; None: the usual ones."""

    name: Name
    over_below_k_min: Slope | None
    under_above_k_min: Slope | None

    @model_validator(mode="before")
    @classmethod
    def _older(cls, doc: object) -> object:
        """A probe of an older version had no bands of its own."""
        return {"over_below_k_min": None, "under_above_k_min": None, **doc} if isinstance(doc, dict) else doc


KINDS: dict[str, type[Doc]] = {
    "kitchen": Kitchen,
    "units": Units,
    "mould": Mould,
    "piece": Piece,
    "order": Order,
    "probe": Probe,
    "material": OwnMaterial,
    "colour": Colour,
    "palette": Palette,
}
