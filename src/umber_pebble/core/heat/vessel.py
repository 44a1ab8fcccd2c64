"""A pot of melt cooling: the full balance, by surface and stand."""

import math
from dataclasses import dataclass, replace
from functools import lru_cache

import numpy as np
from numba import njit
from numpy.typing import NDArray

from umber_pebble.core.errors import require_range
from umber_pebble.core.heat.convection import fin_loss_w_k, h_convection_w_m2k, h_radiation_w_m2k
from umber_pebble.core.materials.load import Material, model_factors
from umber_pebble.core.spread import Spread

STEP_S = 15.0
HORIZON_S = 5400.0

Curve = NDArray[np.float64]


@dataclass(frozen=True, slots=True)
class Pot:
    """A pot, its stand and what surrounds it; thin_air: what the altitude leaves of convection [1]. Lengths in m, mass in kg, temperatures in degC."""

    diameter_m: float
    height_m: float
    mass_kg: float
    metal: Material
    stand: Material
    below_degc: float
    air_degc: float
    loss_factor: Spread
    thin_air: float = 1.0

    def __post_init__(self) -> None:
        require_range("pot.diameter_m", self.diameter_m, 0.04, 1.0)
        require_range("pot.height_m", self.height_m, 0.02, 1.0)
        require_range("pot.mass_kg", self.mass_kg, 0.02, 20.0)


@dataclass(frozen=True, slots=True)
class PotCase:
    """One set of numbers for one engine run: a pot with a melt and one value of each uncertain input."""

    pot: Pot
    melt: Material
    melt_kg: float
    cp_melt_j_kgk: float
    loss_factor: float
    stand_h_w_m2k: float
    emissivity_wall: float

    @property
    def capacity_j_k(self) -> float:
        return self.melt_kg * self.cp_melt_j_kgk + self.pot.mass_kg * self.pot.metal.value("cp")

    @property
    def base_m2(self) -> float:
        return math.pi * self.pot.diameter_m**2 / 4

    @property
    def depth_m(self) -> float:
        return self.melt_kg / (self.melt.value("density_melt") * self.base_m2)

    def numbers(self) -> tuple[float, ...]:
        """The flat row of figures the compiled balance takes."""
        pot = self.pot
        metal_m2 = self.base_m2 + math.pi * pot.diameter_m * pot.height_m
        return (
            pot.diameter_m,
            min(self.depth_m, pot.height_m),
            max(pot.height_m - self.depth_m, 0.0),
            pot.mass_kg / (pot.metal.value("density") * metal_m2),
            pot.metal.value("conductivity"),
            self.emissivity_wall,
            self.melt.value("emissivity"),
            self.stand_h_w_m2k,
            pot.below_degc,
            pot.air_degc,
            self.loss_factor,
            model_factors()["below_rim"].value,
            pot.thin_air,
        )


@njit(cache=True)
def _loss_w(temp: float, n: tuple[float, ...]) -> float:
    diameter, wet, dry, metal, k_wall, eps_wall, eps_top, h_base, below, air, factor, below_rim, thin = n
    base = math.pi * diameter**2 / 4
    top = thin * below_rim * h_convection_w_m2k(temp, air, diameter / 4, 1) + h_radiation_w_m2k(temp, air, eps_top)
    h_out = thin * h_convection_w_m2k(temp, air, wet + dry, 0)
    wall = h_out + h_radiation_w_m2k(temp, air, eps_wall)
    # only the outer face of the dry wall counts: the air inside the pot is nearly as warm as the wall
    fin = fin_loss_w_k(wall, k_wall, metal, math.pi * diameter, dry)
    to_air = (top * base + wall * math.pi * diameter * wet + fin) * (temp - air)
    return factor * (to_air + h_base * base * (temp - below))


@njit(cache=True)
def _march(start: float, capacity: float, n: tuple[float, ...], steps: int, dt: float) -> NDArray[np.float64]:
    out = np.empty(steps + 1)
    out[0] = t = start
    for i in range(steps):
        k1 = -_loss_w(t, n) / capacity
        k2 = -_loss_w(t + 0.5 * dt * k1, n) / capacity
        k3 = -_loss_w(t + 0.5 * dt * k2, n) / capacity
        k4 = -_loss_w(t + dt * k3, n) / capacity
        t += dt * (k1 + 2 * k2 + 2 * k3 + k4) / 6
        out[i + 1] = t
    return out


def losses_w(case: PotCase, temps_degc: Curve) -> Curve:
    """Heat the pot loses at each of these melt temperatures [W].

    Args:
        case: the pot with one value of each input
        temps_degc: mean temperatures of the melt [degC]
    Source: incropera-2007, sections 3.6, 9.6
    """
    numbers = case.numbers()
    return np.array([_loss_w(float(t), numbers) for t in temps_degc])


@lru_cache(maxsize=512)
def cooling_curve_degc(case: PotCase, start_degc: float) -> Curve:
    """Mean melt temperature every STEP_S seconds up to HORIZON_S, by Runge-Kutta on the balance [degC].

    Valid while the melt is one temperature, which a swirl sees to.
    Args:
        case: the pot with one value of each input
        start_degc: temperature at time zero, above the air, at most 200 [degC]
    Raises: OutOfRange: melt_kg not from 1 g to 50 kg, or start_degc outside.
    Source: incropera-2007, section 5.3
    """
    require_range("melt_kg", case.melt_kg, 0.001, 50.0)
    require_range("start_degc", start_degc, case.pot.air_degc, 200.0)
    return _march(start_degc, case.capacity_j_k, case.numbers(), int(HORIZON_S / STEP_S), STEP_S)


def curve_times_s() -> Curve:
    """The times of a cooling curve's points [s]. Source: definition"""
    return np.arange(0.0, HORIZON_S + STEP_S / 2, STEP_S)


def base_case(pot: Pot, melt: Material, melt_kg: float) -> PotCase:
    """The likely case of a pot with this melt in it [SI fields]. Source: definition"""
    return PotCase(
        pot,
        melt,
        melt_kg,
        melt.value("cp_melt"),
        pot.loss_factor.likely,
        pot.stand.value("pot_base"),
        pot.metal.value("emissivity"),
    )


def varied_cases(base: PotCase) -> list[tuple[PotCase, PotCase]]:
    """Per uncertain input of the balance, the case at its low and at its high end [SI fields].

    Source: jcgm-100-2008
    """
    melt, pot = base.melt, base.pot
    ends = {
        "cp_melt_j_kgk": melt.spread("cp_melt"),
        "loss_factor": pot.loss_factor,
        "stand_h_w_m2k": pot.stand.spread("pot_base"),
        "emissivity_wall": pot.metal.spread("emissivity"),
    }

    def at(name: str, value: float) -> PotCase:
        return replace(base, **{name: value})  # type: ignore[arg-type]

    return [(at(name, s.low), at(name, s.high)) for name, s in ends.items()]
