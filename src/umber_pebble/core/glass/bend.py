"""Bending a sugar glass: how tight, how fast, at which viscosity, until when."""

import math
from dataclasses import dataclass

from umber_pebble.core.errors import require_range
from umber_pebble.core.glass.viscosity import log_viscosity_wlf_1955
from umber_pebble.core.materials.load import Material


@dataclass(frozen=True, slots=True)
class BendLimits:
    """A bend of a sheet: strain at its outside [frac], stress there [Pa], fastest it may be done [s] and tightest
    radius in the time given [m]; whether it cracks."""

    strain_frac: float
    stress_pa: float
    fastest_s: float
    tightest_m: float
    cracks: bool


def bend_strain_frac(thickness_m: float, radius_m: float) -> float:
    """Strain at the outside of a sheet bent round a radius, t / 2R [frac].

    Args:
        thickness_m: of the sheet, 0.2 to 50 mm
        radius_m: of its middle, above half the thickness
    Raises: OutOfRange: one of them outside.
    Source: gere-goodno-2009, section 5.4
    """
    require_range("thickness_m", thickness_m, 2e-4, 0.05)
    require_range("radius_m", radius_m, thickness_m / 2, 10.0)
    return thickness_m / (2 * radius_m)


def bends_until_log_pa_s(melt: Material, thickness_m: float, radius_m: float, over_s: float) -> float:
    """Viscosity above which bending a sheet so far in this time cracks it: 3 eta strain / time is the flow stress it
    bears [log10 Pa s].

    Args:
        melt: its safe_flow_stress
        thickness_m, radius_m: as in bend_strain_frac
        over_s: how long the bend takes, 0.1 to 600 [s]
    Raises: OutOfRange: one of them outside.
    Source: reiner-1969, gere-goodno-2009, assumption
    """
    require_range("over_s", over_s, 0.1, 600.0)
    strain = bend_strain_frac(thickness_m, radius_m)
    return math.log10(melt.value("safe_flow_stress") * over_s / (3 * strain))


def bend_limits(
    melt: Material, tg_degc: float, temp_degc: float, thickness_m: float, radius_m: float, over_s: float
) -> BendLimits:
    """A bend at one temperature: its strain and stress, and the limits beside it.

    As a Maxwell body: viscous stress 3 eta strain / time, which no slower bend than the relaxation time lets grow
    beyond the elastic 3 G strain.
    Args:
        melt, tg_degc: the glass
        temp_degc: its coldest place [degC]
        thickness_m, radius_m, over_s: of the bend
    Raises: OutOfRange: one of them outside.
    Source: reiner-1969, gere-goodno-2009
    """
    require_range("over_s", over_s, 0.1, 600.0)
    strain, bears = bend_strain_frac(thickness_m, radius_m), melt.value("safe_flow_stress")
    viscosity = 10 ** log_viscosity_wlf_1955(max(temp_degc, tg_degc - 20.0), tg_degc)
    relaxes_s = viscosity / melt.value("shear")
    stress = 3 * viscosity * strain / over_s * -math.expm1(-over_s / relaxes_s)
    tightest = 3 * viscosity * thickness_m / (2 * bears * over_s)
    return BendLimits(
        strain, stress, 3 * viscosity * strain / bears, max(tightest, thickness_m / 2), stress > bears
    )
