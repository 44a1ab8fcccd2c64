"""When a pour no longer fills: against the published similarity solution, an independent integration, and practice."""

import math
from dataclasses import replace
from typing import Any

import numpy as np
import pytest
from scipy.integrate import solve_ivp

from tests.conftest import WOOD, cooks_of, make_plan, refilled
from tests.published import rows
from umber_pebble.core.glass.viscosity import temperature_at_log_viscosity_degc
from umber_pebble.core.heat.casting import Casting, PlaceStay
from umber_pebble.core.heat.fills import (
    _dose,
    detail_dose_s_per_pa_s,
    fills_until_log_pa_s,
    spread_dose_s_per_pa_s,
)
from umber_pebble.core.log.learn import Factor, fills_off, learned
from umber_pebble.core.materials.load import material
from umber_pebble.core.plan.cooks import pour_of
from umber_pebble.core.spread import Spread, exact

ISOMALT = material("melts", "isomalt")
TG = exact(47.3)
REACH = Spread(0.010, 0.015, 0.025)


def cast(depth_m: float, mould: str) -> Casting:
    return Casting(
        ISOMALT,
        material("moulds", mould),
        exact(depth_m),
        0.0125,
        0.003,
        exact(160.0),
        TG,
        (PlaceStay(0.0, WOOD),),
    )


def closes_degc(depth_m: float, mould: str, detail_m: float | None = None, pushed_pa: float = 0.0) -> float:
    log = fills_until_log_pa_s(cast(depth_m, mould), REACH, pushed_pa, detail_m).likely
    return temperature_at_log_viscosity_degc(log, TG.likely)


def test_a_round_pour_spreads_as_hupperts_current() -> None:
    """The thin-film equation solved on a grid (scipy's LSODA): a cap of fixed volume reaches a radius when the dose says so."""
    density, eta, volume = 1430.0, 20.0, 8e-6
    n, size = 240, 0.05
    r = (np.arange(n) + 0.5) * size / n
    faces = np.arange(1, n) * size / n
    start = np.where(r < 0.008, 1.0 - (r / 0.008) ** 2, 0.0)
    start *= volume / np.sum(2 * math.pi * r * start * size / n)
    mobility = density * 9.80665 / (3 * eta)

    def rate(_: float, h: np.ndarray) -> np.ndarray:  # type: ignore[type-arg]
        mean = 0.5 * (h[1:] ** 3 + h[:-1] ** 3)
        flux = np.concatenate(([0.0], -mobility * faces * mean * np.diff(h) / (size / n), [0.0]))
        return -np.diff(flux) / (r * size / n)

    seconds = 60.0
    h = solve_ivp(rate, (0.0, seconds), start, "LSODA", rtol=1e-6, atol=1e-9).y[:, -1]
    reached = float(r[np.flatnonzero(h > 2e-5)[-1]])
    depth = volume / (math.pi * reached**2)
    assert eta * spread_dose_s_per_pa_s(density, reached, depth) == pytest.approx(seconds, rel=0.25)


def test_a_groove_fills_as_flow_between_two_walls() -> None:
    """Plane Poiseuille flow by hand: dx/dt = w^2 p / (12 eta x), so t = 6 eta (d / w)^2 / p."""
    w, d, p, eta = 0.001, 0.002, 80.0, 15.0
    found = solve_ivp(
        lambda t, x: [w**2 * p / (12 * eta * x[0])], (0.0, 30.0), [1e-7], rtol=1e-9, atol=1e-12, dense_output=True
    )
    at = next(t for t in np.linspace(0, 30, 3001) if found.sol(t)[0] >= d)
    assert eta * detail_dose_s_per_pa_s(p, d / w) == pytest.approx(at, rel=0.01)


def test_the_dose_is_time_over_viscosity() -> None:
    times = np.linspace(0.0, 100.0, 2001)
    still = np.full_like(times, TG.likely + 100.0)
    assert _dose(times, still, TG.likely) == pytest.approx(100.0 / 10**0.496042, rel=1e-5)


# Common practice, no source: rested to about 132 degC or below it pours thick and fills; thin work is poured hotter.
@pytest.mark.parametrize(
    ("depth_m", "mould", "low", "high"),
    [
        (0.004, "silicone", 110.0, 130.0),
        (0.006, "silicone", 100.0, 120.0),
        (0.004, "aluminium", 118.0, 138.0),
        (0.0025, "silicone", 125.0, 150.0),
        (0.0018, "silicone", 140.0, 158.0),
    ],
)
def test_what_may_still_be_poured_depends_on_depth_and_mould(
    depth_m: float, mould: str, low: float, high: float
) -> None:
    assert low < closes_degc(depth_m, mould) < high


def test_deeper_warmer_moulds_and_a_bag_close_later_a_fine_detail_sooner() -> None:
    assert closes_degc(0.006, "silicone") < closes_degc(0.004, "silicone") < closes_degc(0.004, "aluminium")
    fine, plain = closes_degc(0.006, "silicone", 0.0008), closes_degc(0.006, "silicone")
    assert fine > plain + 5.0
    assert closes_degc(0.006, "silicone", 0.0008, 10_000.0) < fine


def test_the_plans_window_is_that_of_what_is_poured() -> None:
    plan = make_plan()
    way = plan.ways["isomalt"]
    deep, thin = (pour_of(plan, way, 0.3, [refilled(plan.lines[0], d)])[1] for d in (0.006, 0.003))
    assert thin.close_degc.likely > deep.close_degc.likely + 10.0
    assert deep.closes.likely > thin.closes.likely + 120.0
    # practised: about 132 degC and below
    usual = pour_of(plan, way, 0.3, [plan.lines[0]])[1]
    assert usual.close_degc.likely < 130.0


def test_the_pots_own_past_pours_move_it() -> None:
    assert fills_off([]) is None
    filled = fills_off([(0.3, True)] * 3)
    short = fills_off([(-0.2, False)] * 3)
    assert filled is not None and short is not None
    assert filled.value > 0.2 > -0.1 > short.value
    prior = Spread(-0.4, 0.0, 0.4)
    after = learned(prior, [filled, filled], -math.inf)
    assert after.likely > 0.15
    assert after.high - after.low < prior.high - prior.low
    # a pour far inside the window says nothing
    assert fills_off([(-3.0, True)]) is None
    plan = make_plan()
    later = make_plan({"fills_off": learned(prior, [Factor(0.4, 0.1)], -math.inf)})
    before, moved = (cooks_of(p, [[(0, 14)]])[0].window.closes.likely for p in (plan, later))
    assert moved > before + 60.0
    assert replace(plan.ways["isomalt"], fills_off=exact(0.0)) == plan.ways["isomalt"]


CASES = {
    "spread_dose": lambda reach_m, depth_m: spread_dose_s_per_pa_s(1430.0, reach_m, depth_m),
}


@rows(__file__)
def test_outside_values(row: dict[str, Any]) -> None:
    assert CASES[row["of"]](**row["given"]) == pytest.approx(row["expects"], abs=row["within"])
