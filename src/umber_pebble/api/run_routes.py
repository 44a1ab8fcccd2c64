"""Routes of runs: started, told, looked at from the bench, looked back on."""

from typing import Any

from umber_pebble.api import run_schemas as r
from umber_pebble.api import schemas as s
from umber_pebble.api.http import Api
from umber_pebble.services import bench, cards, logbook, pictures
from umber_pebble.services.foresight import Foresight
from umber_pebble.services.going_on import Onwards
from umber_pebble.services.new_event import NewEvent
from umber_pebble.services.runs import RunService

LARGEST_PICTURE = 16_000_000


def add_runs(api: Api, runs: RunService) -> None:
    """The routes of runs."""
    foresight, onwards = Foresight(runs), Onwards(runs)

    def start(body: r.StartRun) -> Any:
        return runs.start(body.id, body.order_id, body.actor, body.device)

    def add(body: r.EventIn, id: str) -> Any:
        event = NewEvent(
            body.id, body.kind, body.payload, body.actor, body.device, body.happened_at, body.schema_version
        )
        return runs.add(id, event)[0]

    def events(id: str) -> Any:
        return {"items": runs.look(id)[3]}

    def picture(id: str, picture: str) -> Any:
        return pictures.get(runs.workshop, id, picture)

    def put_picture(body: r.PictureIn, id: str) -> Any:
        pictures.put(runs.workshop, id, body.id, body.data)
        return {"id": body.id}

    def view(id: str, actor: str) -> Any:
        return {"view": bench.view(runs, id, actor)}

    def rail(actor: str) -> Any:
        return {"view": bench.rail(runs, actor)}

    def ahead(id: str, actor: str) -> Any:
        return {"ahead": foresight.ahead(id, actor)}

    def onward(id: str) -> Any:
        return {"onward": onwards.look(id)}

    def onward_search(id: str) -> Any:
        return {"onward": onwards.search(id)}

    def cards_of(id: str) -> Any:
        return {"items": cards.run_cards(runs, id)}

    def short(body: cards.ShortRequest, id: str) -> Any:
        return {"short": cards.short(runs, id, body)}

    def log(id: str) -> Any:
        return {"log": logbook.read(runs, id)}

    def rest(body: r.RestOrder, id: str) -> Any:
        return logbook.plan_what_is_left(runs, id, body.order_id)

    def logs() -> Any:
        return {"items": logbook.summaries(runs)}

    api.add("POST", "/api/runs", start, body=r.StartRun, reply=r.RunStarted, status=201, summary="Start a run")
    api.add(
        "POST", "/api/runs/{id}/events", add, body=r.EventIn, reply=r.EventOut, status=201, summary="Add an event"
    )
    api.add("GET", "/api/runs/{id}/events", events, reply=r.EventList, summary="A run's whole log")
    api.add(
        "POST",
        "/api/runs/{id}/pictures",
        put_picture,
        body=r.PictureIn,
        reply=r.PictureOut,
        status=201,
        summary="Keep a picture, for a note",
        largest=LARGEST_PICTURE,
    )
    api.add("GET", "/api/runs/{id}/pictures/{picture}", picture, reply="image/jpeg", summary="A picture of a run")
    api.add("GET", "/api/runs/{id}/bench", view, query=("actor",), reply=r.Bench, summary="A run at the bench")
    api.add(
        "GET", "/api/runs/{id}/ahead", ahead, query=("actor",), reply=r.AheadReply, summary="Its acts to the end"
    )
    api.add("GET", "/api/runs/{id}/onward", onward, reply=r.OnwardReply, summary="How it may go on from here")
    api.add(
        "POST",
        "/api/runs/{id}/onward/search",
        onward_search,
        reply=r.OnwardReply,
        summary="The same, after a search of a few seconds",
    )
    api.add("GET", "/api/bench", rail, query=("actor",), reply=r.Bench, summary="The live run, if any")
    api.add("GET", "/api/runs/{id}/cards", cards_of, reply=r.CardList, summary="A run's pour cards")
    api.add(
        "POST",
        "/api/runs/{id}/short",
        short,
        body=cards.ShortRequest,
        reply=r.ShortReply,
        summary="A pour that runs short",
    )
    api.add("GET", "/api/log", logs, reply=r.LogList, summary="All runs")
    api.add(
        "POST",
        "/api/log/{id}/rest",
        rest,
        body=r.RestOrder,
        reply=s.StoredOrder,
        status=201,
        summary="An order for what a run still owes",
    )
    api.add("GET", "/api/log/{id}", log, reply=r.Log, summary="A run looked back on")
