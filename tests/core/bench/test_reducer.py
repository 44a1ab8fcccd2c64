"""The reducer under any hands: refused or consistent, never broken."""

from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.told import from_log
from umber_pebble.core.bench.replay import accept as replay
from umber_pebble.core.bench.state import Event, Layout, RunState
from umber_pebble.core.errors import CoreError
from umber_pebble.core.families.fats import COATING as COATING_FAMILY
from umber_pebble.core.families.glass import ISOMALT as ISOMALT_FAMILY
from umber_pebble.core.plan.cooks import Round
from umber_pebble.services.told import KINDS

ROUNDS = (Round(0, 0, 0, 3), Round(1, 0, 0, 2), Round(2, 1, 1, 3))
LAYOUT = Layout(
    ROUNDS,
    ("pot", "bowl"),
    ("bend", "stick"),
    ("bench", "slab"),
    ("bench", "slab"),
    (False, True),
    (ISOMALT_FAMILY, COATING_FAMILY),
    ("isomalt", "coating"),
    (None, None),
    (True, True),
)
SMALL = st.integers(-1, 3)
JUNK = st.one_of(
    st.none(), st.text(max_size=2), st.integers(), st.lists(st.text(max_size=1), max_size=1), st.just({})
)
SOUND = st.fixed_dictionaries(
    {},
    optional={
        "cook": SMALL,
        "round": SMALL,
        "cavities": st.lists(SMALL, max_size=3),
        "usable": st.one_of(st.booleans(), st.none()),
        "degc": st.one_of(st.floats(-50, 300), st.none()),
        "text": st.text(max_size=4),
        "id": st.sampled_from("abcdefgh"),
        "method": st.sampled_from(["immersed_swirled", "infrared", "eye"]),
        "place": st.sampled_from(["bench", "moon"]),
        "kinds": st.lists(st.sampled_from(["broken", "sad"]), max_size=2),
        "rounds": st.lists(st.lists(SMALL, min_size=2, max_size=2), max_size=2),
        "left_kg": st.dictionaries(st.sampled_from(["pot", "sink"]), st.floats(-1, 60)),
    },
)
PAYLOAD = st.one_of(
    SOUND, SOUND, st.dictionaries(st.sampled_from(["cook", "round", "cavities", "degc", "kinds"]), JUNK)
)
STEPS = st.lists(st.tuples(st.sampled_from(KINDS), PAYLOAD, st.floats(0, 5000)), max_size=14)


def state_of(events: list[Event]) -> RunState:
    return replay(LAYOUT, events)


def kept(steps: list[tuple[str, dict[str, Any], float]]) -> list[Event]:
    """The events a server would have kept: each is added only when the whole log still replays."""
    events = [from_log("s", "started", 0.0, "Wren", {}), from_log("k", "acknowledged", 0.0, "Wren", {})]
    for name, (kind, payload, at) in zip("abcdefghijklmn", steps, strict=False):
        try:
            state_of([*events, from_log(name, kind, at, "Wren", payload)])
        except CoreError:
            continue
        events.append(from_log(name, kind, at, "Wren", payload))
    return events


@settings(max_examples=200, deadline=None)
@given(STEPS)
def test_any_log_that_was_kept_is_consistent(steps: list[tuple[str, dict[str, Any], float]]) -> None:
    state = state_of(kept(steps))
    for r in state.rounds:
        if r.unmoulded_s is not None:
            assert r.poured_s is not None
            assert r.poured_s <= r.unmoulded_s
        assert not r.outcomes or r.poured_s is not None
        assert all(0 <= cavity < r.casts for cavity in r.outcomes)
    for cook in state.cooks:
        poured = [n for rest in cook.rests for _, n in rest.poured]
        assert len(poured) == len(set(poured))
        assert set(poured) == {r.number for r in state.rounds if r.cook == cook.number and r.poured_s is not None}
    heating = [state.vessel(c.number) for c in state.cooks if c.phase == "heating"]
    assert len(heating) == len(set(heating))


@settings(max_examples=100, deadline=None)
@given(STEPS, st.permutations(range(16)))
def test_the_order_of_arrival_does_not_matter(
    steps: list[tuple[str, dict[str, Any], float]], order: list[int]
) -> None:
    events = kept(steps)
    times = [e.at_s for e in events]
    if len(set(times[2:])) < len(times[2:]) or min(times[2:], default=1.0) <= 0:
        return  # two at the same instant keep the order they came in
    arrived = [events[i] for i in order if 1 < i < len(events)]
    assert state_of([*events[:2], *arrived]) == state_of(events)


def test_bags_are_filled_moved_coloured_merged_and_gone() -> None:
    bag = {"name": "Coral", "holder": "bag", "kg": 0.03, "spot": "towel", "tip_m": 0.004, "colour": "#e8705a"}
    done: list[tuple[str, dict[str, object]]] = [
        ("burst", {"cook": 1, "seconds": 30.0}),
        ("rested", {"cook": 1}),
        ("decanted", {"cook": 1, "into": [bag, {**bag, "name": "Night"}]}),
        ("moved", {"batch": 0, "spot": "bath"}),
        ("heated", {"batch": 0, "seconds": 2.0}),
        ("poured", {"batch": 0, "kg": 0.01}),
        ("decanted", {"batch": 0, "into": [{**bag, "kg": 0.005}]}),
        ("merged", {"batch": 1, "into": 0}),
        ("coloured", {"batch": 0, "kind": "oil", "colour": "#26304f"}),
        ("poured", {"batch": 2}),
    ]

    def told(*more: tuple[str, dict[str, object]]) -> RunState:
        rows = [("started", {}), ("acknowledged", {}), *done, *more]
        return replay(LAYOUT, [from_log(f"b{i}", k, 40.0 * i, "Wren", p) for i, (k, p) in enumerate(rows)])

    state = told()
    assert [round(b.left_kg, 4) for b in state.batches] == [0.045, 0.0, 0.0]
    assert [b.gone_s is None for b in state.batches] == [True, False, False]
    assert [b.number for b in state.batches] == [0, 1, 2]
    assert (state.batches[2].parent, state.batches[0].colour) == (0, "#26304f")
    assert state.cooks[1].taken_kg == pytest.approx(0.06)
    for kind, payload, says in (
        ("coloured", {"batch": 0, "kind": "water", "colour": "#26304f"}, "seizes"),
        ("decanted", {"batch": 0, "into": [{**bag, "kg": 0.2}]}, "more than is in it"),
        ("decanted", {"cook": 1, "into": [{**bag, "kg": 0.0}]}, "kg"),
        ("moved", {"batch": 0, "spot": "freezer"}, "spot"),
        ("heated", {"batch": 2, "seconds": 2.0}, "gone"),
        ("merged", {"batch": 0, "into": 0}, "same melt"),
    ):
        with pytest.raises(CoreError, match=says):
            told((kind, payload))
