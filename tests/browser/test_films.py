"""Transfers of one's own, films that are bent, bought things and mixtures by feel, in a real browser."""

import re
from collections.abc import Callable

from playwright.sync_api import Page, expect

from tests.browser.conftest import Server, act, space

OpenPage = Callable[..., Page]


def test_white_is_put_behind_a_light_colour_with_one_press(demo: Server, open_page: OpenPage) -> None:
    page = open_page(demo.base + "/pieces/piece-tile")
    build = page.get_by_role("region", name="The build")
    build.get_by_text("Night, scratched").click()
    over = page.get_by_role("region", name="Over what is behind it")
    expect(over).to_contain_text("It needs no white behind it.")
    build.get_by_text("Ochre, mottled").click()
    expect(over).to_contain_text("White behind it brings its colour back.")
    over.get_by_role("button", name="Put white behind it").click()
    expect(build.get_by_text("White behind")).to_be_visible()
    build.get_by_text("Ochre, mottled").click()
    expect(over).to_contain_text("It needs no white behind it.")
    expect(page.get_by_text("saved").first).to_be_visible()
    page.reload()
    expect(page.get_by_role("region", name="The build").get_by_text("White behind")).to_be_visible()


def test_bands_are_wrapped_round_their_forms_at_the_bench(demo: Server, open_page: OpenPage) -> None:
    page = open_page(demo.base + "/pieces/piece-ring")
    page.get_by_role("region", name="The build").get_by_text("Band round a form").click()
    fields = page.get_by_role("region", name="The pass")
    fields.get_by_label("Form, across").fill("80")
    # pi x 81.5 mm and 8 mm of seam, and the strip is 210 mm long
    expect(fields.get_by_role("alert")).to_contain_text("does not reach round its form")
    expect(fields.get_by_role("alert")).to_contain_text("264")
    fields.get_by_label("Form, across").fill("60")
    expect(fields.get_by_role("alert")).to_have_count(0)
    expect(page.get_by_text("saved").first).to_be_visible()
    order = demo.call("GET", "/api/orders/order-rings")
    order["doc"]["lines"] = [line for line in order["doc"]["lines"] if line["piece_id"] == "piece-ring"]
    demo.call("PUT", "/api/orders/order-rings", {"version": order["version"], "doc": order["doc"]})
    page.goto(demo.base + "/orders/order-rings")
    page.get_by_role("button", name="Start at the bench").click()
    act(page, "Weigh .* coating, melt it")
    demo.melted_elsewhere(1)
    act(page, "Pour 4 cavities")
    demo.advance(240)
    space(page)
    act(page, "Wrap round their forms: 4 pieces")
    expect(page.get_by_text(re.compile("film outside, the ends lapping 8.0.mm"))).to_be_visible()
    demo.advance(320)
    space(page)
    # the second round has no forms until the first is off them, so nothing says it may be poured now
    act(page, "Peel 4 pieces")
    expect(page.get_by_role("region", name="Then").get_by_text(re.compile("orbit ring"))).to_have_count(0)


def test_what_is_bought_is_said_where_it_is_not_food_and_a_mixture_takes_a_spoon_more(
    demo: Server, open_page: OpenPage
) -> None:
    page = open_page(demo.base + "/pieces/piece-pick")
    page.get_by_role("region", name="The build").get_by_text("Covered wire").click()
    fields = page.get_by_role("region", name="The pass")
    expect(fields.get_by_text(re.compile(r"0\.5.mm thick\. Held out level it bears"))).to_be_visible()
    fields.get_by_label("Carries at its end").fill("90")
    expect(fields.get_by_role("alert")).to_contain_text("bends for good")
    fields.get_by_label("Carries at its end").fill("3")
    expect(fields.get_by_role("alert")).to_have_count(0)
    expect(page.get_by_text("saved").first).to_be_visible()
    page.goto(demo.base + "/orders/order-picks")
    expect(page.get_by_text(re.compile("Covered wire is of unknown status, so not food"))).to_be_visible()
    page.goto(demo.base + "/orders/order-picks/lists")
    bought = page.get_by_role("list", name="Bought")
    expect(bought).to_contain_text("Sugar lace, each 225 mm")
    expect(bought).to_contain_text("Cake board, not eaten")

    page.goto(demo.base + "/work-out/by-hand")
    page.get_by_label("To be mixed").click()
    page.get_by_role("option", name="cake filling").click()
    page.get_by_label("All of it").fill("180")
    expect(page.get_by_text("1¼ cups")).to_be_visible()
    page.get_by_role("button", name=re.compile("^Too stiff: 1 teaspoon of frosting more")).click()
    expect(page.get_by_label("All of it")).to_have_value("184.83")


def test_off_cuts_of_a_paste_and_its_colour_are_told(demo: Server, open_page: OpenPage) -> None:
    page = open_page(demo.base + "/orders/order-baskets")
    page.goto(demo.base + "/orders/order-baskets/by-hand")
    pastes = page.get_by_role("list", name="Pastes to have ready")
    expect(pastes).to_contain_text("Dome ochre, gum paste")
    expect(pastes).to_contain_text("kneaded in:")
    expect(pastes).to_contain_text("off-cuts left in the end: 37 g, wrapped airtight")


def test_a_shorter_last_sheet_is_drawn_for_as_many_as_are_wanted(demo: Server, open_page: OpenPage) -> None:
    page = open_page(demo.base + "/pieces/moulds/mould-aurora")
    wanted = page.get_by_role("region", name="Sheets for so many")
    wanted.get_by_label("Wanted: crescent").fill("12")
    wanted.get_by_label("Wanted: star").fill("4")
    expect(page.get_by_role("img", name="Cutting plan: 12 crescent, 4 star")).to_be_visible()
    expect(wanted).to_contain_text("One sheet, only 129 mm long")
    with page.expect_download() as paper:
        page.get_by_role("link", name="SVG", exact=True).click()
    assert re.search(r'width="12[89](\.\d+)?mm"', paper.value.path().read_text())
