"""An order of paste alone: planned, listed, led to the end; what is joined waits for what hands made, and for it to dry."""

from collections.abc import Callable
from dataclasses import replace
from pathlib import Path

import pytest

from tests.services.test_divided import Studio
from tests.services.test_led import first
from umber_pebble.core.bench.act_kinds import ByHand
from umber_pebble.core.materials.load import material
from umber_pebble.core.plan.day.check import broken
from umber_pebble.core.plan.needs import needs_of
from umber_pebble.core.plan.summary import summary_of
from umber_pebble.demo.fill import WREN
from umber_pebble.services import bench
from umber_pebble.services.day_sheets import at_hand
from umber_pebble.services.documents import Colour, OrderLine
from umber_pebble.services.piece_docs import Part, Piece


@pytest.fixture
def studio(tmp_path: Path) -> Studio:
    made = Studio(tmp_path)
    made.order(lines=[OrderLine(piece_id="piece-basket", quantity=4, spares="as_sure")])
    return made


def changed(studio: Studio, part: int, change: Callable[[Part], dict[str, object]]) -> None:
    stored = studio.workshop.get("piece", "piece-basket")
    assert isinstance(stored.doc, Piece)
    parts = [of.model_copy(update=change(of)) if i == part else of for i, of in enumerate(stored.doc.parts)]
    studio.workshop.save("piece", "piece-basket", stored.version, stored.doc.model_copy(update={"parts": parts}))


def test_baskets_are_planned_in_order_and_led_to_the_end(studio: Studio) -> None:
    plan = studio.plan()
    steps = plan.problem.by_hand
    assert [step.what for step in steps] == ["model"] * 5 + ["join"] * 4 and not plan.problem.lines
    assert [step.count for step in steps[:5]] == [4, 4, 4, 12, 4]
    assert not broken(plan.day.day, plan.table)
    made = {t.number: t for t in plan.tasks if t.kind == "model"}
    gum, fondant = (material("pastes", key).spread("dries").likely for key in ("gum_paste", "fondant"))
    # each join after both of its parts, and after what dries before it goes on; a bow goes on soft
    for t in (t for t in plan.tasks if t.kind == "join"):
        for part in steps[t.number].after_steps:
            dries = 0.0 if part == 4 else fondant if part < 2 else gum
            assert t.start_s >= made[part].end_s + dries - 1
    summary = summary_of(plan)
    assert (summary.quantity, summary.tightest, summary.melts) == (28, None, ())
    # wall and floor of fondant, by hand: 4 x (22.8 + 14.4) cm3 x 1.35 g, what stays on the pin, and off-cuts beside the walls
    fondant_kg = 4 * (0.19 * 0.04 * 0.003 + 0.06 * 0.06 * 0.004) * 1350 * 1.05
    fondant_kg += 4 * 0.19 * 0.04 * 0.003 * 1350 * 0.3
    assert {p.name: p.kg for p in needs_of(plan).pastes}["Fondant"] == pytest.approx(fondant_kg)
    done = [of.what.step for of in studio.led() if isinstance(of.what, ByHand)]
    assert len(done) == 9 and {step.named for step in done} == {step.named for step in steps}
    at = {str(step.named): i for i, step in enumerate(done)}
    for step in steps[5:]:
        assert all(at[str(steps[i].named)] < at[str(step.named)] for i in step.after_steps)


def test_at_the_bench_a_join_opens_when_its_parts_are_dry(studio: Studio) -> None:
    studio.start("order-table")
    joins = set[str]()
    for _ in range(5):
        acts = bench.view(studio.runs, "led", WREN).acts
        joins |= {
            str(a.what.step.named) for a in acts if isinstance(a.what, ByHand) and a.what.step.what == "join"
        }
        studio.step()
    view = bench.view(studio.runs, "led", WREN)
    act = first(view)
    assert isinstance(act.what, ByHand) and act.what.step.what == "join"
    # none of them before all is made, and even then a while later: gum paste dries an hour at least
    low = material("pastes", "gum_paste").spread("dries").low
    assert act.opens_s >= low and all("to" in name for name in joins)


def test_what_is_joined_by_melt_waits_for_what_hands_made_too(studio: Studio) -> None:
    stored = studio.workshop.get("piece", "piece-basket")
    assert isinstance(stored.doc, Piece)
    joins = [stored.doc.joins[1]]
    melted = stored.doc.model_copy(update={"joins": [replace(joins[0], by="melt")]})
    studio.workshop.save("piece", "piece-basket", stored.version, melted)
    plan = studio.plan()
    [line] = plan.problem.lines
    assert line.joins and not line.cast_off and line.after_steps == (2, 0)
    pour = next(t for t in plan.tasks if t.kind == "pour")
    made = {t.number: t.end_s for t in plan.tasks if t.kind == "model"}
    assert pour.start_s >= made[0] + material("pastes", "fondant").value("dries") - 1
    assert pour.start_s >= made[2] + material("pastes", "gum_paste").value("dries") - 1
    assert not broken(plan.day.day, plan.table)
    studio.led()


def test_what_goes_on_soft_is_not_waited_for(studio: Studio) -> None:
    def soft(part: Part) -> dict[str, object]:
        return {"passes": [replace(one, dry=False) for one in part.passes]}  # type: ignore[call-arg]

    lasts = studio.plan().lasts_s
    for part in range(5):
        changed(studio, part, soft)
    plan = studio.plan()
    assert all(step.dries.high == 0 for step in plan.problem.by_hand[:5])
    assert plan.lasts_s < lasts - 3000


def tinted(colour: str | None, **more: object) -> Callable[[Part], dict[str, object]]:
    return lambda part: {"passes": [replace(one, colour=colour, **more) for one in part.passes]}  # type: ignore[call-arg]


def test_off_cuts_go_into_the_next_darker_colour_and_colour_is_kneaded_into_what_is_taken_anew(
    studio: Studio,
) -> None:
    # the wall white, the floor blue and the rest as it was; floor and wall are rolled out
    changed(studio, 1, tinted("#2f4a8a"))
    plan = studio.plan()
    white, blue = (need for need in needs_of(plan).pastes if need.name == "Fondant")
    wall, floor = 4 * 0.19 * 0.04 * 0.003 * 1350, 4 * 0.06 * 0.06 * 0.004 * 1350
    # by hand: 5 % stays on pin and board; three tenths more is rolled out, of a quarter kilogram at once
    assert (white.colour, blue.colour) == (None, "#2f4a8a")
    assert white.kg == pytest.approx(1.05 * wall + 0.3 * wall)
    assert blue.kg == pytest.approx(1.05 * floor + 0.3 * floor)
    assert (white.into, white.left_kg) == ("#2f4a8a", pytest.approx(0.0))
    assert blue.of_others_kg == pytest.approx(0.3 * wall) and blue.into is None
    doses = {of.wanted: of for of in at_hand(studio.workshop, plan).pastes}
    dose = doses["#2f4a8a"]
    assert dose.why == "" and dose.delta_e < 10
    named = {doc.doc.name: doc.doc for doc in studio.workshop.all("colour") if isinstance(doc.doc, Colour)}
    # water-based into sugar paste, and per kilogram what is taken anew
    assert dose.doses and all(named[row.name].kind == "water" for row in dose.doses)
    for row in dose.doses:
        strength = named[row.name].mg_per_g
        if strength and row.add_kg is not None:
            assert row.add_kg == pytest.approx(row.mg_kg * blue.fresh_kg / strength / 1000)


def test_paste_is_kept_moist_and_its_mixture_is_said_at_the_bench(studio: Studio) -> None:
    changed(studio, 2, tinted(None, paste="modelling_chocolate"))
    told = [act.what for act in studio.led() if isinstance(act.what, ByHand)]
    by_name = {str(what.step.named): what for what in told}
    wall = by_name["Comet basket, wall"]
    assert wall.step.skins == material("pastes", "fondant").spread("skins") and not wall.mixed
    handle = by_name["Comet basket, handle"]
    # modelling chocolate does not skin over, and is made from chocolate and syrup
    assert handle.step.skins is None
    [mixing] = handle.mixed
    assert sum(part.kg for part in mixing.of) == pytest.approx(handle.step.kg * handle.step.count)
