"""Viscosity, glass transition and water against published closed values."""

from typing import Any

import pytest

from tests.published import rows
from umber_pebble.core.errors import OutOfRange
from umber_pebble.core.glass.bend import bend_strain_frac
from umber_pebble.core.glass.viscosity import (
    log_viscosity_wlf_1955,
    temperature_at_log_viscosity_degc,
    tg_gordon_taylor_1952_degc,
    tg_spread_degc,
)
from umber_pebble.core.glass.water import (
    boils_at_degc,
    boils_here_degc,
    pressure_pa,
    saturation_pa,
    water_left_frac,
    water_of_cook,
)
from umber_pebble.core.humidity.stickiness import sticky_from_frac
from umber_pebble.core.materials.load import Material

CASES = {
    "log_visc": lambda above_k: log_viscosity_wlf_1955(50.0 + above_k, 50.0),
    "tg": lambda water_frac: tg_gordon_taylor_1952_degc(water_frac, 63.0, -135.0, 4.7),
    "water_boils_lower": lambda altitude_m: 100.0 - boils_here_degc(100.0, altitude_m),
    "pressure": pressure_pa,
    "saturation_pressure": saturation_pa,
    "boils_here": boils_here_degc,
    "at_log_viscosity": lambda log_visc: temperature_at_log_viscosity_degc(log_visc, 47.3),
    "bend_strain": bend_strain_frac,
    "water_left": lambda cook_degc: water_left_frac(cook_degc, 0.0),
}


@rows(__file__)
def test_published_values(row: dict[str, Any]) -> None:
    assert CASES[row["of"]](**row["given"]) == pytest.approx(row["expects"], abs=row["within"])


@pytest.mark.parametrize("log_visc", [1.5, 3.0, 6.6, 8.0, 12.0, 13.5])
def test_temperature_and_viscosity_are_inverse(log_visc: float) -> None:
    assert log_viscosity_wlf_1955(temperature_at_log_viscosity_degc(log_visc, 47.3), 47.3) == pytest.approx(
        log_visc
    )


def test_a_higher_kitchen_leaves_less_water_at_the_same_heat() -> None:
    assert water_left_frac(150.0, 2000.0) < water_left_frac(150.0, 0.0)
    assert boils_at_degc(0.03, 2000.0) < boils_at_degc(0.03, 0.0)


def test_dry_and_wet_cooks_have_their_own_water(isomalt: Material) -> None:
    dry = water_of_cook(isomalt, wet=False, cook_degc=160.0, altitude_m=0.0)
    wet = water_of_cook(isomalt, wet=True, cook_degc=160.0, altitude_m=0.0)
    assert dry.likely < wet.likely == pytest.approx(0.018)
    tg = tg_spread_degc(isomalt, wet)
    assert tg.low < tg.likely == pytest.approx(47.3, abs=0.05)


# Common practice, no source: humid or warm rooms keep sugar sticky; the threshold falls as the room warms.
def test_humid_rooms_are_sticky(isomalt: Material) -> None:
    cool, warm = sticky_from_frac(isomalt, 22.0), sticky_from_frac(isomalt, 30.0)
    assert 0.5 < cool.low < cool.high < 0.7
    assert warm.likely < cool.likely


def test_out_of_range_is_refused_by_name() -> None:
    with pytest.raises(OutOfRange, match="water_frac"):
        tg_gordon_taylor_1952_degc(0.5, 63.0, -135.0, 4.7)
    with pytest.raises(OutOfRange, match="altitude_m"):
        pressure_pa(9000.0)
    with pytest.raises(OutOfRange, match="temp_degc"):
        log_viscosity_wlf_1955(-40.0, 50.0)
