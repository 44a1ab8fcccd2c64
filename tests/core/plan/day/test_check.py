"""The checker of timetables: what cannot be done is seen, whatever it is."""

from dataclasses import replace

import pytest

from umber_pebble.core.plan.day.check import broken
from umber_pebble.core.plan.day.problem import (
    Bound,
    Day,
    Draw,
    Heat,
    Heating,
    Lag,
    Melt,
    Portion,
    Soiled,
    Stay,
    Task,
    Timetable,
)

WARM = Heating(20, 20, ((0, 20),))
MELT = Melt(
    "bowl", "microwave", 1000, 100, Heating(60, 60, ((0, 60),)), WARM, Heating(60, 60, ((0, 60),)), 600, 1, 5000
)
# two pours of one melt into one mould, each turned out 300 s on, the mould clean 60 s after that
TASKS = (Task(30), Task(10), Task(30), Task(10))
LAGS = (Lag(0, "end", 1, "start", 300), Lag(2, "end", 3, "start", 300, 900))
STAYS = (Stay("mould", 1, 0, "start", 1, "end", 60), Stay("mould", 1, 2, "start", 3, "end", 60))
DRAWS = (Draw(0, 0, 500, 10, 600), Draw(2, 0, 500, 10, 600))
DAY = Day(TASKS, LAGS, STAYS, DRAWS, (MELT,), {}, (1, 3))
KEPT = Timetable(
    (170, 500, 604, 934),
    (0, 0, 0, 0),
    (Heat(0, 0, True, (0, 0), (0,)), Heat(0, 570, False, (0,), (1,))),
)
SOON = (DRAWS[0], replace(DRAWS[1], closes_s=400))
TWICE = (replace(KEPT.heats[0], draws=(0, 1)),)


def kinds(day: Day, table: Timetable) -> set[str]:
    return {one.kind for one in broken(day, table)}


def moved(task: int, to: int) -> Timetable:
    return replace(KEPT, start_s=tuple(to if i == task else s for i, s in enumerate(KEPT.start_s)))


def test_what_keeps_everything_is_let_through() -> None:
    assert broken(DAY, KEPT) == []
    assert broken(replace(DAY, bounds=(Bound(1, 500, 510), Bound(0))), KEPT) == []
    assert KEPT.end_s(DAY) == 944
    assert KEPT.batches == 1


@pytest.mark.parametrize(
    ("day", "table", "kind"),
    [
        pytest.param(DAY, moved(0, -5), "before the start", id="before the start"),
        pytest.param(DAY, moved(1, 499), "lag", id="turned out too early"),
        pytest.param(DAY, moved(3, 1600), "lag", id="turned out too late"),
        pytest.param(DAY, moved(2, 569), "stay", id="poured into a mould that dries"),
        pytest.param(DAY, moved(0, 169), "window", id="poured before it opens"),
        pytest.param(DAY, moved(2, 1171), "window", id="poured after it has closed"),
        pytest.param(DAY, moved(1, 580), "hands", id="turned out while the melt is warmed"),
        pytest.param(DAY, replace(KEPT, who=(0, None, 0, 0)), "able", id="nobody's hands"),
        pytest.param(
            replace(DAY, people=2, tasks=(replace(TASKS[0], able=frozenset({1})), *TASKS[1:])),
            KEPT,
            "able",
            id="somebody who cannot",
        ),
        pytest.param(replace(DAY, closed=((0, 505, 520),)), KEPT, "closed", id="away"),
        pytest.param(replace(DAY, bounds=(Bound(1, 501),)), KEPT, "bound", id="sooner than wished"),
        pytest.param(replace(DAY, bounds=(Bound(1, None, 509),)), KEPT, "bound", id="later than wished"),
        pytest.param(
            replace(DAY, people=2, melts=(replace(MELT, able=frozenset({1})),)), KEPT, "able", id="not her melt"
        ),
        pytest.param(DAY, replace(KEPT, heats=KEPT.heats[:1]), "not poured", id="a melt that is not there"),
        pytest.param(
            DAY, replace(KEPT, heats=KEPT.heats[1:] + KEPT.heats[:1]), "batch", id="warmed before it is made"
        ),
        pytest.param(replace(DAY, draws=SOON), replace(KEPT, heats=TWICE), "window", id="too thick by then"),
        pytest.param(
            replace(DAY, melts=(replace(MELT, pours_mg=999),)), KEPT, "batch", id="more than the bowl holds"
        ),
        pytest.param(replace(DAY, melts=(replace(MELT, warmings=0),)), KEPT, "batch", id="warmed too often"),
        pytest.param(replace(DAY, melts=(replace(MELT, life_s=400),)), KEPT, "batch", id="kept too long"),
        pytest.param(
            replace(DAY, melts=(replace(MELT, fluid_s=300),)), KEPT, "batch", id="poured while it melts again"
        ),
    ],
)
def test_what_is_not_kept_is_named(day: Day, table: Timetable, kind: str) -> None:
    assert kind in kinds(day, table)


def test_one_microwave_holds_one_bowl_and_one_bowl_one_melt() -> None:
    other = replace(MELT, vessel="cup")
    day = replace(DAY, melts=(MELT, other), people=2, draws=(DRAWS[0], replace(DRAWS[1], melt=1)))
    table = replace(KEPT, heats=(KEPT.heats[0], Heat(1, 434, True, (1, 1), (1,))))
    assert broken(day, table) == []
    together = replace(table, heats=(table.heats[0], replace(table.heats[1], start_s=40)))
    assert "heater" in kinds(replace(day, draws=(DRAWS[0], Draw(2, 1, 500, 10, 9000))), together)
    assert "heater" not in kinds(replace(day, capacity={"microwave": 2}), together)
    one_bowl = replace(day, melts=(MELT, replace(MELT, heater="ring")))
    assert "vessel" not in kinds(one_bowl, table)
    assert "vessel" in kinds(
        one_bowl, replace(table, heats=(table.heats[0], replace(table.heats[1], start_s=150)))
    )


def test_what_comes_out_of_another_bowl_is_there_when_it_came_in_and_not_before() -> None:
    # 20 s to divide it off; it is as if it had stood for 200 s then, and may be poured until 600 s of that
    cup = replace(MELT, vessel="cup", portion=Portion(4, 200))
    draws = (DRAWS[0], replace(DRAWS[1], melt=1), Draw(4, 0, 500, 0, 900))
    day = replace(DAY, tasks=(*TASKS, Task(20)), melts=(MELT, cup), draws=draws)

    def divided(at: int, stood: int = 200, then: int = 604) -> Timetable:
        comes_in = Heat(1, at + 20 - stood, True, (), (1,))
        heats = (comes_in, replace(KEPT.heats[0], draws=(0, 2)))
        return Timetable((170, 500, then, 934, at), (0, 0, 0, 0, 0), heats)

    assert broken(day, divided(300)) == []
    # fresher than it is; poured out of the cup before it is in it; out of a bowl that is not made; when it is too thick
    assert "batch" in kinds(day, divided(300, stood=199))
    assert "batch" in kinds(day, divided(600))
    assert "window" in kinds(day, divided(150))
    assert "window" in kinds(
        replace(day, draws=(draws[0], replace(draws[1], closes_s=400), draws[2])), divided(300)
    )
    # and its own life counts from when it came in
    assert "batch" in kinds(replace(day, melts=(MELT, replace(cup, life_s=300))), divided(300))
    assert kinds(replace(day, melts=(MELT, replace(cup, life_s=320))), divided(300)) == set()


def test_a_bowl_is_clean_before_another_colour_goes_into_it() -> None:
    first = replace(MELT, wash_s=50, soaks_s=20)
    day = replace(DAY, melts=(first, replace(MELT, heater="ring")), draws=(DRAWS[0], replace(DRAWS[1], melt=1)))
    soon = replace(KEPT, start_s=(170, 500, 450, 780))

    def put_at(start: int, spans: int) -> Timetable:
        return replace(soon, heats=(KEPT.heats[0], Heat(1, start, True, (0,) * spans, (1,))))

    free = replace(day, stays=())
    # empty at 200: 20 s with water in it, 50 s of hands, then weighed
    assert broken(free, put_at(270, 3)) == []
    assert kinds(free, put_at(269, 3)) == {"vessel"}
    darker = replace(free, melts=(replace(first, leads_on=frozenset({1})), day.melts[1]))
    assert broken(darker, put_at(200, 2)) == []
    # one that was not clean in the morning
    left = replace(free, soiled=(Soiled("bowl", 1, -10),))
    assert (
        broken(replace(left, melts=(replace(first, leads_on=frozenset({1})), day.melts[1])), put_at(270, 2)) == []
    )
    unwashed = replace(left, melts=(first, replace(day.melts[1], wash_s=5)))
    late = put_at(270, 3)
    assert "before the start" in kinds(
        unwashed, replace(late, heats=(replace(late.heats[0], who=(0,) * 3), late.heats[1]))
    )
