"""Builds laid into cavities: against a mesh library, closed formulas, practice; and what cannot be."""

import math

import numpy as np
import pytest
import trimesh

from tests.core.pieces.made import COATING, DARK, ISOMALT, centre, detail, dust, fill, filling, shell, stick
from umber_pebble.core.errors import OutOfRange
from umber_pebble.core.materials.load import material
from umber_pebble.core.moulds.cavity import Cavity, volume_m3
from umber_pebble.core.moulds.domes import Cap, HalfCapsule, HalfEllipsoid
from umber_pebble.core.moulds.inset import inset
from umber_pebble.core.moulds.outline import Bar, Circle, star
from umber_pebble.core.moulds.walled import Walled
from umber_pebble.core.pieces.build import lay
from umber_pebble.core.pieces.passes.base import PassKind
from umber_pebble.core.pieces.passes.close import Close
from umber_pebble.core.pieces.passes.turned import Turned
from umber_pebble.core.pieces.section import layers_of

POP = Cavity(HalfEllipsoid(0.07, 0.04, 0.018))
BONBON = Cavity(Cap(0.03, 0.013))


# trimesh: an ellipsoid's surface moved in along its own normals and cut at the rim; its volume and area by the library.
def test_the_hollow_of_an_ellipsoid_is_a_mesh_moved_in() -> None:
    a, b, c, by = 0.033, 0.022, 0.018, 0.0016
    mesh = trimesh.creation.icosphere(subdivisions=6)
    points = mesh.vertices * (a, b, c)
    normals = points / (a**2, b**2, c**2)
    mesh.vertices = points - by * normals / np.linalg.norm(normals, axis=1)[:, None]
    half = trimesh.intersections.slice_mesh_plane(mesh, (0, 0, -1), (0, 0, 0), cap=True)
    inner = inset(HalfEllipsoid(2 * a, 2 * b, c), by)
    assert inner.filled_m3(inner.depth_m) == pytest.approx(half.volume, rel=2e-3)
    top = math.pi * (a - by) * (b - by)
    assert inner.wetted_m2(inner.depth_m) == pytest.approx(half.area - top, rel=1e-2)
    low = trimesh.intersections.slice_mesh_plane(half, (0, 0, -1), (0, 0, -0.008), cap=True)
    assert inner.filled_m3(inner.depth_m - 0.008) == pytest.approx(low.volume, rel=5e-3)


@pytest.mark.parametrize("by", [0.0008, 0.0016, 0.003])
def test_hollows_by_closed_formulas(by: float) -> None:
    ball = inset(Cap(0.05, 0.025), by)
    assert ball.filled_m3(ball.depth_m) == pytest.approx(2 / 3 * math.pi * (0.025 - by) ** 3, rel=1e-9)
    # a cone frustum moved in by its normal: the wall by by/cos along the level
    draft, depth, r = 0.2, 0.02, 0.025
    cone = inset(Walled(Circle(2 * r), depth, draft), by)
    top = r - by / math.cos(draft)
    foot = top - (depth - by) * math.tan(draft)
    frustum = math.pi * (depth - by) * (top**2 + top * foot + foot**2) / 3
    assert cone.filled_m3(cone.depth_m) == pytest.approx(frustum, rel=1e-6)
    box = inset(Walled(Bar(0.04, 0.03, 0.0), 0.012), by)
    assert box.filled_m3(box.depth_m) == pytest.approx((0.04 - 2 * by) * (0.03 - 2 * by) * (0.012 - by), rel=1e-6)
    rod, r = inset(HalfCapsule(0.06, 0.02), by), 0.01 - by
    assert rod.filled_m3(rod.depth_m) == pytest.approx(
        math.pi * r**2 / 2 * 0.04 + 2 / 3 * math.pi * r**3, rel=1e-9
    )
    # one layer on another is the layer as thick as both
    twice, once = (
        inset(inset(HalfEllipsoid(0.07, 0.04, 0.018), by), by),
        inset(HalfEllipsoid(0.07, 0.04, 0.018), 2 * by),
    )
    assert twice.filled_m3(twice.depth_m) == pytest.approx(once.filled_m3(once.depth_m), rel=1e-6)


# Common practice, no source: a cavity of 4 x 7 cm, about a tablespoon (15 ml) of coating for the shell, 15 to 20 g of cake.
def test_a_cake_pop_is_that_of_the_trade() -> None:
    passes: tuple[PassKind, ...] = (
        detail(DARK, 0.15, 0.0012),
        shell(COATING, 0.0016, False, False),
        stick(0.004, 0.03, False),
        filling("cake", 0.002, None, 20.0, 0.0),
        Close(COATING),
    )
    laid, faults = lay(POP, passes)
    assert faults == []
    cap, wall, _, cake, close = laid
    assert 3.5e-6 < wall.volume_m3 < 15e-6
    assert 0.013 < cake.finished.value.likely < 0.022
    # everything in the cavity is something, and nothing is twice
    inside = math.pi * 0.002**2 * 0.03
    whole = sum(row.volume_m3 for row in (cap, wall, cake, close)) + inside
    assert whole == pytest.approx(volume_m3(POP, POP.depth_m), rel=2e-3)
    assert close.thick_m == pytest.approx(0.002, rel=0.05)
    # filled and tipped out, the vessel must hold what fills the cavities; what comes back is not finished
    tipped, _ = lay(POP, (shell(COATING, 0.0016, True, False),))
    kept, poured = tipped[0].finished.value.likely, tipped[0].poured.value.likely
    assert poured == pytest.approx(
        volume_m3(POP, POP.depth_m) * material("melts", "coating").value("density_melt"), rel=1e-6
    )
    assert kept < 0.5 * poured


# Common practice, no source: 113 g in a hollow ball; the prototype's walls for 113.4 g at 1280 kg/m3: 3.00 mm at 10 cm, 2.03 at 12.
@pytest.mark.parametrize(("diameter_m", "wall_m"), [(0.10, 0.002996), (0.12, 0.002026)])
def test_a_turned_ball_has_its_wall(diameter_m: float, wall_m: float) -> None:
    density = material("melts", "coating").value("density_melt")
    laid, faults = lay(Cavity(Cap(diameter_m, diameter_m / 2)), (Turned(COATING, 0.1134 * density / 1280.0),))
    assert not faults
    assert laid[0].thick_m == pytest.approx(wall_m, rel=1e-3)


@pytest.mark.parametrize(
    ("cavity", "passes", "code", "limit"),
    [
        (BONBON, (shell(COATING, 0.014, False, False),), "too_thick", 0.0128),
        (BONBON, (filling("cake", 0.002, None, 20.0, 0.0),), "no_shell", None),
        (
            BONBON,
            (shell(COATING, 0.0015, False, False), filling("cake", None, 0.05, 20.0, 0.0)),
            "no_room",
            0.0034,
        ),
        (
            BONBON,
            (shell(COATING, 0.0015, False, False), filling("cake", 0.002, None, 40.0, 0.0)),
            "melts_shell",
            34.0,
        ),
        (
            BONBON,
            (shell(COATING, 0.0015, False, False), filling("cake", 0.0, None, 20.0, 0.0), Close(COATING)),
            "nothing_to_close",
            None,
        ),
        (BONBON, (fill(COATING, 0.013), detail(DARK, 0.1, 0.001)), "closed", None),
        (BONBON, (fill(COATING, 0.01), dust(0.0001, False)), "not_empty", None),
        (BONBON, (centre(0.02, 2e-5), fill(COATING, 0.013)), "too_large", None),
        (BONBON, (fill(COATING, 0.02),), "above_rim", 0.013),
        (
            Cavity(Walled(star(0.05, 5, 0.4), 0.01, 0.1)),
            (shell(COATING, 0.0099, False, False),),
            "too_thick",
            None,
        ),
        (Cavity(Cap(0.05, 0.025)), (Turned(COATING, 0.1),), "too_much", None),
        (Cavity(Cap(0.05, 0.025)), (Turned(COATING, 0.001),), "too_thin", None),
    ],
)
def test_what_cannot_be_is_told_where_it_is(
    cavity: Cavity, passes: tuple[PassKind, ...], code: str, limit: float | None
) -> None:
    laid, faults = lay(cavity, passes)
    assert [f.code for f in faults] == [code]
    assert len(laid) == len(passes) - 1
    if limit is not None:
        assert faults[0].limit == pytest.approx(limit, rel=0.15)


def test_a_mould_that_does_not_bear_it_and_a_number_that_cannot_be() -> None:
    _, faults = lay(BONBON, (fill(ISOMALT, 0.01),), bears_degc=60.0)
    assert faults[0].code == "mould_too_weak"
    with pytest.raises(OutOfRange, match="share_frac"):
        lay(BONBON, (detail(DARK, -0.1, 0.001),))


def test_the_cut_shows_each_pass_once_and_to_scale() -> None:
    passes: tuple[PassKind, ...] = (
        detail(DARK, 0.2, 0.001),
        shell(COATING, 0.0016, False, False),
        filling("cake", 0.002, None, 20.0, 0.0),
        Close(COATING),
    )
    laid, _ = lay(POP, passes)

    def area(ring: list[list[float]]) -> float:
        x, z = np.array(ring).T
        return abs(float(np.sum(x[:-1] * z[1:] - x[1:] * z[:-1]))) / 2

    for cut in (0.0, 0.5, -0.8):
        layers = layers_of(POP, passes, laid, cut)
        half_across = 0.035 * math.sqrt(1 - cut**2)
        whole = math.pi * half_across * 0.018 * math.sqrt(1 - cut**2) / 2
        assert sum(area(ring) for layer in layers for ring in layer.rings) == pytest.approx(whole, rel=0.02)
    middle = {layer.index: layer for layer in layers_of(POP, passes, laid, 0.0)}
    heights = [z for _, z in middle[3].rings[0]]
    assert max(heights) - min(heights) == pytest.approx(0.002, abs=2e-5)
