"""Films, lines and balls against published relations and a solver; standing, bending and hanging against textbook examples."""

import math
from typing import Any

import numpy as np
import pytest
from scipy.integrate import solve_ivp

from tests.published import rows
from umber_pebble.core.errors import Missing, OutOfRange
from umber_pebble.core.heat.casting import Casting, Place, PlaceStay
from umber_pebble.core.heat.skin import Skin
from umber_pebble.core.materials.load import material
from umber_pebble.core.melts.fluid import yield_of_spread_pa
from umber_pebble.core.pieces.assembly import Weight, foot_stress_pa, foot_thickness_m, hangs, standing
from umber_pebble.core.pieces.films import (
    ball_kg,
    bead_kg,
    dab,
    dip_film_m,
    drained_film_casson_m,
    line_kg,
    shell_against_film,
    wall_keeps_m,
)
from umber_pebble.core.spread import exact

COATING = material("melts", "coating")


# An 800-cell solution of the draining film (kinematic wave) by the team's prototypes: eta 2, tau 8, 30 mm, 30 s, 1280 kg/m3.
def test_drained_films_against_the_wave() -> None:
    assert drained_film_casson_m(8.0, 2.0, 1280.0, 0.03, 30.0) == pytest.approx(1.3155e-3, rel=2e-3)
    # without a yield value it is Jeffreys' film, sqrt(eta z / (rho g t))
    jeffreys = math.sqrt(2.0 * 0.03 / (1280.0 * 9.80665 * 30.0))
    assert drained_film_casson_m(0.0, 2.0, 1280.0, 0.03, 30.0) == pytest.approx(jeffreys, rel=1e-6)
    with pytest.raises(OutOfRange, match="seconds"):
        drained_film_casson_m(8.0, 2.0, 1280.0, 0.03, 0.0)


def test_a_casson_film_by_its_own_characteristic() -> None:
    # a point of the surface keeps its thickness and runs down with dq/dh: integrated, not solved for
    h, eta, tau, pull = 0.0012, 2.0, 5.0, 1270.0 * 9.80665
    stays = tau / pull

    def speed(_t: float, _z: np.ndarray) -> list[float]:
        return [pull / eta * h * (math.sqrt(h) - math.sqrt(stays)) ** 2]

    z = solve_ivp(speed, (0.0, 20.0), [0.0], rtol=1e-9).y[0, -1]
    assert drained_film_casson_m(tau, eta, 1270.0, float(z), 20.0) == pytest.approx(h, rel=1e-6)


# Common practice, no source: about 15 g over a 4 x 7 cm cavity is 0.8 to 2 mm; a thin shell wants a second coat.
def test_a_wall_keeps_what_the_trade_sees() -> None:
    keeps = wall_keeps_m(COATING, 0.018, 30.0)
    assert 0.0004 < keeps.low < keeps.likely < keeps.high < 0.0025
    wood = material("surfaces", "wood")
    here, cold = (
        Skin(
            Casting(
                COATING,
                material("moulds", "silicone"),
                exact(0.009),
                0.009,
                0.003,
                exact(38.0),
                None,
                (PlaceStay(0.0, Place(wood, 0.02, degc, degc)),),
            )
        )
        for degc in (21.0, 5.0)
    )
    thin = shell_against_film(COATING, 2 * keeps.likely, 0.018, 30.0, 20.0, here, cold)
    assert thin.coats == 2
    # the skin grows with standing, and sooner in the cold; standing so long is enough for one coat
    assert thin.stands_s is not None and thin.stands_cold_s is not None
    assert 60.0 < thin.stands_cold_s < thin.stands_s < 3600.0
    stood = shell_against_film(COATING, 2 * keeps.likely, 0.018, 30.0, 1.05 * thin.stands_s, here, cold)
    assert stood.coats == 1 and stood.skin.likely >= 0.9 * keeps.likely
    assert shell_against_film(COATING, 0.9 * keeps.likely, 0.018, 30.0, 0.0, here, cold).coats == 1
    assert dip_film_m(COATING, 0.03, 30.0, 0.03).likely <= wall_keeps_m(COATING, 0.03, 30.0, 30.0).likely
    # drawn out slowly enough, drag is all there is
    assert dip_film_m(COATING, 0.03, 1.0, 1e-4).likely < 0.2e-3


# The prototypes' table for 113.4 g at 1280 kg/m3.
@pytest.mark.parametrize(
    ("diameter_m", "wall_m"), [(0.07, 7.10e-3), (0.08, 5.01e-3), (0.10, 2.996e-3), (0.13, 1.713e-3)]
)
def test_ball_walls(diameter_m: float, wall_m: float) -> None:
    assert ball_kg(wall_m, diameter_m, 1280.0) == pytest.approx(0.1134, rel=3e-3)
    with pytest.raises(OutOfRange):
        ball_kg(diameter_m, diameter_m, 1280.0)


def test_lines_beads_and_dollops() -> None:
    assert line_kg(1.0, 0.002, 1270.0) == pytest.approx(1270.0 * math.pi * 1e-6, rel=1e-12)
    assert bead_kg(0.1, 0.004, 0.0, 0.0, 1270.0) == pytest.approx(line_kg(0.1, 0.004, 1270.0) / 2, rel=1e-12)
    # a cap on a right contact angle is half a ball
    # a sugar dollop is a cap on its contact angle: pi h (3 a^2 + h^2) / 6
    lies = dab(material("melts", "isomalt"), 0.02, tapped=False)
    assert lies.volume.likely == pytest.approx(
        math.pi * lies.high.likely * (3 * 1e-4 + lies.high.likely**2) / 6, rel=1e-9
    )


def test_what_stands_and_what_tips() -> None:
    base = [(-0.03, -0.03), (0.03, -0.03), (0.03, 0.03), (-0.03, 0.03)]
    brick = standing([Weight(0.2, 0.0, 0.0, 0.05)], base)
    # a brick 60 mm wide with its middle at 50 mm tips at atan(30/50)
    assert brick.inside_m == pytest.approx(0.03)
    assert brick.tips_rad == pytest.approx(math.atan(0.6))
    leaning = standing([Weight(0.1, 0.0, 0.0, 0.02), Weight(0.2, 0.06, 0.0, 0.1)], base)
    assert leaning.middle_m[0] == pytest.approx(0.04)
    assert leaning.inside_m == pytest.approx(-0.01)
    with pytest.raises(Missing):
        standing([], base)
    with pytest.raises(OutOfRange, match="three corners"):
        standing([Weight(0.1, 0.0, 0.0, 0.1)], [(0.0, 0.0), (0.1, 0.0)])


# A cantilever of the textbooks: F 10 N at 0.2 m on a bar 20 x 10 mm: M 2 Nm, sigma = 6 M / (b h^2) = 6 MPa (Gere and Goodno, recalled).
def test_a_foot_bends_as_in_the_textbook() -> None:
    assert foot_stress_pa(10.0 / 9.80665, 0.2, 0.02, 0.01) == pytest.approx(6.0e6, rel=1e-9)
    thick = foot_thickness_m(0.3, 0.05, 0.04, "sugar")
    strength = material("kitchen", "sugar", "strength")
    assert foot_stress_pa(0.3, 0.05, 0.04, thick) == pytest.approx(
        strength.value("bends") / strength.value("safety")
    )
    assert foot_thickness_m(0.3, 0.05, 0.04, "fat") > thick
    assert hangs(0.05, 0.0005, 0.02, "sugar") > 1 > hangs(0.5, 0.0005, 0.005, "sugar")


CASES = {
    "casson_film": drained_film_casson_m,
    "ball": ball_kg,
    "spread_yield": lambda kg, wide_m, density_kg_m3: yield_of_spread_pa(kg, wide_m, density_kg_m3).likely,
}


@rows(__file__)
def test_outside_values(row: dict[str, Any]) -> None:
    assert CASES[row["of"]](**row["given"]) == pytest.approx(row["expects"], abs=row["within"])
