"""Moist air against handbook libraries, and the sweat of a cold piece."""

from typing import Any

import pytest

from tests.published import rows
from umber_pebble.core.errors import OutOfRange
from umber_pebble.core.humidity.dew import dew_point_degc, humidity_ratio, vapour_pressure_pa

CASES = {"dew_point": dew_point_degc, "vapour_pressure": vapour_pressure_pa, "humidity_ratio": humidity_ratio}


@rows(__file__)
def test_outside_values(row: dict[str, Any]) -> None:
    assert CASES[row["of"]](**row["given"]) == pytest.approx(row["expects"], abs=row["within"])


def test_air_beyond_the_law_is_refused() -> None:
    with pytest.raises(OutOfRange, match="temp_degc"):
        vapour_pressure_pa(60.0)
