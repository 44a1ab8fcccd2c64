"""A melt that was not swirled: how far its surface and its middle are from its mean."""

import math
from dataclasses import dataclass

from umber_pebble.core.constants import GRAVITY_M_S2
from umber_pebble.core.glass.viscosity import log_viscosity_wlf_1955, tg_spread_degc
from umber_pebble.core.heat.convection import h_convection_w_m2k, h_radiation_w_m2k
from umber_pebble.core.heat.vessel import PotCase
from umber_pebble.core.materials.load import Material, model_factors

ROUNDS, TERMS, EARLY = 12, 24, 0.02
CRITICAL_RA = 1708.0


@dataclass(frozen=True, slots=True)
class Offsets:
    """A reading against the mean: the surface, colder [K, below zero], the middle, warmer [K]."""

    surface_k: float
    middle_k: float


def from_mean(xi: float, fourier: float) -> float:
    """Temperature less the mean of a slab that loses a steady flux through one face, over q d / k [1].

    -[(3 xi^2 - 1)/6 - (2/pi^2) sum (-1)^n/n^2 exp(-n^2 pi^2 Fo) cos(n pi xi)], xi from the insulated face; soon after the start
    the cooled face falls as the square root of time.
    Args:
        xi: 0 at the insulated face, 1 at the cooled one
        fourier: a t / d^2
    Source: carslaw-jaeger-1959, section 3.8
    """
    if fourier < EARLY:
        # the cooled face does not know yet that there is another
        beta = (1 - xi) / (2 * math.sqrt(max(fourier, 1e-12)))
        falls = math.exp(-(beta**2)) / math.sqrt(math.pi) - beta * math.erfc(beta)
        return fourier - 2 * math.sqrt(fourier) * falls
    total = sum(
        (-1) ** n / n**2 * math.exp(-(n**2) * math.pi**2 * fourier) * math.cos(n * math.pi * xi)
        for n in range(1, TERMS)
    )
    return float(-((3 * xi**2 - 1) / 6 - 2 / math.pi**2 * total))


def nusselt_layer_hollands_1975(rayleigh: float) -> float:
    """Heat through a layer cooled from above, against conduction [1].

    Args:
        rayleigh: on its depth
    Source: hollands-1975
    """
    if rayleigh <= CRITICAL_RA:
        return 1.0
    return 1 + 1.44 * (1 - CRITICAL_RA / rayleigh) + max(math.cbrt(rayleigh / 5830) - 1, 0.0)


def _viscosity_pa_s(melt: Material, degc: float) -> float:
    if "tg_dry" in melt.properties:
        tg = tg_spread_degc(melt, melt.spread("water_dry_melt")).likely
        return float(10 ** log_viscosity_wlf_1955(max(degc, tg + 5.0), tg))
    return melt.value("casson_viscosity")


def _mixed(case: PotCase, degc: float, difference_k: float) -> float:
    """How much better than by conduction a melt colder on top carries its heat up [1]."""
    melt, d = case.melt, case.depth_m
    diffusivity = melt.value("conductivity") / (melt.value("density_melt") * case.cp_melt_j_kgk)
    kinematic = _viscosity_pa_s(melt, degc) / melt.value("density_melt")
    expands = model_factors()["melt_expansion"].value
    rayleigh = GRAVITY_M_S2 * expands * max(difference_k, 0.0) * d**3 / (kinematic * diffusivity)
    return nusselt_layer_hollands_1975(rayleigh)


def offsets(case: PotCase, degc: float, unswirled_s: float, of: str) -> Offsets:
    """How far surface and middle of an unswirled melt are from its mean, from a reading of one of them [K].

    What top and base lose is taken at the surface and the foot that go with the reading, so the mean is the one the reading belongs
    to, not the reading itself; a melt much colder on top than below turns over by itself, the more the deeper it is.
    Args:
        case: the pot with one value of each input
        degc: as read
        unswirled_s: since the melt was last moved, at least zero [s]
        of: what was read: "surface", "middle" or "mean"
    Source: carslaw-jaeger-1959, hollands-1975, incropera-2007
    """
    melt, pot, d = case.melt, case.pot, case.depth_m
    k = melt.value("conductivity")
    diffusivity = k / (melt.value("density_melt") * case.cp_melt_j_kgk)
    surface = middle = base = 0.0
    for _ in range(ROUNDS):
        mean = degc - {"surface": surface, "middle": middle, "mean": 0.0}[of]
        carries = _mixed(case, mean, -surface - base) * k
        fourier = carries / k * diffusivity * max(unswirled_s, 0.0) / d**2
        top, foot = mean + surface, mean + base
        h = (
            pot.thin_air
            * model_factors()["below_rim"].value
            * h_convection_w_m2k(top, pot.air_degc, pot.diameter_m / 4, 1)
        )
        h += h_radiation_w_m2k(top, pot.air_degc, melt.value("emissivity"))
        q_top = case.loss_factor * h * (top - pot.air_degc) * d / carries
        q_base = case.loss_factor * case.stand_h_w_m2k * (foot - pot.below_degc) * d / carries
        near, far, half = from_mean(1.0, fourier), from_mean(0.0, fourier), from_mean(0.5, fourier)
        # half of the step: what is lost falls as the face cools
        surface = (surface + near * q_top + far * q_base) / 2
        base = (base + near * q_base + far * q_top) / 2
        middle = (middle + half * (q_top + q_base)) / 2
    return Offsets(surface, middle)
