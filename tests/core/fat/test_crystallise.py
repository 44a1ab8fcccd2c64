"""Setting against its closed form, and melting fronts against Stefan's and Neumann's solutions."""

import math
from typing import Any

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from scipy.optimize import brentq

from tests.published import rows
from umber_pebble.core.errors import OutOfRange
from umber_pebble.core.fat.crystallise import (
    SOLVED_K,
    Setting,
    rest_share_frac,
    set_after_frac,
    set_along_frac,
    set_in_own_heat,
    setting_of,
)
from umber_pebble.core.heat.conduction import Face, Layer, conduct
from umber_pebble.core.materials.load import material

COATING = setting_of(material("melts", "coating"))
COLD = -40.0  # far below its range, where all that can set is set at rest


# Avrami (1939): the share at twice the half-time is 1 - 2^-(2^n), whatever the material.
@pytest.mark.parametrize(("n", "share"), [(1, 0.75), (2, 0.9375), (3, 0.99609375), (4, 0.9999847412)])
def test_at_one_temperature_it_sets_by_the_closed_form(n: int, share: float) -> None:
    setting = Setting(32.0, 1.6, 1.0, n, 180.0, COLD + 1.0, 0.0, 4e4, 1e-14)
    times = np.linspace(0.0, 360.0, 721)
    found = set_along_frac(times, np.full(times.size, COLD), setting)
    assert found[360] == pytest.approx(0.5, abs=1e-3)
    assert found[-1] == pytest.approx(share, abs=1e-3)


def test_the_half_time_is_that_of_the_table() -> None:
    times = np.linspace(0.0, 180.0, 181)
    rest = rest_share_frac(15.0, 32.0, 1.6, 0.97)
    assert set_along_frac(times, np.full(181, 15.0), COATING)[-1] == pytest.approx(
        rest / 2, rel=0.12
    )  # it starts a little ahead, from its nuclei


def test_what_was_hot_for_hours_sets_again() -> None:
    # of what is set e^-t/T stays, which no number is small enough for
    times = np.linspace(0.0, 400_000.0, 40_001)
    found = set_along_frac(times, np.where(times < 200_000.0, 140.0, 15.0), COATING)
    assert found[20_000] == 0.0
    assert found[-1] == pytest.approx(rest_share_frac(15.0, 32.0, 1.6, 0.97), abs=1e-3)


def test_steps_of_any_length_give_the_same_share() -> None:
    k = COATING.kinetics()
    once = set_after_frac(1e-4, 12.0, 300.0, k)
    share = 1e-4
    for _ in range(300):
        share = set_after_frac(share, 12.0, 1.0, k)
    assert share == pytest.approx(once, rel=1e-9)


@settings(max_examples=200, deadline=None)
@given(st.floats(1e-5, 0.97), st.floats(-30.0, 60.0), st.floats(0.01, 600.0), st.floats(1.0, 60.0))
def test_no_heat_is_lost_in_its_own_warming(share: float, temp: float, seconds: float, warms_k: float) -> None:
    x, t = set_in_own_heat(share, temp, seconds, warms_k, COATING.kinetics())
    assert t - temp == pytest.approx(warms_k * (x - share), abs=1e-9)
    assert 0.0 <= x <= 0.9701
    # neither past its rest at the temperature it ends at, nor back from it, but for what SOLVED_K leaves unsolved
    rest, slack = rest_share_frac(t, 32.0, 1.6, 0.97), SOLVED_K / warms_k + 1e-3
    assert min(share, rest) - slack <= x <= max(share, rest) + slack

    def off(end: float) -> float:
        return end - temp - warms_k * (set_after_frac(share, end, seconds, COATING.kinetics()) - share)

    # scipy's root finder on the equation itself
    root = brentq(off, temp - warms_k - 1, temp + warms_k + 1, xtol=1e-9)
    assert t == pytest.approx(root, abs=SOLVED_K + 1e-4 * warms_k)


SHARP = {"width_k": 0.02, "most_frac": 1.0, "exponent": 1.0, "half_s": 0.01, "half_at_degc": 20.0, "slope_k": 0.0}
CELLS, DEEP_M, STEP_S = 240, 0.03, 0.25


@rows(__file__)
def test_a_sharp_front_moves_as_neumann_and_stefan_say(row: dict[str, Any]) -> None:
    g = row["given"]
    setting = Setting(melts_degc=g["melts"], latent_j_kg=g["latent"], start_frac=1e-6, **SHARP)
    layer = Layer(
        "deep",
        DEEP_M,
        CELLS,
        g["k_solid"],
        g["density"],
        g["cp_solid"],
        g["cp_liquid"],
        -500.0,
        g["start"],
        melt_conductivity_w_mk=g["k_liquid"],
        setting=setting,
    )
    wall = Face(g["wall"], 1, 0.05, 0.9, h_fixed_w_m2k=1e7)
    times = np.arange(0.0, g["time"] + STEP_S / 2, STEP_S)
    set_share = conduct([layer], wall, Face(0.0, 2, 0.05, 0.9, h_fixed_w_m2k=0.0), times).set_frac[-1]
    front = set_share.sum() * DEEP_M / CELLS
    assert front == pytest.approx(row["expects"], abs=row["within"])


def test_a_setting_slab_keeps_its_heat() -> None:
    layer = Layer("piece", 0.005, 15, 0.25, 1245.0, 1600.0, 1600.0, 0.0, 38.0, setting=COATING)
    cold = Face(4.0, 1, 0.05, 0.9, h_fixed_w_m2k=12.0)
    times = np.linspace(0.0, 1800.0, 1801)
    out = conduct([layer], cold, Face(4.0, 2, 0.05, 0.9, h_fixed_w_m2k=0.0), times)
    stored = 0.005 * 1245 * (1600 * out.temps_degc.mean(1) - COATING.latent_j_kg * out.set_frac.mean(1))
    u = 1 / (1 / 12.0 + 0.5 * (0.005 / 15) / 0.25)
    # the flow of each step is that before the cells warm themselves: exact once that is undone
    before = out.temps_degc[1:, 0] - (COATING.latent_j_kg / 1600) * np.diff(out.set_frac[:, 0])
    lost = np.sum(u * (before - 4.0) * np.diff(times))
    assert stored[0] - stored[-1] == pytest.approx(lost, rel=1e-6)
    assert out.set_frac[-1].min() > 0.85


def test_a_fat_without_a_half_time_is_refused() -> None:
    with pytest.raises(OutOfRange, match="half_s"):
        Setting(32.0, 1.6, 1.0, 3.0, 0.0, 15.0, 15.0, 4e4, 1e-4)
    assert math.isfinite(COATING.kinetics()[4])
