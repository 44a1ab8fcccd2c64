"""Replies and requests. Core's own dataclasses are used as they are wherever they can be sent."""

from datetime import datetime
from typing import Generic, Literal, TypeVar

from pydantic import BaseModel, ConfigDict, Field

from umber_pebble.core.bench.values import Index
from umber_pebble.services import (
    access,
    explored,
    planning,
    probes,
    properties,
)
from umber_pebble.services.doc_base import Doc, Id, Name
from umber_pebble.services.documents import Colour, Kitchen, Mould, Order, OwnMaterial, Palette, Units
from umber_pebble.services.piece_docs import Piece
from umber_pebble.services.shape_docs import Cavity
from umber_pebble.services.way_docs import WayDoc
from umber_pebble.services.workshop import Unread

T = TypeVar("T", bound=Doc)


class Reply(BaseModel):
    """Base of replies."""

    model_config = ConfigDict(from_attributes=True)


class Stored(Reply, Generic[T]):
    """A thing with its id and version."""

    id: str
    version: int
    doc: T


class StoredKitchen(Stored[Kitchen]):
    pass


class StoredUnits(Stored[Units]):
    pass


class StoredMould(Stored[Mould]):
    pass


class StoredPiece(Stored[Piece]):
    pass


class StoredOrder(Stored[Order]):
    pass


class StoredColour(Stored[Colour]):
    pass


class StoredPalette(Stored[Palette]):
    pass


class PaletteList(Reply):
    items: list[StoredPalette]


class ColourList(Reply):
    items: list[StoredColour]


class StoredMaterial(Stored[OwnMaterial]):
    pass


class MaterialList(Reply):
    items: list[StoredMaterial]


class MouldList(Reply):
    items: list[StoredMould]


class PieceList(Reply):
    items: list[StoredPiece]


class OrderList(Reply):
    items: list[StoredOrder]


class Create(Doc, Generic[T]):
    """A new thing under an id made by the client."""

    id: Id
    doc: T


class Save(Doc, Generic[T]):
    """The next version of a thing, edited from a version."""

    version: int
    doc: T


class Remove(Doc):
    version: int


class Done(Reply):
    ok: bool


class CavityMeasure(Doc):
    """A kind of cavity, what is under it, and where it is cut: -1 near edge, 0 middle, 1 far edge."""

    cavity: Cavity
    wall_m: float = Field(ge=0.00005, le=0.03)
    cut_frac: float = Field(ge=-1, le=1)


class CavityMeasured(Reply):
    figures: planning.CavityFigures


class HeatExplored(Reply):
    items: list[explored.Explored]


class Properties(Reply):
    groups: list[properties.Group]


LARGEST_SVG_BODY = 6_000_000


class OutlineIn(Doc):
    """The text of an SVG file or of one path, and the width to scale it to."""

    svg: str = Field(max_length=5_000_000)
    width_m: float | None


class OutlineRead(Reply):
    """Corners about their middle [m], and what was mended."""

    corners: list[list[float]]
    remarks: list[str]


class Ways(Reply):
    """Ways by family; how sure an order usually is to be, and its reserve [frac]."""

    ways: dict[str, WayDoc]
    confidence_frac: float
    reserve_frac: float


class Kept(Reply):
    """Where everything lies, how large the database is [bytes], and how old the newest backup is [s], None where there is none;
    old: it is time for another."""

    folder: str
    database_bytes: int
    backups: int
    newest_backup_s: float | None
    old: bool


class UnreadList(Reply):
    """What lies in the store and this version cannot read."""

    items: list[Unread]


class ReadingsIn(Doc):
    """A CSV file of readings (docs/files.md), and who brings it."""

    csv: str = Field(max_length=10_000_000)
    actor: Name
    device: Name


class Added(Reply):
    """How many were new."""

    added: int


class BroughtIn(Reply):
    """The backup of what was there before."""

    backup: str


class ProbedIn(Doc):
    """What has a temperature: a vessel by its cook, a round, a sample in a cup; numbers from 0."""

    of: Literal["pot", "round", "sample"]
    number: Index


class ProbeAssign(Doc):
    """What a probe is put into, or null for nothing."""

    subject: ProbedIn | None


class ProbeList(Reply):
    """The bridge, and its channels."""

    bridge: str
    items: list[probes.ProbeView]


class Nothing(Doc):
    """An empty object."""


class PairIn(Doc):
    """The code shown on the main machine, and what this device is called."""

    code: str = Field(max_length=12)
    name: Name


class DeviceName(Doc):
    name: Name


class DeviceList(Reply):
    """Where other devices find the app (none: not on the network), and those that are paired."""

    addresses: list[str]
    here: bool
    items: list[access.DeviceView]


class PairingCode(Reply):
    """A code to be typed on the device, and how long it counts [s]."""

    code: str
    lasts_s: float


class ClockNow(Reply):
    """The server's clock; ahead_s: by how much it is ahead of its machine's [s]."""

    now: datetime
    rate: float
    driven: bool
    ahead_s: float


class DriveClock(Doc):
    """Move a driven clock on, and set how fast it runs (0 = stands)."""

    advance_s: float = Field(ge=0, le=10_000_000)
    rate: float | None = Field(ge=0, le=1000)
