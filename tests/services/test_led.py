"""A hand that only ever does the first act of the bench comes to the end of any order, and nothing is joined before it is cast."""

from pathlib import Path

import colour as colour_science
import pytest

from tests.conftest import START
from tests.plans import plan_order
from umber_pebble.config import Config
from umber_pebble.core.bench.act_kinds import End, Outcomes, Read, StirOn, Temper, Weigh
from umber_pebble.core.bench.subject import Subject
from umber_pebble.core.plan.checks import remarks_of
from umber_pebble.core.plan.problem import MeltWay
from umber_pebble.demo.fill import WREN, fill
from umber_pebble.services import bench
from umber_pebble.services.clock import DrivenClock
from umber_pebble.services.documents import Kitchen, Order
from umber_pebble.services.foresight import Foresight
from umber_pebble.services.new_event import NewEvent
from umber_pebble.services.runs import RunService
from umber_pebble.services.start import open_workshop
from umber_pebble.services.workshop import KITCHEN_ID

MOST_ACTS = 900
SOL = "Sol"


def first(view: bench.BenchView) -> bench.ActView:
    """What comes first; a reading is wished for, and this hand takes none."""
    return next(act for act in view.acts if not isinstance(act.what, Read))


class Hand:
    """One person who does what comes first."""

    def __init__(self, folder: Path, order: str | None) -> None:
        config = Config(folder, driven_clock=True)
        fill(config, START)
        workshop = self.workshop = open_workshop(config)
        assert isinstance(workshop.clock, DrivenClock)
        self.clock, self.runs, self.count = workshop.clock, RunService(workshop), 0
        self.done: list[tuple[str, Subject]] = []
        self.elapsed_s = 0.0
        self.breaks: dict[int, int] = {}
        self.who = WREN
        if order is not None:
            self.start(order)

    def have_only(self, *vessels: str) -> None:
        """A kitchen with these vessels and no others."""
        stored = self.workshop.get("kitchen", KITCHEN_ID)
        assert isinstance(stored.doc, Kitchen)
        kept = [v for v in stored.doc.vessels if v.id in vessels]
        self.workshop.save("kitchen", KITCHEN_ID, stored.version, stored.doc.model_copy(update={"vessels": kept}))

    def start(self, order: str) -> None:
        self.runs.start("led", order, WREN, "studio")

    def tell(self, kind: str, /, **payload: object) -> None:
        self.count += 1
        self.runs.add("led", NewEvent(f"led-{self.count}", kind, dict(payload), self.who, "studio", None, 1))

    def wait(self, seconds: float) -> None:
        self.clock.drive(max(seconds, 0.0), None)

    def step(self) -> bool:
        view = bench.view(self.runs, "led", self.who)
        self.elapsed_s = view.elapsed_s
        act = first(view)
        self.wait(min(act.opens_s - view.elapsed_s, 4 * 3600) + 1.0)
        self.done.append((act.what.kind, act.subject))
        if isinstance(act.what, End):
            self.tell("ended", left_kg={})
            return False
        self.do(act)
        return True

    def do(self, act: bench.ActView) -> None:
        number = act.subject.number
        if isinstance(act.what, Outcomes):
            casts = list(range(act.what.casts))
            broken = self.breaks.pop(number, 0)
            if broken:
                self.tell("outcome", round=number, cavities=casts[:broken], usable=False, kinds=["broken"])
            if casts[broken:]:
                self.tell("outcome", round=number, cavities=casts[broken:], usable=True, kinds=[])
        elif isinstance(act.what, StirOn):
            self.tell("rested", cook=number, degc=38.0)
        elif isinstance(act.what, Temper):
            # one look at the bench's own steps is enough elsewhere: here it is in temper at once
            self.tell("tempered", cook=number, smear=True)
            self.wait(300.0)
            self.tell("tempered", cook=number, test="well")
        else:
            assert act.tells is not None, act.what
            self.tell(act.tells.kind, **act.tells.payload)


def _by_subject(acts: list[tuple[str, Subject]]) -> dict[Subject, list[str]]:
    out: dict[Subject, list[str]] = {}
    for kind, subject in acts:
        # this hand tempers in one step, and what a bowl then needs is another; one that is warmed again comes off again
        if kind not in ("read", "temper", "burst", "warm") and out.get(subject, [""])[-1] != kind:
            out.setdefault(subject, []).append(kind)
    return out


@pytest.mark.parametrize("order", ["order-domes", "order-dips", "order-table"])
def test_the_acts_lead_to_the_end_of_an_order(tmp_path: Path, order: str) -> None:
    hand = Hand(tmp_path, order)
    foresight = Foresight(hand.runs)
    while not (told := foresight.ahead("led", WREN)).whole:
        pass
    ahead = told.links
    for _ in range(MOST_ACTS):
        if not hand.step():
            break
    assert hand.done[-1][0] == "end"
    # what a bench that cannot ask goes by was the same from the beginning, and as long
    foretold, done = (_by_subject(of) for of in ([(x.act.what.kind, x.act.subject) for x in ahead], hand.done))
    assert (ahead[-1].act.what.kind, foretold) == ("end", done)
    # this hand's tempering takes as long as it takes, not as long as it cools
    tempers = any(cook.tempering for cook in hand.runs.look("led")[1].cooks)
    assert ahead[-1].at_s == pytest.approx(hand.elapsed_s, rel=0.25 if tempers else 0.05)
    run, frozen, seen, _ = hand.runs.look("led")
    assert run.ended_at is not None
    # every piece of the demo, its thinnest leaf too, can be poured at all
    stored = hand.workshop.get("order", order).doc
    assert isinstance(stored, Order)
    assert "window_never" not in {w.code for w in remarks_of(plan_order(hand.workshop, stored))}
    state = seen.state
    assert all(r.poured_s is not None for r in state.rounds)
    assert set(state.made) == set(range(len(frozen.plan.by_hand)))
    # nothing is warmed again before anything was poured of it
    assert all(rest.poured for cook in state.cooks for rest in cook.rests)
    for r in state.rounds:
        line = frozen.plan.lines[r.line]
        under = [other for other in state.rounds if other.line in line.needs]
        assert all(
            u.unmoulded_s is not None and r.poured_s is not None and u.unmoulded_s <= r.poured_s for u in under
        )
        if r.on is not None:
            below = state.rounds[r.on].poured_s
            assert below is not None and r.poured_s is not None and below <= r.poured_s
            if frozen.plan.lines[state.rounds[r.on].line].kind == "swirl":
                # both melts are molten when one goes into the other's bowl
                assert state.cooks[r.cook].rests[0].off_s <= below
        assert not line.last or len(r.outcomes) == r.casts


def test_parts_that_broke_are_cast_again_before_anything_is_joined(tmp_path: Path) -> None:
    hand = Hand(tmp_path, "order-domes")
    _, frozen, _, _ = hand.runs.look("led")
    rounds = [r for cook in frozen.cooks for r in cook.rounds]
    # a whole round of panes is lost: too few for two domes
    lost = next(r for r in rounds if frozen.plan.lines[r.line].name.endswith("pane"))
    hand.breaks = {lost.number: lost.casts}
    for _ in range(MOST_ACTS):
        if not hand.step():
            break
    kinds = [kind for kind, _ in hand.done]
    assert "again" in kinds
    _, frozen, seen, _ = hand.runs.look("led")
    joins = [r for r in seen.state.rounds if frozen.plan.lines[r.line].needs]
    panes = [
        r
        for r in seen.state.rounds
        if frozen.plan.lines[r.line].name.endswith("pane") and not frozen.plan.lines[r.line].needs
    ]
    good = sum(usable for r in panes for usable, _ in r.outcomes.values())
    assert good >= 16
    last_out = max(r.unmoulded_s or 0.0 for r in panes)
    assert all(
        r.poured_s is not None and r.poured_s >= last_out for r in joins if r.number < len(seen.state.rounds)
    )


def for_two(folder: Path, order: str) -> Hand:
    hand = Hand(folder, None)
    stored = hand.workshop.get("order", order)
    assert isinstance(stored.doc, Order)
    hand.workshop.save("order", order, stored.version, stored.doc.model_copy(update={"people": [WREN, SOL]}))
    hand.start(order)
    return hand


@pytest.mark.parametrize("order", ["order-pops", "order-table"])
def test_two_people_who_do_their_own_first_act_reach_the_end(tmp_path: Path, order: str) -> None:
    hand = for_two(tmp_path, order)
    told = set()
    for _ in range(MOST_ACTS):
        mine = {who: first(bench.view(hand.runs, "led", who)) for who in (WREN, SOL)}
        # whoever may act sooner does; what both are shown is one thing that can be handed over
        hand.who = min(mine, key=lambda who: mine[who].opens_s)
        told |= {(who, act.who) for who, act in mine.items()}
        if not hand.step():
            break
    assert hand.done[-1][0] == "end"
    assert (WREN, WREN) in told and (order != "order-table" or (SOL, SOL) in told)
    state = hand.runs.look("led")[2].state
    assert all(r.poured_s is not None for r in state.rounds)


def test_a_day_for_two_is_brought_to_its_end_by_one_who_is_left_alone(tmp_path: Path) -> None:
    hand = for_two(tmp_path, "order-pops")
    for _ in range(MOST_ACTS):
        if not hand.step():
            break
    assert hand.done[-1][0] == "end"
    assert all(r.poured_s is not None for r in hand.runs.look("led")[2].state.rounds)


def test_a_bowl_is_wiped_out_where_what_was_in_it_would_show(tmp_path: Path) -> None:
    hand, inside, wiped = Hand(tmp_path, None), dict[str, MeltWay](), 0
    hand.have_only("pot-heavy", "bowl", "glass-bowl")
    hand.start("order-table")
    for _ in range(MOST_ACTS):
        act = first(bench.view(hand.runs, "led", WREN))
        if isinstance(act.what, Weigh):
            way = hand.runs.look("led")[2].cooks[act.subject.number].way
            was = inside.get(way.vessel_id)
            # as it comes goes into any colour, and light into dark; nothing else is swallowed
            follows = was is None or (
                was.melt.key == way.melt.key
                and (
                    was.colour in (None, way.colour)
                    or (way.colour is not None and lightness(was.colour) > lightness(way.colour) + 8)
                )
            )
            assert (act.what.wash is None) == follows
            wiped += not follows
            inside[way.vessel_id] = way
        if not hand.step():
            break
    assert hand.done[-1][0] == "end"
    assert wiped
    made = plan_order(hand.workshop, hand.workshop.get("order", "order-table").doc)
    assert sum(task.kind == "wash" for task in made.tasks) > 0


def lightness(colour: str) -> float:
    """L* of a colour, by colour-science."""
    srgb = [int(colour[i : i + 2], 16) / 255 for i in (1, 3, 5)]
    return float(colour_science.XYZ_to_Lab(colour_science.sRGB_to_XYZ(srgb))[0])
