"""How far a bead of melt bears to reach free: bending by its own weight and by the touch that lifts it."""

import math
from dataclasses import dataclass
from functools import lru_cache

from umber_pebble.core.constants import GRAVITY_M_S2
from umber_pebble.core.families.known import family_of
from umber_pebble.core.materials.load import Material, material
from umber_pebble.core.moulds.traced import Bead

HALF_ROUND_I = math.pi / 8 - 8 / (9 * math.pi)
"""Second moment of a half round about its middle, against r^4."""
HALF_ROUND_FAR = 1 - 4 / (3 * math.pi)
"""How far its top is from its middle, against r."""


@dataclass(frozen=True, slots=True)
class Lifted:
    """Melt as it is lifted: its density [kg/m3], the stress at which half of such beads break [Pa], how steeply their share rises with
    it (Weibull's modulus), the touch of hands [N], the share that may break where a bead still counts as safe [frac]."""

    density_kg_m3: float
    breaks_pa: float
    modulus: float
    touch_n: float
    safe_frac: float

    def breaks_frac(self, stress_pa: float) -> float:
        """The share of beads that break under a stress: 1 - exp(-ln 2 (sigma / sigma_half)^m) [frac]. Source: weibull-1951"""
        return 1 - math.exp(-math.log(2) * (stress_pa / self.breaks_pa) ** self.modulus)

    @property
    def safe_pa(self) -> float:
        """The stress at which so few break. Source: weibull-1951"""
        return self.breaks_pa * math.pow(-math.log(1 - self.safe_frac) / math.log(2), 1 / self.modulus)


def lifted(melt: Material) -> Lifted:
    """A melt's set beads as they are lifted off their paper. Source: assumption"""
    rows = family_of(melt).rows
    piped = material("kitchen", rows, "lifted")
    bends = material("kitchen", rows, "strength").value("bends")
    return Lifted(
        melt.value("density_melt"), bends, piped.value("modulus"), piped.value("touch"), piped.value("safe")
    )


def section_m3(of: Bead) -> float:
    """What a half round bears bending with: its second moment over the distance of its top [m3]. Source: gere-goodno-2012"""
    return HALF_ROUND_I * of.radius_m**3 / HALF_ROUND_FAR


def weighs_n_m(of: Bead, melt: Lifted) -> float:
    """Its weight a length [N/m]. Source: definition"""
    return of.cut_m2 * melt.density_kg_m3 * GRAVITY_M_S2


def held_both_pa(of: Bead, melt: Lifted, length_m: float) -> float:
    """Stress of a bead held at both ends, by its weight and a touch in its middle: M = q L^2 / 12 + P L / 8 [Pa].

    Args:
        of, melt: the bead, of what
        length_m: between its ends [m]
    Source: gere-goodno-2012
    """
    moment = weighs_n_m(of, melt) * length_m**2 / 12 + melt.touch_n * length_m / 8
    return moment / section_m3(of)


def held_once_pa(of: Bead, melt: Lifted, kg: float, middle_m: float, reach_m: float) -> float:
    """Stress where all hangs on one end: the weight at its middle, and a touch at its tip: M = G a + P L [Pa].

    Args:
        of, melt: the bead where it is held, of what
        kg: of what hangs there
        middle_m: how far the middle of that is [m]
        reach_m: how far its tip is [m]
    Source: gere-goodno-2012
    """
    return (kg * GRAVITY_M_S2 * middle_m + melt.touch_n * reach_m) / section_m3(of)


@lru_cache(maxsize=64)
def span_held_m(of: Bead, melt: Lifted) -> float:
    """The longest that is safe held at both ends [m]. Source: gere-goodno-2012"""
    return _longest(weighs_n_m(of, melt) / 12, melt.touch_n / 8, melt.safe_pa * section_m3(of))


@lru_cache(maxsize=64)
def tip_held_m(of: Bead, melt: Lifted) -> float:
    """The longest loose end that is safe [m]. Source: gere-goodno-2012"""
    return _longest(weighs_n_m(of, melt) / 2, melt.touch_n, melt.safe_pa * section_m3(of))


def _longest(square: float, plain: float, moment: float) -> float:
    """Where square L^2 + plain L comes to a moment."""
    return (math.sqrt(plain**2 + 4 * square * moment) - plain) / (2 * square)
