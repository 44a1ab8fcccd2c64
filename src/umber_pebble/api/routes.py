"""Every operation of the service: read, call, answer."""

from functools import partial
from typing import Any
from zoneinfo import available_timezones

from flask import request
from pydantic import BaseModel

from umber_pebble.api import (
    ask_routes,
    filigree_routes,
    itself,
    melt_routes,
    piece_routes,
    plan_routes,
    reference,
    sheet_routes,
)
from umber_pebble.api import schemas as s
from umber_pebble.api.errors import invalid
from umber_pebble.api.guard import DEVICE_COOKIE, PAIR_PATH, is_local
from umber_pebble.api.http import Api, WithCookie
from umber_pebble.api.run_routes import add_runs
from umber_pebble.core.bench.subject import Subject
from umber_pebble.core.materials.load import materials, table
from umber_pebble.core.materials.words import glossary
from umber_pebble.services import (
    archive,
    day_sheets,
    exchange,
    explorer,
    planning,
    properties,
)
from umber_pebble.services.access import Access
from umber_pebble.services.doc_base import Doc
from umber_pebble.services.documents import Colour, Kitchen, Mould, Order, OwnMaterial, Palette, Probe, Units
from umber_pebble.services.piece_docs import Piece
from umber_pebble.services.probes import Probes
from umber_pebble.services.runs import RunService
from umber_pebble.services.timetable_list import timetable_list
from umber_pebble.services.ways import USUAL_RESERVE_FRAC, USUAL_SURE_FRAC, usual_ways
from umber_pebble.services.workshop import KITCHEN_ID, UNITS_ID, Workshop

LARGEST_CSV_BODY, LARGEST_WORKSHOP = 12_000_000, 300_000_000


def build(workshop: Workshop, runs: RunService, probes: Probes, access: Access) -> Api:
    """All operations on one workshop."""
    api = Api()
    _single(api, workshop, "kitchen", KITCHEN_ID, Kitchen, s.StoredKitchen)
    _single(api, workshop, "units", UNITS_ID, Units, s.StoredUnits)
    _many(api, workshop, "mould", Mould, s.StoredMould, s.MouldList)
    _many(api, workshop, "piece", Piece, s.StoredPiece, s.PieceList)
    _many(api, workshop, "order", Order, s.StoredOrder, s.OrderList)
    _many(api, workshop, "palette", Palette, s.StoredPalette, s.PaletteList)
    _many(api, workshop, "colour", Colour, s.StoredColour, s.ColourList)
    _many(api, workshop, "material", OwnMaterial, s.StoredMaterial, s.MaterialList)
    _figures(api, workshop, probes)
    add_runs(api, runs)
    _papers(api, workshop, runs)
    _probes(api, probes)
    _devices(api, access)
    itself.add(api, workshop)
    return api


def _save(doc: type[Doc]) -> type[BaseModel]:
    return s.Save[doc]  # type: ignore[valid-type]


def _single(api: Api, workshop: Workshop, kind: str, thing_id: str, doc: type[Doc], stored: Any) -> None:
    def save(body: Any) -> Any:
        return workshop.save(kind, thing_id, body.version, body.doc)

    api.add("GET", f"/api/{kind}", partial(workshop.get, kind, thing_id), reply=stored, summary=f"The {kind}")
    api.add("PUT", f"/api/{kind}", save, body=_save(doc), reply=stored, summary=f"Save the {kind}")


def _many(api: Api, workshop: Workshop, kind: str, doc: type[Doc], stored: Any, listed: Any) -> None:
    def all_() -> Any:
        return {"items": workshop.all(kind)}

    def get(id: str) -> Any:
        return workshop.get(kind, id)

    def create(body: Any) -> Any:
        return workshop.create(kind, body.id, body.doc)

    def save(body: Any, id: str) -> Any:
        return workshop.save(kind, id, body.version, body.doc)

    def remove(body: Any, id: str) -> Any:
        workshop.remove(kind, id, body.version)
        return {"ok": True}

    one, many = f"/api/{kind}s/{{id}}", f"/api/{kind}s"
    api.add("GET", many, all_, reply=listed, summary=f"All {kind}s")
    api.add("POST", many, create, body=s.Create[doc], reply=stored, status=201, summary=f"Add a {kind}")  # type: ignore[valid-type]
    api.add("GET", one, get, reply=stored, summary=f"A {kind}")
    api.add("PUT", one, save, body=_save(doc), reply=stored, summary=f"Save a {kind}")
    api.add("DELETE", one, remove, body=s.Remove, reply=s.Done, summary=f"Remove a {kind}")


def _figures(api: Api, workshop: Workshop, probes: Probes) -> None:
    def measure_cavity(body: s.CavityMeasure) -> Any:
        return {"figures": planning.measure_cavity(body.cavity, body.wall_m, body.cut_frac)}

    def outline(body: s.OutlineIn) -> Any:
        return planning.outline_of(body.svg, body.width_m)

    def heat(body: explorer.HeatRequest) -> Any:
        return {"items": explorer.explore(workshop, body)}

    def values() -> Any:
        return {"groups": properties.tables(workshop)}

    def ways() -> Any:
        kitchen = workshop.get("kitchen", KITCHEN_ID).doc
        assert isinstance(kitchen, Kitchen)
        return {
            "ways": usual_ways(kitchen),
            "confidence_frac": USUAL_SURE_FRAC,
            "reserve_frac": USUAL_RESERVE_FRAC,
        }

    api.add(
        "POST",
        "/api/figures/cavity",
        measure_cavity,
        body=s.CavityMeasure,
        reply=s.CavityMeasured,
        summary="A cavity",
    )
    api.add(
        "POST",
        "/api/figures/outline",
        outline,
        body=s.OutlineIn,
        reply=s.OutlineRead,
        summary="An outline out of an SVG",
        largest=s.LARGEST_SVG_BODY,
    )
    api.add(
        "POST",
        "/api/figures/heat",
        heat,
        body=explorer.HeatRequest,
        reply=s.HeatExplored,
        summary="A cast on its ways",
    )
    melt_routes.add(api, workshop, probes)
    piece_routes.add(api, workshop)
    plan_routes.add(api, workshop)
    sheet_routes.add(api, workshop)
    filigree_routes.add(api, workshop)
    ask_routes.add(api, workshop)
    api.add("GET", "/api/properties", values, reply=s.Properties, summary="All materials with their values")
    api.add("GET", "/api/sources", sources, reply=reference.SourceList, summary="All published sources")
    api.add("GET", "/api/words", words, reply=reference.Glossary, summary="Words of the trade")
    api.add("GET", "/api/ways", ways, reply=s.Ways, summary="How each family of melts is usually made here")
    api.add("GET", "/api/choices", choices, reply=reference.Choices, summary="Materials and zones to choose from")


def sources() -> Any:
    """Sources by key."""
    rows = table("sources")
    return {"items": [{"key": k, "title": v["title"], "memory": v.get("memory", False)} for k, v in rows.items()]}


def words() -> Any:
    """The glossary."""
    return {"items": glossary()}


def choices() -> Any:
    """What can be chosen, with what it bears."""

    def rows(file: str, group: str = "", **also: str) -> list[dict[str, Any]]:
        return [
            {"key": m.key, "name": m.name} | {field: m.value(prop) for field, prop in also.items()}
            for m in materials(file, group).values()
        ]

    return {
        "moulds": rows("moulds", bears_degc="bears", wall_m="wall"),
        "surfaces": rows("surfaces"),
        "rings": rows("kitchen", "ring"),
        "pots": rows("kitchen", "pot"),
        "methods": rows("kitchen", "method"),
        "zones": sorted(
            z for z in available_timezones() if "/" in z and not z.startswith(("Etc", "posix", "right"))
        ),
    }


def _devices(api: Api, access: Access) -> None:
    def here() -> None:
        if not is_local():
            raise invalid("local_only", "", None, "devices are paired and dropped on the main machine")

    def listed() -> Any:
        return {"addresses": access.addresses(), "here": is_local(), "items": access.devices()}

    def code(body: s.Nothing) -> Any:
        here()
        return access.show_code()

    def pair(body: s.PairIn) -> Any:
        return WithCookie(
            {"ok": True},
            DEVICE_COOKIE,
            access.pair(body.code, body.name, request.remote_addr or ""),
            not is_local(),
        )

    def rename(body: s.DeviceName, id: str) -> Any:
        here()
        access.rename(id, body.name)
        return listed()

    def drop(body: s.Nothing, id: str) -> Any:
        here()
        access.drop(id)
        return listed()

    api.add("GET", "/api/devices", listed, reply=s.DeviceList, summary="Devices that are paired")
    api.add("POST", "/api/devices/code", code, body=s.Nothing, reply=s.PairingCode, summary="Show a pairing code")
    api.add("POST", PAIR_PATH, pair, body=s.PairIn, reply=s.Done, summary="Pair this device by the code")
    api.add(
        "POST", "/api/devices/{id}/name", rename, body=s.DeviceName, reply=s.DeviceList, summary="Name a device"
    )
    api.add("DELETE", "/api/devices/{id}", drop, body=s.Nothing, reply=s.DeviceList, summary="Drop a device")


def _probes(api: Api, probes: Probes) -> None:
    def heard() -> Any:
        return {"bridge": probes.bridge, "items": probes.views()}

    def assign(body: s.ProbeAssign, id: str) -> Any:
        at = body.subject
        probes.assign(id, Subject(at.of, at.number) if at else None)
        return heard()

    def keep(body: Probe, id: str) -> Any:
        probes.keep(id, body)
        return heard()

    api.add("GET", "/api/probes", heard, reply=s.ProbeList, summary="The thermometer's channels, as they are now")
    api.add(
        "POST",
        "/api/probes/{id}/subject",
        assign,
        body=s.ProbeAssign,
        reply=s.ProbeList,
        summary="Put a probe into",
    )
    api.add(
        "POST", "/api/probes/{id}", keep, body=Probe, reply=s.ProbeList, summary="Keep a probe's name and bands"
    )


def _papers(api: Api, workshop: Workshop, runs: RunService) -> None:
    def calendar(id: str) -> Any:
        return exchange.calendar(workshop, id)

    def melt_list(id: str) -> Any:
        return exchange.melt_list(workshop, id)

    def pour_list(id: str) -> Any:
        return exchange.pour_list(workshop, id)

    def hand_list(id: str) -> Any:
        return exchange.hand_list(workshop, id)

    def prep_list(id: str) -> Any:
        return day_sheets.prep_list(workshop, id)

    def sheets(id: str) -> Any:
        return day_sheets.day_sheets(workshop, id)

    def timetable_pdf(id: str) -> Any:
        return timetable_list(workshop, id)

    def readings(id: str) -> Any:
        return exchange.readings_out(runs, id)

    def add_readings(body: s.ReadingsIn, id: str) -> Any:
        return {"added": exchange.readings_in(runs, id, body.csv, body.actor, body.device)}

    def export() -> Any:
        return archive.export(workshop)

    def bring_in(body: archive.WorkshopFile) -> Any:
        return {"backup": archive.import_workshop(workshop, runs, body).name}

    api.add("GET", "/api/workshop", export, reply="application/json", summary="The whole workshop as one document")
    api.add(
        "POST",
        "/api/workshop",
        bring_in,
        body=archive.WorkshopFile,
        reply=s.BroughtIn,
        largest=LARGEST_WORKSHOP,
        summary="Put a document in place of the whole workshop",
    )
    pdf, csv = "application/pdf", "text/csv; charset=utf-8"
    api.add(
        "GET",
        "/api/orders/{id}/timetable.ics",
        calendar,
        reply="text/calendar; charset=utf-8",
        summary="A timetable",
    )
    api.add("GET", "/api/orders/{id}/melt-list.pdf", melt_list, reply=pdf, summary="What to melt, for the wall")
    api.add("GET", "/api/orders/{id}/pour-list.pdf", pour_list, reply=pdf, summary="What to pour, for the wall")
    api.add(
        "GET", "/api/orders/{id}/hand-list.pdf", hand_list, reply=pdf, summary="What is made by hand, for the wall"
    )
    api.add("GET", "/api/orders/{id}/prep-list.pdf", prep_list, reply=pdf, summary="What must be at hand")
    api.add("GET", "/api/orders/{id}/day-sheets.pdf", sheets, reply=pdf, summary="What each person does when")
    api.add("GET", "/api/orders/{id}/timetable.pdf", timetable_pdf, reply=pdf, summary="A timetable, for the wall")
    api.add("GET", "/api/runs/{id}/readings.csv", readings, reply=csv, summary="A run's readings")
    api.add(
        "POST",
        "/api/runs/{id}/readings",
        add_readings,
        body=s.ReadingsIn,
        reply=s.Added,
        status=201,
        summary="Add readings from a CSV file",
        largest=LARGEST_CSV_BODY,
    )
