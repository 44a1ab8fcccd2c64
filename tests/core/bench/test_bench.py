"""The reducer, the tracks it feeds, and the acts that come of them."""

import math
from dataclasses import replace
from typing import Any

import pytest

from tests.conftest import FRIDGE, WOOD, cooks_of, make_lollipops, make_plan
from tests.told import from_log, says
from umber_pebble.core.bench.acts import calls, next_acts
from umber_pebble.core.bench.again import cooks_now, missing, rounds_again
from umber_pebble.core.bench.cast_track import round_track
from umber_pebble.core.bench.now import RunNow
from umber_pebble.core.bench.passes import Act
from umber_pebble.core.bench.pour_acts import act_window
from umber_pebble.core.bench.predict import heating_track, resting_track
from umber_pebble.core.bench.replay import accept as replay
from umber_pebble.core.bench.state import Event, Layout, Reading, RunState
from umber_pebble.core.bench.track import Track, corrected_degc, temperature_at_degc
from umber_pebble.core.errors import CoreError, Missing, NotInSequence, OutOfRange
from umber_pebble.core.families.fats import COATING as COATING_FAMILY
from umber_pebble.core.families.glass import ISOMALT as ISOMALT_FAMILY
from umber_pebble.core.heat.casting import PlaceStay
from umber_pebble.core.heat.vessel import base_case, cooling_curve_degc, curve_times_s
from umber_pebble.core.log.learn import Factor, learned, loss_factor
from umber_pebble.core.plan.cooks import round_windows
from umber_pebble.core.plan.spares import BreakRate, casts_needed
from umber_pebble.core.spread import Spread, exact

PLAN = make_plan()
WAY = PLAN.ways["isomalt"]
COOKS = cooks_of(PLAN, [[(0, 14)], [(0, 14)]])
WINDOWS = round_windows(PLAN, COOKS)
ROUNDS = [r for c in COOKS for r in c.rounds]
KG = {r.number: PLAN.lines[0].cast.finished.value.likely * r.casts for r in ROUNDS}
PLACES = {"bench": WOOD}
LAYOUT = Layout(
    tuple(ROUNDS),
    ("pot",),
    (None,),
    ("bench",),
    ("bench", "slab"),
    (False,),
    (ISOMALT_FAMILY,),
    ("isomalt",),
    (None,),
    (True,),
)
WREN = "Wren"


def log(*steps: tuple[str, float, dict[str, Any]]) -> list[Event]:
    begun = [("started", 0.0, {}), ("acknowledged", 1.0, {})]
    return [from_log(f"e{i}", kind, at, WREN, payload) for i, (kind, at, payload) in enumerate([*begun, *steps])]


def state_of(events: list[Event]) -> RunState:
    return replay(LAYOUT, events)


HEATED = ("heated", 100.0, {"cook": 0})
OFF = ("rested", 300.0, {"cook": 0, "degc": 160.0})
POURED = ("poured", 480.0, {"round": 0})


def reading(at: float, degc: float, method: str = "immersed_swirled") -> tuple[str, float, dict[str, Any]]:
    return ("reading", at, {"cook": 0, "degc": degc, "method": method})


def pot_track(*steps: tuple[str, float, dict[str, Any]]) -> Track:
    state = state_of(log(HEATED, OFF, *steps))
    return resting_track(COOKS[0], state.cooks[0].rests[-1], KG)


def test_undo_leaves_the_state_as_if_it_had_not_been() -> None:
    before = log(HEATED, OFF)
    after = [
        *before,
        from_log("p", "poured", 480.0, WREN, {"round": 0}),
        from_log("c", "cancels", 490.0, WREN, {"id": "p"}),
    ]
    assert state_of(after) == state_of(before)


def test_a_late_event_is_placed_by_when_it_happened() -> None:
    events = log(HEATED, OFF, POURED)
    late = [*events, from_log("late", "reading", 400.0, WREN, {"cook": 0, "degc": 150.0, "method": "infrared"})]
    assert [r.id for r in state_of(late).cooks[0].rests[0].readings] == ["late"]


@pytest.mark.parametrize(
    ("steps", "why"),
    [
        ([("rested", 50.0, {"cook": 0})], "not_on_ring"),
        ([HEATED, POURED], "not_resting"),
        ([HEATED, OFF, POURED, ("poured", 500.0, {"round": 0})], "poured"),
        ([HEATED, ("heated", 120.0, {"cook": 1})], "pot_taken"),
        ([("unmoulded", 50.0, {"round": 0})], "not_in_mould"),
        ([("ended", 50.0, {}), HEATED], "ended"),
    ],
)
def test_what_does_not_follow_is_refused(steps: list[Any], why: str) -> None:
    with pytest.raises(NotInSequence) as refused:
        state_of(log(*steps))
    assert refused.value.params["why"] == why


def test_nobody_heats_before_the_caution() -> None:
    with pytest.raises(NotInSequence, match="caution"):
        state_of([from_log("a", "started", 0.0, WREN, {}), from_log("b", "heated", 9.0, WREN, {"cook": 0})])


def test_payloads_are_checked() -> None:
    with pytest.raises(OutOfRange, match="no cook 7"):
        state_of(log(("heated", 9.0, {"cook": 7})))
    with pytest.raises(OutOfRange, match=r"payload\.degc"):
        state_of(log(HEATED, reading(120.0, 1e9)))
    with pytest.raises(OutOfRange, match="method"):
        state_of(log(HEATED, reading(120.0, 90.0, "by eye")))
    with pytest.raises(Missing, match="usable"):
        state_of(log(HEATED, OFF, POURED, ("outcome", 900.0, {"round": 0, "cavities": [0]})))


def test_a_reading_moves_the_window_its_own_way() -> None:
    none, cold, warm = pot_track(), pot_track(reading(420.0, 143.0)), pot_track(reading(420.0, 151.0))
    closes = [t.windows["pour"][1] for t in (cold, none, warm)]
    assert closes[0].likely < closes[1].likely < closes[2].likely
    assert closes[0].high - closes[0].low < closes[1].high - closes[1].low


def test_an_odd_reading_is_shown_but_not_believed() -> None:
    plain, odd = pot_track(), pot_track(reading(420.0, 48.0))
    assert odd.dots[0].odd
    assert odd.windows == plain.windows


def test_two_odd_readings_in_a_row_are_believed() -> None:
    track = pot_track(reading(420.0, 118.0), reading(450.0, 114.0))
    assert [d.odd for d in track.dots] == [False, False]
    assert temperature_at_degc(track, 450.0).likely == pytest.approx(114.0, abs=3.0)


def test_a_surface_reading_is_taken_for_warmer_and_less_sure() -> None:
    case = base_case(WAY.pot, WAY.melt, COOKS[0].charge_kg)
    swirled = corrected_degc(Reading("a", 0, 140.0, "immersed_swirled"), case, 300.0)
    surface = corrected_degc(Reading("b", 0, 140.0, "infrared"), case, 300.0)
    middle = corrected_degc(Reading("c", 0, 140.0, "immersed_unswirled"), case, 300.0)
    assert swirled == (140.0, 1.0)
    assert surface[0] > 143.0 > 140.0 > middle[0]
    assert surface[1] > middle[1] > swirled[1]


def test_pouring_out_makes_the_rest_cool_faster() -> None:
    full, emptied = pot_track(), pot_track(("poured", 480.0, {"round": 0}))
    assert temperature_at_degc(emptied, 900.0).likely < temperature_at_degc(full, 900.0).likely - 3.0


def test_track_before_readings_is_the_plan() -> None:
    track, window = pot_track(), COOKS[0].window
    assert track.windows["pour"][1].likely - 300.0 == pytest.approx(window.closes.likely, rel=0.04)


def test_heating_track_follows_a_reading() -> None:
    slow = log(HEATED, ("reading", 160.0, {"cook": 0, "degc": 60.0, "method": "immersed_swirled"}))
    track = heating_track(COOKS[0], state_of(slow).cooks[0])
    plain = heating_track(COOKS[0], state_of(log(HEATED)).cooks[0])
    assert track.windows["ready"][0].likely > plain.windows["ready"][0].likely


def run_to(*steps: tuple[str, float, dict[str, Any]], now: float, actor: str = WREN) -> list[Any]:
    state = state_of(log(*steps))
    pots = {}
    for cook, seen in zip(COOKS, state.cooks, strict=True):
        if seen.phase == "heating":
            pots[cook.number] = heating_track(cook, seen)
        elif seen.phase == "resting":
            pots[cook.number] = resting_track(cook, seen.rests[-1], KG)
    tracks = {
        r.number: round_track(PLAN, COOKS[r.cook], 0, state.rounds[r.number], exact(140.0), PLACES)
        for r in ROUNDS
        if state.rounds[r.number].poured_s is not None
    }
    return next_acts(RunNow(PLAN, COOKS, state, pots, tracks, WINDOWS, now), actor)


def test_the_acts_lead_through_a_run() -> None:
    def first(*steps: Any, now: float) -> str:
        return str(run_to(*steps, now=now)[0].what.kind)

    out = ("unmoulded", 2000.0, {"round": 0})
    seen = [("outcome", 2010.0, {"round": 0, "cavities": list(range(14)), "usable": True, "kinds": []})]
    assert run_to(now=5.0, actor="Sol")[0].what.kind == "acknowledge"
    assert first(now=5.0) == "heat"
    assert first(HEATED, now=110.0) == "off"
    assert first(HEATED, OFF, now=301.0) == "read"
    assert first(HEATED, OFF, reading(330.0, 157.0), now=420.0) == "pour"
    assert first(HEATED, OFF, now=300.0 + 3000.0) == "warm"
    assert first(HEATED, OFF, POURED, now=1990.0) in ("heat", "unmould")
    assert "outcomes" in [a.what.kind for a in run_to(HEATED, OFF, POURED, out, now=2005.0)]
    assert first(HEATED, OFF, POURED, out, *seen, now=2100.0) == "heat"


def test_a_pour_too_late_to_be_sure_says_so_and_calls_come_in_order() -> None:
    acts = run_to(HEATED, OFF, reading(330.0, 157.0), now=340.0)
    pour = next(a for a in acts if a.what.kind == "pour")
    made = calls(acts, 20.0)
    assert [c.at_s for c in made] == sorted(c.at_s for c in made)
    assert {(c.kind, c.at_s) for c in made} == {
        ("opens", pour.opens_s - 20.0),
        ("closes", pour.closes_s - 20.0),
        ("closed", pour.closes_s),
    }
    off = run_to(HEATED, now=110.0)[0]
    assert off.opens_s < off.closes_s
    assert act_window(Spread(1, 2, 3), Spread(9, 10, 11), 2.0) == (3, 9, True)
    assert act_window(Spread(1, 2, 8), Spread(9, 10, 11), 2.0) == (2, 10, False)


def test_a_run_teaches_the_pots_loss() -> None:
    true = cooling_curve_degc(replace(base_case(WAY.pot, WAY.melt, COOKS[0].charge_kg), loss_factor=1.2), 160.0)
    times = [60.0, 120.0, 200.0]
    temps = [float(true[curve_times_s().searchsorted(t)]) for t in times]
    track = pot_track(*(reading(300.0 + t, degc) for t, degc in zip(times, temps, strict=True)))
    found = loss_factor([track], 1.0)
    assert found is not None
    assert found.value == pytest.approx(1.2, abs=0.06)
    after = learned(Spread(0.75, 1.0, 1.3), [found, Factor(found.value, found.sd)])
    assert 1.1 < after.likely < 1.25
    assert after.high - after.low < 0.3


LOLLIPOPS = make_lollipops()
MELTS = cooks_of(LOLLIPOPS, [[(0, 8)], [(0, 8)]])
BOARD = Layout(
    tuple(r for c in MELTS for r in c.rounds),
    ("bowl",),
    (("stick",),),
    ("bench",),
    ("bench", "fridge"),
    (True,),
    (COATING_FAMILY,),
    ("coating",),
    (None,),
    (True,),
)
SPOTS = {"bench": WOOD, "fridge": FRIDGE}


def lollipop_acts(now: float, *steps: tuple[str, float, dict[str, Any]]) -> tuple[list[Act], dict[int, Track]]:
    events = [("started", 0.0, {}), *steps]
    state = replay(
        BOARD, [from_log(f"e{i}", kind, at, WREN, payload) for i, (kind, at, payload) in enumerate(events)]
    )
    pots = {}
    for cook, seen in zip(MELTS, state.cooks, strict=True):
        if seen.phase == "heating":
            pots[cook.number] = heating_track(cook, seen)
        elif seen.phase == "resting":
            pots[cook.number] = resting_track(cook, seen.rests[-1], {0: 0.13, 1: 0.13})
    tracks = {
        r.number: round_track(LOLLIPOPS, MELTS[0], 0, r, exact(38.0), SPOTS)
        for r in state.rounds
        if r.poured_s is not None
    }
    windows = round_windows(LOLLIPOPS, MELTS)
    return next_acts(RunNow(LOLLIPOPS, MELTS, state, pots, tracks, windows, now), WREN), tracks


def test_lollipops_are_melted_poured_get_sticks_go_to_the_fridge_and_come_out() -> None:
    steps: list[tuple[str, float, dict[str, Any]]] = []

    def then(now: float, *more: tuple[str, float, dict[str, Any]]) -> Act:
        steps.extend(more)
        return lollipop_acts(now, *steps)[0][0]

    heat = then(5.0)  # no hot sugar, no caution
    assert (heat.what.kind, heat.tells.KIND, says(heat)["seconds"]) == ("heat", "burst", 30.0)
    assert then(130.0, ("burst", 120.0, says(heat))).what.kind == "burst"
    again = ("burst", 170.0, {"cook": 0, "seconds": 10.0})
    read = ("reading", 205.0, {"cook": 0, "degc": 45.0, "method": "immersed_swirled"})
    assert then(210.0, again, ("seen", 200.0, {"cook": 0, "what": "smooth"}), read).what.kind == "out"
    assert then(320.0, ("rested", 230.0, {"cook": 0})).what.kind in ("read", "pour")
    sticks = then(505.0, ("poured", 500.0, {"round": 0}))
    assert sticks.what.kind == "stick"
    assert 60 < sticks.closes_s - 500.0 < 600
    move = then(560.0, ("inserted", 550.0, {"round": 0}))
    assert (move.what.kind, says(move)) == ("move", {"round": 0, "place": "fridge"})
    moved = ("moved", 570.0, {"round": 0, "place": "fridge"})
    out = next(a for a in lollipop_acts(600.0, *steps, moved)[0] if a.what.kind == "unmould")
    assert 10 * 60 < out.opens_s - 570.0 < 35 * 60
    assert out.closes_s == math.inf
    with pytest.raises(NotInSequence, match="other work"):
        lollipop_acts(600.0, *steps, ("bent", 580.0, {"round": 1}))


def test_left_on_the_bench_it_takes_longer_than_in_the_fridge() -> None:
    begun: list[tuple[str, float, dict[str, Any]]] = [
        ("heated", 120.0, {"cook": 0}),
        ("rested", 230.0, {"cook": 0}),
        ("poured", 500.0, {"round": 0}),
        ("inserted", 540.0, {"round": 0}),
    ]
    planned = lollipop_acts(600.0, *begun)[1][0]
    late = lollipop_acts(600.0, *begun, ("moved", 1200.0, {"round": 0, "place": "fridge"}))[1][0]
    assert late.windows["unmould"][0].likely > planned.windows["unmould"][0].likely + 120
    assert [b.state for b in planned.bands] == ["fluid", "thickens", "touch", "unmould"]


def test_two_vessels_may_be_on_at_once() -> None:
    one, other = BOARD.rounds
    two = replace(
        BOARD,
        rounds=(one, replace(other, line=1)),
        vessels=("bowl", "glass bowl"),
        works=("stick",) * 2,
        poured_on=("bench",) * 2,
        bursts=(True,) * 2,
        families=(COATING_FAMILY,) * 2,
    )
    both = [("started", 0.0, {}), ("heated", 100.0, {"cook": 0}), ("heated", 110.0, {"cook": 1})]
    state = replay(two, [from_log(f"e{i}", kind, at, WREN, payload) for i, (kind, at, payload) in enumerate(both)])
    assert [c.phase for c in state.cooks] == ["heating", "heating"]


def test_a_pot_thrown_away_is_cooked_anew_for_what_it_still_owes() -> None:
    two = cooks_of(PLAN, [[(0, 8), (0, 6)]])
    layout = replace(LAYOUT, rounds=tuple(r for c in two for r in c.rounds))
    steps = [HEATED, OFF, POURED, ("discarded", 520.0, {"cook": 0})]
    state = replay(layout, log(*steps))
    assert (state.cooks[0].phase, state.cooks[0].lost) == ("waiting", (0,))
    [again] = cooks_now(PLAN, two, state)
    [whole] = two
    assert again.fresh_kg == again.charge_kg < whole.charge_kg
    assert again.poured_kg == pytest.approx(6 * PLAN.lines[0].cast.poured.value.likely)
    heat = next_acts(RunNow(PLAN, [again], state, {}, {0: _track(two, state)}, WINDOWS, 600.0), WREN)
    assert [a.what.casts for a in heat if a.what.kind == "heat"] == [6]
    # cooked anew, it rests as a whole charge, not as one that a round has been poured from
    state = replay(layout, log(*steps, ("heated", 700.0, {"cook": 0}), ("rested", 900.0, {"cook": 0})))
    assert state.cooks[0].rests[-1].before == ()
    with pytest.raises(NotInSequence, match="nothing in this vessel"):
        replay(layout, log(("discarded", 5.0, {"cook": 0})))


def test_what_broke_is_cooked_again_with_the_spares_that_it_teaches() -> None:
    broke = [
        ("outcome", 2010.0 + i, {"round": 0, "cavities": cavities, "usable": usable, "kinds": []})
        for i, (cavities, usable) in enumerate([(list(range(5)), False), (list(range(5, 14)), True)])
    ]
    state = replay(LAYOUT, log(HEATED, OFF, POURED, ("unmoulded", 2000.0, {"round": 0}), *broke))
    line = PLAN.lines[0]
    owed = missing(PLAN, state)[0]
    assert owed == line.quantity - 9
    seen = BreakRate(line.break_rate.broken + 5, line.break_rate.good + 9)
    wanted = casts_needed(owed, PLAN.confidence_frac, seen)
    assert wanted > casts_needed(owed, PLAN.confidence_frac, line.break_rate) > owed
    roomy = replace(PLAN, lines=(replace(line, mould=replace(line.mould, owned=9)),))
    assert rounds_again(roomy, state) == [(0, wanted)]
    # no more than the mould holds
    assert rounds_again(PLAN, state) == [(0, line.mould.at_once)]


def _track(cooks: list[Any], state: RunState) -> Track:
    return round_track(PLAN, cooks[0], 0, state.rounds[0], exact(140.0), PLACES)


def test_what_is_short_is_cooked_again_with_spares_or_the_run_ends() -> None:
    done: list[Any] = []
    for r in ROUNDS:
        at = 10_000.0 * (r.number + 1)
        cavities = list(range(r.casts))
        done += [
            ("heated", at, {"cook": r.cook}),
            ("rested", at + 200, {"cook": r.cook}),
            ("poured", at + 400, {"round": r.number}),
            ("unmoulded", at + 3000, {"round": r.number}),
            (
                "outcome",
                at + 3010,
                {"round": r.number, "cavities": cavities, "usable": r.number == 0, "kinds": []},
            ),
        ]
    state = state_of(log(*done))
    assert missing(PLAN, state) == {0: 10}
    acts = next_acts(RunNow(PLAN, COOKS, state, {}, {}, WINDOWS, 40_000.0), WREN)
    assert [a.what.kind for a in acts] == ["again", "end"]
    [[line, casts]] = says(acts[0])["rounds"]
    assert (line, casts) == (0, 14)  # 10 and spares at this break rate, no more than the mould holds
    more = state_of(log(*done, ("replanned", 40_010.0, says(acts[0]))))
    assert (more.rounds[2].casts, more.rounds[2].cook, more.cooks[2].phase) == (14, 2, "waiting")


def disc_track(*steps: tuple[str, float, dict[str, Any]]) -> Track:
    return _track(COOKS, state_of(log(HEATED, OFF, POURED, *steps)))


def saw(at: float, what: str) -> tuple[str, float, dict[str, Any]]:
    return ("seen", at, {"round": 0, "what": what})


def test_what_is_seen_moves_the_windows_and_what_says_nothing_new_does_not() -> None:
    plain = disc_track()
    holds = plain.windows["holds"][0].likely
    late = disc_track(saw(holds + 120.0, "moves"))
    assert late.windows["unmould"][0].likely > plain.windows["unmould"][0].likely + 60
    # that it moves while it is expected to, or has cracked once it is brittle, is no news
    assert disc_track(saw(holds - 60.0, "moves")).windows == plain.windows
    assert disc_track(saw(plain.windows["brittle"][0].likely + 60.0, "cracked")).windows == plain.windows
    early = disc_track(saw(plain.windows["bend_closes"][0].likely / 2 + 240.0, "resists"))
    assert early.windows["unmould"][0].likely < plain.windows["unmould"][0].likely
    # undone, it is as if nobody had looked
    state = state_of(log(HEATED, OFF, POURED, saw(600.0, "moves"), ("cancels", 610.0, {"id": "e5"})))
    assert state.rounds[0].sights == []
    with pytest.raises(OutOfRange, match="what"):
        state_of(log(HEATED, OFF, POURED, saw(600.0, "sings")))
    with pytest.raises(NotInSequence, match="still in its mould"):
        state_of(log(HEATED, OFF, saw(600.0, "moves")))


def test_a_piece_with_a_way_of_its_own_goes_it() -> None:
    slab = PlaceStay(300.0, FRIDGE)
    plan = replace(PLAN, lines=(replace(PLAN.lines[0], lies=((PlaceStay(0.0, WOOD), "bench"), (slab, "slab"))),))
    cooks = cooks_of(plan, [[(0, 14)], [(0, 14)]])
    state = state_of(log(HEATED, OFF, POURED))
    track = round_track(plan, cooks[0], 0, state.rounds[0], exact(140.0), PLACES)
    windows = round_windows(plan, cooks)
    acts = next_acts(RunNow(plan, cooks, state, {}, {0: track}, windows, 500.0), WREN)
    move = next(a for a in acts if a.what.kind == "move")
    assert (says(move)["place"], move.opens_s) == ("slab", pytest.approx(780.0))
    assert track.windows["unmould"][0].likely < disc_track().windows["unmould"][0].likely
    moved = state_of(log(HEATED, OFF, POURED, ("moved", 700.0, {"round": 0, "place": "slab"})))
    later = next_acts(RunNow(plan, cooks, moved, {}, {0: track}, windows, 710.0), WREN)
    assert "move" not in [a.what.kind for a in later]


def test_a_pause_silences_and_hides_nothing() -> None:
    paused = state_of(log(HEATED, ("paused", 150.0, {})))
    pots = {0: heating_track(COOKS[0], paused.cooks[0])}
    acts = next_acts(RunNow(PLAN, COOKS, paused, pots, {}, WINDOWS, 160.0), WREN)
    assert [a.what.kind for a in acts][:2] == ["resume", "off"]
    assert state_of(log(HEATED, ("paused", 150.0, {}), ("resumed", 160.0, {}))).paused_s is None
    with pytest.raises(NotInSequence, match="not paused"):
        state_of(log(("resumed", 5.0, {})))


@pytest.mark.parametrize(
    "rounds", [None, [], [[0]], [[0, 0]], [[9, 3]], [["a", 3]], [[0, True]], [[0, 5000]], [[0, 3]] * 13]
)
def test_a_senseless_cook_is_not_added(rounds: Any) -> None:
    with pytest.raises(CoreError, match=r"round|line|castings"):
        state_of(log(("replanned", 5.0, {"rounds": rounds})))
