"""Readings of a melt that was not swirled: against a conduction column, with convection by depth, and what a fit makes of them."""

import math
from typing import Any

import numpy as np
import pytest
from scipy.integrate import solve_ivp

from tests.conftest import make_pot
from tests.core.bench.test_bench import COOKS, WAY, pot_track, reading
from tests.published import rows
from umber_pebble.core.bench.state import Reading
from umber_pebble.core.bench.track import corrected_degc, temperature_at_degc
from umber_pebble.core.heat.convection import h_convection_w_m2k, h_radiation_w_m2k
from umber_pebble.core.heat.unswirled import _mixed, from_mean, nusselt_layer_hollands_1975, offsets
from umber_pebble.core.heat.vessel import PotCase, base_case, cooling_curve_degc
from umber_pebble.core.materials.load import material

ISOMALT = material("melts", "isomalt")
CELLS = 80


def column(case: PotCase, start: float, seconds: float) -> tuple[float, float, float]:
    """Surface, middle and mean of a column (scipy's LSODA on a fine grid), its conductivity raised by what turns over."""
    d, k, c = case.depth_m, ISOMALT.value("conductivity"), ISOMALT.value("density_melt") * case.cp_melt_j_kgk
    dx, pot = d / CELLS, case.pot

    def rate(_: float, t: np.ndarray) -> np.ndarray:  # type: ignore[type-arg]
        ke = k * _mixed(case, float(t.mean()), float(t.max() - t[-1]))
        top = t[-1]
        for _ in range(3):
            h = 0.8 * h_convection_w_m2k(top, pot.air_degc, pot.diameter_m / 4, 1) + h_radiation_w_m2k(
                top, pot.air_degc, 0.9
            )
            q = h * (top - pot.air_degc)
            top = t[-1] - q * dx / 2 / ke
        flux = np.concatenate(([-case.stand_h_w_m2k * (t[0] - pot.below_degc)], -ke * np.diff(t) / dx, [q]))
        return -np.diff(flux) / (c * dx)

    t = solve_ivp(rate, (0.0, seconds), np.full(CELLS, start), "LSODA", rtol=1e-7, atol=1e-7).y[:, -1]
    ke = k * _mixed(case, float(t.mean()), float(t.max() - t[-1]))
    h = 0.8 * h_convection_w_m2k(t[-1], pot.air_degc, pot.diameter_m / 4, 1) + h_radiation_w_m2k(
        t[-1], pot.air_degc, 0.9
    )
    return float(t[-1] - h * (t[-1] - pot.air_degc) * dx / 2 / ke), float(t[CELLS // 2]), float(t.mean())


@pytest.mark.parametrize("kg", [0.25, 0.5, 1.0])
@pytest.mark.parametrize("seconds", [20.0, 60.0, 180.0, 600.0])
def test_the_mean_behind_a_reading_is_the_columns(kg: float, seconds: float) -> None:
    case = base_case(make_pot(0.16, 1.0), ISOMALT, kg)
    surface, middle, mean = column(case, 160.0, seconds)
    found = offsets(case, surface, seconds, "surface")
    assert surface - found.surface_k == pytest.approx(mean, abs=max(0.15 * (mean - surface), 1.0))
    inside = offsets(case, middle, seconds, "middle")
    assert middle - inside.middle_k == pytest.approx(mean, abs=1.2)


def test_a_surface_cools_as_the_square_root_of_time_at_first() -> None:
    """The half space under a steady flux: 2 q sqrt(t / (pi k rho c)), an exact limit."""
    for fourier in (1e-4, 1e-3, 0.03):
        exact = -2 * math.sqrt(fourier / math.pi) + fourier
        assert from_mean(1.0, fourier) == pytest.approx(exact, rel=0.01)
    # and comes to the steady parabola: -1/3 at the face, 1/24 in the middle, 1/6 at the foot
    assert [from_mean(x, 5.0) for x in (1.0, 0.5, 0.0)] == pytest.approx([-1 / 3, 1 / 24, 1 / 6], abs=1e-6)
    assert offsets(base_case(make_pot(), ISOMALT, 0.5), 150.0, 0.0, "surface").surface_k == pytest.approx(
        0.0, abs=0.3
    )


def test_a_deep_melt_turns_over_by_itself_and_a_shallow_one_does_not() -> None:
    """Hollands, Raithby and Konicek 1975 (from memory): conduction below Ra 1708, about 2.1 at 1e4 in their formula."""
    assert nusselt_layer_hollands_1975(1500.0) == 1.0
    assert nusselt_layer_hollands_1975(1e4) == pytest.approx(
        1 + 1.44 * (1 - 0.1708) + (1e4 / 5830) ** (1 / 3) - 1, rel=1e-9
    )
    shallow, deep = (base_case(make_pot(0.16, 1.0), ISOMALT, kg) for kg in (0.2, 2.0))
    assert _mixed(shallow, 145.0, 20.0) == 1.0
    assert _mixed(deep, 145.0, 20.0) > 1.5


def test_two_surface_readings_do_not_drag_a_fit_below_what_the_pot_can_lose() -> None:
    """Surface readings that are what the column says: the fit stays with the pot; read as the mean they would pour too hot."""
    cook = COOKS[0]
    case = base_case(WAY.pot, WAY.melt, cook.charge_kg)
    plain = pot_track()
    read = [(360.0, column(case, 160.0, 60.0)[0]), (420.0, column(case, 160.0, 120.0)[0])]
    track = pot_track(*(reading(at, degc, "infrared") for at, degc in read))
    for at in (600.0, 900.0):
        there, here = temperature_at_degc(plain, at).likely, temperature_at_degc(track, at).likely
        assert here == pytest.approx(there, abs=4.0)
    assert track.windows["pour"][0].likely > 0.85 * plain.windows["pour"][0].likely
    # far colder ones, a skin perhaps, are shown and left out however many they are
    skin = pot_track(*(reading(at, degc - 30.0, "infrared") for at, degc in read))
    assert all(d.odd for d in skin.dots)
    fastest = cooling_curve_degc(case, 160.0)
    assert temperature_at_degc(skin, 600.0).likely > float(fastest[20]) - 6.0


def test_readings_taken_alike_share_their_doubt() -> None:
    case = base_case(WAY.pot, WAY.melt, COOKS[0].charge_kg)
    sds = [corrected_degc(Reading("a", 0, 140.0, "infrared"), case, 300.0, n)[1] for n in range(6)]
    assert sds == sorted(sds)
    together = 1 / math.sqrt(sum(1 / sd**2 for sd in sds))
    assert together > 0.7 * sds[0]


CASES = {
    "from_mean": from_mean,
}


@rows(__file__)
def test_outside_values(row: dict[str, Any]) -> None:
    assert CASES[row["of"]](**row["given"]) == pytest.approx(row["expects"], abs=row["within"])
