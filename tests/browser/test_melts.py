"""Bursts corrected at the bowl, six bags held while piping, in a real browser."""

import re
from collections.abc import Callable

from playwright.sync_api import Page, expect

from tests.browser.conftest import Server, act, at_a_hands_pace, change_the_order, space, unfold

OpenPage = Callable[..., Page]
COLOURS = {
    "Coral": "#e8705a",
    "Night": "#26304f",
    "Moss": "#6b7f3a",
    "Ice": "#bfe3ea",
    "Sun": "#f1c232",
    "Salt": "#f4f1ea",
}


def melted(page: Page, demo: Server) -> None:
    page.get_by_role("button", name="Start at the bench").click()
    act(page, "Weigh .* coating, melt it")
    space(page)
    act(page, "10 s more")
    demo.advance(46)
    page.get_by_role("button", name="a few lumps").click()
    act(page, "Take the bowl out|more")
    page.get_by_role("button", name="smooth", exact=True).click()
    act(page, "Take the bowl out")
    space(page)
    expect(page.get_by_role("button", name=re.compile("undo .off the heat"))).to_be_visible()


def test_what_is_seen_changes_the_next_burst(demo: Server, open_page: OpenPage) -> None:
    page = open_page(demo.base + "/orders/order-planets")
    page.get_by_role("button", name="Start at the bench").click()
    act(page, "Weigh .* coating, melt it")
    space(page)
    expect(page.get_by_text("The oven is on.")).to_be_visible()
    demo.advance(46)
    then = page.get_by_text(re.compile(r"Then about .* % melted"))
    before = then.inner_text()
    page.get_by_role("button", name="solid", exact=True).click()
    expect(then).not_to_have_text(before)
    # grains: no more heat, and it stays with the bowl
    page.get_by_role("button", name="grainy").click()
    act(page, "Take the bowl out")
    expect(page.get_by_text("was too hot")).to_be_visible()
    space(page)
    expect(page.get_by_role("button", name=re.compile("undo .off the heat"))).to_be_visible()
    expect(page.get_by_text("was too hot")).to_be_visible()


def test_six_bags_are_held_while_piping(demo: Server, open_page: OpenPage) -> None:
    page = open_page(demo.base + "/orders/order-planets")
    melted(page, demo)
    page.keyboard.press("d")
    dialog = page.get_by_role("dialog")
    for i, (name, colour) in enumerate(COLOURS.items(), 1):
        if i > 1:
            dialog.get_by_role("button", name="One more").click()
        dialog.get_by_label(f"Name {i}").fill(name)
        dialog.get_by_label(f"Weight {i}").fill("20")
        dialog.get_by_label(f"Colour {i}").fill(colour)
    dialog.get_by_label("Weight 1").fill("400")
    expect(dialog.get_by_text("more than is in it")).to_be_visible()
    expect(dialog.get_by_role("button", name="Filled")).to_be_disabled()
    dialog.get_by_label("Weight 1").fill("20")
    dialog.get_by_role("button", name="Filled").click()
    # so many flow for half an hour yet: they are folded, each with how long still
    folded = page.get_by_role("button", name=re.compile("6 more, not wanted yet"))
    expect(page.get_by_role("region", name="Pots and rounds")).to_contain_text("Coral")
    folded.click()
    for name in COLOURS:
        expect(page.get_by_role("img", name=re.compile(f"^{name}: "))).to_be_visible()
    # one goes over the water, one is used up, one is undone
    page.get_by_role("button", name=re.compile("^Coral")).click()
    page.get_by_role("button", name="Coral: over hot water").click()
    expect(page.get_by_text(re.compile("20.g, over hot water"))).to_be_visible()
    page.get_by_role("button", name=re.compile("^Night")).first.click()
    page.get_by_role("button", name="Night: used up").click()
    expect(page.get_by_role("img", name=re.compile("^Night: "))).to_have_count(0)
    page.get_by_role("button", name=re.compile("undo .poured")).click()
    expect(page.get_by_role("img", name=re.compile("^Night: "))).to_be_visible()
    # the rail shows them on every other screen
    page.get_by_role("link", name="Orders", exact=True).click()
    rail = page.get_by_role("list", name="Held")
    expect(rail.get_by_role("listitem")).to_have_count(6)
    page.get_by_role("link", name="Bench", exact=True).first.click()
    demo.advance(45 * 60)
    expect(page.get_by_test_id("act")).to_have_text(re.compile("^(Coral|Night|Moss|Ice|Sun|Salt): "))


def test_dark_is_tempered_by_seed_with_the_probe_and_tested(demo: Server, open_page: OpenPage) -> None:
    page = open_page(demo.base + "/orders/order-meteorites")
    expect(page.get_by_text(re.compile("keep back .* as seed")).first).to_be_visible()
    change_the_order(page)
    unfold(page, "Melt and temper the")
    page.get_by_role("button", name=re.compile("^Tempered by: ")).click()
    page.get_by_role("option", name="No temper, chilled hard").click()
    expect(page.get_by_text("it blooms", exact=False)).to_be_visible()
    page.get_by_role("button", name=re.compile("^Tempered by: ")).click()
    page.get_by_role("option", name="Seed", exact=True).click()
    seed = page.get_by_role("textbox", name="The seed is at")
    seed.fill("31.2")
    expect(page.get_by_text("cannot be", exact=False).first).to_be_visible()
    seed.fill("20")
    expect(page.get_by_text(re.compile("keep back .* as seed")).first).to_be_visible()
    expect(page.get_by_role("status")).to_have_text("saved")
    page.get_by_role("button", name="Start at the bench").click()
    act(page, "Weigh .* dark couverture, melt it")
    space(page)
    act(page, "s more")
    demo.advance(46)
    page.get_by_role("button", name="smooth", exact=True).click()
    expect(page.get_by_role("button", name=re.compile("undo .seen"))).to_be_visible()
    page.get_by_role("button", name="it is done: take it out now").click()
    act(page, "seed|Melt it on")
    read(page, "46.5")
    act(page, "Stir, let it cool to 35")
    demo.advance(300)
    read(page, "34.6")
    act(page, "Stir in .* seed")
    space(page)
    act(page, "Stir, then read")
    demo.advance(70)
    read(page, "31.6")
    act(page, "smear|lumps")
    space(page)
    act(page, "Look at the smear")
    demo.advance(200)
    page.get_by_role("button", name="still soft, or dull").click()
    act(page, "more seed")
    at_a_hands_pace(page)
    page.get_by_role("button", name=re.compile("undo .temper")).click()
    page.get_by_role("button", name="set, with gloss").click()
    act(page, "Pour 6 cavities")


def read(page: Page, degc: str) -> None:
    page.keyboard.type(degc)
    page.keyboard.press("Enter")
    expect(page.get_by_role("button", name=re.compile("undo .reading"))).to_be_visible()


def test_the_melt_screen_answers_and_refuses_in_words(demo: Server, open_page: OpenPage) -> None:
    page = open_page(demo.base + "/work-out/melt")
    said = page.get_by_role("status")
    expect(said).to_have_text("30 s, then 10 s")
    page.get_by_role("textbox", name="Wafers or pieces, thick").fill("12")
    expect(said).not_to_have_text("30 s, then 10 s")
    page.get_by_role("textbox", name="How much").fill("0")
    expect(page.get_by_text("cannot be", exact=False)).to_be_visible()
    # isomalt cooked large takes water; a pot too small is said
    page.get_by_role("tab", name="Isomalt and sugar").click()
    expect(said).to_contain_text("60 g water")
    page.get_by_role("textbox", name="How much").fill("3000")
    expect(page.get_by_text("The pot is too small", exact=False)).to_be_visible()
    page.get_by_role("textbox", name="How much").fill("200")
    expect(said).to_contain_text("Dry")
    page.get_by_role("textbox", name="Cook to").fill("400")
    expect(page.get_by_text("cannot be", exact=False)).to_be_visible()
    page.get_by_role("tab", name="Dry caramel").click()
    expect(said).to_contain_text("Amber after")
    page.get_by_role("tab", name="A bath to dip in").click()
    expect(said).to_have_text(re.compile("Tilt it"))
    page.get_by_role("textbox", name="In the vessel").fill("80")
    expect(said).to_contain_text("Top up")
    page.get_by_role("tab", name="My oven's power").click()
    expect(said).to_have_text("770 W")
    page.get_by_role("textbox", name="Full power for").fill("15")
    expect(page.get_by_text("cannot be", exact=False)).to_be_visible()
