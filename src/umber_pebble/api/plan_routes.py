"""The routes of an order's plan, in parts."""

from typing import Any

from umber_pebble.api.http import Api
from umber_pebble.api.schemas import Reply
from umber_pebble.core.plan.cards import Card
from umber_pebble.core.plan.window_rows import WindowRows
from umber_pebble.services import plan_parts
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
    api.add("POST", f"{of}/timetable", timetable, body=asked, reply=PlanTimetable, summary="What is done when")
