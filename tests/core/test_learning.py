"""What many runs teach: a prior counts once, readings that say nothing change nothing, and bands hold."""

import math

import numpy as np
import pytest

from umber_pebble.core.bench.track import Curve, Dot, Track
from umber_pebble.core.heat.pot_law import fit_line, law_clock, prior_line
from umber_pebble.core.log.learn import BETWEEN_RUNS_SD, Factor, learned, loss_factor
from umber_pebble.core.spread import Spread

PRIOR = Spread(0.75, 1.0, 1.3)
CLOCK, START = law_clock(22.0), 160.0
RATE = 1.2e-4
NO_CURVE = Curve((), (), (), ())


def run(factor: float, times: list[float], rng: np.random.Generator, sd_k: float = 1.0) -> Track:
    """A synthetic cook that cools by the closed law at so many times the model's rate, read with noise."""
    prior = prior_line(CLOCK.of(START), abs(CLOCK.slope(START)) * 1.0, PRIOR.times(RATE))
    start = CLOCK.of(START + rng.normal(0.0, 1.0))
    ys = [start + factor * RATE * t for t in times]
    read = [CLOCK.back(y) + rng.normal(0.0, sd_k) for y in ys]
    values = [CLOCK.of(v) for v in read]
    line = fit_line(prior, times, values, [abs(CLOCK.slope(v)) * sd_k for v in read])
    dots = tuple(Dot("r", t, v, v, "immersed_swirled", False) for t, v in zip(times, read, strict=True))
    return Track((), NO_CURVE, dots, 0.0, {}, {}, line, prior, NO_CURVE)


def test_a_prior_counts_once_over_many_runs() -> None:
    """Ten runs that each say the pot loses a quarter more: the prior pulls no more than one run of its own weight would."""
    rng = np.random.default_rng(5)
    said = [loss_factor([run(1.25, [120.0, 300.0, 480.0, 700.0], rng)], 1.0) for _ in range(10)]
    evidence = [f for f in said if f is not None]
    assert len(evidence) == 10
    assert np.mean([f.value for f in evidence]) == pytest.approx(1.25, abs=0.04)
    assert learned(PRIOR, evidence).likely == pytest.approx(1.25, abs=0.04)


def test_readings_that_say_nothing_leave_it_as_it_was() -> None:
    rng = np.random.default_rng(6)
    blind = run(1.25, [1.0], rng, sd_k=30.0)
    assert loss_factor([blind], 1.0) is None
    assert learned(PRIOR, []) == PRIOR


def test_bands_hold_over_ten_synthetic_runs() -> None:
    """A hundred pots, each ten runs that differ by 5 %: the learned band holds the pot's own factor about nine times in ten."""
    rng = np.random.default_rng(7)
    inside, wide = 0, []
    for _ in range(100):
        own = rng.normal(1.0, (1.3 - 0.75) / (2 * 1.645))
        evidence = []
        for _ in range(10):
            of = loss_factor([run(own * rng.normal(1.0, BETWEEN_RUNS_SD), [180.0, 360.0, 600.0], rng)], 1.0)
            if of is not None:
                evidence.append(of)
        band = learned(PRIOR, evidence)
        inside += band.low <= own <= band.high
        wide.append(band.high - band.low)
    assert 80 <= inside <= 98
    assert np.mean(wide) < 0.25 * (PRIOR.high - PRIOR.low)


def test_precisions_add_up_by_hand() -> None:
    """Two normals multiplied: mean and deviation in closed form."""
    sd0 = (1.3 - 0.75) / (2 * 1.6448536)
    w0, w1 = 1 / sd0**2, 1 / (0.08**2 + BETWEEN_RUNS_SD**2)
    found = learned(PRIOR, [Factor(1.2, 0.08)])
    assert found.likely == pytest.approx((w0 * 1.0 + w1 * 1.2) / (w0 + w1), rel=1e-6)
    assert found.high - found.likely == pytest.approx(1.6448536 / math.sqrt(w0 + w1), rel=1e-6)
