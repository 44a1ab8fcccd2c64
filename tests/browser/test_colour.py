"""A wanted colour for isomalt at two thicknesses and for ivory coating; a swatch; a correction; in a real browser."""

import re
from collections.abc import Callable

from playwright.sync_api import Page, expect

from tests.browser.conftest import Server
from tests.browser.test_heat import choose

OpenPage = Callable[..., Page]


def test_a_wanted_colour_for_isomalt_at_two_thicknesses(demo: Server, open_page: OpenPage) -> None:
    page = open_page(demo.base + "/work-out/colour")
    status = page.get_by_label("Recipe").get_by_role("status")
    expect(status).to_have_text(re.compile(r"CIEDE2000"))
    expect(page.get_by_role("img", name=re.compile("^3.0.mm, in daylight: #"))).to_be_visible()
    expect(page.get_by_role("img", name=re.compile("^12.0.mm, in warm light: #"))).to_be_visible()
    drops = page.get_by_text(re.compile(r"^\d+(\.\d)? drops, ")).first
    before = drops.inner_text()
    page.get_by_role("textbox", name="Right at a thickness of").fill("6")
    expect(drops).not_to_have_text(before)
    page.get_by_role("textbox", name="Wanted colour", exact=True).fill("blue")
    expect(page.get_by_role("alert").first).to_have_text(re.compile("six digits"))
    page.get_by_role("textbox", name="Wanted colour", exact=True).fill("#c03050")
    expect(status).to_have_text(re.compile(r"CIEDE2000"))
    page.get_by_role("textbox", name="How much").fill("0")
    expect(page.get_by_role("alert").first).to_be_visible()


def test_ivory_coating_a_swatch_and_a_correction(demo: Server, open_page: OpenPage) -> None:
    page = open_page(demo.base + "/work-out/colour")
    choose(page, "Of", "White couverture, ivory")
    page.get_by_role("textbox", name="Wanted colour", exact=True).fill("#7fae9a")
    expect(page.get_by_text("strength unknown: lay a swatch")).to_be_visible()
    expect(page.get_by_text(re.compile("^Not for this: Dawn yellow"))).to_be_visible()
    page.get_by_role("button", name="Change Deep-sky blue, oil").click()
    page.get_by_role("button", name="Patch 9").click()
    page.get_by_role("button", name="Keep").click()
    expect(page.get_by_text("strength unknown: lay a swatch")).to_have_count(0)
    status = page.get_by_label("Recipe").get_by_role("status")
    reached = status.inner_text()
    # too much blue went in: it can only be added to
    page.get_by_label("In it already").get_by_role("textbox", name="Deep-sky blue, oil").fill("3")
    expect(status).not_to_have_text(reached)
    expect(status).to_have_text(re.compile("cannot be taken out|do not reach|than is usual"))
