"""A piping bag in the hand."""

from umber_pebble.core.materials.load import Material, material
from umber_pebble.core.melts.hold import Held, Stood, Story, spot_of
from umber_pebble.core.melts.keeps import keeps
from umber_pebble.core.spread import Spread


def bag_flows_s(melt: Material, kg: float, degc: Spread, tg: Spread | None, room_degc: float) -> Spread:
    """How long a bag flows that is filled with what is piped, and what stays in it, and held in the hand [s]; inf: as long as anybody pipes.

    Args:
        melt: what is in it
        kg: that is piped out of it [kg]
        degc: as it is filled [degC]
        tg: of a sugar melt [degC], None for a fat
        room_degc: of the room
    Raises: OutOfRange: a weight outside what a bag may hold.
    Source: incropera-2007 (section 5.1), avrami-1939, williams-landel-ferry-1955
    """
    held = Held(melt, kg + material("kitchen", "usual", "bag").value("keeps"), degc, "bag", room_degc, tg)
    return keeps(held, Story((Stood(0.0, spot_of("hand", room_degc)),)), 0.0).flows_s
