"""What is left of a run may be arranged anew at any moment, for whoever is there, and the run goes by it to its end."""

from dataclasses import asdict, replace
from pathlib import Path

import pytest

from tests.services.test_led import MOST_ACTS, SOL, Hand
from umber_pebble.core.bench.again import missing
from umber_pebble.core.bench.colder import chilled
from umber_pebble.core.bench.now import RunNow
from umber_pebble.core.bench.onward import How
from umber_pebble.core.bench.rest_of_day import Rest, rest_of_day
from umber_pebble.core.bench.shifted import shifted
from umber_pebble.core.errors import CoreError, OutOfRange
from umber_pebble.core.plan.compile import compile_plan
from umber_pebble.core.plan.day.check import Broken, broken
from umber_pebble.core.plan.day.model import Model
from umber_pebble.core.plan.day.search import USUAL, at_once, improved
from umber_pebble.core.plan.timetable import round_numbers
from umber_pebble.demo.fill import WREN
from umber_pebble.services import bench
from umber_pebble.services.documents import Order
from umber_pebble.services.going_on import GoingOn, Onwards, WayOn
from umber_pebble.services.interpreted import run_now, track_of_round


class Two(Hand):
    """Both do what the bench shows each first, the one who may sooner; ways to go on are looked at meanwhile."""

    def __init__(self, folder: Path, vessels: tuple[str, ...] = ()) -> None:
        super().__init__(folder, None)
        if vessels:
            self.have_only(*vessels)
        stored = self.workshop.get("order", "order-table")
        assert isinstance(stored.doc, Order)
        both = stored.doc.model_copy(update={"people": [WREN, SOL]})
        self.workshop.save("order", "order-table", stored.version, both)
        self.start("order-table")
        self.plan = compile_plan(self.runs.look("led")[1].plan)
        self.onwards, self.there = Onwards(self.runs), [WREN, SOL]

    def go_on(self, acts: int) -> bool:
        for _ in range(acts):
            firsts = {who: bench.view(self.runs, "led", who).acts[0] for who in self.there}
            self.who = min(firsts, key=lambda who: firsts[who].opens_s)
            if not self.step():
                return False
        return True

    def ways(self) -> dict[How, WayOn]:
        return {way.how: way for way in self.look().ways}

    def look(self) -> GoingOn:
        return self.onwards.look("led")

    def rest(self) -> Rest:
        return rest_of_day(
            self.plan.day, round_numbers(self.plan.day, self.plan.table), self.now(), self.plan.fares.start_s
        )

    def now(self) -> RunNow:
        run, frozen, seen, _ = self.runs.look("led")
        return run_now(frozen, seen, (self.clock.now() - run.started_at).total_seconds())


@pytest.fixture
def two(tmp_path: Path) -> Two:
    return Two(tmp_path)


@pytest.mark.parametrize(
    ("vessels", "acts"),
    [((), 16), (("pot-heavy", "bowl", "glass-bowl"), 45)],
    ids=["a bowl for each", "two bowls"],
)
def test_what_is_left_is_arranged_at_any_moment_and_kept_as_the_checker_says(
    tmp_path: Path, vessels: tuple[str, ...], acts: int
) -> None:
    two, checked = Two(tmp_path, vessels), 0
    while two.go_on(acts):
        rest, ways = two.rest(), two.ways()
        assert set(ways) - {"without_spares", "colder"} == {"as_it_goes", "rearranged", "help"}
        now = bench.view(two.runs, "led", WREN)
        poured = {r.number: r.poured_s for r in two.runs.look("led")[2].state.rounds}
        for way in ways.values():
            # what is poured stays where it was, the rest comes from now on
            for pour in way.pours:
                was = poured[pour.round]
                assert (
                    pour.at_s == pytest.approx(was, abs=1) if was is not None else pour.at_s >= now.elapsed_s - 2
                )
            assert way.ends_s >= now.elapsed_s - 2 or not rest.day.done
            if way.how in ("rearranged", "help"):
                going = ways["as_it_goes"]
                better = way.ends_s <= going.ends_s - 60 or len(way.lost) < len(going.lost)
                assert way.offered == better
        try:
            table = at_once(rest.day)
        except OutOfRange:
            continue
        checked += 1
        assert broken(rest.day, table) == []
        if checked % 4 == 1:
            # the solver goes on from it, with what is in the vessels as it is
            assert Model(rest.day, table, USUAL).solved(0.02, around=True)[0] is not None
            assert broken(rest.day, improved(rest.day, table, [0.05] * 3, lambda _: True).table) == []
    assert checked > 70 / acts


def test_a_day_that_goes_as_planned_ends_as_planned(two: Two) -> None:
    two.go_on(12)
    # this hand takes no time for what it does, and waits for what it has to
    assert two.ways()["as_it_goes"].ends_s <= two.plan.table.end_s(two.plan.day.day) + 600
    table = shifted(two.rest(), two.plan.table)
    assert table is not None and broken(two.rest().day, table) == []


def test_a_search_finds_no_worse_order_and_it_is_the_one_that_is_offered(two: Two) -> None:
    two.go_on(20)
    before = two.ways()["rearranged"].ends_s
    found = {way.how: way for way in two.onwards.search("led", 2.0).ways}
    assert found["rearranged"].ends_s <= before
    assert found["as_it_goes"] == two.ways()["as_it_goes"]
    assert two.ways()["rearranged"] == found["rearranged"]


def test_nothing_is_heated_in_the_past(two: Two) -> None:
    two.go_on(20)
    day = two.rest().day
    table = at_once(day)
    heated = next(n for n, heat in enumerate(table.heats) if day.there(heat.melt) is None)
    sooner = replace(table.heats[heated], start_s=day.from_s - 1)
    wrong = replace(table, heats=(*table.heats[:heated], sooner, *table.heats[heated + 1 :]))
    assert Broken("before the start", (sooner.melt,)) in broken(day, wrong)


def test_what_is_only_spare_may_be_left_out_at_its_price(two: Two) -> None:
    two.go_on(50)
    ways = two.ways()
    without = ways["without_spares"]
    assert without.ends_s < ways["as_it_goes"].ends_s - 600
    frozen = two.runs.look("led")[1]
    for of in without.spared:
        line = next(line for line in frozen.plan.lines if line.last and line.named == of.named)
        # of none to spare all have to come out well: of the first so many of Beta(1, b) that is b / (b + n)
        if two.runs.look("led")[2].state.good(frozen.plan.lines.index(line)) == 0:
            beta = 19 + line.break_rate.good
            assert of.then_frac == pytest.approx(beta / (beta + line.quantity), rel=1e-6)
        assert of.then_frac < of.sure_frac
    rounds = [n for of in without.spared for n in of.rounds]
    two.tell("left_out", rounds=rounds)
    two.tell("rearranged", pours=[asdict(p) for p in without.pours], whose=[asdict(of) for of in without.whose])
    left = two.ways()
    assert "without_spares" not in left and left["as_it_goes"].ends_s == pytest.approx(without.ends_s, abs=600)
    with pytest.raises(CoreError, match="left out"):
        two.tell("poured", round=rounds[0])
    assert not two.go_on(MOST_ACTS)
    state = two.runs.look("led")[2].state
    assert all((r.poured_s is None) == (r.number in rounds) for r in state.rounds)
    assert missing(frozen.plan, state) == {}


def test_what_is_begun_or_half_a_casting_is_not_left_out(two: Two) -> None:
    two.go_on(50)
    poured = next(r.number for r in two.runs.look("led")[2].state.rounds if r.poured_s is not None)
    with pytest.raises(CoreError, match="begun"):
        two.tell("left_out", rounds=[poured])
    passes = max((of.rounds for of in two.ways()["without_spares"].spared), key=len)
    assert len(passes) > 1
    for some in (passes[:1], passes[1:]):
        with pytest.raises(CoreError, match="all its passes"):
            two.tell("left_out", rounds=list(some))


def test_what_stands_may_go_into_the_cold(two: Two) -> None:
    offered = 0
    while two.go_on(5):
        _, frozen, seen, _ = two.runs.look("led")
        run = two.now()
        now = run.now_s
        cold = chilled(
            run,
            frozen.places,
            lambda n, p, f=frozen, s=seen, at=now: track_of_round(f, s, n, (at, p)),  # type: ignore[misc]
        )
        for c in cold:
            offered += 1
            was = seen.rounds[c.round].windows["unmould"][0].high
            assert c.place == "freezer" and was - c.sooner_s == pytest.approx(max(c.out_s, now))
            two.tell("moved", round=c.round, place=c.place)
            there = two.runs.look("led")[2].rounds[c.round].windows
            assert there["unmould"][0].high == pytest.approx(c.out_s, abs=2)
            if "over_chilled" in there:
                assert there["over_chilled"][0].low > c.out_s
    assert offered > 2


def test_what_was_chosen_is_gone_by(two: Two) -> None:
    two.go_on(60)
    way = two.ways()["rearranged"]
    due = [pour.round for pour in sorted(way.pours, key=lambda pour: pour.at_s)]
    two.tell("rearranged", pours=[asdict(p) for p in way.pours], whose=[asdict(of) for of in way.whose])
    # from then on that is how it is going, and nothing better is left to offer
    assert two.look().sooner_s == 0
    assert two.ways()["as_it_goes"].ends_s == pytest.approx(way.ends_s, abs=60)
    state = two.runs.look("led")[2].state
    assert state.planned == {pour.round: pour.at_s for pour in way.pours}
    hers = {(of.done, of.number): of.who for of in way.whose}
    for act in bench.view(two.runs, "led", WREN).acts:
        if act.subject.of == "round" and (act.what.kind, act.subject.number) in hers:
            assert act.who == hers[act.what.kind, act.subject.number]
    assert not two.go_on(MOST_ACTS)
    at = {r.number: r.poured_s for r in two.runs.look("led")[2].state.rounds}
    late = {pour.round: (at[pour.round] or 0.0) - pour.at_s for pour in way.pours}
    # hands that take no time are not far behind it, and all of it is poured
    assert len(at) == len(due) and max(late.values()) < 3600


def test_whoever_leaves_is_asked_for_nothing_and_the_rest_is_arranged_without_her(two: Two) -> None:
    two.go_on(40)
    before = two.ways()
    assert any(of.who == SOL for of in before["as_it_goes"].whose)
    two.tell("went", person=SOL, away=True)
    assert bench.view(two.runs, "led", WREN).gone == (SOL,)
    alone = two.ways()
    assert all(of.who != SOL for way in alone.values() for of in way.whose)
    assert alone["as_it_goes"].ends_s >= before["as_it_goes"].ends_s
    assert alone["help"].ends_s < alone["as_it_goes"].ends_s
    assert all(act.who != SOL for act in bench.view(two.runs, "led", WREN).acts)
    two.tell("went", person=SOL, away=False)
    assert any(act.who == SOL for act in bench.view(two.runs, "led", WREN).acts)
    two.tell("went", person=SOL, away=True)
    two.there = [WREN]
    assert not two.go_on(MOST_ACTS)
