"""Films of spirit drying in a room, against handbook pressures and the closed form for one liquid."""

import math

import pytest

from umber_pebble.core.errors import OutOfRange
from umber_pebble.core.humidity.dew import vapour_pressure_pa
from umber_pebble.core.humidity.evaporate import alcohol_pressure_pa, dries_s, drying, film_of


@pytest.mark.parametrize(("degc", "kpa"), [(0.0, 1.57), (20.0, 5.85), (40.0, 17.9), (60.0, 46.9)])
def test_alcohol_has_its_handbook_pressure(degc: float, kpa: float) -> None:
    """CRC Handbook of Chemistry and Physics, vapour pressure of ethanol, recalled."""
    assert alcohol_pressure_pa(degc) == pytest.approx(kpa * 1000, rel=0.03)


def test_one_liquid_dries_as_its_film_over_its_flux() -> None:
    """Stefan's flux of a pure liquid by Lewis' rule, by hand; water against 46 % in the room."""
    film = film_of(25e-6, 1.0)
    flux = 5 / (1.19 * 1006) / 1.79 ** (2 / 3) * 0.046069 * alcohol_pressure_pa(21.5) / (8.314462 * 294.65)
    assert dries_s(film, 21.5, 0.46) == pytest.approx(film.alcohol * (1 - drying("left")) / flux, rel=0.02)
    water = film_of(25e-6, 0.0)
    flux = 5 / (1.19 * 1006) / 0.86 ** (2 / 3) * 0.018015 * vapour_pressure_pa(21.5) * 0.54 / (8.314462 * 294.65)
    assert dries_s(water, 21.5, 0.46) == pytest.approx(water.water * (1 - drying("left")) / flux, rel=0.02)


def test_a_weak_spirit_and_a_damp_room_dry_slowly() -> None:
    times = [dries_s(film_of(25e-6, share), 21.5, 0.46) for share in (1.0, 0.95, 0.8, 0.4, 0.0)]
    assert times == sorted(times) and times[3] > 1.8 * times[2] > 1.8 * times[0]
    assert dries_s(film_of(25e-6, 0.4), 21.5, 0.9) > 2 * times[3]
    assert math.isinf(dries_s(film_of(25e-6, 0.0), 21.5, 1.0))
    assert dries_s(film_of(0.0, 0.5), 21.5, 0.5) == 0.0
    with pytest.raises(OutOfRange, match="alcohol_frac"):
        film_of(1e-5, 1.2)
