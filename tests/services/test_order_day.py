"""The day of a real order: what the engine says is kept, each melt is made few times, and hands have less to do."""

from collections import Counter
from dataclasses import replace

import numpy as np
import pytest

from tests.plans import plan_order
from umber_pebble.core.families.known import family_of
from umber_pebble.core.plan.compile import Plan
from umber_pebble.core.plan.day.chances import chances, each_slip, slipped, uncertain, windows
from umber_pebble.core.plan.day.check import broken
from umber_pebble.core.plan.day.compile import OrderDay
from umber_pebble.core.plan.day.order import order_day
from umber_pebble.core.plan.day.paces import OFF_FRAC, off_pace
from umber_pebble.core.plan.day.problem import Timetable, placed
from umber_pebble.core.plan.leftovers import IntoBacks, IntoMelt, takers
from umber_pebble.core.plan.summary import hands_s, summary_of
from umber_pebble.services.documents import Order
from umber_pebble.services.plan_parts import PlanParts, PlanRequest
from umber_pebble.services.workshop import Workshop


def planned(demo: Workshop, order: str, people: int) -> tuple[Plan, OrderDay, Timetable]:
    plan = plan_order(demo, demo.get("order", order).doc)
    chosen = order_day(
        replace(plan.problem, people=tuple("ab"[:people])), plan.casts, [size.casts for size in plan.sizes]
    )
    of, table = chosen.of, chosen.table
    assert broken(of.day, table) == []
    return plan, of, table


def ends(of: OrderDay, table: Timetable, kind: str) -> dict[int | None, int]:
    return {
        name.filling: table.start_s[i] + of.day.tasks[i].lasts_s
        for i, name in enumerate(of.names)
        if name.kind == kind
    }


def starts(of: OrderDay, table: Timetable, *kinds: str) -> dict[int | None, int]:
    return {name.filling: table.start_s[i] for i, name in enumerate(of.names) if name.kind in kinds}


def test_what_the_engine_says_of_every_pour_is_kept(demo: Workshop) -> None:
    plan, of, table = planned(demo, "order-table", 2)
    poured, pours = ends(of, table, "pour"), starts(of, table, "pour", "swirl")
    off = starts(of, table, "unmould")
    for number, filling in enumerate(of.fillings):
        line, windows = plan.problem.lines[filling.line], of.windows[number]
        if number in off:
            assert off[number] >= poured[number] + windows.at["unmould"].high
        if filling.on is not None and filling.on in poured:
            bears = family_of(
                plan.problem.way(plan.problem.lines[filling.on and of.fillings[filling.on].line]).melt
            )
            assert pours[number] >= poured[filling.on] + of.windows[filling.on].at[bears.ends.bears_next].high
        for done in line.works:
            (work,) = starts(of, table, done.kind).keys() & {number}
            opens = "release_opens" if line.released else "bend_opens"
            if done.kind == "bend":
                assert starts(of, table, "bend")[work] >= pours[number] + windows.at[opens].likely
    casts = Counter[int]()
    for filling in of.fillings:
        casts[filling.line] += filling.casts
    assert tuple(casts[i] for i in range(len(plan.problem.lines))) == plan.casts


@pytest.mark.parametrize(("people", "hours", "hands_h"), [(1, 4.75, 3.4), (2, 3.5, 3.4)])
def test_each_melt_is_made_few_times_and_the_day_is_short(
    demo: Workshop, people: int, hours: float, hands_h: float
) -> None:
    plan, of, table = planned(demo, "order-table", people)
    hands = sum(t.lasts_s for t in of.day.tasks if t.hands)
    hands += sum(b - a for heat in placed(of.day, table.heats) for a, b in heat.hands)
    assert table.batches <= 9
    assert table.end_s(of.day) < hours * 3600
    assert hands < hands_h * 3600
    if people == 1:
        assert hands_s(plan) == pytest.approx(hands, abs=1.0)


def test_no_pace_is_shortened(demo: Workshop) -> None:
    plan, of, _ = planned(demo, "order-table", 1)
    for i, name in enumerate(of.names):
        if name.filling is None:
            continue
        filling, paces = of.fillings[name.filling], plan.problem.paces
        line = plan.problem.lines[filling.line]
        each = {
            "pour": filling.casts * plan.problem.pour_each_s(line),
            "unmould": filling.casts * paces.unmould_each_s,
            "clean": paces.clean_s,
            "swirl": paces.stir_s,
            "put_in": filling.casts * line.handfuls_s,
        }
        if name.kind in each:
            assert of.day.tasks[i].lasts_s >= each[name.kind]


def test_the_order_of_everything_makes_each_melt_at_most_twice(demo: Workshop) -> None:
    plan, _, table = planned(demo, "order-sky", 1)
    melts = {line.melt for line in plan.problem.lines}
    assert table.batches <= 2 * len(melts)
    assert len(plan.cooks) == table.batches


def test_a_shorter_day_that_was_found_is_the_orders_own_until_it_no_longer_keeps_it(demo: Workshop) -> None:
    parts = PlanParts(demo)
    order = demo.get("order", "order-table").doc
    assert isinstance(order, Order)
    first = parts.glance(order)
    found = parts.shorter(PlanRequest(order=order, planned_at=first.planned_at))
    assert found.timetable is not None and found.sooner_s > 0 and not found.best
    kept = order.model_copy(update={"timetable": found.timetable})
    # it goes out and comes back as it is, and the plan is by it
    again = Order.model_validate_json(kept.model_dump_json())
    plan = plan_order(demo, again)
    assert plan.table == found.timetable.table() and broken(plan.day.day, plan.table) == []
    assert first.summary.lasts_s - summary_of(plan).lasts_s == pytest.approx(found.sooner_s, abs=120.0)
    # of another order it is no timetable, and one that breaks this one's day is not taken for it
    fewer = kept.model_copy(update={"lines": kept.lines[:3]})
    assert plan_order(demo, fewer).table == plan_order(demo, fewer.model_copy(update={"timetable": None})).table
    at_zero = found.timetable.model_copy(update={"start_s": [0] * len(found.timetable.start_s)})
    usual = plan_order(demo, order).table
    assert plan_order(demo, order.model_copy(update={"timetable": at_zero})).table == usual
    odd = found.timetable.model_copy(
        update={"heats": [h.model_copy(update={"melt": 99}) for h in found.timetable.heats]}
    )
    assert plan_order(demo, order.model_copy(update={"timetable": odd})).table == usual


@pytest.mark.parametrize("people", [1, 2])
def test_whatever_slips_by_up_to_half_its_window_loses_nothing_that_is_called_safe(
    demo: Workshop, people: int
) -> None:
    _, of, table = planned(demo, "order-table", people)
    found = chances(of.day, table, off_pace(uncertain(of.day, table)), OFF_FRAC)
    told = list(windows(of.day, found, slipped(of.day, table, each_slip(of.day))))
    days = slipped(of.day, table, np.random.default_rng(people).random((2, 1000)).astype(np.float32))
    late = [*days.lags_late_s.values(), *days.draws_late_s.values()]
    assert all((late_s <= 0.5).all() for window, late_s in zip(told, late, strict=True) if window.safe)
    # most are, and what is not is lost on some day
    assert 0.6 < sum(window.safe for window in told) / len(told) < 1
    assert any((late_s > 0.5).any() for late_s in late)


def test_what_is_left_goes_into_backs_that_are_poured_later_or_into_a_darker_melt_weighed_later(
    demo: Workshop,
) -> None:
    plan = plan_order(demo, demo.get("order", "order-table").doc)
    ways = plan.problem.ways
    backs = {key: takers(plan, key) for key in ways if plan.cooks_of(key)}
    assert any(backs.values())
    for key, found in backs.items():
        last, mine = plan.cooks_of(key)[-1], {c.number for c in plan.cooks_of(key)}
        over = max(t.end_s for t in plan.tasks if t.kind == "pour" and t.number in mine)
        assert all(isinstance(of, IntoBacks) and of.at_s >= over for of in found)
        assert sum(of.kg for of in found) <= last.left_kg - last.residue_kg.likely
    assert not backs["isomalt"] and not backs["dark"]
    # night is darker than moon, and takes it where it is weighed once moon is poured; moon takes no night
    night, moon = (next(key for key, way in ways.items() if way.colour == of) for of in ("#1f2a44", "#f1ead9"))
    late = {c.number for key in (night, moon) for c in plan.cooks_of(key)}
    later = tuple(
        replace(t, start_s=t.start_s + 1e6) if t.kind == "weigh" and t.number in late else t for t in plan.tasks
    )
    weighed_late = replace(plan, tasks=later)
    assert [of.melt for of in takers(weighed_late, moon) if isinstance(of, IntoMelt)] == [night]
    assert all(isinstance(of, IntoBacks) for of in takers(weighed_late, night))
