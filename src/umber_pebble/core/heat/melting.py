"""Melting a fat in a microwave or over a water bath: the heat it takes, the time it needs, the bursts."""

import math
from dataclasses import dataclass, replace
from functools import lru_cache

import numpy as np

from umber_pebble.core.errors import OutOfRange, require_range
from umber_pebble.core.fat.crystallise import rest_share_frac
from umber_pebble.core.heat.conduction import Array
from umber_pebble.core.heat.vessel import PotCase, losses_w
from umber_pebble.core.materials.load import material
from umber_pebble.core.spread import Spread, combine

POINTS = 60


@dataclass(frozen=True, slots=True)
class Microwave:
    """An oven at full power: its rated power [W]. The load is stirred after each burst for stir_s [s]."""

    power_w: float
    stir_s: float


@dataclass(frozen=True, slots=True)
class Bath:
    """Very hot water under the bowl, at a temperature [degC]."""

    water_degc: float


@dataclass(frozen=True, slots=True)
class Melting:
    """A bowl of fat to be melted from one temperature to another [degC]."""

    case: PotCase
    start_degc: float
    melt_to_degc: float
    by: Microwave | Bath

    @property
    def end_degc(self) -> float:
        return self.melt_to_degc


def heat_taken_j(melting: Melting, temps_degc: Array) -> Array:
    """Heat taken up from the start to each temperature: the fat as it melts through its range, and the bowl [J].

    Args:
        melting: the bowl
        temps_degc: rising temperatures from the start
    Source: beckett-2009
    """
    case, melt = melting.case, melting.case.melt
    most = melt.value("sets_at_most")
    share = np.array(
        [rest_share_frac(float(t), melt.value("melts_at"), melt.value("melting_width"), most) for t in temps_degc]
    )
    cp = case.cp_melt_j_kgk + (melt.value("cp_set") - case.cp_melt_j_kgk) * share / most
    warm = np.concatenate(([0.0], np.cumsum((cp[1:] + cp[:-1]) / 2 * np.diff(temps_degc))))
    fat = warm + melt.value("latent_fat") * (share[0] - share)
    bowl = case.pot.mass_kg * case.pot.metal.value("cp") * (temps_degc - temps_degc[0])
    return np.asarray(case.melt_kg * fat + bowl)


def coupled_w(power_w: float, load_kg: float, share_frac: float) -> float:
    """Power that reaches a load in a microwave [W].

    Args:
        power_w: rated, 200 to 3000 [W]
        load_kg: above zero [kg]
        share_frac: of a large load
    Raises: OutOfRange: power_w outside.
    Source: common-practice
    """
    require_range("microwave.power_w", power_w, 200.0, 3000.0)
    load = material("kitchen", "coupling", "microwave").value("load")
    return power_w * share_frac * (1 - math.exp(-load_kg / load))


def _net_w(melting: Melting, temps_degc: Array, power: float) -> Array:
    lost = losses_w(melting.case, temps_degc)
    if isinstance(melting.by, Microwave):
        return coupled_w(melting.by.power_w, melting.case.melt_kg, power) - lost
    case = melting.case
    wetted = case.base_m2 + math.pi * case.pot.diameter_m * min(case.depth_m, case.pot.height_m)
    return np.asarray(power * wetted * (melting.by.water_degc - temps_degc))


def melting_curve(melting: Melting, power: float) -> tuple[Array, Array]:
    """Times under power and temperatures from the start to the end [s, degC].

    Args:
        melting: the bowl
        power: share that couples (microwave) [frac] or conductance (bath) [W/m2K]
    Raises: OutOfRange: the oven or bath never gets it there.
    Source: incropera-2007, section 1.3
    """
    temps = np.linspace(melting.start_degc, melting.melt_to_degc, POINTS)
    net = _net_w(melting, (temps[1:] + temps[:-1]) / 2, power)
    if net.min() <= 0:
        where = "microwave.power_w" if isinstance(melting.by, Microwave) else "bath.water_degc"
        raise OutOfRange(
            f"this never reaches {melting.melt_to_degc:g} degC: more power or hotter water",
            path=where,
            got=melting.by.power_w if isinstance(melting.by, Microwave) else melting.by.water_degc,
            limits={"low": melting.melt_to_degc + 10.0} if isinstance(melting.by, Bath) else {},
        )
    return np.concatenate(([0.0], np.cumsum(np.diff(heat_taken_j(melting, temps)) / net))), temps


def power_spread(melting: Melting) -> Spread:
    """What power stands for in melting_curve, with spread [frac, or W/m2K]. Source: common-practice, assumption"""
    if isinstance(melting.by, Microwave):
        return material("kitchen", "coupling", "microwave").spread("share")
    return material("kitchen", "transfer", "bath").spread("conductance")


def bursts_s(powered_s: float) -> tuple[float, ...]:
    """Bursts of a microwave that make up a time under power: one long, then short ones [s].

    Args:
        powered_s: time under power, above zero
    Source: common-practice
    """
    practice = material("kitchen", "bursts", "microwave")
    first, after = practice.value("first"), practice.value("next")
    return (first,) + (after,) * max(math.ceil((powered_s - first) / after), 0)


def stretch(melting: Melting, powered_s: float) -> float:
    """How much longer melting takes than its time under power, for the stirring [1]. Source: definition"""
    if isinstance(melting.by, Bath):
        return 1.0
    return 1.0 + len(bursts_s(powered_s)) * melting.by.stir_s / powered_s


@lru_cache(maxsize=128)
def powered_s(melting: Melting) -> Spread:
    """Time under power until the fat is molten and at its end temperature, with spread [s].

    Raises: OutOfRange: never.
    Source: beckett-2009, jcgm-100-2008
    """
    power, melt = power_spread(melting), melting.case.melt
    cp = melt.spread("cp_melt")

    def time(p: float, cp_melt: float) -> float:
        return float(melting_curve(replace(melting, case=replace(melting.case, cp_melt_j_kgk=cp_melt)), p)[0][-1])

    return combine(
        time(power.likely, cp.likely),
        [
            [time(p, cp.likely) for p in (power.low, power.high)],
            [time(power.likely, c) for c in (cp.low, cp.high)],
        ],
    )


def melting_time_s(melting: Melting) -> Spread:
    """Time from going in until it is taken out, stirring with it, with spread [s].

    Source: common-practice
    """
    return powered_s(melting).map(lambda s: s * stretch(melting, s))
