"""What is left of a run may be arranged anew at any moment, for whoever is there, and the run goes by it to its end."""

from dataclasses import asdict
from pathlib import Path

import pytest

from tests.services.test_led import MOST_ACTS, SOL, Hand
from umber_pebble.core.bench.onward import How
from umber_pebble.core.bench.rest_of_day import Rest, rest_of_day
from umber_pebble.core.errors import OutOfRange
from umber_pebble.core.plan.compile import compile_plan
from umber_pebble.core.plan.day.check import broken
from umber_pebble.core.plan.day.search import at_once
from umber_pebble.core.plan.timetable import round_numbers
from umber_pebble.demo.fill import WREN
from umber_pebble.services import bench
from umber_pebble.services.documents import Order
from umber_pebble.services.going_on import GoingOn, Onwards, WayOn


class Two(Hand):
    """Both do what the bench shows each first, the one who may sooner; ways to go on are looked at meanwhile."""

    def __init__(self, folder: Path) -> None:
        super().__init__(folder, None)
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
        _, _, seen, _ = self.runs.look("led")
        now = (self.clock.now() - self.runs.look("led")[0].started_at).total_seconds()
        numbers = round_numbers(self.plan.day, self.plan.table)
        return rest_of_day(self.plan.day, numbers, seen.cooks, seen.state, (self.plan.fares.start_s, now))


@pytest.fixture
def two(tmp_path: Path) -> Two:
    return Two(tmp_path)


def test_what_is_left_is_arranged_at_any_moment_and_kept_as_the_checker_says(two: Two) -> None:
    checked = 0
    while two.go_on(9):
        rest, ways = two.rest(), two.ways()
        assert set(ways) == {"as_it_goes", "rearranged", "help"}
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
        try:
            table = at_once(rest.day)
        except OutOfRange:
            continue
        checked += 1
        assert broken(rest.day, table) == []
    assert checked > 8


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
