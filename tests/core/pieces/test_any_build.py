"""Any passes in any order: laid, or told what is wrong with them; never more in a cavity than it holds, nothing drawn twice."""

import math

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.core.pieces.made import (
    COATING,
    DARK,
    ISOMALT,
    centre,
    cluster,
    detail,
    dip,
    dust,
    fill,
    filling,
    shell,
    stick,
)
from umber_pebble.core.errors import CoreError
from umber_pebble.core.materials.load import material
from umber_pebble.core.moulds.cavity import Cavity, section_m, volume_m3
from umber_pebble.core.moulds.domes import Cap, HalfCapsule, HalfEllipsoid
from umber_pebble.core.moulds.outline import Bar, Circle, heart, star
from umber_pebble.core.moulds.walled import Walled
from umber_pebble.core.pieces.body import SHAPES, Body
from umber_pebble.core.pieces.build import lay, lay_on
from umber_pebble.core.pieces.passes.base import PassKind
from umber_pebble.core.pieces.passes.close import Close
from umber_pebble.core.pieces.passes.detail import Detail
from umber_pebble.core.pieces.passes.dip import Dip
from umber_pebble.core.pieces.passes.dollop import Dollop
from umber_pebble.core.pieces.passes.drizzle import Drizzle
from umber_pebble.core.pieces.passes.fill import Fill
from umber_pebble.core.pieces.passes.filling import Filling
from umber_pebble.core.pieces.passes.paste import Paste
from umber_pebble.core.pieces.passes.shell import Shell
from umber_pebble.core.pieces.passes.turned import Turned
from umber_pebble.core.pieces.section import layers_of, layers_on

MELT = st.sampled_from([COATING, DARK, ISOMALT])
THICK = st.floats(0.0002, 0.01)
CAVITY = st.one_of(
    st.builds(lambda d, f: Cavity(Cap(d, d / 2 * f)), st.floats(0.01, 0.1), st.floats(0.3, 1.0)),
    st.builds(lambda w, f: Cavity(HalfCapsule(w * f, w)), st.floats(0.01, 0.05), st.floats(1.2, 4.0)),
    st.builds(
        lambda a, b, c: Cavity(HalfEllipsoid(a, min(a, b), c)),
        st.floats(0.02, 0.09),
        st.floats(0.015, 0.06),
        st.floats(0.006, 0.03),
    ),
    st.builds(
        lambda outline, deep, draft: Cavity(Walled(outline, deep, draft)),
        st.sampled_from([Circle(0.04), Bar(0.06, 0.02, 0.003), heart(0.045), star(0.05, 5, 0.5)]),
        st.floats(0.004, 0.02),
        st.floats(0.0, 0.3),
    ),
)
IN_MOULD = st.one_of(
    st.builds(dust, st.floats(0.0, 0.002), st.booleans()),
    st.builds(detail, MELT, st.floats(0.01, 1.0), THICK),
    st.builds(shell, MELT, THICK, st.booleans(), st.booleans()),
    st.builds(stick, st.floats(0.002, 0.006), st.floats(0.005, 0.05), st.booleans()),
    st.builds(centre, st.floats(0.0, 0.01), st.floats(0.0, 1e-5)),
    st.builds(
        filling,
        st.just("cake"),
        st.floats(0.0, 0.01),
        st.one_of(st.none(), st.floats(0.001, 0.03)),
        st.floats(5.0, 40.0),
        st.floats(0.0, 0.2),
    ),
    st.builds(Close, MELT),
    st.builds(fill, MELT, st.floats(0.001, 0.03)),
    st.builds(Turned, MELT, st.floats(0.002, 0.2)),
    st.builds(Paste, st.just("fondant"), st.floats(0.001, 0.05), st.none()),
    st.builds(cluster, MELT, st.floats(0.001, 0.03), st.floats(0.1, 0.8)),
    st.builds(Drizzle, MELT, st.floats(0.01, 0.5), st.floats(0.001, 0.003)),
    st.builds(Dollop, MELT, st.integers(1, 9), st.floats(0.003, 0.03)),
)
LIES_IN = (Detail, Shell, Filling, Close, Fill, Turned, Paste)


def area(rings: list[list[list[float]]]) -> float:
    """Signed so that holes count less."""
    total = 0.0
    for ring in rings:
        x, z = np.array(ring).T
        total += float(np.sum(x[:-1] * z[1:] - x[1:] * z[:-1])) / 2
    return abs(total)


@settings(max_examples=250, deadline=None, derandomize=True)
@given(CAVITY, st.lists(IN_MOULD, min_size=1, max_size=6), st.floats(-0.9, 0.9))
def test_any_passes_in_a_cavity(cavity: Cavity, passes: list[PassKind], cut: float) -> None:
    try:
        laid, faults = lay(cavity, tuple(passes))
    except CoreError as refused:
        # a number that no pass may have, told with its path
        assert refused.path
        return
    assert sorted([row.index for row in laid] + [f.index for f in faults]) == list(range(len(passes)))
    assert all(f.words and f.code for f in faults)
    whole = volume_m3(cavity, cavity.depth_m)
    inside = [row for row in laid if isinstance(passes[row.index], LIES_IN)]
    assert sum(row.volume_m3 for row in inside) <= whole * (1 + 1e-3)
    for row in laid:
        assert row.volume_m3 >= 0 and math.isfinite(row.thick_m)
        assert row.finished.value.likely <= row.poured.value.likely * (1 + 1e-9)
        assert row.from_m <= row.to_m + 1e-9
        if row.cast is not None:
            assert row.cast.slab.low > 0
    drawn = layers_of(cavity, tuple(passes), laid, cut)
    in_cut = [layer for layer in drawn if isinstance(passes[layer.index], LIES_IN)]
    open_area = sum(area([[*run, run[0]]]) for run in section_m(cavity, cut))
    assert sum(area(layer.rings) for layer in in_cut) <= open_area * 1.01 + 1e-8


ON_BODY = st.one_of(
    st.builds(
        dip, MELT, st.one_of(st.none(), st.floats(0.002, 0.06)), st.floats(0.0, 0.8), st.one_of(st.none(), THICK)
    ),
    st.builds(Drizzle, MELT, st.floats(0.01, 0.5), st.floats(0.001, 0.003)),
    st.builds(Dollop, MELT, st.integers(1, 9), st.floats(0.003, 0.02)),
    st.builds(dust, st.floats(0.0, 0.002), st.booleans()),
    st.builds(shell, MELT, THICK, st.booleans(), st.booleans()),
)


@settings(max_examples=60, deadline=None, derandomize=True)
@given(
    st.sampled_from(SHAPES),
    st.floats(0.01, 0.08),
    st.floats(0.01, 0.08),
    st.lists(ON_BODY, min_size=1, max_size=5),
    st.floats(-1, 1),
)
def test_any_passes_on_a_body(shape: str, wide: float, high: float, passes: list[PassKind], cut: float) -> None:
    body = Body(shape, wide, high, material("fillings", "fruit"), None, 8.0, True)
    laid, faults = lay_on(body, tuple(passes))
    assert sorted([row.index for row in laid] + [f.index for f in faults]) == list(range(len(passes)))
    dips = [row for row in laid if isinstance(passes[row.index], Dip)]
    # all coats together are no more than a body grown by all of them, less the body
    thick = sum(row.thick_m for row in dips)
    if dips:
        grown = lay_on(body, (dip(passes[dips[0].index].melts()[0][0], None, 0.0, thick),))[0]
        if grown:
            assert sum(row.volume_m3 for row in dips) <= grown[0].volume_m3 * 1.02
    for row in dips:
        assert row.volume_m3 > 0 or passes[row.index].line_m is not None  # type: ignore[union-attr]
    drawn = [layer.index for layer in layers_on(body, tuple(passes), laid, cut)]
    assert drawn == sorted(drawn)
    assert len(drawn) == len(set(drawn)) <= len(laid)


def test_a_thickness_that_leaves_too_small_a_hollow_is_a_fault_of_its_pass() -> None:
    _, [fault] = lay(Cavity(Cap(0.03, 0.015)), (shell(COATING, 0.0138, False, False),))
    assert fault.code == "too_thick"
    assert fault.limit == pytest.approx(0.0135)
