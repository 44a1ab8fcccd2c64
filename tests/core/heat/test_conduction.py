"""The finite volumes against the exact series of a plane wall, and against conservation."""

import math
from typing import Any

import numpy as np
import pytest
from scipy.optimize import brentq

from tests.published import rows
from umber_pebble.core.errors import OutOfRange
from umber_pebble.core.fat.crystallise import setting_of
from umber_pebble.core.heat.conduction import Face, Layer, Stack, conduct, conduct_all
from umber_pebble.core.heat.times import falls_below_s, growing_times_s
from umber_pebble.core.materials.load import material

K, RHO, CP, HALF = 0.34, 1430.0, 1950.0, 0.005
SERIES_WITHIN = 1.5e-3  # 60 nodes and 400 steps, the scheme's own claim


def roots(bi: float, count: int) -> list[float]:
    return [
        brentq(lambda z: z * math.tan(z) - bi, n * math.pi + 1e-12, (n + 0.5) * math.pi - 1e-12)
        for n in range(count)
    ]


def series(bi: float, fo: float, place: float) -> float:
    """Exact theta at place (0 middle, 1 face) of a wall."""
    total = 0.0
    for z in roots(bi, 60):
        c = 4 * math.sin(z) / (2 * z + math.sin(2 * z))
        total += c * math.exp(-(z**2) * fo) * math.cos(z * place)
    return total


@rows(__file__)
def test_the_series_used_below_has_the_published_coefficients(row: dict[str, Any]) -> None:
    z = roots(row["given"]["bi"], 1)[0]
    assert z == pytest.approx(row["expects"]["zeta1"], abs=row["within"])
    c = 4 * math.sin(z) / (2 * z + math.sin(2 * z))
    assert c == pytest.approx(row["expects"]["c1"], abs=row["within"])


@pytest.mark.parametrize("bi", [0.1, 1.0, 10.0])
@pytest.mark.parametrize("fo", [0.05, 0.2, 0.5, 2.0])
def test_wall_follows_the_exact_series(bi: float, fo: float) -> None:
    # half a wall: insulated in the middle, convection outside
    end = fo * HALF**2 * RHO * CP / K
    layer = Layer("wall", HALF, 60, K, RHO, CP, CP, 0.0, 1.0)
    outside = Face(0.0, 1, 0.05, 0.9, h_fixed_w_m2k=bi * K / HALF)
    insulated = Face(0.0, 2, 0.05, 0.9, h_fixed_w_m2k=0.0)
    out = conduct([layer], outside, insulated, np.linspace(0, end, 401)).temps_degc[-1]
    assert out[-1] == pytest.approx(series(bi, fo, 1 / 120), abs=SERIES_WITHIN * 3)
    assert out[0] == pytest.approx(series(bi, fo, 1 - 1 / 120), abs=SERIES_WITHIN)


def test_heat_lost_by_one_face_is_what_the_layers_lose() -> None:
    piece = Layer("piece", 0.004, 15, 0.34, 1430.0, 1900.0, 1900.0, 0.0, 140.0)
    wall = Layer("wall", 0.003, 8, 0.25, 1150.0, 1400.0, 1400.0, 0.0, 22.0)
    times = np.linspace(0, 600, 2401)
    out = conduct(
        [piece, wall],
        Face(22.0, 1, 0.05, 0.9, h_fixed_w_m2k=0.0),
        Face(22.0, 2, 0.05, 0.9, h_fixed_w_m2k=15.0),
        times,
    )
    stored = out.of_layer(0).mean(1) * 0.004 * 1430 * 1900 + out.of_layer(1).mean(1) * 0.003 * 1150 * 1400
    u = 1 / (1 / 15.0 + 0.5 * (0.003 / 8) / 0.25)
    lost = np.sum(u * (out.temps_degc[1:, -1] - 22.0) * np.diff(times))
    assert stored[0] - stored[-1] == pytest.approx(lost, rel=1e-9)


def test_a_layer_of_no_thickness_is_refused() -> None:
    with pytest.raises(OutOfRange, match=r"piece\.thickness_m"):
        Layer("piece", 0.0, 5, K, RHO, CP, CP, 0.0, 20.0)


def test_crossing_is_between_points_and_infinite_when_never() -> None:
    times, temps = np.array([0.0, 10.0, 20.0]), np.array([100.0, 80.0, 70.0])
    assert falls_below_s(times, temps, 75.0) == pytest.approx(15.0)
    assert falls_below_s(times, temps, 60.0) == math.inf
    assert growing_times_s(3600.0)[-1] == 3600.0


def test_cases_of_different_kinds_are_marched_side_by_side_as_alone() -> None:
    """What one case does is no matter of what stands beside it: a plain wall, one that turns to glass, one that sets."""
    air, times = Face(20.0, 1, 0.05, 0.9), growing_times_s(600.0)
    setting = setting_of(material("melts", "coating"))
    stacks = [
        Stack((Layer("l", 0.01, 9, 0.2, 1200.0, low, 2000.0, 60.0, 90.0, setting=of),), air, air)
        for low, of in ((2000.0, None), (1500.0, None), (1600.0, setting))
    ]
    together = conduct_all(stacks, 0, times)[0]
    for i, stack in enumerate(stacks):
        alone = conduct_all([stack], 0, times)[0]
        assert together.mean_degc[i] == pytest.approx(alone.mean_degc[0], abs=1e-9)
        assert together.least_set[i] == pytest.approx(alone.least_set[0], abs=1e-12)
    assert together.least_set[2, -1] > 0.0
    assert together.mean_degc[0, -1] != pytest.approx(together.mean_degc[1, -1], abs=0.1)
