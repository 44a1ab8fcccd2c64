"""Bands of a cast's times: against a large Monte Carlo over the tables' own ranges; crossings that hold at once; thick casts."""

import math
from dataclasses import replace
from typing import Any

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from scipy import stats

from tests.conftest import FRIDGE, WOOD
from tests.published import rows
from umber_pebble.core.glass.viscosity import tg_spread_degc
from umber_pebble.core.heat.casting import Casting, Place, PlaceStay
from umber_pebble.core.heat.conduction import Array
from umber_pebble.core.heat.design import Design, normal_design, run_design, split_normal
from umber_pebble.core.heat.piece import COARSE, base
from umber_pebble.core.heat.windows import FAT_MARKS, SUGAR_MARKS, _at_log, windows_s
from umber_pebble.core.materials.load import material
from umber_pebble.core.spread import Spread, exact

DRAWS = 2000
ROOM_26 = Place(material("surfaces", "wood"), 0.02, 26.0, 26.0)
ISOMALT = material("melts", "isomalt")
TG = tg_spread_degc(ISOMALT, ISOMALT.spread("water_dry_melt"))


def cast(key: str, thick_m: float, place: Place, mould: str = "silicone") -> Casting:
    sugar = key == "isomalt"
    pour = Spread(128.0, 135.0, 140.0) if sugar else Spread(31.0, 33.0, 36.0)
    return Casting(
        material("melts", key),
        material("moulds", mould),
        Spread(0.9 * thick_m, thick_m, 1.15 * thick_m),
        0.012,
        0.003,
        pour,
        TG if sugar else None,
        (PlaceStay(0.0, place),),
    )


def monte_carlo(casting: Casting) -> Design:
    """Every input of the tables drawn by itself, independently of the product's own design."""
    rng = np.random.default_rng(20311)
    return run_design(base(casting), COARSE[casting.kind], 2, lambda n: rng.standard_normal((DRAWS, n)))


def times_of(casting: Casting, drawn: Design, name: str) -> Array:
    """A mark's time in every draw, moved by what the coarse grid is off; infinite where it never comes."""
    limit = drawn.z["limit 0"]
    if casting.tg is None:
        prop, series = FAT_MARKS[name]
        cold = max(18.0, casting.path[-1].place.air_degc + 2.0)
        conditions = [(series, np.maximum(split_normal(casting.melt.spread(prop), limit), 1e-4))]
        conditions += [("hottest_degc", cold)] if name == "unmould" else []
    else:
        prop, series = SUGAR_MARKS[name]
        conditions = [
            (
                series,
                _at_log(
                    split_normal(casting.melt.spread(prop), limit), split_normal(casting.tg, drawn.z["glass"])
                ),
            )
        ]
    t = drawn.runs.until_all(*conditions)
    likely = windows_s(casting).at[name].likely
    off = likely - t[0] if math.isfinite(t[0]) and likely < casting.horizon_s else 0.0
    return np.maximum(t[drawn.draws] + off, 0.0)


FAT = ("touch", "sprinkle_closes", "comb_opens", "comb_closes", "cutter_closes", "peel", "unmould")
SUGAR = ("bend_opens", "bend_closes", "release_opens", "sprinkle_closes", "brittle", "unmould")


@pytest.mark.parametrize("place", [FRIDGE, ROOM_26], ids=["fridge", "26 degC"])
@pytest.mark.parametrize("thick_m", [0.002, 0.004, 0.006])
@pytest.mark.parametrize("key", ["coating", "dark", "isomalt"])
def test_bands_hold_nine_tenths(key: str, thick_m: float, place: Place) -> None:
    casting = cast(key, thick_m, place)
    w, drawn = windows_s(casting), monte_carlo(casting)
    for name in SUGAR if casting.tg else FAT:
        t, of = times_of(casting, drawn, name), w.at[name]
        ends = np.isfinite(t).mean()
        if ends < 0.1:
            # next to never, and said so
            assert of.likely == casting.horizon_s
            continue
        high = math.inf if of.high >= casting.horizon_s else of.high
        inside = float(((t >= of.low - 1e-9) & (t <= high + 1e-9)).mean())
        assert 0.85 <= inside <= 0.95, (name, inside, of)


def test_draws_are_split_normal_through_their_three_points() -> None:
    of = Spread(1.0, 2.0, 5.0)
    u = np.array([0.05, 0.5, 0.95])
    assert split_normal(of, stats.norm.ppf(u)) == pytest.approx([1.0, 2.0, 5.0], abs=1e-6)
    z = normal_design(18)
    assert z.mean(axis=0) == pytest.approx(np.zeros(18), abs=1e-12)
    assert z.std(axis=0) == pytest.approx(np.ones(18), abs=0.06)
    assert all(stats.kstest(z[:, i], "norm").pvalue > 0.5 for i in range(18))


@settings(max_examples=25, deadline=None)
@given(
    thick_m=st.floats(0.0006, 0.03),
    key=st.sampled_from(["coating", "dark", "white", "cocoa_butter", "isomalt"]),
    place=st.sampled_from([FRIDGE, ROOM_26, WOOD, Place(material("surfaces", "granite"), 0.02, 12.0, 21.0)]),
)
def test_a_state_holds_when_all_its_conditions_hold_at_once(thick_m: float, key: str, place: Place) -> None:
    w = windows_s(cast(key, thick_m, place))
    run = w.likely_run
    assert 1 / 3 - 1e-9 <= w.pace.low <= w.pace.likely <= w.pace.high <= 3 + 1e-9
    assert w.pace.likely == 1.0
    for name, of in w.at.items():
        assert 0.0 <= of.low <= of.likely <= of.high <= w.horizon_s, name
        own = w.by_material[name]
        assert 0.0 <= own.low <= own.likely <= own.high, name
    if "touch" in w.at and not w.never("unmould"):
        i = int(np.searchsorted(run.times_s, w.at["unmould"].likely + 1e-6))
        i = min(i, run.times_s.size - 1)
        assert run.least_set[i] >= w.limits["unmould"] - 1e-3
        assert run.hottest_degc[i] <= w.limits["unmould_degc"] + 0.15
        order = [w.at[n].likely for n in ("still", "touch", "unmould")]
        assert order == sorted(order)


def test_a_cast_of_60_mm_gets_an_answer() -> None:
    for key in ("coating", "isomalt"):
        w = windows_s(cast(key, 0.06, FRIDGE))
        assert not w.never("unmould"), key
        assert w.at["unmould"].likely > 3600.0


def test_the_hottest_and_coldest_places_are_at_faces() -> None:
    """A face is colder than the cell under it by half a cell's gradient: finer grids come to the same."""
    casting = cast("coating", 0.006, FRIDGE)
    w = windows_s(casting)
    assert (w.likely_run.coldest_degc <= w.likely_run.top_degc + 1e-9).all()
    assert exact(1.0).low == 1.0


CASES = {
    "split_normal": lambda p: float(split_normal(Spread(1.0, 2.0, 5.0), np.array([stats.norm.ppf(p)]))[0]),
}


@rows(__file__)
def test_outside_values(row: dict[str, Any]) -> None:
    assert CASES[row["of"]](**row["given"]) == pytest.approx(row["expects"], abs=row["within"])


# mcadams-1954: a plate's coefficient falls as the fourth root of its length; jewels side by side are one plate to the air.
def test_a_tray_of_jewels_cools_as_a_tray() -> None:
    jewel = cast("coating", 0.004, FRIDGE)
    tray = replace(jewel, beside=24)
    alone, together = (windows_s(one).at["touch"].likely for one in (jewel, tray))
    assert together > 1.02 * alone
    as_one = replace(jewel, plate_m=jewel.plate_m * math.sqrt(24))
    assert together == windows_s(as_one).at["touch"].likely
