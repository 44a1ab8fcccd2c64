"""What is wished: kept by what is found, and called a clash only where nothing can keep it."""

from collections.abc import Sequence
from dataclasses import replace

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.core.plan.day.test_timetables import days
from umber_pebble.core.errors import OutOfRange
from umber_pebble.core.plan.day.check import broken
from umber_pebble.core.plan.day.clash import clash
from umber_pebble.core.plan.day.problem import Bound, Day, Lag, Task, Timetable
from umber_pebble.core.plan.day.search import at_once


@settings(max_examples=80, deadline=None)
@given(days(), st.data())
def test_what_a_timetable_keeps_is_no_clash_and_is_kept_when_it_is_wished(day: Day, data: st.DataObject) -> None:
    table = at_once(day)
    some = data.draw(st.lists(st.integers(0, len(day.tasks) - 1), max_size=4, unique=True))
    room = data.draw(st.sampled_from((0, 60, 1000)))
    bounds = [Bound(i, table.start_s[i] - room, table.start_s[i] + day.tasks[i].lasts_s + room) for i in some]

    def held(wishes: Sequence[int]) -> Day:
        return replace(day, bounds=tuple(bounds[n] for n in wishes))

    assert clash(held, range(len(bounds)), table) == ()
    try:
        found = at_once(held(range(len(bounds))))
    except OutOfRange:
        # it need not be found; what is found keeps it
        return
    assert broken(held(range(len(bounds))), found) == []


# three things of a minute, the second after the first
DAY = Day((Task(60), Task(60), Task(60)), (Lag(0, "end", 1, "start", 300),), (), (), (), {}, (0, 1, 2))
FOUND = Timetable((0, 360, 60), (0, 0, 0), ())
PINNED = [Bound(0, 600, 660), Bound(1, 900, 960), Bound(2, 630, 690), Bound(2, 5000), Bound(1, 0, 350)]


@pytest.mark.parametrize(
    ("wished", "clashing"),
    [
        pytest.param((0, 1), (0, 1), id="too soon after the other"),
        pytest.param((0, 2), (0, 2), id="one pair of hands at both"),
        pytest.param((3, 1, 2), (3, 2), id="the least that clashes, without what does not"),
        pytest.param((0, 3, 1), (0, 1), id="the least that clashes, whichever comes first"),
        pytest.param((3, 4), (4,), id="one that can never be"),
        pytest.param((0, 3), (), id="no clash"),
    ],
)
def test_the_least_set_that_clashes_is_named(wished: tuple[int, ...], clashing: tuple[int, ...]) -> None:
    def held(wishes: Sequence[int]) -> Day:
        return replace(DAY, bounds=tuple(PINNED[n] for n in wishes))

    assert set(clash(held, wished, FOUND)) == set(clashing)
    # by two people, both may be done at once
    two = clash(lambda wishes: replace(held(wishes), people=2), (0, 2), FOUND)
    assert two == ()


def test_what_nobody_is_left_to_do_clashes() -> None:
    assert clash(lambda wishes: None if len(wishes) > 1 else DAY, (0, 1), FOUND) == (0, 1)
