"""Parts put together: does it stand, does its foot bear it, can it hang."""

import math
from collections.abc import Sequence
from dataclasses import dataclass

import shapely

from umber_pebble.core.constants import GRAVITY_M_S2
from umber_pebble.core.errors import Missing, OutOfRange, require_range
from umber_pebble.core.materials.load import material


@dataclass(frozen=True, slots=True)
class Weight:
    """A part where it stands: its mass [kg] and the middle of it over the board, x across, y along, z up [m]."""

    kg: float
    x_m: float
    y_m: float
    z_m: float


@dataclass(frozen=True, slots=True)
class Standing:
    """How a piece stands: its weight and the middle of it, how far that is inside its base (below zero: outside) [m], and the
    lean at which it tips [rad]."""

    kg: float
    middle_m: tuple[float, float, float]
    inside_m: float
    tips_rad: float


def standing(parts: Sequence[Weight], base: Sequence[tuple[float, float]]) -> Standing:
    """Whether a piece stands on its base: the middle of its weight against the edge of what it stands on.

    Args:
        parts: with where they are
        base: corners of what touches the board [m]
    Raises: Missing: no part. OutOfRange: no base, a mass that is not above zero.
    Source: geometry
    """
    if not parts:
        raise Missing("a piece needs a part", path="parts")
    kg = sum(require_range("kg", p.kg, 1e-6, 100.0) for p in parts)
    x, y, z = (
        sum(p.kg * v for p, v in zip(parts, of, strict=True)) / kg
        for of in ([p.x_m for p in parts], [p.y_m for p in parts], [p.z_m for p in parts])
    )
    foot = shapely.MultiPoint(base).convex_hull
    if foot.geom_type != "Polygon":
        raise OutOfRange("a base needs three corners that are not in a line", path="base", got=len(base))
    point = shapely.Point(x, y)
    away = float(point.distance(foot.exterior))
    inside = away if foot.covers(point) else -away
    return Standing(kg, (x, y, z), inside, math.atan2(inside, max(z, 1e-9)))


def foot_stress_pa(kg: float, out_m: float, width_m: float, thick_m: float) -> float:
    """Bending stress in a foot or stem of rectangular cut that carries a weight so far out: sigma = 6 M / (b h^2) [Pa].

    Args:
        kg: what it carries [kg]
        out_m: how far beside the foot the weight pulls [m]
        width_m, thick_m: of the foot across the bend and in it [m]
    Raises: OutOfRange: a size that is not above zero.
    Source: gere-goodno-2012
    """
    require_range("width_m", width_m, 1e-4, 1.0)
    require_range("thick_m", thick_m, 1e-4, 1.0)
    moment = kg * GRAVITY_M_S2 * abs(out_m)
    return 6 * moment / (width_m * thick_m**2)


def foot_thickness_m(kg: float, out_m: float, width_m: float, kind: str) -> float:
    """Least thickness of a foot that is safe to plan with [m].

    Args:
        kg, out_m, width_m: as for its stress
        kind: "sugar" or "fat"
    Raises: OutOfRange.
    Source: gere-goodno-2012, assumption
    """
    strength = material("kitchen", kind, "strength")
    safe = strength.value("bends") / strength.value("safety")
    require_range("width_m", width_m, 1e-4, 1.0)
    return math.sqrt(6 * kg * GRAVITY_M_S2 * abs(out_m) / (width_m * safe))


def hangs(kg: float, wire_m: float, inside_m: float, kind: str) -> float:
    """How many times over a wire set into a cast carries it, with what is safe counted [1]; under 1 it does not hang.

    Args:
        kg: of the piece [kg]
        wire_m, inside_m: diameter of the wire and how long it sits inside [m]
        kind: "sugar" or "fat"
    Raises: OutOfRange.
    Source: assumption
    """
    require_range("kg", kg, 1e-6, 100.0)
    require_range("wire_m", wire_m, 1e-4, 0.01)
    require_range("inside_m", inside_m, 1e-3, 0.3)
    strength = material("kitchen", kind, "strength")
    return strength.value("grips") * math.pi * wire_m * inside_m / (strength.value("safety") * kg * GRAVITY_M_S2)
