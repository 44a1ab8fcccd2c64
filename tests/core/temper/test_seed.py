"""Seed against an independent solver and the trade; the guide; what cannot be."""

from dataclasses import replace
from typing import Any

import pytest
from scipy.optimize import brentq

from tests.published import rows
from umber_pebble.core.errors import OutOfRange
from umber_pebble.core.materials.load import material
from umber_pebble.core.spread import Spread, exact
from umber_pebble.core.temper.guide import after_seed, before_seed
from umber_pebble.core.temper.seed import Bowl, Seeding, after_degc, melted_frac, plan_seed, seed_kg

DARK = material("melts", "dark")
NO_BOWL = Bowl(0.0, 500.0, 1.0)
USUAL = Seeding(DARK, 1.0, 45.0, 20.0, 32.0, NO_BOWL, Spread(0.5, 0.8, 1.0))


# An independent energy balance (recalled reckoning, dark 45 to 32 C, seed 20 C): 35.0, 30.6, 27.2, 25.7 % of the whole.
@pytest.mark.parametrize(("melted", "share"), [(0.5, 0.350), (0.7, 0.306), (0.9, 0.272), (1.0, 0.257)])
def test_shares_without_a_bowl_are_those_of_the_balance(melted: float, share: float) -> None:
    seed = seed_kg(USUAL, melted)
    assert seed / (1 + seed) == pytest.approx(share, abs=0.002)


# Common practice, no source: 25 to 30 % seed.
def test_the_trades_share_lies_in_the_spread() -> None:
    plan = plan_seed(USUAL)
    shares = [kg / (1 + kg) for kg in (plan.seed_kg.low, plan.seed_kg.high)]
    assert shares[0] < 0.28 < shares[1]
    assert plan.unmelted_kg == pytest.approx(0.2 * plan.seed_kg.likely)


@pytest.mark.parametrize("bowl", [NO_BOWL, Bowl(0.35, 840.0, 0.7), Bowl(1.2, 500.0, 1.0)])
@pytest.mark.parametrize("melted", [0.0, 0.6, 1.0])
def test_a_bowl_seeded_as_planned_comes_to_where_an_independent_solver_says(bowl: Bowl, melted: float) -> None:
    s = replace(USUAL, bowl=bowl, melt_kg=0.4)
    added = seed_kg(s, melted)

    def heat(t: float) -> float:
        melt = 0.4 * DARK.value("cp_melt") * (45 - t) + bowl.follows_frac * bowl.mass_kg * bowl.cp_j_kgk * (45 - t)
        return melt - added * (DARK.value("cp_set") * (t - 20) + melted * DARK.value("latent_fat"))

    assert brentq(heat, 20, 45) == pytest.approx(32.0, abs=1e-6)
    assert after_degc(s, added, melted) == pytest.approx(32.0, abs=1e-6)
    assert melted_frac(s, added, 32.0) == pytest.approx(melted, abs=1e-6)
    # a glass bowl holds heat that seed must take up too
    assert added >= seed_kg(replace(s, bowl=NO_BOWL), melted)


def test_the_guide_goes_from_melting_to_the_test() -> None:
    kg = plan_seed(USUAL).seed_kg.likely
    assert before_seed(DARK, 40.0, kg, False).act == "melt"
    assert before_seed(DARK, 58.0, kg, False).act == "cool"
    assert before_seed(DARK, 34.5, kg, True).act == "seed"
    acts = [after_seed(USUAL, kg, degc).act for degc in (36.0, 31.5, 29.0)]
    assert acts == ["stir", "test", "warm"]
    # all of it melted and still too warm: more; enough left in it: out with it
    little = after_seed(USUAL, 0.2, after_degc(USUAL, 0.2, 1.0))
    assert (little.act, little.melted_frac) == ("more", pytest.approx(1.0, abs=1e-6))
    much = after_seed(USUAL, 0.6, after_degc(USUAL, 0.6, 0.55))
    assert after_degc(USUAL, 0.6, 0.45) > 29.0
    assert much.act in ("take out", "warm")
    # seeding again from where it is brings it to its window
    rest = replace(USUAL, melt_kg=1.2, melt_degc=after_degc(USUAL, 0.2, 1.0))
    assert 31.0 < after_degc(rest, little.kg, 0.7) < 33.0


@pytest.mark.parametrize(
    ("change", "match"),
    [
        ({"seed_degc": 31.5}, "loses its temper"),
        ({"melt_degc": 31.0}, "no warmer"),
        ({"melt_kg": 0.0}, "melt_kg"),
        ({"melt_degc": 90.0}, "melt_degc"),
    ],
)
def test_what_cannot_be_seeded_is_refused(change: dict[str, float], match: str) -> None:
    with pytest.raises(OutOfRange, match=match):
        replace(USUAL, **change)
    with pytest.raises(OutOfRange, match="added_kg"):
        melted_frac(USUAL, -0.1, 32.0)


def _seed(at_degc: float, seed_degc: float, melts_frac: float, bowl_kg: float, **table: float) -> float:
    """A melt with the values of the row, not of the product's table."""
    own = {name: replace(DARK[name], spread=exact(value)) for name, value in table.items()}
    melt = replace(DARK, properties=DARK.properties | own)
    bowl = Bowl(bowl_kg, 840.0, 1.0)
    return seed_kg(Seeding(melt, 1.0, at_degc, seed_degc, 31.5, bowl, exact(melts_frac)), melts_frac)


CASES = {
    "seed": _seed,
}


@rows(__file__)
def test_outside_values(row: dict[str, Any]) -> None:
    assert CASES[row["of"]](**row["given"]) == pytest.approx(row["expects"], abs=row["within"])
