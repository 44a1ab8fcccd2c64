"""What is typed: out before the page is left, kept through an outage, a refusal, a conflict and a reload."""

from collections.abc import Callable

from playwright.sync_api import Locator, Page, expect

from tests.browser.conftest import Server

OpenPage = Callable[..., Page]


def level_mm(server: Server, piece: str) -> float:
    fill = server.call("GET", f"/api/pieces/{piece}")["doc"]["parts"][0]["passes"][0]
    return float(round(fill["level_m"] * 1000, 3))


def field(page: Page) -> Locator:
    return page.get_by_role("textbox", name="Fill level")


def mark(page: Page, words: str) -> None:
    expect(page.get_by_role("status").get_by_text(words, exact=True)).to_be_visible(timeout=15_000)


def test_a_page_left_at_once_has_stored_what_was_typed(demo: Server, open_page: OpenPage) -> None:
    page = open_page(demo.base + "/pieces/piece-lens")
    field(page).fill("4")
    page.goto(demo.base + "/kitchen/words")
    page.goto(demo.base + "/pieces/piece-lens")
    expect(field(page)).to_have_value("4")
    assert level_mm(demo, "piece-lens") == 4


def test_typed_without_the_app_it_outlives_a_reload_and_is_stored_later(demo: Server, open_page: OpenPage) -> None:
    page = open_page(demo.base + "/pieces/piece-lens")
    expect(field(page)).to_have_value("3")
    page.evaluate("() => navigator.serviceWorker.ready")
    page.context.set_offline(True)
    field(page).fill("4")
    mark(page, "not saved yet")
    # and on every other screen
    page.get_by_role("link", name="Kitchen", exact=True).click()
    typed = page.get_by_text("Typed, not saved:")
    expect(typed).to_be_visible()
    assert level_mm(demo, "piece-lens") == 3
    page.reload()
    expect(typed).to_be_visible()
    page.context.set_offline(False)
    expect(typed).to_have_count(0, timeout=15_000)
    assert level_mm(demo, "piece-lens") == 4


def test_what_is_refused_is_kept_as_typed(demo: Server, open_page: OpenPage) -> None:
    page = open_page(demo.base + "/kitchen")
    room = page.get_by_role("textbox", name="Room", exact=True)
    before = room.input_value()
    name = page.get_by_role("textbox", name="Name of the kitchen")
    name.fill("")
    mark(page, "not saved")
    page.reload()
    mark(page, "not saved")
    expect(name).to_have_value("")
    page.get_by_role("button", name="Back to what is saved").click()
    mark(page, "saved")
    expect(name).not_to_have_value("")
    expect(room).to_have_value(before)


def test_keep_mine_says_what_it_undoes_even_after_a_reload(demo: Server, open_page: OpenPage) -> None:
    page = open_page(demo.base + "/pieces/piece-lens")
    expect(field(page)).to_have_value("3")
    page.route("**/api/stream", lambda route: route.abort())
    page.route("**/api/pieces", lambda route: route.abort())
    stored = demo.call("GET", "/api/pieces/piece-lens")
    theirs = stored["doc"]
    theirs["parts"][0]["passes"][0]["level_m"] = 0.002
    theirs["name"] = "Lens of the other"
    demo.call("PUT", "/api/pieces/piece-lens", {"version": stored["version"], "doc": theirs})
    field(page).fill("4")
    for _ in range(2):
        expect(page.get_by_text("changed elsewhere", exact=False)).to_be_visible()
        undoes = page.get_by_text("Keeping yours undoes")
        expect(undoes).to_contain_text("Fill level: 2.0 mm (yours: 4.0 mm)")
        expect(undoes).to_contain_text("Name: Lens of the other")
        page.unroute("**/api/pieces")
        page.reload()
    page.get_by_role("button", name="Keep mine").click()
    mark(page, "saved")
    assert level_mm(demo, "piece-lens") == 4
    # nothing is left of it
    page.reload()
    mark(page, "saved")
