"""Palettes: what may go with and into what; and their files, in and out again."""

import pytest

from umber_pebble.core.colour.palette import Named, base_for, pairs, remelts
from umber_pebble.core.errors import Missing, OutOfRange
from umber_pebble.formats.palettes import read, write_csv, write_gpl

NIGHT, MOON, IVORY = (
    Named("Night", "#1f2a44", "fat"),
    Named("Moon", "#f1ead9", "fat"),
    Named("Ivory", "#efe6d2", "fat"),
)
GLASS = Named("Glass", "#77aabb", "sugar")


def test_nearest_first_and_near_ones_do_not_read_when_marbled() -> None:
    found = pairs([NIGHT, MOON, IVORY])
    assert (found[0].one, found[0].other, found[0].reads) == ("Moon", "Ivory", False)
    assert found[0].delta_e < 3.0
    assert all(p.reads for p in found[1:])


# Common practice, no source: mixed colours only towards a darker one; water seizes chocolate; fat parts from sugar.
def test_what_may_be_melted_into_what() -> None:
    why = {(r.of, r.into): r.why_not for r in remelts([NIGHT, MOON, IVORY, GLASS])}
    assert why[("Moon", "Night")] is None
    assert "darker" in (why[("Night", "Moon")] or "")
    assert why[("Moon", "Ivory")] is None
    assert "seizes" in (why[("Glass", "Night")] or "")
    assert "parts" in (why[("Night", "Glass")] or "")


def test_the_base_under_a_dust_is_the_nearest() -> None:
    assert base_for("#d8c9a0", [NIGHT, MOON]).other == "Moon"
    with pytest.raises(Missing):
        base_for("#d8c9a0", [])


def test_files_come_in_as_they_went_out() -> None:
    assert read(write_csv([NIGHT, MOON, GLASS])) == [NIGHT, MOON, GLASS]
    assert read(write_gpl("First light", [NIGHT, MOON])) == [NIGHT, MOON]


@pytest.mark.parametrize(
    "text",
    [
        "",
        "hello",
        "GIMP Palette\n#\n300 0 0 too red",
        "name,hex,of\nMoon,white,fat",
        "name,hex,of\nMoon,#ffffff,stone",
    ],
)
def test_what_is_no_palette_is_refused_in_words(text: str) -> None:
    with pytest.raises(OutOfRange) as refused:
        read(text)
    assert refused.value.path == "text"
