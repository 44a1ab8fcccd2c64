"""The heat explorer's service: what it answers, and what it refuses in words."""

from pathlib import Path
from typing import Any

import pytest

from umber_pebble.core.errors import CoreError, OutOfRange
from umber_pebble.services import documents
from umber_pebble.services.explorer import Explored, HeatRequest, explore
from umber_pebble.services.piece_docs import Piece, StayDoc
from umber_pebble.services.properties import tables
from umber_pebble.services.workshop import KITCHEN_ID, Workshop

BENCH = {"from_s": 0.0, "place_id": "bench", "care": "none"}
CAST: dict[str, Any] = {
    "material": "coating",
    "temper": "tempered",
    "water_frac": None,
    "piece_id": None,
    "shape": "plate",
    "thickness_m": 0.004,
    "mould": "silicone",
    "wall_m": 0.003,
    "pour_degc": None,
    "first": None,
    "bend": None,
    "ways": [[BENCH]],
}


def asked(demo: Workshop, *places: str, care: str = "none", **changes: Any) -> Explored:
    stays = [BENCH, *({"from_s": 60.0 * (i + 1), "place_id": p, "care": care} for i, p in enumerate(places))]
    return explore(demo, HeatRequest.model_validate({**CAST, "ways": [stays], **changes}, strict=False))[0]


def test_freezer_is_sooner_than_fridge_and_a_wrapped_one_later(demo: Workshop) -> None:
    freezer, fridge, wrapped = (
        asked(demo, "freezer"),
        asked(demo, "fridge"),
        asked(demo, "fridge", care="wrapped"),
    )
    at = [x.windows["unmould"].likely for x in (freezer, fridge, wrapped)]
    assert at == sorted(at)
    assert freezer.places == ["Bench top", "Freezer"]
    hand = asked(demo, "bench", care="hand")
    assert hand.windows["unmould"].likely > wrapped.windows["unmould"].likely


def test_a_piece_from_the_freezer_sweats_in_a_damp_room(demo: Workshop) -> None:
    stored = demo.get("kitchen", KITCHEN_ID)
    assert isinstance(stored.doc, documents.Kitchen)
    damp = demo.save("kitchen", KITCHEN_ID, stored.version, stored.doc.model_copy(update={"humidity_frac": 0.8}))
    freezer, bench = asked(demo, "freezer"), asked(demo)
    demo.save("kitchen", KITCHEN_ID, damp.version, stored.doc)
    assert freezer.sweat is not None
    assert freezer.sweat.sweats_s > 60
    assert bench.sweat is None


def test_the_section_has_every_cell_of_every_layer_at_every_moment(demo: Workshop) -> None:
    found = asked(demo, "fridge", first={"material": "ganache", "thickness_m": 0.003, "degc": 18.0})
    assert [layer.name for layer in found.layers[0]] == ["piece", "under", "wall", "place"]
    assert [layer.name for layer in found.layers[1]] == ["piece", "under", "wall"]
    for frame in found.frames:
        assert len(frame.temps) == len(frame.set) == sum(layer.cells for layer in found.layers[frame.stay])
    moments = [frame.at_s for frame in found.frames]
    assert moments == sorted(moments)
    assert found.frames[0].temps[3] == pytest.approx(found.pour_degc)
    assert found.on_first is None  # a filling does not melt into what is poured on it


def test_each_time_says_what_it_rests_on_and_what_would_help(demo: Workshop) -> None:
    found = asked(demo, "fridge")
    for rests in found.rests_on:
        assert 0 < sum(share.frac for share in rests.shares) <= 1 + 1e-9
        assert 0 < rests.narrows_frac < 1
    saved = [h.sooner_s for h in found.helps]
    assert saved == sorted(saved, reverse=True)
    assert saved[0] > 60
    # what is said to help does: a fifth thinner, reckoned by itself
    thinner = next(h for h in found.helps if h.change == "a fifth thinner")
    again = asked(demo, "fridge", thickness_m=0.0032)
    gained = found.windows["unmould"].likely - again.windows["unmould"].likely
    assert gained == pytest.approx(thinner.sooner_s, rel=0.1)


def test_a_melt_that_dissolves_the_first_is_told_how_long_to_rest(demo: Workshop) -> None:
    first = {"material": "coating", "thickness_m": 0.0015, "degc": 22.0}
    hot = asked(demo, thickness_m=0.002, pour_degc=52.0, first=first).on_first
    assert hot is not None
    assert hot.does.verdict == "dissolves"
    # common practice, no source: about a minute
    assert hot.rest_s is not None
    assert 20 < hot.rest_s < 400
    rested = asked(demo, thickness_m=0.002, pour_degc=hot.does.pour_below_degc - 0.2, first=first).on_first
    assert rested is not None
    assert (rested.does.verdict, rested.rest_s) == ("tacks", None)


def test_a_bend_closes_sooner_when_it_is_thick_and_a_thick_foot_cracks(demo: Workshop) -> None:
    bend = {"radius_m": 0.03, "over_s": 2.0}
    thin, thick = (asked(demo, material="isomalt", thickness_m=t, bend=bend) for t in (0.002, 0.005))
    assert thin.bend is not None
    assert thick.bend is not None
    assert thick.bend.limits.strain_frac == pytest.approx(2.5 * thin.bend.limits.strain_frac)
    assert [r.level for r in thin.risks] == ["low"]
    foot = asked(demo, "freezer", material="isomalt", thickness_m=0.02)
    assert [r.level for r in foot.risks] != ["low"]


def test_a_dome_has_its_own_times_for_thin_and_thick_places(demo: Workshop) -> None:
    dome = {
        "name": "Dome",
        "material": "silicone",
        "wall_m": 0.003,
        "bears_degc": 230.0,
        "owned": 1,
        "mat": None,
        "cavities": [
            {"name": "Dome", "count": 6, "shape": {"kind": "half_ball", "diameter_m": 0.03}, "water_kg": None}
        ],
    }
    demo.create("mould", "mould-dome", documents.Mould.model_validate(dome))
    piece = {
        "name": "Dome",
        "material": "coating",
        "mould_id": "mould-dome",
        "cavity": 0,
        "fill_m": 0.015,
        "work": "none",
        "stick": None,
        "stays": [],
    }
    demo.create("piece", "piece-bowl", Piece.model_validate(piece, strict=False))
    found = asked(demo, "fridge", piece_id="piece-bowl")
    assert found.uneven is not None
    assert found.uneven.thin_s < found.uneven.thick_s
    assert found.windows["unmould"].likely == pytest.approx(found.uneven.thick_s)
    # a plate has no thin places to tell of
    assert asked(demo, "fridge").uneven is None


@pytest.mark.parametrize(
    ("changes", "path"),
    [
        ({"thickness_m": 0.0}, "thickness_m"),
        ({"thickness_m": 2.0}, "thickness_m"),
        ({"wall_m": 0.0}, "wall_m"),
        ({"pour_degc": 200.0}, "pour_degc"),
        ({"material": "gravel"}, "material"),
        ({"mould": "gravel"}, "mould"),
        ({"ways": [[BENCH, BENCH]]}, "path"),
        ({"ways": [[{**BENCH, "from_s": 5.0}]]}, "path"),
        ({"ways": [[BENCH], [{**BENCH, "place_id": "gone"}]]}, "ways.1.0.place_id"),
        ({"ways": [[BENCH, {**BENCH, "from_s": 80_000.0}]]}, "path"),
        ({"material": "isomalt", "bend": {"radius_m": 0.0001, "over_s": 2.0}}, "radius_m"),
        ({"material": "isomalt", "bend": {"radius_m": 0.03, "over_s": 0.0}}, "over_s"),
        ({"first": {"material": "coating", "thickness_m": 3.0, "degc": 20.0}}, "first.thickness_m"),
    ],
)
def test_what_cannot_be_is_refused_where_it_is(demo: Workshop, changes: dict[str, Any], path: str) -> None:
    with pytest.raises(CoreError) as refused:
        explore(demo, HeatRequest.model_validate({**CAST, **changes}, strict=False))
    assert refused.value.path == path
    assert len(refused.value.message) > 10


def test_a_fridge_warmer_than_the_room_is_refused_and_nothing_is_lost(demo: Workshop) -> None:
    stored = demo.get("kitchen", KITCHEN_ID)
    assert isinstance(stored.doc, documents.Kitchen)
    warm = [p.model_copy(update={"air_degc": 30.0}) if p.kind == "fridge" else p for p in stored.doc.places]
    with pytest.raises(OutOfRange, match="no colder than the room"):
        demo.save("kitchen", KITCHEN_ID, stored.version, stored.doc.model_copy(update={"places": warm}))
    assert demo.get("kitchen", KITCHEN_ID) == stored


def test_a_material_of_its_own_is_kept_shown_and_reckoned_with(demo: Workshop) -> None:
    sheet = [{"name": "half_time", "low": 60.0, "likely": 80.0, "high": 110.0}]
    own = {"name": "Quick wafers", "like": "coating", "sheet": sheet}
    demo.create("material", "quick", documents.OwnMaterial.model_validate(own))
    [group] = [g for g in tables(demo) if g.name == "own"]
    [row] = [p for p in group.rows[0].properties if p.name == "half_time"]
    assert (row.likely, row.source) == (80.0, "maker-sheet")
    quick, usual = asked(demo, "fridge", material="quick"), asked(demo, "fridge")
    assert quick.windows["touch"].likely < usual.windows["touch"].likely
    far = {**own, "sheet": [{**sheet[0], "likely": 8000.0, "high": 9000.0}]}
    unknown = {**own, "sheet": [{**sheet[0], "name": "tg_dry"}]}
    for wrong, path in ((far, "sheet.0.likely"), (unknown, "sheet.tg_dry")):
        with pytest.raises(OutOfRange) as refused:
            demo.create("material", "wrong", documents.OwnMaterial.model_validate(wrong))
        assert refused.value.path == path


def test_a_way_is_taken_into_a_piece_and_one_that_runs_backwards_is_not(demo: Workshop, tmp_path: Path) -> None:
    stored = demo.get("piece", "piece-disc")
    assert isinstance(stored.doc, Piece)
    way = [StayDoc.model_validate(s) for s in (BENCH, {**BENCH, "from_s": 90.0, "place_id": "fridge"})]

    def going(stays: list[StayDoc]) -> Piece:
        assert isinstance(stored.doc, Piece)
        [part] = stored.doc.parts
        return stored.doc.model_copy(update={"parts": [part.model_copy(update={"stays": stays})]})

    taken = demo.save("piece", "piece-disc", stored.version, going(way))
    with pytest.raises(OutOfRange, match="later than the one before"):
        demo.save("piece", "piece-disc", taken.version, going(way[::-1]))
    older = {
        "name": "Old disc",
        "material": "isomalt",
        "mould_id": "mould-disc",
        "cavity": 0,
        "fill_m": 0.004,
        "work": "stick",
        "stick": {"diameter_m": 0.004, "inside_m": 0.03},
    }
    [part] = Piece.model_validate(older, strict=False).parts
    assert (part.stays, [p.kind for p in part.passes]) == ([], ["fill", "stick"])
