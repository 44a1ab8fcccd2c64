"""Casts in two dimensions, against finite elements by scikit-fem 12.0 on meshes that follow their walls."""

import math

import pytest

from tests.core.heat.axisymmetric import Body, cup, dome, times_s
from umber_pebble.core.fat.crystallise import setting_of
from umber_pebble.core.glass.viscosity import temperature_at_log_viscosity_degc, tg_spread_degc
from umber_pebble.core.heat.casting import Casting, Place, PlaceStay
from umber_pebble.core.heat.windows import windows_s
from umber_pebble.core.materials.load import material
from umber_pebble.core.moulds.cavity import Cavity, open_m2, place_slabs_m, slab_m, volume_m3
from umber_pebble.core.moulds.domes import Cap, HalfCapsule
from umber_pebble.core.moulds.outline import Bar, Circle
from umber_pebble.core.moulds.walled import Walled
from umber_pebble.core.pieces.in_the_round import body_of
from umber_pebble.core.spread import exact

WALL_M = 0.003
ISOMALT, COATING, SILICONE = (
    material("melts", "isomalt"),
    material("melts", "coating"),
    material("moulds", "silicone"),
)
TG = tg_spread_degc(ISOMALT, ISOMALT.spread("water_dry_melt")).likely
WALL = {"k": SILICONE.value("conductivity"), "density": SILICONE.value("density"), "cp": SILICONE.value("cp")}
SHAPES: dict[str, tuple[Cavity, Body]] = {
    "chunky cup": (Cavity(Walled(Circle(0.015), 0.007)), cup(0.0075, 0.007, WALL_M)),
    "cup": (Cavity(Walled(Circle(0.02), 0.010)), cup(0.010, 0.010, WALL_M)),
    "disc": (Cavity(Walled(Circle(0.05), 0.006)), cup(0.025, 0.006, WALL_M)),
    "deep cup": (Cavity(Walled(Circle(0.03), 0.025)), cup(0.015, 0.025, WALL_M)),
    "half ball": (Cavity(Cap(0.03, 0.015)), dome(0.015, WALL_M)),
    "large half ball": (Cavity(Cap(0.07, 0.035)), dome(0.035, WALL_M)),
}
FATS, SUGARS = ("cup", "disc", "half ball"), ("chunky cup", "disc", "deep cup", "half ball", "large half ball")


def on_a_rack(cavity: Cavity, sugar: bool, air: float, pour: float) -> Casting:
    depth, place = cavity.depth_m, Place(material("surfaces", "trivet"), 0.01, air, air)
    thin, thick = place_slabs_m(cavity, depth) or (None, None)
    return Casting(
        ISOMALT if sugar else COATING,
        SILICONE,
        slab_m(cavity, depth),
        math.sqrt(open_m2(cavity, depth) / math.pi) / 2,
        WALL_M,
        exact(pour),
        exact(TG) if sugar else None,
        (PlaceStay(0.0, place),),
        thin_m=thin,
        thick_m=thick,
        body=body_of(cavity, depth),
    )


def faces(casting: Casting) -> list[tuple[float, int, float]]:
    assert casting.body
    shown = casting.melt.value("emissivity")
    return [
        (casting.plate_m, 1, shown),
        (casting.plate_m, 1, 0.9),
        (casting.body.depth_m + WALL_M, 0, 0.9),
        (0.06, 2, 0.9),
    ]


@pytest.mark.parametrize("name", SUGARS)
def test_sugar_in_the_round(name: str) -> None:
    cavity, body = SHAPES[name]
    casting = on_a_rack(cavity, True, 22.0, 135.0)
    melt = {
        "k": ISOMALT.value("conductivity"),
        "density": ISOMALT.value("density_melt"),
        "cp_set": ISOMALT.value("cp_glass"),
        "cp_melt": ISOMALT.value("cp_melt"),
        "turn": TG,
    }
    limit = {
        mark: temperature_at_log_viscosity_degc(log, TG) for mark, log in (("bend_opens", 4.7), ("unmould", 12.0))
    }
    states = {mark: (lambda t, x, at=at: bool(t.max() <= at)) for mark, at in limit.items()}
    told, windows = times_s(body, melt, WALL, (22.0, 135.0), faces(casting), states), windows_s(casting)
    for mark, seconds in told.items():
        assert windows.at[mark].likely == pytest.approx(seconds, rel=0.05), mark


@pytest.mark.parametrize("name", FATS)
def test_fat_in_the_round(name: str) -> None:
    cavity, body = SHAPES[name]
    casting, setting = on_a_rack(cavity, False, 5.0, 42.0), setting_of(COATING)
    melt = {
        "k": COATING.value("conductivity"),
        "k_melt": COATING.value("conductivity_melt"),
        "density": COATING.value("density_melt"),
        "cp_set": COATING.value("cp_set"),
        "cp_melt": COATING.value("cp_melt"),
        "latent": setting.latent_j_kg,
        "start": setting.start_frac,
    }
    states = {
        "touch": lambda t, x: bool(x.min() >= COATING.value("set_touch")),
        "unmould": lambda t, x: bool(
            x.min() >= COATING.value("set_release") and t.max() <= COATING.value("release_below")
        ),
    }
    told = times_s(body, melt, WALL, (5.0, 42.0), faces(casting), states, setting.kinetics())
    windows = windows_s(casting)
    for mark, seconds in told.items():
        assert windows.at[mark].likely == pytest.approx(seconds, rel=0.05), mark


@pytest.mark.parametrize(
    "cavity",
    [Cavity(Walled(Circle(0.03), 0.01, math.radians(10), 0.003)), Cavity(Cap(0.04, 0.012))],
    ids=["drafted", "cap"],
)
def test_a_round_cavity_is_its_own_body(cavity: Cavity) -> None:
    half = body_of(cavity, cavity.depth_m).section()
    # Pappus: a section turned round the axis
    assert 2 * math.pi * half.centroid.x * half.area == pytest.approx(volume_m3(cavity, cavity.depth_m), rel=0.01)


def test_edge_over_area_is_the_outlines() -> None:
    # a square of side a: 4 a / a^2 = 2 / (a / 2); a long bar has the two sides of a slab
    assert body_of(Cavity(Walled(Bar(0.03, 0.03, 0.0), 0.01)), 0.01).radius_m == pytest.approx(0.015, rel=1e-3)
    assert body_of(Cavity(Walled(Bar(0.40, 0.02, 0.0), 0.01)), 0.01).radius_m == pytest.approx(0.02, rel=0.06)
    assert body_of(Cavity(HalfCapsule(0.05, 0.02)), 0.01).radius_m < math.sqrt(
        open_m2(Cavity(HalfCapsule(0.05, 0.02)), 0.01) / math.pi
    )
