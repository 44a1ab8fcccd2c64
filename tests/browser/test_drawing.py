"""A drawing that lines are piped over, in a real browser: drawn, falling apart, joined, read from a file, piped and peeled off."""

import re
from collections.abc import Callable

from playwright.sync_api import Locator, Page, expect

from tests.browser.conftest import Server, act, space

OpenPage = Callable[..., Page]
HOLDS = "It comes off in one, and nothing reaches too far."


def stroke(page: Page, pad: Locator, start: tuple[float, float], end: tuple[float, float]) -> None:
    """From one place of the pad to another, as shares of it."""
    box = pad.bounding_box()
    assert box is not None
    for step, (x, y) in enumerate((start, ((start[0] + end[0]) / 2, (start[1] + end[1]) / 2), end)):
        page.mouse.move(box["x"] + x * box["width"], box["y"] + y * box["height"])
        if step == 0:
            page.mouse.down()
    page.mouse.up()


def test_a_filigree_falls_apart_is_joined_and_holds(demo: Server, open_page: OpenPage) -> None:
    page = open_page(demo.base + "/pieces/moulds")
    page.get_by_role("button", name="Add a mould").click()
    measured = page.get_by_role("region", name="Measurements")
    measured.get_by_role("radio", name="a drawing, piped over").click()
    pad = page.get_by_role("img", name=re.compile("^Drawing of"))
    expect(pad).to_have_accessible_name(re.compile("1 line"))
    verdict = page.get_by_role("list", name="Whether it holds")
    # across the line there is, and one that lies beside it
    stroke(page, pad, (0.5, 0.2), (0.5, 0.8))
    expect(pad).to_have_accessible_name(re.compile("2 lines"))
    stroke(page, pad, (0.7, 0.15), (0.9, 0.3))
    expect(verdict).to_contain_text("falls into 2 parts")
    expect(verdict).to_contain_text("loose ends reach too far")
    page.get_by_role("button", name=re.compile(r"^Draw \d+ joins?")).click()
    expect(verdict).not_to_contain_text("falls into")
    # a frame through its ends, a second line where that is not enough: until it holds, each with one press
    mends = page.get_by_role("button", name=re.compile("^(A frame|A second line|Draw)"))
    for _ in range(5):
        expect(mends.first.or_(page.get_by_text(HOLDS))).to_be_visible()
        if page.get_by_text(HOLDS).is_visible():
            break
        with page.expect_response("**/api/figures/filigree"):
            mends.first.click()
    expect(page.get_by_text(HOLDS)).to_be_visible()
    expect(page.get_by_text("saved").first).to_be_visible()
    with page.expect_download() as paper:
        page.get_by_role("link", name="To scale, under the film: PDF").click()
    assert paper.value.path().read_bytes().startswith(b"%PDF")
    # what is taken away is gone, and one press brings it back
    lines = pad.get_attribute("aria-label")
    page.get_by_role("radio", name="take away").click()
    # a hand's pace after the last edit: nearer ones are one step
    page.wait_for_timeout(1000)
    page.locator("svg[aria-label^='Drawing of'] > g > path").first.click(force=True)
    expect(pad).not_to_have_accessible_name(str(lines))
    page.keyboard.press("Control+z")
    expect(pad).to_have_accessible_name(str(lines))


def test_a_file_is_asked_how_wide_it_is_and_one_that_means_harm_is_refused(
    demo: Server, open_page: OpenPage
) -> None:
    page = open_page(demo.base + "/pieces/moulds/mould-constellation")
    pad = page.get_by_role("img", name=re.compile("^Drawing of"))
    expect(pad).to_have_accessible_name(re.compile("18 lines"))

    def take(svg: str) -> None:
        page.get_by_label("SVG file").set_input_files(
            {"name": "drawing.svg", "mimeType": "image/svg+xml", "buffer": svg.encode()}
        )

    head = '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 100 100">'
    take(f"{head}<script>alert(1)</script><path d='M0 0H50'/></svg>")
    expect(page.get_by_text("it contains a script")).to_be_visible()
    expect(pad).to_have_accessible_name(re.compile("18 lines"))
    take(f"{head}<path d='M0 0H50V50H0Z'/><path d='M25 0V50'/></svg>")
    expect(page.get_by_text("does not say how large it is")).to_be_visible()
    expect(pad).to_have_accessible_name(re.compile("18 lines"))
    page.get_by_label("Wide", exact=True).fill("40")
    page.get_by_role("button", name="Put it in, 40 mm wide").click()
    expect(pad).to_have_accessible_name(re.compile("2 lines"))
    # four sides and the bar, by hand: 5 x 40 mm
    expect(page.get_by_text("200 mm")).to_be_visible()
    page.keyboard.press("Control+z")
    expect(pad).to_have_accessible_name(re.compile("18 lines"))
    expect(page.get_by_text("saved").first).to_be_visible()


def test_constellations_are_piped_and_peeled_off(demo: Server, open_page: OpenPage) -> None:
    order = demo.call("GET", "/api/orders/order-constellations")
    order["doc"]["lines"][0]["quantity"] = 4
    demo.call("PUT", "/api/orders/order-constellations", {"version": order["version"], "doc": order["doc"]})
    # of coating, which is only melted
    piece = demo.call("GET", "/api/pieces/piece-constellation")
    piece["doc"]["parts"][0]["passes"][0]["melt"]["material"] = "coating"
    demo.call("PUT", "/api/pieces/piece-constellation", {"version": piece["version"], "doc": piece["doc"]})
    page = open_page(demo.base + "/pieces/piece-constellation")
    expect(page.get_by_text("Lines over a drawing").first).to_be_visible()
    expect(page.get_by_text("From above, to scale.")).to_be_visible()
    page.goto(demo.base + "/orders/order-constellations")
    page.get_by_role("tab", name="Cards").or_(page.get_by_role("link", name="Cards")).first.click()
    expect(page.get_by_text(re.compile(r"18 lines, 491.mm, out of 2.5.mm"))).to_be_visible()
    page.get_by_role("button", name="Start at the bench").click()
    act(page, "Weigh .* coating, melt it")
    demo.melted_elsewhere(1)
    act(page, r"Pipe over \d drawings")
    expect(page.get_by_text("Every line into the next")).to_be_visible()
    expect(page.get_by_text(re.compile(r"Each 18 lines, 491.mm, bag or nozzle of 2.5.mm"))).to_be_visible()
    space(page)
    act(page, "To the fridge")
    space(page)
    act(page, r"Peel \d pieces")
    demo.advance(2400)
    expect(page.get_by_text("bend the film away from it")).to_be_visible()
    space(page)
    expect(page.get_by_text("How did they come out")).to_be_visible()
