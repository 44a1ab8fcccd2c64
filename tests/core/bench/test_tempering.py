"""A couverture from bursts over seed and smear to the pour, as the bench tells it."""

from dataclasses import replace
from typing import Any

import pytest

from tests.conftest import cooks_of, make_lollipops
from tests.told import from_log, says
from umber_pebble.core.bench.acts import next_acts
from umber_pebble.core.bench.bowl import Again
from umber_pebble.core.bench.cast_track import round_track
from umber_pebble.core.bench.now import RunNow
from umber_pebble.core.bench.passes import Act
from umber_pebble.core.bench.predict import heating_track, resting_track
from umber_pebble.core.bench.replay import accept as replay
from umber_pebble.core.bench.state import CookState, Layout, Rest, RunState
from umber_pebble.core.bench.tempering import tempering_track
from umber_pebble.core.bench.track import Track, temperature_at_degc
from umber_pebble.core.errors import OutOfRange
from umber_pebble.core.families.fats import COATING as COATING_FAMILY
from umber_pebble.core.materials.load import material
from umber_pebble.core.melts.bursts import School
from umber_pebble.core.melts.oven import Microwave
from umber_pebble.core.plan.cooks import round_windows
from umber_pebble.core.plan.fat_melt import FatMelt
from umber_pebble.core.plan.problem import PlanInput
from umber_pebble.core.plan.tempered import Temper
from umber_pebble.core.spread import exact
from umber_pebble.core.temper.seed import after_degc, plan_seed

DARK, WREN = material("melts", "dark"), "Wren"
Step = tuple[str, float, dict[str, Any]]


def plan_of(school: str) -> PlanInput:
    by = FatMelt(47.0, Microwave(900.0, 15.0), "oven", School(1.0, "through"), Temper(school, 20.0))
    plan = make_lollipops()
    way = replace(plan.ways["coating"], melt=DARK, by=by)
    return replace(plan, lines=tuple(replace(line, melt="dark") for line in plan.lines), ways={"dark": way})


class Bench:
    """A run of one round of dark lollipops by one school."""

    def __init__(self, school: str = "seed") -> None:
        self.plan = plan_of(school)
        self.cooks = cooks_of(self.plan, [[(0, 8)]])
        self.layout = Layout(
            tuple(r for c in self.cooks for r in c.rounds),
            ("bowl",),
            ("stick",),
            ("bench",),
            ("bench", "fridge"),
            (True,),
            (COATING_FAMILY,),
            ("coating",),
            (None,),
            (True,),
        )
        self.steps: list[Step] = [
            ("started", 0.0, {}),
            ("burst", 10.0, {"cook": 0, "seconds": 30.0}),
            ("rested", 400.0, {"cook": 0, "degc": 46.5}),
        ]

    def state(self) -> RunState:
        return replay(self.layout, [from_log(f"e{i}", k, at, WREN, p) for i, (k, at, p) in enumerate(self.steps)])

    def track(self) -> Track:
        [cook], seen = self.cooks, self.state().cooks[0]
        if seen.phase == "heating":
            return heating_track(cook, seen)
        assert cook.tempering is not None

        def make(of: Rest) -> Track:
            return resting_track(cook, of, {0: 0.13})

        return tempering_track(cook.tempering, seen.rests[-1], make)

    def then(self, now: float, *more: Step) -> Act:
        self.steps += more
        windows = round_windows(self.plan, self.cooks)
        return next_acts(RunNow(self.plan, self.cooks, self.state(), {0: self.track()}, {}, windows, now), WREN)[0]

    def reads(self, at: float, degc: float) -> Step:
        return ("reading", at, {"cook": 0, "degc": degc, "method": "immersed_swirled"})


def test_seed_by_readings_a_smear_and_only_then_the_pour() -> None:
    bench = Bench()
    [cook] = bench.cooks
    # seed for what is left of the charge, by its own balance; a light bowl holds as much heat as the melt it is in
    assert cook.tempering is not None
    assert cook.seed_kg + cook.tempering.melt_kg == pytest.approx(cook.charge_kg)
    assert plan_seed(cook.tempering.seeding).seed_kg.likely == pytest.approx(cook.seed_kg, rel=1e-6)
    bench.then(420.0, bench.reads(410.0, 46.0), ("tempered", 415.0, {"cook": 0, "step": "cool"}))
    seed = bench.then(420.0)
    assert (seed.what.kind, seed.what.step, seed.tells.KIND) == ("temper", "seed", "tempered")
    bench.steps.append(("tempered", 430.0, says(seed)))
    # the curve goes where the heat balance says, the reading before it as its start
    assert cook.tempering is not None
    s = replace(cook.tempering.seeding, melt_degc=temperature_at_degc(bench.track(), 429.0).likely)
    expected = after_degc(s, says(seed)["added_kg"], s.melts_frac.likely)
    assert temperature_at_degc(bench.track(), 431.0).likely == pytest.approx(expected, abs=0.3)
    read = bench.then(440.0)
    assert (read.what.step, read.tells) == ("read", None)
    more = bench.then(520.0, bench.reads(510.0, 33.5))
    assert more.what.step in ("more", "stir")
    test = bench.then(620.0, bench.reads(610.0, 31.5))
    assert says(test) == {"cook": 0, "smear": True}
    look = bench.then(640.0, ("tempered", 630.0, says(test)))
    assert (look.what.step, look.opens_s) == ("look", pytest.approx(630.0 + 180.0))
    again = bench.then(850.0, ("tempered", 840.0, {"cook": 0, "test": "under"}))
    assert again.what.step == "more"
    bench.steps.pop()
    pour = bench.then(850.0, ("tempered", 840.0, {"cook": 0, "test": "well"}))
    assert pour.what.kind == "pour"


def test_what_is_poured_out_of_temper_sets_later_and_the_round_keeps_it() -> None:
    bench = Bench()
    plan, [cook] = bench.plan, bench.cooks
    bench.steps += [("tempered", 430.0, {"cook": 0, "added_kg": 0.05}), ("poured", 900.0, {"round": 0})]
    state = bench.state()
    assert state.cooks[0].rests[0].temper == "under"
    spots = {"bench": plan.ways["dark"].poured_on, "fridge": plan.ways["dark"].sets_in}
    touch = [
        round_track(plan, cook, 0, state.rounds[0], exact(31.0), spots, temper).windows["touch"][0].likely
        for temper in ("tempered", "under")
    ]
    assert touch[1] > touch[0] + 120.0


@pytest.mark.parametrize(
    ("school", "acts"),
    [
        ("powder", ["cool", "powder", "cool", "test"]),
        ("slab", ["slab", "return", "test"]),
        ("bowls", ["cold bowl", "warm", "test"]),
        ("keep", ["warm", "test"]),
    ],
)
def test_the_other_schools_go_step_by_step(school: str, acts: list[str]) -> None:
    bench, at = Bench(school), 420.0
    for expected in acts:
        act = bench.then(at)
        assert act.what.step == expected
        at += 60.0
        bench.steps.append(("tempered", at, says(act)))
    assert bench.then(at + 10.0).what.step == "look"


def test_no_temper_pours_at_once() -> None:
    assert Bench("none").then(420.0).what.kind in ("pour", "read")


@pytest.mark.parametrize(
    ("payload", "field"),
    [
        ({"added_kg": -0.1}, "payload.added_kg"),
        ({"added_kg": 0.0}, "payload.added_kg"),
        ({"step": "pray"}, "payload.step"),
        ({"test": "fine"}, "payload.test"),
    ],
)
def test_what_cannot_be_is_refused(payload: dict[str, Any], field: str) -> None:
    bench = Bench()
    with pytest.raises(OutOfRange) as refused:
        bench.then(430.0, ("tempered", 420.0, {"cook": 0, **payload}))
    assert refused.value.path == field


def test_what_is_in_temper_may_be_warmed_without_a_burst() -> None:
    bench = Bench()
    again, on = Again(31.2, fluid=True, in_temper=True), CookState(0, heated_s=50.0, heatings=2)
    track = heating_track(bench.cooks[0], on, again)
    # nothing is planned of the oven: it may come off at once, as warm as it was
    assert track.step is None and track.step_s < 50.0 + 60.0
    assert temperature_at_degc(track, 60.0).likely == pytest.approx(31.2, abs=0.5)
