"""Ways of casting to start a piece from."""

from dataclasses import dataclass
from typing import Literal

from umber_pebble.core.pieces.passes.base import PassKind
from umber_pebble.core.pieces.passes.close import Close
from umber_pebble.core.pieces.passes.cluster import Cluster
from umber_pebble.core.pieces.passes.detail import Detail
from umber_pebble.core.pieces.passes.dip import Dip
from umber_pebble.core.pieces.passes.drizzle import Drizzle
from umber_pebble.core.pieces.passes.dust import Dust
from umber_pebble.core.pieces.passes.fill import Fill
from umber_pebble.core.pieces.passes.filling import Filling
from umber_pebble.core.pieces.passes.lines import Lines
from umber_pebble.core.pieces.passes.paste import Paste
from umber_pebble.core.pieces.passes.rope import Rope
from umber_pebble.core.pieces.passes.shell import Shell
from umber_pebble.core.pieces.passes.stick import Stick
from umber_pebble.core.pieces.passes.turned import Turned

StartKey = Literal[
    "solid",
    "motif",
    "lollipop",
    "pop",
    "shell",
    "ball",
    "panels",
    "leaf",
    "fruit",
    "former",
    "cluster",
    "pressed",
    "filigree",
    "modelled",
]
FLAT, DEEP = ("round", "heart", "star"), ("ellipsoid", "capsule", "cap", "half_ball")


@dataclass(frozen=True, slots=True)
class Start:
    """The passes of its part, in their order; of which melt; in a mould of which shapes, none: any, and the shallowest of them where that is wanted, or on which body; how many parts a piece
    takes, joined to one another, and whether they are released warm and bent."""

    key: StartKey
    passes: tuple[type[PassKind], ...]
    melt: str
    shapes: tuple[str, ...] = FLAT
    shallow: bool = False
    body: Literal["fruit", "balloon"] | None = None
    count: int = 1
    joined: bool = False
    bent: bool = False


STARTS = (
    Start("solid", (Fill,), "isomalt"),
    Start("motif", (Detail, Detail, Fill), "coating"),
    Start("lollipop", (Fill, Stick), "coating"),
    Start("pop", (Detail, Shell, Stick, Filling, Close), "coating", DEEP),
    Start("shell", (Detail, Shell, Filling, Close), "dark", DEEP),
    Start("ball", (Turned,), "coating", ("half_ball",)),
    Start("panels", (Fill,), "isomalt", ("bar",), shallow=True, count=8, joined=True),
    Start("leaf", (Fill,), "isomalt", (), shallow=True, bent=True),
    Start("fruit", (Dip, Drizzle), "coating", body="fruit"),
    Start("former", (Dip, Dip), "coating", body="balloon"),
    Start("cluster", (Cluster, Dust), "dark", ("bar",)),
    Start("pressed", (Paste,), "coating"),
    Start("filigree", (Lines,), "dark", ("lines",)),
    Start("modelled", (Rope,), "coating"),
)
