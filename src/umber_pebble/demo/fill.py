"""Demo data in the first-light scenario: an observatory's opening night, ordered from a small sugar studio."""

from collections.abc import Callable
from dataclasses import replace
from datetime import UTC, datetime, timedelta
from typing import Any

import numpy as np

from umber_pebble.config import Config
from umber_pebble.core.heat.vessel import cooling_curve_degc, curve_times_s
from umber_pebble.core.plan.cooks import PotCook
from umber_pebble.demo.moulds import MOULDS
from umber_pebble.demo.pieces import PIECES, TOPPERS
from umber_pebble.services.clock import DrivenClock
from umber_pebble.services.documents import (
    Bath,
    Colour,
    Kitchen,
    Microwave,
    Order,
    OrderLine,
    Paces,
    Palette,
    PaletteColour,
    Ring,
    Vessel,
)
from umber_pebble.services.new_event import NewEvent
from umber_pebble.services.runs import RunService
from umber_pebble.services.start import open_workshop, place
from umber_pebble.services.warmers import Warmer
from umber_pebble.services.way_docs import SEED_DEGC, CookedWay, MeltedWay, TemperedWay, WayDoc
from umber_pebble.services.workshop import KITCHEN_ID, Workshop

WREN = "Wren"
KITCHEN = Kitchen(
    name="Studio under the dome",
    zone="Europe/London",
    altitude_m=320.0,
    room_degc=21.5,
    humidity_frac=0.46,
    rings=[
        Ring(id="ring-left", name="Left ring", kind="electric", power_w=1500.0),
        Ring(id="ring-right", name="Right ring", kind="induction", power_w=2000.0),
    ],
    microwaves=[Microwave(id="microwave", name="Microwave", power_w=900.0)],
    baths=[Bath(id="bath", name="Water bath", water_degc=65.0)],
    warmers=[Warmer(id="warm-water", name="Warm water", kind="bath", keeps_degc=38.0, vessels=4)],
    places=[
        place("bench", "Bench top", surface="wood", thickness_m=0.03),
        place("slab", "Cold slab", surface="granite", thickness_m=0.02, surface_degc=12.0),
        place("foam", "Foam, under a sheet", surface="foam", thickness_m=0.006),
        place("fan", "Rack by the fan", fan=True),
        place("fridge", "Fridge", kind="fridge", air_degc=4.0, moulds=6),
        place("fridge-fan", "Fridge, fan on", kind="fridge", fan=True, air_degc=4.0),
        place("freezer", "Freezer", kind="freezer", air_degc=-18.0),
    ],
    vessels=[
        Vessel(id="pot-heavy", name="Clear pot", made_of="steel", diameter_m=0.16, height_m=0.1, mass_kg=1.4),
        Vessel(id="pot-thin", name="Thin pot", made_of="steel", diameter_m=0.14, height_m=0.08, mass_kg=0.5),
        Vessel(id="bowl", name="Blue bowl", made_of="plastic", diameter_m=0.14, height_m=0.08, mass_kg=0.11),
        Vessel(id="glass-bowl", name="Glass bowl", made_of="glass", diameter_m=0.15, height_m=0.09, mass_kg=0.42),
        *(
            Vessel(
                id=f"cup-{i}",
                name=f"Small bowl {i}",
                made_of="plastic",
                diameter_m=0.09,
                height_m=0.06,
                mass_kg=0.05,
            )
            for i in (1, 2, 3, 4)
        ),
    ],
    people=[WREN, "Sol"],
    hours=[],
    rosters=[],
    paces=Paces(
        weigh_s=120.0,
        pour_each_s=6.0,
        bend_each_s=10.0,
        fill_each_s=12.0,
        stick_each_s=5.0,
        join_each_s=15.0,
        stir_s=15.0,
        unmould_each_s=8.0,
        clean_s=240.0,
        dry_s=600.0,
        call_before_s=20.0,
    ),
)

OFF_DEGC = 160.5
BROKEN = {3: ["broken"], 17: ["stuck", "broken"]}


def _order(name: str, due: datetime, lines: list[OrderLine]) -> Order:
    bowl: dict[str, Any] = {
        "vessel_id": "bowl",
        "stand_id": "bench",
        "kept_id": None,
        "by_id": "microwave",
        "place_id": "fridge",
    }
    ways: dict[str, WayDoc] = {
        "isomalt": CookedWay(
            kind="cooked",
            vessel_id="pot-heavy",
            stand_id="bench",
            kept_id=None,
            ring_id="ring-left",
            place_id="bench",
            divided=False,
            crystalline=True,
            water="auto",
            cook_degc=160.0,
        ),
        "coating": MeltedWay(kind="melted", **bowl, divided=False, melt_to_degc=43.0, power="full", stop="lumps"),
        "couverture": TemperedWay(kind="tempered", **bowl, power="full", school="seed", seed_degc=SEED_DEGC),
    }
    return Order(
        vessels=[],
        name=name,
        due_at=due,
        lines=lines,
        ways=ways,
        confidence_frac=0.9,
        reserve_frac=0.05,
        people=[],
        timetable=None,
        together=[],
        wishes=[],
        begins="late",
    )


COLOURS = {
    f"colour-{key}": Colour(name=name, dye=dye, kind=kind, mg_per_g=strength)  # type: ignore[arg-type]
    for key, name, dye, kind, strength in (
        ("nebula", "Nebula red, drops", "e129", "water", 20.0),
        ("dawn", "Dawn yellow, drops", "e102", "water", 20.0),
        ("orbit", "Orbit blue, drops", "e133", "water", 10.0),
        ("dusk", "Dusk violet, drops", "e122", "water", 20.0),
        ("mars", "Mars red, oil", "e129", "oil", 60.0),
        ("comet", "Comet yellow, oil", "e102", "oil", 60.0),
        ("deep", "Deep-sky blue, oil", "e133", "oil", None),
        ("umbra", "Umbra black, oil", "e151", "oil", 90.0),
    )
}


NIGHT = Palette(
    name="First light",
    colours=[
        PaletteColour(name=name, hex=hex_, of="fat")
        for name, hex_ in (
            ("Moon", "#f1ead9"),
            ("Dome ochre", "#c98a2b"),
            ("Mars", "#a8402c"),
            ("Dusk", "#5b4a78"),
            ("Night", "#1f2a44"),
        )
    ],
    dust="#c9a227",
)


def fill(config: Config, today: datetime | None = None) -> None:
    """Fill an empty workshop; one that has moulds already is left as it is."""
    now = (today or datetime.now(UTC)).replace(microsecond=0)
    past = DrivenClock((now - timedelta(days=9)).replace(hour=14, minute=5, second=0))
    workshop = open_workshop(config, past)
    if workshop.all("mould"):
        workshop.engine.dispose()
        return
    kitchen = workshop.get("kitchen", KITCHEN_ID)
    workshop.save("kitchen", KITCHEN_ID, kitchen.version, KITCHEN)
    for mould_id, mould in MOULDS.items():
        workshop.create("mould", mould_id, mould)
    for piece_id, piece in PIECES.items():
        workshop.create("piece", piece_id, piece)
    for colour_id, colour in COLOURS.items():
        workshop.create("colour", colour_id, colour)
    workshop.create("palette", "palette-night", NIGHT)
    disc = _line("piece-disc", 21)
    workshop.create("order", "order-rehearsal", _order("Dome rehearsal", past.now() + timedelta(hours=6), [disc]))
    rehearse(workshop, past)
    due = (now + timedelta(days=2)).replace(hour=20, minute=0, second=0)
    lines = [_line("piece-disc", 24)]
    workshop.create("order", "order-first-light", _order("First-light night", due, lines))
    lenses = [_line("piece-lens", 10), _line("piece-disc", 12)]
    workshop.create("order", "order-comet", _order("Comet supper", due + timedelta(days=5), lenses))
    planets = [_line("piece-lollipop", 16)]
    workshop.create("order", "order-planets", _order("Ringed planets", due + timedelta(days=3), planets))
    sampler = [_line("piece-star", 12), _line("piece-meteorite", 12)]
    workshop.create("order", "order-sampler", _order("Night sky boxes", due + timedelta(days=4), sampler))
    pops = [_line("piece-pop", 12)]
    workshop.create("order", "order-pops", _order("Night-sky pops", due + timedelta(days=7), pops))
    table = [
        _line(piece, count)
        for piece, count in (
            ("piece-pop", 8),
            ("piece-filled", 12),
            ("piece-moon", 2),
            ("piece-lollipop", 8),
            ("piece-dome", 1),
            ("piece-berry", 8),
            ("piece-leaf", 4),
            ("piece-cluster", 6),
            ("piece-badge", 6),
            ("piece-nebula", 3),
        )
    ]
    workshop.create("order", "order-table", _order("First-light table", due + timedelta(days=8), table))
    sky = [
        *table,
        _line("piece-bonbon", 12),
        _line("piece-lens", 6),
    ]
    workshop.create("order", "order-sky", _order("The whole sky", due + timedelta(days=10), sky))
    domes = [_line("piece-dome", 2)]
    workshop.create("order", "order-domes", _order("Two domes", due + timedelta(days=9), domes))
    dips = [_line("piece-berry", 24), _line("piece-cup", 6)]
    workshop.create("order", "order-dips", _order("Comet strawberries", due + timedelta(days=9), dips))
    cut = [_line("piece-crescent", 24), _line("piece-spark", 12)]
    workshop.create("order", "order-aurora", _order("Aurora cuttings", due + timedelta(days=8), cut))
    swirled = [_line("piece-swirled", 24), _line("piece-praline", 24)]
    workshop.create("order", "order-swirled", _order("Nebula box", due + timedelta(days=10), swirled))
    bent = [_line("piece-ring", 6), _line("piece-plume", 16)]
    workshop.create("order", "order-rings", _order("Orbit rings", due + timedelta(days=9), bent))
    picks = [_line("piece-pick", 8)]
    workshop.create("order", "order-picks", _order("Comet picks", due + timedelta(days=10), picks))
    gilded = [_line("piece-gilded", 6)]
    workshop.create("order", "order-gilded", _order("Gilded stars", due + timedelta(days=9), gilded))
    tiles = [_line("piece-tile", 18)]
    workshop.create("order", "order-tiles", _order("Night tiles", due + timedelta(days=8), tiles))
    lines = [_line("piece-constellation", 12)]
    workshop.create("order", "order-constellations", _order("Constellations", due + timedelta(days=8), lines))
    twelve = [_line(key, count) for key, count in zip(TOPPERS, (2, 2, 2, 2, 2, 1, 1), strict=True)]
    workshop.create("order", "order-toppers", _order("Twelve cupcakes", due + timedelta(days=12), twelve))
    baskets = [_line("piece-basket", 4)]
    workshop.create("order", "order-baskets", _order("Comet baskets", due + timedelta(days=11), baskets))
    dark = [_line("piece-bonbon", 12)]
    workshop.create("order", "order-meteorites", _order("Dark meteorites", due + timedelta(days=6), dark))
    workshop.engine.dispose()


def _line(piece_id: str, quantity: int) -> OrderLine:
    return OrderLine(piece_id=piece_id, quantity=quantity, spares="as_sure")


def rehearse(workshop: Workshop, clock: DrivenClock) -> None:
    """Carry out the rehearsal as it happened nine days ago: two discs lost."""
    runs = RunService(workshop)
    runs.start("run-rehearsal", "order-rehearsal", WREN, "studio")
    count = 0

    def tell(kind: str, after_s: float, **payload: Any) -> None:
        nonlocal count
        count += 1
        clock.drive(after_s, None)
        runs.add("run-rehearsal", NewEvent(f"rehearsal-{count}", kind, payload, WREN, "studio", None, 1))

    tell("acknowledged", 20)
    _, frozen, _, _ = runs.look("run-rehearsal")
    for cook in frozen.cooks:
        _cook(tell, cook)
    cavity = 0
    for cook in frozen.cooks:
        for r in cook.rounds:
            for i in range(r.casts):
                kinds = BROKEN.get(cavity, [])
                tell("outcome", 1, round=r.number, cavities=[i], usable=not kinds, kinds=kinds)
                cavity += 1
    tell("ended", 60, left_kg={"pot-heavy": 0.064})


def _true_curve(cook: PotCook, left_kg: float) -> Callable[[float], float]:
    """What the rehearsal's pot really did: it loses a tenth less than the model says."""
    full = cook.heating.case
    case = replace(full, melt_kg=left_kg, loss_factor=0.9 * full.loss_factor)
    curve = cooling_curve_degc(case, OFF_DEGC)
    return lambda s: float(np.interp(s, curve_times_s(), curve))


def _cook(tell: Callable[..., None], cook: PotCook) -> None:
    """One cook, warmed again for each round, with its readings, off by what a hand and a probe are off."""
    left = cook.charge_kg
    for r in cook.rounds:
        degc, since = _true_curve(cook, left), 0.0
        tell("heated", 130, cook=cook.number)
        tell("rested", cook.hob.likely * 1.06 * left / cook.charge_kg, cook=cook.number, degc=OFF_DEGC)
        for after, off_k in ((50.0, 0.4), (60.0, -0.7), (70.0, 0.5)):
            since += after
            read = round(degc(since) + off_k, 1)
            tell("reading", after, cook=cook.number, degc=read, method="immersed_swirled")
        tell("poured", 80, round=r.number)
        tell("unmoulded", 1150, round=r.number)
        tell("note", 200, text="mould washed and dried")
        left -= cook.finished_kg * r.casts / cook.casts
