"""Colours against published pairs and identities; recipes that must find what made a colour."""

from dataclasses import replace
from typing import Any

import colour
import numpy as np
import pytest
from scipy.optimize import minimize

from tests.published import rows
from umber_pebble.core.colour.look import (
    Medium,
    absorbance_per_m,
    inside,
    km_of_reflectance,
    outside,
    reflectance_of_km,
    spectrum,
)
from umber_pebble.core.colour.recipe import SIMPLER, recipe, strong_recipe
from umber_pebble.core.colour.spaces import (
    delta_e_2000,
    delta_parts_2000,
    hex_of_lab,
    lab_of_hex,
    lab_of_spectrum,
    wavelengths_nm,
)
from umber_pebble.core.errors import Missing, OutOfRange
from umber_pebble.core.materials.load import material
from umber_pebble.core.spread import Spread

CLEAR = Medium(material("bases", "clear_isomalt"), 1474.0, 0.003)
IVORY = Medium(material("bases", "white_chocolate"), 1235.0)
BRIGHT = Medium(material("bases", "bright_coating"), 1245.0)
MOST = 500.0
SIX = ("e102", "e110", "e129", "e122", "e133", "e151")

# sharma-2005, table 1, all 34 pairs, recalled
SHARMA = """
50 2.6772 -79.7751 50 0 -82.7485 2.0425|50 3.1571 -77.2803 50 0 -82.7485 2.8615|50 2.8361 -74.02 50 0 -82.7485 3.4412
50 -1.3802 -84.2814 50 0 -82.7485 1|50 -1.1848 -84.8006 50 0 -82.7485 1|50 -0.9009 -85.5211 50 0 -82.7485 1
50 0 0 50 -1 2 2.3669|50 -1 2 50 0 0 2.3669|50 2.49 -0.001 50 -2.49 0.0009 7.1792|50 2.49 -0.001 50 -2.49 0.001 7.1792
50 2.49 -0.001 50 -2.49 0.0011 7.2195|50 2.49 -0.001 50 -2.49 0.0012 7.2195|50 -0.001 2.49 50 0.0009 -2.49 4.8045
50 -0.001 2.49 50 0.001 -2.49 4.8045|50 -0.001 2.49 50 0.0011 -2.49 4.7461|50 2.5 0 50 0 -2.5 4.3065
50 2.5 0 73 25 -18 27.1492|50 2.5 0 61 -5 29 22.8977|50 2.5 0 56 -27 -3 31.9030|50 2.5 0 58 24 15 19.4535
50 2.5 0 50 3.1736 0.5854 1|50 2.5 0 50 3.2972 0 1|50 2.5 0 50 1.8634 0.5757 1|50 2.5 0 50 3.2592 0.335 1
60.2574 -34.0099 36.2677 60.4626 -34.1751 39.4387 1.2644|63.0109 -31.0961 -5.8663 62.8187 -29.7946 -4.0864 1.2630
61.2901 3.7196 -5.3901 61.4292 2.248 -4.962 1.8731|35.0831 -44.1164 3.7933 35.0232 -40.0716 1.5901 1.8645
22.7233 20.0904 -46.694 23.0331 14.973 -42.5619 2.0373|36.4612 47.858 18.3852 36.2715 50.5065 21.2231 1.4146
90.8027 -2.0831 1.441 91.1528 -1.6435 0.0447 1.4441|90.9257 -0.5406 -0.9208 88.6381 -0.8985 -0.7239 1.5381
6.7747 -0.2908 -2.4247 5.8714 -0.0985 -2.2286 0.6377|2.0776 0.0795 -1.135 0.9033 -0.0636 -0.5514 0.9082
"""


def test_colour_differences_are_those_of_the_published_pairs() -> None:
    rows = np.array([[float(v) for v in pair.split()] for pair in SHARMA.strip().replace("\n", "|").split("|")])
    assert rows.shape == (34, 7)
    assert delta_e_2000(rows[:, :3], rows[:, 3:6]) == pytest.approx(rows[:, 6], abs=6e-5)
    assert delta_e_2000(rows[:, 3:6], rows[:, :3]) == pytest.approx(rows[:, 6], abs=6e-5)


# iec-61966-2-1: sRGB red, white and black in Lab under D65.
def test_hex_and_lab_are_each_others_way_back() -> None:
    assert lab_of_hex("#ff0000") == pytest.approx([53.24, 80.09, 67.20], abs=0.1)
    assert lab_of_hex("#ffffff") == pytest.approx([100.0, 0.0, 0.0], abs=0.1)
    assert lab_of_hex("000000") == pytest.approx([0.0, 0.0, 0.0], abs=1e-9)
    for text in ("#4080c0", "#d8c0a0", "#123456", "#fefefe"):
        assert hex_of_lab(lab_of_hex(text)) == text
    for wrong in ("blue", "#12345", "#12345g", ""):
        with pytest.raises(OutOfRange, match="six digits"):
            lab_of_hex(wrong)


def test_a_perfect_white_is_white_in_either_light() -> None:
    white = np.ones(wavelengths_nm().size)
    for light in ("daylight", "warm"):
        assert lab_of_spectrum(white, light) == pytest.approx([100.0, 0.0, 0.0], abs=1e-9)
    with pytest.raises(OutOfRange, match="no such light"):
        lab_of_spectrum(white, "moon")


# Allura red, 50 mg/kg in isomalt of 1474 kg/m3: 0.398 a millimetre at its peak (E 540; recalled).
def test_absorbance_goes_with_dose_and_thickness() -> None:
    per_m = absorbance_per_m(np.array([50.0]), ("e129",), 1474.0)
    assert per_m.max() * 0.001 == pytest.approx(0.398, abs=0.004)
    # the same dose times thickness looks the same; ten times as thick is as dark as ten times the dose
    thin = spectrum(replace(CLEAR, thickness_m=0.001), np.array([200.0]), ("e129",))
    thick = spectrum(replace(CLEAR, thickness_m=0.010), np.array([20.0]), ("e129",))
    assert thin == pytest.approx(thick, abs=1e-12)
    # on white the light goes twice through it
    doubled = spectrum(replace(CLEAR, thickness_m=0.006), np.array([40.0]), ("e133",))
    white = spectrum(replace(CLEAR, on_white=True), np.array([40.0]), ("e133",))
    assert white == pytest.approx(doubled, abs=1e-12)


# kubelka-munk-1931: R 0.5 is K/S 0.25, R 0.2 is 1.6.
def test_opaque_bodies_keep_their_identities() -> None:
    assert km_of_reflectance(np.array([0.5, 0.2])) == pytest.approx([0.25, 1.6])
    r = np.linspace(0.02, 0.98, 25)
    assert reflectance_of_km(km_of_reflectance(r)) == pytest.approx(r, abs=1e-12)
    assert outside(inside(r[1:])) == pytest.approx(r[1:], abs=1e-12)
    plain = spectrum(IVORY, np.array([0.0]), ("e129",))
    coloured = spectrum(IVORY, np.array([100.0]), ("e129",))
    assert (coloured <= plain + 1e-12).all()
    lab = lab_of_spectrum(np.stack([plain, coloured]))
    assert lab[1, 0] < lab[0, 0]
    assert lab[1, 1] > lab[0, 1] + 10


@pytest.mark.parametrize("medium", [CLEAR, BRIGHT, IVORY])
@pytest.mark.parametrize("made", [{"e102": 80.0, "e133": 12.0}, {"e129": 60.0}, {"e110": 40.0, "e151": 30.0}])
def test_a_colour_that_was_made_is_found_again(medium: Medium, made: dict[str, float]) -> None:
    lab = lab_of_spectrum(spectrum(medium, np.array(list(made.values())), tuple(made)))
    found = recipe(medium, lab, SIX, MOST)
    assert found.delta_e < 0.5
    assert found.held_by == ""
    assert len(found.doses_mg_kg) <= 3
    if set(found.doses_mg_kg) == set(made):
        assert found.doses_mg_kg == pytest.approx(made, rel=0.02)


def test_what_cannot_be_reached_is_the_nearest_and_says_why() -> None:
    black = recipe(IVORY, lab_of_hex("#101010"), SIX, MOST)
    assert black.held_by == "the most that is usual"
    assert sum(black.doses_mg_kg.values()) == pytest.approx(MOST, rel=1e-3)
    white = recipe(IVORY, lab_of_hex("#ffffff"), SIX, MOST)
    assert white.held_by == "these colours"
    assert sum(white.doses_mg_kg.values()) < 20
    # what is in it stays in it
    spoilt = recipe(IVORY, lab_of_hex("#eaddb6"), ("e133",), MOST, {"e133": 60.0})
    assert spoilt.doses_mg_kg["e133"] == pytest.approx(60.0)
    assert spoilt.held_by == "what is in it already"


def test_a_batch_is_corrected_by_adding_only() -> None:
    lab = lab_of_spectrum(spectrum(BRIGHT, np.array([80.0, 20.0]), ("e102", "e133")))
    more = recipe(BRIGHT, lab, SIX, MOST, {"e102": 50.0, "e133": 20.0})
    assert more.delta_e < 0.5
    assert more.doses_mg_kg["e102"] == pytest.approx(80.0, rel=0.05)
    assert all(more.doses_mg_kg[key] >= dose - 1e-9 for key, dose in {"e102": 50.0, "e133": 20.0}.items())


def test_what_cannot_be_asked_is_refused() -> None:
    lab = lab_of_hex("#808080")
    with pytest.raises(Missing, match="at least one"):
        recipe(IVORY, lab, (), MOST)
    with pytest.raises(OutOfRange, match="at most 6"):
        recipe(IVORY, lab, (*SIX, "e142"), MOST)
    with pytest.raises(OutOfRange, match="already"):
        recipe(IVORY, lab, SIX, MOST, {"e102": -5.0})
    with pytest.raises(OutOfRange, match="already"):
        recipe(IVORY, lab, SIX, MOST, {"e102": 400.0, "e133": 400.0})
    with pytest.raises(OutOfRange, match="thickness_m"):
        replace(CLEAR, thickness_m=0.0)


# Common practice, no source: red and black need a lot of colour; black is started from dark, not from white.
def test_a_strong_red_is_reached_and_black_starts_from_dark() -> None:
    most = Spread(0.0, MOST, 2000.0)
    hand = ("e129", "e102", "e133", "e151")
    red = strong_recipe(BRIGHT, lab_of_hex("#b01020"), hand, most)
    assert red.delta_e < 5.0
    assert MOST < sum(red.doses_mg_kg.values()) <= 2000.0
    # a colour that is reached within what is usual takes no more
    pale = strong_recipe(BRIGHT, lab_of_hex("#e8b8b8"), hand, most)
    assert sum(pale.doses_mg_kg.values()) <= MOST
    dark = Medium(material("bases", "dark_coating"), 1245.0)
    black = lab_of_hex("#2a2420")
    from_dark, from_white = (strong_recipe(m, black, hand, most) for m in (dark, BRIGHT))
    assert from_dark.delta_e < 3.0
    assert sum(from_dark.doses_mg_kg.values()) < sum(from_white.doses_mg_kg.values()) / 3


def test_the_parts_of_a_difference_add_up_to_it() -> None:
    """colour-science 0.4.7: delta_E_CIE2000 on random pairs, blues among them."""
    rng = np.random.default_rng(7)
    one, other = (rng.uniform((5, -90, -110), (98, 90, 90), (400, 3)) for _ in range(2))
    own = np.sqrt((delta_parts_2000(one, other) ** 2).sum(axis=-1))
    assert own == pytest.approx(colour.delta_E(one, other, method="CIE 2000"), abs=1e-6)


@pytest.mark.parametrize("wanted", ["#2f5fae", "#7a1fa0", "#3b7d3a"])
def test_the_recipe_is_the_nearest_by_ciede2000_itself(wanted: str) -> None:
    """scipy's SLSQP on the same doses finds nothing nearer, where Lab's own distance would have stopped elsewhere."""
    lab, keys = lab_of_hex(wanted), ("e133", "e129", "e102")
    found = recipe(BRIGHT, lab, keys, MOST)

    def off(x: np.ndarray) -> float:  # type: ignore[type-arg]
        at = lab_of_spectrum(spectrum(BRIGHT, np.maximum(x, 0.0) * 100, keys))
        return float(colour.delta_E(at, lab, method="CIE 2000"))

    starts = [np.array(s) for s in ((0.5, 0.5, 0.5), (2.0, 0.2, 0.2), (0.2, 2.0, 0.2))]
    whole = {"type": "ineq", "fun": lambda x: MOST / 100 - x.sum()}
    best = min(
        float(minimize(off, s, bounds=[(0, MOST / 100)] * 3, constraints=whole, method="SLSQP").fun)
        for s in starts
    )
    assert found.delta_e <= best + SIMPLER * 3 + 0.05


CASES = {
    "lab_L": lambda hex: lab_of_hex(hex)[0],
    "lab_a": lambda hex: lab_of_hex(hex)[1],
    "lab_b": lambda hex: lab_of_hex(hex)[2],
    "delta_e": lambda one, other: float(delta_e_2000(np.array(one), np.array(other))),
}


@rows(__file__)
def test_outside_values(row: dict[str, Any]) -> None:
    assert CASES[row["of"]](**row["given"]) == pytest.approx(row["expects"], abs=row["within"])
