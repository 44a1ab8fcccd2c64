"""Every cavity against closed formulas of solid geometry and against a mesh of the same shape (trimesh)."""

import math
from typing import Any

import numpy as np
import pytest
import trimesh
from hypothesis import example, given, settings
from hypothesis import strategies as st

from tests.published import rows
from umber_pebble.core.errors import OutOfRange
from umber_pebble.core.moulds.cavity import Cavity, open_m2, section_m, slab_m, thickness_m, volume_m3, wetted_m2
from umber_pebble.core.moulds.domes import Cap, HalfCapsule, HalfEllipsoid
from umber_pebble.core.moulds.outline import Bar, Circle, Drawn, Outline, centred, heart, polygon, star
from umber_pebble.core.moulds.shape import Shape
from umber_pebble.core.moulds.walled import Walled

L_SHAPE = Drawn(centred(((0.0, 0.0), (0.04, 0.0), (0.04, 0.015), (0.015, 0.015), (0.015, 0.04), (0.0, 0.04))))
WALLED: dict[str, Walled] = {
    "disc": Walled(Circle(0.05), 0.006, 0.0873),
    "disc with edge": Walled(Circle(0.05), 0.012, 0.1, 0.004),
    "bar": Walled(Bar(0.08, 0.03, 0.004), 0.01, 0.0873, 0.002),
    "square": Walled(Bar(0.03, 0.03, 0.0), 0.01, 0.2, 0.0),
    "heart": Walled(heart(0.05), 0.01, 0.1, 0.002),
    "star": Walled(star(0.06, 5, 0.5), 0.008, 0.1, 0.001),
    "drawn": Walled(L_SHAPE, 0.009, 0.15, 0.002),
}
DOMED: dict[str, Shape] = {
    "half ball": Cap(0.05, 0.025),
    "cap": Cap(0.05, 0.01),
    "ellipsoid": HalfEllipsoid(0.06, 0.04, 0.015),
    "capsule": HalfCapsule(0.07, 0.03),
}
ALL: dict[str, Shape] = {**WALLED, **DOMED}


# Closed formulas of solid geometry; the numbers by hand from them, lengths in cm.
@pytest.mark.parametrize(
    ("shape", "cm3"),
    [
        (Cap(0.05, 0.025), 65.44985 / 2),  # 4/3 pi r^3
        (Walled(Circle(0.06), 0.04, math.atan(1 / 4)), 79.58701),  # pi h (R^2 + R r + r^2) / 3: R 3, r 2, h 4
        (HalfEllipsoid(0.06, 0.04, 0.015), 37.69911 / 2),  # 4/3 pi a b c
        (Cap(2 * math.sqrt(0.04**2 - 0.025**2), 0.015), 24.74004),  # pi h^2 (3R - h) / 3: R 4, h 1.5
        (HalfCapsule(0.07, 0.03), math.pi * 1.5**2 * 4 / 2 + math.pi * 1.5**3 * 2 / 3),
        (Walled(Bar(0.08, 0.03, 0.0), 0.01), 24.0),
        # prismatoid: h (A0 + 4 Am + A1) / 6
        (Walled(Bar(0.08, 0.03, 0.0), 0.01, math.atan(0.5)), (8 * 3 + 4 * 7.5 * 2.5 + 7 * 2) / 6),
    ],
)
def test_volumes_are_those_of_the_formulas(shape: Shape, cm3: float) -> None:
    assert shape.filled_m3(shape.depth_m) * 1e6 == pytest.approx(cm3, rel=2e-6)


def test_areas_are_those_of_the_formulas() -> None:
    assert Cap(0.05, 0.025).wetted_m2(0.025) == pytest.approx(2 * math.pi * 0.025**2)
    # whole ellipsoid 3 x 2 x 1.5: 57.81205 by elliptic integrals
    assert HalfEllipsoid(0.06, 0.04, 0.015).wetted_m2(0.015) * 1e4 == pytest.approx(57.81205 / 2, rel=1e-6)
    assert HalfCapsule(0.07, 0.03).wetted_m2(0.015) == pytest.approx(
        math.pi * 0.015 * 0.04 + 2 * math.pi * 0.015**2
    )
    # a tube bent to a quarter circle (Pappus): the rounded edge of an upright disc
    ring = Walled(Circle(0.05), 0.004, 0.0, 0.004)
    quarter = math.pi / 2 * 0.004 * 2 * math.pi * (0.021 + 2 * 0.004 / math.pi)
    assert ring.wetted_m2(0.004) == pytest.approx(math.pi * 0.021**2 + quarter, rel=1e-5)


def lofted(shape: Walled, level: float) -> trimesh.Trimesh:
    """Slices of the cavity as prisms of a mesh library: its own triangulation and volume."""
    zs = np.linspace(0.0, level, 401)
    middles = (zs[1:] + zs[:-1]) / 2
    rim = polygon(shape.rim())
    slices = [
        trimesh.creation.extrude_polygon(rim.buffer(-shape.inset_m(float(z)), quad_segs=8), zs[1] - zs[0])
        for z in middles
    ]
    return trimesh.util.concatenate(slices)


@pytest.mark.parametrize("name", ["disc with edge", "bar", "heart", "star", "drawn"])
def test_walled_volumes_are_those_of_a_mesh_of_slices(name: str) -> None:
    shape = WALLED[name]
    level = 0.8 * shape.depth_m
    # a mesh of 128 sides lies inside its circle
    sides = (2 * math.pi / 128) ** 2 / 6 if isinstance(shape.outline, Circle) else 0.0
    assert shape.filled_m3(level) * (1 - sides) == pytest.approx(lofted(shape, level).volume, rel=3e-4)


@pytest.mark.parametrize("name", ALL)
def test_volume_and_wall_are_those_of_the_floor_as_a_mesh(name: str) -> None:
    """The floor over a fine net of points, as triangles: what stands above it, and how large it is."""
    shape = ALL[name]
    level = 0.7 * shape.depth_m
    across, along = Cavity(shape).bounds_m()
    n = 500
    x, y = np.meshgrid(np.linspace(-across / 2, across / 2, n), np.linspace(-along / 2, along / 2, n))
    thick = level - shape.floor_m(x.ravel(), y.ravel())
    cell = (across / (n - 1)) * (along / (n - 1))
    here = np.isfinite(thick) & (thick > 0)
    assert thick[here].sum() * cell == pytest.approx(shape.filled_m3(level), rel=0.006)
    assert here.sum() * cell == pytest.approx(shape.area_m2(level), rel=0.012)


@pytest.mark.parametrize("name", ["half ball", "ellipsoid", "capsule"])
def test_domes_are_those_of_a_mesh(name: str) -> None:
    shape = DOMED[name]
    across, along = Cavity(shape).bounds_m()
    ball = trimesh.creation.icosphere(subdivisions=5)
    if name == "capsule":
        ball.apply_scale(along / 2)
        tube = trimesh.creation.cylinder(radius=along / 2, height=across - along, sections=256)
        volume, area = ball.volume + tube.volume, ball.area + tube.area - 2 * math.pi * along**2 / 4
    else:
        ball.apply_scale([across / 2, along / 2, shape.depth_m])
        volume, area = ball.volume, ball.area
    assert 2 * shape.filled_m3(shape.depth_m) == pytest.approx(volume, rel=2e-3)
    assert 2 * shape.wetted_m2(shape.depth_m) == pytest.approx(area, rel=2e-3)


@settings(max_examples=80, deadline=None)
@example("drawn", 0.9999999999999999, 0.03)
@given(st.sampled_from(list(ALL)), st.floats(0.05, 1.0), st.floats(0.01, 0.04))
def test_what_holds_for_any_cavity_at_any_level(name: str, share: float, step: float) -> None:
    cavity = Cavity(ALL[name])
    low = share * cavity.depth_m * (1 - step)
    high = share * cavity.depth_m
    # what is added between two levels lies between their open surfaces
    added = volume_m3(cavity, high) - volume_m3(cavity, low)
    bounds = open_m2(cavity, low) * (high - low), open_m2(cavity, high) * (high - low)
    assert bounds[0] * (1 - 1e-6) - 1e-15 <= added <= bounds[1] * (1 + 1e-6) + 1e-15
    assert wetted_m2(cavity, high) >= open_m2(cavity, high) * (1 - 1e-4)
    thick, slab = thickness_m(cavity, high), slab_m(cavity, high)
    assert thick.low <= thick.likely <= thick.high <= high * (1 + 1e-9)
    assert slab.high <= max(thick.high, slab.low) * (1 + 1e-9)


@pytest.mark.parametrize("name", ALL)
@pytest.mark.parametrize("cut", [-0.6, 0.0, 0.5])
def test_a_section_runs_from_rim_to_rim_and_never_below_the_floor(name: str, cut: float) -> None:
    cavity = Cavity(ALL[name])
    runs = section_m(cavity, cut)
    assert runs
    for run in runs:
        assert run[0][1] == run[-1][1] == cavity.depth_m
        assert all(-1e-9 <= z <= cavity.depth_m + 1e-9 for _, z in run)
    if cut == 0.0 and name not in ("star", "drawn"):
        across = runs[0][-1][0] - runs[0][0][0]
        assert across == pytest.approx(cavity.bounds_m()[0], rel=2e-2) or name == "heart"


def test_a_star_cut_near_its_feet_shows_two_runs() -> None:
    assert len(section_m(Cavity(WALLED["star"]), -0.95)) == 2


@pytest.mark.parametrize("edge", [0.0, 1e-300, 1e-9, 1e-6, 0.0059999, 0.006])
def test_an_edge_of_any_size_is_reckoned(edge: float) -> None:
    sharp, whole = Walled(Circle(0.05), 0.006), Walled(Circle(0.05), 0.006, 0.0, edge)
    assert whole.filled_m3(0.006) == pytest.approx(sharp.filled_m3(0.006), rel=0.2)
    assert whole.filled_m3(0.006) <= sharp.filled_m3(0.006) * (1 + 1e-12)


def test_outlines_that_cannot_be_are_refused() -> None:
    with pytest.raises(OutOfRange, match="crosses itself"):
        Drawn(((0.0, 0.0), (0.04, 0.04), (0.04, 0.0), (0.0, 0.04)))
    with pytest.raises(OutOfRange, match="3 to"):
        Drawn(((0.0, 0.0), (0.04, 0.04)))
    with pytest.raises(OutOfRange, match="tips"):
        star(0.05, 2, 0.5)
    with pytest.raises(OutOfRange, match="corner_m"):
        Bar(0.05, 0.02, 0.011)
    with pytest.raises(OutOfRange, match="depth_m"):
        Cap(0.05, 0.026)
    outline: Outline = star(0.04, 5, 0.4)
    with pytest.raises(OutOfRange, match="no width left"):
        Walled(outline, 0.03, 0.6)
    with pytest.raises(OutOfRange, match="cut_frac"):
        section_m(Cavity(WALLED["disc"]), 1.5)


CASES = {
    "cap": lambda across_m, high_m: volume_m3(Cavity(Cap(across_m, high_m)), high_m),
    "disc": lambda diameter_m, depth_m, draft_rad: volume_m3(
        Cavity(Walled(Circle(diameter_m), depth_m, draft_rad)), depth_m
    ),
    "half_ellipsoid": lambda length_m, width_m, depth_m: volume_m3(
        Cavity(HalfEllipsoid(length_m, width_m, depth_m)), depth_m
    ),
}


@rows(__file__)
def test_outside_values(row: dict[str, Any]) -> None:
    assert CASES[row["of"]](**row["given"]) == pytest.approx(row["expects"], abs=row["within"])
