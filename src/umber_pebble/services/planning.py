"""Figures while somebody edits: a mould measured, a piece filled, an order compiled."""

import gc
from dataclasses import dataclass, replace
from typing import Literal

from umber_pebble.core.explained import Explained, explained, given
from umber_pebble.core.heat.casting import Casting, Place, PlaceStay
from umber_pebble.core.heat.pour import FatFlow, pour_window_s
from umber_pebble.core.heat.vessel import Pot, base_case
from umber_pebble.core.heat.windows import windows_s
from umber_pebble.core.materials.load import material
from umber_pebble.core.moulds.cavity import (
    Cavity,
    open_m2,
    section_m,
    slab_m,
    thickness_m,
    volume_m3,
    wetted_m2,
)
from umber_pebble.core.moulds.outline import Circle
from umber_pebble.core.moulds.traced import rings, traced_of
from umber_pebble.core.moulds.walled import Walled
from umber_pebble.core.pieces.cut import from_above
from umber_pebble.core.pieces.in_the_round import body_of
from umber_pebble.core.spread import exact
from umber_pebble.formats.apart import apart
from umber_pebble.formats.svg import read_outline
from umber_pebble.services import shape_docs
from umber_pebble.services.shapes import cavity_fit


@dataclass(frozen=True, slots=True)
class Section:
    """What a section drawing needs: the cut as runs of (across, height) from rim to rim, and sizes [m]; of a body, the cut through it;
    of a drawing, what its lines cover, seen from above, its depth then how far it reaches upwards on paper; nothing of what hands model."""

    runs: list[list[list[float]]]
    across_m: float
    along_m: float
    depth_m: float
    wall_m: float
    seen: Literal["mould", "body", "above", "hand"] = "mould"


@dataclass(frozen=True, slots=True)
class CavityFigures:
    """A kind of cavity worked out, and if sizes and water weight disagree; rim is its opening from above [m]."""

    section: Section
    rim: list[list[float]]
    volume: Explained
    open: Explained
    area: Explained
    thickness: Explained
    measured_m3: float
    weighed_m3: float | None
    tolerance_frac: float
    disagree: bool


def section_of(cavity: Cavity, under_m: float, cut_frac: float) -> Section:
    across, along = cavity.bounds_m()
    if (drawing := traced_of(cavity.shape)) is not None:
        lies = [[[x, y] for x, y in ring] for ring in rings(from_above(drawing))]
        return Section(lies, across, along, along, 0.0, "above")
    runs = [[[x, z] for x, z in run] for run in section_m(cavity, cut_frac)]
    return Section(runs, across, along, cavity.depth_m, under_m)


def measure_cavity(kind: shape_docs.Cavity, wall_m: float, cut_frac: float) -> CavityFigures:
    """Volume, open surface, area and thickness of a kind of cavity, cut where asked.

    Raises: Missing, OutOfRange: too little measured, or an impossible size.
    """
    fit = cavity_fit(kind)
    cavity, depth = fit.cavity, fit.cavity.depth_m
    across, along = cavity.bounds_m()
    sizes = (given("opening across", across, "m"), given("opening along", along, "m"), given("depth", depth, "m"))
    if fit.weighed_m3 is None:
        volume = explained(
            volume_m3(cavity, depth), "m3", "its slices from the floor to the rim", *sizes, sources=("geometry",)
        )
    else:
        assert kind.water_kg is not None
        volume = explained(
            fit.weighed_m3,
            "m3",
            "weight of the water it holds / density of water at 20 degrees",
            given("water", kind.water_kg, "kg"),
            *sizes,
            sources=("kell-1975",),
        )
    thick = thickness_m(cavity, depth)
    return CavityFigures(
        section_of(cavity, wall_m, cut_frac),
        [[x, y] for x, y in cavity.shape.rim()],
        volume,
        explained(open_m2(cavity, depth), "m2", "area of the opening at the rim", *sizes, sources=("geometry",)),
        explained(wetted_m2(cavity, depth), "m2", "floor + wall", *sizes, sources=("geometry",)),
        explained(
            thick,
            "m",
            "filled to the rim: its thin places (a twentieth of the opening), its mean, its thickest place",
            given("thickest place", thick.high, "m"),
            given("cools like a slab of", slab_m(cavity, depth), "m"),
            sources=("geometry", "assumption"),
        ),
        fit.measured_m3,
        fit.weighed_m3,
        fit.tolerance_frac,
        fit.disagree,
    )


@dataclass(frozen=True, slots=True)
class OutlineOf:
    """Corners about their middle [m], and what was mended, in words."""

    corners: list[list[float]]
    remarks: list[str]


def outline_of(svg: str, width_m: float | None) -> OutlineOf:
    """An outline out of an SVG file.

    Raises: OutOfRange: too large, harmful, too long to read, or no outline in it.
    """
    read = apart("svg", read_outline, svg, width_m)
    return OutlineOf([[x, y] for x, y in read.corners], list(read.remarks))


def warm_up() -> None:
    """Compile the engine's inner loops once, on the smallest problem of each kind, and settle the memory."""
    isomalt, coating = material("melts", "isomalt"), material("melts", "coating")
    wood, steel = material("surfaces", "wood"), material("kitchen", "steel", "pot")
    case = base_case(Pot(0.16, 0.1, 1.0, steel, wood, 21.0, 21.0, exact(1.0)), isomalt, 0.2)
    pour_window_s(case, FatFlow(coating, exact(42.0), 200.0))
    sugar = Casting(
        isomalt,
        material("moulds", "silicone"),
        exact(0.004),
        0.0125,
        0.003,
        exact(140.0),
        exact(50.0),
        (PlaceStay(0.0, Place(wood, 0.02, 21.0, 21.0)),),
    )
    windows_s(sugar)
    fat = replace(sugar, melt=coating, pour=exact(38.0), tg=None)
    body = body_of(Cavity(Walled(Circle(0.03), 0.004)), 0.004)
    for casting in (sugar, fat):
        windows_s(casting)
        windows_s(replace(casting, body=body))
    # what lives as long as the app is not searched again for what may be thrown away
    gc.collect()
    gc.freeze()
