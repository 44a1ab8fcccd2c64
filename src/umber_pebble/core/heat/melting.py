"""Melting a fat over a water bath: the heat it takes, the time it needs."""

import math
from dataclasses import dataclass, replace
from functools import lru_cache

import numpy as np

from umber_pebble.core.errors import OutOfRange
from umber_pebble.core.fat.crystallise import rest_share_frac
from umber_pebble.core.heat.conduction import Array
from umber_pebble.core.heat.vessel import PotCase, losses_w
from umber_pebble.core.materials.load import material
from umber_pebble.core.spread import Spread, combine

POINTS = 60


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
    by: Bath


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


def wetted_m2(case: PotCase) -> float:
    """Wall and floor of a bowl that its melt covers [m2]. Source: geometry"""
    return case.base_m2 + math.pi * case.pot.diameter_m * min(case.depth_m, case.pot.height_m)


def _net_w(melting: Melting, temps_degc: Array, conductance: float) -> Array:
    case = melting.case
    given = conductance * wetted_m2(case) * (melting.by.water_degc - temps_degc)
    return np.asarray(given - losses_w(case, temps_degc))


def melting_curve(melting: Melting, conductance: float) -> tuple[Array, Array]:
    """Times over the bath and temperatures from the start to the end [s, degC].

    Args:
        melting: the bowl
        conductance: from the water through the bowl into a stirred melt [W/m2K]
    Raises: OutOfRange: the bath never gets it there.
    Source: incropera-2007, section 1.3
    """
    temps = np.linspace(melting.start_degc, melting.melt_to_degc, POINTS)
    net = _net_w(melting, (temps[1:] + temps[:-1]) / 2, conductance)
    if net.min() <= 0:
        at = (temps[1:] + temps[:-1])[int(net.argmin())] / 2
        given = conductance * wetted_m2(melting.case) * (melting.by.water_degc - at)
        # water that is warm enough loses to a stand or a room that takes more than it gives
        helps = (
            "hotter water"
            if given <= 0 or melting.by.water_degc < melting.melt_to_degc + 10.0
            else (
                "the bowl loses as much to its stand and the room as the water gives: insulate it, cover it, or melt more at once"
            )
        )
        raise OutOfRange(
            f"this never reaches {melting.melt_to_degc:g} degC: {helps}",
            path="bath.water_degc",
            got=melting.by.water_degc,
            limits={"low": melting.melt_to_degc + 10.0},
        )
    return np.concatenate(([0.0], np.cumsum(np.diff(heat_taken_j(melting, temps)) / net))), temps


def conductance() -> Spread:
    """From a bath's water through a bowl into a stirred melt [W/m2K]. Source: assumption"""
    return material("kitchen", "transfer", "bath").spread("conductance")


@lru_cache(maxsize=128)
def melting_time_s(melting: Melting) -> Spread:
    """Time over the bath until the fat is molten and at its end temperature, with spread [s].

    Raises: OutOfRange: never.
    Source: beckett-2009, jcgm-100-2008
    """
    given, melt = conductance(), melting.case.melt
    cp = melt.spread("cp_melt")

    def time(u: float, cp_melt: float) -> float:
        return float(melting_curve(replace(melting, case=replace(melting.case, cp_melt_j_kgk=cp_melt)), u)[0][-1])

    return combine(
        time(given.likely, cp.likely),
        [
            [time(u, cp.likely) for u in (given.low, given.high)],
            [time(given.likely, c) for c in (cp.low, cp.high)],
        ],
    )
