"""Things are things: a vessel bears so much, a heater holds one, a mould is one stay. Common practice, no source."""

from dataclasses import replace
from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.conftest import cooks_of, make_lollipops, make_plan
from tests.core.plan.test_builds import followed, pops
from tests.told import from_log, says
from umber_pebble.core.bench.acts import next_acts
from umber_pebble.core.bench.bowl import bowl_track
from umber_pebble.core.bench.now import RunNow
from umber_pebble.core.bench.replay import accept as replay
from umber_pebble.core.bench.state import Layout
from umber_pebble.core.errors import OutOfRange
from umber_pebble.core.families.fats import COATING as COATING_FAMILY
from umber_pebble.core.materials.load import material
from umber_pebble.core.melts.bursts import Bowl
from umber_pebble.core.plan.compile import check_vessel, compile_plan
from umber_pebble.core.plan.cooks import round_windows
from umber_pebble.core.plan.problem import PlanInput


@pytest.mark.parametrize(
    ("wall", "in_oven", "on_ring", "degc", "says"),
    [
        ("plastic", True, False, 160.0, "bears"),
        ("plastic", False, False, 160.0, "bears"),
        ("plastic", True, False, 45.0, None),
        ("silicone", True, False, 160.0, None),
        ("glass", True, False, 160.0, None),
        ("steel", True, False, 45.0, "no metal"),
        ("glass", False, True, 160.0, "ring"),
        ("steel", False, True, 160.0, None),
    ],
)
def test_isomalt_never_goes_into_plastic_and_the_refusals_recommend_what_bears(
    wall: str, in_oven: bool, on_ring: bool, degc: float, says: str | None
) -> None:
    if says is None:
        check_vessel(in_oven, on_ring, material("kitchen", wall, "pot"), "x", "path", degc)
        return
    with pytest.raises(OutOfRange, match=says) as refused:
        check_vessel(in_oven, on_ring, material("kitchen", wall, "pot"), "x", "path", degc)
    assert "plastic bowl" not in refused.value.message


def test_a_plan_of_nibs_in_a_plastic_bowl_is_refused() -> None:
    plan = make_plan()
    way = plan.ways["isomalt"]
    plastic = replace(way.pot, metal=material("kitchen", "plastic", "pot"))
    nibs = replace(way.by, ring=replace(way.by.ring, bursts=True))  # type: ignore[union-attr]
    with pytest.raises(OutOfRange, match="silicone cup"):
        compile_plan(replace(plan, ways={"isomalt": replace(way, pot=plastic, by=nibs)}))


def two_bowls() -> PlanInput:
    base = make_lollipops(8)
    other = replace(base.lines[0], melt="coating#1f2a44", mould=replace(base.lines[0].mould, mould_id="other"))
    cup = replace(base.ways["coating"], vessel_id="cup")
    return replace(base, lines=(*base.lines, other), ways={**base.ways, "coating#1f2a44": cup})


def test_a_second_bowl_waits_until_the_microwave_is_empty() -> None:
    plan = two_bowls()
    cooks = cooks_of(plan, [[(0, 8)], [(1, 8)]])
    rounds = tuple(r for c in cooks for r in c.rounds)
    layout = Layout(
        rounds,
        ("bowl", "cup"),
        ("stick",) * 2,
        ("bench",) * 2,
        ("bench", "fridge"),
        (True,) * 2,
        (COATING_FAMILY,) * 2,
        ("coating", "coating#1f2a44"),
        (None,) * 2,
        (True,) * 2,
    )
    steps: list[tuple[str, float, dict[str, Any]]] = [
        ("started", 0.0, {}),
        ("burst", 10.0, {"cook": 0, "seconds": 30.0}),
    ]
    state = replay(layout, [from_log(f"e{i}", k, at, "Wren", p) for i, (k, at, p) in enumerate(steps)])
    assert isinstance(cooks[0].heating, Bowl)
    tracks = {0: bowl_track(cooks[0].heating, state.cooks[0])}
    acts = next_acts(RunNow(plan, cooks, state, tracks, {}, round_windows(plan, cooks), 15.0), "Wren")
    [second] = [a for a in acts if a.what.kind == "heat"]
    assert says(second)["cook"] == 1
    assert second.opens_s >= 40.0


def kinds_of_one_mould(quantity: int, long: bool) -> PlanInput:
    """Two kinds of cavity in one mould, one of them perhaps of several passes."""
    base = pops(quantity)
    shared = replace(base.lines[3].mould, mould_id="pop", kind=1)
    quick = replace(base.lines[3], mould=shared, quantity=quantity)
    lines = (*base.lines[:3], quick) if long else (quick, replace(quick, mould=replace(shared, kind=2), item=2))
    ways = {k: w for k, w in base.ways.items() if any(line.melt == k for line in lines)}
    return replace(base, lines=lines, ways=ways)


@settings(max_examples=10, deadline=None)
@given(quantity=st.integers(1, 24), long=st.booleans())
def test_a_mould_is_one_stay_for_all_its_cavities(quantity: int, long: bool) -> None:
    """Whatever is poured into it, it is poured before any of it is turned out, or after it is clean again."""
    problem = kinds_of_one_mould(quantity, long)
    plan = compile_plan(problem)
    if long:
        followed(problem, plan)
    pours = [t for t in plan.tasks if t.kind == "pour"]
    out = {t.round: t for t in plan.tasks if t.kind == "unmould"}
    rounds = {r.number: r for r in plan.rounds}
    cleaned = {plan.rounds[t.round or 0].stay: t.end_s for t in plan.tasks if t.kind == "clean"}
    clean = {number: cleaned[r.stay] for number, r in rounds.items()}

    def first_of(number: int) -> int:
        on = rounds[number].on
        return number if on is None else first_of(on)

    began = {number: min(p.start_s for p in pours if p.round == first_of(number)) for number in out}
    for a in out:
        assert a is not None
        ready = max(p.end_s for p in pours if p.round == a) + plan.windows[a].at["unmould"].high
        assert out[a].start_s >= ready - 1e-6
        for b in out:
            # b's stay begins before a is turned out only if they are turned out together, both set
            if a != b and began[a] <= began[b] < out[a].start_s:
                last = max(p.end_s for p in pours if p.round == b) + plan.windows[b].at["unmould"].high
                assert out[a].start_s >= last - 1e-6
            if a != b and began[b] >= out[a].start_s:
                assert began[b] >= clean[a] - 1e-6
