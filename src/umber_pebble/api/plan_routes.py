"""The routes of an order's plan, in parts."""

from typing import Any

from umber_pebble.api.http import Api
from umber_pebble.api.schemas import Reply
from umber_pebble.core.plan.alternatives import Alternative
from umber_pebble.core.plan.cards import Card
from umber_pebble.core.plan.window_rows import WindowRows
from umber_pebble.services import day_sheets, plan_parts
from umber_pebble.services.documents import Order
from umber_pebble.services.workshop import Workshop


class PlanGlance(Reply):
    glance: plan_parts.Glance


class PlanMelt(Reply):
    part: plan_parts.MeltPart


class PlanWindows(Reply):
    rows: WindowRows


class PlanCards(Reply):
    cards: list[Card]


class PlanTimetable(Reply):
    timetable: plan_parts.TimetablePart


class PlanAtHand(Reply):
    at_hand: day_sheets.AtHand


class PlanShorter(Reply):
    shorter: plan_parts.Shorter


class PlanAlternatives(Reply):
    alternatives: list[Alternative]


def add(api: Api, workshop: Workshop) -> None:
    """Put them on the API."""
    parts = plan_parts.PlanParts(workshop)

    def glance(body: Order) -> Any:
        return {"glance": parts.glance(body)}

    def melt(body: plan_parts.MeltRequest) -> Any:
        return {"part": parts.melt(body)}

    def windows(body: plan_parts.PlanRequest) -> Any:
        return {"rows": parts.windows(body)}

    def cards(body: plan_parts.PlanRequest) -> Any:
        return {"cards": parts.cards(body)}

    def timetable(body: plan_parts.PlanRequest) -> Any:
        return {"timetable": parts.timetable(body)}

    def at_hand(body: plan_parts.PlanRequest) -> Any:
        return {"at_hand": parts.at_hand(body)}

    def shorter(body: plan_parts.PlanRequest) -> Any:
        return {"shorter": parts.shorter(body)}

    def alternatives(body: plan_parts.PlanRequest) -> Any:
        return {"alternatives": parts.alternatives(body)}

    of, asked = "/api/figures/plan", plan_parts.PlanRequest
    api.add("POST", of, glance, body=Order, reply=PlanGlance, summary="An order compiled, at a glance")
    api.add(
        "POST",
        f"{of}/melt",
        melt,
        body=plan_parts.MeltRequest,
        reply=PlanMelt,
        summary="One of its melts as it is made",
    )
    api.add(
        "POST", f"{of}/windows", windows, body=asked, reply=PlanWindows, summary="When to pour, work and unmould"
    )
    api.add("POST", f"{of}/cards", cards, body=asked, reply=PlanCards, summary="Its pour cards")
    api.add("POST", f"{of}/at-hand", at_hand, body=asked, reply=PlanAtHand, summary="What must be at hand for it")
    api.add(
        "POST", f"{of}/shorter", shorter, body=asked, reply=PlanShorter, summary="A better timetable, searched for"
    )
    api.add("POST", f"{of}/timetable", timetable, body=asked, reply=PlanTimetable, summary="What is done when")
    api.add(
        "POST",
        f"{of}/alternatives",
        alternatives,
        body=asked,
        reply=PlanAlternatives,
        summary="What else it could do, and at which price",
    )
