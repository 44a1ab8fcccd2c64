"""Questions asked and answered in a real browser, with what each takes counted: entries and clicks."""

import re
from collections.abc import Callable

import pytest
from playwright.sync_api import Page, expect

from tests.browser.conftest import Server

OpenPage = Callable[..., Page]


class Counted:
    """A page on which every entry and click is counted."""

    def __init__(self, page: Page) -> None:
        self.page, self.done = page, 0

    def click(self, role: str, name: str) -> None:
        self.done += 1
        self.page.get_by_role(role, name=re.compile(name)).first.click()  # type: ignore[arg-type]

    def type(self, label: str, text: str) -> None:
        self.done += 1
        self.page.get_by_label(label, exact=True).fill(text)

    def press(self, key: str) -> None:
        self.done += 1
        self.page.keyboard.press(key)

    def say(self, text: str) -> None:
        """Typed and sent off, as one entry."""
        self.done += 1
        field = self.page.get_by_role("combobox", name="Find, or ask")
        field.fill(text)
        expect(self.page.get_by_role("option").first).to_be_visible()
        self.page.keyboard.press("Enter")


def test_an_empty_workshop_answers_and_plans_within_few_entries(empty: Server, open_page: OpenPage) -> None:
    by = Counted(open_page(empty.base))
    page = by.page
    expect(page.get_by_role("navigation", name="To the first plan")).to_be_visible()
    answer = page.get_by_role("status")
    expect(answer).to_have_text(re.compile(r"\d+ to \d+ min"))
    before = answer.inner_text()
    by.type("Thickness", "12")
    expect(answer).not_to_have_text(before)
    assert by.done <= 3, "the first answer"
    # from the empty folder to a plan: eight at most
    by.done = 0
    by.click("link", "How much do I melt")
    by.type("How many", "30")
    expect(answer).to_have_text(re.compile(r"^\d+.g$"))
    by.click("button", "Make it an order")
    expect(page.get_by_role("button", name=re.compile(r"^Castings: 34\. Explain"))).to_be_visible()
    assert by.done <= 8, "the first plan"


def test_from_a_running_app_to_is_it_still_pourable_in_two(demo: Server, open_page: OpenPage) -> None:
    by = Counted(open_page(demo.base + "/orders/order-sky/lists"))
    expect(by.page.get_by_role("navigation", name="Views of the plan")).to_be_visible()
    by.press("/")
    by.say("is this bowl still pourable at 33 degrees")
    expect(by.page.get_by_role("status")).to_have_text(re.compile("^Yes, for "))
    assert by.done == 2
    expect(by.page.get_by_label("Reading")).to_have_value("33")


def test_the_finder_leads_to_things_and_questions_and_says_what_it_took(demo: Server, open_page: OpenPage) -> None:
    page = open_page(demo.base + "/kitchen")
    expect(page.get_by_label("Room", exact=True)).to_be_visible()
    page.keyboard.press("/")
    field = page.get_by_role("combobox", name="Find, or ask")
    field.fill("when can I turn out 4 mm sparkly hearts")
    first = page.get_by_role("option").first
    expect(first).to_contain_text("When may I turn it out?")
    expect(first).to_contain_text("4 mm: how thick")
    expect(first).to_contain_text("not known here: sparkly")
    page.keyboard.press("Enter")
    expect(page).to_have_url(re.compile(r"/work-out\?ask=unmould.*thickness_m=0\.004"))
    # things by their names; and what was used last is offered before anything is typed
    page.goto(demo.base + "/kitchen")
    expect(page.get_by_label("Room", exact=True)).to_be_visible()
    page.keyboard.press("/")
    expect(page.get_by_role("option").first).to_contain_text("When may I turn it out?")
    field.fill("hollow")
    page.get_by_role("option", name=re.compile("Hollow moon piece")).click()
    expect(page.get_by_role("heading", name="Hollow moon")).to_be_attached()
    # a word that the trade has for something else leads to it
    page.keyboard.press("/")
    field.fill("candy melts")
    expect(page.get_by_role("option", name=re.compile("^coating wafers"))).to_be_visible()
    field.fill("zzzz")
    expect(page.get_by_text("Nothing is called that")).to_be_visible()
    # what cannot be is said, and the question asked without it
    field.fill("still pour at 900 degrees")
    expect(page.get_by_role("option").first).to_contain_text("too much or too little: 900 degrees")
    page.keyboard.press("Enter")
    expect(page.get_by_role("status")).to_have_text(re.compile("^(Yes|Wait)"))
    # / reaches the field of this page too, and a colour opens where it is kept
    page.locator("body").press("/")
    expect(field).to_be_focused()
    colour = demo.call("GET", "/api/colours")["items"][0]["doc"]["name"]
    field.fill(colour)
    page.get_by_role("option", name=re.compile(f"^{re.escape(colour)}.*colour at hand")).click()
    expect(page.get_by_role("dialog").get_by_role("textbox", name="Name")).to_have_value(colour)
    # Enter in the same breath as the last letter is not too soon, and does not go where an earlier letter would have led
    page.goto(demo.base + "/kitchen")
    expect(page.get_by_label("Room", exact=True)).to_be_visible()
    page.keyboard.press("/")
    expect(field).to_be_focused()
    page.keyboard.type("how much for 30 stars")
    page.keyboard.press("Enter")
    expect(page).to_have_url(re.compile(r"/work-out\?ask=how_much.*quantity=30"))


def test_the_limit_is_said_where_a_figure_of_a_question_cannot_be(
    demo_shared: Server, open_page: OpenPage
) -> None:
    page = open_page(demo_shared.base + "/work-out?ask=unmould")
    thickness = page.get_by_label("Thickness", exact=True)
    thickness.fill("400")
    expect(page.get_by_role("alert")).to_contain_text(re.compile("at most 100.mm"))
    thickness.fill("4")
    expect(page.get_by_role("alert")).to_have_count(0)
    expect(page.get_by_role("status")).to_have_text(re.compile("min"))


@pytest.mark.parametrize(
    ("question", "said"),
    [
        ("Can I still pour", r"^(Yes|Wait|No)"),
        ("Which bursts", r"\d+ s, then"),
        ("How much seed", r"\d+.g"),
        ("Which colours", r"drops|g "),
        ("Will it sweat", r"[Ss]weat"),
        ("Does it stand", r"^It (stands|tips)"),
    ],
)
def test_every_question_is_answered_where_it_stands(
    demo_shared: Server, open_page: OpenPage, question: str, said: str
) -> None:
    page = open_page(demo_shared.base + "/work-out")
    page.get_by_role("link", name=re.compile(question)).click()
    expect(page.get_by_role("status")).to_have_text(re.compile(said))
    expect(page.get_by_text(re.compile("^Taken as usual|^Joins that hold"))).to_be_visible()


def test_old_addresses_lead_on(demo_shared: Server, open_page: OpenPage) -> None:
    page = open_page(demo_shared.base + "/plan/order-comet")
    for old, new in (
        ("/plan/order-comet", "/orders/order-comet"),
        ("/moulds/mould-disc", "/pieces/moulds/mould-disc"),
        ("/heat/materials/coating", "/kitchen/materials/coating"),
        ("/heat", "/work-out/heat"),
        ("/pieces/by-hand", "/work-out/by-hand"),
        ("/words", "/kitchen/words"),
    ):
        page.goto(demo_shared.base + old)
        expect(page).to_have_url(demo_shared.base + new)
        expect(page.get_by_role("heading").first).to_be_attached()
