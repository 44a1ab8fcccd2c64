"""Cooling curves of an independent generator with noise, read back; and curves that cannot be read."""

from functools import cache

import numpy as np
import pytest
from scipy.integrate import solve_ivp

from umber_pebble.core.errors import Missing, OutOfRange
from umber_pebble.core.temper.curve import Bands, read_curve

BANDS = Bands(-0.3, 0.3)


@cache
def cup(seed: float, u: float) -> tuple[np.ndarray, np.ndarray]:  # type: ignore[type-arg]
    """A cup of 6 mm radius in a bath of 0.5 C, its fat setting by Avrami's law in rate form; every second for 7 minutes."""
    rho_cp, latent_k = 1270.0 * 1650.0, 45000.0 / 1650.0
    k0 = np.log(2) ** 0.5 / 250 * np.exp(25 / 12.5)

    def rate(_: float, z: np.ndarray) -> list[float]:  # type: ignore[type-arg]
        t, x = z
        rest = 0.95 / (1 + np.exp((t - 32.5) / 1.3))
        k = k0 * np.exp(-25 / max(32.5 - t, 1e-3)) if t < 32.5 else 0.0
        r = min(max(x / rest, 1e-9), 1 - 1e-9)
        sets = rest * 2 * k * (1 - r) * np.sqrt(-np.log(1 - r)) if x < rest else 0.0
        return [-u * (2 / 0.006) / rho_cp * (t - 0.5) + latent_k * sets, sets]

    times = np.arange(0, 420.0, 1.0)
    return times, solve_ivp(rate, (0, 420), [31.5, seed], t_eval=times, rtol=1e-8, atol=1e-10).y[0]


def true_slope(seed: float, u: float) -> float:
    """Least steep slope after the first fall, of the curve without noise [K/min]."""
    times, temps = cup(seed, u)
    slope = np.gradient(temps, times) * 60
    return next(float(b) for a, b, c in zip(slope[20:], slope[21:], slope[22:], strict=False) if a < b >= c)


@pytest.mark.parametrize("seed", [0.0005, 0.002, 0.005, 0.01, 0.02, 0.05])
@pytest.mark.parametrize("u", [80.0, 140.0])
@pytest.mark.parametrize(("noise", "every"), [(0.0, 1), (0.05, 1), (0.05, 3)])
def test_the_slope_is_that_of_the_curve_without_its_noise(seed: float, u: float, noise: float, every: int) -> None:
    times, temps = cup(seed, u)
    read = temps + np.random.default_rng(7).normal(0, noise, temps.size)
    found = read_curve(times[::every], read[::every], BANDS)
    assert found.slope_k_min.likely == pytest.approx(true_slope(seed, u), abs=0.05 + 3 * noise * every**0.5)
    assert 5.0 < found.at_degc < 25.0
    assert 1 / 3 <= found.sure_frac <= 1.0


def test_more_seed_is_more_tempered_and_the_bands_are_the_probes_own() -> None:
    kinds = [read_curve(*cup(seed, 80.0), BANDS).kind for seed in (0.00005, 0.005, 0.05)]
    assert kinds == ["under", "well", "over"]
    own = Bands(-1.2, -0.9)
    assert read_curve(*cup(0.05, 80.0), own).kind == "well"
    with pytest.raises(OutOfRange, match="over_below_k_min"):
        Bands(0.4, 0.3)


def test_points_out_of_order_and_twice_at_one_moment_change_nothing() -> None:
    times, temps = cup(0.01, 80.0)
    order = np.random.default_rng(3).permutation(times.size)
    again = np.concatenate((order, order[:40]))
    one, other = read_curve(times, temps, BANDS), read_curve(times[again], temps[again], BANDS)
    assert other.slope_k_min.likely == pytest.approx(one.slope_k_min.likely, abs=1e-9)


@pytest.mark.parametrize(
    ("change", "match"),
    [
        (lambda t, y: (t[:8], y[:8]), "at least"),
        (lambda t, y: (t[:60], y[:60]), "too short"),
        (lambda t, y: (np.delete(t, range(90, 150)), np.delete(y, range(90, 150))), "nothing was read"),
        (lambda t, y: (t, y * 1.8 + 32), "Fahrenheit"),
        (lambda t, y: (t, np.where(t == 5, np.nan, y)), "no number"),
        (lambda t, y: (t[:200], 40 - 0.0004 * t[:200] ** 2), "never slows"),
    ],
)
def test_curves_that_say_nothing_are_refused_in_words(change, match: str) -> None:  # type: ignore[no-untyped-def]
    with pytest.raises((OutOfRange, Missing), match=match):
        read_curve(*change(*cup(0.01, 80.0)), BANDS)


def test_the_slope_is_unbiased_and_sure_only_when_it_is() -> None:
    """Twenty noises on each of four curves: the mean is off by next to nothing, the band holds, and a sure class is the right one."""
    inside, sure, right = list[bool](), 0, 0
    for seed, u in ((0.002, 80.0), (0.01, 80.0), (0.005, 140.0), (0.02, 140.0)):
        times, temps = cup(seed, u)
        true, off = true_slope(seed, u), list[float]()
        of = "over" if true < -0.3 else "under" if true > 0.3 else "well"
        for k in range(20):
            found = read_curve(times, temps + np.random.default_rng(100 + k).normal(0, 0.1, temps.size), BANDS)
            off.append(found.slope_k_min.likely - true)
            inside.append(found.slope_k_min.low <= true <= found.slope_k_min.high)
            sure += found.is_sure
            right += found.is_sure and found.kind == of
        assert abs(np.mean(off)) < 0.04
    assert 0.8 <= np.mean(inside) <= 0.98
    assert sure > 5
    assert right >= 0.93 * sure
