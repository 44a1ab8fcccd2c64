"""Disc cavities against a mesh library (trimesh 5.2), handbook water, and impossible sizes."""

import math
from typing import Any

import numpy as np
import pytest
import trimesh
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.published import rows
from umber_pebble.core.errors import Missing, OutOfRange
from umber_pebble.core.materials.load import Material
from umber_pebble.core.moulds.disc import (
    Disc,
    fit_disc,
    level_m,
    open_m2,
    volume_m3,
    water_density_kg_m3,
    wetted_m2,
)
from umber_pebble.core.pieces.cast import amounts, level_for_mass_m


@rows(__file__)
def test_water_density(row: dict[str, Any]) -> None:
    assert water_density_kg_m3(row["given"]) == pytest.approx(row["expects"], abs=row["within"])


@pytest.mark.parametrize(("top", "depth", "draft_deg", "fill"), [(0.05, 0.006, 5, 0.004), (0.08, 0.02, 15, 0.02)])
def test_volume_and_areas_are_those_of_a_mesh(top: float, depth: float, draft_deg: float, fill: float) -> None:
    disc = fit_disc(diameter_m=top, depth_m=depth, draft_rad=math.radians(draft_deg), water_kg=None).disc
    r0, r1 = disc.radius_m(0.0), disc.radius_m(fill)
    profile = np.array([[0, 0], [r0, 0], [r1, fill], [0, fill]])
    mesh = trimesh.creation.revolve(profile, sections=4000)
    assert volume_m3(disc, fill) == pytest.approx(mesh.volume, rel=2e-6)
    assert wetted_m2(disc, fill) + open_m2(disc, fill) == pytest.approx(mesh.area, rel=2e-6)


@settings(max_examples=60, deadline=None)
@given(st.floats(0.02, 0.2), st.floats(0.002, 0.03), st.floats(0, 0.25), st.floats(0.05, 1.0))
def test_level_volume_and_weight_lead_back_to_each_other(
    top: float, depth: float, draft: float, share: float
) -> None:
    disc = Disc(top, min(depth, top / 3), draft)
    fill = share * disc.depth_m
    assert level_m(disc, volume_m3(disc, fill)) == pytest.approx(fill, rel=1e-6)


def test_weight_of_water_stands_for_a_missing_size() -> None:
    whole = fit_disc(diameter_m=0.06, depth_m=0.008, draft_rad=0.1, water_kg=None).disc
    kg = volume_m3(whole, 0.008) * water_density_kg_m3(20.0)
    assert fit_disc(diameter_m=0.06, depth_m=None, draft_rad=0.1, water_kg=kg).disc.depth_m == pytest.approx(0.008)
    assert fit_disc(diameter_m=None, depth_m=0.008, draft_rad=0.1, water_kg=kg).disc.top_m == pytest.approx(0.06)


def test_both_are_compared_and_the_weight_is_used() -> None:
    whole = fit_disc(diameter_m=0.06, depth_m=0.008, draft_rad=0.0, water_kg=None).disc
    kg = volume_m3(whole, 0.008) * water_density_kg_m3(20.0)
    agree = fit_disc(diameter_m=0.06, depth_m=0.008, draft_rad=0.0, water_kg=1.02 * kg)
    apart = fit_disc(diameter_m=0.06, depth_m=0.008, draft_rad=0.0, water_kg=1.3 * kg)
    assert (agree.disagree, apart.disagree) == (False, True)
    assert volume_m3(apart.disc, 0.008) == pytest.approx(1.3 * volume_m3(whole, 0.008))


def test_scraped_only_when_filled_to_the_rim(isomalt: Material) -> None:
    disc = fit_disc(diameter_m=0.05, depth_m=0.006, draft_rad=0.0873, water_kg=None).disc
    below, full = amounts(disc, 0.004, isomalt), amounts(disc, 0.006, isomalt)
    assert below.scraped.value.high == 0.0
    assert full.scraped.value.likely > 0
    assert full.poured.value.likely == pytest.approx(full.finished.value.likely + full.scraped.value.likely)
    assert level_for_mass_m(disc, below.finished.value.likely, isomalt) == pytest.approx(0.004, rel=1e-6)


@pytest.mark.parametrize("size", [0.0, -0.01, math.nan, math.inf, 1e9])
def test_impossible_sizes_are_refused(size: float) -> None:
    with pytest.raises(OutOfRange, match="diameter_m"):
        fit_disc(diameter_m=size, depth_m=0.006, draft_rad=0.0, water_kg=None)
    with pytest.raises(OutOfRange, match="depth_m"):
        fit_disc(diameter_m=0.05, depth_m=size, draft_rad=0.0, water_kg=None)


def test_what_cannot_be_is_said(isomalt: Material) -> None:
    with pytest.raises(Missing, match="two of these"):
        fit_disc(diameter_m=0.05, depth_m=None, draft_rad=0.0, water_kg=None)
    with pytest.raises(OutOfRange, match="floor has no width"):
        fit_disc(diameter_m=0.01, depth_m=0.02, draft_rad=0.5, water_kg=None)
    with pytest.raises(OutOfRange, match="mistyped"):
        fit_disc(diameter_m=0.05, depth_m=0.006, draft_rad=0.0, water_kg=1.1)
    disc = fit_disc(diameter_m=0.05, depth_m=0.006, draft_rad=0.0, water_kg=None).disc
    with pytest.raises(OutOfRange, match="fill_m"):
        amounts(disc, 0.0061, isomalt)
