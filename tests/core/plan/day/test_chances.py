"""Many days of a timetable: against closed forms, and against the timetable itself where nothing is off."""

import math

import numpy as np
import pytest
from hypothesis import given, settings
from scipy import stats

from tests.core.plan.day.test_timetables import days
from umber_pebble.core.plan.day.chances import Draws, chances, each_slip, kept_frac, slipped, uncertain, windows
from umber_pebble.core.plan.day.check import broken
from umber_pebble.core.plan.day.paces import OFF_FRAC
from umber_pebble.core.plan.day.problem import Day, Draw, Heat, Heating, Lag, Melt, Task, Timetable
from umber_pebble.core.plan.day.search import at_once
from umber_pebble.core.plan.day.slack import with_slack


def normal(rows: int, count: int) -> Draws:
    return np.random.default_rng(5).standard_normal((rows, count)).astype(np.float32)


def test_one_thing_ends_by_a_time_as_its_lognormal_says() -> None:
    day = Day((Task(600),), (), (), (), (), {}, (0,))
    table = Timetable((0,), (0,), ())
    found = chances(day, table, normal(1, 40_000), 0.12)
    for due in (540.0, 600.0, 700.0):
        assert found.by_frac(due) == pytest.approx(stats.norm.cdf(math.log(due / 600) / 0.12), abs=0.01)


def test_the_sum_of_a_chain_has_its_closed_mean_and_variance() -> None:
    n, lasts, spread = 12, 300, 0.12
    day = Day(
        (Task(lasts),) * n,
        tuple(Lag(i, "end", i + 1, "start", 0, 10**6) for i in range(n - 1)),
        (),
        (),
        (),
        {},
        (n - 1,),
    )
    table = Timetable(tuple(lasts * i for i in range(n)), (0,) * n, ())
    ends = chances(day, table, normal(n, 40_000), spread).ends_s
    mean = lasts * math.exp(spread**2 / 2)
    assert ends.mean() == pytest.approx(n * mean, rel=0.002)
    assert ends.std() == pytest.approx(math.sqrt(n * (math.exp(spread**2) - 1)) * mean, rel=0.03)


def test_the_later_of_two_people_decides() -> None:
    day = Day((Task(600), Task(600)), (), (), (), (), {}, (0, 1), 2)
    found = chances(day, Timetable((0, 0), (0, 1), ()), normal(2, 40_000), 0.12)
    assert found.by_frac(650.0) == pytest.approx(stats.norm.cdf(math.log(650 / 600) / 0.12) ** 2, abs=0.01)


def test_a_window_is_kept_as_often_as_the_hands_before_it_are_quick_enough() -> None:
    # something else is done between a pour and the work that must begin within 100 s of it
    day = Day(
        (Task(20, hands=False), Task(60), Task(10)), (Lag(0, "end", 2, "start", 0, 100),), (), (), (), {}, (2,)
    )
    found = chances(day, Timetable((0, 20, 80), (None, 0, 0), ()), normal(3, 40_000), 0.5)
    assert kept_frac(found.lags_late_s[0]) == pytest.approx(stats.norm.cdf(math.log(100.5 / 60) / 0.5), abs=0.01)
    assert found.least_frac == kept_frac(found.lags_late_s[0])


@settings(max_examples=80, deadline=None)
@given(days())
def test_a_day_on_which_nothing_is_off_is_the_timetable(day: Day) -> None:
    table = at_once(day)
    found = chances(day, table, np.zeros((uncertain(day, table), 2), dtype=np.float32), 0.12)
    assert found.ends_s == pytest.approx(table.end_s(day))
    assert found.least_frac == 1.0


def test_one_thing_slips_by_up_to_half_its_window() -> None:
    # by hand: two things in windows of 100 and 80 s after another, one after the other; the second is lost where the first slips by
    # more than 20 of its 50 s, or it does itself by more than 20 of its 40 s
    after = (Lag(0, "end", 1, "start", 0, 100), Lag(0, "end", 2, "start", 0, 80))
    day = Day((Task(20, hands=False), Task(60), Task(10)), after, (), (), (), {}, (2,))
    table = Timetable((0, 20, 80), (None, 0, 0), ())
    slips = np.random.default_rng(3).random((2, 40_000)).astype(np.float32)
    late = slipped(day, table, slips).lags_late_s
    assert (late[1] > 0).mean() == pytest.approx((30 / 50 + 20 / 40) / 2, abs=0.01)
    assert (late[0] > 0).mean() == 0
    found = chances(day, table, np.zeros((3, 1), dtype=np.float32), OFF_FRAC)
    assert [of.safe for of in windows(day, found, slipped(day, table, each_slip(day)))] == [True, False]


def test_slack_is_put_where_a_window_would_be_lost() -> None:
    # five pours of a minute in a window of 305 s: all of them go in, with five seconds to spare
    made = Heating(60, 60, ((0, 60),))
    melt = Melt("bowl", "microwave", 1000, 60, made, Heating(20, 20, ((0, 20),)), made, 600, 3, 9000)
    draws = tuple(Draw(i, 0, 10, 0, 305) for i in range(5))
    day = Day((Task(60),) * 5, (), (), draws, (melt,), {}, tuple(range(5)))
    short = at_once(day)
    rows = normal(40, 4000)
    before = chances(day, short, rows[: uncertain(day, short)], OFF_FRAC)
    table = with_slack(day, short, lambda count: rows[:count])
    after = chances(day, table, rows[: uncertain(day, table)], OFF_FRAC)
    assert len(short.heats) == 1
    assert before.least_frac < 0.7
    assert broken(day, table) == []
    assert after.least_frac >= 0.99
    assert table.batches == 1
    assert table.end_s(day) <= short.end_s(day) + 30


@pytest.mark.parametrize("shared", ["microwave", "bowl"])
def test_whoever_is_slow_at_the_one_microwave_or_bowl_holds_up_who_needs_it_next(shared: str) -> None:
    made = Heating(60, 60, ((0, 60),))
    melts = tuple(
        Melt(
            "bowl" if shared == "bowl" else f"bowl {n}",
            "microwave" if shared == "microwave" else f"ring {n}",
            9,
            0,
            made,
            made,
            made,
            600,
            1,
            9000,
        )
        for n in range(2)
    )
    day = Day((Task(30), Task(30)), (), (), (Draw(0, 0, 1, 0, 600), Draw(1, 1, 1, 0, 600)), melts, {}, (1,), 2)
    second = 60 if shared == "microwave" else 90
    heats = (Heat(0, 0, True, (0,), (0,)), Heat(1, second, True, (1,), (1,)))
    table = Timetable((60, second + 60), (0, 1), heats)
    assert broken(day, table) == []
    rows = np.zeros((uncertain(day, table), 1), dtype=np.float32)
    # the first melt takes twice as long as it should
    rows[2] = math.log(2) / 0.12
    assert chances(day, table, rows, 0.12).ends_s == pytest.approx(table.end_s(day) + 60, abs=0.1)
