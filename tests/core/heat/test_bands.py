"""What a ribbon shows of a cast: definitions."""

import pytest

from umber_pebble.core.heat.bands import Use, cast_bands
from umber_pebble.core.spread import Spread, exact

FAT = {
    "stick_closes": exact(60.0),
    "still": exact(90.0),
    "touch": exact(120.0),
    "unmould": exact(600.0),
    "over_chilled": exact(900.0),
}
SUGAR = {
    "holds": exact(30.0),
    "stick_closes": exact(40.0),
    "release_opens": exact(70.0),
    "bend_opens": exact(80.0),
    "release_closes": exact(110.0),
    "bend_closes": exact(140.0),
    "unmould": exact(500.0),
}


@pytest.mark.parametrize(
    ("at", "use", "states"),
    [
        (FAT, Use(), ["fluid", "thickens", "touch", "unmould", "over_chilled"]),
        (FAT, Use("stick"), ["stick", "thickens", "touch", "unmould", "over_chilled"]),
        # what is poured on next never leaves its mould by then
        (FAT, Use(last=False), ["fluid", "thickens", "next_pass"]),
        (SUGAR, Use(last=False), ["setting", "next_pass"]),
        (SUGAR, Use("bend"), ["soft", "bend", "stiff", "unmould"]),
        (SUGAR, Use("bend", released=True), ["soft", "release", "bend", "stiff"]),
        (SUGAR, Use("stick"), ["stick", "setting", "unmould"]),
        (SUGAR, Use(), ["setting", "unmould"]),
        (FAT, Use(join=True), ["hold", "holds", "firm"]),
    ],
)
def test_the_states_of_a_cast_follow_one_another(at: dict[str, Spread], use: Use, states: list[str]) -> None:
    bands = cast_bands(at, frozenset(), "still", use, 10.0)
    assert [band.state for band in bands] == states
    assert bands[0].start.likely == 10.0
    assert [band.end for band in bands[:-1]] == [band.start for band in bands[1:]]
    assert bands[-1].end.likely > max(spread.high for spread in at.values())


def test_what_it_does_not_reach_is_not_shown_and_does_not_stretch_it() -> None:
    bands = cast_bands(FAT, frozenset({"over_chilled"}), "still", Use())
    assert bands[-1].state == "unmould" and 600.0 < bands[-1].end.likely < 900.0
