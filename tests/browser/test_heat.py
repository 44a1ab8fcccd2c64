"""The heat explorer in a real browser: three ways, bends, a second coat, a thick foot; a way taken into a piece; what is seen."""

import re
from collections.abc import Callable

from playwright.sync_api import Locator, Page, expect

from tests.browser.conftest import Server, act, space

OpenPage = Callable[..., Page]


def choose(page: Page, label: str, option: str, which: int = 0) -> None:
    page.get_by_role("button", name=re.compile(f"^{label}: ")).nth(which).click()
    page.get_by_role("option", name=option, exact=True).click()


def said(page: Page) -> Locator:
    return page.get_by_label("Ways").get_by_role("status").first


def test_three_ways_side_by_side_with_their_difference_in_words(demo: Server, open_page: OpenPage) -> None:
    page = open_page(demo.base + "/work-out/heat")
    expect(said(page)).to_have_text(re.compile(r"^Fridge \d+ min, Freezer \d+ min; the freezer way may crack"))
    page.get_by_role("button", name="Add a way").click()
    choose(page, "to", "Bench top", 2)
    expect(said(page)).to_have_text(re.compile(r"^Fridge \d+ min, Freezer \d+ min, Bench top \d+ min"))
    expect(page.get_by_role("img", name=re.compile("^Way "))).to_have_count(3)
    sections = page.get_by_role("img", name=re.compile("^Section of way "))
    expect(sections).to_have_count(3)
    page.get_by_label("Moment shown").fill("0.02")
    expect(sections.first).to_have_attribute("aria-label", re.compile("at [01]:"))
    before = sections.first.text_content() or ""
    page.get_by_label("Moment shown").fill("0.6")
    expect(sections.first).not_to_have_text(before)
    page.get_by_role("button", name="Remove way 3").click()
    expect(sections).to_have_count(2)


def test_a_bend_has_other_limits_at_two_and_at_five_millimetres(demo: Server, open_page: OpenPage) -> None:
    page = open_page(demo.base + "/work-out/heat")
    choose(page, "Of", "Isomalt, clear")
    bend = page.get_by_text(re.compile(r"^To 30.mm in"))
    page.get_by_role("textbox", name="Thickness").fill("2")
    expect(page.get_by_text("Its outside stretches 3.3 %", exact=False)).to_be_visible()
    thin = bend.inner_text()
    page.get_by_role("textbox", name="Thickness").fill("5")
    expect(page.get_by_text("Its outside stretches 8.3 %", exact=False)).to_be_visible()
    assert bend.inner_text() != thin
    page.get_by_role("textbox", name="Bent to a radius of").fill("1")
    expect(page.get_by_role("alert").first).to_be_visible()


def test_a_hot_second_coat_melts_the_first_and_a_rested_one_on_a_cold_one_does_not(
    demo: Server, open_page: OpenPage
) -> None:
    page = open_page(demo.base + "/work-out/heat")
    expect(page.get_by_role("textbox", name="Poured at")).to_have_value("36")
    page.get_by_role("textbox", name="Thickness").fill("2")
    choose(page, "Poured on", "Coating wafers")
    page.get_by_role("textbox", name="How warm").fill("22")
    page.get_by_role("textbox", name="Poured at").fill("52")
    expect(said(page)).to_contain_text("the fridge way melts the first pass")
    expect(page.get_by_text(re.compile(r"Let the melt rest until it is at 4\d"))).to_be_visible()
    page.get_by_role("textbox", name="How warm").fill("8")
    page.get_by_role("textbox", name="Poured at").fill("40")
    expect(said(page)).to_contain_text("the fridge way does not join the first pass")


def test_a_thick_foot_cooled_too_fast_is_said_to_crack(demo: Server, open_page: OpenPage) -> None:
    page = open_page(demo.base + "/work-out/heat")
    choose(page, "Of", "Isomalt, clear")
    page.get_by_role("textbox", name="Thickness").fill("3")
    expect(page.get_by_text("cracks: no")).to_be_visible()
    page.get_by_role("textbox", name="Thickness").fill("18")
    expect(said(page)).to_have_text(re.compile("the freezer way (may|is likely to) crack"))
    expect(page.get_by_text(re.compile(r"no more than \d\.\d is safe"))).to_be_visible()
    # what cannot be is said where it is, and the rest stays
    page.get_by_role("textbox", name="Thickness").fill("0")
    expect(page.get_by_role("alert").first).to_have_text(re.compile("Thickness: 0.0.mm cannot be"))
    page.get_by_role("textbox", name="Thickness").fill("4")
    expect(said(page)).to_have_text(re.compile("^Fridge"))


def test_a_way_is_taken_into_a_piece_and_the_bench_follows_it_and_what_is_seen(
    demo: Server, open_page: OpenPage
) -> None:
    page = open_page(demo.base + "/work-out/heat")
    page.get_by_role("button", name=re.compile("^Cast: ")).click()
    page.get_by_role("option", name=re.compile("^Star-glass disc")).click()
    page.get_by_role("button", name="Take into Star-glass disc").click()
    expect(page.get_by_text("Star-glass disc goes this way.")).to_be_visible()
    page.goto(demo.base + "/pieces/piece-disc")
    expect(page.get_by_text("Bench top, then Fridge at 1:00")).to_be_visible()
    demo.call("POST", "/api/runs", {"id": "own", "order_id": "order-first-light", "actor": "Wren", "device": "t"})
    page.goto(demo.base + "/bench")
    act(page, "Hot sugar")
    space(page)
    act(page, "Weigh")
    space(page)
    act(page, "Take it off")
    demo.advance(200)
    space(page)
    act(page, "Swirl|Pour")
    demo.advance(300)
    act(page, "Pour 14")
    space(page)
    expect(page.get_by_role("button", name=re.compile("undo .pour"))).to_be_visible()
    demo.advance(90)
    act(page, "To the fridge")
    space(page)
    expect(page.get_by_role("button", name=re.compile("undo .moved"))).to_be_visible()
    page.keyboard.press("ArrowDown")
    page.keyboard.press("w")
    page.get_by_role("button", name="still moves").click()
    expect(page.get_by_role("button", name=re.compile("undo .seen"))).to_be_visible()
    expect(page.get_by_text("still moves")).to_be_visible()


def test_a_material_of_its_own_from_a_makers_sheet(demo: Server, open_page: OpenPage) -> None:
    page = open_page(demo.base + "/kitchen/materials/coating")
    page.get_by_role("button", name="Start one of your own from this").click()
    page.get_by_role("textbox", name="Name of the material").fill("Mint wafers")
    page.get_by_role("textbox", name="half time", exact=True).fill("90")
    expect(page.get_by_text("the maker's sheet", exact=False).first).to_be_visible()
    expect(page.get_by_role("status")).to_have_text("saved")
    page.get_by_role("textbox", name="melts at", exact=True).fill("300")
    expect(page.get_by_text("not saved")).to_be_visible()
    page.get_by_role("textbox", name="melts at", exact=True).fill("31")
    expect(page.get_by_role("status")).to_have_text("saved")
    page.goto(demo.base + "/work-out/heat")
    expect(said(page)).to_have_text(re.compile("^Fridge"))
    before = said(page).inner_text()
    choose(page, "Of", "Mint wafers")
    expect(said(page)).not_to_have_text(before)
