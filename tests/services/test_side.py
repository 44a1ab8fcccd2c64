"""What is told beside the acts: failed castings that are mended or counted again are not cast again, and timers ring until they are heard."""

from pathlib import Path

import pytest

from tests.services.test_led import MOST_ACTS, WREN, Hand
from umber_pebble.core.bench.again import missing
from umber_pebble.core.errors import NotInSequence
from umber_pebble.core.log.learn import counted
from umber_pebble.services import bench


def all_poured(folder: Path, breaks: int) -> tuple[Hand, int]:
    """A hand at the end of ringed planets, of whose first round so many broke; it is asked whether to cast again."""
    hand = Hand(folder, "order-planets")
    _, frozen, _, _ = hand.runs.look("led")
    first = frozen.cooks[0].rounds[0]
    hand.breaks = {first.number: breaks}
    for _ in range(MOST_ACTS):
        if bench.view(hand.runs, "led", WREN).acts[0].what.kind in ("again", "end"):
            return hand, first.number
        hand.step()
    raise AssertionError("it never comes to its end")


def short(hand: Hand) -> dict[int, int]:
    _, frozen, seen, _ = hand.runs.look("led")
    return missing(frozen.plan, seen.state)


def test_what_is_mended_is_not_cast_again_and_has_broken_all_the_same(tmp_path: Path) -> None:
    hand, number = all_poured(tmp_path, 6)
    line = next(iter(short(hand)))
    owed = short(hand)[line]
    with pytest.raises(NotInSequence, match="recorded as failed"):
        hand.tell("mended", round=number, cavities=[0, 6], how="torch")
    hand.tell("mended", round=number, cavities=[0, 1], how="torch")
    assert short(hand).get(line, 0) == owed - 2
    hand.tell("mended", round=number, cavities=[2, 3, 4, 5], how="same melt")
    assert short(hand) == {}
    view = bench.view(hand.runs, "led", WREN)
    assert view.acts[0].what.kind == "end"
    assert all(of.good >= of.wanted for of in view.castings)
    # how fragile the piece is, is not mended
    assert counted(hand.runs.look("led")[2].state)[number][0] == 6
    # what breaks once more is owed again
    hand.tell("outcome", round=number, cavities=[0], usable=False, kinds=["broken"])
    assert hand.runs.look("led")[2].state.rounds[number].failed == 1


def test_what_is_counted_again_holds_and_what_comes_after_is_added(tmp_path: Path) -> None:
    hand, number = all_poured(tmp_path, 4)
    line = next(iter(short(hand)))
    wanted = hand.runs.look("led")[1].plan.lines[line].quantity
    hand.tell("counted", line=line, good=wanted - 1)
    assert short(hand) == {line: 1}
    hand.tell("mended", round=number, cavities=[1], how="warmed face")
    assert short(hand) == {}
    hand.tell("cancels", id=f"led-{hand.count}")
    assert short(hand) == {line: 1}
    hand.tell("counted", line=line, good=wanted)
    assert bench.view(hand.runs, "led", WREN).acts[0].what.kind == "end"


def test_a_timer_calls_until_it_is_heard(tmp_path: Path) -> None:
    hand = Hand(tmp_path, "order-planets")
    hand.tell("timer", name="Towel off the bag", seconds=240.0)
    (timer,) = bench.view(hand.runs, "led", WREN).timers
    (call,) = (of for of in bench.view(hand.runs, "led", WREN).calls if of.window == "timer")
    assert (timer.name, call.at_s) == ("Towel off the bag", timer.rings_s)
    # a pause stops the calls of the run, not what somebody set for herself
    hand.tell("paused")
    assert [of.window for of in bench.view(hand.runs, "led", WREN).calls] == ["timer"]
    hand.tell("resumed")
    hand.wait(300.0)
    assert len(bench.view(hand.runs, "led", WREN).timers) == 1
    hand.tell("timer", timer=0, over=True)
    view = bench.view(hand.runs, "led", WREN)
    assert view.timers == [] and all(of.window != "timer" for of in view.calls)
    with pytest.raises(NotInSequence, match="over already"):
        hand.tell("timer", timer=0, over=True)
