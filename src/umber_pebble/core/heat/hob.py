"""Heating a pot on a ring: the heat it takes, the curve it follows, the time it needs."""

from dataclasses import dataclass, replace
from functools import lru_cache

import numpy as np

from umber_pebble.core.errors import OutOfRange, require_range
from umber_pebble.core.glass.water import boils_from_degc, pressure_pa, saturation_degc, water_left_frac
from umber_pebble.core.heat.conduction import Array
from umber_pebble.core.heat.vessel import PotCase, losses_w
from umber_pebble.core.spread import Spread, combine

WATER_CP_J_KGK = 4186.0
WATER_EVAPORATES_J_KG = 2.257e6
MELTS_FROM_DEGC, MELTS_TO_DEGC = 145.0, 150.0

LEAST_RISE_K = 10.0
"""Less than this is not reckoned as heating."""


@dataclass(frozen=True, slots=True)
class Heating:
    """A charge going on the ring: its form, water, start and end, and the ring."""

    case: PotCase
    water_kg: float
    crystalline: bool
    start_degc: float
    cook_degc: float
    altitude_m: float
    ring_w: float
    efficiency: Spread


def heat_taken_j(heating: Heating, temps_degc: Array, latent_j_kg: float) -> Array:
    """Heat taken up from the start to each temperature: sugar, its melting, water, what boils off, pot [J].

    Args:
        heating: the charge
        temps_degc: rising temperatures
        latent_j_kg: heat of melting of the crystals
    Source: cammenga-zielasko-1996, iapws-steam, sugar-boiling-table
    """
    case, melt = heating.case, heating.case.melt
    rise = temps_degc - heating.start_degc
    if heating.water_kg > 0:
        # crystals dissolve while the syrup comes to the boil
        plateau = saturation_degc(pressure_pa(heating.altitude_m))
        melted = np.clip(rise / (plateau - heating.start_degc), 0.0, 1.0)
        begins = boils_from_degc(heating.altitude_m)
        boiling = np.array([water_left_frac(max(t, begins), heating.altitude_m) for t in temps_degc])
        left = np.where(temps_degc < begins, np.inf, case.melt_kg * boiling / (1.0 - boiling))
        gone = np.maximum(heating.water_kg - left, 0.0)
        water = heating.water_kg * WATER_CP_J_KGK * np.minimum(rise, plateau) + gone * WATER_EVAPORATES_J_KG
    else:
        melted = np.clip((temps_degc - MELTS_FROM_DEGC) / (MELTS_TO_DEGC - MELTS_FROM_DEGC), 0.0, 1.0)
        water = np.zeros_like(temps_degc)
    latent = latent_j_kg * melted if heating.crystalline else np.zeros_like(temps_degc)
    turn = MELTS_TO_DEGC if heating.crystalline and heating.water_kg == 0 else melt.value("tg_dry")
    solid = np.clip(temps_degc, None, turn) - min(heating.start_degc, turn)
    liquid = np.clip(temps_degc - turn, 0.0, None)
    sugar = melt.value("cp_glass") * solid + case.cp_melt_j_kgk * liquid + latent
    metal = case.pot.mass_kg * case.pot.metal.value("cp") * rise
    return np.asarray(case.melt_kg * sugar + water + metal)


def heating_curve(heating: Heating, efficiency_frac: float, latent_j_kg: float) -> tuple[Array, Array]:
    """Times and temperatures of a charge on the ring, from its start to the cook temperature [s, degC].

    Args:
        heating: the charge and ring
        efficiency_frac: share of the ring's power that arrives
        latent_j_kg: heat of melting
    Raises: OutOfRange: the ring cannot hold the cook temperature against the pot's loss.
    Source: incropera-2007, section 1.3
    """
    require_range("ring.power_w", heating.ring_w, 10.0, 20_000.0)
    require_range("cook_degc", heating.cook_degc, heating.start_degc + LEAST_RISE_K, 185.0)
    temps = np.linspace(heating.start_degc, heating.cook_degc, 60)
    heat = heat_taken_j(heating, temps, latent_j_kg)
    middle = (temps[1:] + temps[:-1]) / 2
    net = heating.ring_w * efficiency_frac - losses_w(heating.case, middle)
    if net.min() <= 0:
        raise OutOfRange(
            "the ring is too weak: at the cook temperature the pot loses more than the ring gives",
            path="ring.power_w",
            got=heating.ring_w,
            limits={"low": float(heating.ring_w - net.min() / efficiency_frac)},
        )
    return np.concatenate(([0.0], np.cumsum(np.diff(heat) / net))), temps


@lru_cache(maxsize=128)
def hob_time_s(heating: Heating) -> Spread:
    """Time on the ring until the cook temperature, with spread [s].

    Raises: OutOfRange: the ring is too weak.
    Source: incropera-2007, jcgm-100-2008
    """
    latent, eff, factor = (
        heating.case.melt.spread("latent_crystal"),
        heating.efficiency,
        heating.case.pot.loss_factor,
    )

    def time(e: float, q: float, loss: float) -> float:
        case = replace(heating.case, loss_factor=loss)
        return float(heating_curve(replace(heating, case=case), e, q)[0][-1])

    return combine(
        time(eff.likely, latent.likely, factor.likely),
        [
            [time(e, latent.likely, factor.likely) for e in (eff.low, eff.high)],
            [time(eff.likely, q, factor.likely) for q in (latent.low, latent.high)],
            [time(eff.likely, latent.likely, f) for f in (factor.low, factor.high)],
        ],
    )
