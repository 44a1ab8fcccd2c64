"""Runs: frozen at the start, told by events, nothing lost or doubled."""

import time
from dataclasses import replace
from datetime import timedelta
from typing import Any

import pytest

from tests.conftest import at_level
from tests.plans import plan_order
from umber_pebble.core.errors import MouldTooWeak, NotInSequence, OutOfRange
from umber_pebble.core.materials.load import material
from umber_pebble.core.pieces.melt_ref import MeltRef
from umber_pebble.demo.moulds import MOULDS
from umber_pebble.demo.pieces import PIECES
from umber_pebble.services import bench, logbook
from umber_pebble.services.clock import DrivenClock, SteadyClock
from umber_pebble.services.documents import Mould, Order, OrderLine
from umber_pebble.services.errors import IdReused, InUse, Stale
from umber_pebble.services.new_event import NewEvent
from umber_pebble.services.piece_docs import Part
from umber_pebble.services.runs import RunService
from umber_pebble.services.way_docs import CookedWay, MeltedWay
from umber_pebble.services.workshop import Workshop
from umber_pebble.store import queries

WREN = "Wren"


ISOMALT: dict[str, Any] = {
    "vessel_id": "pot-heavy",
    "stand_id": "bench",
    "ring_id": "ring-left",
    "place_id": "bench",
    "crystalline": True,
    "water": "auto",
    "cook_degc": 160.0,
}
COATING = MeltedWay(
    kind="melted",
    vessel_id="bowl",
    stand_id="bench",
    by_id="microwave",
    place_id="fridge",
    melt_to_degc=43.0,
    power="full",
    stop="through",
)


def order(workshop: Workshop, isomalt: dict[str, Any] | None = None, **changes: Any) -> Order:
    base: dict[str, Any] = {
        "name": "Test night",
        "due_at": workshop.clock.now() + timedelta(hours=6),
        "lines": [OrderLine(piece_id="piece-disc", quantity=24)],
        "vessels": [],
        "ways": {"isomalt": CookedWay(kind="cooked", **{**ISOMALT, **(isomalt or {})}), "coating": COATING},
        "confidence_frac": 0.9,
        "reserve_frac": 0.05,
    }
    return Order(**{**base, **changes})


def _smaller(mould: Mould) -> Mould:
    return mould.model_copy(update={"cavities": [mould.cavities[0].model_copy(update={"count": 3})]})


class Hands:
    """Somebody at the bench of a run, with a clock that moves when told."""

    def __init__(self, workshop: Workshop, run: str = "run", order_id: str = "order") -> None:
        self.runs, self.run, self.count = RunService(workshop), run, 0
        assert isinstance(workshop.clock, DrivenClock)
        self.clock = workshop.clock
        self.runs.start(run, order_id, WREN, "test")

    def do(self, kind: str, after_s: float = 0.0, **payload: Any) -> str:
        self.count += 1
        self.clock.drive(after_s, None)
        event_id = f"{self.run}-{self.count}"
        self.runs.add(self.run, NewEvent(event_id, kind, payload, WREN, "test", None, 1))
        return event_id

    def pour_first(self) -> None:
        self.do("acknowledged", 10)
        self.do("heated", 100, cook=0)
        self.do("rested", 200, cook=0, degc=160.0)
        self.do("reading", 60, cook=0, degc=152.0, method="immersed_swirled")
        self.do("poured", 60, round=0)


def test_a_run_keeps_what_it_started_with(stocked: Workshop) -> None:
    hands = Hands(stocked)
    before = hands.runs.look("run")[1].cooks[0].charge_kg
    mould = stocked.get("mould", "mould-disc")
    stocked.save("mould", "mould-disc", mould.version, _smaller(MOULDS["mould-disc"]))
    again = RunService(stocked).look("run")[1]
    assert again.cooks[0].charge_kg == before
    assert again.plan.lines[0].mould.cavities == 14


def test_sending_twice_counts_once_and_an_id_is_not_reused(stocked: Workshop) -> None:
    hands = Hands(stocked)
    event = NewEvent("same", "acknowledged", {}, WREN, "test", None, 1)
    first, second = hands.runs.add("run", event), hands.runs.add("run", event)
    assert first[0].seq == second[0].seq == 2
    with pytest.raises(IdReused):
        hands.runs.add("run", NewEvent("same", "note", {"text": "other"}, WREN, "test", None, 1))
    assert hands.runs.start("run", "order", WREN, "test").id == "run"
    with pytest.raises(InUse, match="live"):
        hands.runs.start("other", "order", WREN, "test")


def test_refused_events_leave_no_trace(stocked: Workshop) -> None:
    hands = Hands(stocked)
    with pytest.raises(NotInSequence):
        hands.do("poured", round=0)
    with pytest.raises(OutOfRange):
        hands.do("note", text="")
    assert len(hands.runs.look("run")[3]) == 1


def test_late_events_are_placed_and_never_in_the_future(stocked: Workshop) -> None:
    hands = Hands(stocked)
    hands.do("acknowledged")
    hands.do("heated", 100, cook=0)
    hands.do("rested", 200, cook=0, degc=160.0)
    now = hands.clock.now()
    for name, when in (("early", now - timedelta(seconds=90)), ("future", now + timedelta(hours=1))):
        payload = {"cook": 0, "degc": 90.0, "method": "immersed_swirled"}
        hands.runs.add("run", NewEvent(name, "reading", payload, WREN, "test", when, 1))
    state = hands.runs.look("run")[2].state
    assert [r.id for r in state.cooks[0].readings] == ["early"]
    assert state.cooks[0].rests[0].readings[0].at_s == pytest.approx(300.0)


@pytest.mark.parametrize(("holder", "degc"), [("bag", 150.0), ("bag", 80.0), ("bowl", 150.0)])
def test_no_hot_sugar_into_what_does_not_bear_it(stocked: Workshop, holder: str, degc: float) -> None:
    hands, bears = Hands(stocked), material("kitchen", holder, "holder").value("bears")
    hands.do("acknowledged", 10)
    hands.do("heated", 100, cook=0)
    hands.do("rested", 700, cook=0, degc=degc)
    into = [{"name": "Bag", "holder": holder, "spot": "air", "kg": 0.05}]
    if degc > bears:
        with pytest.raises(OutOfRange, match="bears"):
            hands.do("decanted", 5, cook=0, into=into)
        into = [{**into[0], "holder": "jug"}]
    hands.do("decanted", 5, cook=0, into=into)
    assert len(hands.runs.look("run")[2].state.batches) == 1


def test_a_pour_hotter_than_the_mould_bears_is_refused(stocked: Workshop) -> None:
    tender = MOULDS["mould-disc"].model_copy(update={"bears_degc": 140.0})
    mould = stocked.get("mould", "mould-disc")
    stocked.save("mould", "mould-disc", mould.version, tender)
    hands = Hands(stocked)
    hands.do("acknowledged")
    hands.do("heated", 100, cook=0)
    hands.do("rested", 200, cook=0, degc=160.0)
    with pytest.raises(MouldTooWeak, match="bears 140"):
        hands.do("poured", 20, round=0)
    hands.do("poured", 400, round=0)
    weak = MOULDS["mould-disc"].model_copy(update={"material": "thermoformed", "bears_degc": 65.0})
    mould = stocked.get("mould", "mould-disc")
    stocked.save("mould", "mould-disc", mould.version, weak)
    with pytest.raises(MouldTooWeak, match="silicone or metal"):
        plan_order(stocked, order(stocked))


def test_a_whole_run_teaches_the_next_plan(stocked: Workshop) -> None:
    before = plan_order(stocked, order(stocked))
    hands = Hands(stocked)
    hands.pour_first()
    hands.do("unmoulded", 1200, round=0)
    for cavity in range(14):
        hands.do(
            "outcome", 1, round=0, cavities=[cavity], usable=cavity > 3, kinds=[] if cavity > 3 else ["broken"]
        )
    hands.do("ended", 60, left_kg={"pot-heavy": 0.06})
    log = logbook.read(hands.runs, "run")
    line = log.lines[0]
    assert (line.cast, line.unusable, line.flaws) == (14, 4, {"broken": 4})
    after = plan_order(stocked, order(stocked))
    assert after.casts[0] == line.next_casts.value.likely > before.casts[0]
    assert log.vessels[0].loss.value.high - log.vessels[0].loss.value.low < 0.9 * (
        log.vessels[0].loss_before.high - log.vessels[0].loss_before.low
    )
    assert log.coolings[0].dots[0].degc == 152.0
    # an outcome corrected in the log afterwards is learned anew, not twice
    hands.do("outcome", 5, round=0, cavities=[0], usable=True, kinds=[])
    with stocked.session() as session:
        [row] = queries.calibrations(session, "break", "isomalt:mould-disc:0")
        assert row.evidence == {"broken": 3, "good": 11}


def test_what_a_run_still_owes_is_ordered_with_a_day_to_make_it(stocked: Workshop) -> None:
    hands = Hands(stocked)
    hands.pour_first()
    hands.do("unmoulded", 1200, round=0)
    hands.do("outcome", 1, round=0, cavities=list(range(10)), usable=True, kinds=[])
    wanted = stocked.get("order", "order").doc
    assert isinstance(wanted, Order)
    owed = logbook.plan_what_is_left(hands.runs, "run", "rest").doc
    assert isinstance(owed, Order)
    assert owed.lines[0].quantity == wanted.lines[0].quantity - 10
    # what is due later stays due then; what was due has a day
    assert owed.due_at == wanted.due_at
    hands.clock.drive((wanted.due_at - hands.clock.now()).total_seconds() - 600.0, None)
    late = logbook.plan_what_is_left(hands.runs, "run", "late").doc
    assert isinstance(late, Order)
    assert (late.due_at - hands.clock.now()).total_seconds() == pytest.approx(86_400.0)


def test_bench_view_marks_what_is_hot(stocked: Workshop) -> None:
    hands = Hands(stocked)
    hands.pour_first()
    view = bench.view(hands.runs, "run", WREN)
    assert [r.hot for r in view.ribbons] == [True, True]
    hands.clock.drive(3 * 3600, None)
    assert [r.hot for r in bench.view(hands.runs, "run", WREN).ribbons] == [False, False]
    assert bench.view(hands.runs, "run", "Sol").acts[0].what.kind == "acknowledge"


def test_a_stale_save_changes_nothing_and_gives_both_states(stocked: Workshop) -> None:
    piece = stocked.get("piece", "piece-disc")
    mine = at_level(PIECES["piece-disc"], 0.003)
    theirs = at_level(PIECES["piece-disc"], 0.005)
    stocked.save("piece", "piece-disc", piece.version, theirs)
    with pytest.raises(Stale) as refused:
        stocked.save("piece", "piece-disc", piece.version, mine)
    assert refused.value.params["stored"]["parts"][0]["passes"][0]["level_m"] == 0.005
    assert refused.value.params["sent"]["parts"][0]["passes"][0]["level_m"] == 0.003
    assert stocked.get("piece", "piece-disc").doc == theirs


def bent_coating() -> Part:
    [part] = PIECES["piece-lens"].parts
    fill = replace(part.passes[0], melt=MeltRef("coating", None))
    return part.model_copy(update={"passes": [fill]})


def test_things_in_use_stay_and_impossible_ones_are_not_saved(stocked: Workshop) -> None:
    mould, piece = stocked.get("mould", "mould-disc"), stocked.get("piece", "piece-disc")
    with pytest.raises(InUse, match="Star-glass disc"):
        stocked.remove("mould", "mould-disc", mould.version)
    stocked.save("piece", piece.id, piece.version, at_level(PIECES["piece-disc"], 0.02))
    with pytest.raises(OutOfRange, match="above the rim"):
        plan_order(stocked, order(stocked))
    # an id is one thing's, whatever its kind; the same sent again is the same
    with pytest.raises(InUse, match="this id is taken"):
        stocked.create("piece", "mould-disc", PIECES["piece-disc"])
    assert stocked.create("mould", "mould-disc", mould.doc).version == mould.version
    chocolate = PIECES["piece-lens"].model_copy(update={"parts": [bent_coating()]})
    with pytest.raises(OutOfRange, match="only sugar bends"):
        stocked.create("piece", "bent", chocolate)
    with pytest.raises(OutOfRange, match="due time has passed"):
        stocked.create("order", "late", order(stocked, due_at=stocked.clock.now() - timedelta(minutes=1)))
    assert stocked.get("piece", piece.id).version == piece.version + 1


def test_the_clock_does_not_step(monkeypatch: pytest.MonkeyPatch) -> None:
    clock = SteadyClock()
    before = clock.now()
    monkeypatch.setattr(time, "time", lambda: 0.0)
    assert timedelta(0) <= clock.now() - before < timedelta(seconds=1)
    assert SteadyClock(not_before=before + timedelta(days=1)).now() >= before + timedelta(days=1)
