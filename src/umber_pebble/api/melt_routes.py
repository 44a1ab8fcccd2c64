"""What is asked at a bowl before the pour: oven, bursts, cooks, caramel, dipping, temper, colour."""

from typing import Any

from pydantic import Field

from umber_pebble.api.http import Api
from umber_pebble.api.schemas import Reply
from umber_pebble.core.melts.bursts import BurstPlan
from umber_pebble.core.melts.sugar import Caramel, Fault
from umber_pebble.services import assembly, by_hand, colouring, melting, palettes, temper
from umber_pebble.services.doc_base import Doc
from umber_pebble.services.documents import Palette, PaletteColour
from umber_pebble.services.probes import Probes
from umber_pebble.services.workshop import Workshop

LARGEST_CSV_BODY = 12_000_000


class ColouredReply(Reply):
    coloured: colouring.Coloured


class PatchesReply(Reply):
    items: list[colouring.Patch]


class OvenPower(Reply):
    """By the water test [W]."""

    power_w: float


class BurstsReply(Reply):
    plan: BurstPlan
    faults: list[Fault]


class FluidReply(Reply):
    fluid: melting.Fluid


class CookedReply(Reply):
    cooked: melting.Cooked


class CaramelReply(Reply):
    caramel: Caramel


class DippedReply(Reply):
    bath: melting.DipBath


class PaletteText(Doc):
    """The text of a palette file."""

    text: str = Field(max_length=200_000)


class PaletteReply(Reply):
    look: palettes.PaletteLook


class PaletteRead(Reply):
    colours: list[PaletteColour]


class SeedReply(Reply):
    seeded: temper.Seeded


class CurveReply(Reply):
    read: temper.CurveRead


class HandReply(Reply):
    amounts: by_hand.HandAmounts


class AssemblyReply(Reply):
    assembly: assembly.Assembly


def add(api: Api, workshop: Workshop, probes: Probes) -> None:
    """Register the operations."""

    def coloured(body: colouring.RecipeRequest) -> Any:
        return {"coloured": colouring.colour_batch(workshop, body)}

    def patches(body: colouring.PatchesRequest) -> Any:
        return {"items": colouring.patches(workshop, body)}

    def power(body: melting.PowerRequest) -> Any:
        return {"power_w": melting.oven_power_w(workshop, body)}

    def bursts(body: melting.BurstsRequest) -> Any:
        return {"plan": melting.bursts(workshop, body), "faults": melting.fat_faults(workshop, body.material)}

    def fluid(body: melting.FluidRequest) -> Any:
        return {"fluid": melting.fluid(workshop, body)}

    def cook(body: melting.CookRequest) -> Any:
        return {"cooked": melting.cook(workshop, body)}

    def caramel(body: melting.CaramelRequest) -> Any:
        return {"caramel": melting.caramel(workshop, body)}

    def dip(body: melting.DipRequest) -> Any:
        return {"bath": melting.dip(workshop, body)}

    def seed(body: temper.SeedRequest) -> Any:
        return {"seeded": temper.seed_bowl(workshop, body)}

    def hand(body: by_hand.HandRequest) -> Any:
        return {"amounts": by_hand.by_hand(workshop, body)}

    def put_together(body: assembly.AssemblyRequest) -> Any:
        return {"assembly": assembly.assembly(workshop, body)}

    def curve(body: temper.CurveRequest) -> Any:
        return {"read": temper.curve_test(probes, body)}

    def palette(body: Palette) -> Any:
        return {"look": palettes.look(body)}

    def read_palette(body: PaletteText) -> Any:
        return {"colours": palettes.palette_of(body.text)}

    def file_of(kind: str) -> Any:
        return lambda id: palettes.palette_file(workshop, id, kind)

    api.add(
        "GET",
        "/api/palettes/{id}/palette.gpl",
        file_of("gpl"),
        reply="text/plain; charset=utf-8",
        summary="A palette as text",
    )
    api.add(
        "GET",
        "/api/palettes/{id}/palette.csv",
        file_of("csv"),
        reply="text/csv; charset=utf-8",
        summary="A palette as CSV",
    )
    rows: list[tuple[str, Any, Any, Any, str]] = [
        ("colour", colouring.RecipeRequest, ColouredReply, coloured, "A batch coloured"),
        ("patches", colouring.PatchesRequest, PatchesReply, patches, "Patches of a colour"),
        ("palette", Palette, PaletteReply, palette, "A palette's contrasts, and what may be remelted into what"),
        ("palette-file", PaletteText, PaletteRead, read_palette, "Colours out of a palette file"),
        ("power", melting.PowerRequest, OvenPower, power, "An oven's power by a bowl of water"),
        ("bursts", melting.BurstsRequest, BurstsReply, bursts, "Bursts for a bowl"),
        ("cook", melting.CookRequest, CookedReply, cook, "A cook of isomalt or sugar"),
        ("caramel", melting.CaramelRequest, CaramelReply, caramel, "Dry caramel"),
        ("fluid", melting.FluidRequest, FluidReply, fluid, "How fluid a melt is"),
        ("dip", melting.DipRequest, DippedReply, dip, "A bath for dipping"),
        ("seed", temper.SeedRequest, SeedReply, seed, "Seed for a bowl"),
        ("hand", by_hand.HandRequest, HandReply, hand, "Amounts made by hand"),
        ("assembly", assembly.AssemblyRequest, AssemblyReply, put_together, "A piece put together"),
        ("curve", temper.CurveRequest, CurveReply, curve, "A cooling curve read"),
    ]
    for path, body, reply, call, summary in rows:
        api.add(
            "POST", f"/api/figures/{path}", call, body=body, reply=reply, summary=summary, largest=LARGEST_CSV_BODY
        )
