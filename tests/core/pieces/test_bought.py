"""Bought things: wires by their gauge and what they bear, what goes round a form, what takes a melt's room."""

import math
from dataclasses import replace

import numpy as np
import pytest
from scipy.integrate import quad

from umber_pebble.core.errors import OutOfRange
from umber_pebble.core.moulds.cavity import Cavity
from umber_pebble.core.moulds.outline import Circle
from umber_pebble.core.moulds.walled import Walled
from umber_pebble.core.pieces.bought import WireSet, round_m, wire_bears, wire_bears_kg, wire_m, wire_sags_m
from umber_pebble.core.pieces.build import lay, lay_by_hand
from umber_pebble.core.pieces.melt_ref import MeltRef
from umber_pebble.core.pieces.passes.extra import Extra
from umber_pebble.core.pieces.passes.fill import Fill
from umber_pebble.core.pieces.passes.trim import Trim
from umber_pebble.core.pieces.passes.wire import Wire

DISC = Cavity(Walled(Circle(0.05), 0.01))
FILL = Fill(MeltRef("coating", None), 0.006, (), None)
WIRE = Wire("Wire", 24, 1, 0.08, 0.012, 0.004, 0.003, "unknown")
SWEET = Extra("Sweet", "sweet", 2, 0.003, 0.015, True, "food")


@pytest.mark.parametrize(
    ("gauge", "mm"), [(18, 1.024), (20, 0.812), (22, 0.644), (24, 0.511), (26, 0.405), (30, 0.255)]
)
def test_wires_are_as_thick_as_their_gauge(gauge: int, mm: float) -> None:
    """astm-b258, its table, recalled."""
    assert wire_m(gauge) == pytest.approx(mm / 1000, rel=2e-3)


def test_a_gauge_that_is_none_is_refused() -> None:
    with pytest.raises(OutOfRange, match="gauge"):
        wire_m(50)


def test_a_wire_bears_and_sags_as_a_round_beam_held_at_one_end() -> None:
    """Summed over its section and its length instead of by the closed forms."""
    thick, out, kg = 0.0005, 0.08, 0.002
    half = thick / 2
    inertia, _ = quad(lambda y: y**2 * 2 * math.sqrt(half**2 - y**2), -half, half)
    assert wire_bears_kg(thick, out) * 9.80665 * out * half / inertia == pytest.approx(2.5e8, rel=1e-4)
    xs = np.linspace(0.0, out, 4001)
    bent = kg * 9.80665 * (out - xs) / (2.0e11 * inertia)
    slope = np.concatenate(([0.0], np.cumsum((bent[1:] + bent[:-1]) / 2 * np.diff(xs))))
    sag = np.sum((slope[1:] + slope[:-1]) / 2 * np.diff(xs))
    assert wire_sags_m(thick, out, kg) == pytest.approx(sag, rel=1e-4)
    held = wire_bears(WireSet(thick, out, 0.012, 0.0, kg), "fat").holds_kg
    footed = wire_bears(WireSet(thick, out, 0.012, 0.004, kg), "fat").holds_kg
    assert held is not None and footed is not None and footed > 1.2 * held
    assert wire_bears(WireSet(thick, out, 0.012, 0.004, kg), None).holds_kg is None


def test_what_cannot_be_is_said() -> None:
    assert [f.code for f in lay(DISC, (WIRE,))[1]] == ["nothing_wet"]
    assert [f.code for f in lay(DISC, (SWEET,))[1]] == ["nothing_wet"]
    [bends] = lay(DISC, (FILL, replace(WIRE, load_kg=0.05)))[1]
    assert bends.code == "too_much" and bends.limit == pytest.approx(wire_bears_kg(wire_m(24), 0.08))
    [full] = lay(DISC, (replace(SWEET, on_wet=False, count=20), FILL))[1]
    assert full.code == "too_large"


def test_what_lies_in_the_cavity_takes_the_melts_room_and_what_lies_on_it_does_not() -> None:
    plain = lay(DISC, (FILL,))[0][0].finished.value.likely
    on = lay(DISC, (FILL, SWEET))[0]
    assert on[0].finished.value.likely == plain and on[1].finished.value.likely == pytest.approx(0.006)
    within = lay(DISC, (replace(SWEET, on_wet=False), FILL))[0]
    density = plain / (math.pi * 0.025**2 * 0.006)
    assert plain - within[1].finished.value.likely == pytest.approx(0.006 / 1350 * density, rel=1e-3)


def test_a_ribbon_is_cut_once_round_and_lace_is_wetted() -> None:
    assert round_m(0.07, 0.005) == pytest.approx(math.pi * 0.07 + 0.005)
    lace, ribbon = (Trim("Trim", sort, 1, 0.07, 0.005, 0.02, "food").bought() for sort in ("lace", "ribbon"))
    assert lace.long_m == ribbon.long_m == round_m(0.07, 0.005)
    # common practice, no source: 1 to 2 min until it is supple
    assert lace.softens is not None and (lace.softens.low, lace.softens.high) == (60, 120)
    assert lace.dissolves is not None and lace.dissolves.low > lace.softens.high
    assert ribbon.softens is None
    assert not lay_by_hand((Trim("Trim", "lace", 1, 0.07, 0.005, 0.02, "food"),))[1]
