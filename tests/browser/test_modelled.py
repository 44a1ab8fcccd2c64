"""A basket of paste with a rope handle, from its parts to the bench, in a real browser."""

import re
from collections.abc import Callable

from playwright.sync_api import Page, expect

from tests.browser.conftest import Server, act, space

OpenPage = Callable[..., Page]


def test_a_basket_of_paste_is_entered_planned_and_made(demo: Server, open_page: OpenPage) -> None:
    page = open_page(demo.base + "/pieces/piece-basket")
    page.get_by_label("Part 1 of 5: Wall").click()
    page.get_by_role("option", name="Handle").click()
    fields = page.get_by_role("region", name="The pass")
    section = page.get_by_role("region", name="Section")
    # two strands of 6 mm, 160 mm as they lie, as a helix: by hand 2 x 180.5 mm x 28.3 mm2 x 1.4 g/cm3
    expect(section).to_contain_text("14.3 g")
    fields.get_by_label("Strands, twisted").fill("3")
    expect(section).not_to_contain_text("14.3 g")
    # a rope thinner than its paste bears is refused in words, and nothing is lost
    fields.get_by_label("A strand, how thick").fill("1.2")
    expect(page.get_by_role("alert")).to_contain_text("so thin a rope breaks under its own weight")
    fields.get_by_label("A strand, how thick").fill("6")
    fields.get_by_label("Strands, twisted").fill("2")
    expect(section).to_contain_text("14.3 g")
    expect(page.get_by_text("saved").first).to_be_visible()
    page.goto(demo.base + "/orders/order-baskets")
    pastes = page.get_by_role("list", name="Pastes to have ready")
    expect(pastes).to_contain_text(re.compile("248.gFondant"))
    expect(page.get_by_text("pieces, nothing melted")).to_be_visible()
    page.get_by_role("link", name="Lists").click()
    together = page.get_by_role("list", name="To put together")
    expect(together).to_contain_text("Comet basket: 1 × wall, 1 × floor, 1 × handle, 3 × star rose, 1 × bow")
    timetable = page.get_by_role("link", name="Timetable", exact=True)
    timetable.click()
    expect(timetable).to_have_attribute("aria-current", "page")
    page.get_by_role("button", name="Start at the bench").click()
    act(page, "Model 4 pieces: Comet basket")
    for _ in range(5):
        act(page, "Model")
        space(page)
    act(page, "Join 4 pieces")
    demo.advance(4 * 3600)
    space(page)
    act(page, "Join 4 pieces")


def test_a_piece_is_started_by_hand_and_put_into_a_mould_again(demo: Server, open_page: OpenPage) -> None:
    page = open_page(demo.base + "/pieces/piece-disc")
    page.get_by_role("radio", name="by hand, or bought").click()
    expect(page.get_by_role("list", name="Passes")).to_contain_text("Rope")
    expect(page.get_by_text("As it lies, to scale.")).to_be_visible()
    page.get_by_role("radio", name="in a mould, on a sheet or a drawing").click()
    expect(page.get_by_role("list", name="Passes")).not_to_contain_text("Rope")
    expect(page.get_by_text("Press a layer, drag its edge.")).to_be_visible()
