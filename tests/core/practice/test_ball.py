"""A ball in a two-part mould from pour to opening. Common practice, no source: 113 g nearly fill one half of a 70-75 mm ball; 30 s by
hand, a new side down every two minutes, five times and more; then ten minutes at least; it comes out whole."""

import math
from dataclasses import replace
from typing import Any

import pytest

from tests.conftest import FRIDGE, clashes, cooks_of, make_lollipops
from tests.told import from_log
from umber_pebble.core.bench.acts import calls, next_acts
from umber_pebble.core.bench.cast_track import round_track
from umber_pebble.core.bench.now import RunNow
from umber_pebble.core.bench.passes import Act
from umber_pebble.core.bench.replay import accept as replay
from umber_pebble.core.bench.state import Layout
from umber_pebble.core.families.fats import COATING as COATING_FAMILY
from umber_pebble.core.materials.load import material
from umber_pebble.core.moulds.cavity import Cavity, volume_m3
from umber_pebble.core.moulds.domes import Cap
from umber_pebble.core.pieces.passes.turned import Turned
from umber_pebble.core.plan.compile import compile_plan
from umber_pebble.core.plan.cooks import casting_of, path_of, round_windows
from umber_pebble.core.plan.problem import Named, PlanInput
from umber_pebble.core.plan.turns import turns_of
from umber_pebble.core.spread import Spread, exact
from umber_pebble.demo.moulds import MOULDS
from umber_pebble.demo.pieces import PIECES
from umber_pebble.services.built import build_of
from umber_pebble.services.documents import Mould
from umber_pebble.services.piece_docs import Part, Piece

MOON = PIECES["piece-moon"].parts[0]
HALVES = MOULDS["mould-moon"]


def balls(quantity: int) -> PlanInput:
    """Balls of 72 mm in the demo's mould, set in a fridge."""
    part = MOON.model_copy(update={"passes": [p for p in MOON.passes if isinstance(p, Turned)]})
    built = build_of(part, HALVES, {})
    base = make_lollipops(quantity)
    [row] = built.laid
    assert row.cast is not None
    line = replace(base.lines[0], named=Named("Moon"), mould=built.mould, cast=row.cast, works=(), kind="turned")
    return replace(base, lines=(line,))


def test_the_wall_is_that_of_practice_and_113_grams_nearly_fill_one_half() -> None:
    line = balls(2).lines[0]
    half = volume_m3(Cavity(Cap(0.072, 0.036)), 0.036)
    assert 0.85 < line.cast.volume.value.likely / half < 1.0
    assert 0.006 <= line.cast.thickness.likely <= 0.0075
    # all of it in one casting, both halves of it
    assert line.cast.finished.value.likely == pytest.approx(0.113, rel=1e-6)
    # the volume of a hollow sphere by hand
    outer, inner = 0.036, 0.036 - line.cast.thickness.likely
    assert 4 / 3 * math.pi * (outer**3 - inner**3) * 1245.0 == pytest.approx(0.113, rel=0.01)
    # four halves are two balls at once
    assert line.mould.at_once == 2


def test_it_cools_as_a_hollow_ball_not_as_a_plate() -> None:
    plan = balls(2)
    [cook] = cooks_of(plan, [[(0, 2)]])
    casting = casting_of(plan, plan.lines[0], Spread(36.0, 37.0, 38.0), cook.flow, path_of(plan, plan.lines[0], 2))
    assert casting.shape == "ball"
    assert casting.inner_m + casting.slab.likely == pytest.approx(0.036, abs=1e-4)


def test_turns_are_the_engines_and_five_at_least() -> None:
    plan = balls(2)
    cooks = cooks_of(plan, [[(0, 2)]])
    thick = round_windows(plan, cooks)[0]
    turns = turns_of(material("melts", "coating"), thick)
    assert (turns.practised, turns.every_s, turns.by_hand_s) == (5, 120.0, 30.0)
    assert turns.count >= 5
    assert turns.count == max(5, math.ceil(thick.at["still"].likely / 120.0))
    # in its mould for its turns and ten minutes more at least
    assert thick.at["unmould"].low >= turns.last_s + 600.0 - 1e-6
    thin = replace(thick, at=thick.at | {"still": exact(100.0)})
    assert turns_of(material("melts", "coating"), thin).count == 5


def test_hands_are_kept_free_for_every_turn_in_the_timetable() -> None:
    plan = compile_plan(balls(6))
    tasks = [t for t in plan.tasks if t.kind == "turn"]
    rounds = {t.round for t in tasks}
    assert len(rounds) == len(plan.rounds) >= 3
    for number in rounds:
        mine = sorted(t.start_s for t in tasks if t.round == number)
        assert len(mine) >= 1 + 5
        # the first follows the pour; then every two minutes, half a minute either way
        due = [mine[0] + 30.0 + 120.0 * n for n in range(1, len(mine))]
        assert all(abs(at - wanted) <= 30.0 for at, wanted in zip(mine[1:], due, strict=True))
    assert all(t.hands for t in tasks)
    assert clashes(list(plan.tasks)) == []
    # there is no join of halves, and spares are whole balls
    assert not any(t.kind == "join" for t in plan.tasks)
    assert plan.casts[0] == sum(r.casts for r in plan.rounds)


def test_the_bench_calls_each_turn_and_then_the_mould_is_left_alone() -> None:
    plan = balls(2)
    cooks = cooks_of(plan, [[(0, 2)]])
    windows = round_windows(plan, cooks)
    layout = Layout(
        tuple(cooks[0].rounds),
        ("bowl",),
        ((),),
        ("bench",),
        ("bench", "fridge"),
        (True,),
        (COATING_FAMILY,),
        ("coating",),
        (None,),
        (True,),
    )
    steps: list[tuple[str, float, dict[str, Any]]] = [
        ("started", 0.0, {}),
        ("burst", 10.0, {"cook": 0, "seconds": 30.0}),
        ("rested", 200.0, {"cook": 0}),
        ("poured", 500.0, {"round": 0}),
        ("moved", 535.0, {"round": 0, "place": "fridge"}),
    ]

    def acts(now: float) -> list[Act]:
        state = replay(layout, [from_log(f"e{i}", k, at, "Wren", p) for i, (k, at, p) in enumerate(steps)])
        places = {"bench": plan.ways["coating"].poured_on, "fridge": FRIDGE}
        tracks = {0: round_track(plan, cooks[0], 0, state.rounds[0], exact(37.0), places)}
        return next_acts(RunNow(plan, cooks, state, {}, tracks, windows, now), "Wren")

    turns = turns_of(material("melts", "coating"), windows[0])
    for n in range(turns.count):
        first = acts(536.0 + 120.0 * n)[0]
        assert (first.what.kind, first.tells.KIND, first.what.turn) == ("turn", "flipped", n + 1)
        assert any(c.window == "turn" and c.kind == "opens" for c in calls([first], 20.0))
        due = first.opens_s
        assert due == pytest.approx(650.0 + 120.0 * n)
        steps.append(("flipped", due, {"round": 0}))
    after = acts(steps[-1][1] + 1.0)[0]
    assert after.what.kind == "unmould"
    assert after.opens_s >= steps[-1][1] + 600.0 - 40.0
    # a turn that was missed is due at once
    del steps[-turns.count + 1 :]
    late = acts(steps[-1][1] + 400.0)[0]
    assert late.what.kind == "turn" and late.opens_s < steps[-1][1] + 400.0


def test_older_balls_counted_by_halves_are_counted_whole() -> None:
    old = PIECES["piece-moon"].model_dump(mode="json")
    [part] = old["parts"]
    part["count"] = 2
    part["passes"] = [{k: v for k, v in p.items() if k != "whole"} for p in part["passes"]]
    seam = {
        "part": 0,
        "to": 0,
        "by": "melt",
        "melt": {"material": "coating", "colour": None},
        "count": 1,
        "seam_m": 0.3,
        "dots": 0,
        "bead_m": 0.004,
        "gap_m": 0.0,
        "deep_m": 0.0,
        "props": 2,
    }
    read = Piece.model_validate(old | {"joins": [seam]}, strict=False)
    assert (read.parts[0].count, read.joins) == (1, [])
    assert isinstance(HALVES, Mould) and isinstance(read.parts[0], Part)
