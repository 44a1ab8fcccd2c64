"""Spread and its combination: what must hold for any numbers."""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from umber_pebble.core.errors import OutOfRange, require_range
from umber_pebble.core.spread import Spread, combine, exact

NUMBER = st.floats(-1e6, 1e6)


@given(NUMBER, st.lists(st.lists(NUMBER, min_size=1, max_size=3), max_size=6))
def test_a_combined_spread_holds_its_base_and_reaches_each_input_alone(
    base: float, others: list[list[float]]
) -> None:
    spread = combine(base, others)
    assert spread.low <= spread.likely == base <= spread.high
    for results in others:
        alone = combine(base, [results])
        assert spread.low <= alone.low + 1e-6
        assert spread.high >= alone.high - 1e-6


def test_independent_inputs_add_in_quadrature() -> None:
    # jcgm-100-2008, 5.1.2: a sum of independent parts
    spread = combine(10.0, [[7.0, 13.0], [6.0, 14.0]])
    assert (spread.low, spread.high) == (5.0, 15.0)


@given(NUMBER, st.floats(0, 1e6), st.floats(0, 1e6), st.floats(-100, 100))
def test_shift_and_factor_keep_order(likely: float, down: float, up: float, factor: float) -> None:
    spread = Spread(likely - down, likely, likely + up)
    for made in (spread.plus(factor), spread.times(factor), spread.map(math.atan)):
        assert made.low <= made.likely <= made.high


def test_a_falling_spread_and_a_number_out_of_range_are_refused() -> None:
    with pytest.raises(OutOfRange, match="must rise"):
        Spread(3.0, 2.0, 1.0)
    for value in (math.nan, math.inf, -1.0, 2.0):
        with pytest.raises(OutOfRange, match="wall_m") as refused:
            require_range("wall_m", value, 0.0, 1.0)
        assert refused.value.limits == {"low": 0.0, "high": 1.0}
    assert require_range("wall_m", 0.5, 0.0, 1.0) == 0.5
    assert exact(4.0) == Spread(4.0, 4.0, 4.0)
