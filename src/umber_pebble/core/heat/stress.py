"""Stress from uneven cooling of a sugar glass, and how slowly a thick piece must cool."""

from dataclasses import dataclass

import numpy as np

from umber_pebble.core.errors import require_range
from umber_pebble.core.heat.piece import PieceRun
from umber_pebble.core.materials.load import Material


@dataclass(frozen=True, slots=True)
class CoolingStress:
    """Tension that cooling leaves in a piece or puts on its skin [Pa], against what is safe; how fast the piece went
    through its annealing range and how fast it safely may [K/s]; when the worst comes [s from the pour]."""

    residual_pa: float
    skin_pa: float
    safe_pa: float
    rate_k_s: float
    safe_rate_k_s: float
    worst_s: float

    @property
    def risk(self) -> str:
        """ "safe", "may crack" above what is safe, "cracks" above twice that."""
        worst = max(self.residual_pa, self.skin_pa) / self.safe_pa
        return "safe" if worst <= 1 else "may crack" if worst <= 2 else "cracks"


def stress_per_kelvin_pa_k(melt: Material) -> float:
    """Stress of a plate held flat, for each kelvin a place differs from its mean: E a / (1 - nu) [Pa/K].

    Source: timoshenko-goodier-1970, section 149
    """
    return melt.value("young") * melt.value("expansion") / (1 - melt.value("poisson"))


def plate_difference_k(rate_k_s: float, thickness_m: float, diffusivity_m2_s: float) -> float:
    """Middle less face of a plate that cools evenly at a rate from both faces, q d2 / 8a [K].

    Args:
        rate_k_s: above zero
        thickness_m: of the plate, 0.1 mm to 0.2 m
        diffusivity_m2_s: above zero
    Raises: OutOfRange: thickness_m outside.
    Source: timoshenko-goodier-1970
    """
    require_range("thickness_m", thickness_m, 1e-4, 0.2)
    return rate_k_s * thickness_m**2 / (8 * diffusivity_m2_s)


def safe_rate_k_s(melt: Material, thickness_m: float) -> float:
    """Fastest even cooling of a plate through its annealing range: its skin, 2/3 of the difference away from the
    mean, bears no more than is safe [K/s].

    Args:
        melt: the glass
        thickness_m: between its two cooled faces
    Raises: OutOfRange: thickness_m outside.
    Source: timoshenko-goodier-1970
    """
    safe_k = melt.value("safe_stress") / stress_per_kelvin_pa_k(melt)
    diffusivity = melt.value("conductivity") / (melt.value("density_melt") * melt.value("cp_glass"))
    return 1.5 * safe_k / plate_difference_k(1.0, thickness_m, diffusivity)


def cooling_stress(melt: Material, thickness_m: float, run: PieceRun, anneal_degc: float) -> CoolingStress:
    """What a run of the engine does to a piece of glass.

    Above its annealing point the glass gives way; what its places differ by as the last one passes that point is
    built in, and shows as tension inside once all is even. From then on what they differ by besides pulls at the
    coldest, its skin.
    Args:
        melt, thickness_m: the piece
        run: how it cools
        anneal_degc: where stress no longer goes in minutes [degC]
    Source: timoshenko-goodier-1970
    """
    per_k, mean = stress_per_kelvin_pa_k(melt), run.mean_degc
    glassy = np.flatnonzero(run.hottest_degc <= anneal_degc)
    rate_safe = safe_rate_k_s(melt, thickness_m)
    if glassy.size == 0:
        return CoolingStress(0.0, 0.0, melt.value("safe_stress"), 0.0, rate_safe, 0.0)
    i = int(glassy[0])
    above, below = np.searchsorted(-mean, [-(anneal_degc + 5), -(anneal_degc - 5)])
    span = run.times_s[min(below, mean.size - 1)] - run.times_s[above]
    rate = float((mean[above] - mean[min(below, mean.size - 1)]) / span) if span > 0 else 0.0
    built_in = float(run.hottest_degc[i] - mean[i])
    pulls = (mean - run.coldest_degc)[i:] - float(mean[i] - run.coldest_degc[i])
    worst = int(pulls.argmax())
    return CoolingStress(
        per_k * max(built_in, 0.0),
        per_k * max(float(pulls[worst]), 0.0),
        melt.value("safe_stress"),
        rate,
        rate_safe,
        float(run.times_s[i + worst]) if pulls[worst] > built_in else float(run.times_s[-1]),
    )
