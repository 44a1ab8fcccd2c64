"""All kinds of passes there are."""

from typing import TYPE_CHECKING, Literal, get_args

from umber_pebble.core.pieces.fields import kind_of
from umber_pebble.core.pieces.passes.base import PassKind
from umber_pebble.core.pieces.passes.centre import Centre
from umber_pebble.core.pieces.passes.close import Close
from umber_pebble.core.pieces.passes.cluster import Cluster
from umber_pebble.core.pieces.passes.detail import Detail
from umber_pebble.core.pieces.passes.dip import Dip
from umber_pebble.core.pieces.passes.dollop import Dollop
from umber_pebble.core.pieces.passes.drizzle import Drizzle
from umber_pebble.core.pieces.passes.dust import Dust
from umber_pebble.core.pieces.passes.fill import Fill
from umber_pebble.core.pieces.passes.filling import Filling
from umber_pebble.core.pieces.passes.paste import Paste
from umber_pebble.core.pieces.passes.printed import Print
from umber_pebble.core.pieces.passes.shell import Shell
from umber_pebble.core.pieces.passes.stick import Stick
from umber_pebble.core.pieces.passes.turned import Turned

Pass = (
    Dip | Dust | Print | Detail | Shell | Stick | Centre | Filling | Paste | Fill | Turned | Close | Cluster | Drizzle | Dollop
)  # fmt: skip
KINDS: tuple[type[PassKind], ...] = get_args(Pass)
"""In the order in which they are offered."""
if TYPE_CHECKING:
    Kind = str
else:
    Kind = Literal[tuple(kind_of(of) for of in KINDS)]
