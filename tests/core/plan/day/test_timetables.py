"""Timetables of days: nothing is broken in any that is found, and known ones are as short as they can be."""

import itertools
import tomllib
from collections.abc import Callable
from dataclasses import replace
from pathlib import Path
from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from ortools.sat.python import cp_model

from umber_pebble.core.plan.day.bounds import least_end_s
from umber_pebble.core.plan.day.check import broken
from umber_pebble.core.plan.day.greedy import first_timetable
from umber_pebble.core.plan.day.model import Model, Weights
from umber_pebble.core.plan.day.problem import Day, Draw, Heating, Lag, Melt, Portion, Soiled, Stay, Task
from umber_pebble.core.plan.day.search import USUAL, Solved, at_once, improved

MELTS = 3
SHOPS: dict[str, dict[str, Any]] = tomllib.loads((Path(__file__).parent / "job_shops.toml").read_text())


def shop(name: str) -> Day:
    """A job shop as a day: nothing but things that follow one another on machines."""
    tasks, lags, stays, done = list[Task](), list[Lag](), list[Stay](), list[int]()
    for job in SHOPS[name]["jobs"]:
        for nth, (machine, lasts) in enumerate(job):
            i = len(tasks)
            tasks.append(Task(lasts, hands=False))
            stays.append(Stay(f"machine {machine}", 1, i, "start", i, "end"))
            if nth:
                lags.append(Lag(i - 1, "end", i, "start", 0))
        done.append(len(tasks) - 1)
    return Day(tuple(tasks), tuple(lags), tuple(stays), (), (), {}, tuple(done))


@pytest.mark.parametrize("name", ["ft06", "la01"])
def test_a_job_shop_ends_when_the_literature_says(name: str) -> None:
    day, shortest = shop(name), SHOPS[name]["shortest"]
    first = at_once(day)
    assert broken(day, first) == []
    assert first.end_s(day) >= shortest >= least_end_s(day)
    found = improved(day, first, [2.0] * 5, lambda _: True)
    assert broken(day, found.table) == []
    assert (found.table.end_s(day), found.least_s, found.best) == (shortest, shortest, True)


@st.composite
def days(draw: st.DrawFn) -> Day:
    """Pieces of a few passes of a few melts, in moulds and vessels that are needed again, turned and worked in their windows."""
    whole: Callable[[int, int], int] = lambda low, high: draw(st.integers(low, high))  # noqa: E731
    melts = tuple(
        Melt(
            draw(st.sampled_from(("bowl", f"cup {m}"))),
            draw(st.sampled_from(("microwave", "ring"))),
            whole(40, 120),
            whole(0, 120),
            Heating(lasts := whole(60, 900), lasts // 2, ((0, 30), (lasts - 10, lasts))),
            Heating(20, 20, ((0, 20),)),
            Heating(lasts, lasts // 2, ((0, 30), (lasts - 10, lasts))),
            whole(300, 2000),
            whole(1, 6),
            whole(3000, 20000),
            wash_s=whole(0, 90),
            soaks_s=whole(0, 200),
            leads_on=draw(st.frozensets(st.integers(0, MELTS - 1))),
        )
        for m in range(MELTS)
    )
    soiled = (Soiled("bowl", whole(0, MELTS - 1), whole(0, 500)),) if draw(st.booleans()) else ()
    tasks, lags, stays, draws, done = list[Task](), list[Lag](), list[Stay](), list[Draw](), list[int]()

    def task(low: int, high: int) -> int:
        tasks.append(Task(whole(low, high)))
        return len(tasks) - 1

    for _ in range(whole(1, 5)):
        mould, first, under = f"mould {whole(0, 1)}", len(tasks), -1
        for _ in range(whole(1, 3)):
            pour = task(6, 90)
            opens = whole(0, 60)
            draws.append(Draw(pour, whole(0, MELTS - 1), whole(1, 40), opens, opens + whole(300, 1500)))
            if under >= 0:
                lags.append(Lag(under, "end", pour, "start", whole(0, 1200)))
            under = pour
        if draw(st.booleans()):
            work = task(4, 30)
            lags.append(Lag(under, "end", work, "start", at := whole(0, 100), at + whole(0, 60)))
        off = task(4, 60)
        lags += [Lag(under, "end", off, "start", whole(100, 2000)), Lag(len(tasks) - 2, "end", off, "start", 0)]
        clean = task(30, 240)
        lags.append(Lag(off, "end", clean, "start", 0))
        stays.append(Stay(mould, 1, first, "start", clean, "end", whole(0, 600)))
        stays.append(Stay("fridge", 1, under, "end", off, "start"))
        done.append(off)
    own = [d for d in draws if d.melt == MELTS - 1]
    if own and draw(st.booleans()):
        # the last melt comes out of the first one's vessel, into one of its own
        draws.append(Draw(into := task(10, 60), 0, whole(1, 40), 0, 600))
        lags += [Lag(into, "end", d.task, "start", 0) for d in own]
        melts = (*melts[:-1], replace(melts[-1], vessel="its own", portion=Portion(into, whole(0, 2500))))
    people = whole(1, 3)
    closed = ((whole(0, people - 1), at := whole(0, 4000), at + whole(1, 3000)),) if draw(st.booleans()) else ()
    capacity = {"mould 0": whole(1, 2), "fridge": whole(1, 3)}
    parts = (tuple(tasks), tuple(lags), tuple(stays), tuple(draws), melts)
    return Day(*parts, capacity, tuple(done), people, closed, soiled=soiled)


@settings(max_examples=100, deadline=None)
@given(days())
def test_nothing_is_broken_in_what_is_found_at_once(day: Day) -> None:
    table = at_once(day)
    assert broken(day, table) == []
    assert table.end_s(day) >= least_end_s(day)


@settings(max_examples=15, deadline=None)
@given(days())
def test_nothing_is_broken_in_what_search_finds_and_it_is_no_worse(day: Day) -> None:
    table = at_once(day)
    found = improved(day, table, [0.1, 0.1], lambda _: True)
    assert broken(day, found.table) == []
    assert USUAL.of(day, found.table) <= USUAL.of(day, table)
    assert found.least_s <= found.table.end_s(day)


@settings(max_examples=60, deadline=None)
@given(days().filter(lambda day: not day.differ))
def test_the_solver_takes_what_the_checker_takes(day: Day) -> None:
    # begun from a timetable and held to it, the model has to find it kept
    model, solver = Model(day, at_once(day), Weights()), cp_model.CpSolver()
    solver.parameters.fix_variables_to_their_hinted_value = True
    solver.parameters.num_workers = 1
    assert solver.solve(model.m) in (cp_model.OPTIMAL, cp_model.FEASIBLE)


def test_search_answers_the_same_each_time_and_stops_when_told() -> None:
    day, told = shop("ft10"), list[Solved]()

    def twice(solved: Solved) -> bool:
        told.append(solved)
        return len(told) % 2 == 1

    first = at_once(day)
    found = [improved(day, first, [0.2] * 9, twice) for _ in range(2)]
    assert len(told) == 4
    assert found[0] == found[1]
    assert SHOPS["ft10"]["shortest"] <= found[0].table.end_s(day) < first.end_s(day)


def test_what_hands_have_to_do_is_not_done_while_they_are_away() -> None:
    # 150 s for each of two, of whom the first is away from 60 to 500, and both from 100
    tasks = tuple(Task(60) for _ in range(5))
    day = Day(tasks, (), (), (), (), {}, tuple(range(5)), 2, ((0, 60, 500), (1, 100, 500)))
    # 60 + 100 before, 140 after by two
    assert least_end_s(day) == 570
    assert at_once(day).end_s(day) >= 570


def test_what_would_have_to_be_melted_again_is_warmed_meanwhile() -> None:
    # one mould for three fillings of 900 s each; what is poured into it is fluid for 800 s, and takes half an hour to be melted again
    made = Heating(1800, 60, ((0, 60),))
    warm = Heating(20, 20, ((0, 20),))
    melt = Melt("bowl", "microwave", 1000, 60, made, warm, made, 800, 9, 9000)
    pours = tuple(Task(60) for _ in range(3))
    offs = tuple(Task(30) for _ in range(3))
    lags = tuple(Lag(n, "end", n + 3, "start", 810) for n in range(3))
    stays = tuple(Stay("mould", 1, n, "start", n + 3, "end") for n in range(3))
    draws = tuple(Draw(n, 0, 10, 0, 300) for n in range(3))
    day = Day((*pours, *offs), lags, stays, draws, (melt,), {}, (3, 4, 5))
    table = at_once(day)
    assert broken(day, table) == []
    assert table.batches == 1
    # by hand: made in 1860 s, then three times 900 s, between them 20 s of a warming right before the pour
    assert table.end_s(day) == 1860 + 3 * 900 + 2 * 20
    assert sum(not heat.draws for heat in table.heats) == 2
    assert first_timetable(day, keeps=False).end_s(day) > 1860 + 3 * 900 + 1000


@settings(max_examples=15, deadline=None)
@given(st.lists(st.frozensets(st.integers(0, 3)), min_size=4, max_size=4))
def test_colours_follow_one_another_in_one_bowl_so_that_least_is_washed(leads_on: list[frozenset[int]]) -> None:
    made, warm = Heating(100, 60, ((0, 60),)), Heating(20, 20, ((0, 20),))
    melts = tuple(
        Melt("bowl", "microwave", 10, 60, made, warm, made, 800, 9, 9000, wash_s=50, soaks_s=30, leads_on=leads)
        for leads in leads_on
    )
    pours = tuple(Task(30) for _ in melts)
    day = Day(pours, (), (), tuple(Draw(n, n, 10, 0, 300) for n in range(4)), melts, {}, (0, 1, 2, 3))
    found = improved(day, at_once(day), [1.0] * 8, lambda _: True)
    assert broken(day, found.table) == []
    # every order there is, tried one by one
    washes = (
        sum(then not in leads_on[first] for first, then in itertools.pairwise(order))
        for order in itertools.permutations(range(4))
    )
    assert (found.table.end_s(day), found.best) == (4 * (60 + 100 + 30) + min(washes) * (50 + 30), True)
