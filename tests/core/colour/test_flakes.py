"""Dust on a surface: gold wants a base of its own colour, an interference colour turns on dark and vanishes on white."""

import numpy as np
import pytest

from umber_pebble.core.colour.flakes import TILTS_RAD, Dusted, DustSort, covers_frac, looks
from umber_pebble.core.colour.layers import smooth_reflectance
from umber_pebble.core.colour.look import base_reflectance
from umber_pebble.core.colour.spaces import Array, delta_e_2000, lab_of_hex, lab_of_spectrum
from umber_pebble.core.materials.load import material

DARK, WHITE = (base_reflectance(material("bases", key)) for key in ("dark_chocolate", "bright_coating"))
GOLD, AQUA = "#d4a72c", "#6fd0e8"
COATS = 0.003


def off(one: Array, other: Array) -> float:
    return float(delta_e_2000(one, other))


def tilted(sort: DustSort, colour: str, base: Array, kg_m2: float = COATS) -> list[Array]:
    return [looks(Dusted(sort, colour, kg_m2), base, tilt) for tilt in TILTS_RAD]


def test_a_surface_is_covered_as_by_grains_that_fall_where_they_do() -> None:
    """Against grains thrown at random: the share of cells that none fell into."""
    once = material("kitchen", "lustre", "dust").value("once")
    rng = np.random.default_rng(11)
    for times in (0.5, 1.0, 2.0):
        thrown = np.bincount(rng.integers(0, 20_000, int(20_000 * times)), minlength=20_000)
        assert covers_frac("lustre", times * once) == pytest.approx((thrown > 0).mean(), abs=0.01)


def test_gold_on_dark_is_dull_and_on_its_own_colour_is_gold() -> None:
    """Common practice, no source: dark under gold dulls it, a base near the dust's colour brings it out."""
    own = np.array(smooth_reflectance(GOLD))
    for sort in ("highlighter", "lustre"):
        on_dark, on_own = tilted(sort, GOLD, DARK)[-1], tilted(sort, GOLD, own)[-1]  # type: ignore[arg-type]
        assert off(on_own, lab_of_hex(GOLD)) < 6
        assert off(on_dark, on_own) > 15


def test_an_interference_colour_turns_on_dark_and_vanishes_on_white() -> None:
    on_dark, on_white = tilted("pearl", AQUA, DARK), tilted("pearl", AQUA, WHITE)
    assert off(on_dark[0], on_dark[-1]) > 20
    assert off(on_white[0], on_white[-1]) < 6
    assert off(on_white[-1], lab_of_spectrum(WHITE)) < 6
    # to the light it has its colour, far from it nearly the chocolate's
    assert off(on_dark[0], lab_of_hex(AQUA)) < off(on_dark[-1], lab_of_hex(AQUA))


def test_matt_dust_looks_the_same_from_everywhere_and_hides_more_with_every_coat() -> None:
    rose = lab_of_hex("#e48aa8")
    seen = tilted("petal", "#e48aa8", DARK)
    assert off(seen[0], seen[2]) < 1e-6
    coats = [off(tilted("petal", "#e48aa8", DARK, n * 0.0015)[0], rose) for n in (1, 2, 4)]
    assert coats == sorted(coats, reverse=True) and coats[2] < 0.6 * coats[0]
    assert off(tilted("petal", "#e48aa8", DARK, 0.0)[0], lab_of_spectrum(DARK)) < 1e-6
