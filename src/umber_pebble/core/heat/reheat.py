"""Heating one place of a finished sugar piece again: how long a lamp, torch or microwave takes until it bends."""

from dataclasses import dataclass

import numpy as np

from umber_pebble.core.errors import require_range
from umber_pebble.core.glass.viscosity import temperature_at_log_viscosity_degc
from umber_pebble.core.heat.conduction import Array, Face, Layer, Stack, conduct_all
from umber_pebble.core.materials.load import Material, material
from umber_pebble.core.spread import Spread

NODES, STEPS, LENGTH_M = 20, 240, 0.03
LONGEST_S = {"lamp": 900.0, "torch": 60.0, "microwave": 60.0}


@dataclass(frozen=True, slots=True)
class Reheat:
    """Heating by one means: until the whole thickness bends [s], and when its face boils or browns [s]; whether it is
    through before; how long it stays soft after [s]. inf: never within what is looked at."""

    means: str
    soft: Spread
    spoils_s: float
    through: bool


def reheat(
    melt: Material,
    tg: Spread,
    thickness_m: float,
    room_degc: float,
    means: str,
    power_w: float = 0.0,
    mass_kg: float = 0.0,
) -> Reheat:
    """How long a place at room temperature must be heated until its coldest node may be bent.

    Lamp and torch warm the face, a microwave the whole piece at once, by its rated power and the share glass takes.
    Args:
        melt, tg: the glass and its transition
        thickness_m: at that place, 0.3 to 30 mm
        room_degc: of room and piece
        means: "lamp", "torch" or "microwave"
        power_w, mass_kg: of the oven, and of the piece in it
    Raises: OutOfRange: no such means, or a thickness outside.
    Source: incropera-2007, williams-landel-ferry-1955, assumption
    """
    require_range("thickness_m", thickness_m, 3e-4, 0.03)
    flux = material("kitchen", means, "reheat").spread("flux")
    share, density = melt.spread("microwave_share"), melt.value("density_melt")

    def stack(level: str) -> Stack:
        source = 0.0
        if means == "microwave":
            source = power_w * getattr(share, level) / (require_range("mass_kg", mass_kg, 1e-3, 5.0) / density)
        layer = Layer(
            "piece",
            thickness_m,
            NODES,
            melt.value("conductivity"),
            density,
            melt.value("cp_glass"),
            melt.value("cp_melt"),
            tg.likely,
            room_degc,
            source_w_m3=source,
        )
        face = Face(room_degc, 1, LENGTH_M, melt.value("emissivity"), flux_w_m2=getattr(flux, level))
        return Stack((layer,), face, Face(room_degc, 2, LENGTH_M, melt.value("emissivity")))

    times = np.linspace(0.0, LONGEST_S[means], STEPS + 1)
    watched, *_ = conduct_all([stack(level) for level in ("high", "likely", "low")], 0, times)
    bends = temperature_at_log_viscosity_degc(melt.value("log_pull_close"), tg.likely)
    fast, likely, slow = (_rises_s(times, cold, bends) for cold in watched.coldest_degc)
    spoils = _rises_s(times, watched.hottest_degc[1], melt.value("spoils_at"))
    return Reheat(means, Spread(fast, likely, slow), spoils, likely < spoils)


def _rises_s(times: Array, temps: Array, limit: float) -> float:
    """When a rising series first is at a limit, linear between points [s]; inf when never."""
    over = np.flatnonzero(temps >= limit)
    if over.size == 0:
        return float("inf")
    i = int(over[0])
    if i == 0:
        return float(times[0])
    return float(np.interp(limit, temps[i - 1 : i + 1], times[i - 1 : i + 1]))
