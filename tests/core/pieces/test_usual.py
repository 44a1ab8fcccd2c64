"""The usual order of passes: common practice, no source."""

import random

import pytest

from umber_pebble.core.materials.load import material
from umber_pebble.core.pieces.passes import Close, Detail, Drizzle, Dust, Fill, Filling, Melt, Pass, Rod, Shell
from umber_pebble.core.pieces.usual import usual_order

COATING = Melt("coating", material("melts", "coating"))
STICK = Rod(0.004, 0.03, False)
CAKE = Filling(material("fillings", "cake"), 0.002, None, 20.0, 0.05)
ON_BARE, ON_WET = Dust(0.001, False), Dust(0.001, True)
SMALL, LARGE = Detail(COATING, 0.05, 0.001), Detail(COATING, 0.4, 0.001)
POP: tuple[Pass, ...] = (
    ON_BARE, SMALL, LARGE, Shell(COATING, 0.0015, False, False), STICK, CAKE, Close(COATING), ON_WET, Drizzle(COATING, 0.3, 0.0015),
)  # fmt: skip
# into a solid cast the stick goes once it is poured, while it is soft
LOLLIPOP: tuple[Pass, ...] = (SMALL, Fill(COATING, 0.006), STICK, ON_WET)


@pytest.mark.parametrize("build", [POP, LOLLIPOP])
def test_however_they_were_told_they_come_in_the_usual_order(build: tuple[Pass, ...]) -> None:
    assert usual_order(build) == list(range(len(build)))
    for seed in range(20):
        mixed = random.Random(seed).sample(build, len(build))
        assert tuple(mixed[i] for i in usual_order(mixed)) == build
