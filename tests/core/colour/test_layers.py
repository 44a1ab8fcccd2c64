"""Thin layers over what is behind them against the equation they solve, and smooth spectra against another library."""

import colour
import numpy as np
import pytest
from scipy.integrate import solve_ivp

from umber_pebble.core.colour.layers import CoatOfColour, over, seen_over, smooth_reflectance
from umber_pebble.core.colour.look import base_reflectance, inside, km_of_reflectance
from umber_pebble.core.colour.spaces import delta_e_2000, lab_of_hex, wavelengths_nm
from umber_pebble.core.materials.load import material

OCHRE, ROSE, NIGHT = "#c98a2b", "#f7b7c8", "#1b2a5e"
DARK = base_reflectance(material("bases", "dark_chocolate"))
WHITE = base_reflectance(material("bases", "white_cocoa_butter"))


@pytest.mark.parametrize("thick_m", [2e-5, 1e-4, 1e-3])
def test_a_layer_over_a_base_solves_the_equation_of_its_light(thick_m: float) -> None:
    """kubelka-munk-1931: dR/dX = S (1 - 2 a R + R^2), from what is behind it outwards."""
    coat = CoatOfColour(smooth_reflectance(OCHRE), 40.0, thick_m)
    behind = inside(DARK)
    a, scatter = 1 + km_of_reflectance(inside(np.array(coat.hiding))), 4000.0
    run = solve_ivp(
        lambda _, r: scatter * (1 - 2 * a * r + r**2),
        (0.0, thick_m),
        behind,
        rtol=1e-9,
        atol=1e-11,
        method="LSODA",
    )
    assert over(coat, behind) == pytest.approx(run.y[:, -1], abs=1e-6)


def test_a_layer_hides_all_where_it_is_thick_and_nothing_where_it_is_none() -> None:
    hiding = smooth_reflectance(ROSE)
    thick, thin = (CoatOfColour(hiding, 40.0, of) for of in (0.05, 1e-7))
    assert float(delta_e_2000(seen_over([thick], DARK), lab_of_hex(ROSE))) < 0.1
    assert over(thin, inside(DARK)) == pytest.approx(inside(DARK), abs=2e-3)


@pytest.mark.parametrize("wanted", [OCHRE, ROSE, NIGHT, "#ff2a00", "#2bc96a", "#808080"])
def test_a_smooth_spectrum_looks_like_its_colour(wanted: str) -> None:
    """colour-science, its own observer, light and sRGB."""
    shape = colour.SpectralShape(380, 780, 10)
    seen = colour.SpectralDistribution(np.array(smooth_reflectance(wanted)), wavelengths_nm())
    daylight = colour.SDS_ILLUMINANTS["D65"].copy().align(shape)
    eye = colour.MSDS_CMFS["CIE 1931 2 Degree Standard Observer"].copy().align(shape)
    xyz = colour.sd_to_XYZ(seen, cmfs=eye, illuminant=daylight, method="Integration") / 100
    rgb = colour.XYZ_to_sRGB(xyz, illuminant=np.array([0.31271, 0.32902]))
    expected = np.array([int(wanted[i : i + 2], 16) / 255 for i in (1, 3, 5)])
    assert rgb == pytest.approx(expected, abs=0.02)


def test_light_colours_need_white_behind_them_over_dark_chocolate_and_dark_ones_do_not() -> None:
    """Common practice, no source: white behind light colours."""
    white = CoatOfColour(tuple(float(v) for v in WHITE), 400.0, 1e-4)

    def off(wanted: str, *behind: CoatOfColour) -> float:
        coats = [CoatOfColour(smooth_reflectance(wanted), 40.0, 1e-4), *behind]
        return float(delta_e_2000(seen_over(coats, DARK), lab_of_hex(wanted)))

    assert off(ROSE) > 25 and off(ROSE, white) < 0.6 * off(ROSE)
    assert off(OCHRE) > 15 and off(OCHRE, white) < 0.6 * off(OCHRE)
    assert off(NIGHT) < 5
