"""The slab that stands for a chunky cast, against the exact series of a cylinder and a sphere."""

import math
from typing import Any

import pytest
from scipy.optimize import brentq
from scipy.special import j0, j1

from tests.published import rows
from umber_pebble.core.moulds.cavity import SLAB_OVER_TWO_V_A

Root = tuple[float, float]


def slab(bi: float) -> Root:
    z = brentq(lambda z: z * math.tan(z) - bi, 1e-9, math.pi / 2 - 1e-9)
    return z, 4 * math.sin(z) / (2 * z + math.sin(2 * z))


def cylinder(bi: float) -> Root:
    z = brentq(lambda z: z * j1(z) / j0(z) - bi, 1e-9, 2.404825 - 1e-9)
    return z, float(2 * j1(z) / (z * (j0(z) ** 2 + j1(z) ** 2)))


def sphere(bi: float) -> Root:
    z = brentq(lambda z: 1 - z / math.tan(z) - bi, 1e-9, math.pi - 1e-9)
    return z, 4 * (math.sin(z) - z * math.cos(z)) / (2 * z - math.sin(2 * z))


BODIES = {"slab": slab, "cylinder": cylinder, "sphere": sphere}


@rows(__file__)
def test_the_series_have_the_published_coefficients(row: dict[str, Any]) -> None:
    zeta1, c1 = BODIES[row["of"]](row["given"]["bi"])
    assert zeta1 == pytest.approx(row["expects"]["zeta1"], abs=row["within"])
    assert c1 == pytest.approx(row["expects"]["c1"], abs=row["within"])


def cooled_s(root: Root, half_m: float, theta: float) -> float:
    """Time until the middle is at theta, by the first term: exact to 1 % past Fo 0.2 [s for a diffusivity of 1e-7]."""
    zeta1, c1 = root
    return math.log(c1 / theta) / zeta1**2 * half_m**2 / 1e-7


# A bar or a half ball is cooled all round as a cylinder or sphere is: V/A is R/2 and R/3.
@pytest.mark.parametrize(("body", "r_over_va"), [("cylinder", 2.0), ("sphere", 3.0)])
@pytest.mark.parametrize("bi", [0.1, 0.3, 0.6])
@pytest.mark.parametrize("theta", [0.5, 0.2, 0.1])
def test_slabs_between_low_and_high_hold_the_time_of_a_cylinder_and_a_sphere(
    body: str, r_over_va: float, bi: float, theta: float
) -> None:
    radius, k = 0.01, 0.25
    h = bi * k / radius
    exact = cooled_s(BODIES[body](bi), radius, theta)
    low, _, high = (factor * radius / r_over_va for factor in SLAB_OVER_TWO_V_A)
    times = [cooled_s(slab(h * half / k), half, theta) for half in (low, high)]
    assert times[0] * 0.92 <= exact <= times[1]
