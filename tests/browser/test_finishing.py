"""Gold on the right and the wrong base, a spirit too weak, what may be eaten, and finishes at the bench, in a real browser."""

import re
from collections.abc import Callable

from playwright.sync_api import Page, expect

from tests.browser.conftest import Server, act, space

OpenPage = Callable[..., Page]


def test_gold_is_looked_at_a_weak_spirit_is_said_and_the_label_is_written(
    demo: Server, open_page: OpenPage
) -> None:
    page = open_page(demo.base + "/pieces/piece-gilded")
    page.get_by_role("region", name="The build").get_by_text("Gold dust").click()
    looks = page.get_by_role("region", name="How it looks")
    expect(looks).to_contain_text("This base suits it.")
    page.get_by_label("Part 1 of 2: Gilded star").click()
    page.get_by_role("option", name="Dark star").click()
    page.get_by_role("region", name="The build").get_by_text("Gold paint").click()
    fields = page.get_by_role("region", name="The pass")
    expect(fields.get_by_role("alert")).to_contain_text("its water draws into the face")
    fields.get_by_label("Alcohol in the spirit, by volume").fill("95")
    expect(fields.get_by_role("alert")).to_have_count(0)
    # one thin coat of it leaves the dark chocolate through
    fields.get_by_label("Coats").fill("1")
    fields.get_by_label("Dust in the mix, by volume").first.fill("20")
    expect(looks).to_contain_text("This base dulls it.")
    expect(page.get_by_text("saved").first).to_be_visible()
    page.get_by_text("put together").first.click()
    eaten = page.get_by_role("region", name="What may be eaten")
    expect(eaten).to_contain_text(
        "Remove before eating: Covered wire (Gilded star). Not for eating: Dark star (Gold paint)."
    )


def test_a_piece_is_dusted_and_lacquered_once_it_is_no_longer_cold(demo: Server, open_page: OpenPage) -> None:
    order = demo.call("GET", "/api/orders/order-rings")
    piece = demo.call("GET", "/api/pieces/piece-gilded")
    piece["doc"]["parts"] = piece["doc"]["parts"][:1]
    piece["doc"]["parts"][0]["passes"] = [of for of in piece["doc"]["parts"][0]["passes"] if of["kind"] != "wire"]
    demo.call("PUT", "/api/pieces/piece-gilded", {"version": piece["version"], "doc": piece["doc"]})
    line = {"piece_id": "piece-gilded", "quantity": 3, "spares": "as_sure"}
    demo.call(
        "PUT", "/api/orders/order-rings", {"version": order["version"], "doc": order["doc"] | {"lines": [line]}}
    )
    page = open_page(demo.base + "/orders/order-rings/lists")
    expect(page.get_by_role("list", name="Finishes")).to_contain_text("pot, Gold dust")
    page.get_by_role("button", name="Start at the bench").click()
    act(page, "Weigh .* coating, melt it")
    demo.melted_elsewhere(1)
    act(page, r"Pour \d cavities")
    demo.advance(240)
    space(page)
    act(page, "To the fridge")
    space(page)
    act(page, r"Unmould \d pieces")
    demo.advance(1500)
    space(page)
    act(page, "How did they come out")
    space(page)
    act(page, "Dust 3, coat 1 of 2: Gilded stars")
    expect(page.get_by_text("no longer cold in")).to_be_visible()
    expect(page.get_by_text(re.compile("Fine dust: a mask"))).to_be_visible()
    demo.advance(1500)
    space(page)
    act(page, "Dust 3, coat 2 of 2")
    space(page)
    act(page, "Lacquer 3: Gilded stars")
    expect(page.get_by_text(re.compile("no flame, a mask, a window open"))).to_be_visible()
    space(page)
    act(page, "All done")
