"""The usual order of passes: common practice, no source."""

import random

import pytest

from tests.core.pieces.made import COATING, detail, dust, fill, filling, shell, stick
from umber_pebble.core.pieces.passes.base import PassKind
from umber_pebble.core.pieces.passes.close import Close
from umber_pebble.core.pieces.passes.drizzle import Drizzle
from umber_pebble.core.pieces.usual import usual_order

STICK = stick(0.004, 0.03, False)
CAKE = filling("cake", 0.002, None, 20.0, 0.05)
ON_BARE, ON_WET = dust(0.001, False), dust(0.001, True)
SMALL, LARGE = detail(COATING, 0.05, 0.001), detail(COATING, 0.4, 0.001)
POP: tuple[PassKind, ...] = (
    ON_BARE,
    SMALL,
    LARGE,
    shell(COATING, 0.0015, False, False),
    STICK,
    CAKE,
    Close(COATING),
    ON_WET,
    Drizzle(COATING, 0.3, 0.0015),
)
# into a solid cast the stick goes once it is poured, while it is soft
LOLLIPOP: tuple[PassKind, ...] = (SMALL, fill(COATING, 0.006), STICK, ON_WET)


@pytest.mark.parametrize("build", [POP, LOLLIPOP])
def test_however_they_were_told_they_come_in_the_usual_order(build: tuple[PassKind, ...]) -> None:
    assert usual_order(build) == list(range(len(build)))
    for seed in range(20):
        mixed = random.Random(seed).sample(build, len(build))
        assert tuple(mixed[i] for i in usual_order(mixed)) == build
