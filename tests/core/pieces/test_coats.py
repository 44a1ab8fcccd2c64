"""Coats on bodies against closed formulas and a mesh library; heaps by the cap formula; joins by the engine; details by outline."""

import math
from typing import Any

import numpy as np
import pytest
import trimesh

from tests.core.pieces.made import COATING, DARK, ISOMALT, cluster, detail, dip, dust, fill, filling, shell
from tests.published import rows
from umber_pebble.core.errors import OutOfRange
from umber_pebble.core.families.known import family_of
from umber_pebble.core.heat.casting import Place
from umber_pebble.core.materials.load import material
from umber_pebble.core.moulds.cavity import Cavity, volume_m3, wetted_m2
from umber_pebble.core.moulds.domes import Cap
from umber_pebble.core.moulds.outline import Bar
from umber_pebble.core.moulds.walled import Walled
from umber_pebble.core.pieces.body import Body, profile, revolved_m3
from umber_pebble.core.pieces.build import lay, lay_on
from umber_pebble.core.pieces.joints import Joint, bead_casting, glued, hand_s, holding, joined
from umber_pebble.core.pieces.passes.base import PassKind
from umber_pebble.core.pieces.passes.close import Close
from umber_pebble.core.pieces.passes.dollop import Dollop
from umber_pebble.core.pieces.passes.drizzle import Drizzle
from umber_pebble.core.pieces.passes.paste import Paste
from umber_pebble.core.pieces.ratios import mixed_of
from umber_pebble.core.pieces.section import layers_of, layers_on

FRUIT = material("fillings", "fruit")
BENCH = Place(material("surfaces", "wood"), 0.03, 21.5, 21.5)


def body(shape: str = "ball", diameter_m: float = 0.04, high_m: float = 0.04) -> Body:
    return Body(shape, diameter_m, high_m, FRUIT, None, 8.0, True)


def one(of: Body, *passes: PassKind) -> float:
    laid, faults = lay_on(of, passes)
    assert not faults
    return laid[-1].volume_m3


# Closed formulas: a shell between two balls; two coats are one as thick as both; a rounded rod by Steiner's formula.
def test_whole_coats_by_closed_formulas() -> None:
    r, t = 0.02, 0.0015
    assert body().volume_m3 == pytest.approx(4 / 3 * math.pi * r**3, rel=1e-3)
    shell = 4 / 3 * math.pi * ((r + t) ** 3 - r**3)
    assert one(body(), dip(COATING, None, 0.0, t)) == pytest.approx(shell, rel=2e-3)
    both = one(body(), dip(COATING, None, 0.0, t)) + one(
        body(), dip(COATING, None, 0.0, t), dip(DARK, None, 0.0, t)
    )
    assert both == pytest.approx(one(body(), dip(COATING, None, 0.0, 2 * t)), rel=1e-3)
    # a ball dipped to its middle takes half of what it takes whole
    assert one(body(), dip(COATING, r, 0.0, t)) == pytest.approx(shell / 2, rel=1e-2)
    # and at whatever slant through its middle
    assert one(body(), dip(COATING, r, 0.5, t)) == pytest.approx(shell / 2, rel=1e-2)
    # thin, a coat is area x thickness: of a rod 12 mm wide and 100 long
    thin = one(body("rod", 0.012, 0.1), dip(COATING, None, 0.0, 1e-4))
    plain = (math.pi * 0.012 * 0.1 + 2 * math.pi * 0.006**2) * 1e-4
    assert thin == pytest.approx(plain, rel=0.03)


# trimesh: the same cone as a mesh turned round its axis, its offset's volume by its own normals.
def test_a_coat_on_a_cone_against_a_mesh() -> None:
    t = 0.001
    cut = profile("cone", 0.034, 0.042)
    for grown, wanted in ((cut, body("cone", 0.034, 0.042).volume_m3), (cut.buffer(t), None)):
        x, z = np.array(grown.exterior.coords).T
        half = x >= -1e-12
        line = np.column_stack([np.maximum(x[half], 0.0), z[half]])
        order = np.argsort(np.arctan2(line[:, 1] - 0.02, line[:, 0]))
        mesh = trimesh.creation.revolve(line[order], sections=256)
        if wanted is not None:
            assert abs(mesh.volume) == pytest.approx(wanted, rel=5e-3)
            before = abs(mesh.volume)
    assert one(body("cone", 0.034, 0.042), dip(COATING, None, 0.0, t)) == pytest.approx(
        abs(mesh.volume) - before, rel=2e-2
    )


# Common practice, no source: a coat of 0.5 to 1.5 mm on a dipped fruit, 2 to 5 g on a strawberry.
def test_a_strawberry_is_that_of_the_trade() -> None:
    berry = body("cone", 0.034, 0.042)
    dipped = dip(COATING, 0.034, 0.2, None)
    assert 0.0005 < dipped.film(0.034, ()).likely < 0.0015
    laid, faults = lay_on(berry, (dipped, Drizzle(DARK, 0.25, 0.0015), dust(0.0005, True)))
    assert not faults
    assert 0.0015 < laid[0].finished.value.likely < 0.005
    assert laid[0].under[0][0] is FRUIT and laid[0].under[0][2] == 8.0
    # every coat once and in its place, wherever it is cut
    for cut in (-1.0, 0.0, 0.6):
        layers = layers_on(berry, (dipped, Drizzle(DARK, 0.25, 0.0015), dust(0.0005, True)), laid, cut)
        assert [layer.index for layer in layers] == [0, 1]
    # along the slant its edge lies on the line, across it at its height
    points = [p for ring in layers_on(berry, (dipped,), laid[:1], 0.0)[0].rings for p in ring]
    x, z = max(points, key=lambda p: p[1])
    assert z == pytest.approx(0.034 + math.tan(0.2) * x, abs=2e-6)
    across = [z for ring in layers_on(berry, (dipped,), laid[:1], 1.0)[0].rings for _, z in ring]
    assert max(across) == pytest.approx(0.034, abs=1e-6)


@pytest.mark.parametrize(
    ("passes", "code"),
    [
        ((dip(COATING, 0.06, 0.0, None),), "too_deep"),
        ((dip(COATING, None, 0.0, 0.015),), "too_thick"),
        ((shell(COATING, 0.002, False, False),), "wants_mould"),
        ((dust(0.001, True),), "nothing_wet"),
        ((dip(ISOMALT, None, 0.0, None),), "mould_too_weak"),
    ],
)
def test_what_a_body_cannot_have_is_told_where_it_is(passes: tuple[PassKind, ...], code: str) -> None:
    _, faults = lay_on(body(), passes, bears_degc=40.0)
    assert [f.code for f in faults] == [code]


# Spread by its own weight against its yield value (Roussel and Coussot 2005): tau = 225 rho g V^2 / (128 pi^2 R^5).
def test_dollops_lines_clusters_and_pastes() -> None:
    density, left = (
        material("melts", "coating").value("density_melt"),
        material("kitchen", "usual", "film").value("tapped"),
    )
    table = Cavity(Walled(Bar(0.4, 0.4, 0.0), 0.02))
    [laid], _ = lay(table, (Dollop(COATING, 3, 0.04),))
    tau = 225 * density * 9.80665 * (laid.volume_m3 / 3) ** 2 / (128 * math.pi**2 * 0.02**5)
    assert tau == pytest.approx(left * material("melts", "coating").value("casson_yield"), rel=1e-6)
    # it lies flat: common practice, no source
    assert laid.thick_m == pytest.approx(0.0025, abs=0.0006)
    [line], _ = lay(table, (Drizzle(COATING, 0.3, 0.002),))
    assert line.finished.value.likely == pytest.approx(density * 0.3 * math.pi * 1e-6, rel=1e-9)
    nuts = cluster(DARK, 0.012, 0.35)
    [heap], _ = lay(table, (nuts,))
    assert heap.finished.value.likely == pytest.approx(0.012 * 0.35 / 0.65)
    assert heap.beside_kg == 0.012
    assert 0.03 < nuts.heaped(0, material("melts", "dark")).wide_m < 0.07
    mat = Cavity(Walled(Bar(0.06, 0.06, 0.0), 0.02))
    laid_paste, faults = lay(mat, (Paste("fondant", 0.0135, None), Drizzle(DARK, 0.1, 0.002)))
    assert not faults
    # 10 ml on 36 cm2
    assert laid_paste[0].to_m == pytest.approx(1e-5 / 0.0036, rel=1e-6)
    for passes, code in (
        ((Paste("fondant", 0.5, None),), "no_room"),
        ((dip(COATING, None, 0.0, None),), "wants_body"),
        ((cluster(DARK, 0.2, 0.3),), "too_wide"),
    ):
        assert [f.code for f in lay(mat, passes)[1]] == [code]
    with pytest.raises(OutOfRange, match="no such mixture"):
        mixed_of("porridge", 1.0)
    # common practice, no source: dark ganache of equal weights, white of three to one
    assert [p.kg for p in mixed_of("ganache", 0.2)] == pytest.approx([0.1, 0.1])
    assert mixed_of("ganache_white", 0.4)[0].kg == pytest.approx(0.3)


def test_a_detail_under_its_own_outline_takes_its_share_and_is_drawn_there() -> None:
    bar = Cavity(Walled(Bar(0.04, 0.02, 0.0), 0.006))
    corner = ((0.0, 0.0), (0.02, 0.0), (0.02, 0.01), (0.0, 0.01))
    passes: tuple[PassKind, ...] = (detail(DARK, 0.9, 0.001, corner), fill(COATING, 0.006))
    laid, faults = lay(bar, passes)
    assert not faults
    # a quarter of the opening, whatever share was given before
    area = wetted_m2(bar, 0.006)
    assert laid[0].cast is not None and laid[0].cast.open_m2 == pytest.approx(area / 4)
    assert laid[0].volume_m3 + laid[1].volume_m3 == pytest.approx(volume_m3(bar, 0.006), rel=1e-6)
    front, back = ({layer.index: layer for layer in layers_of(bar, passes, laid, cut)} for cut in (0.5, -0.5))
    xs = [x for x, _ in front[0].rings[0]]
    assert (min(xs), max(xs)) == (pytest.approx(0.0, abs=1e-6), pytest.approx(0.02, abs=1e-6))
    assert 0 not in back
    outside = ((0.5, 0.5), (0.6, 0.5), (0.6, 0.6))
    assert [f.code for f in lay(bar, (detail(DARK, 0.1, 0.001, outside),))[1]] == ["outside"]


def test_joins_take_their_bead_and_are_held_until_the_engine_lets_go() -> None:
    isomalt = material("melts", "isomalt")
    joint = Joint(0.12, 0, 0.004, 0.0, 0.0, isomalt, 0.003)
    # half a round bead: pi b^2 / 8 a metre
    kg = joined(joint, isomalt, 8).finished.value.likely
    assert kg == pytest.approx(8 * 0.12 * math.pi * 0.004**2 / 8 * isomalt.value("density_melt"))
    pour, tg = family_of(isomalt).poured_at(isomalt)
    thin, thick = (holding(bead_casting(joint, isomalt, t, pour, tg, BENCH), False) for t in (0.0015, 0.003))
    assert thin.holds.likely < thin.sets.likely
    assert thin.holds.likely < thick.holds.likely
    coating = material("melts", "coating")
    fat, _ = family_of(coating).poured_at(coating)
    slow = holding(
        bead_casting(Joint(0.3, 0, 0.004, 0.0, 0.0, coating, 0.003), coating, 0.0015, fat, None, BENCH), False
    )
    assert slow.holds.likely > 5 * thin.holds.likely
    # cold spray takes minutes off it; hot sugar is never sprayed, it cracks
    assert slow.sprayed is not None and slow.sprayed.likely < 0.8 * slow.holds.likely
    assert thin.sprayed is None
    # a dab that holds a cap: it softens the face for a minute, two twists, and is held a minute, not six (common practice)
    dab = holding(
        bead_casting(Joint(0.0, 1, 0.006, 0.0, 0.0, coating, 0.003), coating, 0.0015, fat, None, BENCH), True
    )
    assert (dab.softens_s, dab.twists) == (60.0, 2)
    assert dab.holds.likely <= 60.0 and dab.holds.high <= 120.0
    # by hand each is held; a prop frees the hands
    assert hand_s(15.0, thin.holds, 8, False) == pytest.approx(8 * (15.0 + thin.holds.high))
    assert hand_s(15.0, thin.holds, 8, True) == 120.0
    dots = Joint(0.0, 3, 0.004, 0.0, 0.0, coating, 0.003)
    assert joined(dots, coating, 1).finished.value.likely < joined(joint, coating, 1).finished.value.likely
    time, glue_kg = glued(joint)
    assert time.sets.likely > time.holds.likely and 0 < glue_kg < kg
    with pytest.raises(OutOfRange, match="a seam or dots"):
        Joint(0.0, 0, 0.004, 0.0, 0.0, coating, 0.003)


def test_a_close_over_a_warm_filling_is_reckoned_warm() -> None:
    bonbon = Cavity(Cap(0.03, 0.013))
    laid, faults = lay(
        bonbon, (shell(DARK, 0.0018, False, False), filling("ganache", 0.002, None, 26.0, 0.0), Close(DARK))
    )
    assert not faults
    assert [degc for _, _, degc in laid[2].under] == [26.0]


CASES = {
    "body": lambda shape, diameter_m, high_m: revolved_m3([profile(shape, diameter_m, high_m)]),
}


@rows(__file__)
def test_outside_values(row: dict[str, Any]) -> None:
    assert CASES[row["of"]](**row["given"]) == pytest.approx(row["expects"], abs=row["within"])
