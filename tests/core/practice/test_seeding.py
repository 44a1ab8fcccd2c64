"""Tempering by seed from the melt on, as it is practised; common practice, no source: 45-50, cooled to 34-35, about 15 % seed."""

from dataclasses import replace

import pytest
from scipy.optimize import brentq

from tests.core.bench.test_tempering import Bench
from tests.told import says
from umber_pebble.core.materials.load import material
from umber_pebble.core.spread import Spread
from umber_pebble.core.temper.guide import before_seed
from umber_pebble.core.temper.schools import Tempering, steps
from umber_pebble.core.temper.seed import Bowl, Seeding, plan_seed, seeded_degc

DARK = material("melts", "dark")
BOWL = Bowl(0.25, 840.0, 0.7)
HALF_KILO = Tempering(DARK, "seed", 0.5, 47.0, 20.0, BOWL)


def share(at_degc: float) -> float:
    return plan_seed(Seeding(DARK, 0.5, at_degc, 20.0, 31.5, BOWL, Spread(0.5, 0.8, 1.0))).share_frac


def test_the_share_is_the_balance_at_the_temperature_where_the_seed_goes_in() -> None:
    melt, cool, seed, test = steps(HALF_KILO)
    assert [s.act for s in (melt, cool, seed, test)] == ["melt", "cool", "seed", "test"]
    assert 45.0 <= melt.to_degc <= 50.0
    assert 34.0 <= cool.to_degc <= 35.0
    # the same heat balance by another solver, dark: cp 1680 and 1500 J/kgK, 45 kJ/kg
    gives = (0.5 * 1680 + 0.7 * 0.25 * 840) * (34.5 - 31.5)
    alone = brentq(lambda kg: gives - kg * (1500 * 11.5 + 0.8 * 45000), 0.0, 1.0)
    assert seed.kg == pytest.approx(alone, rel=1e-6)
    practised = material("kitchen", "usual", "seed").spread("practised")
    assert practised.low <= round(seed.share_frac, 2) <= practised.high
    # stirred in at 47 it takes more than a third
    assert 0.33 < share(47.0) < 0.42


@pytest.mark.parametrize(
    ("at_degc", "through", "act"),
    [
        (30.0, False, "melt"),
        (40.0, False, "melt"),
        (44.0, True, "cool"),
        (40.0, True, "cool"),
        (47.0, False, "cool"),
        (34.8, True, "seed"),
        (33.0, True, "seed"),
        (30.0, True, "warm"),
        (58.0, True, "cool"),
    ],
)
def test_a_melt_that_was_through_is_never_melted_on(at_degc: float, through: bool, act: str) -> None:
    assert before_seed(DARK, at_degc, 0.08, through).act == act


def test_seed_goes_into_what_is_cooler_as_it_is() -> None:
    assert seeded_degc(DARK, 33.0) == 33.0
    assert seeded_degc(DARK, 50.0) == 34.5


def test_the_bench_cools_first_and_knows_what_was_through() -> None:
    bench = Bench()
    cool = bench.then(420.0, bench.reads(410.0, 46.0))
    assert (cool.what.step, cool.what.to_degc, cool.tells.KIND) == ("cool", 34.5, "tempered")
    assert cool.what.there_s > 600.0
    # on the way, at 40 degC and colder than it was, it is not sent back to the heat
    assert bench.then(700.0, bench.reads(690.0, 40.0)).what.step == "cool"
    seed = bench.then(1000.0, bench.reads(990.0, 34.6))
    assert seed.what.step == "seed"
    assert seed.what.share_frac < 0.25
    # a bowl that nobody recorded hot is asked about once; the tick settles it
    cold = Bench()
    cold.steps[2] = ("rested", 400.0, {"cook": 0, "degc": 36.0})
    asked = cold.then(420.0)
    assert (asked.what.step, says(asked)["step"]) == ("melt", "through")
    assert cold.then(430.0, ("tempered", 425.0, says(asked))).what.step == "cool"


def test_cooling_is_in_the_time_the_plan_gives_a_temper() -> None:
    [cook] = Bench().cooks
    [keep] = Bench("keep").cooks
    assert cook.hob.likely > keep.hob.likely + 300.0
    assert replace(HALF_KILO, melt_degc=33.0).seeding.melt_degc == 33.0
