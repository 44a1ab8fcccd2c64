"""What is made by hand, the room a place has, and a second melt, in a real browser."""

import re
from collections.abc import Callable
from typing import Any

from playwright.sync_api import Page, expect

from tests.browser.conftest import Server, act, see, space, unfold

OpenPage = Callable[..., Page]


def test_amounts_by_hand_follow_what_is_typed(demo: Server, open_page: OpenPage) -> None:
    page = open_page(demo.base + "/work-out/by-hand")
    comes = page.get_by_role("region", name="What comes of it")
    given = page.get_by_role("region", name="Given")
    expect(comes).to_contain_text("dark chocolate")
    # common practice, no source: dark ganache of equal weights, white of three to one
    given.get_by_label("All of it").fill("300")
    expect(comes).to_contain_text("150 g")
    given.get_by_role("button", name=re.compile("^To be mixed")).click()
    page.get_by_role("option", name="white ganache").click()
    expect(comes).to_contain_text("225 g")
    given.get_by_label(re.compile("^Share of white chocolate")).fill("60")
    expect(comes).to_contain_text("180 g")
    # a ball with no hollow is refused where it is typed
    given.get_by_label("its wall").fill("80")
    expect(given.get_by_role("alert")).to_contain_text("Wall: 80 mm cannot be")
    given.get_by_label("its wall").fill("3")
    expect(given.get_by_role("alert")).to_have_count(0)
    expect(comes).to_contain_text("hollow ball")


def test_a_place_with_no_room_is_said_in_the_plan(demo: Server, open_page: OpenPage) -> None:
    stored = demo.call("GET", "/api/moulds/mould-planet")
    demo.call(
        "PUT", "/api/moulds/mould-planet", {"version": stored["version"], "doc": {**stored["doc"], "owned": 3}}
    )
    page = open_page(demo.base + "/kitchen")
    page.get_by_role("button", name=re.compile(r"^Fridge 4")).click()
    page.get_by_role("group", name="Fridge", exact=True).get_by_label("Moulds it takes").fill("1")
    expect(page.get_by_text("saved").first).to_be_visible()
    order = demo.call("GET", "/api/orders/order-planets")
    order["doc"]["lines"][0]["quantity"] = 20
    demo.call("PUT", "/api/orders/order-planets", {"version": order["version"], "doc": order["doc"]})
    page.goto(demo.base + "/orders/order-planets")
    expect(page.get_by_role("alert").first).to_contain_text(
        re.compile("Fridge takes 1 moulds, and one filling alone brings [23]")
    )


def test_a_marbled_heart_is_swirled_right_before_it_is_poured(demo: Server, open_page: OpenPage) -> None:
    order = demo.call("GET", "/api/orders/order-pops")
    order["doc"]["lines"] = [{"piece_id": "piece-nebula", "quantity": 2}]
    demo.call("PUT", "/api/orders/order-pops", {"version": order["version"], "doc": order["doc"]})
    page = open_page(demo.base + "/orders/order-pops")
    see(page, "Cards")
    expect(page.get_by_role("article", name="Pour card 1")).to_contain_text("swirled into the next bowl")
    see(page, "Timetable")
    unfold(page, "What the hands do")
    expect(page.get_by_role("list", name="Tasks of the hands")).to_contain_text("swirl in")
    page.get_by_role("button", name="Start at the bench").click()
    act(page, "Weigh .* coating")
    run = demo.call("GET", "/api/bench?actor=Wren")["view"]["run_id"]

    def tell(number: int, kind: str, **payload: Any) -> None:
        body = {
            "id": f"m{number}",
            "kind": kind,
            "payload": payload,
            "actor": "Wren",
            "device": "t",
            "happened_at": None,
            "schema_version": 1,
        }
        demo.call("POST", f"/api/runs/{run}/events", body)
        demo.advance(40)

    # the second melt is ready first, and waits for the bowl it goes into
    for number, (kind, cook) in enumerate((("burst", 0), ("rested", 0), ("burst", 1), ("rested", 1))):
        tell(number, kind, cook=cook, **({"seconds": 30.0} if kind == "burst" else {"degc": 36.0}))
    act(page, "Swirl in")
    space(page)
    act(page, "Pour .* cavit")
    space(page)
    act(page, "To the fridge")
