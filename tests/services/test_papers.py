"""Files out and in: calendar, lists for the wall, readings, against readers of other libraries."""

import io
import re
from datetime import timedelta

import pytest
from icalendar import Calendar
from pypdf import PdfReader

from tests.plans import plan_order
from tests.services.test_runs import Hands, order
from umber_pebble.core.errors import NotInSequence, OutOfRange
from umber_pebble.formats.units import weighed
from umber_pebble.services import exchange
from umber_pebble.services.day_sheets import at_hand, day_sheets, prep_list
from umber_pebble.services.documents import Order, OrderLine
from umber_pebble.services.workshop import Workshop


@pytest.fixture
def mixed(stocked: Workshop) -> Workshop:
    lines = [OrderLine(piece_id="piece-disc", quantity=10), OrderLine(piece_id="piece-lollipop", quantity=8)]
    lines.append(OrderLine(piece_id="piece-pop", quantity=6))
    stocked.create("order", "mixed", order(stocked, lines=lines))
    return stocked


def test_the_calendar_holds_every_task_at_its_time(mixed: Workshop) -> None:
    plan = plan_order(mixed, mixed.get("order", "mixed").doc)  # type: ignore[arg-type]
    events = Calendar.from_ical(exchange.calendar(mixed, "mixed")).walk("VEVENT")
    assert len(events) == len(plan.tasks)
    assert len({str(e["uid"]) for e in events}) == len(events)
    now = mixed.clock.now()
    wanted = sorted((now + timedelta(seconds=t.start_s), t.hands) for t in plan.tasks)
    found = sorted((e.decoded("dtstart"), str(e["transp"]) == "OPAQUE") for e in events)
    for (a, hands), (b, busy) in zip(wanted, found, strict=True):
        assert abs(a - b) <= timedelta(seconds=1)
        assert hands == busy


def text_of(pdf: bytes) -> str:
    return " ".join(" ".join(page.extract_text().split()) for page in PdfReader(io.BytesIO(pdf)).pages)


def test_the_lists_say_what_to_weigh_and_what_to_pour(mixed: Workshop) -> None:
    plan = plan_order(mixed, mixed.get("order", "mixed").doc)  # type: ignore[arg-type]
    melt, pour = text_of(exchange.melt_list(mixed, "mixed")), text_of(exchange.pour_list(mixed, "mixed"))
    for cook in plan.cooks:
        assert weighed(cook.fresh_kg, mixed.get("units", "units").doc) in melt
    assert "Hot sugar burns" in melt
    assert "Blue bowl" in melt
    assert "15.4 g Cake filling by hand" in pour
    for line in plan.problem.lines:
        assert line.name in pour
        assert f"{line.cast.poured.value.likely * 1000:.1f} g" in pour
    units = mixed.get("units", "units")
    mixed.save("units", "units", units.version, units.doc.model_copy(update={"mass": "oz", "temperature": "F"}))
    assert " oz" in text_of(exchange.melt_list(mixed, "mixed"))
    assert "320 °F" in text_of(exchange.melt_list(mixed, "mixed"))


def test_what_must_be_at_hand_is_all_that_the_plan_takes(mixed: Workshop) -> None:
    plan = plan_order(mixed, mixed.get("order", "mixed").doc)  # type: ignore[arg-type]
    needs = at_hand(mixed, plan).needs
    assert sum(melt.kg for melt in needs.melts) == pytest.approx(sum(cook.fresh_kg for cook in plan.cooks))
    sticks = sum(
        r.casts for r in plan.rounds if any(of.kind == "stick" for of in plan.problem.lines[r.line].works)
    )
    assert sum(of.count for of in needs.sticks) == sticks > 0
    # a mould that is owned once and filled one time after the other is put ready once
    owned = {line.mould.name: line.mould.owned for line in plan.problem.lines}
    assert all(0 < of.count <= owned[of.name] for of in needs.moulds)
    text = text_of(prep_list(mixed, "mixed"))
    for melt in needs.melts:
        assert weighed(melt.kg, mixed.get("units", "units").doc) in text
    for of in needs.moulds:
        assert of.name in text


def test_everybody_has_a_day_sheet_of_her_own(mixed: Workshop) -> None:
    stored = mixed.get("order", "mixed")
    assert isinstance(stored.doc, Order)
    mixed.save("order", "mixed", stored.version, stored.doc.model_copy(update={"people": ["Wren", "Sol"]}))
    doc = mixed.get("order", "mixed").doc
    assert isinstance(doc, Order)
    plan = plan_order(mixed, doc)
    pages = [page.extract_text() for page in PdfReader(io.BytesIO(day_sheets(mixed, "mixed"))).pages]
    starts = {who: [i for i, page in enumerate(pages) if f"{who}, " in page] for who in ("Wren", "Sol")}
    assert starts["Wren"] == [0] and len(starts["Sol"]) == 1
    hers = " ".join(pages[: starts["Sol"][0]])
    for person, text in enumerate((hers, " ".join(pages[starts["Sol"][0] :]))):
        times = [mixed.clock.now() + timedelta(seconds=t.start_s) for t in plan.tasks if t.who == person]
        assert len(re.findall(r"\b\d\d:\d\d\b", text.partition("do")[2])) == len(times)


def test_readings_go_out_and_come_in_once(stocked: Workshop) -> None:
    hands = Hands(stocked)
    hands.pour_first()
    hands.clock.drive(60, None)
    runs = hands.runs
    before = exchange.readings_out(runs, "run")
    assert exchange.readings_in(runs, "run", before, "Wren", "laptop") == 0
    at = (stocked.clock.now() - timedelta(seconds=30)).isoformat()
    more = before + f"{at},cook 1,141.0,C,infrared\r\n{at},round 1,120.5,C,infrared\r\n"
    assert exchange.readings_in(runs, "run", more, "Wren", "laptop") == 2
    assert exchange.readings_in(runs, "run", more, "Wren", "laptop") == 0
    assert exchange.readings_out(runs, "run").count("\n") == before.count("\n") + 2


def test_a_file_that_does_not_fit_the_run_changes_nothing(stocked: Workshop) -> None:
    hands = Hands(stocked)
    hands.pour_first()
    hands.clock.drive(60, None)
    before = exchange.readings_out(hands.runs, "run")
    at = (stocked.clock.now() - timedelta(seconds=30)).isoformat()
    head = "time,of,temperature,unit,method\n"
    good = f"{at},cook 1,141.0,C,infrared\n"
    with pytest.raises(NotInSequence, match="line 3"):
        exchange.readings_in(hands.runs, "run", head + good + f"{at},round 2,120,C,infrared\n", "Wren", "x")
    with pytest.raises(OutOfRange, match="line 3"):
        exchange.readings_in(hands.runs, "run", head + good + f"{at},round 99,120,C,infrared\n", "Wren", "x")
    with pytest.raises(OutOfRange, match="line 2, time: this run went"):
        exchange.readings_in(
            hands.runs, "run", head + "2001-01-01T00:00:00Z,cook 1,141.0,C,infrared\n", "Wren", "x"
        )
    assert exchange.readings_out(hands.runs, "run") == before
