"""Natural convection against the `ht` library (1.2), air against handbook values."""

from typing import Any

import ht
import pytest

from tests.published import rows
from umber_pebble.core.heat.convection import (
    air_properties,
    fin_loss_w_k,
    h_convection_w_m2k,
    h_radiation_w_m2k,
    nusselt_down_mcadams_1954,
    nusselt_plate_churchill_chu_1975,
    nusselt_stream_pohlhausen_1921,
    nusselt_up_mcadams_1954,
)


@pytest.mark.parametrize("gr", [1e4, 1e6, 1e8, 1e10])
@pytest.mark.parametrize("pr", [0.69, 0.72])
def test_nusselt_numbers_are_those_of_ht(pr: float, gr: float) -> None:
    vertical = ht.conv_free_immersed.Nu_vertical_plate_Churchill(pr, gr)
    assert nusselt_plate_churchill_chu_1975(pr, gr) == pytest.approx(vertical, rel=1e-9)
    up = ht.conv_free_immersed.Nu_horizontal_plate_McAdams(pr, gr, buoyancy=True)
    assert nusselt_up_mcadams_1954(pr, gr) == pytest.approx(up, rel=1e-9)
    down = ht.conv_free_immersed.Nu_horizontal_plate_McAdams(pr, gr, buoyancy=False)
    assert nusselt_down_mcadams_1954(pr, gr) == pytest.approx(down, rel=1e-9)


def test_air_is_that_of_the_handbook() -> None:
    # incropera-2007, table A.4 at 300 K: nu 15.89e-6, k 26.3e-3, Pr 0.707
    nu, k, pr = air_properties(26.85)
    assert nu == pytest.approx(15.89e-6, rel=0.02)
    assert k == pytest.approx(26.3e-3, rel=0.02)
    assert pr == pytest.approx(0.707, rel=0.02)


def test_a_cold_plate_facing_up_loses_as_a_warm_one_facing_down() -> None:
    assert h_convection_w_m2k(10.0, 30.0, 0.05, 1) == pytest.approx(
        h_convection_w_m2k(30.0, 10.0, 0.05, 2), rel=1e-12
    )


def test_radiation_is_stefan_boltzmann() -> None:
    ts, te = 418.15, 295.15
    exact = 0.9 * 5.670374419e-8 * (ts**4 - te**4) / (ts - te)
    assert h_radiation_w_m2k(145.0, 22.0, 0.9) == pytest.approx(exact, rel=1e-12)


def test_a_short_fin_loses_as_its_whole_face() -> None:
    # with a perfect conductor a fin is all at its foot's temperature
    assert fin_loss_w_k(10.0, 1e6, 0.002, 0.5, 0.01) == pytest.approx(10.0 * 0.5 * 0.01, rel=1e-4)


CASES = {
    "air_viscosity": lambda film_degc: air_properties(film_degc)[0],
    "air_conductivity": lambda film_degc: air_properties(film_degc)[1],
    "nu_vertical": nusselt_plate_churchill_chu_1975,
    "nu_up": nusselt_up_mcadams_1954,
    "nu_stream": nusselt_stream_pohlhausen_1921,
    "h_radiation": h_radiation_w_m2k,
}


@rows(__file__)
def test_outside_values(row: dict[str, Any]) -> None:
    assert CASES[row["of"]](**row["given"]) == pytest.approx(row["expects"], abs=row["within"])
