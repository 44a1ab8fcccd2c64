"""The ways to join there are."""

from umber_pebble.core.pieces.joining.base import JoinBy, JoinKind
from umber_pebble.core.pieces.joining.glued import ByGlue
from umber_pebble.core.pieces.joining.melted import ByMelt
from umber_pebble.core.pieces.joining.softened import BySoftening

JOIN_KINDS: dict[JoinBy, JoinKind] = {of.BY: of for of in (ByMelt(), BySoftening(), ByGlue())}
