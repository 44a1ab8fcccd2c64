"""A melt of every family, ours or the workshop's own, is cast, coloured, dipped and drizzled in an order, and carried out."""

from typing import Any

import pytest

from tests.plans import plan_order
from tests.services.test_runs import WREN, order
from umber_pebble.core.errors import MouldTooWeak, OutOfRange
from umber_pebble.core.families.known import FAMILIES
from umber_pebble.core.materials.load import materials
from umber_pebble.core.plan.window_rows import window_rows
from umber_pebble.demo.fill import KITCHEN
from umber_pebble.services import bench
from umber_pebble.services.documents import Order, OrderLine, OwnMaterial, SheetRow
from umber_pebble.services.piece_docs import Piece
from umber_pebble.services.runs import NewEvent, RunService
from umber_pebble.services.ways import usual_ways
from umber_pebble.services.workshop import Workshop

MELTS = [next(key for key, m in materials("melts").items() if m.family == family) for family in FAMILIES]


def of_melt(workshop: Workshop, piece: str, melt: str, colour: str | None = None) -> Order:
    """An order of a piece with every melt in it changed, made the way its family usually is."""

    def changed(node: Any) -> Any:
        if isinstance(node, list):
            return [changed(of) for of in node]
        if not isinstance(node, dict):
            return node
        if node.keys() == {"material", "colour"}:
            return {"material": melt, "colour": colour}
        return {key: changed(of) for key, of in node.items()}

    doc = workshop.get("piece", piece).doc
    assert isinstance(doc, Piece)
    name = f"{piece}-of-{melt}"
    made = changed(doc.model_dump()) | {"name": name}
    for part in made["parts"]:
        part["bent"] = False
    workshop.create("piece", name, Piece.model_validate(made, strict=False))
    return order(workshop, lines=[OrderLine(piece_id=name, quantity=4)], ways={})


@pytest.mark.parametrize("melt", MELTS)
@pytest.mark.parametrize("piece", ["piece-disc", "piece-filled", "piece-berry"])
def test_every_melt_is_cast_shelled_dipped_and_poured(stocked: Workshop, piece: str, melt: str) -> None:
    plan = plan_order(stocked, of_melt(stocked, piece, melt))
    assert {cook.way.melt.key for cook in plan.cooks} == {melt}
    assert sum(cook.fresh_kg for cook in plan.cooks) > 0
    rounds = {r.number for r in plan.rounds}
    assert {t.round for t in plan.tasks if t.kind == "pour"} == rounds


@pytest.mark.parametrize("like", MELTS)
def test_a_melt_of_its_own_goes_as_its_relative_does(stocked: Workshop, like: str) -> None:
    density = materials("melts")[like].spread("density_melt")
    sheet = [
        SheetRow(name="density_melt", low=density.low, likely=1.01 * density.likely, high=1.02 * density.high)
    ]
    stocked.create("material", "mine", OwnMaterial(name="Mine", like=like, sheet=sheet))
    ours, mine = (plan_order(stocked, of_melt(stocked, "piece-disc", key, "#2f6fb0")) for key in (like, "mine"))
    kg = [sum(c.poured_kg for c in plan.cooks) for plan in (ours, mine)]
    assert kg[1] / kg[0] == pytest.approx(1.01, rel=2e-3)
    assert [c.way.colour for c in mine.cooks] == ["#2f6fb0"] * len(mine.cooks)
    assert window_rows(mine).pots[0].wording == window_rows(ours).pots[0].wording


def test_an_order_of_cooked_sugar_and_caramel_is_carried_out(stocked: Workshop) -> None:
    lines = [of_melt(stocked, "piece-disc", melt).lines[0] for melt in ("cooked_sugar", "caramel")]
    stocked.create("order", "sweets", order(stocked, lines=lines, ways={}))
    runs = RunService(stocked)
    runs.start("run", "sweets", WREN, "test")
    first = bench.view(runs, "run", WREN).acts[0]
    # both are hot sugar
    assert first.what.kind == "acknowledge"
    _, frozen, _, _ = runs.look("run")
    water = {cook.way.melt.key: cook.water_kg for cook in frozen.cooks}
    # sugar is boiled with water, caramel is melted dry
    assert water["cooked_sugar"] > 0 and water["caramel"] == 0


def test_dry_caramel_takes_minutes_and_is_not_stirred(stocked: Workshop) -> None:
    """Medium-low heat, 3-4 min, shaken, never stirred. Common practice, no source."""
    asked = of_melt(stocked, "piece-disc", "caramel")
    way = usual_ways(KITCHEN)["caramel"].model_copy(update={"vessel_id": "pot-thin"})
    lines = [asked.lines[0].model_copy(update={"quantity": 10})]
    asked = asked.model_copy(update={"lines": lines, "ways": {"caramel": way}})
    plan = plan_order(stocked, asked)
    assert plan.cooks[0].hob.likely == pytest.approx(210.0, abs=30.0)
    stocked.create("order", "amber", asked)
    runs = RunService(stocked)
    runs.start("run", "amber", WREN, "test")
    runs.add("run", NewEvent("a", "acknowledged", {}, WREN, "test", None, 1))
    runs.add("run", NewEvent("b", "heated", {"cook": 0}, WREN, "test", None, 1))
    [off] = [act.what for act in bench.view(runs, "run", WREN).acts if act.what.kind == "off"]
    assert off.shaken


@pytest.mark.parametrize("melt", ["isomalt", "caramel"])
def test_a_sugar_that_is_dipped_into_waits_for_no_bubbles(stocked: Workshop, melt: str) -> None:
    plan = plan_order(stocked, of_melt(stocked, "piece-berry", melt))
    dips = [r for r in plan.rounds if plan.problem.lines[r.line].kind == "dip"]
    assert all(plan.cooks[r.cook].pours[r.line][1].limited_by in ("boiling", "mould") for r in dips)
    # one pot for all of them, not a cook for each fruit
    assert len({r.cook for r in dips}) == 1 and sum(r.casts for r in dips) >= 4


@pytest.mark.parametrize(
    ("melt", "changed", "said"),
    [
        ("cooked_sugar", {"ring_id": "microwave"}, "cooked on a ring"),
        ("caramel", {"water": "wet"}, "melted dry: no water"),
    ],
)
def test_a_sugar_that_is_no_nibs_is_cooked_on_a_ring_and_caramel_without_water(
    stocked: Workshop, melt: str, changed: dict[str, str], said: str
) -> None:
    """Common practice, no source."""
    asked = of_melt(stocked, "piece-disc", melt)
    way = usual_ways(KITCHEN)[melt].model_copy(update=changed)
    with pytest.raises(OutOfRange, match=said):
        plan_order(stocked, asked.model_copy(update={"ways": {melt: way}}))


def test_what_does_not_bear_the_heat_is_named(stocked: Workshop) -> None:
    with pytest.raises(MouldTooWeak, match=r"Balloon bears 40.*a former of"):
        plan_order(stocked, of_melt(stocked, "piece-cup", "caramel"))


def test_a_way_that_is_none_of_its_family_is_refused(stocked: Workshop) -> None:
    asked = of_melt(stocked, "piece-disc", "caramel")
    melted = order(stocked).ways["coating"]
    with pytest.raises(OutOfRange, match="cooked, not melted"):
        plan_order(stocked, asked.model_copy(update={"ways": {"caramel": melted}}))
