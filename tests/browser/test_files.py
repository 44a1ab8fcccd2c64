"""Files out and in, and a run that ends badly, in a real browser."""

import json
import re
from collections.abc import Callable
from pathlib import Path

from playwright.sync_api import Page, expect

from tests.browser.conftest import Server, act, change_the_order, newest_run, space

OpenPage = Callable[..., Page]


def test_lists_calendar_and_readings_are_taken_away(demo: Server, open_page: OpenPage) -> None:
    page = open_page(demo.base + "/orders/order-first-light/lists")
    for name, start in (
        ("Melt list, PDF", b"%PDF"),
        ("Pour list, PDF", b"%PDF"),
        ("By-hand list, PDF", b"%PDF"),
        ("Timetable, PDF", b"%PDF"),
        ("Timetable, iCalendar", b"BEGIN:VCAL"),
    ):
        with page.expect_download() as download:
            page.get_by_role("link", name=name).click()
        assert Path(download.value.path()).read_bytes().startswith(start)
    page.goto(demo.base + "/log/run-rehearsal")
    with page.expect_download() as download:
        page.get_by_role("link", name="readings, CSV").click()
    lines = Path(download.value.path()).read_text().splitlines()
    assert lines[0] == "time,of,temperature,unit,method"
    bad = Path(download.value.path()).with_suffix(".bad")
    bad.write_text("\n".join([*lines[:2], lines[1].replace("cook 1", "pot")]))
    page.get_by_label("Readings file").set_input_files(bad)
    expect(page.get_by_text("Line 3, of: say cook, round or batch", exact=False)).to_be_visible()
    more = bad.with_suffix(".csv")
    moved = re.sub(r":(\d\d)\.", lambda m: f":{(int(m.group(1)) + 7) % 60:02d}.", lines[2])
    more.write_text("\n".join([*lines, moved]))
    page.get_by_label("Readings file").set_input_files(more)
    expect(page.get_by_text("1 readings brought in")).to_be_visible()


def test_the_workshop_is_taken_away_and_brought_back(demo: Server, open_page: OpenPage, tmp_path: Path) -> None:
    page = open_page(demo.base + "/kitchen")
    with page.expect_download() as download:
        page.get_by_role("link", name="Take it away as a file").click()
    text = Path(download.value.path()).read_text()
    page.get_by_label("Room", exact=True).fill("27")
    expect(page.get_by_role("status")).to_have_text("saved")
    spoilt = tmp_path / "spoilt.json"
    spoilt.write_text(text.replace('"version": 1,\n "exported_at"', '"version": 7,\n "exported_at"'))
    page.get_by_label("Workshop file").set_input_files(spoilt)
    expect(page.get_by_text("Nothing was changed", exact=False)).to_be_visible()
    spoilt.write_text(text[: len(text) // 2])
    page.get_by_label("Workshop file").set_input_files(spoilt)
    expect(page.get_by_text(re.compile("not JSON.*line"), exact=False)).to_be_visible()
    good = tmp_path / "good.json"
    good.write_text(text)
    page.get_by_label("Workshop file").set_input_files(good)
    expect(page.get_by_text("What was there before is kept as", exact=False)).to_be_visible()
    assert demo.call("GET", "/api/kitchen")["doc"]["room_degc"] == 21.5
    assert json.loads(text)["format"] == "umber-pebble-workshop"


def test_a_run_that_ends_badly_leaves_an_order_for_the_rest(demo: Server, open_page: OpenPage) -> None:
    demo.call("POST", "/api/runs", {"id": "bad", "order_id": "order-first-light", "actor": "Wren", "device": "t"})
    page = open_page(demo.base + "/bench")
    act(page, "Hot sugar")
    space(page)
    act(page, "Weigh 360")
    space(page)
    act(page, "Take it off")
    page.get_by_role("button", name="throw it away").click()
    act(page, "Weigh 360")
    page.keyboard.press("p")
    act(page, "Paused")
    space(page)
    act(page, "Weigh 360")
    page.get_by_role("button", name="end early").click()
    expect(page.get_by_role("heading", name="Nothing is live")).to_be_visible()
    newest_run(page)
    happened = page.get_by_role("region", name="What happened")
    expect(happened.get_by_text("thrown away, vessel 1")).to_be_visible()
    expect(happened.get_by_text("Wren").first).to_be_visible()
    page.get_by_role("button", name="Take the ending back").click()
    expect(page.get_by_role("button", name="Plan what is left")).to_have_count(0)
    page.keyboard.press("Alt+b")
    act(page, "Weigh 360")
    page.get_by_role("button", name="end early").click()
    newest_run(page)
    page.get_by_role("button", name="Plan what is left").click()
    expect(page.get_by_label("Name of the order")).to_have_value("First-light night, the rest")
    change_the_order(page)
    expect(page.get_by_label("How many")).to_have_value("24")
