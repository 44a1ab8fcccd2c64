"""Order of the scheme, and the engine against simple bodies known in closed form."""

import math
from typing import Any

import numpy as np
import pytest
from scipy.special import erf

from tests.published import rows
from umber_pebble.core.heat.conduction import Face, Layer, conduct

K, RHO, CP = 0.34, 1430.0, 1950.0
INSULATED = Face(0.0, 2, 0.05, 0.9, h_fixed_w_m2k=0.0)


def cooled(nodes: int, steps: int, depth_m: float = 0.01, h: float = 34.0, end_s: float = 200.0) -> float:
    layer = Layer("wall", depth_m, nodes, K, RHO, CP, CP, 0.0, 1.0)
    times = np.linspace(0, end_s, steps + 1)
    return float(
        conduct([layer], Face(0.0, 1, 0.05, 0.9, h_fixed_w_m2k=h), INSULATED, times).temps_degc[-1].mean()
    )


def test_error_falls_with_the_step_and_with_the_square_of_the_cell() -> None:
    fine = cooled(40, 6400)
    in_time = [abs(cooled(40, n) - fine) for n in (50, 100, 200)]
    assert in_time[0] / in_time[1] == pytest.approx(2.0, abs=0.25)
    assert in_time[1] / in_time[2] == pytest.approx(2.0, abs=0.25)
    exact_in_space = cooled(160, 800)
    in_space = [abs(cooled(n, 800) - exact_in_space) for n in (5, 10, 20)]
    assert math.log2(in_space[0] / in_space[1]) == pytest.approx(2.0, abs=0.4)
    assert math.log2(in_space[1] / in_space[2]) == pytest.approx(2.0, abs=0.4)


@pytest.mark.parametrize("time_s", [60.0, 300.0])
def test_a_deep_body_is_the_half_space_with_convection(time_s: float) -> None:
    # incropera-2007, eq. 5.60: surface convection on a semi-infinite solid
    h, alpha = 25.0, K / (RHO * CP)
    layer = Layer("deep", 0.06, 240, K, RHO, CP, CP, 0.0, 0.0)
    times = np.linspace(0, time_s, 1601)
    found = conduct([layer], Face(1.0, 1, 0.05, 0.9, h_fixed_w_m2k=h), INSULATED, times).temps_degc[-1]
    x = (np.arange(240) + 0.5) * 0.06 / 240
    root = np.sqrt(alpha * time_s)
    eta = x / (2 * root)
    second = np.exp(h * x / K + h**2 * alpha * time_s / K**2) * (1 - erf(eta + h * root / K))
    assert found == pytest.approx(1 - erf(eta) - second, abs=1.5e-3)


def test_two_walls_in_perfect_contact_meet_at_the_contact_temperature() -> None:
    # incropera-2007, eq. 5.63: two semi-infinite solids brought together
    hot = Layer("hot", 0.05, 250, 0.34, 1430.0, 1950.0, 1950.0, 0.0, 130.0)
    cold = Layer("cold", 0.05, 250, 3.0, 2700.0, 800.0, 800.0, 0.0, 12.0)
    out = conduct([hot, cold], INSULATED, INSULATED, np.linspace(0, 20, 801)).temps_degc[-1]
    effusivity = [math.sqrt(0.34 * 1430 * 1950), math.sqrt(3.0 * 2700 * 800)]
    contact = (effusivity[0] * 130 + effusivity[1] * 12) / sum(effusivity)
    k_half = (0.34 / 2, 3.0 / 2)
    met = (k_half[0] * out[249] + k_half[1] * out[250]) / sum(k_half)
    assert met == pytest.approx(contact, abs=0.5)


def test_a_heat_capacity_that_turns_gives_up_its_enthalpy() -> None:
    # lumped: from 90 to 20 through a step from 2000 to 1000 at 50 takes the heat of both parts
    layer = Layer("thin", 0.0005, 3, 50.0, 1000.0, 1000.0, 2000.0, 50.0, 90.0)
    times = np.linspace(0, 400, 8001)
    out = conduct([layer], Face(0.0, 1, 0.05, 0.9, h_fixed_w_m2k=10.0), INSULATED, times)
    temps = out.temps_degc.mean(1)
    lost = np.sum(10.0 * temps[1:] * np.diff(times))
    stored = 0.0005 * 1000 * (2000 * (90 - 50) + 1000 * (50 - temps[-1]))
    assert lost == pytest.approx(stored, rel=0.01)


def _half_space(seconds: float) -> float:
    """What has been felt two millimetres below the face of a deep body that stands in a stream of 5 W/m2K."""
    layer = Layer("deep", 0.06, 240, 0.26, 1290.0, 1600.0, 1600.0, 0.0, 0.0)
    times = np.linspace(0, seconds, 1601)
    found = conduct([layer], Face(1.0, 1, 0.05, 0.9, h_fixed_w_m2k=5.0), INSULATED, times).temps_degc[-1]
    return float(np.interp(0.002, (np.arange(240) + 0.5) * 0.06 / 240, found))


CASES = {
    "half_space": _half_space,
}


@rows(__file__)
def test_outside_values(row: dict[str, Any]) -> None:
    assert CASES[row["of"]](**row["given"]) == pytest.approx(row["expects"], abs=row["within"])
