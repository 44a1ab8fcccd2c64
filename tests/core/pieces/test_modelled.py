"""What is modelled of paste by hand: volumes by formula, what a paste bears, and what cannot be."""

import itertools
import math
from dataclasses import replace

import pytest

from umber_pebble.core.materials.load import material
from umber_pebble.core.moulds.cavity import Cavity
from umber_pebble.core.moulds.outline import Circle
from umber_pebble.core.moulds.walled import Walled
from umber_pebble.core.pieces.build import lay, lay_by_hand
from umber_pebble.core.pieces.melt_ref import MeltRef
from umber_pebble.core.pieces.passes.ball import Ball
from umber_pebble.core.pieces.passes.fill import Fill
from umber_pebble.core.pieces.passes.modelled import Modelled
from umber_pebble.core.pieces.passes.ribbon import PasteRibbon
from umber_pebble.core.pieces.passes.rolled import Rolled
from umber_pebble.core.pieces.passes.rope import Rope
from umber_pebble.core.pieces.passes.rose import Rose

ROPE = Rope("gum_paste", 0.006, 0.16, 2, True, None)

# By hand from the formulas of solids: ball, cylinder, box, cone and discs [mm3].
BY_FORMULA = [
    (Ball("fondant", 0.03, False, None), math.pi * 30**3 / 6),
    (replace(ROPE, strands_count=1), math.pi * 9 * 160),
    (Rolled("fondant", 0.003, 0.19, 0.04, 1, True, None), 3 * 190 * 40),
    (Rolled("fondant", 0.003, 0.05, 0.05, 8, True, None), 24 * 50 * 50),
    (PasteRibbon("gum_paste", 0.0012, 0.018, 0.06, "flat", True, None), 1.2 * 18 * 60),
    (PasteRibbon("gum_paste", 0.0012, 0.018, 0.06, "pleats", True, None), 1.2 * 18 * 180),
    (PasteRibbon("gum_paste", 0.0012, 0.018, 0.06, "bow", True, None), 1.2 * 18 * (120 + 18)),
    (Rose("gum_paste", 7, 0.02, 0.0012, True, None), 7 * math.pi * 100 * 1.2 + math.pi * 25 * 20 / 3),
]


@pytest.mark.parametrize(("one", "mm3"), BY_FORMULA)
def test_it_weighs_what_its_volume_does(one: Modelled, mm3: float) -> None:
    [row], faults = lay_by_hand((one,))
    assert not faults and row.volume_m3 * 1e9 == pytest.approx(mm3)
    density = material("pastes", one.paste).value("density")
    assert row.finished.value.likely == pytest.approx(mm3 * 1e-9 * density)
    # it is drawn as large as it is: what is seen of it is no larger than it is round
    x0, y0, x1, y1 = one.front().bounds
    assert 0 < y1 - y0 <= x1 - x0 + 1e-9


@pytest.mark.parametrize("strands", [2, 3, 4])
def test_strands_of_a_rope_are_as_much_longer_as_they_wind(strands: int) -> None:
    """A helix walked in small steps: each strand on a circle on which it touches the next, once round in six times its thickness."""
    rope = replace(ROPE, strands_count=strands)
    radius = 0.003 / math.sin(math.pi / strands)
    turns = 0.16 / (6 * 0.006)
    n = 40_000
    points = [
        (
            radius * math.cos(2 * math.pi * turns * i / n),
            radius * math.sin(2 * math.pi * turns * i / n),
            0.16 * i / n,
        )
        for i in range(n + 1)
    ]
    walked = sum(math.dist(a, b) for a, b in itertools.pairwise(points))
    assert rope.strand_m() == pytest.approx(walked, rel=1e-5)
    apart = math.dist(
        (radius, 0), (radius * math.cos(2 * math.pi / strands), radius * math.sin(2 * math.pi / strands))
    )
    assert apart == pytest.approx(0.006)


@pytest.mark.parametrize(
    ("one", "least"),
    [
        (replace(ROPE, paste="fondant", thick_m=0.003), 0.004),
        (Rolled("fondant", 0.0015, 0.1, 0.1, 1, True, None), 0.002),
        (Rolled("marzipan", 0.0015, 0.1, 0.1, 1, True, None), 0.0025),
        (PasteRibbon("gum_paste", 0.0006, 0.02, 0.1, "bow", True, None), 0.0008),
    ],
)
def test_thinner_than_its_paste_bears_is_refused_in_words(one: Modelled, least: float) -> None:
    laid, [fault] = lay_by_hand((one,))
    assert laid == [] and (fault.code, fault.limit) == ("too_thin", least)
    assert material("pastes", one.paste).name in fault.words


def test_nothing_is_cast_in_the_hand_and_nothing_modelled_in_a_mould() -> None:
    fill = Fill(MeltRef("dark", None), 0.003, (), None)
    assert [fault.code for fault in lay_by_hand((fill,))[1]] == ["by_hand"]
    assert [fault.code for fault in lay(Cavity(Walled(Circle(0.05), 0.006)), (ROPE,))[1]] == ["wants_hand"]
