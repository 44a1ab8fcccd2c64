"""Spoons and cups beside grams, and what a spoon more does to a mixture."""

import pytest

from umber_pebble.core.pieces.measures import SPOONS_M3, Measured, measured, measured_m3, spoon_kg
from umber_pebble.core.pieces.ratios import feel_of, mixed_of


def test_spoons_and_cups_go_into_one_another() -> None:
    """nist-handbook-44: three teaspoons a tablespoon, sixteen tablespoons a cup, a cup half a pint of 28.875 cubic inches."""
    assert SPOONS_M3["tbsp"] == pytest.approx(3 * SPOONS_M3["tsp"], rel=1e-5)
    assert SPOONS_M3["cup"] == pytest.approx(16 * SPOONS_M3["tbsp"], rel=1e-5)
    assert SPOONS_M3["cup"] == pytest.approx(28.875 / 2 * 0.0254**3, rel=1e-5)


def test_a_volume_is_told_by_the_largest_spoon_it_fills_to_a_quarter() -> None:
    tbsp = SPOONS_M3["tbsp"]
    assert measured_m3(tbsp / 3) == Measured(1.0, "tsp")
    assert measured_m3(2.1 * tbsp) == Measured(2.0, "tbsp")
    assert measured_m3(20 * tbsp) == Measured(1.25, "cup")
    assert measured_m3(tbsp / 100) is None
    assert measured("cake crumbs", 0.149) == Measured(1.25, "cup")
    assert measured("moon dust", 0.1) is None and spoon_kg("moon dust", "tsp") is None


def test_cake_filling_is_as_much_by_the_cup_as_practice_has_it() -> None:
    """Common practice, no source: 1 to 1.5 cups of crumbs to about 2 tablespoons of buttercream."""
    crumbs, frosting = mixed_of("cake", 0.18)
    assert crumbs.measured is not None and frosting.measured is not None
    assert crumbs.measured.of == "cup" and 1 <= crumbs.measured.count <= 1.5
    assert frosting.measured.of == "tbsp" and 1.5 <= frosting.measured.count <= 2.5


@pytest.mark.parametrize("key", ["ganache", "ganache_white", "cake", "modelling_chocolate", "gum_paste"])
def test_a_spoon_more_by_feel_stays_within_what_is_usual_for_as_many_as_it_says(key: str) -> None:
    first = mixed_of(key, 0.2)[0].kg
    feel, share = feel_of(key, 0.2), first / 0.2
    for spoon in (feel.dry, feel.soft):
        if spoon is None:
            continue
        of_first = spoon.name == mixed_of(key, 0.2)[0].name

        def then(n: int, kg: float = spoon.kg, of_first: bool = of_first) -> float:
            return (first + n * of_first * kg) / (0.2 + n * kg)

        low, high = LIMITS[key]
        assert low - 1e-9 <= then(spoon.most) <= high + 1e-9
        assert not low <= then(spoon.most + 1) <= high
        assert (then(1) > share) == of_first
    # the softer part is cream, frosting, syrup; of gum paste it is the fondant, which nobody measures by the spoon
    softer = {"cream", "frosting", "glucose syrup"}
    assert (feel.dry is None and key == "gum_paste") or (feel.dry is not None and feel.dry.name in softer)


LIMITS = {
    "ganache": (0.4, 0.6),
    "ganache_white": (0.66, 0.8),
    "cake": (0.75, 0.9),
    "modelling_chocolate": (0.67, 0.8),
    "gum_paste": (0.98, 0.992),
}
"""Of the first part, as the tables have it [frac]."""


def test_what_no_spoon_of_its_own_softens_says_nothing() -> None:
    feel = feel_of("marzipan", 0.2)
    assert feel.dry is None and feel.soft is None
