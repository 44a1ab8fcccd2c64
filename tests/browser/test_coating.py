"""Lollipops from the order to the log, and a mould out of an SVG file, in a real browser."""

import re
from collections.abc import Callable
from pathlib import Path

import pytest
from playwright.sync_api import Page, expect

from tests.browser.conftest import Server, act, newest_run, see, space, unfold, until

OpenPage = Callable[..., Page]

COMET = """<svg xmlns="http://www.w3.org/2000/svg" width="80mm" height="40mm" viewBox="0 0 80 40">
<path d="M20 5 a15 15 0 1 0 0 30 L75 22 Z"/></svg>"""


def first_act(server: Server) -> str:
    return str(server.call("GET", "/api/bench?actor=Wren")["view"]["acts"][0]["what"]["kind"])


def bursts_of(server: Server) -> int:
    run = server.call("GET", "/api/bench?actor=Wren")["view"]["run_id"]
    return sum(e["kind"] == "burst" for e in server.call("GET", f"/api/runs/{run}/events")["items"])


def test_lollipops_from_the_order_to_the_log(demo: Server, open_page: OpenPage) -> None:
    page = open_page(demo.base + "/orders/order-planets")
    expect(page.get_by_text("30 s, then 2 × 10 s").first).to_be_visible()
    see(page, "Windows")
    unfold(page, "Ringed-planet")
    expect(page.get_by_role("button", name=re.compile("^Takes a stick until: "))).to_have_count(2)
    page.get_by_role("button", name="Start at the bench").click()
    # coating is no hot sugar: no caution, straight to the bowl
    for n in range(3):
        if n == 0:
            act(page, "Weigh .* coating, melt it")
            space(page)
            act(page, "10 s more")
            demo.advance(46)
            page.get_by_role("button", name="half melted").click()
            expect(page.get_by_role("button", name=re.compile("undo .seen"))).to_be_visible()
            demo.advance(1)
            space(page)
            # the clock goes on only when the burst is told
            expect(page.get_by_role("button", name=re.compile("undo .burst"))).to_be_visible()
            demo.advance(26)
            page.get_by_role("button", name="smooth", exact=True).click()
        else:
            # what is left in the bowl is warmed, burst by burst
            act(page, "Warm it again")
            while (kind := first_act(demo)) != "out":
                told = bursts_of(demo)
                act(page, {"warm": "Warm it again", "burst": "10 s more"}[kind])
                space(page)
                until(page, lambda told=told: bursts_of(demo) > told, "the burst is told")
                demo.advance(26)
        act(page, "Take the bowl out")
        space(page)
        demo.advance(60)
        act(page, "Stir the bowl|Pour [83] cavities")
        if n == 0:
            page.keyboard.type("36")
            page.keyboard.press("Enter")
            expect(page.get_by_role("button", name=re.compile("undo .reading"))).to_be_visible()
        demo.advance(150)
        act(page, "Pour [83] cavities")
        space(page)
        act(page, "Put in [83] sticks")
        demo.advance(40)
        space(page)
        act(page, "To the fridge")
        demo.advance(10)
        space(page)
        expect(page.get_by_role("button", name=re.compile("undo .moved"))).to_be_visible()
        demo.advance(1700)
        act(page, "Unmould [83] pieces")
        space(page)
        act(page, "How did they come out")
        space(page)
    act(page, "All done")
    page.get_by_label("Left in the blue bowl, if weighed").fill("25")
    page.get_by_label("Left in the blue bowl, if weighed").blur()
    space(page)
    newest_run(page)
    expect(page.get_by_text(re.compile(r"Ringed-planet lollipop: 19 cast, 0 unusable"))).to_be_visible()
    expect(page.get_by_text("Blue bowl is taken to lose", exact=False)).to_be_visible()


def test_a_mould_from_an_svg_file_and_a_piece_in_it(demo: Server, open_page: OpenPage, tmp_path: Path) -> None:
    page = open_page(demo.base + "/pieces/moulds/mould-disc")
    page.get_by_role("button", name="Add another kind").click()
    page.get_by_role("button", name=re.compile("^Shape: ")).click()
    page.get_by_role("option", name="Drawn or imported").click()
    good, bad = tmp_path / "comet.svg", tmp_path / "bad.svg"
    good.write_text(COMET)
    bad.write_text(COMET.replace("<path", "<script>x</script><path"))
    page.get_by_label("SVG file").set_input_files(bad)
    expect(page.get_by_text("It contains a script", exact=False)).to_be_visible()
    page.get_by_label("SVG file").set_input_files(good)
    # 70 mm across, from the arc's left edge to the tip
    expect(page.get_by_label(re.compile("^Section, 70.mm wide"))).to_be_visible()
    holds = page.get_by_role("button", name=re.compile("^Volume: "))
    before = holds.inner_text()
    page.get_by_role("textbox", name="Depth").fill("9")
    expect(holds).not_to_have_text(before)
    page.get_by_label("Where the cavity is cut").fill("0.5")
    expect(page.get_by_label(re.compile("^Section, 70.mm wide"))).to_be_visible()
    expect(page.get_by_role("status")).to_have_text("saved")
    page.goto(demo.base + "/pieces/piece-disc")
    page.get_by_role("button", name=re.compile("^Cavity: ")).click()
    page.get_by_role("option", name=re.compile("^Cavity 2")).click()
    page.get_by_role("textbox", name="Fill level").fill("8")
    expect(page.get_by_label(re.compile("^Section, 70.mm wide, 9.0.mm deep"))).to_be_visible()
    expect(page.get_by_role("status")).to_have_text("saved")


@pytest.mark.parametrize(
    "shape",
    [
        "Rectangle or bar",
        "Half ball",
        "Spherical cap",
        "Cone frustum",
        "Half ellipsoid",
        "Half capsule",
        "Heart",
        "Star",
    ],
)
def test_every_shape_can_be_chosen_and_is_drawn(demo: Server, open_page: OpenPage, shape: str) -> None:
    page = open_page(demo.base + "/pieces/moulds/mould-lens")
    drawing = page.get_by_role("img", name=re.compile("^Section"))
    before = drawing.get_attribute("aria-label")
    page.get_by_role("button", name=re.compile("^Shape: ")).click()
    page.get_by_role("option", name=shape).click()
    expect(drawing).not_to_have_attribute("aria-label", before or "")
    expect(page.get_by_role("button", name=re.compile("^Volume: "))).to_be_visible()
    expect(page.get_by_role("status")).to_have_text("saved")
