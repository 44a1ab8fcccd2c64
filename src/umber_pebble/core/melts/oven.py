"""A microwave: what it gives to a load, and its power by a bowl of water."""

import math
from dataclasses import dataclass

from umber_pebble.core.errors import require_range
from umber_pebble.core.materials.load import material
from umber_pebble.core.spread import Spread


@dataclass(frozen=True, slots=True)
class Microwave:
    """An oven at full power: rated or measured [W]. The load is stirred after each burst for stir_s [s]; couples: what runs
    taught of the share of its power that reaches a load, against the usual one [1]."""

    power_w: float
    stir_s: float
    couples: Spread | None = None

    @property
    def share_frac(self) -> Spread:
        """Share of its power that couples into a large load [frac]. Source: common-practice"""
        usual = material("kitchen", "coupling", "microwave").spread("share")
        return usual if self.couples is None else self.couples.times(usual.likely)


def coupled_w(power_w: float, load_kg: float, share_frac: float) -> float:
    """Power that reaches a load in a microwave [W].

    Args:
        power_w: rated, 200 to 2000 [W]
        load_kg: above zero [kg]
        share_frac: of a large load
    Raises: OutOfRange: power_w outside.
    Source: common-practice
    """
    require_range("microwave.power_w", power_w, 200.0, 2000.0)
    load = material("kitchen", "coupling", "microwave").value("load")
    return power_w * share_frac * (1 - math.exp(-load_kg / load))


def nib_bursts(seconds: float) -> int:
    """Bursts that ready-cooked nibs need for so long in the oven [count]. Source: common-practice"""
    return max(1, math.ceil(seconds / material("kitchen", "bursts", "microwave").value("nibs")))


def nib_duty_frac(look_s: float) -> float:
    """Share of the time that the oven runs, nibs looked at and stirred after each burst [frac].

    Args:
        look_s: a look with a stir [s]
    Source: common-practice
    """
    burst = material("kitchen", "bursts", "microwave").value("nibs")
    return burst / (burst + look_s)


def power_by_water_w(
    water_kg: float,
    from_degc: float,
    to_degc: float,
    seconds: float,
    vessel_kg: float = 0.0,
    room_degc: float = 20.0,
) -> float:
    """Power of an oven from a weighed bowl of water that it heats [W].

    P = (4187 m_w (T2 - T1) + 550 m_c (T2 - T0)) / t: water, and a glass vessel that starts at the room's temperature.
    Args:
        water_kg: 0.2 to 3 [kg]
        from_degc, to_degc: of the stirred water before and after, 2 to 60 K apart and under 90 [degC]
        seconds: 10 to 600 [s]
        vessel_kg: of glass, at most 5 [kg]
        room_degc: of the room [degC]
    Raises: OutOfRange: a value outside; the water did not warm, or the oven comes out under 100 or over 2000 W.
    Source: iec-60705
    """
    require_range("water_kg", water_kg, 0.2, 3.0)
    require_range("from_degc", from_degc, 0.0, 60.0)
    require_range("to_degc", to_degc, from_degc + 2.0, min(from_degc + 60.0, 90.0))
    require_range("seconds", seconds, 10.0, 600.0)
    require_range("vessel_kg", vessel_kg, 0.0, 5.0)
    water, glass = 4187.0 * water_kg * (to_degc - from_degc), 550.0 * vessel_kg * (to_degc - room_degc)
    return require_range("power_w", (water + glass) / seconds, 100.0, 2000.0)
