"""Colours out of one pot: melted once, divided, coloured in their own vessels; planned, led to the end, and what that teaches."""

from dataclasses import replace
from pathlib import Path

import pytest

from tests.plans import plan_order
from tests.services.test_led import MOST_ACTS, Hand, first
from umber_pebble.core.bench.act_kinds import Weigh
from umber_pebble.core.bench.rest_of_day import rest_of_day
from umber_pebble.core.bench.shifted import shifted
from umber_pebble.core.plan.alternatives import DivideChange, alternatives_of, as_planned, changes_of, priced
from umber_pebble.core.plan.compile import Plan, compile_plan
from umber_pebble.core.plan.cooks import PotCook
from umber_pebble.core.plan.day.check import broken
from umber_pebble.core.plan.day.search import at_once
from umber_pebble.core.plan.lanes import lanes_of
from umber_pebble.core.plan.timetable import round_numbers
from umber_pebble.demo.fill import WREN
from umber_pebble.services import bench
from umber_pebble.services.documents import Kitchen, Order, OrderLine, Vessel
from umber_pebble.services.interpreted import run_now
from umber_pebble.services.piece_docs import Piece
from umber_pebble.services.workshop import KITCHEN_ID
from umber_pebble.store.models import Calibration


class Studio(Hand):
    """A hand in a kitchen whose orders may be changed."""

    def __init__(self, folder: Path) -> None:
        super().__init__(folder, None)

    def order(self, **changes: object) -> Order:
        stored = self.workshop.get("order", "order-table")
        assert isinstance(stored.doc, Order)
        doc = stored.doc.model_copy(update=changes)
        self.workshop.save("order", "order-table", stored.version, doc)
        return doc

    def divide(self, family: str) -> Order:
        ways = self.order().ways
        return self.order(ways={**ways, family: ways[family].model_copy(update={"divided": True})})

    def plan(self) -> Plan:
        return plan_order(self.workshop, self.order())

    def with_cups(self, count: int) -> None:
        """So many cups that bear hot sugar and go into a microwave."""
        stored = self.workshop.get("kitchen", KITCHEN_ID)
        assert isinstance(stored.doc, Kitchen)
        cups = [
            Vessel(
                id=f"silicone-{n}",
                name=f"Hot cup {n + 1}",
                made_of="silicone",
                diameter_m=0.09,
                height_m=0.08,
                mass_kg=0.06,
            )
            for n in range(count)
        ]
        doc = stored.doc.model_copy(update={"vessels": [*stored.doc.vessels, *cups]})
        self.workshop.save("kitchen", KITCHEN_ID, stored.version, doc)

    def colour(self, piece: str, hex_: str) -> None:
        stored = self.workshop.get("piece", piece)
        assert isinstance(stored.doc, Piece)
        [part] = stored.doc.parts
        [fill] = part.passes
        [melt] = fill.refs().values()
        coloured = replace(fill, melt=replace(melt, colour=hex_))  # type: ignore[call-arg]
        doc = stored.doc.model_copy(update={"parts": [part.model_copy(update={"passes": [coloured]})]})
        self.workshop.save("piece", piece, stored.version, doc)

    def led(self) -> list[bench.ActView]:
        """To the end; what was done."""
        self.start("order-table")
        done = []
        for _ in range(MOST_ACTS):
            done.append(first(bench.view(self.runs, "led", WREN)))
            if not self.step():
                break
        assert self.done[-1][0] == "end"
        return done


@pytest.fixture
def studio(tmp_path: Path) -> Studio:
    return Studio(tmp_path)


def _off_the_pot(plan: Plan) -> dict[int, PotCook]:
    """What is divided off, by its cook."""
    return {c.number: c for c in plan.cooks if c.portion_degc is not None}


def test_coloured_wafers_are_weighed_and_melted_once_and_divided(studio: Studio) -> None:
    studio.divide("coating")
    plan = studio.plan()
    assert broken(plan.day.day, plan.table) == []
    portions = _off_the_pot(plan)
    assert {c.way.colour for c in portions.values()} == {"#f1ead9", "#1f2a44", "#c98a2b", "#5b4a78"}
    # in the timetable it is said what is divided off, and no vessel stands among the moulds
    lanes = lanes_of(plan)
    assert {span.into for lane in lanes if lane.kind == "hands" for span in lane.spans} - {None} == portions.keys()
    assert {lane.id for lane in lanes if lane.kind == "mould"}.isdisjoint(
        f"vessel-{v}" for v in ("cup-1", "cup-2")
    )
    assert all(lane.spans for lane in lanes)
    [base] = [c for c in plan.cooks if c.way.melt.key == "coating" and c.way.colour is None]
    divides = {r.into: r for r in base.rounds if r.into is not None}
    assert divides.keys() == portions.keys()
    own = sum(plan.problem.lines[r.line].cast.poured.value.likely * r.casts for r in base.rounds if r.into is None)
    # what is weighed out once is what they all take, with the reserve and the film of each
    assert base.poured_kg == pytest.approx(own + sum(c.charge_kg for c in portions.values()), rel=1e-6)
    assert sum(c.fresh_kg for c in portions.values()) == 0
    weighed = {t.number for t in plan.tasks if t.kind == "weigh"}
    assert weighed.isdisjoint(portions) and base.number in weighed
    made_s = {t.number: t.start_s for t in plan.tasks if t.kind == "divide"}
    assert set(made_s) == {base.number}
    for cook in portions.values():
        # 45 g at 43 degrees into 50 g of plastic at 20, by hand: m c T over all that takes heat
        melt_j_k = cook.charge_kg * cook.way.melt.value("cp_melt")
        cup_j_k = cook.way.pot.mass_kg * cook.way.pot.metal.value("cp")
        _, window = base.pours[divides[cook.number].line]
        mixed = (melt_j_k * window.open_degc.likely + cup_j_k * plan.problem.room_degc) / (melt_j_k + cup_j_k)
        assert cook.portion_degc == pytest.approx(mixed, abs=0.1)


def test_one_by_itself_a_shared_vessel_and_what_is_in_temper_are_not_divided(studio: Studio) -> None:
    studio.divide("coating")
    two = [line for line in studio.order().lines if line.piece_id in ("piece-filled", "piece-cluster")]
    studio.order(lines=two)
    assert not _off_the_pot(studio.plan())
    assert "coating" not in studio.plan().problem.ways
    studio.have_only("bowl", "glass-bowl", "pot-heavy")
    assert not _off_the_pot(studio.plan())


def test_what_would_help_is_what_it_brings_when_it_is_chosen(studio: Studio) -> None:
    before = studio.plan()
    [change] = [of for of in changes_of(before) if isinstance(of, DivideChange)]
    assert change == DivideChange("coating", True)
    offered = priced(before, change)
    studio.divide("coating")
    after = studio.plan()
    assert offered == replace(as_planned(after), changes=(change,))
    # it takes a tenth less of hands, if not much less of the day: enough to be told
    assert offered.hands_s < 0.9 * as_planned(before).hands_s
    assert [of.changes for of in alternatives_of(before)].count((change,)) == 1
    [back] = [of for of in changes_of(after) if isinstance(of, DivideChange)]
    assert priced(after, back) == replace(as_planned(before), changes=(back,))


def test_a_hand_divides_and_colours_and_comes_to_the_end(studio: Studio) -> None:
    studio.divide("coating")
    done = studio.led()
    divided = [act for act in done if act.into]
    assert {act.into.melt.colour for act in divided if act.into} == {"#f1ead9", "#1f2a44", "#c98a2b", "#5b4a78"}
    # each is coloured where it is divided off, and nothing of it is weighed; the pot itself stays as it comes
    assert all(act.colours for act in divided)
    weighed = [act.melt.colour for act in done if isinstance(act.what, Weigh) and act.melt]
    assert weighed.count(None) == len(weighed)
    seen = studio.runs.look("led")[2]
    assert all(r.poured_s is not None for r in seen.state.rounds)


def test_a_colour_that_is_made_by_itself_after_all_is_not_divided_off(studio: Studio) -> None:
    studio.divide("coating")
    studio.start("order-table")
    _, frozen, _, _ = studio.runs.look("led")
    [portion, *_] = [c for c in frozen.cooks if c.portion_degc is not None]
    studio.tell("acknowledged")
    studio.tell("burst", cook=portion.number, seconds=30.0, power_frac=1.0)
    state = studio.runs.look("led")[2].state
    assert [r.left_out for r in state.rounds if r.into == portion.number] == [True]
    assert not any(r.left_out for r in state.rounds if r.into != portion.number)


def test_what_is_left_out_of_a_colour_leaves_it_a_portion(studio: Studio) -> None:
    studio.divide("coating")
    studio.start("order-table")
    _, frozen, seen, _ = studio.runs.look("led")
    night = next(c for c in frozen.cooks if c.way.colour == "#1f2a44")
    rounds = seen.state.rounds
    [dip] = [r.number for r in night.rounds if frozen.plan.lines[r.line].kind == "dip"]
    out = [dip, *(r.number for r in rounds if r.on == dip)]
    studio.tell("acknowledged")
    studio.tell("left_out", rounds=out)
    cook = studio.runs.look("led")[2].cooks[night.number]
    assert (cook.fresh_kg, cook.portion_degc) == (0.0, night.portion_degc)
    assert cook.charge_kg < night.charge_kg
    # thrown away once it is there, it is weighed and melted by itself
    divide = next(r for c in frozen.cooks for r in c.rounds if r.into == night.number)
    studio.tell("burst", cook=divide.cook, seconds=30.0, power_frac=1.0)
    studio.wait(60)
    studio.tell("rested", cook=divide.cook, degc=43.0)
    studio.tell("poured", round=divide.number)
    studio.tell("discarded", cook=night.number)
    cook = studio.runs.look("led")[2].cooks[night.number]
    assert cook.portion_degc is None and cook.fresh_kg > 0


def test_isomalt_is_cooked_once_and_its_colours_warmed_by_portion_in_cups(studio: Studio) -> None:
    studio.with_cups(3)
    for piece, hex_ in (("piece-disc", "#2a6fb0"), ("piece-leaf", "#e0c040")):
        studio.colour(piece, hex_)
    wanted = (("piece-disc", 8), ("piece-leaf", 4), ("piece-lens", 3))
    studio.order(lines=[OrderLine(piece_id=piece, quantity=n, spares="as_sure") for piece, n in wanted])
    studio.divide("isomalt")
    portions = _off_the_pot(studio.plan())
    assert {c.way.vessel_id[:8] for c in portions.values()} == {"silicone"}
    assert {c.way.by.heater_id for c in portions.values()} == {"microwave"}
    studio.led()
    # what several melts say of one pot and one microwave is kept once
    with studio.workshop.session() as session:
        rows = [(c.kind, c.subject) for c in session.query(Calibration).filter_by(run_id="led")]
    assert ("fills", "pot-heavy") in rows
    assert len(rows) == len(set(rows))


def test_what_is_left_is_arranged_in_the_middle_of_it(studio: Studio) -> None:
    studio.divide("coating")
    studio.start("order-table")
    plan, divided = compile_plan(studio.runs.look("led")[1].plan), set[int]()
    for n in range(MOST_ACTS):
        if n % 12 == 8:
            run, frozen, seen, _ = studio.runs.look("led")
            now = run_now(frozen, seen, (studio.clock.now() - run.started_at).total_seconds())
            number = round_numbers(plan.day, plan.table)
            rest = rest_of_day(plan.day, number, now, plan.fares.start_s)
            divided.add(sum(melt.portion is not None for melt in rest.day.melts))
            assert broken(rest.day, at_once(rest.day)) == []
            moved = shifted(rest, plan.table)
            assert moved is None or broken(rest.day, moved) == []
        if not studio.step():
            break
    # looked at before any was divided off, and after all were
    assert {0, 4} <= divided
