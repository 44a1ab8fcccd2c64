"""How thick a sugar melt may be and still fill: its spread to the edge and into the finest detail, against its own cooling."""

import math
from dataclasses import replace
from functools import lru_cache

import numpy as np

from umber_pebble.core.constants import GRAVITY_M_S2
from umber_pebble.core.glass.viscosity import (
    WLF_C1,
    WLF_C2_K,
    log_viscosity_wlf_1955,
    temperature_at_log_viscosity_degc,
)
from umber_pebble.core.heat.casting import Casting
from umber_pebble.core.heat.conduction import Array
from umber_pebble.core.heat.piece import COARSE, base, run_all
from umber_pebble.core.materials.load import material
from umber_pebble.core.spread import Spread, exact

SPREADS = 0.894
"""Huppert's constant of a round gravity current of fixed volume."""
LONGEST_S = 120.0
"""A pour that has not reached the edge by then is taken not to reach it."""
STEPS = 12


def spread_dose_s_per_pa_s(density_kg_m3: float, reach_m: float, depth_m: float) -> float:
    """Time over viscosity that a round pour needs to spread under its own weight, until it lies so deep out to its edge [s/(Pa s)].

    R = 0.894 (rho g V^3 / (3 eta))^(1/8) t^(1/8) with V = pi R^2 H; of a melt that thickens on the way, the integral of dt / eta.
    Args:
        density_kg_m3: of the melt
        reach_m: from where it is poured to the edge, above zero [m]
        depth_m: how deep it then lies, above zero [m]
    Source: huppert-1982
    """
    weight = density_kg_m3 * GRAVITY_M_S2
    return 3 * reach_m**2 / (SPREADS**8 * weight * math.pi**3 * depth_m**3)


def detail_dose_s_per_pa_s(pressure_pa: float, aspect: float) -> float:
    """Time over viscosity that a groove needs to be filled [s/(Pa s)]: flow between two walls, 6 (d / w)^2 / p.

    Args:
        pressure_pa: on it, above zero
        aspect: depth over width of the groove
    Source: bird-2002, section 2.B
    """
    return 6 * aspect**2 / pressure_pa


def _dose(times_s: Array, temps_degc: Array, tg_degc: float) -> float:
    """The integral of dt / eta over what may last at most LONGEST_S [s/(Pa s)]."""
    above = np.maximum(temps_degc - tg_degc, 1.0)
    fluid = 10.0 ** (WLF_C1 * above / (WLF_C2_K + above) - 12.0)
    here = times_s <= LONGEST_S
    return float(np.trapezoid(fluid[here], times_s[here]))


@lru_cache(maxsize=512)
def fills_until_log_pa_s(casting: Casting, reach_m: Spread, pushed_pa: float, detail_m: float | None) -> Spread:
    """The thickest a sugar melt may be poured and still fill its cavity [log10 Pa s], with spread.

    The layer is cooled by the engine from the moment it is poured, and must spread to the edge before its own cooling stops it;
    what goes into the finest detail is a layer as thin as that is wide. By halving between the fluid cook and where it no longer
    leaves its pot. The spread is that of the reach and of the detail's shape.
    Args:
        casting: the cast, its mould and where it is poured; its pour temperature is what is looked for
        reach_m: from where it is poured to the farthest edge, the spout led over the cavity [m]
        pushed_pa: of a bag on it, 0 where it is poured [Pa]
        detail_m: width of the finest detail [m], None: there is none
    Raises: OutOfRange: a size the engine does not hold for.
    Source: huppert-1982, bird-2002, williams-landel-ferry-1955, assumption
    """
    aspect, deep = material("kitchen", "usual", "detail").spread("aspect"), casting.slab.likely
    ends = [
        _limit(casting, deep, reach, pushed_pa, detail_m, shape)
        for reach, shape in (
            (reach_m.high, aspect.high),
            (reach_m.likely, aspect.likely),
            (reach_m.low, aspect.low),
        )
    ]
    return Spread(*sorted(ends))


def _limit(
    casting: Casting, depth_m: float, reach_m: float, pushed_pa: float, detail_m: float | None, aspect: float
) -> float:
    assert casting.tg is not None
    melt, tg = casting.melt, casting.tg.likely
    density = melt.value("density_melt")
    pressure = density * GRAVITY_M_S2 * depth_m + pushed_pa
    needs = [] if pushed_pa else [(depth_m, spread_dose_s_per_pa_s(density, reach_m, depth_m))]
    if detail_m is not None:
        needs.append((detail_m, detail_dose_s_per_pa_s(pressure, aspect)))

    def fills(log: float) -> bool:
        pour = exact(temperature_at_log_viscosity_degc(log, tg))
        cases = [base(replace(casting, slab=exact(thick), pour=pour)) for thick, _ in needs]
        runs = run_all(cases, COARSE["sugar"])
        return all(
            _dose(runs.times_s, mean, tg) >= dose for mean, (_, dose) in zip(runs.mean_degc, needs, strict=True)
        )

    low, high = log_viscosity_wlf_1955(melt.value("cook_to"), tg), melt.value("log_stiff")
    if not needs or fills(high):
        return high
    for _ in range(STEPS):
        mid = (low + high) / 2
        low, high = (mid, high) if fills(mid) else (low, mid)
    return low
