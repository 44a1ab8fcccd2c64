"""Files out and in: calendar, lists for the wall, readings, against readers of other libraries."""

import io
from datetime import timedelta

import pytest
from icalendar import Calendar
from pypdf import PdfReader

from tests.plans import plan_order
from tests.services.test_runs import Hands, order
from umber_pebble.core.errors import NotInSequence, OutOfRange
from umber_pebble.formats.units import weighed
from umber_pebble.services import exchange
from umber_pebble.services.documents import OrderLine
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
