"""Two at once: the same event twice, two savers, a listener that falls behind."""

import threading
from collections.abc import Callable
from pathlib import Path

import pytest

from tests.conftest import at_level
from tests.plans import plan_order
from tests.services.test_runs import WREN, Hands
from umber_pebble.config import Config
from umber_pebble.demo.fill import fill
from umber_pebble.demo.pieces import PIECES
from umber_pebble.services import bench, logbook
from umber_pebble.services.clock import DrivenClock
from umber_pebble.services.errors import Stale
from umber_pebble.services.new_event import NewEvent
from umber_pebble.services.runs import RunService
from umber_pebble.services.start import open_workshop
from umber_pebble.services.workshop import Workshop


def at_once(work: Callable[[int], None], hands: int) -> None:
    gate = threading.Barrier(hands)

    def start(i: int) -> None:
        gate.wait()
        work(i)

    threads = [threading.Thread(target=start, args=(i,)) for i in range(hands)]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()


def test_the_same_event_from_eight_hands_counts_once(stocked: Workshop) -> None:
    hands = Hands(stocked)
    found: list[int] = []
    event = NewEvent("one", "acknowledged", {}, WREN, "test", None, 1)
    at_once(lambda _: found.append(hands.runs.add("run", event)[0].seq), 8)
    assert found == [2] * 8
    assert len(hands.runs.look("run")[3]) == 2


def test_different_events_at_once_get_one_number_each(stocked: Workshop) -> None:
    hands = Hands(stocked)

    def tell(i: int) -> None:
        hands.runs.add("run", NewEvent(f"n{i}", "note", {"text": str(i)}, WREN, "test", None, 1))

    at_once(tell, 8)
    assert [e.seq for e in hands.runs.look("run")[3]] == list(range(1, 10))


def test_of_two_saves_from_the_same_version_one_is_stale(stocked: Workshop) -> None:
    outcome: list[str] = []

    def save(i: int) -> None:
        try:
            doc = at_level(PIECES["piece-disc"], 0.002 + i / 10_000)
            stocked.save("piece", "piece-disc", 1, doc)
            outcome.append("saved")
        except Stale:
            outcome.append("stale")

    at_once(save, 4)
    assert sorted(outcome) == ["saved", "stale", "stale", "stale"]
    assert stocked.get("piece", "piece-disc").version == 2


def test_the_demo_is_filled_once_and_has_something_to_say(tmp_path: Path) -> None:
    config = Config(tmp_path, driven_clock=True)
    fill(config)
    fill(config)
    workshop = open_workshop(config)
    runs = RunService(workshop)
    [summary] = logbook.summaries(runs)
    assert (summary.cast, summary.unusable) == (24, 2)
    log = logbook.read(runs, summary.id)
    assert log.vessels[0].loss.value.likely == pytest.approx(
        0.9, abs=0.06
    )  # the rehearsal's pot loses a tenth less
    assert log.lines[0].next_casts.value.likely >= 24
    assert bench.rail(runs, WREN) is None
    assert len(workshop.all("order")) == 20
    kinds = [{line.piece_id for line in stored.doc.lines} for stored in workshop.all("order")]  # type: ignore[attr-defined]
    assert max(len(of) for of in kinds) == 12
    for stored in workshop.all("order"):
        plan = plan_order(workshop, stored.doc)  # type: ignore[arg-type]
        assert plan.cooks or plan.problem.by_hand
    workshop.engine.dispose()


def test_a_pot_too_stiff_is_warmed_again_and_poured(stocked: Workshop) -> None:
    hands = Hands(stocked)
    hands.do("acknowledged")
    hands.do("heated", 100, cook=0)
    hands.do("rested", 200, cook=0, degc=160.0)
    hands.clock.drive(2400, None)
    first = bench.view(hands.runs, "run", WREN)
    assert first.acts[0].what.kind == "warm"
    now = first.ribbons[0].now_degc.likely
    hands.do("heated", 10, cook=0, degc=now)
    again = bench.view(hands.runs, "run", WREN)
    assert again.ribbons[0].phase == "heating"
    # it starts from where it was, so it takes less than from the cold
    assert again.acts[0].opens_s - again.elapsed_s < 150
    hands.do("rested", 90, cook=0, degc=158.0)
    hands.do("poured", 200, round=0)
    view = bench.view(hands.runs, "run", WREN)
    assert {(r.subject.of, r.subject.number) for r in view.ribbons} == {("pot", 0), ("round", 0)}


def test_moving_a_round_to_the_slab_brings_its_window_forward(stocked: Workshop) -> None:
    hands = Hands(stocked)
    hands.pour_first()

    def unmould() -> float:
        acts = bench.view(hands.runs, "run", WREN).acts
        return next(a.opens_s for a in acts if a.what.kind == "unmould" and not a.forecast)

    before = unmould()
    moved = hands.do("moved", 20, round=0, place="slab")
    assert unmould() < before - 60
    hands.do("cancels", 5, id=moved)
    assert unmould() == pytest.approx(before)


def test_a_run_goes_on_in_a_new_process_at_the_same_second(stocked: Workshop, tmp_path: Path) -> None:
    hands = Hands(stocked)
    hands.pour_first()
    before = bench.view(hands.runs, "run", WREN)
    again = open_workshop(Config(tmp_path), DrivenClock(stocked.clock.now()))
    after = bench.view(RunService(again), "run", WREN)
    again.engine.dispose()
    assert after == before
