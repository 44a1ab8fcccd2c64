"""The pour window of a melt in its vessel: from what it opens, by what it closes."""

from dataclasses import dataclass
from functools import lru_cache
from typing import Literal

import numpy as np

from umber_pebble.core.constants import GRAVITY_M_S2
from umber_pebble.core.errors import require_range
from umber_pebble.core.fat.crystallise import set_along_frac, setting_of
from umber_pebble.core.glass.viscosity import WLF_C1, WLF_C2_K, temperature_at_log_viscosity_degc
from umber_pebble.core.heat.conduction import Array
from umber_pebble.core.heat.times import falls_below_s
from umber_pebble.core.heat.vessel import PotCase, cooling_curve_degc, curve_times_s, varied_cases
from umber_pebble.core.materials.load import Material
from umber_pebble.core.spread import Spread, combine

# one value of each input of a flow, which is the flow's own affair
Variant = tuple[float, ...]


PourLimit = Literal["boiling", "mould", "bubbles", "heat"]
"""What a pour waits for: that it no longer boils, the mould bears it, bubbles have risen, a fat has cooled enough."""


@dataclass(frozen=True, slots=True)
class Flowing:
    """One cooling curve read: when each thing that holds the pour back is over, when the melt is too thick to pour,
    and when it is no melt any more [s]."""

    waits: dict[PourLimit, float]
    closes_s: float
    stiff_s: float

    @property
    def opens_s(self) -> float:
        return min(max(self.waits.values()), self.closes_s)

    @property
    def limited_by(self) -> PourLimit:
        return max(self.waits, key=lambda name: self.waits[name])


def bubbles_risen_s(
    times_s: Array,
    temps_degc: Array,
    tg_degc: float,
    depth_m: float,
    radius_m: float,
    density_kg_m3: float,
    rise_factor: float = 1.0,
) -> float:
    """When bubbles of this radius have risen through the whole depth of a cooling melt [s].

    Stokes' law, the bubble's own weight left out; inf when they freeze in.
    Args:
        rise_factor: 1 for a rigid sphere, 1.5 for a bubble whose surface moves
        times_s, temps_degc: the cooling curve
        tg_degc: glass transition of the melt
        depth_m, radius_m: melt depth and bubble radius, above zero
        density_kg_m3: density of the melt
    Raises: OutOfRange: depth or radius not above zero.
    Source: stokes-1851, hadamard-rybczynski-1911, williams-landel-ferry-1955
    """
    require_range("depth_m", depth_m, 1e-6, 1.0)
    require_range("radius_m", radius_m, 1e-7, 0.01)
    above = np.maximum(temps_degc - tg_degc, 1.0)
    visc = 10.0 ** (12.0 - WLF_C1 * above / (WLF_C2_K + above))
    speed = rise_factor * 2 / 9 * density_kg_m3 * GRAVITY_M_S2 * radius_m**2 / visc
    risen = np.concatenate(([0.0], np.cumsum((speed[1:] + speed[:-1]) / 2 * np.diff(times_s))))
    if risen[-1] < depth_m:
        return float("inf")
    return float(np.interp(depth_m, risen, times_s))


@dataclass(frozen=True, slots=True)
class SugarFlow:
    """Sugar glass as a cook leaves it: how hot it came off, its glass transition, where it would boil, what the moulds
    bear, how thick it may be and still fill [log10 Pa s], None: as thick as it is usually poured; whether it is dipped into, or divided into
    other vessels. A variant is a glass transition, a bubble's rise factor and that thickness.
    """

    melt: Material
    off: Spread
    tg: Spread
    boils_degc: float
    mould_bears_degc: float
    fills: Spread | None = None
    dips: bool = False
    divides: bool = False

    @property
    def closes(self) -> Spread:
        """The thickest it may be poured [log10 Pa s]."""
        return self.fills or self.melt.spread("log_pour_close")

    def likely(self) -> Variant:
        return self.tg.likely, self.melt.spread("bubble_rise").likely, self.closes.likely

    def varied(self) -> list[list[Variant]]:
        rise, log = self.melt.spread("bubble_rise"), self.closes
        return [
            [(self.tg.low, rise.likely, log.likely), (self.tg.high, rise.likely, log.likely)],
            [(self.tg.likely, rise.low, log.likely), (self.tg.likely, rise.high, log.likely)],
            [(self.tg.likely, rise.likely, log.low), (self.tg.likely, rise.likely, log.high)],
        ]

    def read(self, times_s: Array, temps_degc: Array, depth_m: float, variant: Variant) -> Flowing:
        """Opens when it no longer boils, bubbles of the material's radius have risen and the mould bears the heat;
        closes when it no longer fills. What is dipped into it, or is divided off it, does not wait for bubbles."""
        tg, rise, log = variant
        radius, density = self.melt.value("bubble_radius"), self.melt.value("density_melt")
        waits: dict[PourLimit, float] = {
            "boiling": falls_below_s(times_s, temps_degc, self.boils_degc),
            "mould": falls_below_s(times_s, temps_degc, self.mould_bears_degc),
        }
        if not (self.dips or self.divides):
            waits["bubbles"] = bubbles_risen_s(times_s, temps_degc, tg, depth_m, radius, density, rise)
        end = float(times_s[-1])
        closes, stiff = (
            min(falls_below_s(times_s, temps_degc, temperature_at_log_viscosity_degc(at, tg)), end)
            for at in (log, max(log, self.melt.value("log_stiff")))
        )
        return Flowing(waits, closes, stiff)

    def closes_at_degc(self) -> Spread | None:
        log = self.closes
        return combine(
            temperature_at_log_viscosity_degc(log.likely, self.tg.likely),
            [
                [temperature_at_log_viscosity_degc(log.likely, tg) for tg in (self.tg.low, self.tg.high)],
                [temperature_at_log_viscosity_degc(at, self.tg.likely) for at in (log.low, log.high)],
            ],
        )

    def stiff_at_degc(self) -> float | None:
        return temperature_at_log_viscosity_degc(
            max(self.melt.value("log_stiff"), self.closes.likely), self.tg.likely
        )


@dataclass(frozen=True, slots=True)
class FatFlow:
    """Molten fat: how hot it came off, what the moulds bear, and if it is dipped into, or divided into other vessels. A variant is a factor
    on the half-time of its setting, and the share set at which it thickens.
    """

    melt: Material
    off: Spread
    mould_bears_degc: float
    dips: bool = False
    divides: bool = False

    @property
    def tg(self) -> None:
        """It sets to no glass."""
        return None

    @property
    def at_most_degc(self) -> float:
        """The hottest it is poured, or dipped into; into another vessel it may go as hot as it is."""
        if self.divides:
            return self.melt.value("spoils_at")
        return self.melt.value("dip_most" if self.dips else "pour_below")

    def likely(self) -> Variant:
        return 1.0, self.melt.value("set_thickens")

    def varied(self) -> list[list[Variant]]:
        half, thick = self.melt.spread("half_time"), self.melt.spread("set_thickens")
        return [
            [(half.low / half.likely, thick.likely), (half.high / half.likely, thick.likely)],
            [(1.0, thick.low), (1.0, thick.high)],
        ]

    def read(self, times_s: Array, temps_degc: Array, depth_m: float, variant: Variant) -> Flowing:
        """Opens when it is cool enough to pour and the mould bears it; closes when enough has set that it thickens."""
        half, thick = variant
        share = set_along_frac(times_s, temps_degc, setting_of(self.melt, half))
        waits: dict[PourLimit, float] = {
            "heat": falls_below_s(times_s, temps_degc, self.at_most_degc),
            "mould": falls_below_s(times_s, temps_degc, self.mould_bears_degc),
        }
        end = float(times_s[-1])
        closes, stiff = (
            min(falls_below_s(times_s, -share, -x), end) for x in (thick, self.melt.value("set_stiff"))
        )
        return Flowing(waits, closes, stiff)

    def closes_at_degc(self) -> Spread | None:
        return None

    def stiff_at_degc(self) -> float | None:
        return None


Flow = SugarFlow | FatFlow


@dataclass(frozen=True, slots=True)
class PourWindow:
    """Opening, closing and width from the moment off the heat, with spread [s], and what they rest on."""

    opens: Spread
    closes: Spread
    width: Spread
    limited_by: PourLimit
    open_degc: Spread
    close_degc: Spread
    depth_m: float
    times_s: Array
    likely_degc: Array
    low_degc: Array
    high_degc: Array


@lru_cache(maxsize=128)
def pour_window_s(base: PotCase, flow: Flow) -> PourWindow:
    """The pour window of a vessel, in seconds from off the heat, with spread.

    Where it would not open before it closes, opening and closing coincide and the width is zero.
    Args:
        base: the likely case of the vessel
        flow: how its melt pours
    Raises: OutOfRange: a mass or temperature outside the vessel model.
    Source: williams-landel-ferry-1955, avrami-1939, stokes-1851, jcgm-100-2008
    """
    times, off = curve_times_s(), flow.off

    def read(case: PotCase, off_degc: float, variant: Variant) -> Flowing:
        return flow.read(times, cooling_curve_degc(case, off_degc), case.depth_m, variant)

    first = read(base, off.likely, flow.likely())
    rows = [
        *([read(case, off.likely, flow.likely()) for case in pair] for pair in varied_cases(base)),
        *([read(base, off.likely, variant) for variant in pair] for pair in flow.varied()),
        [read(base, off.low, flow.likely()), read(base, off.high, flow.likely())],
    ]
    width = combine(first.closes_s - first.opens_s, [[f.closes_s - f.opens_s for f in row] for row in rows])
    likely = cooling_curve_degc(base, off.likely)
    curves = [[cooling_curve_degc(case, off.likely) for case in pair] for pair in varied_cases(base)]
    down, up = _band(likely, curves)
    opens = combine(first.opens_s, [[f.opens_s for f in row] for row in rows])
    closes = combine(first.closes_s, [[f.closes_s for f in row] for row in rows])

    def then(seconds: float) -> float:
        return float(np.interp(seconds, times, likely))

    return PourWindow(
        opens=opens,
        closes=closes,
        width=Spread(max(width.low, 0.0), width.likely, width.high),
        limited_by=first.limited_by,
        open_degc=opens.map(then),
        close_degc=flow.closes_at_degc() or closes.map(then),
        depth_m=base.depth_m,
        times_s=times,
        likely_degc=likely,
        low_degc=down,
        high_degc=up,
    )


def _band(likely: Array, curves: list[list[Array]]) -> tuple[Array, Array]:
    down = sum(np.minimum(0.0, np.minimum(a, b) - likely) ** 2 for a, b in curves)
    up = sum(np.maximum(0.0, np.maximum(a, b) - likely) ** 2 for a, b in curves)
    return likely - np.sqrt(down), likely + np.sqrt(up)
