"""Rods, balls, layered walls and pulses against their closed solutions; heat that is never lost."""

import itertools
import math

import numpy as np
import pytest
from scipy.optimize import brentq
from scipy.special import j0, j1, jn_zeros

from umber_pebble.core.heat.conduction import Face, Layer, Stack, conduct, conduct_all
from umber_pebble.core.heat.piece import fat_layer
from umber_pebble.core.materials.load import material

K, RHO, CP, RADIUS = 0.25, 1280.0, 1600.0, 0.01
INSULATED = Face(0.0, 2, 0.05, 0.9, h_fixed_w_m2k=0.0)
WITHIN = 1.5e-3  # 60 nodes and 400 steps, the scheme's own claim; three times that at the face


def rod_theta(bi: float, fo: float, r: float) -> float:
    """incropera-2007, eq. 5.50: infinite cylinder."""
    zeros = [0.0, *jn_zeros(1, 60)]
    zetas = [brentq(lambda z: z * j1(z) - bi * j0(z), a + 1e-9, b - 1e-9) for a, b in itertools.pairwise(zeros)]
    return sum(2 / z * j1(z) / (j0(z) ** 2 + j1(z) ** 2) * math.exp(-(z**2) * fo) * j0(z * r) for z in zetas)


def ball_theta(bi: float, fo: float, r: float) -> float:
    """incropera-2007, eq. 5.51: sphere."""

    def root(n: int) -> float:
        return brentq(
            lambda z: (1 - bi) * math.sin(z) - z * math.cos(z), n * math.pi + 1e-9, (n + 1) * math.pi - 1e-9
        )

    total = 0.0
    for z in (root(n) for n in range(60)):
        c = 4 * (math.sin(z) - z * math.cos(z)) / (2 * z - math.sin(2 * z))
        total += c * math.exp(-(z**2) * fo) * math.sin(z * r) / (z * r)
    return total


@pytest.mark.parametrize("bi", [0.1, 1.0, 10.0])
@pytest.mark.parametrize("fo", [0.05, 0.2, 0.5, 2.0])
@pytest.mark.parametrize(("shape", "theta"), [("rod", rod_theta), ("ball", ball_theta)])
def test_rods_and_balls_follow_their_series_in_the_middle_and_at_the_face(shape, theta, bi, fo) -> None:  # type: ignore[no-untyped-def]
    layer = Layer(shape, RADIUS, 60, K, RHO, CP, CP, 0.0, 1.0)
    outside = Face(0.0, 1, 0.05, 0.9, h_fixed_w_m2k=bi * K / RADIUS)
    times = np.linspace(0, fo * RADIUS**2 * RHO * CP / K, 401)
    out = conduct([layer], outside, INSULATED, times, shape).temps_degc[-1]
    assert out[-1] == pytest.approx(theta(bi, fo, 1 / 120), abs=WITHIN)
    assert out[0] == pytest.approx(theta(bi, fo, 1 - 1 / 120), abs=3 * WITHIN)


def test_a_published_ball_cools_as_its_table_says() -> None:
    # one-term and full series at Fo 0.2, Bi 1: slab 0.9506, cylinder 0.8702, sphere 0.7723 (a second method agreed to 1e-8)
    times = np.linspace(0, 0.2 * RADIUS**2 * RHO * CP / K, 801)
    outside = Face(0.0, 1, 0.05, 0.9, h_fixed_w_m2k=K / RADIUS)
    for shape, published in (("plate", 0.9506418), ("rod", 0.8701742), ("ball", 0.7723116)):
        layer = Layer(shape, RADIUS, 60, K, RHO, CP, CP, 0.0, 1.0)
        middle = conduct([layer], outside, INSULATED, times, shape).temps_degc[-1, -1]
        assert middle == pytest.approx(published, abs=WITHIN)


def test_layers_in_series_pass_the_heat_of_their_resistances() -> None:
    # incropera-2007, eq. 3.14 and 3.36: a composite wall, and a composite ball with a hollow core
    layers = [
        Layer("a", 0.004, 12, 0.25, 1200.0, 1500.0, 1500.0, 0.0, 10.0),
        Layer("b", 0.003, 9, 0.34, 1400.0, 1900.0, 1900.0, 0.0, 10.0, 200.0),
        Layer("c", 0.010, 20, 3.0, 2700.0, 800.0, 800.0, 0.0, 10.0),
    ]
    warm, cold = Face(40.0, 1, 0.05, 0.9, h_fixed_w_m2k=12.0), Face(5.0, 2, 0.05, 0.9, h_fixed_w_m2k=30.0)
    out = conduct(layers, warm, cold, np.linspace(0, 200_000, 2001)).temps_degc[-1]
    resistance = 1 / 12 + 0.004 / 0.25 + 1 / 200 + 0.003 / 0.34 + 0.010 / 3.0 + 1 / 30
    flux = 35 / resistance
    assert out[0] == pytest.approx(40 - flux * (1 / 12 + 0.004 / 24 / 0.25), abs=1e-4)
    assert out[-1] == pytest.approx(5 + flux * (1 / 30 + 0.010 / 40 / 3.0), abs=1e-4)
    shell = Layer("shell", 0.005, 200, 0.25, 1200.0, 1500.0, 1500.0, 0.0, 10.0)
    inner, outer = 0.02, 0.025
    out = conduct([shell], warm, cold, np.linspace(0, 200_000, 2001), "ball", inner).temps_degc[-1]
    resistance = 1 / (12 * outer**2) + (1 / inner - 1 / outer) / 0.25 + 1 / (30 * inner**2)
    assert 40 - 35 / resistance / (12 * outer**2) == pytest.approx(out[0], abs=0.02)
    assert 5 + 35 / resistance / (30 * inner**2) == pytest.approx(out[-1], abs=0.02)


@pytest.mark.parametrize("shape", ["plate", "rod", "ball"])
def test_a_melt_that_sets_in_a_closed_box_keeps_its_heat_to_a_millionth(shape: str) -> None:
    coating = material("melts", "coating")
    cp = coating.value("cp_set")
    hot = fat_layer("hot", coating, 0.004, 12, 31.0, cp_melt=cp)
    cold = fat_layer("cold", coating, 0.004, 12, 8.0, 0.9, cp_melt=cp)
    out = conduct([hot, cold], INSULATED, INSULATED, np.linspace(0, 1800, 900), shape)
    radius = np.linspace(0.008, 0.0, 25)
    power = {"plate": 1, "rod": 2, "ball": 3}[shape]
    volume = radius[:-1] ** power - radius[1:] ** power
    heat = ((cp * out.temps_degc - coating.value("latent_fat") * out.set_frac) * volume).sum(1)
    assert (out.set_frac[-1, :12] - out.set_frac[0, :12]).max() > 0.03
    assert np.abs(heat / heat[0] - 1).max() < 1e-6


def test_glass_gives_up_its_heat_to_a_millionth_on_the_way_through_its_transition() -> None:
    glass = Layer("glass", 0.005, 20, 0.34, 1430.0, 1350.0, 1950.0, 50.0, 130.0)
    times = np.linspace(0, 3000, 301)
    out = conduct([glass], Face(20.0, 1, 0.05, 0.9, h_fixed_w_m2k=25.0), INSULATED, times)

    def heat(t: np.ndarray) -> np.ndarray:  # type: ignore[type-arg]
        turning = np.clip(t - 45.0, 0.0, 10.0)
        return 1350 * np.minimum(t, 45.0) + 1350 * turning + 60 * turning**2 / 2 + 1950 * np.maximum(t - 55.0, 0.0)

    # what crosses the face is told by a lump of the same steps that has no inside
    k, dx, c = 0.34, 0.005 / 20, 1430 * 0.005 / 20
    u = 1 / (0.5 * dx / k + 1 / 25.0)
    lost, stored = 0.0, c * heat(out.temps_degc).sum(1)
    for i in range(1, times.size):
        before, after = out.temps_degc[i - 1, 0], out.temps_degc[i, 0]
        cp = 1350 + 600 * np.clip((before - 45.0) / 10.0, 0.0, 1.0)
        solved = before + (heat(np.array(after)) - heat(np.array(before))) / cp
        lost += u * (solved - 20.0) * (times[i] - times[i - 1])
    assert (stored[0] - stored[-1]) == pytest.approx(lost, rel=1e-6)


def test_heat_that_falls_on_a_face_and_heat_made_inside_both_arrive() -> None:
    plain = Layer("p", 0.004, 10, K, RHO, CP, CP, 0.0, 20.0)
    made = Layer("p", 0.004, 10, K, RHO, CP, CP, 0.0, 20.0, source_w_m3=50_000.0)
    lamp = Face(20.0, 1, 0.05, 0.9, h_fixed_w_m2k=0.0, flux_w_m2=200.0)
    times = np.linspace(0, 100, 101)
    for layer, top in ((plain, lamp), (made, INSULATED)):
        out = conduct([layer], top, INSULATED, times).temps_degc
        assert out[-1].mean() - 20 == pytest.approx(200 * 100 / (0.004 * RHO * CP), rel=1e-9)


def test_many_cases_at_once_are_each_what_they_are_alone() -> None:
    stacks = [
        Stack((Layer("p", d, 10, K, RHO, CP, CP, 0.0, 60.0),), Face(20.0, 1, 0.05, 0.9), INSULATED)
        for d in (0.002, 0.004, 0.008)
    ]
    times = np.linspace(0, 300, 61)
    together, fields, *_ = conduct_all(stacks, 0, times, kept=2)
    assert len(fields) == 2
    for i, stack in enumerate(stacks):
        alone = conduct(stack.layers, stack.top, stack.bottom, times).temps_degc
        assert together.mean_degc[i] == pytest.approx(alone.mean(1), abs=1e-12)
        by_itself, *_ = conduct_all([stack], 0, times)
        assert together.coldest_degc[i] == pytest.approx(by_itself.coldest_degc[0], abs=1e-12)
        # the coldest place is the face, colder than the middle of any cell
        assert (together.coldest_degc[i][1:] < alone.min(1)[1:]).all()
