"""What is bought and put in, on or round a piece: what it is, how many, how long it is cut, whether it may be eaten; and what a wire bears."""

import math
from dataclasses import dataclass
from typing import Literal

from umber_pebble.core.constants import GRAVITY_M_S2
from umber_pebble.core.errors import require_range
from umber_pebble.core.materials.load import Material, material
from umber_pebble.core.spread import Spread

Status = Literal["food", "contact", "non_toxic", "no_contact", "unknown"]
"""Food; for contact with food but not eaten; said to be non-toxic, which is not food; not for contact; unknown, which counts as not food."""
Sort = Literal["sweet", "pearls", "wire", "ribbon", "lace", "board", "cup", "paper", "other"]
LEAST_GAUGE, MOST_GAUGE = 16, 34


@dataclass(frozen=True, slots=True)
class InIt:
    """Something in or on a part: its name, its status by its label, and whether it comes off before the part is eaten."""

    name: str
    status: Status
    comes_off: bool


@dataclass(frozen=True, slots=True)
class Bought:
    """Of a piece or casting: which sort of thing, how many [count], how long each is cut [m], 0: as it comes; how deep it is set in, how long a
    foot is bent at its end [m]; how long it softens after it is wetted and when it dissolves [s], None: it is not wetted; its status."""

    sort: Sort
    count: int
    status: Status
    long_m: float = 0.0
    inside_m: float = 0.0
    foot_m: float = 0.0
    softens: Spread | None = None
    dissolves: Spread | None = None


@dataclass(frozen=True, slots=True)
class WireSet:
    """A wire set into something: how thick it is, how far it stands out, how deep it is set, how long its foot is [m], what it carries [kg]."""

    thick_m: float
    out_m: float
    inside_m: float
    foot_m: float
    load_kg: float


@dataclass(frozen=True, slots=True)
class WireBears:
    """How thick a wire is [m]; what it bears at its end [kg], and how far it sags there under what it carries [m]; what it holds before it is
    pulled out of a cast [kg], None: it is set in none."""

    thick_m: float
    bears_kg: float
    sags_m: float
    holds_kg: float | None


def wire_bears(of: WireSet, cast: Literal["sugar", "fat"] | None) -> WireBears:
    """What a wire that stands out level bears, set in a cast or in none.

    Args:
        of: the wire
        cast: of what the cast is
    Source: gere-goodno-2012, assumption
    """
    holds = None
    if cast is not None:
        strength = material("kitchen", cast, "strength")
        grips = strength.value("grips") * math.pi * of.thick_m * of.inside_m
        foot = strength.value("bends") * of.thick_m * of.foot_m
        holds = (grips + foot) / (strength.value("safety") * GRAVITY_M_S2)
    bears = wire_bears_kg(of.thick_m, of.out_m)
    return WireBears(of.thick_m, bears, wire_sags_m(of.thick_m, of.out_m, of.load_kg), holds)


def usual_row(sort: Sort) -> Material:
    """What is usual of a sort of thing. Source: definition"""
    return material("kitchen", sort, "bought")


def wetted(sort: Sort) -> tuple[Spread, Spread] | None:
    """How long it softens after it is wetted, and when it dissolves [s]; None of what is not wetted. Source: common-practice"""
    row = usual_row(sort)
    return (row.spread("softens"), row.spread("dissolves")) if row.has("softens") else None


def round_m(form_m: float, overlap_m: float) -> float:
    """How long what goes once round a form is cut, its ends lapping [m].

    Args:
        form_m: across the form at its widest, above zero
        overlap_m: zero or above
    Source: geometry
    """
    return math.pi * form_m + overlap_m


def wire_m(gauge: int) -> float:
    """How thick a wire of a gauge is [m]: 0.127 mm x 92^((36 - n) / 39).

    Args:
        gauge: American wire gauge, 16 to 34; other gauges differ by up to a fifth: measure
    Raises: OutOfRange: another gauge.
    Source: astm-b258
    """
    require_range("gauge", gauge, LEAST_GAUGE, MOST_GAUGE)
    return float(0.127e-3 * 92 ** ((36 - gauge) / 39))


def wire_bears_kg(thick_m: float, out_m: float) -> float:
    """What a wire that stands out level bears at its end before it bends for good [kg]: M = sigma pi d^3 / 32.

    Args:
        thick_m, out_m: how thick it is and how far it stands out, above zero
    Source: gere-goodno-2012
    """
    yields = material("kitchen", "wire", "strength").value("yields")
    return yields * math.pi * thick_m**3 / (32 * out_m * GRAVITY_M_S2)


def wire_sags_m(thick_m: float, out_m: float, kg: float) -> float:
    """How far the end of a wire sags that stands out level under a load at its end [m]: F L^3 / (3 E I), I = pi d^4 / 64.

    Args:
        thick_m, out_m: as for what it bears
        kg: zero or above
    Source: gere-goodno-2012
    """
    stiff = material("kitchen", "wire", "strength").value("stiff")
    return kg * GRAVITY_M_S2 * out_m**3 / (3 * stiff * math.pi * thick_m**4 / 64)
