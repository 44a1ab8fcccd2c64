"""The pour window of a pot of sugar glass: from what it opens, by what it closes."""

from dataclasses import dataclass
from functools import lru_cache

import numpy as np

from umber_pebble.core.constants import GRAVITY_M_S2
from umber_pebble.core.errors import require_range
from umber_pebble.core.glass.viscosity import WLF_C1, WLF_C2_K, temperature_at_log_viscosity_degc
from umber_pebble.core.heat.conduction import Array, falls_below_s
from umber_pebble.core.heat.vessel import PotCase, cooling_curve_degc, curve_times_s, varied_cases
from umber_pebble.core.materials.load import Material
from umber_pebble.core.spread import Spread, combine


@dataclass(frozen=True, slots=True)
class Opening:
    """When each thing that holds the pour back is over [s]; the latest one decides."""

    boils_s: float
    bubbles_s: float
    mould_s: float

    @property
    def opens_s(self) -> float:
        return max(self.boils_s, self.bubbles_s, self.mould_s)

    @property
    def limited_by(self) -> str:
        if self.opens_s == self.bubbles_s:
            return "bubbles"
        return "mould" if self.opens_s == self.mould_s else "boiling"


@dataclass(frozen=True, slots=True)
class PourWindow:
    """Opening, closing and width from the moment off the heat, with spread [s], and what they rest on."""

    opens: Spread
    closes: Spread
    width: Spread
    limited_by: str
    open_degc: Spread
    close_degc: Spread
    depth_m: float
    tg: Spread
    times_s: Array
    likely_degc: Array
    low_degc: Array
    high_degc: Array


@dataclass(frozen=True, slots=True)
class Cook:
    """What a cook leaves: water, glass transition, where it would boil, and how hot it came off."""

    off: Spread
    tg: Spread
    boils_degc: float
    mould_bears_degc: float


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


def opening_s(
    times_s: Array,
    temps_degc: Array,
    tg_degc: float,
    depth_m: float,
    cook: Cook,
    melt: Material,
    rise_factor: float,
) -> Opening:
    """When the pour may begin on this cooling curve [s].

    Args:
        times_s, temps_degc: the curve from off the heat
        tg_degc, depth_m: glass transition and depth of the melt
        cook, melt: what the cook left, and the material
        rise_factor: as in bubbles_risen_s
    Source: definition, stokes-1851
    """
    radius, density = melt.value("bubble_radius"), melt.value("density_melt")
    rises = bubbles_risen_s(times_s, temps_degc, tg_degc, depth_m, radius, density, rise_factor)
    return Opening(
        falls_below_s(times_s, temps_degc, cook.boils_degc),
        rises,
        falls_below_s(times_s, temps_degc, cook.mould_bears_degc),
    )


def closing_s(times_s: Array, temps_degc: Array, tg_degc: float, melt: Material) -> float:
    """When the melt is too thick to pour on this cooling curve [s]; inf when it is not in the horizon.

    Source: williams-landel-ferry-1955
    """
    return falls_below_s(
        times_s, temps_degc, temperature_at_log_viscosity_degc(melt.value("log_pour_close"), tg_degc)
    )


@lru_cache(maxsize=128)
def pour_window_s(base: PotCase, cook: Cook) -> PourWindow:
    """The pour window of a pot, in seconds from off the heat, with spread.

    Opens when it no longer boils, bubbles of the material's radius have risen, and the mould bears
    the heat; closes at the pour viscosity. Where it would not open before it closes, opening and closing
    coincide and the width is zero.
    Args:
        base: the likely case of the pot
        cook: what this cook left
    Raises: OutOfRange: a mass or temperature outside the pot model.
    Source: williams-landel-ferry-1955, stokes-1851, jcgm-100-2008
    """
    melt, times = base.melt, curve_times_s()
    end = float(times[-1])
    rise = melt.spread("bubble_rise")

    def run(
        case: PotCase, off: float, tg: float, rise_factor: float = rise.likely
    ) -> tuple[float, float, Opening]:
        temps = cooling_curve_degc(case, off)
        opening = opening_s(times, temps, tg, case.depth_m, cook, melt, rise_factor)
        closes = min(closing_s(times, temps, tg, melt), end)
        return min(opening.opens_s, closes), closes, opening

    off, tg = cook.off, cook.tg
    opens, closes, opening = run(base, off.likely, tg.likely)
    others = [[run(case, off.likely, tg.likely) for case in pair] for pair in varied_cases(base)]
    by_glass = [run(base, off.likely, tg.low), run(base, off.likely, tg.high)]
    by_off = [run(base, off.low, tg.likely), run(base, off.high, tg.likely)]
    by_rise = [run(base, off.likely, tg.likely, rise.low), run(base, off.likely, tg.likely, rise.high)]
    rows = [*others, by_glass, by_off, by_rise]
    width = combine(closes - opens, [[c - o for o, c, _ in row] for row in rows])
    likely = cooling_curve_degc(base, off.likely)
    curves = [[cooling_curve_degc(case, off.likely) for case in pair] for pair in varied_cases(base)]
    down, up = _band(likely, curves)
    opens_spread = combine(opens, [[o for o, _, _ in row] for row in rows])
    return PourWindow(
        opens=opens_spread,
        closes=combine(closes, [[c for _, c, _ in row] for row in rows]),
        width=Spread(max(width.low, 0.0), width.likely, width.high),
        limited_by=opening.limited_by,
        open_degc=opens_spread.map(lambda s: float(np.interp(s, times, likely))),
        close_degc=tg.map(lambda g: temperature_at_log_viscosity_degc(melt.value("log_pour_close"), g)),
        depth_m=base.depth_m,
        tg=tg,
        times_s=times,
        likely_degc=likely,
        low_degc=down,
        high_degc=up,
    )


def _band(likely: Array, curves: list[list[Array]]) -> tuple[Array, Array]:
    down = sum(np.minimum(0.0, np.minimum(a, b) - likely) ** 2 for a, b in curves)
    up = sum(np.maximum(0.0, np.maximum(a, b) - likely) ** 2 for a, b in curves)
    return likely - np.sqrt(down), likely + np.sqrt(up)
