"""Cavities from sizes and water: handbook water, and impossible sizes."""

import math
from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.conftest import make_disc
from tests.published import rows
from umber_pebble.core.errors import Missing, OutOfRange
from umber_pebble.core.materials.load import Material
from umber_pebble.core.moulds.cavity import Cavity, level_m, volume_m3
from umber_pebble.core.moulds.measured import fit_cavity, round_by_water, water_density_kg_m3
from umber_pebble.core.moulds.outline import Circle
from umber_pebble.core.moulds.walled import Walled
from umber_pebble.core.pieces.cast import amounts


@rows(__file__)
def test_water_density(row: dict[str, Any]) -> None:
    assert water_density_kg_m3(row["given"]) == pytest.approx(row["expects"], abs=row["within"])


@settings(max_examples=60, deadline=None)
@given(st.floats(0.02, 0.2), st.floats(0.002, 0.03), st.floats(0, 0.25), st.floats(0.05, 1.0))
def test_level_volume_and_weight_lead_back_to_each_other(
    top: float, depth: float, draft: float, share: float
) -> None:
    disc = Cavity(Walled(Circle(top), min(depth, top / 3), draft))
    fill = share * disc.depth_m
    assert level_m(disc, volume_m3(disc, fill)) == pytest.approx(fill, rel=1e-6)


def test_weight_of_water_stands_for_a_missing_size() -> None:
    whole = Walled(Circle(0.06), 0.008, 0.1)
    kg = whole.filled_m3(0.008) * water_density_kg_m3(20.0)
    assert round_by_water(0.06, None, 0.1, 0.0, kg).depth_m == pytest.approx(0.008)
    assert round_by_water(None, 0.008, 0.1, 0.0, kg).rim()[0][0] == pytest.approx(0.03)


def test_both_are_compared_and_the_weight_is_used() -> None:
    whole = Walled(Circle(0.06), 0.008)
    kg = whole.filled_m3(0.008) * water_density_kg_m3(20.0)
    agree, apart = fit_cavity(whole, 1.02 * kg), fit_cavity(whole, 1.3 * kg)
    assert (agree.disagree, apart.disagree) == (False, True)
    assert volume_m3(apart.cavity, 0.008) == pytest.approx(1.3 * whole.filled_m3(0.008))


def test_scraped_only_when_filled_to_the_rim(isomalt: Material) -> None:
    disc = make_disc(0.05, 0.006, 0.0873)
    below, full = amounts(disc, 0.004, isomalt), amounts(disc, 0.006, isomalt)
    assert below.scraped.value.high == 0.0
    assert full.scraped.value.likely > 0
    assert full.poured.value.likely == pytest.approx(full.finished.value.likely + full.scraped.value.likely)


@pytest.mark.parametrize("size", [0.0, -0.01, math.nan, math.inf, 1e9])
def test_impossible_sizes_are_refused(size: float) -> None:
    with pytest.raises(OutOfRange, match="diameter_m"):
        round_by_water(size, 0.006, 0.0, 0.0, None)
    with pytest.raises(OutOfRange, match="depth_m"):
        round_by_water(0.05, size, 0.0, 0.0, None)


def test_what_cannot_be_is_said(isomalt: Material) -> None:
    with pytest.raises(Missing, match="two of these"):
        round_by_water(0.05, None, 0.0, 0.0, None)
    with pytest.raises(OutOfRange, match="floor has no width"):
        Walled(Circle(0.01), 0.02, 0.5)
    with pytest.raises(OutOfRange, match="mistyped"):
        fit_cavity(Walled(Circle(0.05), 0.006), 1.1)
    with pytest.raises(OutOfRange, match="holds this much water"):
        round_by_water(0.05, None, 0.0, 0.0, 5.0)
    with pytest.raises(OutOfRange, match="fill_m"):
        amounts(make_disc(0.05, 0.006), 0.0061, isomalt)
